#pragma once
#include <QObject>
#include <QPointer>
#include <QStringList>

#include <functional>
#include <string>

class QMenu;
class QWidget;

namespace kasuri::app {

class Bench;
class PromiseWindow;

/// What is done with the steps of a look through menus and dialogs.
class LookActions : public QObject {
    Q_OBJECT
public:
    LookActions(Bench& bench, QWidget* window);

    void fill_add(QMenu& menu);
    void fill_step(QMenu& menu, int index);
    void fill_current(QMenu& menu);
    static void fill_blends(QMenu& menu, const std::string& now, const std::function<void(const std::string&)>& choose);
    void add_files(const QStringList& files, int at);
    void add_empty(int at);
    void add_empty_next();
    /// The corrections of a colour decision list, as steps.
    void add_cdl(const QString& file);
    void ask_add();
    void ask_label(int index);
    void ask_title();
    /// What the look promises as a whole: ready-made lines behind what is in the menu, and a window to write them in.
    /// Nothing for a filter.
    void add_proofs(QMenu& menu);
    void open_proofs();
    void take_next(int by);
    void toggle_up_to_here();

signals:
    void library_wanted();

private:
    void write_filter(int index, bool ask);
    void take_apart(int index);

    Bench& bench_;
    QWidget* window_;
    QPointer<PromiseWindow> promise_;
};

} // namespace kasuri::app
