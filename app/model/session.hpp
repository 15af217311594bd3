#pragma once
#include "base/result.hpp"
#include "document/edit.hpp"
#include "lang/check.hpp"

#include <QObject>
#include <QString>
#include <QUndoStack>

#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::app {

using CheckedPtr = std::shared_ptr<const lang::Checked>;

/// Values of parameters by name: they outlive the moments in which the text does not compile.
using ValueMap = std::map<std::string, double>;

/// The values of a rule's parameters in their order: the chosen ones, else the defaults.
std::vector<double> values_for(const lang::Rule& rule, const ValueMap& chosen);

/// The filter on the bench: its text (the truth), the chosen values, its file, and the undo history of all of it.
/// The text is checked elsewhere (Preview) and comes back through `set_checked`.
class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);

    const std::string& text() const { return text_; }
    const ValueMap& chosen_values() const { return chosen_; }
    /// The last rule that compiled (null before the first), and the faults of the text as it is now.
    const lang::Rule* rule() const { return good_ ? &good_->rule : nullptr; }
    const std::vector<lang::Diagnostic>& diagnostics() const { return diagnostics_; }
    bool compiles() const { return compiles_; }
    std::vector<double> values() const;
    QUndoStack& undo_stack() { return stack_; }

    /// What the file holds as far as is known: the text as it was opened or saved.
    const std::string& saved_text() const { return saved_text_; }
    /// The file holds `theirs` now, and the text becomes `text`, as one step.
    void meet_file(const std::string& theirs, const std::string& text, const QString& step);

    const std::filesystem::path& path() const { return path_; }
    QString display_name() const; ///< file name without ending, or "untitled"
    /// Whether there is something that is not in the file: text, or values that were chosen. How the sheet is arranged
    /// is not.
    bool modified() const { return text_ != saved_text_ || values_differ(); }

    /// An edit that the editor has made already.
    void record_edit(const document::TextEdit& edit);
    /// An edit from elsewhere (a fix, a preset): changes the text and tells the editor.
    /// Edits of one `key` without a pause are one step.
    void apply_edit(const document::TextEdit& edit, const QString& name, const QString& key = {});
    void set_value(int parameter, double value);
    /// All values at once, as one step. With a parameter it is that one which is being changed: changes of it without a
    /// pause are one step.
    void set_values(const std::vector<double>& values, const QString& name, int parameter = -1);
    /// Another rule takes this one's place, and the history of both goes on: a step of a look. `saved`: what its file
    /// holds. `fixed`: it is shown and not written in.
    void open_step(std::string text, ValueMap values, std::filesystem::path path, std::string saved, bool fixed);
    bool fixed() const { return fixed_; } ///< edits and recalls do nothing then
    /// Another state of text and values, as one step.
    void recall(const std::string& text, const ValueMap& values, const QString& name);
    void reset_value(int parameter);
    void reset_values();
    /// The values become the defaults in the text, or a preset line in it.
    void write_defaults();
    void write_preset(const QString& name);

    /// What is there now counts as saved.
    void take_as_saved();

    // Files. Errors leave everything as it was.
    void start_new();
    Status open(const std::filesystem::path& path);
    Status save(const std::filesystem::path& path);
    /// Unsaved work that comes back: its file is opened if it is there, and what was not saved is one step on top of
    /// it.
    void bring_back(const std::filesystem::path& path, const std::string& text, const ValueMap& values);

    /// The result of checking `text`; ignored if the text has changed since.
    void set_checked(const std::string& text, const CheckedPtr& checked);

signals:
    void text_changed();                                 ///< check and evaluate again
    void text_edited(const kasuri::document::TextEdit&); ///< not by the editor: follow
    void text_replaced();                                ///< another document
    void values_changed();
    void rule_changed(); ///< parameters may be others
    void diagnostics_changed();
    void file_changed(); ///< name or modified mark

private:
    friend class TextCommand;
    friend class ValueCommand;
    void change_text(const document::TextEdit& edit);
    void change_values(const ValueMap& values);
    bool values_differ() const;
    void tell_if_modified();
    void load_text(std::string text, std::filesystem::path path);

    std::string text_, saved_text_;
    ValueMap chosen_, saved_values_;
    bool was_modified_ = false;
    CheckedPtr good_;
    std::vector<lang::Diagnostic> diagnostics_;
    bool compiles_ = false;
    bool fixed_ = false;
    std::filesystem::path path_;
    QUndoStack stack_;
};

} // namespace kasuri::app
