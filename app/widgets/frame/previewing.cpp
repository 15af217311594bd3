#include "widgets/frame/previewing.hpp"

#include "model/bench.hpp"
#include "widgets/sheet/sheet_view.hpp"
#include "widgets/sheet/strip_view.hpp"

#include <QScreen>
#include <QTimer>

#include <algorithm>

namespace kasuri::app {

Previewing::Previewing(Bench& bench, SheetView& sheet, QObject* parent)
    : QObject(parent), bench_(bench), sheet_(sheet) {
    Session& session = bench.session();
    connect(&session, &Session::text_changed, this, &Previewing::request);
    connect(&session, &Session::values_changed, this, &Previewing::request);
    connect(&bench.file_watch(), &FileWatch::used_files_changed, this, &Previewing::request);
    connect(&bench.look(), &LookModel::changed, this, &Previewing::request);
    connect(&bench.readings(), &ReadingsModel::changed, this, &Previewing::request);
    connect(&bench.against(), &Against::changed, this, &Previewing::request);
    connect(&bench, &Bench::spaces_changed, this, &Previewing::request);
    connect(&sheet, &SheetView::wanted, this, &Previewing::request);
    connect(&sheet, &SheetView::current_changed, this, &Previewing::request);
    connect(&bench.sheet(), &SheetModel::pins_changed, this, &Previewing::stop_looking_into);
    connect(&preview_, &Preview::checked, &session, &Session::set_checked);
    connect(&preview_, &Preview::sheet_ready, this, [this](const SheetPtr& result) {
        shown_ = result->generation;
        emit sheet_ready(result);
    });
    connect(&preview_, &Preview::gave_up, this, [this](const QString& why) {
        shown_ = read_ = proved_ = asked_; // nothing more comes of it
        bench_.refuse(why);
    });
    connect(&preview_, &Preview::readings_ready, this, [this](const ReadingsPtr& result) {
        read_ = result->generation;
        emit readings_ready(result);
    });
    connect(&preview_, &Preview::proofs_ready, this, [this](const ProofsPtr& result) {
        proved_ = result->complete ? result->generation : proved_;
        emit proofs_ready(result);
        if (result->complete && looked_into_ &&
            std::all_of(result->outcomes.begin(), result->outcomes.end(),
                        [](const proof::Outcome& outcome) { return outcome.passed; }))
            stop_looking_into(); // it is mended
    });
}

void Previewing::request() {
    if (pending_)
        return;
    pending_ = true;
    QTimer::singleShot(0, this, &Previewing::ask);
}

void Previewing::ask() {
    pending_ = false;
    PreviewRequest request = wanted();
    emit asked(request);
    asked_ = preview_.request(std::move(request));
}

PreviewRequest Previewing::wanted() const {
    PreviewRequest wanted;
    const Session& session = bench_.session();
    const SheetModel& sheet = bench_.sheet();
    wanted.text = session.text();
    wanted.path = session.path();
    wanted.files = bench_.file_watch().used_files();
    wanted.values = session.chosen_values();
    wanted.around = bench_.look().around();
    wanted.strip_pixels = sheet_.strip_pixels();
    wanted.strips = sheet_.strip_jobs();
    wanted.cells = sheet_.jobs();
    wanted.screen = sheet.screen();
    wanted.against = bench_.against().rule();
    wanted.sources = sheet.given_pictures();
    if (looked_into_)
        wanted.trace = PreviewRequest::Point{0, {}, looked_into_->before};
    else if (const Pin* pin = sheet.active_pin())
        for (const Cell& cell : sheet.cells())
            if (!wanted.trace && cell.source() == pin->source)
                wanted.trace = PreviewRequest::Point{cell.id, pin->pixel, {}};
    wanted.readings = bench_.readings().jobs(sheet, sheet_.current_cell());
    if (const QScreen* const screen = sheet_.screen(); screen && screen->refreshRate() >= 1)
        wanted.refresh = std::chrono::microseconds(static_cast<int>(1e6 / screen->refreshRate()));
    return wanted;
}

bool Previewing::settled() const {
    const Session& session = bench_.session();
    if (pending_ || bench_.sheet().loading())
        return false;
    // A first text that does not compile has nothing to show but its faults.
    const bool nothing_yet = !session.rule() && lang::has_error(session.diagnostics());
    return nothing_yet || (shown_ == asked_ && read_ == asked_ && proved_ == asked_);
}

void Previewing::look_into(const proof::Place& place) {
    looked_into_ = place;
    request();
}

void Previewing::stop_looking_into() {
    looked_into_.reset();
    request();
}

} // namespace kasuri::app
