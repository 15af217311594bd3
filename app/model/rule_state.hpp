#pragma once
#include "engine/program.hpp"
#include "engine/sources.hpp"
#include "handover/look.hpp"
#include "image/image.hpp"
#include "model/around.hpp"
#include "model/lens.hpp"
#include "model/session.hpp"

#include <map>
#include <memory>
#include <string>
#include <tuple>

namespace kasuri::app {

using PicturePtr = std::shared_ptr<const image::Picture>;
/// Pictures that were given to a rule's sources, by their names.
using GivenSources = std::map<std::string, PicturePtr>;

/// A rule as the evaluation knows it: the last text that compiled, its values, its programs and its sources, each made
/// once. With a look around it, programs and sources are those of the look; proofs, peeks and the trace are the rule's
/// own, at what comes into it.
class RuleState {
public:
    enum class Change {
        none,   ///< the same text
        faulty, ///< another text that does not compile: the rule is the one before
        rule,
    };
    /// `uses`: copies of the files that the rule uses; others stand beside it.
    Change check(const std::string& text, const std::filesystem::path& path,
                 const std::map<std::string, std::string>& uses = {});
    const CheckedPtr& last_checked() const { return checked_; }
    bool has_rule() const { return good_ != nullptr; }
    const lang::Rule& rule() const { return good_->rule; }
    std::string working() const;
    const std::string& text() const { return good_text_; }
    double check_ms() const { return check_ms_; }

    /// Return whether they are others.
    bool set_values(std::vector<double> values);
    bool set_given(GivenSources given);
    /// Whether what is shown changes. Comes after text and values.
    bool set_around(AroundPtr around, Part part = Part::shown);
    const std::vector<double>& values() const { return values_; }                             ///< of the rule
    const std::vector<double>& all_values() const { return around_ ? all_values_ : values_; } ///< for `program`

    /// The space of numbers that are the rule's own; of a look, its first step's.
    std::string entry() const;
    /// The program for pictures of a space; "" is `entry`.
    const engine::Program& program(const std::string& space);
    /// The rule alone, in its own space.
    const engine::Program& own_program();
    /// Steps of a look that are left out, and why.
    std::vector<std::pair<std::size_t, Error>> faults() const;
    /// The steps that come before the rule; null: there is no look.
    const handover::RunnableLook* before() const { return before_.get(); }
    const std::vector<double>& values_before() const { return before_values_; }
    const std::shared_ptr<const handover::RunnableLook>& whole() const { return whole_; }

    /// What makes the numbers of a lens of the rule: the value of an expression in its names, evaluated after its last
    /// statement, or a measure of its slopes.
    struct Peek {
        engine::ProgramPtr program; ///< null if there is a fault
        engine::ProgramPtr first;   ///< makes of the picture what comes into the rule, in the working space, which
                                    ///< `program` then wants; may be null
        bool first_is_look = false; ///< it has parameters and sources
        std::vector<lang::SourceInput> sources{}; ///< of a mask, which has its own
        bool is_mask = false;
        std::string fault;
    };
    const Peek& peek(const Lens& lens, const std::string& space);

    using ImagePtr = std::shared_ptr<const image::Image>;
    /// The further pictures for one of `width` x `height` pixels: what was given, stretched to that size; else what its
    /// file has of that name.
    const engine::BoundSources& sources_in(const ImagePtr& file, int width, int height) {
        return bound(Whose::all, file, width, height);
    }
    const engine::BoundSources& own_sources_in(const ImagePtr& file, int width, int height) {
        return bound(around_ ? Whose::own : Whose::all, file, width, height);
    }
    const engine::BoundSources& sources_before(const ImagePtr& file, int width, int height) {
        return bound(Whose::before, file, width, height);
    }
    /// All further pictures that are read, and whether one reads as 0 there.
    std::vector<lang::SourceInput> sources() const;
    bool missing(const lang::SourceInput& source, const ImagePtr& file) const { return !this->source(source, file); }
    std::vector<PicturePtr> pictures_for(std::span<const lang::SourceInput> sources, const ImagePtr& file, int width,
                                         int height) const;
    /// Those of files that nobody shows any more.
    template <class Used>
    void forget_sources(Used used) {
        std::erase_if(sources_, [&](const auto& entry) { return !used(std::get<1>(entry.first)); });
    }

private:
    enum class Whose { all, own, before };
    void look_again();
    std::function<Result<std::string>(const std::string&)> opener() const;
    Peek made_peek(const Lens& lens, const std::string& space) const;
    const engine::BoundSources& bound(Whose whose, const ImagePtr& file, int width, int height);
    std::vector<std::string> spaces_of(std::span<const lang::SourceInput> sources, const std::string& space) const;
    engine::ProgramPtr compiled(std::span<const engine::ChainStep> steps, const std::string& in,
                                const std::string& out) const;
    PicturePtr source(const lang::SourceInput& source, const ImagePtr& file) const;

    std::string text_, good_text_;
    std::filesystem::path path_;
    std::map<std::string, std::string> uses_;
    CheckedPtr checked_, good_;
    double check_ms_ = 0;
    std::uint64_t spaces_ = 0;
    std::vector<double> values_;
    GivenSources given_;
    std::map<std::string, engine::ProgramPtr> programs_;
    std::map<std::pair<std::string, std::string>, Peek> peeks_;
    engine::ProgramPtr own_program_;
    std::map<std::tuple<Whose, ImagePtr, int, int>, engine::BoundSources> sources_;
    AroundPtr around_;
    Part part_ = Part::shown;
    std::filesystem::path folder_;     ///< paths of filters in looks are absolute: it is never asked
    document::Look structure_, first_; ///< of what `whole_` and `before_` were made of
    std::shared_ptr<const handover::RunnableLook> whole_, before_;
    std::vector<double> all_values_, before_values_;
};

} // namespace kasuri::app
