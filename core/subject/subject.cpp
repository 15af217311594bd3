#include "subject/subject.hpp"

#include "base/digest.hpp"
#include "colour/space.hpp"
#include "ir/needed.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::subject {
namespace {

/// What remains of memory for programs between further spaces: more than anybody shows at once.
constexpr std::size_t max_programs = 32;

/// A program that keeps what it reads, for it may outlive the chain.
engine::ProgramPtr keeping(engine::ProgramPtr program, const Chain& chain) {
    struct Both {
        engine::ProgramPtr program;
        std::vector<std::shared_ptr<const ir::External>> tables;
    };
    std::vector<std::shared_ptr<const ir::External>> tables;
    for (const Chain* each = &chain; each; each = each->of.get())
        tables.insert(tables.end(), each->tables.begin(), each->tables.end());
    if (tables.empty())
        return program;
    const engine::Program* const plain = program.get();
    return {std::make_shared<const Both>(Both{std::move(program), std::move(tables)}), plain};
}

const ChainPtr& empty_chain() {
    static const ChainPtr chain = [] {
        auto made = std::make_shared<Chain>();
        made->finish();
        return made;
    }();
    return chain;
}

const std::shared_ptr<const Bindings>& no_bindings() {
    static const auto none = std::make_shared<const Bindings>();
    return none;
}

} // namespace

void Chain::add_parameters(const engine::ChainStep& step, const std::string& name, const std::string& identifier) {
    if (step.rule)
        for (const lang::Parameter& p : step.rule->parameters)
            parameters_.push_back(
                {name + ": " + p.name, identifier + "_" + p.name, p.description, p.value, p.low, p.high});
    std::size_t number = 0;
    for (const engine::ChainStep& each : step.within) {
        ++number;
        add_parameters(each, fmt::format("{}.{}", name, number), fmt::format("{}_{}", identifier, number));
    }
    if (!step.opaque)
        parameters_.push_back(
            {name + ": opacity", identifier + "_opacity", "How far the step is laid over what comes into it", 1, 0, 1});
}

void Chain::finish() {
    if (const lang::Rule* only = rule()) {
        for (const lang::Parameter& p : only->parameters)
            parameters_.push_back({p.name, p.name, p.description, p.value, p.low, p.high});
    } else {
        for (std::size_t i = 0; i < steps.size(); ++i) {
            const std::string number = i < numbers.size() ? numbers[i] : std::to_string(i + 1);
            add_parameters(steps[i], "step " + number, "step" + number);
        }
    }
    for (const lang::Rule* each : engine::rules_of(steps))
        for (lang::SourceInput& source : engine::external_sources(*each))
            sources_.push_back(std::move(source));
    space_ = steps.empty() ? colour::default_space : engine::space_of(steps.front());
}

const lang::Rule* Chain::rule() const {
    return steps.size() == 1 && engine::is_plain(steps.front()) ? steps.front().rule : nullptr;
}

engine::ProgramPtr Chain::program(std::string_view in, std::string_view out, std::span<const std::string> source_spaces,
                                  bool colour_only, const CancelToken* cancel) const {
    std::string key = fmt::format("{}\n{}\n{}", in, out, colour_only);
    for (const std::string& space : source_spaces)
        key += "\n" + space;
    const std::lock_guard lock(mutex_);
    forget_if_spaces_changed();
    if (const auto found = programs_.find(key); found != programs_.end())
        return found->second;
    engine::CompileOptions options;
    options.in_space = in.empty() ? std::string_view(space_) : in;
    options.out_space = out.empty() ? std::string_view(space_) : out;
    options.source_spaces.assign(source_spaces.begin(), source_spaces.end());
    options.colour_only = colour_only;
    options.cancel = cancel;
    // Mostly of the very graph that make_digest would make: a long chain is not lowered twice.
    const bool tells = digest_.empty() && options.in_space == colour::default_space &&
        options.out_space == colour::default_space && source_spaces.empty() && !colour_only;
    engine::ProgramPtr made = engine::compile_chain(steps, options, tells ? &digest_ : nullptr);
    if (!made)
        return nullptr;
    if (programs_.size() >= max_programs)
        programs_.clear();
    return programs_[key] = keeping(std::move(made), *this);
}

