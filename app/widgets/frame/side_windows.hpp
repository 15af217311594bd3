#pragma once
#include "model/preview_result.hpp"

#include <QObject>
#include <QPointer>

class QWidget;

namespace kasuri::app {

class FitWindow;
class HelpWindow;
class PreferencesWindow;
class TornWindow;
class TraceWindow;
class WayBackWindow;
class WindowParts;
class WishesWindow;

/// The windows beside the main one, each made when it is first wanted.
class SideWindows : public QObject {
    Q_OBJECT
public:
    SideWindows(const WindowParts& parts, QWidget* window);

    /// A page by its name, "keys", or empty: what was shown last.
    void open_help(const QString& page = {});
    void open_preferences();
    void open_wishes();
    void open_fit();
    void open_way_back();
    void open_trace();
    void show_trace(const SheetResult& sheet);
    /// The sheet in a window of its own, or back.
    void tear_off_sheet();
    void put_sheet_back();

    WishesWindow* wishes() const { return wishes_; }
    FitWindow* fit() const { return fit_; }
    WayBackWindow* way_back() const { return way_back_; }
    QWidget* torn() const;

private:
    const WindowParts& parts_;
    QWidget* window_;
    HelpWindow* help_ = nullptr;
    WishesWindow* wishes_ = nullptr;
    FitWindow* fit_ = nullptr;
    WayBackWindow* way_back_ = nullptr;
    QPointer<PreferencesWindow> preferences_;
    QPointer<TraceWindow> trace_;
    QPointer<TornWindow> torn_;
};

} // namespace kasuri::app
