#include "colour/space.hpp"

#include "colour/adaptation.hpp"
#include "colour/primaries.hpp"
#include "ir/linear_map.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <deque>
#include <mutex>
#include <shared_mutex>

namespace kasuri::colour {
namespace {

constexpr std::string_view bt709 = "ITU-R BT.709-6, items 1.3 and 1.4", bt2020 = "ITU-R BT.2020-2, Table 3",
                           p3 = "SMPTE RP 431-2 with white D65", dci = "SMPTE RP 431-2", op = "IEC 61966-2-5:2007",
                           iso = "ISO 22028-2:2013", ap0 = "SMPTE ST 2065-1:2012", ap1 = "S-2014-004",
                           bt601 = "ITU-R BT.601-7, Table 1", bt2100 = "ITU-R BT.2100-2, Table 2";

constexpr Space table[] = {
    {"rec709-linear", "Linear light, BT.709 primaries, white D65.", bt709, "linear", rec709_primaries, d65},
    {"srgb", "Display-encoded sRGB: BT.709 primaries, white D65, the curve of IEC 61966-2-1.", bt709, "srgb",
     rec709_primaries, d65},
    {"rec709", "Camera-encoded BT.709.", bt709, "bt709", rec709_primaries, d65},
    {"rec709-display", "BT.709 as the reference display shows it (BT.1886).", bt709, "bt1886", rec709_primaries, d65},
    {"rec709-gamma18", "BT.709 primaries, a power of 1.8.", bt709, "gamma18", rec709_primaries, d65},
    {"rec709-gamma22", "BT.709 primaries, a power of 2.2.", bt709, "gamma22", rec709_primaries, d65},
    {"rec709-gamma24", "BT.709 primaries, a power of 2.4.", bt709, "gamma24", rec709_primaries, d65},
    {"rec709-gamma26", "BT.709 primaries, a power of 2.6.", bt709, "gamma26", rec709_primaries, d65},
    {"rec601-525", "Camera-encoded BT.601, 525 lines.", bt601, "bt709", rec601_525_primaries, d65},
    {"rec601-525-linear", "Linear light, BT.601 primaries of 525 lines.", bt601, "linear", rec601_525_primaries, d65},
    {"rec601-625", "Camera-encoded BT.601, 625 lines.", bt601, "bt709", rec601_625_primaries, d65},
    {"rec601-625-linear", "Linear light, BT.601 primaries of 625 lines.", bt601, "linear", rec601_625_primaries, d65},
    {"rec2020", "Camera-encoded BT.2020, 10 bits.", bt2020, "bt709", rec2020_primaries, d65},
    {"rec2020-display", "BT.2020 as the reference display shows it (BT.1886).", bt2020, "bt1886", rec2020_primaries,
     d65},
    {"rec2020-linear", "Linear light, BT.2020 primaries.", bt2020, "linear", rec2020_primaries, d65},
    {"rec2100-pq", "BT.2020 primaries, perceptual quantiser; diffuse white is 203 cd/m2 of 10 000.", bt2100, "pq",
     rec2020_primaries, d65, diffuse_white / 10'000},
    {"rec2100-hlg", "BT.2020 primaries, hybrid log-gamma of the scene; diffuse white is at 75 %.", bt2100, "hlg",
     rec2020_primaries, d65, hlg_diffuse_white},
    {"p3-d65", "P3 primaries, white D65, a power of 2.6.", p3, "gamma26", p3_primaries, d65},
    {"p3-d65-srgb", "P3 primaries, white D65, the curve of sRGB, as on displays of computers.", p3, "srgb",
     p3_primaries, d65},
    {"p3-d65-linear", "Linear light, P3 primaries, white D65.", p3, "linear", p3_primaries, d65},
    {"dci-p3", "Digital cinema: P3 primaries and their own white, a power of 2.6.", dci, "gamma26", p3_primaries,
     dci_white},
    {"dci-p3-linear", "Linear light of digital cinema.", dci, "linear", p3_primaries, dci_white},
    {"oprgb", "opRGB.", op, "oprgb", oprgb_primaries, d65},
    {"oprgb-linear", "Linear light, opRGB primaries.", op, "linear", oprgb_primaries, d65},
    {"romm", "ROMM RGB, white D50.", iso, "romm", romm_primaries, d50},
    {"romm-linear", "Linear light, ROMM primaries, white D50.", iso, "linear", romm_primaries, d50},
    {"aces2065-1", "Linear light of the ACES interchange space, primaries AP0.", ap0, "linear", aces_primaries,
     aces_white},
    {"acescg", "Linear light for rendering, primaries AP1.", ap1, "linear", acescg_primaries, aces_white},
    {"acescc", "Logarithmic, primaries AP1.", ap1, "acescc", acescg_primaries, aces_white},
    {"acescct", "Logarithmic with a straight toe, primaries AP1.", ap1, "acescct", acescg_primaries, aces_white},
};

/// Spaces that were added: never moved and never taken away, so that pointers to them stay good.
struct Added {
    AddedSpace owned;
    Space space;
    bool listed = true;

    explicit Added(AddedSpace given)
        : owned(std::move(given)), space{owned.name,
                                         owned.doc,
                                         owned.source,
                                         "linear",
                                         owned.primaries,
                                         owned.white,
                                         1,
                                         owned.to_light.get(),
                                         owned.from_light.get(),
                                         owned.is_view,
                                         owned.beyond.get(),
                                         owned.edges} {}
    bool is_called(std::string_view name) const {
        return owned.name == name || std::find(owned.also.begin(), owned.also.end(), name) != owned.also.end();
    }
};
std::shared_mutex added_mutex;
std::atomic<std::uint64_t> generation = 0;
std::deque<Added>& all_added() {
    static std::deque<Added> all;
    return all;
}

const Space* added(std::string_view name) {
    const std::shared_lock lock(added_mutex);
    const auto& all = all_added();
    // A space itself before another's further name, and what is listed before what was retired.
    const auto named = [&](bool listed, bool own) {
        return std::find_if(all.rbegin(), all.rend(), [&](const Added& each) {
            return each.listed == listed && (own ? each.owned.name == name : each.is_called(name));
        });
    };
    auto newest = named(true, true);
    for (const auto& [listed, own] : {std::pair(true, false), std::pair(false, true), std::pair(false, false)})
        if (newest == all.rend())
            newest = named(listed, own);
    return newest == all.rend() ? nullptr : &newest->space;
}

bool same(Chromaticity a, Chromaticity b) { return a.x == b.x && a.y == b.y; }

} // namespace

std::span<const Space> spaces() { return table; }

const Space* find_space(std::string_view name) {
    for (const Space& space : table)
        if (space.name == name)
            return &space;
    return added(name);
}

const Transfer& transfer_of(const Space& space) { return *find_transfer(space.transfer); }

bool is_linear(const Space& space) { return space.transfer == "linear" && !space.to_light; }

Triple light_of(const Space& space, const Triple& numbers) {
    if (space.to_light)
        return applied(*space.to_light, numbers.data());
    const auto decode = transfer_of(space).decode;
    return {decode(numbers[0]), decode(numbers[1]), decode(numbers[2])};
}

Triple numbers_of(const Space& space, const Triple& light) {
    if (space.from_light)
        return applied(*space.from_light, light.data());
    const auto encode = transfer_of(space).encode;
    return {encode(light[0]), encode(light[1]), encode(light[2])};
}

std::array<ir::NodeId, 3> lower_light_of(ir::Graph& g, const Space& space, const std::array<ir::NodeId, 3>& numbers) {
    if (space.to_light)
        return g.external(*space.to_light, numbers);
    const auto decode = transfer_of(space).lower_decode;
    return {decode(g, numbers[0]), decode(g, numbers[1]), decode(g, numbers[2])};
}

std::array<ir::NodeId, 3> lower_numbers_of(ir::Graph& g, const Space& space, const std::array<ir::NodeId, 3>& light) {
    if (space.from_light)
        return g.external(*space.from_light, light);
    const auto encode = transfer_of(space).lower_encode;
    return {encode(g, light[0]), encode(g, light[1]), encode(g, light[2])};
}

Matrix3 to_xyz(const Space& space) { return rgb_to_xyz(space.primaries, space.white); }
Matrix3 from_xyz(const Space& space) { return inverse(to_xyz(space)); }

bool same_primaries(const Space& a, const Space& b) {
    for (std::size_t i = 0; i < 3; ++i)
        if (!same(a.primaries[i], b.primaries[i]))
            return false;
    return same(a.white, b.white) && a.white_level == b.white_level;
}

Matrix3 linear_between(const Space& from, const Space& to) {
    if (same_primaries(from, to))
        return {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};
    Matrix3 made = to_xyz(from);
    if (!same(from.white, to.white))
        made = times(adaptation(bradford, from.white, to.white), made);
    made = times(from_xyz(to), made);
    for (Triple& row : made)
        for (double& weight : row)
            weight *= to.white_level / from.white_level;
    return made;
}

Triple converted(const Triple& colour, const Space& from, const Space& to) {
    return &from == &to ? colour : numbers_of(to, linear_between(from, to) * light_of(from, colour));
}

std::array<ir::NodeId, 3> lower_converted(ir::Graph& g, const std::array<ir::NodeId, 3>& colour, const Space& from,
                                          const Space& to) {
    return &from == &to
        ? colour
        : lower_numbers_of(g, to, ir::linear_map(g, linear_between(from, to), lower_light_of(g, from, colour)));
}

Triple luma_weights(const Space& space) {
    const auto has = [&](const std::array<Chromaticity, 3>& primaries) {
        return same(space.white, d65) && std::equal(primaries.begin(), primaries.end(), space.primaries.begin(), same);
    };
    if (has(rec709_primaries))
        return {0.2126, 0.7152, 0.0722};
    if (has(rec2020_primaries))
        return {0.2627, 0.6780, 0.0593};
    return to_xyz(space)[1]; // whatever the light of its white is
}

Triple luminance_weights(const Space& space) {
    Triple weights = to_xyz(space)[1];
    for (double& weight : weights)
        weight /= space.white_level;
    return weights;
}

double luminance(const Triple& linear) {
    static const Triple weights = luminance_weights(*find_space("rec709-linear"));
    return weights[0] * linear[0] + weights[1] * linear[1] + weights[2] * linear[2];
}

void add_space(AddedSpace space) {
    const std::unique_lock lock(added_mutex);
    for (Added& each : all_added())
        each.listed = each.listed && each.owned.name != space.name;
    all_added().emplace_back(std::move(space));
    ++generation;
}

void retire_added_spaces() {
    const std::unique_lock lock(added_mutex);
    for (Added& each : all_added())
        each.listed = each.listed && each.owned.beyond;
    ++generation;
}

std::uint64_t spaces_generation() { return generation; }

namespace {

std::vector<std::string> listed(bool views) {
    const std::shared_lock lock(added_mutex);
    std::vector<std::string> names;
    for (const Added& each : all_added())
        if (each.listed && each.owned.is_view == views)
            names.push_back(each.owned.name);
    return names;
}

} // namespace

std::vector<std::string> added_spaces() { return listed(false); }
std::vector<std::string> added_views() { return listed(true); }

std::vector<std::string> added_prints() {
    std::vector<std::string> names = added_views();
    std::erase_if(names, [](const std::string& name) { return !find_space(name)->beyond; });
    return names;
}

} // namespace kasuri::colour
