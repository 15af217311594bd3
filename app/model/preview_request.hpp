#pragma once
#include "document/bench_file.hpp"
#include "model/around.hpp"
#include "model/display.hpp"
#include "model/picture_ptr.hpp"
#include "model/session.hpp"
#include "readings/reading.hpp"
#include "subject/subject.hpp"
#include "targets/target.hpp"

#include <QPoint>
#include <QRect>
#include <QSize>

#include <chrono>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::app {

/// One cell of the sheet as the evaluation needs to know it.
struct CellJob {
    int id = 0;
    PicturePtr picture; ///< null for a generated target
    const targets::Target* target = nullptr;
    std::string lens;
    QSize pixels;                                     ///< device pixels to show
    std::shared_ptr<const image::Image> file{};       ///< where the rule's sources are looked for by name; may be null
    QRect region{};                                   ///< of the picture, which these pixels show; null: all of it
    std::vector<double> settings{};                   ///< of a generated target
    bool both = true;                                 ///< false: before is not shown now, and is not painted
    std::shared_ptr<const document::KeptTake> take{}; ///< null: the rule on the bench
    std::string path{};                               ///< of the picture's file
    bool numbers = false;                             ///< colours of single pixels are told: of pins, of the pointer
};

/// The same cell at so few pixels that a rule of so many operations is done with them within a refresh: halved each way
/// until it is. Only of long rules: of others a large cell, too, shows every pixel.
inline CellJob affordable(CellJob job, std::size_t operations) {
    // 5 ms of two cores (bench_engine, long/preview: 30 ps an operation and pixel).
    constexpr double most = 1.6e8;
    constexpr std::size_t many = 1000;
    while (operations >= many && static_cast<double>(operations) * job.pixels.width() * job.pixels.height() > most &&
           job.pixels.width() >= 64 && job.pixels.height() >= 64)
        job.pixels /= 2;
    return job;
}

struct StripJob {
    int id = 0;
    const targets::Target* target = nullptr;
    std::vector<double> settings{};
    int cell = 0; ///< without a target: the strip shows the cut of this cell
    readings::Line line{};
    PicturePtr over_time{};    ///< else this: one row, a pixel for each frame
    std::vector<int> frames{}; ///< their numbers
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
    AroundPtr around{};       ///< of a look that was kept whole
    bool in_step = false;     ///< it stands in the place of the active rule, in the look that is around that
    bool is_before = false;   ///< it is not a rule but what comes into the active step
    std::string of_picture{}; ///< it says what this picture should be, and of all else nothing: before is as it comes
    friend bool operator==(const OtherRule&, const OtherRule&) = default;
};

struct PreviewRequest {
    std::string text;
    std::filesystem::path path{}; ///< of the filter: files that it uses stand beside it
    std::uint64_t files = 0;      ///< another number when one of those says something else now
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
    subject::Bindings sources{};  ///< of the rule, where something else than the picture's own layer was given
    std::chrono::microseconds refresh{16667}; ///< of the screen: no more sheets than it shows
};

} // namespace kasuri::app
