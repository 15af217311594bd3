#include "handover/cube.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "insight/affine.hpp"
#include "io/lut_file.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <iterator>

namespace kasuri::handover {
namespace {

std::string one_line(std::string text) {
    std::replace_if(
        text.begin(), text.end(), [](char c) { return c == '\n' || c == '\r' || c == '"'; }, ' ');
    return text;
}

std::string error_words(const LutError& error) {
    std::string text = fmt::format("mean {} 99.9 % within {} largest {}", number_text(error.mean, 3),
                                   number_text(error.most, 3), number_text(error.largest, 3));
    if (error.delta_e_largest > 0)
        text += fmt::format(" (CIEDE2000: mean {} 99.9 % within {} largest {})", number_text(error.delta_e_mean, 3),
                            number_text(error.delta_e_most, 3), number_text(error.delta_e_largest, 3));
    return text;
}

enum class Holds { matrix, curves, table };

/// What should be known beside the numbers, line by line.
std::vector<std::string> facts(const Subject& subject, const Baked& baked, Holds holds) {
    std::vector<std::string> lines;
    const std::string spaces = baked.in_space == baked.out_space
        ? fmt::format("numbers in and out are {}", baked.in_space)
        : fmt::format("numbers in are {}, numbers out are {}", baked.in_space, baked.out_space);
    const std::string_view kind = subject.rule() ? "filter" : subject.noun();
    lines.push_back(fmt::format("Kasuri {}: {}, domain {} to {}", kind, spaces, number_text(baked.lut.low, 9),
                                number_text(baked.lut.high, 9)));
    std::size_t at = 0;
    for (const subject::Parameter& p : subject.parameters())
        lines.push_back(fmt::format("{} = {}", one_line(p.name), number_text(subject.values()[at++], 9)));
    const std::string_view what = subject.noun();
    if (holds == Holds::matrix)
        lines.push_back(fmt::format("the {} is exactly this matrix, for all numbers", what));
    else if (holds == Holds::curves)
        lines.push_back(
            fmt::format("error against the {} on {} colours: {}", what, baked.samples, error_words(baked.by_curves)));
    else
        lines.push_back(fmt::format("error against the {} on {} colours: trilinear {}, tetrahedral {}", what,
                                    baked.samples, error_words(baked.trilinear), error_words(baked.tetrahedral)));
    if (baked.reads_alpha)
        lines.push_back(fmt::format("the {} reads alpha; this holds it for alpha 1", what));
    return lines;
}

Status all_finite(const std::filesystem::path& path, const Baked& baked) {
    if (baked.not_finite == 0)
        return {};
    return Error{said("{} of the table's colours are NaN or infinite, which a LUT cannot hold", baked.not_finite),
                 path.string(), "See the proof \"no NaN or infinity\" for where they are born, or narrow the domain."};
}

using Rows = std::array<std::array<double, 4>, 3>;

Rows rows_of(const insight::Affine& map) {
    Rows rows{};
    for (std::size_t row = 0; row < 3; ++row)
        rows[row] = {map.matrix[row][0], map.matrix[row][1], map.matrix[row][2], map.offset[row]};
    return rows;
}

/// Brings a domain to 0 .. 1, which tables in files are over.
std::optional<Rows> into_unit(double low, double high) {
    if (low == 0 && high == 1)
        return std::nullopt;
    const double by = 1 / (high - low), offset = -low / (high - low);
    return Rows{{{by, 0, 0, offset}, {0, by, 0, offset}, {0, 0, by, offset}}};
}

} // namespace

std::vector<std::string> lut_endings() {
    std::vector<std::string> endings = io::baked_endings();
    for (const char* own : {".clf", ".cube"})
        if (std::find(endings.begin(), endings.end(), own) == endings.end())
            endings.emplace_back(own);
    std::sort(endings.begin(), endings.end());
    return endings;
}

Status write_cube(const std::filesystem::path& path, const Subject& subject, const Baked& baked, bool as_curves) {
    if (const Status finite = all_finite(path, baked); !finite)
        return finite;
    if (as_curves && !baked.curves)
        return Error{
            said("the {} is not three independent curves, which a 1D table would hold", translated(subject.noun())),
            path.string(), "Write a 3D table."};
    if (baked.lut.shape > 0 && !as_curves)
        return Error{"a .cube file has no place for a shaper", path.string(), "Choose .clf, or a table without one."};
    std::string text = fmt::format("TITLE \"{}\"\n", one_line(subject.title()));
    for (const std::string& line : facts(subject, baked, as_curves ? Holds::curves : Holds::table))
        text += "# " + line + "\n";
    const auto& points = as_curves ? baked.curves->points : baked.lut.colours;
    text +=
        as_curves ? fmt::format("LUT_1D_SIZE {}\n", points.size()) : fmt::format("LUT_3D_SIZE {}\n", baked.lut.size);
    text += fmt::format("DOMAIN_MIN {0} {0} {0}\nDOMAIN_MAX {1} {1} {1}\n", number_text(baked.lut.low, 9),
                        number_text(baked.lut.high, 9));
    for (const auto& colour : points)
        fmt::format_to(std::back_inserter(text), "{:.9g} {:.9g} {:.9g}\n", colour[0], colour[1], colour[2]);
    return write_file(path, text);
}

Status write_lut(const std::filesystem::path& path, const Subject& subject, const Baked& baked) {
    const std::string ending = lower_ending(path);
    if (ending == ".cube")
        return write_cube(path, subject, baked, baked.curves && !baked.matrix);
    if (const Status finite = baked.matrix && ending == ".clf" ? Status() : all_finite(path, baked); !finite)
        return finite;
    io::LutSteps steps;
    Holds holds = Holds::table;
    if (baked.matrix) {
        steps.matrix = rows_of(*baked.matrix);
        holds = Holds::matrix;
    } else {
        steps.matrix = into_unit(baked.lut.low, baked.lut.high);
        if (baked.curves) {
            steps.curves = baked.curves->points;
            holds = Holds::curves;
        } else {
            if (baked.lut.shape > 0) { // the shape takes the domain in its stride
                steps.matrix.reset();
                const double by = baked.lut.shape / (baked.lut.high - baked.lut.low);
                steps.log = io::LutSteps::Log{1 / std::log2(1 + baked.lut.shape), by, 1 - by * baked.lut.low, 0};
            }
            steps.size = baked.lut.size;
            steps.table = baked.lut.colours;
        }
    }
    if (ending == ".clf")
        return io::write_clf(
            path, steps, {one_line(subject.title()), baked.in_space, baked.out_space, facts(subject, baked, holds)});
    if (baked.lut.low != 0 || baked.lut.high != 1 || baked.lut.shape > 0)
        return Error{"files of this kind hold tables from 0 to 1 only", path.string(),
                     "Choose .clf or .cube, or the domain 0 to 1."};
    if (steps.size == 0) { // they hold tables, whatever the rule is
        steps = {};
        steps.size = baked.lut.size;
        steps.table = baked.lut.colours;
    }
    return io::write_baked(path, steps);
}

} // namespace kasuri::handover
