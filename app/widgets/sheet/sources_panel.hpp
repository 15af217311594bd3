#pragma once
#include "lang/rule.hpp"
#include "model/sheet.hpp"

#include <QWidget>

#include <string>
#include <vector>

class QLabel;
class QMenu;
class QToolButton;

namespace kasuri::app {

class Heading;

/// The further pictures that the rule reads: for each source what it is, a picture's own layer or one that was given to
/// it. Files and cells of the sheet can be dropped on a row. Not there while the rule has none.
class SourcesPanel : public QWidget {
    Q_OBJECT
public:
    explicit SourcesPanel(SheetModel& model, QWidget* parent = nullptr);
    void set_sources(const std::vector<lang::SourceInput>& sources);
    /// Those that some picture on the sheet does not have.
    void set_missing(const std::vector<std::string>& missing);
    /// A cell's caption was dropped there; false if that is no row of this panel.
    bool drop_cell(int id, const QPoint& global);
    /// What the row says, for tests and assistive technology.
    QString said(const std::string& source) const;
    void fill_menu(QMenu& menu, const std::string& source);

protected:
    void resizeEvent(QResizeEvent*) override { refresh(); }
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    struct Row {
        std::string name;
        QWidget* widget;
        QLabel* label;
        QToolButton* button;
    };
    void refresh();
    const Row* row_at(const QPoint& global) const;
    void ask(const std::string& source);

    SheetModel& model_;
    Heading* heading_;
    QWidget* list_;
    std::vector<Row> rows_;
    std::vector<std::string> missing_;
};

} // namespace kasuri::app
