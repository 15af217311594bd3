#pragma once
#include "base/cancel.hpp"
#include "engine/chain.hpp"
#include "engine/evaluate.hpp"
#include "engine/sources.hpp"

#include <deque>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::subject {

using PicturePtr = std::shared_ptr<const image::Picture>;

/// A picture that a source reads by its name.
struct Bound {
    PicturePtr picture;
    std::string label;    ///< for people: "lamp.exr, layer beauty"
    std::string identity; ///< equal for equal numbers, also in another run of the program; empty: the picture's address
    friend bool operator==(const Bound& a, const Bound& b) {
        return a.picture == b.picture && a.label == b.label && a.identity == b.identity;
    }
};
/// By the names of the sources; every step that has a source of that name reads it.
using Bindings = std::map<std::string, Bound>;

/// A number that a subject can be set by.
struct Parameter {
    std::string name;       ///< for people: "meet", or "step 2: meet"
    std::string identifier; ///< for programs: "meet", "step2_meet"
    std::string description;
    double value = 0; ///< the usual one: of a rule's parameter its default
    double low = 0, high = 1;
};

/// What subjects of the same steps share, whatever their values: the steps with all they point to, and the programs
/// that were made of them. Filled by whoever makes it (`chain_of`, look/make), and then never changed.
class Chain {
public:
    Chain() = default;
    Chain(const Chain&) = delete; ///< the steps would go on pointing into the first
    Chain& operator=(const Chain&) = delete;

    std::deque<lang::Rule> rules;                            ///< steps point into it,
    std::deque<std::string> words;                           ///< into the names of their blend modes and spaces,
    std::vector<std::shared_ptr<const ir::External>> tables; ///< and to these
    std::vector<engine::ChainStep> steps;
    std::vector<std::string> numbers{}; ///< of each of `steps`, as people count them; empty: 1, 2, 3 ...
    std::shared_ptr<const Chain> of{};  ///< what owns the rules that steps point to, if this is a part of it

    /// To be called once, when all of the above is there.
    void finish();

    std::span<const Parameter> parameters() const { return parameters_; } ///< in the order of the graph's slots
    std::span<const lang::SourceInput> sources() const {
        return sources_;
    } ///< in the order in which the chain reads them
    /// Of the numbers that come in and go out, where nothing else is said: the first step's.
    const std::string& space() const { return space_; }
    /// The rule, if this is one plain step.
    const lang::Rule* rule() const;

    /// The program between these spaces (empty: `space`), with sources in these (empty, or too few: the steps' own).
    /// Made once; null if that is called off. Thread-safe.
    engine::ProgramPtr program(std::string_view in, std::string_view out, std::span<const std::string> source_spaces,
                               bool colour_only = false, const CancelToken* cancel = nullptr) const;
    /// Makes what takes time in a long chain, so that it is there when it is asked for: the program between the usual
    /// spaces, and the digest. False if called off. Thread-safe.
    bool prepare(const CancelToken& cancel) const;
    /// What the steps compute, whatever the values are: a digest of the graph. Made once. Thread-safe.
    const std::string& digest() const;

private:
    void add_parameters(const engine::ChainStep& step, const std::string& name, const std::string& identifier);

    std::vector<Parameter> parameters_;
    std::vector<lang::SourceInput> sources_;
    std::string space_;
    void forget_if_spaces_changed() const;
    bool make_digest(const CancelToken* cancel) const;

    mutable std::mutex mutex_;
    mutable std::map<std::string, engine::ProgramPtr> programs_; ///< they keep the tables that they read
    mutable std::string digest_;
    mutable std::uint64_t spaces_ = 0; ///< the state of the spaces' table for which digest and programs were made
};
using ChainPtr = std::shared_ptr<const Chain>;

/// One rule as a chain of one plain step.
ChainPtr chain_of(lang::Rule rule);

