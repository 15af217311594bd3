#include "insight/solve.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/mix_place.hpp"
#include "json.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::vector<std::string> wishes;
    insight::SolveOptions solve;
    bool keep = false, json = false;
    std::string space = "rec709-linear";
};

using T = JsonType;
constexpr JsonField answer[] = {
    {"statement", T::text, "for the rule"},
    {"matrix", T::numbers, "nine numbers, row by row"},
    {"offset", T::numbers, "r, g, b"},
    {"missed", T::numbers, "how far each wish is missed"},
    {"rms", T::number, "root mean square of that"},
    {"largest", T::number, "of all"},
    {"determinant", T::number, "of the matrix"},
};

/// "R,G,B=R,G,B"
std::optional<insight::Wish> wish_of(const std::string& text) {
    insight::Wish wish;
    const std::size_t middle = text.find('=');
    if (middle == std::string::npos)
        return std::nullopt;
    for (auto [part, into] : {std::pair{std::string_view(text).substr(0, middle), &wish.from},
                              std::pair{std::string_view(text).substr(middle + 1), &wish.to}})
        for (std::size_t c = 0; c < 3; ++c) {
            const std::size_t comma = part.find(',');
            const auto number = parse_number(part.substr(0, comma));
            if (!number || (c < 2) != (comma != std::string_view::npos))
                return std::nullopt;
            (*into)[c] = *number;
            part.remove_prefix(comma == std::string_view::npos ? part.size() : comma + 1);
        }
    return wish;
}

int run(const Options& options) {
    std::vector<insight::Wish> wishes;
    for (const std::string& text : options.wishes) {
        const auto wish = wish_of(text);
        if (!wish)
            return refuse(Exit::usage, "{} is not a wish. Write it like 1,0,0=0.8,0.1,0", text);
        wishes.push_back(*wish);
    }
    insight::SolveOptions with = options.solve;
    if (options.keep) {
        const colour::Space* space = colour::find_space(options.space);
        if (!space)
            return refuse(Exit::usage, "there is no space {}", options.space);
        with.keep = colour::luminance_weights(*space);
    }
    const insight::Solved solved = insight::solve(wishes, with);
    std::array<double, 9> numbers{};
    for (std::size_t i = 0; i < 9; ++i)
        numbers[i] = solved.map.matrix[i / 3][i % 3];
    if (options.json)
        return print_json({{"statement", document::mix_statement(numbers, solved.map.offset, "rgb")},
                           {"matrix", json_numbers(numbers)},
                           {"offset", json_numbers(solved.map.offset)},
                           {"missed", json_numbers(solved.residuals)},
                           {"rms", json_number(solved.rms)},
                           {"largest", json_number(solved.largest)},
                           {"determinant", json_number(solved.map.determinant())}});
    fmt::print("{}\n", document::mix_statement(numbers, solved.map.offset, "rgb"));
    for (std::size_t i = 0; i < wishes.size(); ++i)
        fmt::print(stderr, "{}  missed by {:.4g}\n", options.wishes[i], solved.residuals[i]);
    fmt::print(stderr, "root mean square {:.4g}, largest {:.4g}; determinant {:.4g}\n", solved.rms, solved.largest,
               solved.map.determinant());
    return Exit::good;
}

} // namespace

extern const Command solve_command;
const Command solve_command = {
    "solve", "Find the weights that make wished colours of given colours",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("WISH", options->wishes, "R,G,B=R,G,B: this colour shall become that colour")
            .required()
            .completes(Completes::nothing);
        arguments.flag("--rows-sum", options->solve.rows_sum, "Each row of the matrix sums to 1: greys stay grey");
        arguments.flag("--offset", options->solve.offset, "Also a constant for each channel");
        arguments.flag("--keep-luminance", options->keep, "The luminance of every colour stays");
        arguments.value("--space", options->space, "The linear space whose luminance is kept")
            .completes(Completes::space)
            .show_default();
        define_json(arguments, options->json, {answer});
        arguments.footer("Least squares over all wishes; what is demanded holds exactly; what the wishes "
                         "leave open stays as it is. The statement is\n"
                         "written on standard output, how far each wish is missed on standard error.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
