#pragma once
#include "base/cancel.hpp"
#include "model/preview_request.hpp"
#include "model/preview_result.hpp"
#include "model/readings_aside.hpp"

#include <QObject>

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <thread>

namespace kasuri::app {

/// Checks and evaluates on a thread of its own. The latest request wins: what waits is replaced. A sheet that
/// is being computed is finished if it is quick (so that dragging shows every step it can) and called off if
/// it is slow; proofs are called off at once. When the last exact sheet took long, or requests come in a row, a coarse
/// sheet comes first, and the exact one gives way to newer work; readings of a row are made aside.
class Preview : public QObject {
    Q_OBJECT
public:
    explicit Preview(QObject* parent = nullptr);
    ~Preview() override;

    /// Returns the generation that the results will carry.
    std::uint64_t request(PreviewRequest request);

signals:
    void checked(const std::string& text, const kasuri::app::CheckedPtr& checked);
    void sheet_ready(const kasuri::app::SheetPtr& sheet);
    void readings_ready(const kasuri::app::ReadingsPtr& readings);
    void proofs_ready(const kasuri::app::ProofsPtr& proofs);
    /// A request was dropped, and what had been remembered with it.
    void gave_up(const QString& why);

private:
    void loop();
    struct Pace;
    void work(class PreviewWorker& worker, const PreviewRequest& request, std::uint64_t generation, bool hurried,
              const CancelToken& cancel, Pace& pace);

    std::mutex mutex_;
    std::condition_variable wake_;
    std::unique_ptr<PreviewRequest> waiting_;
    std::uint64_t generation_ = 0;
    bool stop_ = false;
    bool busy_ = false, in_a_row_ = false; ///< at work; new work came while it was
    bool optional_ = false;                ///< what is being done gives way to newer work at once
    std::chrono::steady_clock::time_point began_;
    CancelToken current_;
    void tell_readings(const std::shared_ptr<ReadingsResult>& read);
    std::mutex told_mutex_;
    std::uint64_t told_readings_ = 0; ///< generation; older ones come too late
    ReadingsAside aside_;
    std::thread thread_;
};

} // namespace kasuri::app

Q_DECLARE_METATYPE(kasuri::app::CheckedPtr)
Q_DECLARE_METATYPE(kasuri::app::SheetPtr)
Q_DECLARE_METATYPE(kasuri::app::ReadingsPtr)
Q_DECLARE_METATYPE(kasuri::app::ProofsPtr)
