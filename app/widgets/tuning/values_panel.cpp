#include "widgets/tuning/values_panel.hpp"

#include "model/session.hpp"
#include "model/tuning.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/settings_dialog.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/tuning/value_editor.hpp"

#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenu>
#include <QToolButton>

#include <algorithm>
#include <tuple>

namespace kasuri::app {
namespace {

QString words(const std::vector<std::string>& names) {
    QStringList list;
    for (const std::string& name : names)
        list << QString::fromStdString(name);
    return list.join(", ");
}

} // namespace

ValuesPanel::ValuesPanel(Session& session, Tuning& tuning, QWidget* parent)
    : QWidget(parent), session_(session), tuning_(tuning) {
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
    list_ = new QWidget(this);
    auto* rows = new QVBoxLayout(list_);
    rows->setContentsMargins(theme::margin, 8, theme::margin, 8);
    rows->setSpacing(3);
    none_ = quiet_label({}, list_, 11.5);
    rows->addWidget(none_);
    column->addWidget(list_);
    heading_->fold(list_, "values");
    connect(&session_, &Session::rule_changed, this, &ValuesPanel::rebuild);
    connect(&session_, &Session::values_changed, this, &ValuesPanel::refresh);
    connect(&tuning_, &Tuning::changed, this, &ValuesPanel::rebuild);
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
    none_->setText(session_.fixed()
                       ? tr("A look or a LUT has no values\nof its own.")
                       : tr("No parameters. A line such as\nparam strength = 0 in 0 .. 1\nputs one here."));
    std::vector<Row> wanted;
    if (const lang::Rule* rule = session_.rule())
        for (std::size_t i = 0; i < rule->parameters.size(); ++i) {
            Row row{rule->parameters[i], !tuning_.linked_with(rule->parameters[i].name).empty()};
            if (row.parameter.kind == lang::ParameterKind::number || row.parameter.kind == lang::ParameterKind::whole)
                std::tie(row.parameter.low, row.parameter.high) = tuning_.range(row.parameter, session_.values()[i]);
            wanted.push_back(std::move(row));
        }
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
            const QString name = QString::fromStdString(row.parameter.name),
                          description = QString::fromStdString(row.parameter.description);
            auto* label = new QLabel(row.widget);
            label->setFixedWidth(62);
            if (row.linked) { // a sign that does not need colour
                QFont joined = label->font();
                joined.setUnderline(true);
                label->setFont(joined);
            }
            label->setText(label->fontMetrics().elidedText(name, Qt::ElideMiddle, 62));
            QStringList told = {description.isEmpty() ? name : name + ": " + description};
            if (row.linked)
                told << tr("moves together with %1").arg(words(tuning_.linked_with(row.parameter.name)));
            if (tuning_.narrowed(row.parameter.name))
                told << tr("set over a narrower range");
            label->setToolTip(told.join('\n'));
            row.widget->setContextMenuPolicy(Qt::CustomContextMenu);
            connect(row.widget, &QWidget::customContextMenuRequested, this,
                    [this, widget = row.widget, parameter = row.parameter.name](const QPoint& at) {
                        pop_up(widget, widget->mapToGlobal(at), [&](QMenu& menu) { fill_row_menu(menu, parameter); });
                    });
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
            connect(row.editor, &ValueEditor::value_edited, this,
                    [this, index](double value) { tuning_.set(index, value); });
            connect(row.editor, &ValueEditor::reset_wanted, this, [this, index] { session_.reset_value(index); });
            connect(row.reset, &QToolButton::clicked, this, [this, index] { session_.reset_value(index); });
        }
        none_->setVisible(rows_.empty());
    }
    refresh();
}

