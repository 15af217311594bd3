#pragma once
#include <QObject>
#include <QUrl>

class QMenu;
class QWidget;

namespace kasuri::app {

class Bench;
class LookActions;

/// Opening and saving, with the questions that go with it.
class Files : public QObject {
    Q_OBJECT
public:
    Files(Bench& bench, LookActions& look, QWidget* window);

    void new_filter();
    void ask_open();
    /// A filter or a look goes on the bench (asking about unsaved work), a LUT or correction behind the active step, a
    /// picture into a new cell, a colour config into use.
    void open(const QString& file, const QString& lens = QStringLiteral("colour"));
    /// A filter at one of its presets.
    void open_at(const QString& file, const QString& preset);
    void open_urls(const QList<QUrl>& urls);
    bool save();
    bool save_to(const QString& file);
    bool ask_save_as();
    void ask_config();
    void fill_recent(QMenu& menu);
    /// Whether unsaved work may go: saved, given up, or nothing to lose.
    bool may_leave();

signals:
    void saved();

private:
    void open_filter(const QString& file);
    void open_look(const QString& file);

    Bench& bench_;
    LookActions& look_;
    QWidget* window_;
};

} // namespace kasuri::app
