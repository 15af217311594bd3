#include "base/text.hpp"
#include "colour/space.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/look_file.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "json.hpp"
#include "subject.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <iostream>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string print;
    std::string columns;
    int width = 1;
    bool reference = false, json = false;
    std::string in_space, out_space; ///< empty: the rule's own
};

/// The lines of standard input as numbers.
struct Table {
    std::vector<std::vector<double>> lines;
    std::vector<std::size_t> widths; ///< of each line as it was written
};

/// Where each column goes: 0..3 is r g b a, from 4 on the further ones.
struct Columns {
    std::vector<std::string> names; ///< all, in the order of the input
    std::vector<std::size_t> places;
    std::vector<std::string> further; ///< those that are not r, g, b or a
    bool named = false;
};

std::optional<Columns> columns_of(const std::string& text) {
    Columns columns;
    columns.named = !text.empty();
    for (const std::string_view part : split(columns.named ? std::string_view(text) : "r,g,b,a", ',')) {
        const std::string name(trimmed(part));
        constexpr std::string_view colours = "rgba";
        const bool word = !name.empty() && (std::isalpha(static_cast<unsigned char>(name[0])) || name[0] == '_') &&
            std::all_of(name.begin(), name.end(),
                        [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; });
        const bool taken = std::find(columns.names.begin(), columns.names.end(), name) != columns.names.end();
        const auto inputs = lang::input_table();
        const bool colour = name.size() == 1 && colours.find(name) != std::string_view::npos;
        const bool reserved = name == "out" ||
            (!colour &&
             std::any_of(inputs.begin(), inputs.end(), [&](const lang::InputRow& i) { return i.name == name; }));
        if (!word || taken || reserved) {
            fmt::print(stderr, "kasuri-cli eval: --columns: {} {}\n", name.empty() ? "an empty name" : name,
                       taken          ? "comes twice"
                           : reserved ? "has a fixed meaning"
                                      : "is not a name");
            return std::nullopt;
        }
        columns.names.push_back(name);
        if (colour) {
            columns.places.push_back(colours.find(name));
        } else {
            columns.places.push_back(4 + columns.further.size());
            columns.further.push_back(name);
        }
    }
    return columns;
}

/// Empty lines, lines that begin with # and a heading are passed over. Without --columns a may be left out.
std::optional<Table> read_table(std::istream& in, const Columns& columns) {
    Table table;
    std::string line;
    const std::size_t count = columns.names.size();
    const std::string expected = columns.named ? fmt::format("{}", fmt::join(columns.names, ",")) : "r,g,b or r,g,b,a";
    for (int number = 1; std::getline(in, line); ++number) {
        const std::string_view content = trimmed(line);
        if (content.empty() || content.front() == '#')
            continue;
        if (table.lines.empty() &&
            (content == fmt::format("{}", fmt::join(columns.names, ",")) || (!columns.named && content == "r,g,b")))
            continue; // a heading
        const auto parts = split(content, ',');
        if (parts.size() != count && !(!columns.named && parts.size() == 3)) {
            fmt::print(stderr, "standard input:{}:1: {} columns; expected {}\n", number, parts.size(), expected);
            return std::nullopt;
        }
        std::vector<double> values(4 + columns.further.size());
        values[3] = 1;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const std::optional<double> value = parse_number(parts[i]);
            if (!value) {
                fmt::print(stderr, "standard input:{}:{}: {} is not a number\n", number,
                           parts[i].data() - line.data() + 1, parts[i].empty() ? "nothing" : std::string(parts[i]));
                return std::nullopt;
            }
            values[columns.places[i]] = *value;
        }
        table.widths.push_back(
            columns.named
                ? (std::find(columns.names.begin(), columns.names.end(), "a") != columns.names.end() ? 4u : 3u)
                : parts.size());
        table.lines.push_back(std::move(values));
    }
    return table;
}

std::string joined(std::span<const double> values, bool json) {
    if (json)
        return json_numbers(values).dump() + "\n";
    std::string line;
    for (const double value : values)
        line += (line.empty() ? "" : ",") + number_text(value, 9);
    return line + "\n";
}

