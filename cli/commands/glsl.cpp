#include "command.hpp"
#include "handover/shader.hpp"
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
    std::string out, name = "kasuri", in_space, out_space;
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
                   "kasuri-cli glsl: {} is not a name for a function of a shader: letters, digits and single _, "
                   "a letter first\n",
                   options.name);
        return Exit::usage;
    }
    const LoadedSubject loaded =
        load_subject(options.rule, "glsl"); // values that were asked for are the defaults of the uniforms
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const Result<std::string> text =
        handover::shader(loaded.subject, {options.in_space, options.out_space, options.name});
    if (!text) {
        fmt::print(stderr, "kasuri-cli glsl: {}: the {} {}\n",
                   options.rule.filter.empty() ? "rule" : options.rule.filter, loaded.subject.noun(),
                   text.error().text());
        return Exit::rule_failed;
    }
    if (const Status written = write_out(options.out, text.value()); !written)
        return complain(written.error());
    return Exit::good;
}

} // namespace

extern const Command glsl_command;
const Command glsl_command = {
    "glsl", "Write a filter or a look as a function in the OpenGL Shading Language",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, true);
        arguments.value("-o,--out", options->out, "File to write (otherwise standard output)");
        arguments.value("--name", options->name, "Of the function; its uniforms and helpers begin with it")
            .show_default();
        arguments.value("--in-space", options->in_space, "What comes in (default: the rule's working space)");
        arguments.value("--out-space", options->out_space, "What goes out (default: the same)");
        arguments.footer("vec4 NAME(vec4 colour), for GLSL 3.30 and later. Parameters are uniforms "
                         "NAME_parameter, whose defaults --set and --preset choose.\n"
                         "Rules that read the place also take `vec2 pixel`, and further pictures come as "
                         "further arguments.");
        return [options]() -> int {
            if (options->rule.filter.empty() && !options->rule.text_given) {
                fmt::print(stderr, "kasuri-cli glsl: give FILTER or --rule TEXT\n");
                return Exit::usage;
            }
            return run(*options);
        };
    }};

} // namespace kasuri::cli
