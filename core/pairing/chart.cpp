#include "pairing/chart.hpp"

#include "base/said.hpp"
#include "colour/space.hpp"
#include "pairing/pictures.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::pairing {
namespace {

constexpr std::size_t fewest = 4;
constexpr double digits = 2e-4; ///< published values have three; a mean of a patch is not more certain

std::array<float, 3> as_float(const std::array<double, 3>& x) {
    return {static_cast<float>(x[0]), static_cast<float>(x[1]), static_cast<float>(x[2])};
}

/// What was seen in one picture.
struct Seen {
    std::vector<Patch> patches;
    std::string space;
};

Result<Seen> seen_in(const std::string& file, const image::Corners& corners, std::pair<int, int> grid,
                     const PairingOptions& options, std::vector<std::string>& notes) {
    const auto picture = picture_from(file, options, notes);
    if (!picture)
        return picture.error();
    auto patches = patches_of(picture.value().picture, corners, grid.first, grid.second,
                              ends_of(picture.value().picture, picture.value().unsure_ends));
    if (!patches)
        return Error{patches.error().what, file, patches.error().remedy};
    return Seen{std::move(patches.value()), picture.value().picture.space};
}

} // namespace

Result<ChartPaired> pairs_of_chart(const ChartWish& wish, const PairingOptions& options) {
    const std::pair<int, int> grid = grid_of(wish);
    auto wanted = chart_values(wish, options.in_space);
    if (!wanted)
        return wanted.error();
    ChartPaired made;
    auto seen = seen_in(wish.picture, wish.corners, grid, options, made.paired.notes);
    if (!seen)
        return seen.error();
    fit::Pairs& pairs = made.paired.pairs;
    pairs.space = seen.value().space;
    const colour::Space* space = colour::find_space(pairs.space);
    if (!space)
        return Error{said("there is no space {}", pairs.space), wish.picture, ""};
    std::string from = "rec709-linear";
    if (!wish.other.empty()) {
        auto other = seen_in(wish.other, wish.other_corners, grid, options, made.paired.notes);
        if (!other)
            return other.error();
        for (std::size_t i = 0; i < wanted.value().size(); ++i)
            other.value().patches[i].name = wanted.value()[i].name;
        wanted = std::move(other.value().patches);
        from = other.value().space;
    }
    pairs.title = name_of(wish.picture);
    pairs.noisy = true;
    pairs.close = digits;
    std::vector<std::string> not_counted;
    if (seems_upside_down(seen.value().patches, wanted.value()))
        made.paired.notes.push_back(
            said("{}: the chart seems to stand on its head: do the corners begin at its first patch?",
                 name_of(wish.picture)));
    for (std::size_t i = 0; i < wanted.value().size(); ++i) {
        PatchPair both{std::move(seen.value().patches[i]), std::move(wanted.value()[i])};
        if (both.wanted.name.empty())
            both.wanted.name = fmt::format("{}", i + 1);
        both.seen.name = both.wanted.name;
        if (const colour::Space* other = colour::find_space(from))
            both.wanted.colour = colour::converted(both.wanted.colour, *other, *space);
        const std::string& why = both.seen.why_not.empty() ? both.wanted.why_not : both.seen.why_not;
        if (why.empty())
            pairs.add(as_float(both.seen.colour), as_float(both.wanted.colour));
        else
            not_counted.push_back(fmt::format("{} ({})", both.seen.name, why));
        made.patches.push_back(std::move(both));
    }
    if (pairs.size() < fewest)
        return Error{said("only {} patches count; left out: {}", pairs.size(), fmt::join(not_counted, ", ")),
                     wish.picture, "Look whether the corners lie on the patches, in the right order."};
    made.paired.detail = said("{} of {} patches", pairs.size(), made.patches.size());
    if (!not_counted.empty())
        made.paired.detail += said("; left out: {}", fmt::join(not_counted, ", "));
    return made;
}

} // namespace kasuri::pairing
