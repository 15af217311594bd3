#pragma once
#include "colour/matrix3.hpp"
#include "colour/transfer.hpp"
#include "colour/triple.hpp"

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::colour {

/// What r, g and b mean: one row, a transfer function over primaries and white.
struct Space {
    std::string_view name;
    std::string_view doc;
    std::string_view source;   ///< of primaries and white
    std::string_view transfer; ///< a name of transfers()
    const std::array<Chromaticity, 3>& primaries;
    const Chromaticity& white;
    double white_level = 1; ///< linear value of diffuse white, which is 1 in most spaces
    /// Where somebody else's code goes between the numbers and linear light of these primaries; `transfer` is linear
    /// then.
    const ir::External* to_light = nullptr;
    const ir::External* from_light = nullptr;
    bool is_view = false; ///< a way to see on a display: what goes there, not what is worked in
    /// Of a print: linear light to its distance from what the paper holds (CIEDE2000), in the first plane.
    const ir::External* beyond = nullptr;
    /// Of a print: the edges of what the paper holds, as lines through linear light of `primaries`.
    std::span<const std::vector<Triple>> edges = {};
};

/// The built-in ones.
std::span<const Space> spaces();
const Space* find_space(std::string_view name);
const Transfer& transfer_of(const Space& space);

/// Whether the numbers are proportional to light.
bool is_linear(const Space& space);

/// Numbers of the space to linear light of its primaries, and back: double precision, and as operations of a graph.
Triple light_of(const Space& space, const Triple& numbers);
Triple numbers_of(const Space& space, const Triple& light);
std::array<ir::NodeId, 3> lower_light_of(ir::Graph& graph, const Space& space,
                                         const std::array<ir::NodeId, 3>& numbers);
std::array<ir::NodeId, 3> lower_numbers_of(ir::Graph& graph, const Space& space,
                                           const std::array<ir::NodeId, 3>& light);

/// A space that is made while the program runs.
struct AddedSpace {
    std::string name, doc, source;
    std::array<Chromaticity, 3> primaries; ///< of the light that `to_light` gives
    Chromaticity white;
    std::unique_ptr<const ir::External> to_light, from_light;
    std::vector<std::string> also{}; ///< further names of it
    bool is_view = false;
    std::unique_ptr<const ir::External> beyond{};
    std::vector<std::vector<Triple>> edges{};
};

/// From now on `find_space` knows it; one of the same name is replaced. Safe across threads.
void add_space(AddedSpace space);
/// Takes all added spaces but prints off the list; they stay known by name, because a rule may still be using one.
void retire_added_spaces();
/// Changes whenever spaces are added or retired: what was made with the old ones may have another meaning now.
std::uint64_t spaces_generation();
/// The names on the list, in the order of adding: those that are worked in, and those that are views.
std::vector<std::string> added_spaces();
std::vector<std::string> added_views();
/// A colour that is further than this (Space::beyond) from what the paper can hold is outside (common practice, no
/// source: a difference that is seen at once).
inline constexpr double outside_print = 2;
/// Those that show prints (Space::beyond), which `added_views` has too.
std::vector<std::string> added_prints();

/// Linear r, g, b of the space to CIE XYZ, Y = 1 for r = g = b = 1, and back: SMPTE RP 177 at double precision.
Matrix3 to_xyz(const Space& space);
Matrix3 from_xyz(const Space& space);

/// Whether both spaces have the same primaries and white and the same level of white, so that only their curves differ.
bool same_primaries(const Space& a, const Space& b);

/// Linear light of one space to linear light of the other; a different white is adapted to by the Bradford transform,
/// and diffuse white becomes diffuse white.
Matrix3 linear_between(const Space& from, const Space& to);

/// A colour of one space in the other: decoded, `linear_between`, encoded. The double-precision truth, and the same as
/// operations of a graph.
Triple converted(const Triple& colour, const Space& from, const Space& to);
std::array<ir::NodeId, 3> lower_converted(ir::Graph& graph, const std::array<ir::NodeId, 3>& colour, const Space& from,
                                          const Space& to);

/// The space in which pictures are held and in which a rule works that does not say otherwise.
inline constexpr std::string_view default_space = "rec709-linear";

/// Weights of the space's linear r, g, b in luminance, 1 for diffuse white: the row of Y in `to_xyz`, derived from
/// primaries and white (SMPTE RP 177) for every space alike, so that it agrees with XYZ to the last digit.
Triple luminance_weights(const Space& space);

/// Weights of the space's encoded r, g, b in luma Y': the rounded ones of the standard for the primaries of BT.709
/// (ITU-R BT.709-6, item 3.2) and of BT.2020 (ITU-R BT.2020-2, Table 4), else those of luminance.
Triple luma_weights(const Space& space);

/// Luminance of linear BT.709 light.
double luminance(const Triple& linear);

} // namespace kasuri::colour
