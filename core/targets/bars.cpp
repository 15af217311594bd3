// Colour bars of published standards, as signals (0 black, 1 white; narrow range: 10-bit code values over 1023).
#include "colour/space.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <array>

namespace kasuri::targets {
namespace {

constexpr Setting plain_settings[] = {
    {"narrow", "1: code values of narrow range, black 64 and white 940 of 1023", 0, 0, 1, true},
    {"white", "level of the white bar", 1, 0.5, 1},
};
constexpr Setting narrow_setting[] = {
    {"narrow", "1: code values of narrow range, black 64 and white 940 of 1023", 0, 0, 1, true}};

/// ITU-R BT.709-6, item 5.6 and BT.2100-2, Table 9: 10 bits.
double code(double signal, bool narrow) { return narrow ? (64 + 876 * signal) / 1023 : signal; }

Colour grey(double level) { return {level, level, level}; }

/// White, yellow, cyan, green, magenta, red, blue, black.
Colour bar(int index, double level) {
    static constexpr int on[8][3] = {{1, 1, 1}, {1, 1, 0}, {0, 1, 1}, {0, 1, 0},
                                     {1, 0, 1}, {1, 0, 0}, {0, 0, 1}, {0, 0, 0}};
    return {level * on[index][0], level * on[index][1], level * on[index][2]};
}

/// A piece of a row: its width in parts of the row, and its colour at a place 0..1 in it.
struct Piece {
    double width;
    Colour from;
    Colour to;
    Piece(double parts, const Colour& colour) : width(parts), from(colour), to(colour) {}
    Piece(double parts, const Colour& first, const Colour& last) : width(parts), from(first), to(last) {}
};
struct Row {
    double height; ///< in parts of the picture
    std::vector<Piece> pieces;
};

image::Picture laid_out(int width, int height, const std::vector<Row>& rows, bool narrow) {
    double all = 0;
    for (const Row& row : rows)
        all += row.height;
    return image::generated(width, height, [&](int x, int y) {
        double down = (y + 0.5) / height * all;
        const auto row =
            std::find_if(rows.begin(), rows.end() - 1, [&](const Row& r) { return (down -= r.height) < 0; });
        double total = 0;
        for (const Piece& piece : row->pieces)
            total += piece.width;
        double across = (x + 0.5) / width * total;
        const auto piece = std::find_if(row->pieces.begin(), row->pieces.end() - 1,
                                        [&](const Piece& p) { return (across -= p.width) < 0; });
        if (across < 0)
            across += piece->width;
        const double share = std::clamp(across / piece->width, 0.0, 1.0);
        Colour made;
        for (std::size_t c = 0; c < 3; ++c)
            made[c] = code(piece->from[c] + (piece->to[c] - piece->from[c]) * share, narrow);
        return made;
    });
}

template <int percent>
image::Picture eight_bars(int width, int height, Values set) {
    Row row{1, {{1, grey(set[1])}}};
    for (int i = 1; i < 8; ++i)
        row.pieces.emplace_back(1, bar(i, percent / 100.0));
    return laid_out(width, height, {row}, set[0] != 0);
}

image::Picture hd(int width, int height, Values set) {
    // Columns in sevenths of three quarters of the width; the sides have an eighth each.
    constexpr double side = 7.0 / 6;
    const auto bars = [](double level) {
        std::vector<Piece> pieces;
        for (int i = 0; i < 7; ++i)
            pieces.emplace_back(1, bar(i, level));
        return pieces;
    };
    const auto between = [&](const Colour& left, std::vector<Piece> middle, const Colour& right) {
        middle.insert(middle.begin(), {side, left});
        middle.emplace_back(side, right);
        return middle;
    };
    constexpr double third = 1.0 / 3;
    const std::vector<Row> rows = {
        {7, between(grey(0.4), bars(0.75), grey(0.4))},
        {1, between({0, 1, 1}, {{1, grey(1)}, {6, grey(0.75)}}, {0, 0, 1})},
        {1, between({1, 1, 0}, {{1, grey(0)}, {5, grey(0), grey(1)}, {1, grey(1)}}, {1, 0, 0})},
        {3,
         between(grey(0.15),
                 {{1.5, grey(0)},
                  {2, grey(1)},
                  {5.0 / 6, grey(0)},
                  {third, grey(-0.02)},
                  {third, grey(0)},
                  {third, grey(0.02)},
                  {third, grey(0)},
                  {third, grey(0.04)},
                  {1, grey(0)}},
                 grey(0.15))},
    };
    return laid_out(width, height, rows, set[0] != 0);
}

/// Bars for high dynamic range. `level`: of the main bars, where diffuse white lies (75 % for HLG, 58 % for PQ).
image::Picture hdr(int width, int height, Values set, std::string_view name, double level) {
    constexpr double side = 7.0 / 6;
    const colour::Space& space = *colour::find_space(name);
    const auto of_709 = [&](int index) {
        return colour::converted(bar(index, 1), *colour::find_space("rec709-linear"), space);
    };
    const auto bars = [&](double at) {
        std::vector<Piece> pieces = {{side, grey(0.4)}};
        for (int i = 0; i < 7; ++i)
            pieces.emplace_back(1, bar(i, at));
        pieces.emplace_back(side, grey(0.4));
        return pieces;
    };
    Row steps{1, {{side, grey(level)}}};
    for (const int percent : {-7, 0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100, 109})
        steps.pieces.emplace_back(7.0 / 13, grey(percent / 100.0));
    steps.pieces.emplace_back(side, grey(level));
    const double third = side / 3;
    const Row last{2,
                   {{third, of_709(1)},
                    {third, of_709(2)},
                    {third, of_709(3)},
                    {1.5, grey(0)},
                    {0.4, grey(-0.02)},
                    {0.4, grey(0)},
                    {0.4, grey(0.02)},
                    {0.4, grey(0)},
                    {0.4, grey(0.04)},
                    {1, grey(0)},
                    {1.5, grey(level)},
                    {1, grey(0)},
                    {third, of_709(4)},
                    {third, of_709(5)},
                    {third, of_709(6)}}};
    const std::vector<Row> rows = {{1, bars(1)},
                                   {7, bars(level)},
                                   steps,
                                   {1, {{side, grey(0)}, {7, grey(-0.07), grey(1.09)}, {side, grey(1.09)}}},
                                   last};
    return laid_out(width, height, rows, set[0] != 0);
}

constexpr std::string_view bt2111 = "ITU-R BT.2111-2; its layout and levels from memory, the BT.709 bars computed";

} // namespace

extern const Target bars_75, bars_100, bars_hd, bars_hlg, bars_pq;

const Target bars_75 = {
    .name = "bars_75",
    .title = "colour bars, 75 %",
    .detail = "100/0/75/0",
    .doc = "White, yellow, cyan, green, magenta, red, blue, black; white at 100 %, colours at 75 %.",
    .source = "ITU-R BT.471, SMPTE EG 1",
    .space = "rec709-display",
    .shape = Shape::field,
    .columns = 640,
    .rows = 360,
    .settings = plain_settings,
    .field = eight_bars<75>,
};

const Target bars_100 = {
    .name = "bars_100",
    .title = "colour bars, 100 %",
    .detail = "100/0/100/0",
    .doc = "White, yellow, cyan, green, magenta, red, blue, black at 100 %.",
    .source = "ITU-R BT.471",
    .space = "rec709-display",
    .shape = Shape::field,
    .columns = 640,
    .rows = 360,
    .settings = plain_settings,
    .field = eight_bars<100>,
};

const Target bars_hd = {
    .name = "bars_hd",
    .title = "colour bars, HD",
    .detail = "75 %, ramp, levels around black",
    .doc = "The multi-format bars: 75 % bars between 40 % grey; 100 % cyan, yellow, blue and red at the sides; a ramp; "
           "-2, +2 and +4 % around black.",
    .source = "SMPTE RP 219; layout from memory",
    .space = "rec709-display",
    .shape = Shape::field,
    .columns = 640,
    .rows = 360,
    .settings = narrow_setting,
    .field = hd,
};

const Target bars_hlg = {
    .name = "bars_hlg",
    .title = "colour bars, HLG",
    .detail = "75 % and 100 %, steps, BT.709 bars",
    .doc = "Bars for high dynamic range with hybrid log-gamma: 100 % and 75 % bars, steps from -7 to 109 %, a ramp, "
           "the colours of BT.709, levels around black.",
    .source = bt2111,
    .space = "rec2100-hlg",
    .shape = Shape::field,
    .columns = 640,
    .rows = 360,
    .settings = narrow_setting,
    .field = [](int width, int height, Values set) { return hdr(width, height, set, "rec2100-hlg", 0.75); },
};

const Target bars_pq = {
    .name = "bars_pq",
    .title = "colour bars, PQ",
    .detail = "58 % and 100 %, steps, BT.709 bars",
    .doc = "Bars for high dynamic range with the perceptual quantiser: 100 % and 58 % bars, steps from -7 to 109 %, a "
           "ramp, the colours of BT.709, levels around black.",
    .source = bt2111,
    .space = "rec2100-pq",
    .shape = Shape::field,
    .columns = 640,
    .rows = 360,
    .settings = narrow_setting,
    .field = [](int width, int height, Values set) { return hdr(width, height, set, "rec2100-pq", 0.58); },
};

} // namespace kasuri::targets
