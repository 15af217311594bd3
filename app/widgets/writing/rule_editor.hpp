#pragma once
#include "document/line_edits.hpp"
#include "lang/diagnostic.hpp"

#include <Qsci/qsciscintilla.h>

#include <QTimer>

#include <optional>
#include <set>
#include <span>
#include <string>
#include <vector>

class QMenu;
class QUndoStack;

namespace kasuri::app {

class MessageBox;
class RuleLexer;

/// The text of the rule. Undo is the window's, not the editor's: every change goes out as a TextEdit, and changes
/// from elsewhere come in through `follow`. Faults are underlined at once; after a pause the message of the
/// nearest one opens below its line, with its fix.
class RuleEditor : public QsciScintilla {
    Q_OBJECT
public:
    explicit RuleEditor(QUndoStack& undo, QWidget* parent = nullptr);

    void replace_all(const std::string& text);
    void follow(const document::TextEdit& edit);
    void set_diagnostics(const std::vector<lang::Diagnostic>& diagnostics);
    void set_parameters(std::set<std::string> names);
    /// The fault whose message is shown, if any.
    const lang::Diagnostic* shown_fault() const;
    /// Applies the first fix of the shown fault (or of the first that has one).
    bool apply_fix();
    void go_to_next_fault();
    std::string content() const;
    /// The selected text, or the name that the caret is in or behind; empty if there is none.
    QString expression_at_caret() const;

    /// What the lines come to at the pin in force: beside their ends, quietly.
    struct LineValue {
        std::uint32_t end = 0; ///< of the statement, in the text
        QString text;
        bool bad = false; ///< not a number, or infinite
        friend bool operator==(const LineValue&, const LineValue&) = default;
    };
    void set_line_values(std::vector<LineValue> values);
    /// What stands at the ends of lines with faults, the one with the caret or a message excepted.
    const std::vector<LineValue>& line_faults() const { return line_faults_; }
    const std::vector<LineValue>& line_values() const { return line_values_; }
    void select(Span span);
    /// The space in which three numbers are a colour: under each such colour of the text lies a bar of it.
    void set_working(const std::string& space);

signals:
    void edited(const kasuri::document::TextEdit& edit);
    void fix_wanted(const kasuri::lang::Fix& fix);
    void files_dropped(const QList<QUrl>& urls);

protected:
    bool event(QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void fill_menu(QMenu& menu);
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void take_room();
    /// Words at the ends of lines, as far as there is room.
    void draw_line_ends(QPainter& painter, std::span<const LineValue> ends) const;
    /// The first words of faults whose message is not shown.
    void find_line_faults();
    void draw_colours(QPainter& painter) const;
    void modified(int position, int type, const char* text, int length);
    void choose_message();
    void place_message();
    int line_of(std::uint32_t offset) const;

    QUndoStack& undo_;
    RuleLexer* lexer_;
    MessageBox* message_;
    QTimer pause_;
    std::string mirror_; ///< the text as last seen, for what a removal removed
    std::vector<lang::Diagnostic> diagnostics_;
    std::optional<std::size_t> shown_;
    std::vector<LineValue> line_values_;
    std::vector<LineValue> line_faults_;
    std::string working_;
    std::vector<document::ColourPlace> colours_;
    bool following_ = false;
};

} // namespace kasuri::app
