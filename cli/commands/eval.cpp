#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"

#include <cstdio>
#include <fmt/format.h>
#include <iostream>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string print;
    bool reference = false;
};

struct Colours {
    std::vector<float> planes[4];
    std::vector<std::array<double, 4>> exact;
    std::vector<std::size_t> columns; ///< of each line: 3 or 4
};

/// Reads r,g,b[,a] lines; empty lines, lines that begin with # and a heading are passed over.
std::optional<Colours> read_colours(std::istream& in) {
    Colours colours;
    std::string line;
    for (int number = 1; std::getline(in, line); ++number) {
        const std::string_view content = trimmed(line);
        if (content.empty() || content.front() == '#')
            continue;
        if (colours.exact.empty() && (content == "r,g,b" || content == "r,g,b,a"))
            continue; // a heading
        const auto parts = split(content, ',');
        if (parts.size() != 3 && parts.size() != 4) {
            fmt::print(stderr, "standard input:{}:1: {} columns; expected r,g,b or r,g,b,a\n", number, parts.size());
            return std::nullopt;
        }
        colours.columns.push_back(parts.size());
        std::array<double, 4> values = {0, 0, 0, 1};
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const std::optional<double> value = parse_number(parts[i]);
            if (!value) {
                fmt::print(stderr, "standard input:{}:{}: {} is not a number\n", number, parts[i].data() - line.data() + 1,
                           parts[i].empty() ? "nothing" : std::string(parts[i]));
                return std::nullopt;
            }
            values[i] = *value;
        }
        for (std::size_t i = 0; i < 4; ++i)
            colours.planes[i].push_back(static_cast<float>(values[i]));
        colours.exact.push_back(values);
    }
    return colours;
}

std::string joined(std::span<const double> values) {
    std::string line;
    for (const double value : values)
        line += (line.empty() ? "" : ",") + number_text(value, 9);
    return line + "\n";
}

int run(const Options& options) {
    if (options.rule.filter.empty() && !options.rule.text_given && options.print.empty()) {
        fmt::print(stderr, "kasuri-cli eval: give FILTER, --rule TEXT or --print EXPRESSION\n");
        return Exit::usage;
    }
    const Loaded loaded = load(options.rule, options.print.empty() ? std::nullopt : std::optional(options.print));
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const std::optional<Colours> colours = read_colours(std::cin);
    if (!colours)
        return Exit::input_output;
    const std::size_t count = colours->exact.size();
    std::string text;
    const bool print = !options.print.empty();
    if (options.reference) {
        for (std::size_t i = 0; i < count; ++i) {
            engine::ReferencePixel pixel;
            pixel.rgba = colours->exact[i];
            if (print) {
                text += joined(engine::reference_print(loaded.rule, loaded.values, pixel));
            } else {
                const std::array<double, 4> out = engine::reference(loaded.rule, loaded.values, pixel);
                text += joined(std::span(out).first(colours->columns[i]));
            }
        }
    } else {
        engine::CompileOptions compile_options;
        compile_options.print = print;
        const engine::ProgramPtr program = engine::compile(loaded.rule, compile_options);
        const std::size_t outputs = program->outputs().size();
        std::vector<std::vector<float>> results(outputs, std::vector<float>(count));
        std::vector<float*> planes;
        for (auto& result : results)
            planes.push_back(result.data());
        // Every line is a picture of its own place: one column, so that pixel.y counts the lines.
        const engine::Source source{1, static_cast<int>(count),
                                    {colours->planes[0].data(), colours->planes[1].data(), colours->planes[2].data(),
                                     colours->planes[3].data()}};
        engine::run(*program, source, loaded.values, planes);
        for (std::size_t i = 0; i < count; ++i) {
            std::vector<double> values;
            for (std::size_t k = 0; k < (print ? outputs : colours->columns[i]); ++k)
                values.push_back(results[k][i]);
            text += joined(values);
        }
    }
    std::fwrite(text.data(), 1, text.size(), stdout);
    return std::fflush(stdout) == 0 ? Exit::good : Exit::input_output;
}

} // namespace

extern const Command eval_command;
const Command eval_command = {
    "eval", "Read colours as CSV lines r,g,b[,a] on standard input and write what the rule makes of them",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, true);
        app.add_option("--print", options->print, "Write the components of this expression instead of out");
        app.add_flag("--reference", options->reference, "Use the slow double-precision reference instead of the engine");
        app.footer("Numbers are values of the rule's working space and are written with 9 significant digits;\n"
                   "nan, inf and -inf are read and written as such. Lines that begin with # are passed over.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
