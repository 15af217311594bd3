#pragma once
#include "engine/program.hpp"
#include "engine/sources.hpp"
#include "image/image.hpp"
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

/// A rule as the evaluation knows it: the last text that compiled, its values, its programs and its sources, each made once.
class RuleState {
public:
    enum class Change {
        none,   ///< the same text
        faulty, ///< another text that does not compile: the rule is the one before
        rule,
    };
    Change check(const std::string& text, const std::filesystem::path& path);
    const CheckedPtr& last_checked() const { return checked_; }
    bool has_rule() const { return good_ != nullptr; }
    const lang::Rule& rule() const { return good_->rule; }
    std::string working() const;
    const std::string& text() const { return good_text_; }
    double check_ms() const { return check_ms_; }

    /// Return whether they are others.
    bool set_values(std::vector<double> values);
    bool set_given(GivenSources given);
    const std::vector<double>& values() const { return values_; }

    /// The program for pictures of a space; "" is the rule's own.
    const engine::Program& program(const std::string& space);

    /// What makes the numbers of a lens of the rule: the value of an expression in its names, evaluated after its last statement, or
    /// a measure of its slopes.
    struct Peek {
        engine::ProgramPtr program; ///< null if there is a fault
        engine::ProgramPtr first;   ///< brings the picture into the working space, which `program` then wants; may be null
        std::string fault;
    };
    const Peek& peek(const Lens& lens, const std::string& space);

    using ImagePtr = std::shared_ptr<const image::Image>;
    /// The further pictures for one of `width` x `height` pixels: what was given, stretched to that size; else what its file has of
    /// that name.
    const engine::BoundSources& sources_in(const ImagePtr& file, int width, int height);
    /// Whether the source reads as 0 there.
    bool missing(std::size_t source, const ImagePtr& file) const;
    /// Those of files that nobody shows any more.
    template <class Used> void forget_sources(Used used) {
        std::erase_if(sources_, [&](const auto& entry) { return !used(std::get<0>(entry.first)); });
    }

private:
    PicturePtr source(const lang::SourceInput& source, const ImagePtr& file) const;
    std::vector<std::string> source_spaces(const std::string& space) const;

    std::string text_, good_text_;
    std::filesystem::path path_;
    CheckedPtr checked_, good_;
    double check_ms_ = 0;
    std::uint64_t spaces_ = 0;
    std::vector<double> values_;
    GivenSources given_;
    std::map<std::string, engine::ProgramPtr> programs_;
    std::map<std::pair<std::string, std::string>, Peek> peeks_;
    std::map<std::tuple<ImagePtr, int, int>, engine::BoundSources> sources_;
};

} // namespace kasuri::app
