#pragma once
#include "document/recipe.hpp"
#include "model/session.hpp"
#include "proof/ready_made.hpp"

#include <QLineEdit>
#include <QObject>
#include <QPointer>

class QMenu;

namespace kasuri::app {

class RuleEditor;

/// What is done to the text at the caret: renaming, comments, numbers in steps, recipes, ready-made proofs. Each is one
/// named step of undo.
class EditorCommands : public QObject {
    Q_OBJECT
public:
    EditorCommands(RuleEditor& editor, Session& session);

    void rename();
    void go_to_definition();
    void toggle_comments();
    /// The body of a function, or a run of parameters, presets, proofs or comments.
    void toggle_fold();
    /// The number at the caret, by so many of its steps. Presses without a pause are one step of undo.
    void step_number(double by);
    void fill_recipes(QMenu& menu);
    void fill_proofs(QMenu& menu);
    QLineEdit* rename_field() const { return rename_field_; }

signals:
    void said(const QString& message, bool bad);
    void colour_wanted(std::size_t at); ///< brackets or name of a colour were clicked with Ctrl

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    bool drag(QEvent* event);
    void write(const document::Written& written, const QString& name);
    void finish_rename();
    std::size_t caret() const;
    std::size_t position_at(const QPoint& point) const;
    bool definition_at(std::size_t position);

    RuleEditor& editor_;
    const QObject* viewport_; ///< to be compared with: the editor may be going already
    Session& session_;
    QPointer<QLineEdit> rename_field_;
    std::size_t renamed_at_ = 0;
    /// A number that is being dragged: where it begins, its value and step when it was taken, and since the modifiers
    /// changed.
    struct Dragged {
        std::size_t at = 0;
        double value = 0, step = 0.01;
        int x = 0;
        Qt::KeyboardModifiers modifiers{};
    };
    std::optional<Dragged> dragged_;
    int drags_ = 0;
};

} // namespace kasuri::app
