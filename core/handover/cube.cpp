#include "handover/cube.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "handover/read_back.hpp"
#include "insight/affine.hpp"
#include "io/icc_link.hpp"
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

/// What should be known beside the numbers, line by line; `measured`: null before it has been.
std::vector<std::string> facts(const Subject& subject, const Baked& baked, const LutFile* measured) {
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
    if (measured) {
        const std::string_view what = subject.noun();
        if (measured->holds == LutHolds::matrix && measured->exact)
            lines.push_back(fmt::format("the {} is exactly this matrix, for all numbers", what));
        else if (measured->holds != LutHolds::table)
            lines.push_back(fmt::format("error against the {} on {} colours: {}", what, measured->samples,
                                        error_words(measured->tetrahedral)));
        else
            lines.push_back(fmt::format("error against the {} on {} colours: trilinear {}, tetrahedral {}", what,
                                        measured->samples, error_words(measured->trilinear),
                                        error_words(measured->tetrahedral)));
        if (measured->clipped > 0)
            lines.push_back(
                fmt::format("{} % of the colours are cut off at 0 or 1", number_text(100 * measured->clipped, 2)));
    }
    if (baked.reads_alpha)
        lines.push_back(fmt::format("the {} reads alpha; this holds it for alpha 1", subject.noun()));
    return lines;
}

Status all_finite(const Baked& baked) {
    if (baked.not_finite == 0)
        return {};
    return Error{said("{} of the table's colours are NaN or infinite, which a LUT cannot hold", baked.not_finite), "",
                 "See the proof \"no NaN or infinity\" for where they are born, or narrow the domain."};
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
    for (const char* own : {".clf", ".cube", ".icc"})
        if (std::find(endings.begin(), endings.end(), own) == endings.end())
            endings.emplace_back(own);
    std::sort(endings.begin(), endings.end());
    return endings;
}

bool is_lut_ending(const std::string& ending) {
    const std::vector<std::string> all = lut_endings();
    return std::find(all.begin(), all.end(), ending) != all.end();
}

namespace {

Result<std::string> cube_text(const Subject& subject, const Baked& baked, const LutFile& file,
                              const std::vector<std::string>& lines) {
    const bool as_curves = file.holds == LutHolds::curves;
    if (baked.lut.shape > 0 && !as_curves)
        return Error{"a .cube file has no place for a shaper", "", "Choose .clf, or a table without one."};
    std::string text = fmt::format("TITLE \"{}\"\n", one_line(subject.title()));
    for (const std::string& line : lines)
        text += "# " + line + "\n";
    const auto& points = as_curves ? baked.curves->points : baked.lut.colours;
    text +=
        as_curves ? fmt::format("LUT_1D_SIZE {}\n", points.size()) : fmt::format("LUT_3D_SIZE {}\n", baked.lut.size);
    text += fmt::format("DOMAIN_MIN {0} {0} {0}\nDOMAIN_MAX {1} {1} {1}\n", number_text(baked.lut.low, 9),
                        number_text(baked.lut.high, 9));
    for (const auto& colour : points)
        fmt::format_to(std::back_inserter(text), "{:.9g} {:.9g} {:.9g}\n", colour[0], colour[1], colour[2]);
    return text;
}

/// As steps: a matrix over all numbers, else the domain brought to 0 .. 1, and curves or a table over that.
io::LutSteps steps_of(const Baked& baked, LutHolds holds) {
    io::LutSteps steps;
    if (holds == LutHolds::matrix) {
        steps.matrix = rows_of(*baked.matrix);
        return steps;
    }
    steps.matrix = into_unit(baked.lut.low, baked.lut.high);
    if (holds == LutHolds::curves) {
        steps.curves = baked.curves->points;
        return steps;
    }
    if (baked.lut.shape > 0) { // the shape takes the domain in its stride
        steps.matrix.reset();
        const double by = baked.lut.shape / (baked.lut.high - baked.lut.low);
        steps.log = io::LutSteps::Log{1 / std::log2(1 + baked.lut.shape), by, 1 - by * baked.lut.low, 0};
    }
    steps.size = baked.lut.size;
    steps.table = baked.lut.colours;
    return steps;
}

bool is_steps(const std::string& ending) { return ending == ".clf" || ending == ".ctf"; }

/// What a file with this ending will hold.
LutHolds held(const std::string& ending, const Baked& baked) {
    if (is_steps(ending))
        return baked.matrix ? LutHolds::matrix : baked.curves ? LutHolds::curves : LutHolds::table;
    if (ending == ".cube")
        return baked.curves && !baked.matrix ? LutHolds::curves : LutHolds::table;
    return LutHolds::table;
}

Result<std::string> text_of(const std::string& ending, const Subject& subject, const Baked& baked, const LutFile& file,
                            const LutFile* measured) {
    const std::vector<std::string> lines = facts(subject, baked, measured);
    if (ending == ".cube")
        return cube_text(subject, baked, file, lines);
    if (ending == icc_ending) {
        if (baked.lut.shape > 0 || baked.lut.low != 0 || baked.lut.high != 1)
            return Error{"a device link is over 0 to 1, without a shaper", "", "Choose .clf for another domain."};
        return io::icc_link(baked.lut.size, baked.lut.colours, one_line(subject.title()), lines);
    }
    const io::LutSteps steps = steps_of(baked, file.holds);
    if (is_steps(ending))
        return io::clf_text(ending, steps, {one_line(subject.title()), baked.in_space, baked.out_space, lines});
    if (baked.lut.shape > 0)
        return Error{"files of this kind have no place for a shaper", "", "Choose .clf, or a table without one."};
    return io::baked_text(ending, steps, baked.lut.low, baked.lut.high);
}

} // namespace

