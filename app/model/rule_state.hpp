#pragma once
#include "look/make.hpp"
#include "model/around.hpp"
#include "model/lens.hpp"
#include "model/picture_ptr.hpp"
#include "model/session.hpp"

#include <map>
#include <memory>
#include <string>
#include <utility>

namespace kasuri::app {

/// A rule as the evaluation knows it: the last text that compiled, as a subject by itself and within the look around
/// it.
class RuleState {
public:
    enum class Change {
        none,   ///< the same text
        faulty, ///< another text that does not compile: the rule is the one before
        rule,
    };
    /// `uses`: copies of the files that the rule uses; others stand beside it. `files`: another number when one of
    /// those says something else now.
    Change check(const std::string& text, const std::filesystem::path& path,
                 const std::map<std::string, std::string>& uses = {}, std::uint64_t files = 0,
                 const CancelToken& cancel = {});
    const CheckedPtr& last_checked() const { return checked_; }
    bool has_rule() const { return good_ != nullptr; }
    const lang::Rule& rule() const { return good_->rule; }
    const std::string& text() const { return good_text_; } ///< of the rule
    double check_ms() const { return check_ms_; }

    /// Comes after `check`: values of the rule, pictures for sources, and the look that the rule is a step of. False if
    /// called off: then there is nothing to be shown until it is put again.
    bool put(const ValueMap& values, const subject::Bindings& bindings, const AroundPtr& around,
             Part part = Part::shown, const CancelToken& cancel = {});

    /// The rule alone.
    const subject::Subject& own() const { return own_; }
    /// The steps that come before the rule in the look; nothing if there are none.
    const subject::Subject& before() const { return before_.subject; }
    /// What is shown: the look, or the rule if there is none.
    const subject::Subject& whole() const { return whole_.subject; }
    /// What steps 1 to `number` of the look make; none above what is shown counts. The rule alone for a filter by
    /// itself; nothing if all those steps are off or left out, and the picture is as it came.
    std::optional<subject::Subject> up_to(int number) const;
    /// Whether there is a look of so many steps.
    bool has_step(int number) const;
    /// Steps of the look that are left out, and why.
    const std::vector<std::pair<std::size_t, Error>>& faults() const { return whole_.faults; }

    /// A source of the active rule, or of its mask, that looks back in the look: at what it reads.
    struct LookBack {
        std::string source;
        int step = 0;     ///< of `whole`; engine::ChainStep::before_all: the picture as it came in
        int channel = -1; ///< the only one that is read
    };
    /// Those of the rule. In a look they are pictures to be brought, for what is evaluated of the rule alone.
    std::vector<LookBack> looks_back() const;

    /// What makes the numbers of a lens of the rule: the value of an expression in its names, evaluated after its last
    /// statement, the mask of its step, or a measure of its slopes.
    struct Peek {
        subject::Subject subject;   ///< whose values and sources `program` takes
        engine::ProgramPtr program; ///< null if there is a fault
        std::vector<LookBack> looks_back{};
        bool inside = false; ///< it wants what comes into the rule, in the working space, not the picture
        std::string fault;
    };
    /// For pictures of a space.
    const Peek& peek(const Lens& lens, const std::string& space);

private:
    std::function<Result<std::string>(const std::string&)> opener() const;
    Peek made_peek(const Lens& lens, const std::string& space) const;
    std::vector<LookBack> looks_back(const lang::Rule& rule, bool of_mask) const;

    std::string text_, good_text_;
    std::filesystem::path path_;
    std::map<std::string, std::string> uses_;
    std::uint64_t files_ = 0;
    CheckedPtr checked_, good_;
    double check_ms_ = 0;
    std::uint64_t spaces_ = 0;
    AroundPtr around_;
    subject::Subject own_, alone_; ///< in a look; by itself
    document::Look look_, first_;  ///< of what `whole_` and `before_` were made of
    look::Made whole_, before_;
    bool made_ = false; ///< from look_ and first_
    std::map<std::pair<std::string, std::string>, Peek> peeks_;
};

/// The spaces of a subject's sources for a picture of a space: those of the pictures that were given, else the same.
std::vector<std::string> source_spaces_for(const subject::Subject& subject, const std::string& space);

} // namespace kasuri::app
