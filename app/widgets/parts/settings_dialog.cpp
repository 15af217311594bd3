#include "widgets/parts/settings_dialog.hpp"

#include "model/words.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/theme.hpp"

#include <QComboBox>
#include <QDialog>
#include <QGridLayout>
#include <QPushButton>

#include <memory>

namespace kasuri::app {
namespace {
QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
} // namespace

void edit_settings(QWidget* parent, const QString& title, std::span<const Setting> settings,
                   const std::vector<double>& values, const std::function<void(const std::vector<double>&)>& changed) {
    auto* dialog = new QDialog(parent, Qt::Tool);
    dialog->setObjectName("settings");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(title);
    auto* grid = new QGridLayout(dialog);
    grid->setContentsMargins(theme::margin, 10, theme::margin, 10);
    grid->setVerticalSpacing(6);
    auto state = std::make_shared<std::vector<double>>(completed(settings, values));
    std::vector<std::function<void()>> resets;
    for (std::size_t i = 0; i < settings.size(); ++i) {
        const Setting& setting = settings[i];
        auto* name = new QLabel(words(setting.name), dialog);
        QWidget* editor = nullptr;
        const auto store = [state, changed, i](double value) {
            (*state)[i] = value;
            changed(*state);
        };
        if (setting.choices.empty()) {
            auto* field = new NumberField(dialog);
            field->set_range(setting.low, setting.high,
                             setting.whole ? 1
                                           : std::min(0.01 * (setting.high - setting.low),
                                                      setting.value != 0 ? std::abs(setting.value) / 20 : 0.05),
                             setting.whole);
            field->set_value((*state)[i]);
            field->setMinimumWidth(90);
            QObject::connect(field, &NumberField::value_edited, dialog, [store, field](double value) {
                field->set_value(value);
                store(value);
            });
            const auto reset = [store, field, value = setting.value] {
                field->set_value(value);
                store(value);
            };
            QObject::connect(field, &NumberField::reset_wanted, dialog, reset);
            resets.emplace_back(reset);
            editor = field;
        } else {
            auto* choice = new QComboBox(dialog);
            for (const std::string_view each : setting.choices)
                choice->addItem(words(each));
            choice->setCurrentIndex(static_cast<int>((*state)[i]));
            QObject::connect(choice, &QComboBox::currentIndexChanged, dialog, [store](int index) { store(index); });
            resets.emplace_back([choice, value = setting.value] { choice->setCurrentIndex(static_cast<int>(value)); });
            editor = choice;
        }
        editor->setAccessibleName(name->text());
        editor->setObjectName(utf8(setting.name));
        name->setBuddy(editor);
        grid->addWidget(name, static_cast<int>(i), 0);
        grid->addWidget(editor, static_cast<int>(i), 1);
        grid->addWidget(quiet_label(words(setting.doc), dialog, 11.5), static_cast<int>(i), 2);
    }
    auto* reset = new QPushButton(QObject::tr("Reset all"), dialog);
    reset->setAutoDefault(false); // Return belongs to the number that is being typed
    QObject::connect(reset, &QPushButton::clicked, dialog, [resets] {
        for (const auto& each : resets)
            each();
    });
    grid->addWidget(reset, static_cast<int>(settings.size()), 1);
    dialog->show();
}

} // namespace kasuri::app
