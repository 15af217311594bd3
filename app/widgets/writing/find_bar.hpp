#pragma once
#include "model/session.hpp"

#include <QLineEdit>
#include <QWidget>

class QLabel;
class QToolButton;

namespace kasuri::app {

class RuleEditor;

/// Finds and replaces in the rule: hits are marked while one types, all of them are replaced as one step. Hidden until
/// it is asked for.
class FindBar : public QWidget {
    Q_OBJECT
public:
    FindBar(RuleEditor& editor, Session& session, QWidget* parent = nullptr);
    /// Shows it with the selected text; with the line for the new text, if `replacing`.
    void open(bool replacing);
    void close_bar();
    void next(int by);
    void replace_one();
    void replace_all();
    QLineEdit* wanted() const { return wanted_; }
    QLineEdit* instead() const { return instead_; }
    std::size_t hits() const { return hits_.size(); }
    void set_whole_words(bool whole);
    void set_case_matters(bool matters);

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void search();
    void mark();
    std::ptrdiff_t current() const;

    RuleEditor& editor_;
    Session& session_;
    QLineEdit *wanted_, *instead_;
    QToolButton *whole_, *letters_, *one_, *all_;
    QWidget* second_;
    QLabel* count_;
    std::vector<Span> hits_;
};

} // namespace kasuri::app
