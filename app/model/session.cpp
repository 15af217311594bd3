#include "model/session.hpp"

#include "document/filter_file.hpp"
#include "document/line_edits.hpp"
#include "model/file_names.hpp"
#include "model/undo_commands.hpp"

#include <algorithm>
#include <utility>

namespace kasuri::app {

std::vector<double> values_for(const lang::Rule& rule, const ValueMap& chosen) {
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters) {
        const auto found = chosen.find(p.name);
        // A range that was narrowed in the text holds for values chosen before.
        values.push_back(found == chosen.end() ? p.value : lang::allowed_value(p, found->second));
    }
    return values;
}

Session::Session(QObject* parent) : QObject(parent), text_(document::new_filter_text()), saved_text_(text_) {
    connect(&stack_, &QUndoStack::indexChanged, this, &Session::tell_if_modified);
}

bool Session::values_differ() const {
    if (chosen_ == saved_values_)
        return false;
    return !rule() || values_for(*rule(), chosen_) != values_for(*rule(), saved_values_);
}

void Session::tell_if_modified() {
    if (modified() != std::exchange(was_modified_, modified()))
        emit file_changed();
}

std::vector<double> Session::values() const { return rule() ? values_for(*rule(), chosen_) : std::vector<double>(); }

QString Session::display_name() const { return path_.empty() ? tr("untitled") : text_of(path_.stem()); }

void Session::record_edit(const document::TextEdit& edit) {
    change_text(edit);
    stack_.push(new TextCommand(*this, edit,
                                edit.removed.empty()        ? tr("typing")
                                    : edit.inserted.empty() ? tr("deleting")
                                                            : tr("replacing"),
                                true));
    emit text_changed();
}

void Session::apply_edit(const document::TextEdit& edit, const QString& name, const QString& key) {
    if (edit.removed != edit.inserted && !fixed_)
        stack_.push(new TextCommand(*this, edit, name, false, key));
}

void Session::change_text(const document::TextEdit& edit) { text_ = edit.applied(text_); }

void Session::change_values(const ValueMap& values) {
    chosen_ = values;
    emit values_changed();
}

void Session::set_value(int parameter, double value) {
    if (!rule() || parameter < 0 || static_cast<std::size_t>(parameter) >= rule()->parameters.size())
        return;
    const lang::Parameter& p = rule()->parameters[static_cast<std::size_t>(parameter)];
    const double wanted = lang::allowed_value(p, value);
    ValueMap after = chosen_;
    after[p.name] = wanted;
    if (wanted != values()[static_cast<std::size_t>(parameter)])
        stack_.push(new ValueCommand(*this, std::move(after), tr("%1").arg(QString::fromStdString(p.name)), parameter));
    else
        emit values_changed(); // what was asked for is shown somewhere, and is not what is
}

void Session::set_values(const std::vector<double>& values, const QString& name, int parameter) {
    if (!rule())
        return;
    ValueMap after = chosen_;
    for (std::size_t i = 0; i < values.size(); ++i)
        after[rule()->parameters[i].name] = values[i];
    if (after != chosen_)
        stack_.push(new ValueCommand(*this, std::move(after), name, parameter));
    else if (parameter >= 0)
        emit values_changed(); // what was asked for is shown somewhere, and is not what is
}

void Session::recall(const std::string& text, const ValueMap& values, const QString& name) {
    if (fixed_ || (text == text_ && values == chosen_))
        return;
    stack_.beginMacro(name);
    if (text != text_) {
        // Only what differs is exchanged, so that the caret and the folds stay where they are.
        const document::TextEdit edit = document::difference(text_, text);
        stack_.push(new TextCommand(*this, edit, name, false));
    }
    if (values != chosen_)
        stack_.push(new ValueCommand(*this, values, name, -1));
    stack_.endMacro();
}

void Session::reset_value(int parameter) {
    if (rule())
        set_value(parameter, rule()->parameters[static_cast<std::size_t>(parameter)].value);
}

void Session::reset_values() {
    if (!rule())
        return;
    std::vector<double> defaults;
    for (const lang::Parameter& p : rule()->parameters)
        defaults.push_back(p.value);
    set_values(defaults, tr("reset of all values"));
}

void Session::write_defaults() {
    if (rule() && compiles_)
        apply_edit(document::with_defaults(text_, *rule(), values()), tr("values as defaults"));
}

void Session::write_preset(const QString& name) {
    if (rule() && compiles_ && !rule()->parameters.empty())
        apply_edit(document::with_preset(text_, *rule(), name.toStdString(), values()), tr("preset %1").arg(name));
}

void Session::load_text(std::string text, std::filesystem::path path) {
    text_ = std::move(text);
    path_ = std::move(path);
    saved_text_ = text_;
    chosen_.clear();
    saved_values_.clear();
    was_modified_ = false;
    fixed_ = false;
    good_.reset();
    diagnostics_.clear();
    compiles_ = false;
    stack_.clear();
    stack_.setClean();
    emit text_replaced();
    emit rule_changed();
    emit diagnostics_changed();
    emit file_changed();
    emit text_changed();
}

void Session::open_step(std::string text, ValueMap values, std::filesystem::path path, std::string saved, bool fixed) {
    text_ = std::move(text);
    path_ = std::move(path);
    saved_text_ = std::move(saved);
    chosen_ = saved_values_ = std::move(values);
    was_modified_ = modified();
    fixed_ = fixed;
    good_.reset();
    diagnostics_.clear();
    compiles_ = false;
    emit text_replaced();
    emit rule_changed();
    emit diagnostics_changed();
    emit file_changed();
    emit text_changed();
}

void Session::start_new() { load_text(document::new_filter_text(), {}); }

Status Session::open(const std::filesystem::path& path) {
    Result<std::string> text = document::load_filter(path);
    if (!text)
        return text.error();
    load_text(std::move(text.value()), path);
    return {};
}

void Session::meet_file(const std::string& theirs, const std::string& text, const QString& step) {
    saved_text_ = theirs;
    if (text != text_)
        recall(text, chosen_, step);
    tell_if_modified();
    emit file_changed();
}

void Session::bring_back(const std::filesystem::path& path, const std::string& text, const ValueMap& values) {
    const Result<std::string> saved =
        path.empty() ? Result<std::string>(document::new_filter_text()) : document::load_filter(path);
    load_text(saved ? saved.value() : std::string(), path);
    recall(text, values, tr("work brought back"));
}

void Session::take_as_saved() {
    saved_text_ = text_;
    saved_values_ = chosen_;
    was_modified_ = false;
    stack_.setClean();
    emit file_changed();
}

Status Session::save(const std::filesystem::path& path) {
    if (const Status saved = document::save_filter(path, text_); !saved)
        return saved;
    const bool moved = path != path_;
    path_ = path;
    take_as_saved();
    if (moved)
        emit text_changed(); // files that it uses are looked for beside it
    return {};
}

void Session::set_checked(const std::string& text, const CheckedPtr& checked) {
    if (text != text_)
        return;
    diagnostics_ = checked->diagnostics;
    compiles_ = checked->ok;
    if (checked->ok)
        good_ = checked;
    emit diagnostics_changed();
    if (checked->ok)
        emit rule_changed();
}

} // namespace kasuri::app
