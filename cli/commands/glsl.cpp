#include "command.hpp"
#include "handover/shader.hpp"
#include "handover/shader_dialect.hpp"
#include "subject.hpp"

#include "base/file.hpp"

#include <algorithm>
#include <cctype>
#include <cstdio>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string out, name = "kasuri", in_space, out_space, dialect = "330";
    const char* command = "glsl";
};

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    const bool good = !options.name.empty() && std::isalpha(static_cast<unsigned char>(options.name[0])) != 0 &&
        !options.name.starts_with("gl_") && options.name.find("__") == std::string::npos &&
        std::all_of(options.name.begin(), options.name.end(),
                    [](unsigned char c) { return std::isalnum(c) != 0 || c == '_'; });
    if (!good) {
        fmt::print(stderr,
                   "kasuri-cli {}: {} is not a name for a function: letters, digits and single _, a letter first\n",
                   options.command, options.name);
        return Exit::usage;
    }
    const LoadedSubject loaded =
        load_subject(options.rule, options.command); // values that were asked for are the defaults of the uniforms
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const Result<std::string> text =
        handover::shader(loaded.subject, {options.in_space, options.out_space, options.name, options.dialect});
    if (!text) {
        fmt::print(stderr, "kasuri-cli {}: {}: the {} {}\n", options.command,
                   options.rule.filter.empty() ? "rule" : options.rule.filter, loaded.subject.noun(),
                   text.error().text());
        return Exit::rule_failed;
    }
    if (const Status written = write_out(options.out, text.value()); !written)
        return complain(written.error());
    return Exit::good;
}

std::function<int()> defined(Arguments& arguments, const std::shared_ptr<Options>& options, const std::string& footer) {
    options->rule.define(arguments, true);
    arguments.value("-o,--out", options->out, "File to write (otherwise standard output)");
    arguments.value("--name", options->name, "Of the function; its values and helpers begin with it").show_default();
    arguments.value("--in-space", options->in_space, "What comes in (default: the rule's working space)");
    arguments.value("--out-space", options->out_space, "What goes out (default: the same)");
    arguments.footer(footer);
    return [options]() -> int {
        if (options->rule.filter.empty() && !options->rule.text_given) {
            fmt::print(stderr, "kasuri-cli {}: give FILTER or --rule TEXT\n", options->command);
            return Exit::usage;
        }
        return run(*options);
    };
}

} // namespace

extern const Command glsl_command, c_command;
const Command glsl_command = {
    "glsl", "Write a filter or a look as a function in the OpenGL Shading Language",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        std::vector<std::string> names;
        std::string words;
        for (const handover::Dialect& each : handover::dialects())
            if (each.values != handover::Values::argument) {
                names.emplace_back(each.name);
                words += fmt::format("\n  {:10} {}", each.name, each.doc);
            }
        arguments.value("--dialect", options->dialect, "Which GLSL: see below").one_of(names).show_default();
        return defined(
            arguments, options,
            "vec4 NAME(vec4 colour). Parameters are NAME_parameter (a colour is a vec3), whose defaults --set "
            "and --preset choose.\nRules that read the place also take `vec2 pixel`, and further pictures "
            "come as further arguments. Dialects:" +
                words);
    }};
const Command c_command = {
    "c", "Write a filter or a look as a function in C, in double precision",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->dialect = options->command = "c";
        return defined(
            arguments, options,
            "static void NAME(const float colour[4], const struct NAME_values *values, float out[4]), for C99 "
            "and C++.\nNAME_usual has the values that --set and --preset choose. Rules that read the place "
            "also take `const float pixel[2]`, and further pictures come as further arguments.");
    }};

} // namespace kasuri::cli
