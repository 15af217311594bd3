#pragma once
#include "model/library_model.hpp"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QLineEdit;
class QListView;
class QMenu;
class QToolButton;

namespace kasuri::app {

class Bench;
class Files;
class Heading;
class LookActions;

/// The library under the sheet: a search, thumbnails in rows, and beside them what the chosen one is and what can be
/// done with it. Return or a double click opens, thumbnails are dragged onto the line of steps.
class LibraryPanel : public QWidget {
    Q_OBJECT
public:
    explicit LibraryPanel(Bench& bench, Files& files, LookActions& look, QWidget* parent = nullptr);
    LibraryModel& model() { return *model_; }
    QListView* list() const { return list_; }
    QLineEdit* search() const { return search_; }
    /// Puts the caret into the search.
    void begin();
    void fill_menu(QMenu& menu);
    QString current() const; ///< path; empty: none
    void add_folder(const QString& folder);
    const QStringList& own_folders() const { return own_folders_; }
    void keep_folder(const QString& folder); ///< adds it and remembers it
    void remove_folder(const QString& folder);

signals:
    void closed();
    void folders_changed();
    void said(const QString& message, bool bad);

protected:
    bool eventFilter(QObject* object, QEvent* event) override;
    void paintEvent(QPaintEvent*) override;

private:
    Heading* heading();
    void make_list();
    /// What the chosen one is, and what can be done with it.
    QWidget* details();
    QHBoxLayout* act_row(QWidget* detail);
    void make_presets(QWidget* detail);
    void connect_model();
    void show_chosen();
    void count();
    void open_current();
    void open_preset(const QString& preset);
    void add_as_step();
    void compare();
    void rename();
    void duplicate();
    void to_trash();
    void choose_folders(QMenu& menu);
    void set_folders();

    Bench& bench_;
    Files& files_;
    LookActions& look_;
    LibraryModel* model_;
    QLineEdit* search_;
    QLabel* count_;
    QListView* list_;
    QLabel* title_;
    QLabel* note_;
    QLabel* fault_;
    QToolButton* presets_;
    std::vector<QToolButton*> acts_;
    QStringList own_folders_;
};

} // namespace kasuri::app
