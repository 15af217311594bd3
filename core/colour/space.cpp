#include "colour/space.hpp"

#include "colour/primaries.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

constexpr std::string_view bt709 = "ITU-R BT.709-6, items 1.3 and 1.4", bt2020 = "ITU-R BT.2020-2, Table 3", p3 = "SMPTE RP 431-2 with white D65",
                           dci = "SMPTE RP 431-2", op = "IEC 61966-2-5:2007", iso = "ISO 22028-2:2013", ap0 = "SMPTE ST 2065-1:2012",
                           ap1 = "S-2014-004", bt601 = "ITU-R BT.601-7, Table 1", bt2100 = "ITU-R BT.2100-2, Table 2";

constexpr Space table[] = {
    {"rec709-linear", "Linear light, BT.709 primaries, white D65.", bt709, "linear", rec709_primaries, d65},
    {"srgb", "Display-encoded sRGB: BT.709 primaries, white D65, the curve of IEC 61966-2-1.", bt709, "srgb", rec709_primaries, d65},
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
    {"rec2020-display", "BT.2020 as the reference display shows it (BT.1886).", bt2020, "bt1886", rec2020_primaries, d65},
    {"rec2020-linear", "Linear light, BT.2020 primaries.", bt2020, "linear", rec2020_primaries, d65},
    {"rec2100-pq", "BT.2020 primaries, perceptual quantiser; linear 1 is 10 000 cd/m2.", bt2100, "pq", rec2020_primaries, d65},
    {"rec2100-hlg", "BT.2020 primaries, hybrid log-gamma of the scene.", bt2100, "hlg", rec2020_primaries, d65},
    {"p3-d65", "P3 primaries, white D65, a power of 2.6.", p3, "gamma26", p3_primaries, d65},
    {"p3-d65-srgb", "P3 primaries, white D65, the curve of sRGB, as on displays of computers.", p3, "srgb", p3_primaries, d65},
    {"p3-d65-linear", "Linear light, P3 primaries, white D65.", p3, "linear", p3_primaries, d65},
    {"dci-p3", "Digital cinema: P3 primaries and their own white, a power of 2.6.", dci, "gamma26", p3_primaries, dci_white},
    {"dci-p3-linear", "Linear light of digital cinema.", dci, "linear", p3_primaries, dci_white},
    {"oprgb", "opRGB.", op, "oprgb", oprgb_primaries, d65},
    {"oprgb-linear", "Linear light, opRGB primaries.", op, "linear", oprgb_primaries, d65},
    {"romm", "ROMM RGB, white D50.", iso, "romm", romm_primaries, d50},
    {"romm-linear", "Linear light, ROMM primaries, white D50.", iso, "linear", romm_primaries, d50},
    {"aces2065-1", "Linear light of the ACES interchange space, primaries AP0.", ap0, "linear", aces_primaries, aces_white},
    {"acescg", "Linear light for rendering, primaries AP1.", ap1, "linear", acescg_primaries, aces_white},
    {"acescc", "Logarithmic, primaries AP1.", ap1, "acescc", acescg_primaries, aces_white},
    {"acescct", "Logarithmic with a straight toe, primaries AP1.", ap1, "acescct", acescg_primaries, aces_white},
};

double lab_curve(double t) {
    constexpr double knee = 6.0 / 29;
    return t > knee * knee * knee ? std::cbrt(t) : t / (3 * knee * knee) + 4.0 / 29;
}

bool same(Chromaticity a, Chromaticity b) { return a.x == b.x && a.y == b.y; }

Triple xyz_of(Chromaticity c) { return {c.x / c.y, 1, (1 - c.x - c.y) / c.y}; }

Matrix3 times(const Matrix3& a, const Matrix3& b) {
    Matrix3 product{};
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            product[i][j] = a[i][0] * b[0][j] + a[i][1] * b[1][j] + a[i][2] * b[2][j];
    return product;
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

Matrix3 to_xyz(const Space& space) { return rgb_to_xyz(space.primaries, space.white); }
Matrix3 from_xyz(const Space& space) { return inverse(to_xyz(space)); }

bool same_primaries(const Space& a, const Space& b) {
    for (std::size_t i = 0; i < 3; ++i)
        if (!same(a.primaries[i], b.primaries[i]))
            return false;
    return same(a.white, b.white);
}

Matrix3 bradford(Chromaticity from, Chromaticity to) {
    constexpr Matrix3 cones = {{{0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}}};
    const Triple before = cones * xyz_of(from), after = cones * xyz_of(to);
    Matrix3 scaled = cones;
    for (std::size_t i = 0; i < 3; ++i)
        for (double& x : scaled[i])
            x *= after[i] / before[i];
    return times(inverse(cones), scaled);
}

Matrix3 linear_between(const Space& from, const Space& to) {
    if (same_primaries(from, to))
        return {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};
    const Matrix3 there = same(from.white, to.white) ? to_xyz(from) : times(bradford(from.white, to.white), to_xyz(from));
    return times(from_xyz(to), there);
}

Triple converted(const Triple& colour, const Space& from, const Space& to) {
    if (&from == &to)
        return colour;
    Triple linear{};
    for (std::size_t i = 0; i < 3; ++i)
        linear[i] = transfer_of(from).decode(colour[i]);
    linear = linear_between(from, to) * linear;
    for (double& x : linear)
        x = transfer_of(to).encode(x);
    return linear;
}

Triple luminance_weights(const Space& space) {
    return same_primaries(space, table[0]) ? rec709_luminance_weights : to_xyz(space)[1];
}

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
