#pragma once
#include "engine/evaluate.hpp"
#include "model/lens.hpp"
#include "model/look_promise.hpp"
#include "model/memo.hpp"
#include "model/preview_request.hpp"
#include "model/preview_result.hpp"
#include "model/rule_state.hpp"

#include <compare>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <tuple>
#include <vector>

namespace kasuri::app {

/// What outlives a request on the evaluation's thread: the rules, and what was computed, by what it was computed from.
class PreviewWorker {
public:
    /// Of what no longer is on the sheet, `max_spare` bytes are remembered: enough to go back and forth between a few
    /// states of it. What a rule makes of a picture of more than `kept_whole` pixels is made where it is looked at, and
    /// not kept: that of 1920x1080 is, that of 3840x2160 is not.
    explicit PreviewWorker(std::size_t max_spare = std::size_t{48} << 20, std::size_t kept_whole = 4'000'000);

    /// Takes over what the request says of rules. Whether there is something to be shown: there is no rule yet, or the
    /// work was called off, else.
    bool take(const PreviewRequest& request, const CancelToken& cancel = {});
    bool fresh() const { return fresh_; } ///< the request's text was checked anew
    const CheckedPtr& last_checked() const { return rule_.last_checked(); }
    bool has_rule() const { return rule_.has_rule(); }
    const lang::Rule& rule() const { return rule_.rule(); }

    /// Null if called off. Coarse: pictures larger than shown go through the rule at the size at which they are shown.
    std::shared_ptr<SheetResult> sheet(const PreviewRequest& request, bool coarse, const CancelToken& cancel);
    /// Whether a coarse sheet would be another one: a picture is larger than shown, and no rule looks at neighbours.
    bool coarse_helps(const PreviewRequest& request);
    /// The pictures that the readings of the request count, and of which numbers are told, whole and not painted. Null
    /// if called off.
    std::shared_ptr<SheetResult> counted(const PreviewRequest& request, const CancelToken& cancel);
    /// The readings of the same request; null if called off. `sheet` is an exact one, or what `counted` made; how far
    /// takes are from the rule is said of an exact one alone.
    std::shared_ptr<ReadingsResult> readings(const PreviewRequest& request, const SheetResult& sheet,
                                             const CancelToken& cancel);

    /// A line of `proof::lines_of`, at the values. What goes by defaults alone is measured once for a rule. Nothing if
    /// called off.
    std::optional<proof::Outcome> proved(std::size_t index, const lang::ProofLine& line, const CancelToken& cancel);

    /// What the look around the rule promises as a whole, behind what is in `into`. False if called off.
    bool promised(const Around* around, std::vector<proof::Outcome>& into, std::string& fault,
                  const CancelToken& cancel, const std::function<void()>& came);

    /// What is certain about the rule at its values, in a few words.
    std::string understood();
    /// What is certain about the whole look at its values, in lines.
    std::string amounts() const;

    /// Forgets what earlier requests made, the oldest first, until it is no more than may be kept. An exact sheet
    /// without readings does so by itself.
    void trim() { clock_.trim(); }
    /// About how much is remembered, and how much of it the latest request did not use.
    std::size_t remembered_bytes() const { return clock_.bytes(); }
    std::size_t spare_bytes() const { return clock_.spare(); }

private:
    // What results are of. Addresses are of things that the result keeps alive.
    struct OfTarget {
        const targets::Target* target;
        std::vector<double> settings;
        std::string space;
        auto operator<=>(const OfTarget&) const = default;
    };
    struct OfSubject {
        std::string subject; ///< identity
        const image::Picture* picture;
        const image::Image* file;
        std::string lens{};   ///< of numbers of the rule
        std::string before{}; ///< identity of what comes before it, then
        auto operator<=>(const OfSubject&) const = default;
    };
    struct OfSources {
        const subject::Chain* chain;
        const image::Image* file;
        std::vector<const image::Picture*> bound;
        int width, height;
        auto operator<=>(const OfSources&) const = default;
    };
    struct OfSize {
        const image::Picture* picture;
        int width, height, x, y, region_width, region_height;
        auto operator<=>(const OfSize&) const = default;
    };
    struct OfScreen {
        const image::Picture *picture, *other;
        const Lens* lens;
        std::string space;
        Limits limits;
        double surround;
        auto operator<=>(const OfScreen&) const = default;
    };
    struct OfReading {
        const readings::Reading* reading;
        std::vector<double> settings;
        std::array<double, 4> line;
        std::vector<const image::Picture*> pictures;
        std::string subject, working;
        auto operator<=>(const OfReading&) const = default;
    };
    struct OfProof {
        const subject::Chain* chain;
        std::size_t index;
        std::vector<double> values;
        std::vector<const image::Picture*> bound;
        auto operator<=>(const OfProof&) const = default;
    };
    /// A picture, and what its key points to.
    struct Kept {
        PicturePtr made, of;
        ImagePtr file{};
        /// What is made on demand takes nothing itself, and keeps alive what it is made of.
        friend std::size_t bytes_of(const Kept& kept) {
            return app::bytes_of(*kept.made) + (kept.of && is_on_demand(*kept.made) ? app::bytes_of(*kept.of) : 0);
        }
    };
    struct Painted {
        QImage image{};
        double outside = 0;
        PicturePtr of{}, other{};
        friend std::size_t bytes_of(const Painted& painted) {
            return static_cast<std::size_t>(painted.image.sizeInBytes());
        }
    };
    struct KeptSources {
        std::shared_ptr<const engine::BoundSources> made;
        subject::ChainPtr chain;
        subject::Bindings bindings;
        ImagePtr file;
        std::size_t bytes = 0;
        friend std::size_t bytes_of(const KeptSources& kept) { return kept.bytes; }
    };
    struct OfPair {
        const image::Picture *first, *second;
        auto operator<=>(const OfPair&) const = default;
    };
    struct KeptApart {
        std::optional<readings::Apart> made;
        PicturePtr first, second;
        friend std::size_t bytes_of(const KeptApart&) { return sizeof(KeptApart); }
    };
    struct KeptReading {
        MeasuredPtr made;
        std::vector<PicturePtr> of;
        friend std::size_t bytes_of(const KeptReading&) { return std::size_t{1} << 20; } ///< plots, about
    };
    struct KeptOutcome {
        proof::Outcome made;
        subject::ChainPtr chain;
        subject::Bindings bindings;
        friend std::size_t bytes_of(const KeptOutcome&) { return sizeof(proof::Outcome); }
    };

