#pragma once
#include "base/cancel.hpp"
#include "document/bench_file.hpp"
#include "engine/program.hpp"
#include "engine/reference.hpp"
#include "image/image.hpp"
#include "model/display.hpp"
#include "model/rule_state.hpp"
#include "model/session.hpp"
#include "proof/proof.hpp"
#include "readings/reading.hpp"
#include "targets/target.hpp"

#include <QImage>
#include <QObject>
#include <QRect>
#include <QSize>

#include <chrono>
#include <condition_variable>
#include <filesystem>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <thread>
#include <vector>

namespace kasuri::app {

/// One cell of the sheet as the evaluation needs to know it.
struct CellJob {
    int id = 0;
    std::string source; ///< a key that names the picture; equal keys share the work
    PicturePtr picture; ///< null for a generated target
    const targets::Target* target = nullptr;
    std::string lens;
    QSize pixels;                                     ///< device pixels to show
    std::shared_ptr<const image::Image> file{};       ///< where the rule's sources are looked for by name; may be null
    QRect region{};                                   ///< of the picture, which these pixels show; null: all of it
    std::vector<double> settings{};                   ///< of a generated target
    bool both = true;                                 ///< false: before is not shown now, and is not painted
    std::shared_ptr<const document::KeptTake> take{}; ///< null: the rule on the bench
};

struct StripJob {
    int id = 0;
    const targets::Target* target = nullptr;
    std::vector<double> settings{};
    int cell = 0; ///< without a target: the strip shows the cut of this cell
    readings::Line line{};
};

/// One reading as the evaluation needs to know it.
struct ReadingJob {
    int id = 0;
    const readings::Reading* reading = nullptr;
    std::vector<double> settings;
    std::vector<int> cells; ///< whose pictures are counted
    readings::Line line{};
};

/// Another rule that stands for "before": what the rule on the bench is compared with.
struct OtherRule {
    std::string text;
    std::filesystem::path path{};
    ValueMap values{};
    AroundPtr around{};     ///< of a look that was kept whole
    bool in_step = false;   ///< it stands in the place of the rule in hand, in the look that is around that
    bool is_before = false; ///< it is not a rule but what comes into the step in hand
    friend bool operator==(const OtherRule&, const OtherRule&) = default;
};

struct PreviewRequest {
    std::string text;
    std::filesystem::path path{}; ///< of the filter: files that it uses stand beside it
    ValueMap values;
    AroundPtr around{}; ///< the look that the rule is a step of; null: it stands alone
    int strip_pixels = 0;
    std::vector<StripJob> strips{};
    std::vector<CellJob> cells;
    Screen screen{};
    std::vector<ReadingJob> readings{};
    std::optional<OtherRule> against{}; ///< nothing: before is the picture as it comes
    struct Point {
        int cell = 0;
        QPoint pixel;
        std::optional<std::array<float, 4>>
            colour{}; ///< instead: a colour of the working space, in the middle of nowhere
    };
    std::optional<Point> trace{}; ///< where the rule is looked into
    GivenSources sources{};       ///< of the rule, where something else than the picture's own layer was given
};

struct StripResult {
    int id = 0;
    const targets::Target* target = nullptr; ///< null: a cut
    targets::Axis axis{};
    image::Picture before, after;
};

using MeasuredPtr = std::shared_ptr<const readings::Measured>;

struct ReadingResult {
    int id = 0;
    const readings::Reading* reading = nullptr;
    std::vector<readings::Panel> panels;
    MeasuredPtr before, after;
};

struct CellResult {
    int id = 0;
    QImage before, after;
    std::string space, working;                   ///< of the picture, and of the rule
    double outside_before = 0, outside_after = 0; ///< share of pixels that the screen cannot show as they are
    PicturePtr before_pixels,
        after_pixels;    ///< whole, for read-outs; after is in the space of before, and null in a coarse sheet
    QRect region{};      ///< of the picture, which the images show
    QSize size{};        ///< of the picture
    std::string fault{}; ///< why the lens cannot show what it should
};

/// Everything the sheet shows of one state of the rule.
struct SheetResult {
    std::uint64_t generation = 0;
    std::vector<engine::TraceNode> trace; ///< of the rule at the asked place
    std::string text;                     ///< of the rule, which spans of the trace refer to
    bool coarse = false; ///< large pictures were made small before the rule, not after it; the exact sheet follows
    Screen screen{};     ///< for which it was made
    std::vector<StripResult> strips;
    std::vector<CellResult> cells;
    std::vector<lang::SourceInput> sources;   ///< that are read, each name once
    std::vector<std::string> missing_sources; ///< that some cell's picture does not have: they read as 0 there
    std::size_t operations = 0;
    std::vector<std::pair<std::size_t, std::string>> step_faults; ///< steps of the look that are left out, and why
    std::string against_fault;                                    ///< why the other rule is not what before shows
    double check_ms = 0; ///< text to runnable; 0 if the text was not checked again
    double total_ms = 0;
};
using SheetPtr = std::shared_ptr<const SheetResult>;

/// The readings of one state of the rule.
struct ReadingsResult {
    std::uint64_t generation = 0;
    std::vector<ReadingResult> readings;
    double total_ms = 0;
};
using ReadingsPtr = std::shared_ptr<const ReadingsResult>;

struct ProofsResult {
    std::uint64_t generation = 0;
    std::vector<proof::Outcome> outcomes;
    std::string look_fault; ///< what is wrong with the proofs of the look
    bool of_rule = true;    ///< false: what is in hand is a look or a LUT, and has none
    std::string understood; ///< of the rule, in a few words: an exact matrix
    std::string amounts;    ///< what is certain of the whole look, in lines
};
using ProofsPtr = std::shared_ptr<const ProofsResult>;

/// Checks and evaluates on a thread of its own. The latest request wins: what waits is replaced. A sheet that
/// is being computed is finished if it is quick (so that dragging shows every step it can) and called off if
/// it is slow; proofs are called off at once. When the last exact sheet took long, or requests come in a row, a coarse
/// sheet comes first, and the exact one gives way to newer work.
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

private:
    void loop();

    std::mutex mutex_;
    std::condition_variable wake_;
    std::unique_ptr<PreviewRequest> waiting_;
    std::uint64_t generation_ = 0;
    bool stop_ = false;
    bool busy_ = false, in_a_row_ = false; ///< at work; new work came while it was
    bool optional_ = false;                ///< what is being done gives way to newer work at once
    std::chrono::steady_clock::time_point began_;
    CancelToken current_;
    std::thread thread_;
};

} // namespace kasuri::app

Q_DECLARE_METATYPE(kasuri::app::CheckedPtr)
Q_DECLARE_METATYPE(kasuri::app::SheetPtr)
Q_DECLARE_METATYPE(kasuri::app::ReadingsPtr)
Q_DECLARE_METATYPE(kasuri::app::ProofsPtr)