/// r, g, b from one space into another, at double precision; an empty name is the rule's own.
void convert(double* rgb, const lang::Rule& rule, const std::string& from, const std::string& to) {
    const std::string_view own = engine::working_space(rule);
    const colour::Triple made =
        colour::converted({rgb[0], rgb[1], rgb[2]}, *colour::find_space(from.empty() ? own : from),
                          *colour::find_space(to.empty() ? own : to));
    std::copy(made.begin(), made.end(), rgb);
}

std::string by_reference(const Loaded& loaded, const Table& table, const Options& options) {
    const bool print = !options.print.empty();
    const int width = options.width;
    std::string text;
    const std::size_t count = table.lines.size();
    const int height = static_cast<int>(count) / width;
    std::vector<engine::ReferencePixel> pixels(count);
    for (std::size_t i = 0; i < count; ++i) {
        engine::ReferencePixel& pixel = pixels[i];
        std::copy_n(table.lines[i].begin(), 4, pixel.rgba.begin());
        convert(pixel.rgba.data(), loaded.rule, options.in_space, "");
        pixel.sources.assign(table.lines[i].begin() + 4, table.lines[i].end());
        pixel.pixel = {static_cast<double>(i % static_cast<std::size_t>(width)),
                       static_cast<double>(i / static_cast<std::size_t>(width))};
        pixel.pos = {(pixel.pixel[0] + 0.5) / width, (pixel.pixel[1] + 0.5) / height};
        pixel.aspect = static_cast<double>(width) / height;
        pixel.extent = {static_cast<double>(width), static_cast<double>(height)};
    }
    if (print) {
        for (const engine::ReferencePixel& pixel : pixels)
            text += joined(engine::reference_print(loaded.rule, loaded.values, pixel), options.json);
        return text;
    }
    auto out = engine::reference_picture(loaded.rule, loaded.values, width, pixels);
    for (auto& colour : out)
        convert(colour.data(), loaded.rule, "", options.out_space);
    for (std::size_t i = 0; i < count; ++i)
        text += joined(std::span(out[i]).first(table.widths[i]), options.json);
    return text;
}

std::string by_engine(const engine::ProgramPtr& program, const std::vector<double>& parameters, const Table& table,
                      const Options& options) {
    const bool print = !options.print.empty();
    const int width = options.width;
    const std::size_t count = table.lines.size(), outputs = program->outputs().size();
    const std::size_t channels = table.lines.empty() ? 4 : table.lines[0].size();
    std::vector<std::vector<float>> planes(channels, std::vector<float>(count)),
        results(outputs, std::vector<float>(count));
    for (std::size_t i = 0; i < count; ++i)
        for (std::size_t c = 0; c < channels; ++c)
            planes[c][i] = static_cast<float>(table.lines[i][c]);
    engine::Source source{width, static_cast<int>(count) / width, {}};
    for (std::size_t c = 0; c < channels; ++c)
        if (c < 4)
            source.planes[c] = planes[c].data();
        else
            source.more.emplace_back(planes[c].data());
    std::vector<float*> targets;
    for (auto& result : results)
        targets.push_back(result.data());
    engine::run(*program, source, parameters, std::span<float* const>(targets));
    std::string text;
    for (std::size_t i = 0; i < count; ++i) {
        std::vector<double> values;
        for (std::size_t k = 0; k < (print ? outputs : table.widths[i]); ++k)
            values.push_back(static_cast<double>(results[k][i]));
        text += joined(values, options.json);
    }
    return text;
}

engine::ProgramPtr program_of(const Loaded& loaded, const Options& options) {
    engine::CompileOptions compiling;
    compiling.print = !options.print.empty();
    compiling.in_space = options.in_space;
    compiling.out_space = options.out_space;
    return engine::compile(loaded.rule, compiling);
}

