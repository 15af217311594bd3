#pragma once
#include "engine/evaluate.hpp"
#include "model/lens.hpp"
#include "model/look_promise.hpp"
#include "model/preview.hpp"

#include <map>
#include <optional>
#include <string>
#include <tuple>
#include <vector>

namespace kasuri::app {

/// What outlives a request on the evaluation's thread: the last good rule, its programs, what was evaluated and
/// measured with it.
class PreviewWorker {
public:
    /// Takes over what the request says of rules. Returns whether the text was checked.
    bool take(const PreviewRequest& request);
    const CheckedPtr& last_checked() const { return rule_.last_checked(); }
    bool has_rule() const { return rule_.has_rule(); }
    const lang::Rule& rule() const { return rule_.rule(); }

    /// Null if called off. Coarse: pictures larger than shown go through the rule at the size at which they are shown.
    std::shared_ptr<SheetResult> sheet(const PreviewRequest& request, bool coarse, const CancelToken& cancel);
    /// Whether a coarse sheet would be another one: a picture is larger than shown, and no rule looks at neighbours.
    bool coarse_helps(const PreviewRequest& request);
    /// The readings of the same request; null if called off. An exact `sheet` has been made before.
    std::shared_ptr<ReadingsResult> readings(const PreviewRequest& request, const SheetResult& sheet,
                                             const CancelToken& cancel);

    /// A line of `proof::lines_of`, at the values. What goes by defaults alone is measured once for a rule. Nothing if
    /// called off.
    std::optional<proof::Outcome> proved(std::size_t index, const lang::ProofLine& line, const CancelToken& cancel);

    /// What the look around the rule promises as a whole, behind what is in `into`. False if called off.
    bool promised(const Around* around, std::vector<proof::Outcome>& into, std::string& fault,
                  const CancelToken& cancel);

    /// What is certain about the rule at its values, in a few words.
    std::string understood();
    /// What is certain about the whole look at its values, in lines.
    std::string amounts(const Around* around);

private:
    using Shown = std::tuple<std::string, std::string, int, int, int, int, int, int>; ///< key, lens, size, region
    using Size = std::tuple<std::string, int, int, int, int, int, int>;               ///< key, size, region
    using ImagePtr = std::shared_ptr<const image::Image>;
    struct Painted {
        QImage image;
        double outside = 0;
    };

    /// The rule of a take; null if it does not compile.
    RuleState* of_take(const document::KeptTake& take, std::string& fault);
    std::vector<engine::TraceNode> trace(const PreviewRequest& request);
    std::vector<std::string> missing_sources(const PreviewRequest& request);
    bool run(RuleState& rule, const std::string& space, const image::Picture& before, image::Picture& after,
             const CancelToken& cancel, const ImagePtr& file = nullptr);
    PicturePtr ran(std::map<std::string, PicturePtr>& cache, const std::string& key, RuleState& rule,
                   const std::string& space, const image::Picture& picture, const ImagePtr& file,
                   const CancelToken& cancel);
    /// The input of a cell, and whether its numbers are the rule's.
    PicturePtr input_of(const CellJob& job, const std::string& key, bool of_rule);
    std::optional<CellResult> cell(const CellJob& asked, bool coarse, const CancelToken& cancel);
    Painted painted(std::map<Shown, Painted>& cache, const Shown& shape, const image::Picture& picture,
                    const Lens& through, const image::Picture* other);
    std::optional<image::Picture> numbers(const RuleState::Peek& peek, const image::Picture& input, RuleState& rule,
                                          const ImagePtr& file, const CancelToken& cancel);
    PicturePtr peeked(const CellJob& job, const std::string& key, RuleState& rule,
                      std::map<std::string, PicturePtr>& cache, const image::Picture& input, const std::string& space,
                      std::string& fault, const CancelToken& cancel);
    std::optional<StripResult> strip(const StripJob& job, const SheetResult& sheet, int pixels,
                                     const CancelToken& cancel);
    const image::Picture& small(std::map<Size, image::Picture>& cache, const std::string& key, const CellJob& job,
                                const image::Picture& picture);
    std::optional<readings::Measured> measured(const ReadingJob& job, const SheetResult& sheet, bool after,
                                               const CancelToken& cancel);
    void forget_unused(const PreviewRequest& request);
    void forget_takes();
    void forget_before();
    void forget_after();

    image::PlanePool pool_;
    readings::Views views_;
    RuleState rule_, against_;
    LookPromise promise_;
    std::map<std::string, RuleState> takes_; ///< that have cells of their own
    std::filesystem::path path_;
    GivenSources given_;
    AroundPtr around_;
    bool compares_ = false; ///< before is what `against_` makes
    std::string working_;
    std::uint64_t spaces_ = 0;
    bool fresh_ = false;
    std::optional<bool> curves_; ///< whether the rule is three of them
    /// Inputs; what the rule, and the other rule, make of them; what peeked expressions show.
    std::map<std::string, PicturePtr> generated_, after_, before_, peeked_after_, peeked_before_;
    std::map<Shown, Painted> shown_before_, shown_after_;
    Screen screen_;
    std::map<Size, image::Picture> small_input_, small_before_, small_after_;
    std::map<std::size_t, proof::Outcome> proved_; ///< at the defaults
    std::map<std::string, MeasuredPtr> measured_before_, measured_after_;
};

} // namespace kasuri::app
