#include "pairing/chart.hpp"

#include "base/file.hpp"
#include "base/said.hpp"
#include "base/text.hpp"
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace kasuri::pairing {
namespace {

constexpr std::size_t longest = std::size_t{1} << 20;
constexpr int most_patches = 5000;

using Row = std::vector<std::string>;

/// Cells parted by commas, semicolons, tabs or spaces; in quotes they may hold those.
Row cells_of(std::string_view line) {
    Row cells;
    std::string cell;
    bool quoted = false, any = false;
    for (const char c : line) {
        if (c == '"') {
            quoted = !quoted;
            any = true;
        } else if (!quoted && (c == ',' || c == ';' || c == '\t' || c == ' ' || c == '\r')) {
            if (any)
                cells.push_back(std::move(cell));
            cell.clear();
            any = false;
        } else {
            cell += c;
            any = true;
        }
    }
    if (any)
        cells.push_back(std::move(cell));
    return cells;
}

std::string lower(std::string text) {
    for (char& c : text)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return text;
}

/// A way to name three columns, and what their numbers are.
struct Columns {
    std::array<std::string_view, 3> names;
    std::string_view model; ///< empty: r, g, b
    int luminance;          ///< which of them may be in percent; -1: none
};

constexpr Columns known[] = {
    {{"rgb_r", "rgb_g", "rgb_b"}, "", -1},
    {{"lab_l", "lab_a", "lab_b"}, "lab50", -1},
    {{"xyz_x", "xyz_y", "xyz_z"}, "xyz", 1},
    {{"xyy_x", "xyy_y", "xyy_capy"}, "xyy", 2},
    {{"l*", "a*", "b*"}, "lab50", -1},
    {{"l", "a", "b"}, "lab50", -1},
    {{"r", "g", "b"}, "", -1},
    {{"red", "green", "blue"}, "", -1},
};

struct Layout {
    std::array<std::size_t, 3> at{};
    std::optional<std::size_t> name{};
    std::string_view model{};
    int luminance = -1;
};

std::optional<Layout> layout_of(const Row& names) {
    const auto index = [&](std::string_view wanted) -> std::optional<std::size_t> {
        for (std::size_t i = 0; i < names.size(); ++i)
            if (lower(names[i]) == wanted)
                return i;
        return std::nullopt;
    };
    Layout made;
    for (const std::string_view word : {"sample_name", "name", "patch", "sample_id"})
        if (!made.name)
            made.name = index(word);
    // x y Y and X Y Z are told apart by their letters' size.
    const auto exactly = [&](std::array<std::string_view, 3> wanted, std::string_view model, int luminance) {
        for (std::size_t c = 0; c < 3; ++c) {
            const auto found = std::find(names.begin(), names.end(), wanted[c]);
            if (found == names.end())
                return false;
            made.at[c] = static_cast<std::size_t>(found - names.begin());
        }
        made.model = model;
        made.luminance = luminance;
        return true;
    };
    if (exactly({"x", "y", "Y"}, "xyy", 2) || exactly({"X", "Y", "Z"}, "xyz", 1))
        return made;
    for (const Columns& columns : known) {
        const auto a = index(columns.names[0]), b = index(columns.names[1]), c = index(columns.names[2]);
        if (!a || !b || !c)
            continue;
        made.at = {*a, *b, *c};
        made.model = columns.model;
        made.luminance = columns.luminance;
        return made;
    }
    return std::nullopt;
}

std::optional<double> number(const std::string& cell) {
    double value = 0;
    const auto read = std::from_chars(cell.data(), cell.data() + cell.size(), value);
    return read.ec == std::errc() && read.ptr == cell.data() + cell.size() && std::isfinite(value)
        ? std::optional(value)
        : std::nullopt;
}

/// The line of names and the lines of numbers, of a table or of a CGATS file (ISO 28178), with their places in it.
struct Table {
    Row names;
    std::vector<std::pair<std::size_t, Row>> rows;
};

Table table_of(std::string_view text) {
    Table made;
    enum { plain, format, data } part = plain;
    bool sections = false;
    std::size_t line_number = 0;
    for (const std::string_view line : split(text, '\n')) {
        ++line_number;
        const Row cells = cells_of(line);
        if (cells.empty() || cells[0][0] == '#')
            continue;
        const std::string word = lower(cells[0]);
        if (word == "begin_data_format") {
            made = {};
            part = format;
            sections = true;
        } else if (word == "begin_data") {
            part = data;
        } else if (word == "end_data_format" || word == "end_data") {
            part = plain;
        } else if (part == format) {
            made.names.insert(made.names.end(), cells.begin(), cells.end());
        } else if (part == data || !sections) {
            if (!sections && made.names.empty())
                made.names = cells;
            else
                made.rows.emplace_back(line_number, cells);
        }
    }
    return made;
}

/// The model's numbers of D50 as light of BT.709, adapted by Bradford.
colour::Triple light_of(std::string_view model, colour::Triple value) {
    const colour::Space& light = *colour::find_space("rec709-linear");
    if (model == "xyy") {
        const auto [x, y, big_y] = value;
        value = y > 0 ? colour::Triple{x / y * big_y, big_y, (1 - x - y) / y * big_y} : colour::Triple{};
        model = "xyz";
    }
    return colour::to_rgb(*colour::find_model(model == "xyz" ? "xyz50" : model), light, value);
}

Result<std::vector<Patch>> own_values(const std::string& file, const std::string& own, int wanted) {
    const auto text = read_file(file, longest);
    if (!text)
        return text.error();
    const Table table = table_of(text.value());
    const auto layout = layout_of(table.names);
    if (!layout)
        return Error{"has no columns that are colours", file,
                     "Name them in the first line: L a b, X Y Z, x y Y or r g b; a column called name is kept."};
    if (static_cast<int>(table.rows.size()) != wanted)
        return Error{said("has {} lines of numbers for {} patches", table.rows.size(), wanted), file,
                     "Give a line for each patch, row by row, and say how many columns and rows the chart has."};
    double brightest = 0;
    std::vector<colour::Triple> numbers;
    std::vector<Patch> made;
    for (const auto& [place, row] : table.rows) {
        colour::Triple value{};
        for (std::size_t c = 0; c < 3; ++c) {
            const auto read = layout->at[c] < row.size() ? number(row[layout->at[c]]) : std::nullopt;
            if (!read)
                return Error{said("line {}: {} is no number", place, table.names[layout->at[c]]), file,
                             "Every patch needs three numbers; decimals have a point."};
            value[c] = *read;
        }
        if (layout->luminance >= 0)
            brightest = std::max(brightest, value[static_cast<std::size_t>(layout->luminance)]);
        numbers.push_back(value);
        Patch patch;
        if (layout->name && *layout->name < row.size())
            patch.name = row[*layout->name];
        made.push_back(std::move(patch));
    }
    constexpr double surely_percent = 1.5; // no patch is half as bright again as white
    const colour::Space* space = colour::find_space(own.empty() ? "srgb" : own);
    for (std::size_t i = 0; i < numbers.size(); ++i) {
        colour::Triple& value = numbers[i];
        if (layout->luminance >= 0 && brightest > surely_percent)
            for (std::size_t c = 0; c < 3; ++c)
                value[c] *= layout->model == "xyy" && c < 2 ? 1 : 0.01;
        made[i].colour = layout->model.empty() ? colour::converted(value, *space, *colour::find_space("rec709-linear"))
                                               : light_of(layout->model, value);
    }
    return made;
}

} // namespace

std::vector<std::string> chart_names() {
    std::vector<std::string> names;
    for (const targets::Target* target : targets::all())
        if (target->shape == targets::Shape::patches && !target->space.empty())
            names.emplace_back(target->name);
    return names;
}

std::pair<int, int> grid_of(const ChartWish& wish) {
    if (wish.columns > 0 && wish.rows > 0)
        return {wish.columns, wish.rows};
    const targets::Target* chart = targets::find(wish.chart);
    return chart ? std::pair{chart->columns, chart->rows} : std::pair{0, 0};
}

Result<std::vector<Patch>> chart_values(const ChartWish& wish, const std::string& own) {
    const auto [columns, rows] = grid_of(wish);
    if (columns < 1 || rows < 1 || columns > most_patches / rows)
        return Error{said("a chart of {} x {} patches", columns, rows), "",
                     said("Between 1 and {} patches.", most_patches)};
    if (!wish.values.empty())
        return own_values(wish.values, own, columns * rows);
    const targets::Target* chart = targets::find(wish.chart);
    if (!chart || chart->shape != targets::Shape::patches || chart->space.empty())
        return Error{said("there is no chart {}", wish.chart), "",
                     said("There are: {}. Or give a table of your own values.", fmt::join(chart_names(), ", "))};
    if (columns != chart->columns || rows != chart->rows)
        return Error{said("{} has {} x {} patches", wish.chart, chart->columns, chart->rows), "",
                     "Another number of columns and rows needs a table of your own values."};
    std::vector<Patch> made;
    for (int i = 0; i < columns * rows; ++i) {
        Patch patch;
        patch.name = targets::patch_name(*chart, i);
        patch.colour = colour::converted(chart->colour(i, {}), *colour::find_space(chart->space),
                                         *colour::find_space("rec709-linear"));
        made.push_back(std::move(patch));
    }
    return made;
}

} // namespace kasuri::pairing
