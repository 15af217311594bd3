#include "engine/chain.hpp"

#include "builtins/builtin.hpp"
#include "colour/space.hpp"
#include "ir/needed.hpp"

#include <algorithm>
#include <utility>

namespace kasuri::engine {

using ir::Graph;
using ir::NodeId;

namespace {

const builtins::Builtin* blend_row(std::string_view name) {
    const auto all = builtins::all();
    const auto found = std::find_if(all.begin(), all.end(), [&](const builtins::Builtin& row) {
        return row.name.starts_with("blend_") && std::string_view(row.name).substr(6) == name;
    });
    return found == all.end() ? nullptr : &*found;
}

constexpr builtins::Shape colours{3, 2}; ///< two colours of three components

std::size_t parameters_of(const ChainStep& step) {
    return (step.rule ? step.rule->parameters.size() : chain_parameters(step.within)) + (step.opaque ? 0 : 1);
}

void collect(std::span<const ChainStep> steps, std::vector<const lang::Rule*>& rules) {
    for (const ChainStep& step : steps) {
        if (step.rule)
            rules.push_back(step.rule);
        collect(step.within, rules);
        if (step.mask)
            rules.push_back(step.mask);
    }
}

std::array<NodeId, 4> converted(Graph& g, const std::array<NodeId, 4>& rgba, const colour::Space* from,
                                const colour::Space* to) {
    if (!from || !to || from == to)
        return rgba;
    const auto made = colour::lower_converted(g, {rgba[0], rgba[1], rgba[2]}, *from, *to);
    return {made[0], made[1], made[2], rgba[3]};
}

/// Writes steps one behind the other.
struct ChainLowering {
    Graph& g;
    const CompileOptions& options;
    std::size_t source = 0; ///< of all, where the next rule's begin
    Feed feed;
    /// What the steps among which one stands have made so far, and what came into the first of them.
    std::vector<Feed::Given> made_before{};

    /// What a rule needs to be told; its sources are counted.
    CompileOptions told(const lang::Rule& rule) {
        CompileOptions with; // a step works in its own space
        with.cancel = options.cancel;
        const std::vector<std::string>& source_spaces = options.source_spaces;
        for (const lang::SourceInput& each : rule.sources)
            if (lang::is_external(each)) {
                with.source_spaces.push_back(source < source_spaces.size() ? source_spaces[source] : std::string());
                ++source;
            }
        return with;
    }

    /// What sources that look back find.
    void look_back(const lang::Rule& rule, const std::vector<int>& reads) {
        feed.steps.clear();
        for (std::size_t i = 0; i < rule.sources.size(); ++i) {
            const int step = i < reads.size() ? reads[i] : ChainStep::before_all;
            const bool known = step >= 0 && static_cast<std::size_t>(step) < made_before.size();
            feed.steps.push_back(known ? std::optional(made_before[static_cast<std::size_t>(step)]) : feed.picture);
        }
    }

    /// Steps that stand among themselves: the picture as it came in is what comes into the first of them.
    const colour::Space* all(std::span<const ChainStep> steps, const colour::Space* space) {
        const std::optional<Feed::Given> outer = feed.picture;
        std::vector<Feed::Given> outer_made = std::move(made_before);
        made_before.clear();
        if (!steps.empty()) {
            // In the space of the first step: of numbers that say nothing of their space.
            const std::string_view own = space ? space->name : space_of(steps.front());
            feed.picture = Feed::Given{feed.rgba, own};
        }
        for (const ChainStep& each : steps) {
            if (is_called_off(options))
                break;
            space = step(each, space);
            made_before.push_back({feed.rgba, space_of(each)});
        }
        made_before = std::move(outer_made);
        feed.picture = outer;
        return space;
    }

