#include "model/preview.hpp"

#include "model/preview_worker.hpp"

#if defined(__linux__)
#include <pthread.h>
#endif

namespace kasuri::app {
namespace {

using Clock = std::chrono::steady_clock;
double milliseconds(Clock::time_point from) { return std::chrono::duration<double, std::milli>(Clock::now() - from).count(); }

constexpr double patience_ms = 250;
constexpr double readings_wait_ms = 100; ///< while newer work waits, readings may be so old

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
        if (proving_ || milliseconds(began_) > patience_ms)
            current_.cancel();
    }
    wake_.notify_one();
    return generation;
}

void Preview::loop() {
#if defined(__linux__)
    pthread_setname_np(pthread_self(), "preview"); // for debuggers and profilers
#endif
    PreviewWorker worker;
    Clock::time_point last_read{};
    while (true) {
        std::unique_ptr<PreviewRequest> request;
        std::uint64_t generation = 0;
        CancelToken cancel;
        {
            std::unique_lock lock(mutex_);
            wake_.wait(lock, [this] { return stop_ || waiting_; });
            if (stop_)
                return;
            request = std::move(waiting_);
            generation = generation_;
            current_ = cancel;
            proving_ = false;
            began_ = Clock::now();
        }
        const auto from = Clock::now();
        const bool fresh = worker.check(request->text, request->path);
        if (fresh)
            emit checked(request->text, worker.last_checked());
        if (!worker.has_rule())
            continue;
        worker.set_values(values_for(worker.rule(), request->values));
        const std::shared_ptr<SheetResult> sheet = worker.sheet(*request, fresh, cancel);
        if (!sheet)
            continue;
        sheet->generation = generation;
        sheet->total_ms = milliseconds(from);
        emit sheet_ready(sheet);
        {
            const std::lock_guard lock(mutex_);
            if (waiting_ && milliseconds(last_read) < readings_wait_ms)
                continue; // while a value is dragged the sheet comes first
        }
        last_read = Clock::now();
        const std::shared_ptr<ReadingsResult> read = worker.readings(*request, *sheet, cancel);
        if (!read)
            continue;
        read->generation = generation;
        read->total_ms = milliseconds(from);
        emit readings_ready(read);
        {
            const std::lock_guard lock(mutex_);
            if (waiting_)
                continue; // newer work first; its proofs come after it
            proving_ = true;
        }
        auto proofs = std::make_shared<ProofsResult>();
        proofs->generation = generation;
        const std::vector<lang::ProofLine> lines = proof::lines_of(worker.rule());
        for (std::size_t i = 0; i < lines.size(); ++i) {
            auto outcome = worker.proved(i, lines[i], cancel);
            if (!outcome)
                break;
            proofs->outcomes.push_back(std::move(*outcome));
        }
        if (!cancel.cancelled())
            emit proofs_ready(proofs);
    }
}

} // namespace kasuri::app
