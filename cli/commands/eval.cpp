#include "base/text.hpp"
#include "colour/space.hpp"
#include "command.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "eval_table.hpp"
#include "json.hpp"
#include "lang/check.hpp"
#include "opening/open.hpp"
#include "proof/proof.hpp"
#include "subject.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <iostream>
#include <memory>

namespace kasuri::cli {
namespace {

constexpr std::size_t opaque = static_cast<std::size_t>(-1); ///< in the place of a channel: 1 everywhere

struct Options {
    RuleOptions rule;
    std::string print;
    std::string columns;
    int width = 1;
    bool reference = false, json = false;
    std::string in_space, out_space; ///< empty: the rule's own
};

using T = JsonType;
constexpr JsonField answer[] = {{"lines", T::whole, "how many colours were read"}};

std::string joined(std::span<const double> values, bool json) {
    if (json)
        return json_numbers(values).dump() + "\n";
    std::string line;
    for (const double value : values)
        line += (line.empty() ? "" : ",") + number_text(value, 9);
    return line + "\n";
}

/// What is evaluated: the subject, and behind it the rule of --print, which sees what came in as r, g, b and what comes
/// out as out.
struct Evaluated {
    LoadedSubject loaded;
    std::optional<lang::Rule> print{}; ///< of a look or a LUT
    std::vector<std::size_t>
        channels{}; ///< for each channel of the sources, then of the print's columns: which of Table's
};

/// The columns that a source reads: its name, or of a colour its name with .r, .g, .b, .a.
bool find_columns(const lang::SourceInput& source, const Columns& columns, std::vector<std::size_t>& into) {
    const int count = width(source.type);
    for (int c = 0; c < count; ++c) {
        const std::string name = count == 1 ? source.name : fmt::format("{}.{}", source.name, "rgba"[c]);
        const auto found = std::find(columns.further.begin(), columns.further.end(), name);
        if (found != columns.further.end())
            into.push_back(4 + static_cast<std::size_t>(found - columns.further.begin()));
        else if (c == 3) // a colour without its alpha is opaque
            into.push_back(opaque);
        else
            return false;
    }
    return true;
}

/// The exit code if there is nothing to evaluate; everything has been said then.
int load_evaluated(const Options& options, const Columns& columns, Evaluated& into) {
    if (options.rule.filter == standard_stream)
        return refuse(Exit::usage, "the rule and the colours cannot both come from standard input");
    const bool is_rule = !opening::is_look_or_lut(options.rule.filter);
    if (is_rule) {
        const bool print = !options.print.empty();
        std::vector<std::string> plain; // columns that are no source of the rule's own are floats of their name
        Loaded first;
        if (!columns.further.empty()) {
            first = load(options.rule, std::nullopt, {}, true);
            for (const std::string& name : columns.further) {
                const std::string whole = name.substr(0, name.find('.'));
                const bool known = std::any_of(first.rule.sources.begin(), first.rule.sources.end(),
                                               [&](const auto& source) { return source.name == whole; });
                if (!known && name.find('.') != std::string::npos)
                    return refuse(Exit::usage, "--columns: {} is not a name, for the rule has no source {}", name,
                                  whole);
                if (!known)
                    plain.push_back(name);
            }
        }
        Loaded loaded = load(options.rule, print ? std::optional(options.print) : std::nullopt, plain);
        if (loaded.exit != Exit::good)
            return loaded.exit;
        into.loaded.subject = subject::Subject(std::move(loaded.rule), loaded.values);
    } else {
        into.loaded = load_subject(options.rule);
        if (into.loaded.exit != Exit::good)
            return into.loaded.exit;
    }
    const subject::Subject& subject = into.loaded.subject;
    for (const lang::SourceInput& source : subject.sources())
        if (!find_columns(source, columns, into.channels))
            return refuse(Exit::usage, "the {} reads the further picture {}: give it as {} by --columns r,g,b,{}",
                          subject.noun(), source.name, width(source.type) == 1 ? "a column" : "columns",
                          width(source.type) == 1 ? source.name : fmt::format("{0}.r,{0}.g,{0}.b", source.name));
    if (is_rule || options.print.empty())
        return Exit::good;
    lang::CheckOptions with;
    with.print = options.print;
    for (const std::string& name : columns.further)
        if (name.find('.') == std::string::npos)
            with.columns.push_back(name);
    const std::string text = "working " + subject.space() + "\n";
    lang::Checked checked = lang::check(text, proof::vocabulary(), with);
    say_diagnostics(checked.print_diagnostics, options.print, "print");
    if (!checked.ok)
        return Exit::rule_failed;
    for (const lang::SourceInput& source : checked.rule.sources)
        (void)find_columns(source, columns, into.channels);
    into.print = std::move(checked.rule);
    return Exit::good;
}

/// One line of the table as the reference sees it.
engine::ReferencePixel pixel_of(const Evaluated& what, const Table& table, std::size_t i, int width, int height) {
    engine::ReferencePixel pixel;
    std::copy_n(table.lines[i].begin(), 4, pixel.rgba.begin());
    for (const std::size_t channel : what.channels)
        pixel.sources.push_back(channel == opaque ? 1 : table.lines[i][channel]);
    pixel.pixel = {static_cast<double>(i % static_cast<std::size_t>(width)),
                   static_cast<double>(i / static_cast<std::size_t>(width))};
    pixel.pos = {(pixel.pixel[0] + 0.5) / width, (pixel.pixel[1] + 0.5) / height};
    pixel.aspect = static_cast<double>(width) / height;
    pixel.extent = {static_cast<double>(width), static_cast<double>(height)};
    return pixel;
}

/// r, g, b from one space into another, at double precision.
void convert(double* rgb, const std::string& from, const std::string& to) {
    const colour::Triple made =
        colour::converted({rgb[0], rgb[1], rgb[2]}, *colour::find_space(from), *colour::find_space(to));
    std::copy(made.begin(), made.end(), rgb);
}

int by_reference(const Evaluated& what, const Table& table, const Options& options, std::string& text) {
    const subject::Subject& subject = what.loaded.subject;
    const int width = options.width;
    const std::size_t count = table.lines.size();
    const int height = static_cast<int>(count) / width;
    const std::string own = subject.space(), in = options.in_space.empty() ? own : options.in_space,
                      out = options.out_space.empty() ? own : options.out_space;
    if (!subject.rule() && subject.program()->reads_neighbours()) {
        return refuse(Exit::usage,
                      "the reference of a look looks at single pixels, and a step of this one looks at "
                      "its neighbours; ask the step's filter by itself");
    }
    std::vector<engine::ReferencePixel> pixels;
    for (std::size_t i = 0; i < count; ++i) {
        pixels.push_back(pixel_of(what, table, i, width, height));
        convert(pixels.back().rgba.data(), in, own);
    }
    std::vector<std::array<double, 4>> made;
    if (subject.rule() && !options.print.empty()) {
        for (const engine::ReferencePixel& pixel : pixels)
            text += joined(engine::reference_print(*subject.rule(), subject.values(), pixel), options.json);
        return Exit::good;
    }
    if (subject.rule())
        made = engine::reference_picture(*subject.rule(), subject.values(), width, pixels);
    else
        for (const engine::ReferencePixel& pixel : pixels)
            made.push_back(engine::reference_chain(subject.steps(), subject.values(), own, pixel));
    const std::size_t channels = [&] {
        std::size_t sum = 0;
        for (const lang::SourceInput& source : subject.sources())
            sum += static_cast<std::size_t>(lang::width(source.type));
        return sum;
    }();
    for (std::size_t i = 0; i < count; ++i) {
        if (what.print) {
            engine::ReferencePixel pixel = pixels[i];
            pixel.sources.erase(pixel.sources.begin(), pixel.sources.begin() + static_cast<std::ptrdiff_t>(channels));
            pixel.out = made[i];
            text += joined(engine::reference_print(*what.print, {}, pixel), options.json);
            continue;
        }
        convert(made[i].data(), own, out);
        text += joined(std::span(made[i]).first(table.widths[i]), options.json);
    }
    return Exit::good;
}

engine::ProgramPtr program_of(const Evaluated& what, const Options& options) {
    const subject::Subject& subject = what.loaded.subject;
    engine::CompileOptions compiling;
    compiling.in_space = options.in_space;
    compiling.out_space = what.print ? "" : std::string_view(options.out_space);
    compiling.print = subject.rule() && !options.print.empty();
    ir::Graph graph;
    if (what.print) // channels of the columns come behind those of the subject's own sources
        graph.reserve_sources(static_cast<std::uint32_t>(what.channels.size()));
    std::vector<ir::NodeId> outputs = subject.lower(graph, compiling);
    if (what.print) {
        std::size_t channels = what.channels.size() - engine::source_channels(*what.print);
        const engine::Feed feed{{graph.input(ir::Input::r), graph.input(ir::Input::g), graph.input(ir::Input::b),
                                 graph.input(ir::Input::a)},
                                0,
                                static_cast<std::uint32_t>(channels),
                                std::array{outputs[0], outputs[1], outputs[2], outputs[3]}};
        engine::CompileOptions print;
        print.print = true;
        print.in_space = options.in_space;
        outputs = engine::lower_behind(*what.print, graph, print, feed);
    }
    return std::make_shared<const engine::Program>(graph, outputs);
}

void by_engine(const Evaluated& what, const Table& table, const Options& options, std::string& text) {
    const engine::ProgramPtr program = program_of(what, options);
    const bool print = !options.print.empty();
    const int width = options.width;
    const std::size_t count = table.lines.size(), outputs = program->outputs().size();
    const std::size_t channels = table.lines.empty() ? 4 : table.lines[0].size();
    const std::vector<float> ones(count, 1.0f);
    std::vector<std::vector<float>> planes(channels, std::vector<float>(count)),
        results(outputs, std::vector<float>(count));
    for (std::size_t i = 0; i < count; ++i)
        for (std::size_t c = 0; c < channels; ++c)
            planes[c][i] = static_cast<float>(table.lines[i][c]);
    engine::Source source{width, static_cast<int>(count) / width, {}};
    for (std::size_t c = 0; c < 4; ++c)
        source.planes[c] = planes[c].data();
    for (const std::size_t channel : what.channels)
        source.more.emplace_back(channel == opaque || channel >= channels ? ones.data() : planes[channel].data());
    std::vector<float*> targets;
    for (auto& result : results)
        targets.push_back(result.data());
    engine::run(*program, source, what.loaded.subject.values(), std::span<float* const>(targets));
    for (std::size_t i = 0; i < count; ++i) {
        std::vector<double> values;
        for (std::size_t k = 0; k < (print ? outputs : table.widths[i]); ++k)
            values.push_back(static_cast<double>(results[k][i]));
        text += joined(values, options.json);
    }
}

bool fits_rows(const Table& table, const Options& options) {
    if (options.width >= 1 && table.lines.size() % static_cast<std::size_t>(options.width) == 0)
        return true;
    refuse(Exit::usage, "--width {}: {} lines do not divide into rows of {}", options.width, table.lines.size(),
           options.width);
    return false;
}

int run(const Options& options) {
    if (options.rule.filter.empty() && !options.rule.text_given && options.print.empty() && options.in_space.empty() &&
        options.out_space.empty())
        return refuse(Exit::usage, "give FILTER, --rule TEXT, --print EXPRESSION, or spaces to convert between");
    const std::optional<Columns> columns = columns_of(options.columns);
    if (!columns || !known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    Evaluated what;
    if (const int exit = load_evaluated(options, *columns, what); exit != Exit::good)
        return exit;
    const std::optional<Table> table = read_table(std::cin, *columns);
    if (!table)
        return Exit::input_output;
    if (!fits_rows(*table, options))
        return Exit::usage;
    std::string text;
    if (!options.reference)
        by_engine(what, *table, options, text);
    else if (const int exit = by_reference(what, *table, options, text); exit != Exit::good)
        return exit;
    std::fwrite(text.data(), 1, text.size(), stdout);
    if (options.json)
        return print_json({{"lines", table->lines.size()}});
    return std::fflush(stdout) == 0 ? Exit::good : Exit::input_output;
}

} // namespace

extern const Command eval_command;
const Command eval_command = {
    "eval", "Read colours as CSV lines r,g,b[,a] on standard input and write what the rule or the look makes of them",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, true);
        arguments.value("--print", options->print, "Write the components of this expression instead of out");
        arguments.value("--columns", options->columns,
                        "Names of the columns that are read, such as r,g,b,x,y; other than r, g, b, a they "
                        "are plain floats of that name");
        arguments.value("--width", options->width,
                        "Take the lines as rows of a picture of this width, for rules with coordinates or neighbours");
        arguments
            .value("--in-space", options->in_space,
                   "The space of the numbers that are read, instead of the rule's working space")
            .completes(Completes::space);
        arguments
            .value("--out-space", options->out_space,
                   "The space of the colours that are written, instead of the rule's working space")
            .completes(Completes::space);
        arguments.flag("--reference", options->reference,
                       "Use the slow double-precision reference instead of the engine");
        define_json(arguments, options->json, {answer, {}, true},
                    "A list a line instead of CSV, then the answer: docs/json.md");
        arguments.footer("Numbers are values of the rule's working space, unless --in-space and --out-space say "
                         "otherwise, and are written with 9 significant digits;\n"
                         "nan, inf and -inf are read and written as such. Lines that begin with # are passed over.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