    /// The space that `feed.rgba` is in then; `space` may be null for the step's own.
    const colour::Space* step(const ChainStep& step, const colour::Space* space) {
        const colour::Space* own = colour::find_space(space_of(step));
        feed.rgba = converted(g, feed.rgba, space, own);
        const std::array<NodeId, 4> came = feed.rgba;
        std::array<NodeId, 4> made{};
        if (step.rule) {
            look_back(*step.rule, step.rule_reads);
            const std::vector<NodeId> outputs = lower_behind(*step.rule, g, told(*step.rule), feed);
            if (outputs.empty())
                return own; // called off
            std::copy_n(outputs.begin(), 4, made.begin());
            feed.first_parameter += static_cast<std::uint32_t>(step.rule->parameters.size());
            feed.first_source += static_cast<std::uint32_t>(source_channels(*step.rule));
        } else if (step.external) {
            const auto outputs = g.external(*step.external, {came[0], came[1], came[2]});
            made = {outputs[0], outputs[1], outputs[2], came[3]};
        } else {
            const colour::Space* const inside = all(step.within, own);
            made = converted(g, feed.rgba, inside, own);
        }
        feed.rgba = came; // which the mask reads
        NodeId share = step.opaque ? g.constant(1) : g.uniform(ir::first_parameter_slot + feed.first_parameter++);
        if (step.mask) {
            look_back(*step.mask, step.mask_reads);
            CompileOptions print = told(*step.mask);
            print.print = true;
            const std::vector<NodeId> printed = lower_behind(*step.mask, g, print, feed);
            if (printed.empty())
                return own;
            NodeId mask = printed[0];
            feed.first_source += static_cast<std::uint32_t>(source_channels(*step.mask));
            if (step.mask_inverted)
                mask = g.sub(g.constant(1), mask);
            share = step.opaque ? mask : g.mul(share, mask);
        }
        std::array<NodeId, 4> laid = made;
        if (step.blend != "normal") {
            const NodeId* const arguments[] = {came.data(), made.data()};
            builtins::lower(*blend_row(step.blend), *own, g, colours, arguments, laid.data());
        }
        for (std::size_t c = 0; c < 4; ++c)
            if (came[c] != laid[c])
                feed.rgba[c] = step.opaque && !step.mask
                    ? laid[c]
                    : g.add(g.mul(came[c], g.sub(g.constant(1), share)), g.mul(laid[c], share));
        return own;
    }
};

/// Walks steps for one pixel.
struct ChainReference {
    std::span<const double> parameters;
    std::span<const double> sources;
    ReferencePixel now;
    std::size_t first = 0, source = 0;
    struct Given {
        std::array<double, 4> rgba;
        const colour::Space* space;
    };
    std::optional<Given> picture{};
    std::vector<Given> made_before{};

    /// What sources that look back find, in the space of their rule.
    void look_back(const lang::Rule& rule, const std::vector<int>& reads, const colour::Space* own) {
        const auto in_own = [own](Given given) {
            into(given.rgba, given.space, own);
            return given.rgba;
        };
        now.original.reset();
        now.read.assign(rule.sources.size(), {});
        if (picture)
            now.original = in_own(*picture);
        for (std::size_t i = 0; i < rule.sources.size(); ++i) {
            const int step = i < reads.size() ? reads[i] : ChainStep::before_all;
            if (step >= 0 && static_cast<std::size_t>(step) < made_before.size())
                now.read[i] = in_own(made_before[static_cast<std::size_t>(step)]);
            else if (picture)
                now.read[i] = in_own(*picture);
        }
    }

    const colour::Space* all(std::span<const ChainStep> steps, const colour::Space* space) {
        const std::optional<Given> outer = picture;
        const std::vector<Given> outer_made = std::exchange(made_before, {});
        if (!steps.empty())
            picture = Given{now.rgba, space ? space : colour::find_space(space_of(steps.front()))};
        for (const ChainStep& each : steps) {
            space = step(each, space);
            made_before.push_back({now.rgba, space});
        }
        made_before = outer_made;
        picture = outer;
        return space;
    }

    void take_sources(const lang::Rule& rule) {
        const std::size_t channels = source_channels(rule);
        now.sources.assign(channels, 0);
        for (std::size_t i = 0; i < channels && source + i < sources.size(); ++i)
            now.sources[i] = sources[source + i];
        source += channels;
    }
    static void into(std::array<double, 4>& rgba, const colour::Space* from, const colour::Space* to) {
        if (from && to && from != to) {
            const colour::Triple made = colour::converted({rgba[0], rgba[1], rgba[2]}, *from, *to);
            std::copy(made.begin(), made.end(), rgba.begin());
        }
    }

