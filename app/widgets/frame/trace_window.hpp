#pragma once
#include "engine/reference.hpp"
#include "model/preview_result.hpp"

#include <QWidget>

class QTreeWidget;
class QTreeWidgetItem;

namespace kasuri::app {

/// "0.532 0.189 0.189", "true", "NaN"
QString value_text(const engine::TraceNode& node);

/// Every sub-expression of the rule at the pin in force, as a tree that follows; where a number stops being one is
/// marked and opened.
class TraceWindow : public QWidget {
    Q_OBJECT
public:
    explicit TraceWindow(QWidget* parent);
    void show_trace(const SheetResult& sheet, const QString& place);
    QTreeWidget* tree() const { return tree_; }

signals:
    void chosen(kasuri::Span span); ///< of the rule's text

private:
    QTreeWidget* tree_;
    std::string text_;
};

} // namespace kasuri::app