/// Names of spaces may mean something else now.
void Chain::forget_if_spaces_changed() const {
    if (const std::uint64_t now = colour::spaces_generation(); now != spaces_) {
        programs_.clear();
        digest_.clear();
        spaces_ = now;
    }
}

bool Chain::make_digest(const CancelToken* cancel) const {
    forget_if_spaces_changed();
    if (!digest_.empty())
        return true;
    ir::Graph graph;
    engine::CompileOptions options; // light, so that the space of the first step counts
    options.in_space = options.out_space = colour::default_space;
    options.cancel = cancel;
    const std::vector<ir::NodeId> outputs = engine::lower_chain(steps, graph, options);
    if (outputs.empty())
        return false;
    digest_ = ir::digest_of(graph, outputs);
    return true;
}

bool Chain::prepare(const CancelToken& cancel) const {
    if (!program({}, {}, {}, false, &cancel))
        return false;
    const std::lock_guard lock(mutex_);
    return make_digest(&cancel);
}

const std::string& Chain::digest() const {
    const std::lock_guard lock(mutex_);
    (void)make_digest(nullptr);
    return digest_;
}

ChainPtr chain_of(lang::Rule rule) {
    auto chain = std::make_shared<Chain>();
    engine::ChainStep step;
    for (lang::SourceInput& source : rule.sources)
        if (source.reads == lang::SourceInput::Reads::step) { // there is none: somebody may bring what it would be
            source.reads = lang::SourceInput::Reads::own;
            source.channel = -1;
        }
    step.rule = &chain->rules.emplace_back(std::move(rule));
    step.opaque = true;
    chain->steps.push_back(std::move(step));
    chain->finish();
    return chain;
}

Subject::Subject() : Subject(empty_chain()) {}

Subject::Subject(ChainPtr chain, std::string title, std::string note)
    : chain_(std::move(chain)), title_(std::move(title)), note_(std::move(note)), bindings_(no_bindings()) {
    for (const Parameter& p : chain_->parameters())
        values_.push_back(p.value);
}

Subject::Subject(lang::Rule rule) : Subject(chain_of(std::move(rule))) {
    title_ = this->rule()->title.empty() ? "A rule of Kasuri" : this->rule()->title;
    note_ = this->rule()->note;
}

Subject::Subject(lang::Rule rule, std::span<const double> values) : Subject(std::move(rule)) {
    for (std::size_t i = 0; i < values_.size() && i < values.size(); ++i)
        values_[i] = values[i];
}

Subject Subject::at(std::vector<double> values) const {
    Subject other = *this;
    values.resize(values_.size());
    other.values_ = std::move(values);
    return other;
}

Subject Subject::with_bindings(Bindings bindings) const {
    Subject other = *this;
    other.bindings_ = std::make_shared<const Bindings>(std::move(bindings));
    return other;
}

Subject Subject::between(std::string_view in, std::string_view out) const {
    Subject other = *this;
    other.in_ = in;
    other.out_ = out;
    return other;
}

Subject Subject::part(std::size_t first, std::size_t last) const {
    auto chain = std::make_shared<Chain>();
    chain->of = chain_;
    const std::span<const engine::ChainStep> all = steps();
    chain->steps.assign(all.begin() + static_cast<std::ptrdiff_t>(first),
                        all.begin() + static_cast<std::ptrdiff_t>(last + 1));
    for (engine::ChainStep& step : chain->steps)
        for (std::vector<int>* reads : {&step.rule_reads, &step.mask_reads})
            for (int& read : *reads)
                read = std::max(read - static_cast<int>(first), engine::ChainStep::before_all);
    for (std::size_t i = first; i <= last; ++i)
        chain->numbers.push_back(i < chain_->numbers.size() ? chain_->numbers[i] : std::to_string(i + 1));
    chain->finish();
    const std::size_t before = engine::chain_parameters(all.first(first)), count = chain->parameters().size();
    Subject made(std::move(chain), title_, note_);
    made.values_.assign(values_.begin() + static_cast<std::ptrdiff_t>(before),
                        values_.begin() + static_cast<std::ptrdiff_t>(before + count));
    made.bindings_ = bindings_;
    made.fixed_ = fixed_;
    return made;
}