    const colour::Space* step(const ChainStep& step, const colour::Space* space) {
        const colour::Space* const own = colour::find_space(space_of(step));
        into(now.rgba, space, own);
        const std::array<double, 4> came = now.rgba;
        std::array<double, 4> made{};
        if (step.rule) {
            take_sources(*step.rule);
            look_back(*step.rule, step.rule_reads, own);
            made = reference(*step.rule, parameters.subspan(first, step.rule->parameters.size()), now);
            first += step.rule->parameters.size();
        } else if (step.external) {
            const std::array<double, 3> outputs = ir::applied(*step.external, came.data());
            made = {outputs[0], outputs[1], outputs[2], came[3]};
        } else {
            const colour::Space* const inside = all(step.within, own);
            made = now.rgba;
            into(made, inside, own);
        }
        now.rgba = came;
        double share = step.opaque ? 1 : parameters[first++];
        if (step.mask) {
            take_sources(*step.mask);
            look_back(*step.mask, step.mask_reads, own);
            const double mask = reference_print(*step.mask, {}, now)[0];
            share *= step.mask_inverted ? 1 - mask : mask;
        }
        std::array<double, 3> laid = {made[0], made[1], made[2]};
        if (step.blend != "normal") {
            const double* const arguments[] = {came.data(), made.data()};
            builtins::evaluate(*blend_row(step.blend), *own, colours, arguments, laid.data());
        }
        const bool whole = step.opaque && !step.mask;
        for (std::size_t c = 0; c < 4; ++c) {
            const double over = c < 3 ? laid[c] : made[3];
            now.rgba[c] = whole ? over : came[c] * (1 - share) + over * share;
        }
        return own;
    }
};

} // namespace

bool is_blend(std::string_view name) { return blend_row(name) != nullptr; }

std::string_view space_of(const ChainStep& step) {
    return step.rule ? working_space(*step.rule) : step.external ? step.space : space_of(step.within.front());
}

std::vector<const lang::Rule*> rules_of(std::span<const ChainStep> steps) {
    std::vector<const lang::Rule*> rules;
    collect(steps, rules);
    return rules;
}

std::size_t chain_parameters(std::span<const ChainStep> steps) {
    std::size_t count = 0;
    for (const ChainStep& step : steps)
        count += parameters_of(step);
    return count;
}

bool is_plain(const ChainStep& step) { return step.rule && step.opaque && !step.mask && step.blend == "normal"; }

std::vector<NodeId> lower_chain(std::span<const ChainStep> steps, Graph& g, const CompileOptions& options) {
    if (steps.size() == 1 && is_plain(steps.front()))
        return lower(*steps.front().rule, g, options);
    std::size_t channels = 0;
    for (const lang::Rule* rule : rules_of(steps))
        channels += source_channels(*rule);
    g.reserve_sources(static_cast<std::uint32_t>(channels));
    ChainLowering lowering{
        g,
        options,
        0,
        {{g.input(ir::Input::r), g.input(ir::Input::g), g.input(ir::Input::b), g.input(ir::Input::a)}, 0, 0}};
    const colour::Space* space = options.in_space.empty() ? nullptr : colour::find_space(options.in_space);
    space = lowering.all(steps, space);
    if (is_called_off(options))
        return {};
    const auto out = converted(g, lowering.feed.rgba, space,
                               options.out_space.empty() ? nullptr : colour::find_space(options.out_space));
    std::vector<NodeId> outputs(out.begin(), out.end());
    if (options.colour_only)
        outputs.pop_back();
    return outputs;
}

ProgramPtr compile_chain(std::span<const ChainStep> steps, const CompileOptions& options, std::string* digest) {
    Graph graph(options.rewrite);
    const std::vector<NodeId> outputs = lower_chain(steps, graph, options);
    if (outputs.empty())
        return nullptr;
    if (digest)
        *digest = ir::digest_of(graph, outputs);
    return std::make_shared<const Program>(graph, outputs, options.fuse);
}

std::array<double, 4> reference_chain(std::span<const ChainStep> steps, std::span<const double> parameters,
                                      std::string_view in_space, const ReferencePixel& pixel) {
    const colour::Space* const from = colour::find_space(in_space);
    ChainReference walk{parameters, pixel.sources, pixel};
    const colour::Space* const space = walk.all(steps, from);
    ChainReference::into(walk.now.rgba, space, from);
    return walk.now.rgba;
}

} // namespace kasuri::engine
