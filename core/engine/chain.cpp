#include "engine/chain.hpp"

#include "builtins/builtin.hpp"
#include "colour/space.hpp"

#include <algorithm>

namespace kasuri::engine {

using ir::Graph;
using ir::NodeId;

namespace {

const builtins::Builtin* blend_row(std::string_view name) {
    const auto all = builtins::all();
    const auto found = std::find_if(all.begin(), all.end(), [&](const builtins::Builtin& row) { return row.name.starts_with("blend_") && std::string_view(row.name).substr(6) == name; });
    return found == all.end() ? nullptr : &*found;
}

constexpr builtins::Shape colours{3, 2}; ///< two colours of three components

std::uint32_t parameters_of(const ChainStep& step) { return static_cast<std::uint32_t>(step.rule.parameters.size()) + 1; }

} // namespace

bool is_blend(std::string_view name) { return blend_row(name) != nullptr; }

std::size_t chain_parameters(std::span<const ChainStep> steps) {
    std::size_t count = 0;
    for (const ChainStep& step : steps)
        count += parameters_of(step);
    return count;
}

std::vector<NodeId> lower_chain(std::span<const ChainStep> steps, Graph& g, const CompileOptions& options) {
    std::size_t channels = 0;
    for (const ChainStep& step : steps)
        channels += source_channels(step.rule);
    g.reserve_sources(static_cast<std::uint32_t>(channels));
    Feed feed{{g.input(ir::Input::r), g.input(ir::Input::g), g.input(ir::Input::b), g.input(ir::Input::a)}, 0, 0};
    const colour::Space* space = options.in_space.empty() ? nullptr : colour::find_space(options.in_space); // of what feed.rgba is
    std::size_t source = 0;
    for (const ChainStep& step : steps) {
        const colour::Space& working = *colour::find_space(working_space(step.rule));
        if (space && space != &working) {
            const auto inside = colour::lower_converted(g, {feed.rgba[0], feed.rgba[1], feed.rgba[2]}, *space, working);
            std::copy(inside.begin(), inside.end(), feed.rgba.begin());
        }
        space = &working;
        CompileOptions with; // from here on in the step's own space
        for (std::size_t i = 0; i < step.rule.sources.size(); ++i, ++source)
            with.source_spaces.push_back(source < options.source_spaces.size() ? options.source_spaces[source] : std::string());
        const std::vector<NodeId> made = lower_behind(step.rule, g, with, feed);
        NodeId share = g.uniform(ir::first_parameter_slot + feed.first_parameter + static_cast<std::uint32_t>(step.rule.parameters.size()));
        if (step.mask) {
            CompileOptions print;
            print.print = true;
            NodeId mask = lower_behind(*step.mask, g, print, feed)[0];
            if (step.mask_inverted)
                mask = g.sub(g.constant(1), mask);
            share = g.mul(share, mask);
        }
        std::array<NodeId, 3> laid = {made[0], made[1], made[2]};
        if (step.blend != "normal") {
            const NodeId* const arguments[] = {feed.rgba.data(), made.data()};
            builtins::lower(*blend_row(step.blend), working, g, colours, arguments, laid.data());
        }
        const auto mixed = [&](NodeId was, NodeId is) { return was == is ? was : g.add(g.mul(was, g.sub(g.constant(1), share)), g.mul(is, share)); };
        feed.rgba = {mixed(feed.rgba[0], laid[0]), mixed(feed.rgba[1], laid[1]), mixed(feed.rgba[2], laid[2]), mixed(feed.rgba[3], made[3])};
        feed.first_parameter += parameters_of(step);
        feed.first_source += static_cast<std::uint32_t>(source_channels(step.rule));
    }
    const colour::Space* out = options.out_space.empty() ? nullptr : colour::find_space(options.out_space);
    if (out && space && out != space) {
        const auto back = colour::lower_converted(g, {feed.rgba[0], feed.rgba[1], feed.rgba[2]}, *space, *out);
        std::copy(back.begin(), back.end(), feed.rgba.begin());
    }
    return {feed.rgba.begin(), feed.rgba.end()};
}

ProgramPtr compile_chain(std::span<const ChainStep> steps, const CompileOptions& options) {
    Graph graph(options.rewrite);
    const std::vector<NodeId> outputs = lower_chain(steps, graph, options);
    return std::make_shared<const Program>(graph, outputs, options.fuse);
}

std::array<double, 4> reference_chain(std::span<const ChainStep> steps, std::span<const double> parameters, std::string_view in_space, const ReferencePixel& pixel) {
    const colour::Space* const from = colour::find_space(in_space);
    const colour::Space* space = from;
    ReferencePixel now = pixel;
    const auto into = [&](const colour::Space* other) {
        if (space && other && space != other) {
            const colour::Triple made = colour::converted({now.rgba[0], now.rgba[1], now.rgba[2]}, *space, *other);
            std::copy(made.begin(), made.end(), now.rgba.begin());
        }
        space = other;
    };
    std::size_t first = 0, source = 0;
    for (const ChainStep& step : steps) {
        into(colour::find_space(working_space(step.rule)));
        const std::size_t count = step.rule.parameters.size(), channels = source_channels(step.rule);
        now.sources.assign(channels, 0);
        for (std::size_t i = 0; i < channels && source + i < pixel.sources.size(); ++i)
            now.sources[i] = pixel.sources[source + i];
        const std::array<double, 4> made = reference(step.rule, parameters.subspan(first, count), now);
        double share = parameters[first + count];
        if (step.mask) {
            const double mask = reference_print(*step.mask, {}, now)[0];
            share *= step.mask_inverted ? 1 - mask : mask;
        }
        std::array<double, 3> laid = {made[0], made[1], made[2]};
        if (step.blend != "normal") {
            const double* const arguments[] = {now.rgba.data(), made.data()};
            builtins::evaluate(*blend_row(step.blend), *space, colours, arguments, laid.data());
        }
        for (std::size_t c = 0; c < 4; ++c)
            now.rgba[c] = now.rgba[c] * (1 - share) + (c < 3 ? laid[c] : made[3]) * share;
        first += count + 1;
        source += channels;
    }
    into(from);
    return now.rgba;
}

} // namespace kasuri::engine
