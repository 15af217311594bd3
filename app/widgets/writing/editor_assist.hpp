#pragma once
#include "lang/assist.hpp"
#include "widgets/writing/completion_list.hpp"

#include <QLabel>
#include <QObject>
#include <QPointer>

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::app {

class RuleEditor;

/// Helps to write in the editor: completion while typing (Ctrl+Space: at once), the form of the function that is being
/// called, and what a word means (under the pointer, or F1).
class EditorAssist : public QObject {
    Q_OBJECT
public:
    explicit EditorAssist(RuleEditor& editor);
    /// Of the filter: files that it uses stand beside it.
    void set_path(const std::filesystem::path& path) { path_ = path; }

    /// Shows what can be written at the caret. `asked`: by the user; then Return takes an incomplete word's row at
    /// once.
    void complete(bool asked = false);
    void explain_at_caret();
    void close();
    CompletionList* list() const { return list_; }
    QLabel* hint() const { return hint_; }

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    lang::CheckOptions options() const;
    std::size_t caret() const;
    void after_typing(const QString& typed);
    void accept();
    void refresh_hint();
    bool key(int key);
    bool return_takes() const;
    /// Whether the list was made for the text and the caret of now.
    bool is_list_of_now() const;
    /// Whether a closing bracket that a completion wrote stands at the caret.
    bool closes_already() const;
    void follow_edit(int position, int kind, int length);
    QPoint below(std::size_t position) const; ///< in the window
    QString explained(std::size_t position) const;

    RuleEditor& editor_;
    std::filesystem::path path_;
    QPointer<CompletionList> list_; ///< children of the window: they may lie over other panels
    QPointer<QLabel> hint_;
    bool accepting_ = false;
    bool asked_ = false;                ///< the list was asked for
    std::string made_for_;              ///< the text that the list was made for
    std::size_t made_at_ = 0;           ///< and the caret
    std::vector<std::size_t> closings_; ///< where brackets stand that completions closed by themselves
};

} // namespace kasuri::app