Result<LutFile> lut_file(const std::string& ending, const Subject& subject, const Baked& baked, bool delta_e,
                         const CancelToken& cancel) {
    if (!is_lut_ending(ending))
        return Error{"is not a kind of LUT that can be written", "",
                     said("Endings: {}.", fmt::join(lut_endings(), " "))};
    LutFile file;
    file.holds = held(ending, baked);
    if (const Status finite = all_finite(baked); !finite && file.holds != LutHolds::matrix)
        return finite.error();
    file.points = file.holds == LutHolds::curves ? static_cast<int>(baked.curves->points.size())
        : file.holds == LutHolds::table          ? baked.lut.size
                                                 : 0;
    file.low = baked.lut.low;
    file.high = baked.lut.high;
    auto text = text_of(ending, subject, baked, file, nullptr);
    if (!text)
        return text.error();
    if (const Status measured = read_back(file, text.value(), ending, subject, baked, delta_e, cancel); !measured)
        return measured.error();
    // The numbers again, with what was measured on them beside them.
    text = text_of(ending, subject, baked, file, &file);
    if (!text)
        return text.error();
    file.text = std::move(text.value());
    return file;
}

bool near_enough(const LutFile& file, const baking::Wished& wished) {
    return (!wished.difference || file.tetrahedral.largest <= *wished.difference) &&
        (!wished.delta_e || file.tetrahedral.delta_e_largest <= *wished.delta_e);
}

Result<LutFile> lut_file_for(const std::string& ending, const Subject& subject, baking::BakeOptions options,
                             const baking::Wished& wished, const CancelToken& cancel) {
    options.delta_e = options.delta_e || wished.delta_e;
    Result<LutFile> made = Error{"there is no size", "", ""};
    for (const int size : baking::lut_sizes) {
        options.size = size;
        const auto baked = baking::bake(subject, options, cancel);
        if (!baked)
            return baked.error();
        // A table that is too far off before it is written needs not be read back, as long as there is a larger one.
        const bool last = size == std::end(baking::lut_sizes)[-1];
        if (!last && baked.value().not_finite == 0 && !baking::near_enough(baked.value(), wished))
            continue;
        made = lut_file(ending, subject, baked.value(), options.delta_e, cancel);
        if (!made || near_enough(made.value(), wished) || made.value().clipped > 0)
            return made; // what is cut off is so at every size
    }
    return made;
}

Result<LutFile> write_lut(const std::filesystem::path& path, const Subject& subject, const Baked& baked, bool delta_e) {
    Result<LutFile> file = lut_file(lower_ending(path), subject, baked, delta_e);
    if (!file)
        return Error{file.error().what, path.string(), file.error().remedy};
    if (const Status written = write_file(path, file.value().text); !written)
        return written.error();
    return file;
}

} // namespace kasuri::handover
