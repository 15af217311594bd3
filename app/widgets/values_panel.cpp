#include "widgets/values_panel.hpp"

#include "model/session.hpp"
#include "widgets/heading.hpp"
#include "widgets/number_field.hpp"
#include "widgets/theme.hpp"
#include "widgets/value_editor.hpp"

#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenu>
#include <QScrollArea>
#include <QToolButton>

namespace kasuri::app {

ValuesPanel::ValuesPanel(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    heading_ = new Heading(tr("Values"), this);
    presets_ = new QToolButton(this);
    presets_->setText(tr("presets") + " \u25be");
    presets_->setFont(theme::face(11.5));
    presets_->setAccessibleName(tr("Presets"));
    connect(presets_, &QToolButton::clicked, this, &ValuesPanel::show_presets);
    heading_->add_control(presets_);
    column->addWidget(heading_);
    auto* scroll = new QScrollArea(this);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_ = new QWidget(scroll);
    auto* rows = new QVBoxLayout(list_);
    rows->setContentsMargins(theme::margin, 8, theme::margin, 8);
    rows->setSpacing(3);
    none_ = quiet_label(tr("No parameters. A line such as\nparam strength = 0 in 0 .. 1\nputs one here."), list_, 11.5);
    rows->addWidget(none_);
    rows->addStretch(1);
    scroll->setWidget(list_);
    column->addWidget(scroll, 1);
    connect(&session_, &Session::rule_changed, this, &ValuesPanel::rebuild);
    connect(&session_, &Session::values_changed, this, &ValuesPanel::refresh);
    rebuild();
}

ValueEditor* ValuesPanel::editor(const std::string& name) const {
    for (const Row& row : rows_)
        if (row.parameter.name == name)
            return row.editor;
    return nullptr;
}

NumberField* ValuesPanel::field(const std::string& name) const {
    const ValueEditor* found = editor(name);
    return found ? found->field() : nullptr;
}

void ValuesPanel::rebuild() {
    std::vector<Row> wanted;
    if (const lang::Rule* rule = session_.rule())
        for (const lang::Parameter& p : rule->parameters)
            wanted.push_back({p});
    const bool same = std::equal(wanted.begin(), wanted.end(), rows_.begin(), rows_.end(),
                                 [](const Row& a, const Row& b) { return a.same(b); });
    if (!same) { // typing elsewhere in the text must not take the field from under a drag
        for (const Row& row : rows_)
            row.widget->deleteLater();
        rows_ = std::move(wanted);
        auto* layout = static_cast<QVBoxLayout*>(list_->layout());
        for (std::size_t i = 0; i < rows_.size(); ++i) {
            Row& row = rows_[i];
            const int index = static_cast<int>(i);
            row.widget = new QWidget(list_);
            row.widget->setFixedHeight(26);
            auto* line = new QHBoxLayout(row.widget);
            line->setContentsMargins(0, 0, 0, 0);
            line->setSpacing(8);
            const QString name = QString::fromStdString(row.parameter.name), description = QString::fromStdString(row.parameter.description);
            auto* label = new QLabel(row.widget);
            label->setFixedWidth(62);
            label->setText(label->fontMetrics().elidedText(name, Qt::ElideMiddle, 62));
            label->setToolTip(description.isEmpty() ? name : name + ": " + description);
            label->setTextInteractionFlags(Qt::NoTextInteraction);
            row.editor = make_value_editor(row.parameter, row.widget);
            row.editor->setToolTip(description);
            row.reset = new QToolButton(row.widget);
            row.reset->setText("\u21ba");
            row.reset->setToolTip(tr("Reset %1 (Backspace)").arg(name));
            row.reset->setAccessibleName(tr("Reset %1").arg(name));
            row.reset->setFixedWidth(26);
            line->addWidget(label);
            line->addWidget(row.editor, 1);
            line->addWidget(row.reset);
            layout->insertWidget(index, row.widget);
            connect(row.editor, &ValueEditor::value_edited, this, [this, index](double value) { session_.set_value(index, value); });
            connect(row.editor, &ValueEditor::reset_wanted, this, [this, index] { session_.reset_value(index); });
            connect(row.reset, &QToolButton::clicked, this, [this, index] { session_.reset_value(index); });
        }
        none_->setVisible(rows_.empty());
    }
    refresh();
}

void ValuesPanel::refresh() {
    const std::vector<double> values = session_.values();
    int differ = 0;
    for (std::size_t i = 0; i < rows_.size() && i < values.size(); ++i) {
        rows_[i].editor->set_value(values[i]);
        const bool moved = values[i] != rows_[i].parameter.value;
        rows_[i].reset->setEnabled(moved);
        differ += moved ? 1 : 0;
    }
    heading_->set_right(differ == 0 ? QString() : differ == 1 ? tr("1 differs from default") : tr("%1 differ from default").arg(differ));
}

void ValuesPanel::show_presets() {
    QMenu menu(this);
    if (const lang::Rule* rule = session_.rule()) {
        for (const lang::Preset& preset : rule->presets) {
            const QString name = QString::fromStdString(preset.name);
            menu.addAction(name, this, [this, values = preset.values, name] { session_.set_values(values, tr("preset %1").arg(name)); });
        }
        if (!rule->presets.empty())
            menu.addSeparator();
        menu.addAction(tr("Reset all"), &session_, &Session::reset_values);
        QAction* keep = menu.addAction(tr("Keep these values as a preset\u2026"), this, [this] {
            bool accepted = false;
            const QString name = QInputDialog::getText(this, tr("Keep as preset"), tr("Name of the preset:"), QLineEdit::Normal, {}, &accepted);
            if (accepted && !name.trimmed().isEmpty())
                session_.write_preset(name.trimmed());
        });
        QAction* defaults = menu.addAction(tr("Make these values the defaults"), &session_, &Session::write_defaults);
        for (QAction* action : {keep, defaults})
            action->setEnabled(session_.compiles() && !rule->parameters.empty());
    }
    menu.exec(presets_->mapToGlobal(QPoint(0, presets_->height())));
}

} // namespace kasuri::app
