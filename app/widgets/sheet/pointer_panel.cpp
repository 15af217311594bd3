#include "widgets/sheet/pointer_panel.hpp"

#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/numbers_panel.hpp"
#include "widgets/sheet/pins_panel.hpp"

#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {

/// Chooses the model whose components the numbers show.
QToolButton* model_button(NumbersPanel& numbers, QWidget* parent) {
    auto* button = new QToolButton(parent);
    button->setObjectName("model");
    button->setFont(theme::face(11.5));
    button->setPopupMode(QToolButton::InstantPopup);
    button->setAccessibleName(PointerPanel::tr("Colour model of the numbers"));
    auto* menu = new QMenu(button);
    button->setMenu(menu);
    const auto name = [](const colour::Model& model) {
        return QString::fromUtf8(model.name.data(), static_cast<qsizetype>(model.name.size()));
    };
    const auto choose = [button, name, &numbers](const colour::Model* model) {
        numbers.set_model(*model);
        button->setText(name(*model) + QString::fromUtf8(" \u25be"));
    };
    for (const colour::Model* model : colour::models())
        menu->addAction(name(*model), &numbers, [choose, model] { choose(model); });
    choose(&numbers.model());
    return button;
}

} // namespace

PointerPanel::PointerPanel(SheetModel& sheet, QWidget* parent) : QWidget(parent) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* heading = new Heading(tr("Pointer"), this);
    numbers_ = new NumbersPanel(this);
    heading->add_control(model_button(*numbers_, heading));
    pins_ = new PinsPanel(sheet, this);
    column->addWidget(heading);
    column->addWidget(numbers_, 1);
    column->addWidget(pins_);
}

} // namespace kasuri::app
