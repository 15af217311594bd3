#include "insight/bounds.hpp"

#include "ir/derive.hpp"
#include "ir/range.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

namespace kasuri::insight {
namespace {

using ir::Box;
using ir::Range;

constexpr std::size_t max_nodes = 4000;      ///< of a graph: longer ones are not asked about
constexpr double max_work = 2e5;             ///< nodes worked out for one question: some tens of milliseconds
constexpr double least_slope_part = 0x1p-24; ///< the same where slopes are known
constexpr double least_part = 1.0 / 512;     ///< of an edge of the cube: a part that small and not shown ends it
constexpr int max_kinks = 16;                ///< of a curve, and jumps
constexpr double largest_picture = 65536;

struct Lowered {
    ir::Graph graph;
    std::vector<ir::NodeId> outputs;
    explicit Lowered(const subject::Subject& subject) : outputs(subject.lower(graph)) {}
};

/// All that leaves can be, where r, g, b are in `colour`.
Box box(const Bounds& asked, const Range& colour, const Range& alpha) {
    Box made;
    made.inputs.assign(3, colour);
    made.inputs.push_back(alpha);
    made.inputs.insert(made.inputs.end(), 2, Range::between(0, largest_picture)); // pixel
    made.inputs.insert(made.inputs.end(), 2, Range::between(0, 1));               // pos
    std::size_t further = 0;
    for (const lang::SourceInput& source : asked.subject.sources())
        further += static_cast<std::size_t>(width(source.type));
    made.inputs.insert(made.inputs.end(), further, Range::between(-1, 16));
    made.uniforms = {Range::between(1 / largest_picture, largest_picture), Range::between(1, largest_picture),
                     Range::between(1, largest_picture)};
    const auto parameters = asked.subject.parameters();
    for (std::size_t i = 0; i < parameters.size(); ++i)
        made.uniforms.push_back(asked.all_values ? Range::between(parameters[i].low, parameters[i].high)
                                                 : Range::of(asked.subject.values()[i]));
    return made;
}

double length(const Box& part, std::size_t channel) { return part.inputs[channel].high - part.inputs[channel].low; }

std::size_t longest_edge(const Box& part) {
    std::size_t made = 0;
    for (std::size_t c = 1; c < 3; ++c)
        made = length(part, c) > length(part, made) ? c : made;
    return made;
}

std::array<Box, 2> halves(const Box& whole, std::size_t channel) {
    std::array<Box, 2> made = {whole, whole};
    const double middle = whole.inputs[channel].low + length(whole, channel) / 2;
    made[0].inputs[channel].high = made[1].inputs[channel].low = middle;
    return made;
}

/// Along a ramp the place and the neighbours change with the grey.
bool reads_more_than_colour(const ir::Graph& graph) {
    for (ir::NodeId id = 0; id < graph.size(); ++id)
        if (graph[id].op == ir::Op::input && graph[id].slot > static_cast<std::uint32_t>(ir::Input::a))
            return true;
    return false;
}

/// Whether `good` is true of ranges over parts that together are all of `whole`.
bool everywhere(const Bounds& asked, const ir::Rounding& rounding, const Box& whole,
                const std::function<bool(const std::vector<Range>&)>& good) {
    const Lowered lowered(asked.subject);
    if (lowered.graph.size() > max_nodes)
        return false;
    const ir::Ranges ranges(lowered.graph, lowered.outputs, rounding, whole);
    const double smallest = length(whole, 0) * least_part;
    std::vector<Box> open = {whole};
    for (double work = 0; !open.empty();) {
        const Box part = std::move(open.back());
        open.pop_back();
        work += static_cast<double>(lowered.graph.size());
        if (work > max_work || asked.cancel.cancelled())
            return false;
        if (good(ranges.over(part)))
            continue;
        const std::size_t longest = longest_edge(part);
        if (length(part, longest) <= smallest)
            return false;
        for (Box& half : halves(part, longest))
            open.push_back(std::move(half));
    }
    return true;
}

/// Parts that are not inside yet go by their middle and their slopes, too (the mean value form: Moore, Kearfott and
/// Cloud, 6.1, from memory), and the edge along which it changes most is cut.
bool channel_inside(const Bounds& asked, const ir::Graph& graph, ir::NodeId channel, const ir::Slopes& slopes,
                    double room) {
    const Box whole = box(asked, Range::between(0, 1), Range::between(0, 1));
    const ir::Ranges values(graph, std::span(&channel, 1), ir::exact, whole), steep(graph, slopes, ir::exact, whole);
    const auto outside = [room](double low, double high) { return !(low >= -room && high <= 1 + room); };
    std::vector<Box> open = {whole};
    for (double work = 0; !open.empty();) {
        const Box part = std::move(open.back());
        open.pop_back();
        work += static_cast<double>(graph.size());
        if (work > max_work || asked.cancel.cancelled())
            return false;
        bool smooth = true;
        const Range value = values.over(part, &smooth)[0];
        if (!value.nan && !outside(value.low, value.high))
            continue;
        std::size_t cut = longest_edge(part);
        if (smooth && !value.nan) {
            Box middle = part;
            for (std::size_t c = 0; c < 3; ++c)
                middle.inputs[c] = Range::of(part.inputs[c].low + length(part, c) / 2);
            const Range centre = values.over(middle)[0];
            const std::vector<Range> slope = steep.over(part);
            double by = 0, most = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                const double moved = slope[c].largest() * length(part, c) / 2;
                by += moved;
                if (moved > most) {
                    most = moved;
                    cut = c;
                }
            }
            if (!outside(centre.low - by, centre.high + by))
                continue;
        }
        if (length(part, cut) <= (smooth ? least_slope_part : least_part))
            return false;
        for (Box& half : halves(part, cut))
            open.push_back(std::move(half));
    }
    return true;
}

} // namespace

