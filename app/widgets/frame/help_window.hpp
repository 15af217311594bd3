#pragma once
#include <QString>
#include <QWidget>

#include <vector>

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace kasuri::app {

/// The documentation in the program: pages, a search over all of them, and the keys, made from the table of actions.
class HelpWindow : public QWidget {
    Q_OBJECT
public:
    explicit HelpWindow(QWidget* parent = nullptr);
    /// A page by its name without ending, such as "looks"; "keys"; empty: the first one, or what was shown.
    void show_page(const QString& name);
    QLineEdit* search() const { return search_; }
    QListWidget* list() const { return list_; }
    QTextBrowser* page() const { return page_; }

    struct Page {
        QString name, title, text; ///< Markdown
    };
    static std::vector<Page> pages();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void fill(const QString& wanted);
    void open(int row);

    std::vector<Page> pages_;
    std::vector<std::pair<std::size_t, QString>> rows_; ///< page, and what is looked for in it
    QLineEdit* search_;
    QListWidget* list_;
    QTextBrowser* page_;
    std::size_t shown_ = 0;
};

} // namespace kasuri::app
