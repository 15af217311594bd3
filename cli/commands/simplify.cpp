#include "simplify/simplify.hpp"

#include "base/file_kind.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "json.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::string file, text, out;
    bool text_given = false, check = false, json = false;
};

using T = JsonType;
constexpr JsonField answer[] = {
    {"before", T::whole, "words, numbers and signs as it was"},
    {"after", T::whole, "and as it is now"},
    {"done", T::texts, "what was done, a sentence each; none: nothing was found"},
    {"rule", T::text, "the filter's text", "of a filter"},
    {"look", T::text, "the look's text", "of a look"},
};

int run_look(const Options& options) {
    const Result<document::Look> read = document::load_look(options.file);
    if (!read)
        return complain(read.error());
    const auto made = simplify::simplified(read.value());
    if (!made) {
        complain(made.error());
        return Exit::rule_failed;
    }
    const simplify::ShorterLook& shorter = made.value();
    for (const std::string& wrong : shorter.not_read)
        say_note("", wrong);
    if (options.check) {
        if (options.json)
            return print_json({{"before", shorter.before},
                               {"after", shorter.after},
                               {"done", shorter.done},
                               {"look", document::look_text(shorter.look)}},
                              shorter.done.empty() ? Exit::good : Exit::rule_failed);
        if (!shorter.done.empty())
            fmt::print("{}: {} words could be {}\n", options.file, shorter.before, shorter.after);
        return shorter.done.empty() ? Exit::good : Exit::rule_failed;
    }
    const std::string text = document::look_text(shorter.look);
    if (!options.out.empty() || !options.json)
        if (const Status written = write_out(options.out, text); !written)
            return complain(written.error());
    if (options.json)
        return print_json(
            {{"before", shorter.before}, {"after", shorter.after}, {"done", shorter.done}, {"look", text}});
    for (const std::string& what : shorter.done)
        fmt::print(stderr, "{}\n", what);
    fmt::print(stderr, "{}\n",
               shorter.done.empty() ? "nothing was found that is proved the same and shorter"
                                    : fmt::format("{} words, numbers and signs became {}; proved the same",
                                                  shorter.before, shorter.after));
    return Exit::good;
}

int run(const Options& options) {
    if (is_kind(options.file, FileKind::look))
        return run_look(options);
    if (options.file.empty() == !options.text_given)
        return refuse(Exit::usage, "give a filter, or its text with --rule");
    std::string text = options.text;
    if (!options.text_given) {
        const Result<std::string> read = read_filter(options.file);
        if (!read)
            return complain(read.error());
        text = read.value();
    }
    simplify::Options with;
    with.open = document::used_beside(options.file);
    auto made = simplify::simplified(text, with);
    if (!made) {
        Error error = made.error();
        if (error.where.empty())
            error.where = options.text_given ? "the rule" : options.file;
        complain(error);
        return Exit::rule_failed;
    }
    const simplify::Shorter& shorter = made.value();
    if (options.check) {
        if (options.json)
            return print_json(
                {{"before", shorter.before}, {"after", shorter.after}, {"done", shorter.done}, {"rule", shorter.text}},
                shorter.done.empty() ? Exit::good : Exit::rule_failed);
        if (!shorter.done.empty())
            fmt::print("{}: {} words could be {}\n", options.text_given ? "the rule" : options.file, shorter.before,
                       shorter.after);
        return shorter.done.empty() ? Exit::good : Exit::rule_failed;
    }
    if (!options.out.empty() || !options.json)
        if (const Status written = write_out(options.out, shorter.text + (shorter.text.ends_with('\n') ? "" : "\n"));
            !written)
            return complain(written.error());
    if (options.json)
        return print_json(
            {{"before", shorter.before}, {"after", shorter.after}, {"done", shorter.done}, {"rule", shorter.text}});
    for (const std::string& what : shorter.done)
        fmt::print(stderr, "{}\n", what);
    fmt::print(stderr, "{}\n",
               shorter.done.empty() ? "nothing was found that is proved the same and shorter"
                                    : fmt::format("{} words, numbers and signs became {}; proved the same",
                                                  shorter.before, shorter.after));
    return Exit::good;
}

} // namespace

extern const Command simplify_command;
const Command simplify_command = {
    "simplify", "Write a filter shorter where that is proved to be the same",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value(
            "FILTER", options->file,
            "A filter (.kasuri), or a look (.kasurilook), whose steps are each made shorter; - is standard input");
        arguments.value("--rule", options->text, "The rule itself; statements end at a new line or at ;");
        arguments.value("-o,--out", options->out, "The file to write; - or nothing is standard output")
            .completes(Completes::file);
        arguments.flag("--check", options->check, "Write nothing; exit with 1 if it could be shorter");
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "Lines that do nothing go, lines that are a matrix together become one, a detour through a colour model "
            "too, "
            "if algebra shows that\nnothing changes for any finite colour and any value of any parameter. Parameters, "
            "presets, proofs and comments stay.");
        return [options] {
            options->text_given = !options->text.empty();
            return run(*options);
        };
    }};

} // namespace kasuri::cli
