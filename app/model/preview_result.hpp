#pragma once
#include "engine/reference.hpp"
#include "model/display.hpp"
#include "model/picture_ptr.hpp"
#include "model/session.hpp"
#include "proof/proof.hpp"
#include "readings/apart.hpp"
#include "readings/reading.hpp"
#include "targets/target.hpp"

#include <QImage>
#include <QRect>
#include <QSize>

#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace kasuri::app {

struct StripResult {
    int id = 0;
    const targets::Target* target = nullptr; ///< null: a cut, or a pin over time
    targets::Axis axis{};
    image::Picture before, after; ///< no number: not known
    std::vector<int> frames{};    ///< numbers, of a pin over time
    bool needs_pictures = false;  ///< over time: a rule looks at neighbours, places or further pictures; no number then
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
    PicturePtr input;                             ///< the picture as it came
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
    bool identity = false; ///< what goes in comes out, to the bit; a swap has no operations either
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
    std::vector<CellResult> counted{}; ///< of a row of requests: whole pictures of the same state, nothing painted
    /// Of the cells that show a take: how far that is from what the rule on the bench makes.
    std::map<int, readings::Apart> apart;
};
using ReadingsPtr = std::shared_ptr<const ReadingsResult>;

struct ProofsResult {
    std::uint64_t generation = 0;
    std::vector<proof::Outcome> outcomes;
    std::string look_fault; ///< what is wrong with the proofs of the look
    bool of_rule = true;    ///< false: the active step is a look or a LUT, and has none
    std::string understood; ///< of the rule, in a few words: an exact matrix
    std::string amounts;    ///< what is certain of the whole look, in lines
    bool complete = true;   ///< false: more are being measured, and what they are about is not known yet
};
using ProofsPtr = std::shared_ptr<const ProofsResult>;

} // namespace kasuri::app
