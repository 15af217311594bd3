#include "model/preview.hpp"

#include "base/parallel.hpp"
#include "base/timeline.hpp"
#include "model/preview_worker.hpp"

#include <QTimer>

#include <algorithm>
#include <exception>
#include <new>
#include <utility>

#if defined(__linux__)
#include <pthread.h>
#endif

namespace kasuri::app {
namespace {

using Clock = std::chrono::steady_clock;
double milliseconds(Clock::time_point from) {
    return std::chrono::duration<double, std::milli>(Clock::now() - from).count();
}

constexpr std::chrono::milliseconds patience{250};
constexpr double proofs_wait_ms = 12;                 ///< so long measured, some are told before all are there
constexpr double readings_wait_ms = 100;              ///< while newer work waits, readings may be so old
constexpr double readings_late_ms = 400;              ///< and where they take long, so old
constexpr auto pause = std::chrono::milliseconds(20); ///< after which a row is over
/// An exact sheet that takes longer misses the refresh of the screen: a coarse one goes first.
constexpr double refresh_ms = 12;

} // namespace

Preview::Preview(QObject* parent) : QObject(parent) {
    qRegisterMetaType<CheckedPtr>();
    qRegisterMetaType<SheetPtr>();
    qRegisterMetaType<ReadingsPtr>();
    qRegisterMetaType<ProofsPtr>();
    thread_ = std::thread([this] { loop(); });
}

Preview::~Preview() {
    {
        const std::lock_guard lock(mutex_);
        stop_ = true;
        current_.cancel();
    }
    wake_.notify_one();
    thread_.join();
}

std::uint64_t Preview::request(PreviewRequest request) {
    std::uint64_t generation = 0;
    {
        const std::lock_guard lock(mutex_);
        waiting_ = std::make_unique<PreviewRequest>(std::move(request));
        generation = ++generation_;
        in_a_row_ = in_a_row_ || (busy_ && !optional_);
        if (optional_ || Clock::now() - began_ > patience)
            current_.cancel();
        else if (busy_) // and what turns out to be slow only later
            QTimer::singleShot(patience, this, [slow = current_] { slow.cancel(); });
    }
    wake_.notify_one();
    return generation;
}

struct Preview::Pace {
    Clock::time_point last_read{};
    double exact_ms = 0;
    double all_ms = 0; ///< of the last exact sheet with its readings

    /// Whether a row of requests may wait for an exact sheet and its readings: ten times a second where that takes no
    /// more than a third of the time, else less often.
    bool due() const { return milliseconds(last_read) >= std::clamp(3 * all_ms, readings_wait_ms, readings_late_ms); }
};

void Preview::loop() {
#if defined(__linux__)
    pthread_setname_np(pthread_self(), "preview"); // for debuggers and profilers
#endif
    give_way(); // painting comes first
    auto worker = std::make_unique<PreviewWorker>();
    Pace pace;
    while (true) {
        std::unique_ptr<PreviewRequest> request;
        std::uint64_t generation = 0;
        CancelToken cancel;
        bool hurried = false;
        {
            std::unique_lock lock(mutex_);
            busy_ = false;
            wake_.wait(lock, [this] { return stop_ || waiting_; });
            if (stop_)
                return;
            request = std::move(waiting_);
            generation = generation_;
            current_ = cancel;
            hurried = std::exchange(in_a_row_, false);
            optional_ = false;
            busy_ = true;
            began_ = Clock::now();
        }
        try {
            work(*worker, *request, generation, hurried, cancel, pace);
        } catch (const std::bad_alloc&) {
            worker = std::make_unique<PreviewWorker>(); // what was remembered is memory, too
            emit gave_up(
                tr("There is not enough memory to show this. Your text and values are safe; show fewer or smaller "
                   "pictures."));
        } catch (const std::exception& fault) {
            worker = std::make_unique<PreviewWorker>();
            emit gave_up(tr("This could not be shown: %1").arg(QString::fromUtf8(fault.what())));
        }
    }
}

void Preview::work(PreviewWorker& worker, const PreviewRequest& request, std::uint64_t generation, bool hurried,
                   const CancelToken& cancel, Pace& pace) {
    const auto from = Clock::now();
    const bool shows = worker.take(request, cancel);
    if (worker.fresh())
        emit checked(request.text, worker.last_checked());
    if (!shows)
        return;
    const auto tell = [&](const std::shared_ptr<SheetResult>& sheet) {
        sheet->generation = generation;
        sheet->total_ms = milliseconds(from);
        emit sheet_ready(sheet);
    };
    // In a row, as when a value is dragged, the eye follows the coarse sheet, and the exact one comes now and then
    // and at the end.
    if ((pace.exact_ms > refresh_ms || hurried) && worker.coarse_helps(request)) {
        const std::shared_ptr<SheetResult> coarse = worker.sheet(request, true, cancel);
        if (!coarse)
            return;
        tell(coarse);
        const bool due = pace.due();
        std::unique_lock lock(mutex_);
        if (!due &&
            wake_.wait_for(lock, hurried ? pause : Clock::duration::zero(), [this] { return stop_ || waiting_; })) {
            in_a_row_ = true;
            return;
        }
        optional_ = !due; // something is on the screen
    }
    const auto exact_from = Clock::now();
    const std::shared_ptr<SheetResult> sheet = worker.sheet(request, false, cancel);
    if (!sheet)
        return;
    // What was kept from before makes the next sheet look quick: a slow one is forgotten step by step.
    pace.exact_ms = std::max(milliseconds(exact_from), 0.8 * pace.exact_ms);
    tell(sheet);
    {
        const std::lock_guard lock(mutex_);
        if (waiting_ && milliseconds(pace.last_read) < readings_wait_ms)
            return; // while a value is dragged the sheet comes first
    }
    const auto read_from = Clock::now();
    const std::shared_ptr<ReadingsResult> read = worker.readings(request, *sheet, cancel);
    if (!read)
        return;
    read->generation = generation;
    read->total_ms = milliseconds(from);
    pace.last_read = read_from; // what was called off is no reading: it is due all the sooner
    pace.all_ms = milliseconds(exact_from);
    emit readings_ready(read);
    {
        const std::lock_guard lock(mutex_);
        if (waiting_)
            return; // newer work first; its proofs come after it
        optional_ = true;
    }
    const timeline::Stretch stretch("proofs");
    auto proofs = std::make_shared<ProofsResult>();
    proofs->generation = generation;
    proofs->of_rule = !request.around || !document::is_no_rule(request.around->look.steps[request.around->active]);
    const std::vector<lang::ProofLine> lines =
        proofs->of_rule ? proof::lines_of(worker.rule()) : std::vector<lang::ProofLine>();
    auto told = Clock::now();
    const auto came = [&] { // one by one, where they take their time
        if (milliseconds(told) < proofs_wait_ms)
            return;
        told = Clock::now();
        auto so_far = std::make_shared<ProofsResult>(*proofs);
        so_far->complete = false;
        emit proofs_ready(so_far);
    };
    for (std::size_t i = 0; i < lines.size(); ++i) {
        auto outcome = worker.proved(i, lines[i], cancel);
        if (!outcome)
            break;
        proofs->outcomes.push_back(std::move(*outcome));
        came();
    }
    if (!cancel.cancelled())
        (void)worker.promised(request.around.get(), proofs->outcomes, proofs->look_fault, cancel, came);
    if (!cancel.cancelled() && proofs->of_rule)
        proofs->understood = worker.understood();
    if (!cancel.cancelled())
        proofs->amounts = worker.amounts();
    if (!cancel.cancelled())
        emit proofs_ready(proofs);
}

} // namespace kasuri::app