bool fits_rows(const Table& table, const Options& options) {
    if (options.width >= 1 && table.lines.size() % static_cast<std::size_t>(options.width) == 0)
        return true;
    fmt::print(stderr, "kasuri-cli eval: --width {}: {} lines are no rows of that width\n", options.width,
               table.lines.size());
    return false;
}

int write(const std::string& text) {
    std::fwrite(text.data(), 1, text.size(), stdout);
    return std::fflush(stdout) == 0 ? Exit::good : Exit::input_output;
}

/// A look: no expression, no columns, no double reference of neighbours and places.
int run_look(const Options& options, const Columns& columns) {
    if (!options.print.empty() || !columns.further.empty() || options.reference) {
        fmt::print(
            stderr,
            "kasuri-cli eval: --print, --reference and further columns are for rules; a look has its result alone\n");
        return Exit::usage;
    }
    const LoadedSubject loaded = load_subject(options.rule, "eval");
    if (loaded.exit != Exit::good)
        return loaded.exit;
    if (!loaded.subject.sources.empty()) {
        fmt::print(stderr, "kasuri-cli eval: the look reads the further picture {}, which a table cannot bring\n",
                   loaded.subject.sources.front().name);
        return Exit::usage;
    }
    const std::optional<Table> table = read_table(std::cin, columns);
    if (!table)
        return Exit::input_output;
    return fits_rows(*table, options)
        ? write(by_engine(handover::compiled(loaded.subject, options.in_space, options.out_space),
                          loaded.subject.values(), *table, options))
        : static_cast<int>(Exit::usage);
}

int run(const Options& options) {
    if (options.rule.filter.empty() && !options.rule.text_given && options.print.empty() && options.in_space.empty() &&
        options.out_space.empty()) {
        fmt::print(stderr,
                   "kasuri-cli eval: give FILTER, --rule TEXT, --print EXPRESSION, or spaces to convert between\n");
        return Exit::usage;
    }
    const std::optional<Columns> columns = columns_of(options.columns);
    if (!columns)
        return Exit::usage;
    const bool print = !options.print.empty();
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    if (options.rule.filter.ends_with(document::look_ending) || document::is_lut_name(options.rule.filter))
        return run_look(options, *columns);
    const Loaded loaded = load(options.rule, print ? std::optional(options.print) : std::nullopt, columns->further);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    for (const lang::SourceInput& source : loaded.rule.sources)
        if (!source.column) {
            fmt::print(stderr,
                       "kasuri-cli eval: the rule reads the further picture {}, which a table cannot bring. Give it as "
                       "a column:\n"
                       "leave its `source` line out and name it in --columns\n",
                       source.name);
            return Exit::usage;
        }
    const std::optional<Table> table = read_table(std::cin, *columns);
    if (!table)
        return Exit::input_output;
    if (!fits_rows(*table, options))
        return Exit::usage;
    return write(options.reference ? by_reference(loaded, *table, options)
                                   : by_engine(program_of(loaded, options), loaded.values, *table, options));
}

} // namespace

extern const Command eval_command;
const Command eval_command = {
    "eval", "Read colours as CSV lines r,g,b[,a] on standard input and write what the rule or the look makes of them",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, true);
        app.add_option("--print", options->print, "Write the components of this expression instead of out");
        app.add_option("--columns", options->columns,
                       "Names of the columns that are read, such as r,g,b,x,y; other than r, g, b, a they are plain "
                       "floats of that name");
        app.add_option("--width", options->width,
                       "Take the lines as rows of a picture of this width, for rules with coordinates or neighbours");
        app.add_option("--in-space", options->in_space,
                       "The space of the numbers that are read, instead of the rule's working space");
        app.add_option("--out-space", options->out_space,
                       "The space of the colours that are written, instead of the rule's working space");
        app.add_flag("--reference", options->reference,
                     "Use the slow double-precision reference instead of the engine");
        define_json(app, options->json, "A JSON array a line instead of CSV");
        app.footer("Numbers are values of the rule's working space, unless --in-space and --out-space say otherwise, "
                   "and are written with 9 significant digits;\n"
                   "nan, inf and -inf are read and written as such. Lines that begin with # are passed over.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
