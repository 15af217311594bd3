#include "widgets/frame/side_windows.hpp"

#include "model/bench.hpp"
#include "widgets/files/files.hpp"
#include "widgets/frame/help_window.hpp"
#include "widgets/frame/preferences.hpp"
#include "widgets/frame/previewing.hpp"
#include "widgets/frame/trace_window.hpp"
#include "widgets/frame/window_layout.hpp"
#include "widgets/frame/window_parts.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/parts/window_place.hpp"
#include "widgets/sheet/pins_panel.hpp"
#include "widgets/sheet/sheet_view.hpp"
#include "widgets/sheet/torn_window.hpp"
#include "widgets/tuning/fit_window.hpp"
#include "widgets/tuning/mix_panel.hpp"
#include "widgets/tuning/way_back_window.hpp"
#include "widgets/tuning/wishes_window.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QSplitter>

namespace kasuri::app {
namespace {

void to_front(QWidget& window) {
    window.show();
    window.raise();
}

} // namespace

SideWindows::SideWindows(const WindowParts& parts, QWidget* window) : QObject(window), parts_(parts), window_(window) {}

QWidget* SideWindows::torn() const { return torn_; }

void SideWindows::open_help(const QString& page) {
    if (!help_)
        help_ = new HelpWindow(window_);
    help_->show_page(page);
    to_front(*help_);
}

void SideWindows::open_preferences() {
    if (!preferences_)
        preferences_ = new PreferencesWindow(
            {parts_.get<Bench>(), parts_.get<Files>(), parts_.get<LibraryPanel>(), *parts_.get<RulePanel>().editor()},
            window_);
    to_front(*preferences_);
}

void SideWindows::open_wishes() {
    if (!wishes_) {
        wishes_ = new WishesWindow(parts_.get<Bench>().session(), parts_.get<MixPanel>(), window_);
        place_beside(*wishes_, parts_.get<RulePanel>(), "wishes");
        connect(&parts_.get<SheetView>(), &SheetView::pins_read, wishes_, &WishesWindow::set_pins);
        wishes_->set_pins(parts_.get<PinsPanel>().pins());
    }
    to_front(*wishes_);
}

void SideWindows::open_fit() {
    if (!fit_) {
        fit_ = new FitWindow(parts_.get<Bench>(), window_);
        place_beside(*fit_, parts_.get<RulePanel>(), "fit");
    }
    to_front(*fit_);
}

void SideWindows::open_way_back() {
    if (!way_back_) {
        way_back_ = new WayBackWindow(parts_.get<Bench>(), window_);
        place_beside(*way_back_, parts_.get<RulePanel>(), "way-back");
    }
    to_front(*way_back_);
}

void SideWindows::open_trace() {
    Bench& bench = parts_.get<Bench>();
    Previewing& previewing = parts_.get<Previewing>();
    if (!bench.sheet().active_pin() && !previewing.looks_into())
        return bench.refuse(tr("Pin a place first: click in a cell with Ctrl, or P."));
    if (!trace_) {
        trace_ = new TraceWindow(window_);
        place_beside(*trace_, parts_.get<RulePanel>(), "trace");
        connect(trace_, &TraceWindow::chosen, parts_.get<RulePanel>().editor(), &RuleEditor::select);
    }
    to_front(*trace_);
    previewing.request();
}

void SideWindows::show_trace(const SheetResult& sheet) {
    if (!trace_)
        return;
    const Pin* pin = parts_.get<Bench>().sheet().active_pin();
    trace_->show_trace(sheet,
                       parts_.get<Previewing>().looks_into() ? tr("the worst colour of a proof")
                           : pin                             ? tr("pin %1").arg(pin->number)
                                                             : tr("no pin"));
}

void SideWindows::tear_off_sheet() {
    if (torn_) {
        torn_->close();
        return;
    }
    torn_ = new TornWindow(&parts_.get<SheetView>(), parts_.get<WindowLayout>().columns(), tr("Sheet \u2013 Kasuri"));
    torn_->show();
}

void SideWindows::put_sheet_back() {
    if (torn_)
        torn_->give_back();
}

} // namespace kasuri::app