void ValuesPanel::fill_row_menu(QMenu& menu, const std::string& name) {
    const lang::Rule* rule = session_.rule();
    if (!rule)
        return;
    const std::vector<double> values = session_.values();
    const lang::Parameter* found = nullptr;
    double value = 0;
    int index = 0;
    const auto number = [](const lang::Parameter& p) {
        return p.kind == lang::ParameterKind::number || p.kind == lang::ParameterKind::whole;
    };
    QMenu* with = menu.addMenu(tr("Move together with"));
    const std::vector<std::string> linked = tuning_.linked_with(name);
    for (std::size_t i = 0; i < rule->parameters.size(); ++i) {
        const lang::Parameter& p = rule->parameters[i];
        if (p.name == name) {
            found = &p;
            value = values[i];
            index = static_cast<int>(i);
        } else if (number(p)) {
            QAction* action = with->addAction(QString::fromStdString(p.name), this, [this, name, other = p.name] {
                const std::vector<std::string> now = tuning_.linked_with(name);
                std::find(now.begin(), now.end(), other) != now.end() ? tuning_.unlink(other)
                                                                      : tuning_.link(name, other);
            });
            action->setCheckable(true);
            action->setChecked(std::find(linked.begin(), linked.end(), p.name) != linked.end());
        }
    }
    with->setEnabled(found && number(*found) && !with->isEmpty());
    if (!linked.empty())
        menu.addAction(tr("Move by itself"), this, [this, name] { tuning_.unlink(name); });
    menu.addSeparator();
    if (found && number(*found)) {
        menu.addAction(tr("Narrow the range around the value"), this,
                       [this, p = *found, value] { tuning_.narrow_around(p, value); });
        menu.addAction(tr("Range\u2026"), this, [this, p = *found, value] {
            const auto [low, high] = tuning_.range(p, value);
            const Setting ends[] = {{"from", "left end", low, p.low, p.high}, {"to", "right end", high, p.low, p.high}};
            edit_settings(this, QString::fromStdString(p.name), ends, {low, high},
                          [this, p](const std::vector<double>& typed) { tuning_.narrow(p, typed[0], typed[1]); });
        });
        QAction* whole =
            menu.addAction(tr("The whole range"), this, [this, p = *found] { tuning_.narrow(p, p.low, p.high); });
        whole->setEnabled(tuning_.narrowed(name));
        menu.addSeparator();
    }
    menu.addAction(tr("Reset"), this, [this, index] { session_.reset_value(index); });
}

void ValuesPanel::refresh() {
    const std::vector<double> values = session_.values();
    // A value that was set elsewhere may lie outside of a narrower range: then the whole one is there again.
    if (const lang::Rule* rule = session_.rule();
        rule && rule->parameters.size() == rows_.size() && rows_.size() == values.size())
        for (std::size_t i = 0; i < rows_.size(); ++i)
            if (rule->parameters[i].name == rows_[i].parameter.name && tuning_.narrowed(rows_[i].parameter.name) &&
                tuning_.range(rule->parameters[i], values[i]) !=
                    std::pair(rows_[i].parameter.low, rows_[i].parameter.high) &&
                rows_[i].parameter.kind == rule->parameters[i].kind)
                return rebuild();
    int differ = 0;
    for (std::size_t i = 0; i < rows_.size() && i < values.size(); ++i) {
        rows_[i].editor->set_value(values[i]);
        const bool moved = values[i] != rows_[i].parameter.value;
        rows_[i].reset->setEnabled(moved);
        differ += moved ? 1 : 0;
    }
    heading_->set_right(differ == 0       ? QString()
                            : differ == 1 ? tr("1 differs from default")
                                          : tr("%1 differ from default").arg(differ));
}

void ValuesPanel::show_presets() {
    pop_up(this, presets_->mapToGlobal(QPoint(0, presets_->height())), [this](QMenu& menu) { fill_presets(menu); });
}

void ValuesPanel::fill_presets(QMenu& menu) {
    if (const lang::Rule* rule = session_.rule()) {
        for (const lang::Preset& preset : rule->presets) {
            const QString name = QString::fromStdString(preset.name);
            menu.addAction(name, this, [this, values = preset.values, name] {
                session_.set_values(values, tr("preset %1").arg(name));
            });
        }
        if (!rule->presets.empty())
            menu.addSeparator();
        menu.addAction(tr("Reset all"), &session_, &Session::reset_values);
        QAction* keep = menu.addAction(tr("Keep these values as a preset\u2026"), this, [this] {
            bool accepted = false;
            const QString name = QInputDialog::getText(this, tr("Keep as preset"), tr("Name of the preset:"),
                                                       QLineEdit::Normal, {}, &accepted);
            if (accepted && !name.trimmed().isEmpty())
                session_.write_preset(name.trimmed());
        });
        QAction* defaults = menu.addAction(tr("Make these values the defaults"), &session_, &Session::write_defaults);
        for (QAction* action : {keep, defaults})
            action->setEnabled(session_.compiles() && !rule->parameters.empty());
    }
}

} // namespace kasuri::app
