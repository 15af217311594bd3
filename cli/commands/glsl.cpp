#include "command.hpp"
#include "handover/shader.hpp"
#include "handover/shader_dialect.hpp"
#include "handover/shader_passes.hpp"
#include "json.hpp"
#include "subject.hpp"

#include "base/file.hpp"

#include <algorithm>
#include <cctype>
#include <cstdio>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

using T = JsonType;
#define KASURI_SOURCE_FIELDS(when)                                                                                     \
    {"name", T::text, "of the function, and the beginning of all other names"},                                        \
        {"file", T::text, "what was written", "with --out"}, {                                                         \
        "text", T::text, "the source", when                                                                            \
    }
constexpr JsonField c_answer[] = {KASURI_SOURCE_FIELDS("without --out")};
constexpr JsonField glsl_answer[] = {
    KASURI_SOURCE_FIELDS("without --out and --passes"),
    {"folder", T::text, "where the passes are, with parts.json", "with --passes"},
    {"passes", T::texts, "their files, in the order in which they are run", "with --passes"},
    {"tables", T::texts, "files of the tables that they read", "with --passes"},
};

struct Options {
    RuleOptions rule;
    std::string out, passes, name = "kasuri", in_space, out_space, dialect = "330";
    bool json = false;
};

int refuse_subject(const Options& options, const subject::Subject& subject, const Error& error) {
    complain({fmt::format("the {} {}", subject.noun(), error.what),
              options.rule.filter.empty() ? "rule" : options.rule.filter, error.remedy});
    return Exit::rule_failed;
}

int write_passes(const Options& options, const subject::Subject& subject) {
    const auto parts =
        handover::shader_parts(subject, {options.in_space, options.out_space, options.name, options.dialect});
    if (!parts)
        return refuse_subject(options, subject, parts.error());
    if (const Status written = handover::write_parts(parts.value(), options.passes); !written)
        return complain(written.error());
    std::vector<std::string> passes, tables;
    for (const handover::ShaderPass& pass : parts.value().passes)
        passes.push_back(pass.file);
    for (const io::ShaderTable& table : parts.value().tables)
        tables.push_back(table.sampler + ".f32");
    if (options.json)
        return print_json({{"name", options.name}, {"folder", options.passes}, {"passes", passes}, {"tables", tables}});
    fmt::print("{}: parts.json, {}{}{}\n", options.passes, fmt::join(passes, ", "), tables.empty() ? "" : ", ",
               fmt::join(tables, ", "));
    return Exit::good;
}

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    const bool good = !options.name.empty() && std::isalpha(static_cast<unsigned char>(options.name[0])) != 0 &&
        !options.name.starts_with("gl_") && options.name.find("__") == std::string::npos &&
        std::all_of(options.name.begin(), options.name.end(),
                    [](unsigned char c) { return std::isalnum(c) != 0 || c == '_'; });
    if (!good)
        return refuse(Exit::usage, "{} is not a name for a function: letters, digits and single _, a letter first",
                      options.name);
    const LoadedSubject loaded =
        load_subject(options.rule); // values that were asked for are the defaults of the uniforms
    if (loaded.exit != Exit::good)
        return loaded.exit;
    if (!options.passes.empty())
        return write_passes(options, loaded.subject);
    const Result<std::string> text =
        handover::shader(loaded.subject, {options.in_space, options.out_space, options.name, options.dialect});
    if (!text)
        return refuse_subject(options, loaded.subject, text.error());
    if (!options.json || !options.out.empty())
        if (const Status written = write_out(options.out, text.value()); !written)
            return complain(written.error());
    if (!options.json)
        return Exit::good;
    Json made = {{"name", options.name}};
    made[options.out.empty() ? "text" : "file"] = options.out.empty() ? text.value() : options.out;
    return print_json(made);
}

std::function<int()> defined(Arguments& arguments, const std::shared_ptr<Options>& options, Answers answers,
                             const std::string& footer) {
    options->rule.define(arguments, true);
    arguments.value("-o,--out", options->out, "File to write (otherwise standard output)").completes(Completes::file);
    arguments.value("--name", options->name, "Of the function; its values and helpers begin with it").show_default();
    arguments.value("--in-space", options->in_space, "What comes in (default: the rule's working space)")
        .completes(Completes::space);
    arguments.value("--out-space", options->out_space, "What goes out (default: the same)").completes(Completes::space);
    define_json(arguments, options->json, answers);
    arguments.footer(footer);
    return [options]() -> int {
        if (options->rule.filter.empty() && !options->rule.text_given)
            return refuse(Exit::usage, "give FILTER or --rule TEXT");
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
        arguments
            .value(
                "--passes", options->passes,
                "A folder: whole shaders that are run one after the other, and parts.json, which tells what each reads "
                "and writes; also for rules that look at neighbours, LUTs and spaces of a colour config")
            .completes(Completes::file);
        return defined(
            arguments, options, {glsl_answer},
            "vec4 NAME(vec4 colour). Parameters are NAME_parameter (a colour is a vec3), whose defaults --set "
            "and --preset choose.\nRules that read the place also take `vec2 pixel`, and further pictures "
            "come as further arguments. Dialects:" +
                words);
    }};
const Command c_command = {
    "c", "Write a filter or a look as a function in C, in double precision",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->dialect = "c";
        return defined(
            arguments, options, {c_answer},
            "static void NAME(const float colour[4], const struct NAME_values *values, float out[4]), for C99 "
            "and C++.\nNAME_usual has the values that --set and --preset choose. Rules that read the place "
            "also take `const float pixel[2]`, and further pictures come as further arguments.");
    }};

} // namespace kasuri::cli
