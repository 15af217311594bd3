#include "colour/space.hpp"

#include "colour/matrix3.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

constexpr Space table[] = {
    {"rec709-linear", "Linear light, BT.709 primaries, white D65.", "linear"},
    {"srgb", "Display-encoded sRGB: BT.709 primaries, white D65, the curve of IEC 61966-2-1.", "srgb"},
};

double lab_curve(double t) {
    constexpr double knee = 6.0 / 29;
    return t > knee * knee * knee ? std::cbrt(t) : t / (3 * knee * knee) + 4.0 / 29;
}

} // namespace

std::span<const Space> spaces() { return table; }

const Space* find_space(std::string_view name) {
    for (const Space& space : table)
        if (space.name == name)
            return &space;
    return nullptr;
}

const Transfer& transfer_of(const Space& space) { return *find_transfer(space.transfer); }

double luminance(const Triple& linear) {
    return rec709_luminance_weights[0] * linear[0] + rec709_luminance_weights[1] * linear[1] +
           rec709_luminance_weights[2] * linear[2];
}

Triple lab_d65(const Triple& linear) {
    static const Matrix3 to_xyz = rgb_to_xyz(rec709_primaries, d65);
    const Triple xyz = to_xyz * linear;
    const Triple white = to_xyz * Triple{1, 1, 1};
    double f[3];
    for (int i = 0; i < 3; ++i)
        f[i] = lab_curve(xyz[i] / white[i]);
    return {116 * f[1] - 16, 500 * (f[0] - f[1]), 200 * (f[1] - f[2])};
}

} // namespace kasuri::colour