bool Bounds::finite(double low, double high) const {
    const Box whole = box(*this, Range::between(low, high), Range::between(0, 1));
    return everywhere(*this, ir::single, whole, [](const std::vector<Range>& out) {
        return std::all_of(out.begin(), out.end(), [](const Range& x) { return x.is_finite(); });
    });
}

bool Bounds::inside(double room) const {
    Lowered lowered(subject);
    const std::vector<ir::Slopes> slopes = ir::derivatives(lowered.graph, std::span(lowered.outputs).first(3));
    if (lowered.graph.size() > max_nodes)
        return false;
    for (std::size_t o = 0; o < 3; ++o)
        if (!channel_inside(*this, lowered.graph, lowered.outputs[o], slopes[o], room))
            return false;
    return true;
}

bool Bounds::rises(double low, double high, double room) const {
    Lowered lowered(subject);
    if (lowered.graph.size() > max_nodes || reads_more_than_colour(lowered.graph))
        return false;
    const Box whole = box(*this, Range::between(low, high), Range::of(1));
    const ir::Ranges values(lowered.graph, lowered.outputs, ir::exact, whole);
    std::vector<ir::NodeId> along; // greys: all three at once
    for (const ir::Slopes& slopes : ir::derivatives(lowered.graph, std::span(lowered.outputs).first(3)))
        along.push_back(lowered.graph.add(lowered.graph.add(slopes[0], slopes[1]), slopes[2]));
    if (lowered.graph.size() > max_nodes)
        return false;
    const ir::Ranges slopes(lowered.graph, along, ir::exact, whole);

    const double smallest = (high - low) * std::ldexp(1.0, -44); // around a kink or a jump
    std::array<double, 3> fallen{};
    int kinks = 0;
    std::vector<Box> open = {whole};
    for (double work = 0; !open.empty();) {
        Box part = std::move(open.back());
        open.pop_back();
        work += static_cast<double>(lowered.graph.size());
        if (work > max_work || cancel.cancelled())
            return false;
        const double from = part.inputs[0].low, to = part.inputs[0].high;
        bool smooth = true;
        const std::vector<Range> value = values.over(part, &smooth);
        std::array<double, 3> falls{}, changes{};
        for (std::size_t c = 0; c < 3; ++c)
            changes[c] = value[c].is_finite() ? value[c].high - value[c].low : std::numeric_limits<double>::infinity();
        bool shown = smooth && std::all_of(changes.begin(), changes.end(), [](double x) { return std::isfinite(x); });
        if (shown) {
            const std::vector<Range> slope = slopes.over(part);
            for (std::size_t c = 0; c < 3; ++c) {
                // (A slope may be NaN where it is vertical, 0 times infinity: there the value itself is finite.)
                falls[c] = slope[c].low >= 0 ? 0 : -slope[c].low * (to - from);
                // A steep place next to which it may fall is cut on; a little for each part is given.
                shown = shown && falls[c] <= room * (to - from) / (high - low) / 2;
            }
        }
        if (!shown && to - from <= smallest) {
            falls = changes; // as far as all such places together leave room
            shown = true;
            if (++kinks > max_kinks)
                return false;
        }
        if (!shown) {
            const double middle = from + (to - from) / 2;
            for (const auto& [a, b] : {std::pair(from, middle), std::pair(middle, to)}) {
                for (std::size_t c = 0; c < 3; ++c)
                    part.inputs[c] = Range::between(a, b);
                open.push_back(part);
            }
            continue;
        }
        for (std::size_t c = 0; c < 3; ++c) {
            fallen[c] += falls[c];
            if (!(fallen[c] <= room))
                return false;
        }
    }
    return true;
}

} // namespace kasuri::insight
