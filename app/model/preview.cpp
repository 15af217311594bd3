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
constexpr double readings_wait_ms = 90;               ///< in a row, readings may be so old
constexpr double late_ms = 400;                       ///< where an exact sheet takes long, so old
constexpr auto pause = std::chrono::milliseconds(20); ///< after which a row is over
/// An exact sheet that takes longer misses the refresh of the screen: a coarse one goes first.
constexpr double refresh_ms = 12;
/// Readings that take no longer are shown before the exact sheet where a coarse one is on the screen already.
constexpr double quick_readings_ms = 20;

/// Whether something of the request is told in numbers, or counted.
bool wants_numbers(const PreviewRequest& request) {
    return !request.readings.empty() ||
        std::any_of(request.cells.begin(), request.cells.end(), [](const CellJob& job) { return job.numbers; });
}

/// Whether a strip shows what a picture has along a line, which takes the whole picture.
bool has_cut(const PreviewRequest& request) {
    return std::any_of(request.strips.begin(), request.strips.end(),
                       [](const StripJob& job) { return !job.target && !job.over_time; });
}

} // namespace

Preview::Preview(QObject* parent)
    : QObject(parent), aside_([this](const std::shared_ptr<ReadingsResult>& read) { tell_readings(read); }) {
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
    Clock::time_point last_coarse{}, last_exact{}, last_read{};
    double exact_ms = 0;
    double read_ms = 0; ///< of the last readings, their pictures being there
    double all_ms = 0;  ///< of the last exact sheet with its readings

    /// Whether newer work may wait for readings and an exact sheet, as while frames are played: ten times a second
    /// where that takes no more than a third of the time, else less often.
    bool due() const { return milliseconds(last_read) >= std::clamp(3 * all_ms, 100.0, late_ms); }
    /// In a row, where readings are made aside: whether it may wait for an exact sheet, if nothing else gives what
    /// belongs to that.
    bool exact_due() const { return milliseconds(last_exact) >= std::clamp(6 * exact_ms, 100.0, late_ms); }
};

void Preview::tell_readings(const std::shared_ptr<ReadingsResult>& read) {
    const std::lock_guard lock(told_mutex_); // two threads tell, and what is told last is what stays
    if (read->generation < told_readings_)
        return;
    told_readings_ = read->generation;
    emit readings_ready(read);
}

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
            // More sheets than the screen shows would take the time of the readings.
            if (!stop_ && in_a_row_)
                wake_.wait_until(lock, pace.last_coarse + waiting_->refresh, [this] { return stop_; });
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
    struct Trimmed { // whatever is called off
        PreviewWorker& worker;
        ~Trimmed() { worker.trim(); }
    } const trimmed{worker};
    const auto tell = [&](const std::shared_ptr<SheetResult>& sheet) {
        sheet->generation = generation;
        sheet->total_ms = milliseconds(from);
        emit sheet_ready(sheet);
    };
    const auto measure = [&](const SheetResult& sheet) {
        const auto read_from = Clock::now();
        const std::shared_ptr<ReadingsResult> read = worker.readings(request, sheet, cancel);
        if (!read)
            return false;
        // As with the sheet: what was kept from before makes them look quick.
        pace.read_ms = std::max(milliseconds(read_from), 0.8 * pace.read_ms);
        pace.last_read = read_from; // what was called off is no reading: it is due all the sooner
        read->generation = generation;
        tell_readings(read);
        return true;
    };
    bool are_read = false;
    double counted_ms = 0;
    // In a row, as when a value is dragged, the eye follows the coarse sheet, the readings are made aside, and the
    // exact sheet comes now and then and at the end.
    if ((pace.exact_ms > refresh_ms || hurried) && worker.coarse_helps(request)) {
        pace.last_coarse = from;
        const std::shared_ptr<SheetResult> coarse = worker.sheet(request, true, cancel);
        if (!coarse)
            return;
        tell(coarse);
        const bool shows_takes = std::any_of(request.cells.begin(), request.cells.end(),
                                             [](const CellJob& job) { return job.take != nullptr; });
        if (hurried && milliseconds(pace.last_read) >= readings_wait_ms && wants_numbers(request) &&
            aside_.begin(request, generation))
            pace.last_read = from;
        const bool due = hurried ? (shows_takes || has_cut(request)) && pace.exact_due() : pace.due();
        {
            std::unique_lock lock(mutex_);
            if (!due &&
                wake_.wait_for(lock, hurried ? pause : Clock::duration::zero(), [this] { return stop_ || waiting_; })) {
                in_a_row_ = true;
                return;
            }
            optional_ = !due; // something is on the screen
        }
        // What is not on the screen at all comes before what is there already, if coarse.
        if (!hurried && !shows_takes && !request.readings.empty() && pace.read_ms <= quick_readings_ms) {
            const auto counted_from = Clock::now();
            const std::shared_ptr<SheetResult> counted = worker.counted(request, cancel);
            counted_ms = milliseconds(counted_from); // the exact sheet's, too
            if (!counted || !measure(*counted))
                return;
            are_read = true;
            pace.all_ms = counted_ms + pace.read_ms;
            const std::lock_guard lock(mutex_);
            if (waiting_)
                return;
            optional_ = true;
        }
    }
    const auto exact_from = Clock::now();
    const std::shared_ptr<SheetResult> sheet = worker.sheet(request, false, cancel);
    if (!sheet)
        return;
    // What was kept from before makes the next sheet look quick: a slow one is forgotten step by step.
    pace.exact_ms = std::max(counted_ms + milliseconds(exact_from), 0.8 * pace.exact_ms);
    pace.last_exact = exact_from;
    tell(sheet);
    if (!are_read) {
        {
            const std::lock_guard lock(mutex_);
            if (waiting_ && milliseconds(pace.last_read) < readings_wait_ms) {
                in_a_row_ = true;
                return; // while a value is dragged the sheet comes first
            }
        }
        aside_.cancel(); // these are newer
        if (!measure(*sheet))
            return;
    }
    pace.all_ms = counted_ms + milliseconds(exact_from) + (are_read ? pace.read_ms : 0);
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
