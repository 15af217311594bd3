#pragma once
#include "engine/evaluate.hpp"
#include "engine/sources.hpp"
#include "model/preview.hpp"

#include <map>
#include <optional>
#include <string>
#include <tuple>
#include <vector>

namespace kasuri::app {

/// What outlives a request on the evaluation's thread: the last good rule, its programs, what was evaluated and measured with it.
class PreviewWorker {
public:
    /// Checks the text if it is another one. Returns whether it was.
    bool check(const std::string& text, const std::filesystem::path& path);
    const CheckedPtr& last_checked() const { return checked_; }
    bool has_rule() const { return good_ != nullptr; }
    const lang::Rule& rule() const { return good_->rule; }
    void set_values(std::vector<double> values);
    const std::vector<double>& values() const { return values_; }

    /// The program for pictures of a space; "" is the rule's own.
    const engine::Program& program(const std::string& space);

    /// Null if called off.
    std::shared_ptr<SheetResult> sheet(const PreviewRequest& request, bool fresh, const CancelToken& cancel);
    /// The readings of the same request; null if called off. `sheet` has been made before.
    std::shared_ptr<ReadingsResult> readings(const PreviewRequest& request, const SheetResult& sheet, const CancelToken& cancel);

    /// A line of `proof::lines_of`, at the values. What goes by defaults alone is measured once for a rule. Nothing if called off.
    std::optional<proof::Outcome> proved(std::size_t index, const lang::ProofLine& line, const CancelToken& cancel);

private:
    using Shown = std::tuple<std::string, std::string, int, int, int, int, int, int>; ///< key, lens, size, region
    using Size = std::tuple<std::string, int, int, int, int, int, int>;               ///< key, size, region
    using ImagePtr = std::shared_ptr<const image::Image>;
    struct Painted {
        QImage image;
        double outside = 0;
    };

    const engine::BoundSources& sources_in(const ImagePtr& file);
    std::vector<std::string> missing_sources(const PreviewRequest& request);
    bool run(const engine::Program& program, const image::Picture& before, image::Picture& after, const CancelToken& cancel, const ImagePtr& file = nullptr);
    std::optional<CellResult> cell(const CellJob& job, const std::string& working, const CancelToken& cancel);
    std::optional<StripResult> strip(const StripJob& job, const SheetResult& sheet, int pixels, const std::string& working, const CancelToken& cancel);
    const image::Picture& small(std::map<Size, image::Picture>& cache, const std::string& key, const CellJob& job, const image::Picture& picture);
    std::optional<readings::Measured> measured(const ReadingJob& job, const SheetResult& sheet, bool after, const CancelToken& cancel);
    void forget_unused(const PreviewRequest& request);
    void forget_after();

    image::PlanePool pool_;
    readings::Views views_;
    std::string text_;
    std::filesystem::path path_;
    CheckedPtr checked_, good_;
    double check_ms_ = 0;
    std::uint64_t spaces_ = 0;
    std::vector<double> values_;
    std::map<std::string, engine::ProgramPtr> programs_;
    std::map<ImagePtr, engine::BoundSources> sources_;
    std::map<std::string, PicturePtr> generated_, after_;
    std::map<Shown, Painted> shown_before_, shown_after_;
    Screen screen_;
    std::map<Size, image::Picture> small_before_, small_after_;
    std::map<std::size_t, proof::Outcome> proved_; ///< at the defaults
    std::map<std::string, MeasuredPtr> measured_before_, measured_after_;
};

} // namespace kasuri::app
