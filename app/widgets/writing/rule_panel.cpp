#include "widgets/writing/rule_panel.hpp"

#include "base/said.hpp"

#include "engine/lower.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/colour_picker.hpp"
#include "widgets/writing/disk_bar.hpp"
#include "widgets/writing/editor_assist.hpp"
#include "widgets/writing/editor_commands.hpp"
#include "widgets/writing/find_bar.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QLabel>
#include <QVBoxLayout>

#include <utility>

namespace kasuri::app {

RulePanel::RulePanel(Session& session, FileWatch& watch, QWidget* parent) : QWidget(parent), session_(session) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    heading_ = new Heading(tr("Rule"), this);
    editor_ = new RuleEditor(session_.undo_stack(), this);
    assist_ = new EditorAssist(*editor_);
    commands_ = new EditorCommands(*editor_, session_);
    find_ = new FindBar(*editor_, session_, this);
    picker_ = new ColourPicker(*editor_, session_);
    understood_ = quiet_label({}, this, 11.5);
    understood_->setFixedHeight(26);
    understood_->setContentsMargins(theme::margin, 0, theme::margin, 0);
    connect(commands_, &EditorCommands::colour_wanted, picker_, &ColourPicker::open);
    column->addWidget(heading_);
    column->addWidget(new DiskBar(watch, this));
    column->addWidget(editor_, 1);
    column->addWidget(find_);
    column->addWidget(understood_);
    editor_->replace_all(session_.text());
    connect(editor_, &RuleEditor::edited, &session_, &Session::record_edit);
    connect(editor_, &RuleEditor::fix_wanted, this, [this](const lang::Fix& fix) {
        document::TextEdit edit;
        edit.at = fix.span.begin;
        edit.removed = std::string(text_of(session_.text(), fix.span));
        edit.inserted = fix.text;
        session_.apply_edit(edit, QString::fromStdString(translated(fix.label)));
    });
    connect(&session_, &Session::text_edited, editor_, &RuleEditor::follow);
    connect(&session_, &Session::text_replaced, this, [this] {
        editor_->setReadOnly(false);
        editor_->replace_all(session_.text());
        editor_->setReadOnly(session_.fixed());
    });
    connect(&session_, &Session::diagnostics_changed, this, [this] {
        editor_->set_diagnostics(session_.diagnostics());
        refresh();
    });
    connect(&session_, &Session::rule_changed, this, &RulePanel::refresh);
    connect(&session_, &Session::file_changed, this, &RulePanel::refresh);
    refresh();
}

void RulePanel::open_picker() {
    picker_->open(static_cast<std::size_t>(editor_->SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS)));
}

QString RulePanel::understood() const { return understood_->text(); }

void RulePanel::show_understood(const std::string& words) {
    if (const QString known = QString::fromStdString(words); known != known_) {
        known_ = known;
        refresh();
    }
}

void RulePanel::set_name(const QString& name) {
    if (name == name_)
        return;
    name_ = name;
    refresh();
}

void RulePanel::show_sheet(std::size_t operations, bool identity) {
    const bool other_work = operations != std::exchange(operations_, operations),
               other_answer = identity != std::exchange(identity_, identity);
    if (other_work || other_answer)
        refresh();
}

void RulePanel::refresh() {
    heading_->set_detail(name_.isEmpty() ? session_.display_name() : name_);
    assist_->set_path(session_.path());
    std::set<std::string> names;
    if (const lang::Rule* rule = session_.rule())
        for (const lang::Parameter& p : rule->parameters)
            names.insert(p.name);
    editor_->set_parameters(std::move(names));
    if (const lang::Rule* rule = session_.rule())
        editor_->set_working(std::string(engine::working_space(*rule)));
    int errors = 0, warnings = 0, hints = 0;
    for (const lang::Diagnostic& d : session_.diagnostics())
        (d.severity == lang::Severity::error ? errors : d.severity == lang::Severity::warning ? warnings : hints) += 1;
    const auto counted = [](int count, const QString& one, const QString& many) {
        return count == 1 ? one : many.arg(count);
    };
    QStringList parts;
    if (errors > 0) {
        parts << counted(errors, tr("1 error"), tr("%1 errors")) +
                (session_.rule() ? tr(" (F8): the sheet shows the last good rule")
                                 : tr(" (F8): the sheet shows what was there before")); // this text never compiled
    } else if (session_.compiles()) {
        parts << (identity_
                      ? tr("Changes nothing: in is out, bit for bit")
                      : counted(static_cast<int>(operations_), tr("1 operation a pixel"), tr("%1 operations a pixel")));
        if (!known_.isEmpty())
            parts << known_;
        if (warnings > 0)
            parts << counted(warnings, tr("1 warning (F8)"), tr("%1 warnings (F8)"));
        if (hints > 0)
            parts << counted(hints, tr("1 hint (F8)"), tr("%1 hints (F8)"));
    }
    understood_->setText(parts.join("      "));
    heading_->set_right(errors > 0 ? tr("does not compile") : QString());
}

} // namespace kasuri::app