    /// The rule of a take; null if it does not compile, or is called off.
    RuleState* of_take(const PreviewRequest& request, const document::KeptTake& take, std::string& fault,
                       const CancelToken& cancel);
    std::vector<engine::TraceNode> trace(const PreviewRequest& request);
    std::vector<std::string> missing_sources(const PreviewRequest& request) const;
    /// The input of a cell.
    PicturePtr input_of(const CellJob& job);
    std::shared_ptr<const engine::BoundSources> sources(const subject::Subject& subject, const ImagePtr& file,
                                                        int width, int height);
    /// What a subject makes of a picture, in its space; computed anew. Nothing if called off.
    std::optional<image::Picture> run(const subject::Subject& subject, const image::Picture& picture,
                                      const ImagePtr& file, const CancelToken& cancel);
    /// The same, remembered.
    PicturePtr ran(const subject::Subject& subject, const PicturePtr& picture, const ImagePtr& file,
                   const CancelToken& cancel);
    /// The same as a cell shows it: of a picture that is too large to be kept as floats, made where it is looked at.
    PicturePtr seen_through(const subject::Subject& subject, const PicturePtr& picture, const ImagePtr& file,
                            const CancelToken& cancel);
    /// The subject with what its sources read that look back from the active rule, for a picture. Nothing if called
    /// off.
    std::optional<subject::Subject> looking_back(const subject::Subject& subject,
                                                 const std::vector<RuleState::LookBack>& sources, RuleState& rule,
                                                 const PicturePtr& input, const ImagePtr& file,
                                                 const CancelToken& cancel);
    std::optional<image::Picture> numbers(RuleState& rule, const Lens& lens, const PicturePtr& picture,
                                          const ImagePtr& file, std::string& fault, const CancelToken& cancel);
    PicturePtr peeked(RuleState& rule, const Lens& lens, const PicturePtr& input, const ImagePtr& file,
                      std::string& fault, const CancelToken& cancel);
    /// Null if called off.
    PicturePtr downscaled(const PicturePtr& picture, const CellJob& job, const CancelToken& cancel);
    Painted painted(const PicturePtr& picture, const Lens& through, const PicturePtr& other);
    bool paint_coarse(const CellJob& job, const Lens& through, RuleState& mine, const PicturePtr& input,
                      CellResult& result, const CancelToken& cancel);
    std::optional<CellResult> cell(const PreviewRequest& request, const CellJob& asked, bool coarse,
                                   const CancelToken& cancel);
    std::optional<StripResult> strip(const StripJob& job, const SheetResult& sheet, int pixels,
                                     const CancelToken& cancel);
    /// A pin's colour in every frame, through the rule.
    std::optional<StripResult> over_time(const StripJob& job, const CancelToken& cancel);
    /// What of the look a lens shows; nothing: the picture as it came.
    static std::optional<subject::Subject> seen_of(const RuleState& rule, const Lens& lens);
    /// How far two pictures are apart; nothing if that cannot be said.
    std::optional<readings::Apart> apart(const PicturePtr& first, const PicturePtr& second, const CancelToken& cancel);
    /// Of all readings of a request, in their order. Nothing if called off.
    std::optional<std::vector<MeasuredPtr>> measured(const PreviewRequest& request, const SheetResult& sheet,
                                                     bool after, const CancelToken& cancel);

    std::size_t kept_whole_;
    image::PlanePool pool_;
    readings::Views views_;
    RuleState rule_, against_;
    LookPromise promise_;
    std::vector<std::pair<std::shared_ptr<const document::KeptTake>, RuleState>>
        takes_; ///< that have cells of their own
    /// Whether before is what `against_` makes, of targets and of a cell's picture.
    bool compares() const { return compares_ && only_picture_.empty(); }
    bool compares(const CellJob& job) const {
        return compares_ && (only_picture_.empty() || only_picture_ == job.path);
    }
    bool compares_ = false;
    std::string only_picture_;
    std::string working_;
    bool fresh_ = false;
    Screen screen_;
    std::pair<subject::ChainPtr, bool> curves_; ///< whether the rule is three of them

    MemoClock clock_;
    Memo<OfTarget, Kept> inputs_{clock_};
    Memo<OfSubject, Kept> results_{clock_}, numbers_{clock_};
    Memo<OfSources, KeptSources> sources_{clock_};
    Memo<OfSize, Kept> downscaled_{clock_};
    Memo<OfScreen, Painted> painted_{clock_};
    Memo<OfPair, KeptApart> apart_{clock_};
    Memo<OfReading, KeptReading> readings_{clock_};
    Memo<OfProof, KeptOutcome> proofs_{clock_};
};

} // namespace kasuri::app