/// A chain at its values. Copies share the chain; the functions that begin with `with` and `at` give another subject.
class Subject {
public:
    /// Nothing: what comes in goes out.
    Subject();
    /// At the usual values; `title` and `note` are for people.
    explicit Subject(ChainPtr chain, std::string title = {}, std::string note = {});
    /// A rule, at these values (nothing: its defaults).
    Subject(lang::Rule rule); ///< every rule is one
    Subject(lang::Rule rule, std::span<const double> values);

    const std::string& title() const { return title_; }
    const std::string& note() const { return note_; }
    const Chain& chain() const { return *chain_; }
    const ChainPtr& chain_ptr() const { return chain_; }
    std::span<const engine::ChainStep> steps() const { return chain_->steps; }
    const lang::Rule* rule() const { return chain_->rule(); } ///< null unless it is one plain step
    const std::string& space() const { return chain_->space(); }
    std::span<const Parameter> parameters() const {
        return fixed_ ? std::span<const Parameter>() : chain_->parameters();
    }
    std::span<const lang::SourceInput> sources() const { return chain_->sources(); }
    /// In the order of the parameters; none if it is fixed.
    const std::vector<double>& values() const { return fixed_ ? none_ : values_; }
    const Bindings& bindings() const { return *bindings_; }
    /// Of the numbers that come in and go out: `space`, unless it was put between others.
    const std::string& in_space() const { return in_.empty() ? space() : in_; }
    const std::string& out_space() const { return out_.empty() ? space() : out_; }
    /// What it is, for sentences: "rule", "LUT" or "look".
    std::string_view noun() const;

    Subject at(std::vector<double> values) const;
    Subject with_bindings(Bindings bindings) const;
    /// With numbers of these spaces coming in and going out; empty: `space`.
    Subject between(std::string_view in, std::string_view out) const;
    /// Steps `first` to `last` (both included) alone, at their values.
    /// Sources that read steps before them find what comes into the part.
    Subject part(std::size_t first, std::size_t last) const;
    /// Whether no step of that part reads what was before it.
    bool is_self_contained(std::size_t first, std::size_t last) const;
    /// Its values are no parameters any more but numbers: what depends on them alone is known, and algebra sees it.
    Subject fixed() const;
    bool is_fixed() const { return fixed_; }

    /// Four nodes: r, g, b and a (three if the options want colours only), then what else they ask for. Where they name
    /// no space it is `in_space` and `out_space`. A fixed subject has no parameters in the graph.
    std::vector<ir::NodeId> lower(ir::Graph& graph, const engine::CompileOptions& options = {}) const;
    /// A program of four outputs (three: colours only) that `values` fit; null if that is called off. Of a fixed
    /// subject, made anew at every call.
    engine::ProgramPtr program(std::string_view in = {}, std::string_view out = {},
                               std::span<const std::string> source_spaces = {}, bool colour_only = false,
                               const CancelToken* cancel = nullptr) const;

    /// 32 digits, equal for subjects that make the same of every picture: of what the steps compute, the values and the
    /// pictures that are bound. Titles, texts and names play no part.
    std::string identity() const;

private:
    ChainPtr chain_;
    std::string title_, note_;
    std::string in_, out_;
    std::vector<double> values_, none_;
    std::shared_ptr<const Bindings> bindings_;
    bool fixed_ = false;
};

/// The subject's pictures for one of `width` x `height` pixels that comes from `file` (may be null), in the order of
/// `sources`: what is bound, else the file's layer or channel of the source's name, else null. `fit` makes one of
/// another size fit.
std::vector<PicturePtr> pictures_for(const Subject& subject, const image::Image* file, int width, int height,
                                     PicturePtr (*fit)(const PicturePtr&, int width, int height));

/// The names of sources for which there is no picture, each once: nothing can be claimed of the subject there.
std::vector<std::string> without_picture(const Subject& subject, const image::Image* file);

} // namespace kasuri::subject
