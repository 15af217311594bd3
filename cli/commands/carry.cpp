#include "carry/carry.hpp"

#include "base/file_kind.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "json.hpp"

#include <filesystem>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::string file, to, out;
    bool json = false;
};

using T = JsonType;
constexpr JsonField answer[] = {
    {"to", T::text, "the working space that it was carried to"},
    {"largest", T::number, "how far a channel is off, on colours from -1 to 16"},
    {"at", T::numbers, "r, g, b that come in there"},
    {"colours", T::whole, "how many were measured"},
    {"matrix", T::flag, "whether the filter is a matrix there"},
    {"content", T::text, "the filter or the look"},
};

int tell(const Options& options, const std::string& content, double largest, const std::array<double, 3>& at,
         std::size_t colours, bool matrix) {
    if (!options.out.empty() || !options.json)
        if (const Status written = write_out(options.out, content); !written)
            return complain(written.error());
    if (options.json)
        return print_json({{"to", options.to},
                           {"largest", json_number(largest)},
                           {"at", json_numbers(at)},
                           {"colours", colours},
                           {"matrix", matrix},
                           {"content", content}});
    fmt::print(stderr, "{}in {} a channel is off by {} at most, on {} colours from -1 to 16, at ({}, {}, {})\n",
               matrix ? "a matrix; " : "", options.to, number_text(largest, 3), colours, number_text(at[0], 4),
               number_text(at[1], 4), number_text(at[2], 4));
    return Exit::good;
}

int refuse(Error error, const Options& options) {
    if (error.where.empty())
        error.where = options.file;
    complain(error);
    return Exit::rule_failed;
}

int run(const Options& options) {
    if (!known_space(options.to))
        return Exit::usage;
    if (is_kind(options.file, FileKind::look)) {
        const auto look = document::load_look(options.file);
        if (!look)
            return complain(look.error());
        const auto made = carry::carried(look.value(), std::filesystem::path(options.file).parent_path(), options.to);
        if (!made)
            return refuse(made.error(), options);
        return tell(options, document::look_text(made.value().look), made.value().largest, made.value().at,
                    made.value().colours, false);
    }
    const Result<std::string> text = read_filter(options.file);
    if (!text)
        return complain(text.error());
    carry::Options with;
    with.file = name_beside(options.file, options.out);
    with.open = document::used_beside(options.file);
    const auto made = carry::carried(text.value(), options.to, with);
    if (!made)
        return refuse(made.error(), options);
    return tell(options, made.value().text, made.value().largest, made.value().at, made.value().colours,
                made.value().matrix);
}

} // namespace

extern const Command carry_command;
const Command carry_command = {
    "carry", "Rewrite a filter or a look for another working space; pictures stay as they were",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("FILTER", options->file, "A filter (.kasuri) or a look (.kasurilook)").required();
        arguments.value("--to", options->to, "The working space that it is carried to")
            .completes(Completes::space)
            .required();
        arguments.value("-o,--out", options->out, "The file to write; - or nothing is standard output")
            .completes(Completes::file);
        define_json(arguments, options->json, {answer});
        arguments.footer("What was meant in the old numbers is read through to_SPACE and given back through "
                         "from_SPACE; what is a matrix "
                         "stays one. Parameters stay;\nproofs, which speak of the old numbers, go. Steps of a look "
                         "carry their opacity, "
                         "blend mode and mask as statements.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