bool Subject::is_self_contained(std::size_t first, std::size_t last) const {
    const auto looks_beyond = [&](const lang::Rule* rule, const std::vector<int>& reads) {
        for (std::size_t k = 0; rule && k < rule->sources.size(); ++k) {
            const bool before_all = k >= reads.size() || reads[k] < 0;
            switch (rule->sources[k].reads) {
            case lang::SourceInput::Reads::own: break;
            case lang::SourceInput::Reads::picture:
                if (first > 0)
                    return true;
                break;
            case lang::SourceInput::Reads::step:
                if (before_all ? first > 0 : static_cast<std::size_t>(reads[k]) < first)
                    return true;
                break;
            }
        }
        return false;
    };
    for (std::size_t i = first; i <= last; ++i) {
        const engine::ChainStep& step = chain_->steps[i];
        if (looks_beyond(step.rule, step.rule_reads) || looks_beyond(step.mask, step.mask_reads))
            return false;
    }
    return true;
}

std::string_view Subject::noun() const {
    return rule() ? "rule" : steps().size() == 1 && steps().front().external ? "LUT" : "look";
}

Subject Subject::fixed() const {
    Subject other = *this;
    other.fixed_ = true;
    return other;
}

std::vector<ir::NodeId> Subject::lower(ir::Graph& graph, const engine::CompileOptions& options) const {
    engine::CompileOptions with = options;
    if (with.in_space.empty())
        with.in_space = in_space();
    if (with.out_space.empty())
        with.out_space = out_space();
    if (fixed_)
        graph.fix_parameters(values_);
    return engine::lower_chain(steps(), graph, with);
}

engine::ProgramPtr Subject::program(std::string_view in, std::string_view out,
                                    std::span<const std::string> source_spaces, bool colour_only,
                                    const CancelToken* cancel) const {
    if (!fixed_)
        return chain_->program(in.empty() ? std::string_view(in_) : in, out.empty() ? std::string_view(out_) : out,
                               source_spaces, colour_only, cancel);
    engine::CompileOptions options;
    options.in_space = in;
    options.out_space = out;
    options.source_spaces.assign(source_spaces.begin(), source_spaces.end());
    options.colour_only = colour_only;
    options.cancel = cancel;
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = lower(graph, options);
    if (outputs.empty())
        return nullptr;
    return keeping(std::make_shared<const engine::Program>(graph, outputs), *chain_);
}

std::string Subject::identity() const {
    Digest digest;
    digest.add(chain_->digest());
    digest.add(in_space());
    digest.add(out_space());
    for (const double value : values_)
        digest.add(value);
    for (const lang::SourceInput& source : sources()) {
        const auto bound = bindings_->find(source.name);
        if (bound == bindings_->end() || !bound->second.picture) {
            digest.add("by its name"); // what the file has of that name
            digest.add(source.name);
        } else if (!bound->second.identity.empty()) {
            digest.add(bound->second.identity);
        } else {
            digest.add(static_cast<std::uint64_t>(reinterpret_cast<std::uintptr_t>(bound->second.picture.get())));
        }
    }
    return digest.text();
}

std::vector<PicturePtr> pictures_for(const Subject& subject, const image::Image* file, int width, int height,
                                     PicturePtr (*fit)(const PicturePtr&, int width, int height)) {
    std::vector<PicturePtr> pictures;
    for (const lang::SourceInput& source : subject.sources()) {
        const auto bound = subject.bindings().find(source.name);
        PicturePtr picture = bound != subject.bindings().end() && bound->second.picture ? bound->second.picture
            : file ? engine::source_in(*file, source.name)
                   : nullptr;
        if (picture && (picture->width != width || picture->height != height))
            picture = fit(picture, width, height);
        pictures.push_back(std::move(picture));
    }
    return pictures;
}

std::vector<std::string> without_picture(const Subject& subject, const image::Image* file) {
    std::vector<std::string> names;
    for (const lang::SourceInput& source : subject.sources()) {
        const auto bound = subject.bindings().find(source.name);
        const bool has = (bound != subject.bindings().end() && bound->second.picture) ||
            (file && engine::source_in(*file, source.name));
        if (!has && std::find(names.begin(), names.end(), source.name) == names.end())
            names.push_back(source.name);
    }
    return names;
}

} // namespace kasuri::subject
