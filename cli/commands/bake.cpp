#include "base/file.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "handover/cube.hpp"
#include "json.hpp"
#include "subject.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string out, in_space, out_space, ending;
    int size = 0;
    std::vector<double> domain = {0, 1};
    double within = 0, within_delta_e = 0;
    bool shaper = false, delta_e = false, json = false;
};

void print_error(std::string_view name, const baking::LutError& error, bool delta_e, std::FILE* to = stdout) {
    fmt::print(to, "{}: mean {}, 99.9 % within {}, largest {} at ({}, {}, {})\n", name, number_text(error.mean, 4),
               number_text(error.most, 4), number_text(error.largest, 4), number_text(error.worst[0], 4),
               number_text(error.worst[1], 4), number_text(error.worst[2], 4));
    if (delta_e)
        fmt::print(to, "{}, CIEDE2000: mean {}, 99.9 % within {}, largest {} at ({}, {}, {})\n", name,
                   number_text(error.delta_e_mean, 4), number_text(error.delta_e_most, 4),
                   number_text(error.delta_e_largest, 4), number_text(error.delta_e_worst[0], 4),
                   number_text(error.delta_e_worst[1], 4), number_text(error.delta_e_worst[2], 4));
}

Json json_of(const baking::LutError& error, bool delta_e) {
    Json made = {{"mean", json_number(error.mean)},
                 {"within-99.9%", json_number(error.most)},
                 {"largest", json_number(error.largest)},
                 {"at", json_numbers(error.worst)}};
    if (delta_e)
        made["ciede2000"] = {{"mean", json_number(error.delta_e_mean)},
                             {"within-99.9%", json_number(error.delta_e_most)},
                             {"largest", json_number(error.delta_e_largest)},
                             {"at", json_numbers(error.delta_e_worst)}};
    return made;
}

using T = JsonType;
#define KASURI_ERROR_FIELDS(path, doc, when)                                                                           \
    {path, T::object, doc, when}, {path "/mean", T::number, "of the channel that is furthest off"},                    \
        {path "/within-99.9%", T::number, "99.9 % of the colours are no further off"},                                 \
        {path "/largest", T::number, "of all colours"}, {path "/at", T::numbers, "r, g, b that come in there"},        \
        {path "/ciede2000", T::object, "the same by CIEDE2000", "with --delta-e or --within-delta-e"},                 \
        {path "/ciede2000/mean", T::number, "the mean"},                                                               \
        {path "/ciede2000/within-99.9%", T::number, "99.9 % of the colours are no further off"},                       \
        {path "/ciede2000/largest", T::number, "of all colours"}, {                                                    \
        path "/ciede2000/at", T::numbers, "r, g, b that come in there"                                                 \
    }
constexpr JsonField answer[] = {
    {"file", T::text, "what was written"},
    {"in-space", T::text, "the space of what comes in"},
    {"out-space", T::text, "the space of what goes out"},
    {"reads-alpha", T::flag, "whether the rule reads alpha; the table holds it for alpha 1"},
    {"kind", T::text, "matrix, curves or table"},
    {"exact", T::flag, "whether it is the rule for all numbers", "of a matrix"},
    {"points", T::whole, "of a table a side, of curves each", "of curves and tables"},
    {"domain", T::numbers, "lowest and highest value that come in", "of curves and tables"},
    {"colours", T::whole, "how many were measured on the file as it was read back"},
    {"searched", T::whole, "how many more around the worst"},
    {"clipped", T::number, "share of the colours that are cut off at 0 or 1"},
    {"errors", T::object, "how far the file is from the rule, by the way it is read"},
    KASURI_ERROR_FIELDS("errors/matrix", "as a matrix", "of a matrix"),
    KASURI_ERROR_FIELDS("errors/linear", "linearly between points", "of curves"),
    KASURI_ERROR_FIELDS("errors/trilinear", "trilinearly between points", "of a table"),
    KASURI_ERROR_FIELDS("errors/tetrahedral", "tetrahedrally between points", "of a table"),
};

constexpr const char* names[] = {"matrix", "curves", "table"}; ///< of handover::LutHolds

/// Of the file, as it was read back.
int tell_json(const Options& options, const baking::Baked& baked, const handover::LutFile& file, bool delta_e) {
    Json made = {{"file", options.out},
                 {"in-space", baked.in_space},
                 {"out-space", baked.out_space},
                 {"reads-alpha", baked.reads_alpha},
                 {"kind", names[static_cast<std::size_t>(file.holds)]},
                 {"colours", file.samples},
                 {"searched", file.searched},
                 {"clipped", json_number(file.clipped)}};
    if (file.holds == handover::LutHolds::matrix) {
        made["exact"] = file.exact;
        made["errors"] = {{"matrix", json_of(file.tetrahedral, delta_e)}};
        return print_json(made);
    }
    made["points"] = file.points;
    made["domain"] = json_numbers(options.domain);
    if (file.holds == handover::LutHolds::curves)
        made["errors"] = {{"linear", json_of(file.tetrahedral, delta_e)}};
    else
        made["errors"] = {{"trilinear", json_of(file.trilinear, delta_e)},
                          {"tetrahedral", json_of(file.tetrahedral, delta_e)}};
    return print_json(made);
}

void tell(const Options& options, const handover::LutFile& file, std::string_view noun, bool delta_e) {
    const std::string measured = fmt::format("error against the {} on {} colours, read back, and {} around the worst",
                                             noun, file.samples, file.searched);
    if (file.holds == handover::LutHolds::matrix && file.exact) {
        fmt::print("{}: exactly a matrix, for all numbers\n", options.out);
    } else if (file.holds == handover::LutHolds::matrix) {
        fmt::print("{}: a matrix; {}\n", options.out, measured);
        print_error("matrix", file.tetrahedral, delta_e);
    } else if (file.holds == handover::LutHolds::curves) {
        fmt::print("{}: three curves of {} points, {} to {}; {}\n", options.out, file.points, number_text(file.low, 9),
                   number_text(file.high, 9), measured);
        print_error("linear", file.tetrahedral, delta_e);
    } else {
        fmt::print("{}: {} points a side, {} to {}; {}\n", options.out, file.points, number_text(file.low, 9),
                   number_text(file.high, 9), measured);
        print_error("trilinear", file.trilinear, delta_e);
        print_error("tetrahedral", file.tetrahedral, delta_e);
    }
}

void tell_clipped(std::FILE* to, const std::string& out, const handover::LutFile& file) {
    if (file.clipped > 0)
        fmt::print(
            to,
            "{}: {} % of the colours are cut off at 0 or 1, where the rule goes on; .cube, .clf and .ctf hold them\n",
            out, number_text(100 * file.clipped, 2));
}

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    const bool piped = options.out == standard_stream;
    const std::string ending = options.ending.empty() ? lower_ending(options.out) : dotted(options.ending);
    if (piped && options.json)
        return refuse(Exit::usage, "standard output holds the LUT or the JSON, not both");
    if (!handover::is_lut_ending(ending)) {
        return refuse(Exit::usage, "{} is no kind of LUT that can be written; endings: {}", options.out,
                      fmt::join(handover::lut_endings(), " "));
    }
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    baking::BakeOptions wanted{
        options.size == 0 ? 33 : options.size,         options.domain[0], options.domain[1], options.shaper,
        options.delta_e || options.within_delta_e > 0, options.in_space,  options.out_space};
    baking::Wished wished;
    if (options.within > 0)
        wished.difference = options.within;
    if (options.within_delta_e > 0)
        wished.delta_e = options.within_delta_e;
    const bool search = options.size == 0 && (wished.difference || wished.delta_e);
    // Whether it can become a LUT at all, and what stands in it of alpha, is of no size.
    const auto baked = baking::bake(loaded.subject, wanted);
    if (!baked) {
        complain(baked.error());
        return Exit::rule_failed;
    }
    auto file = search ? handover::lut_file_for(ending, loaded.subject, wanted, wished)
                       : handover::lut_file(ending, loaded.subject, baked.value(), wanted.delta_e);
    if (!file) {
        const int failed = complain({file.error().what, options.out, file.error().remedy});
        return baked.value().not_finite > 0 ? Exit::rule_failed : failed;
    }
    const handover::LutFile& made = file.value();
    if (!handover::near_enough(made, wished)) {
        print_error("tetrahedral", made.tetrahedral, wanted.delta_e, options.json ? stderr : stdout);
        tell_clipped(stderr, options.out, made);
        return refuse(Exit::rule_failed, "{} is within the wished error; nothing was written",
                      search ? fmt::format("no table of up to {} points", made.points)
                             : std::string("no table of so many points"));
    }
    if (piped) {
        if (const Status written = write_out(options.out, made.text); !written)
            return complain(written.error());
        print_error("tetrahedral", made.tetrahedral, wanted.delta_e, stderr);
        tell_clipped(stderr, "standard output", made);
        return Exit::good;
    }
    if (const Status written = write_file(options.out, made.text); !written)
        return complain(written.error());
    if (baked.value().reads_alpha)
        say_note(options.out, fmt::format("the {} reads alpha; the table holds it for alpha 1", loaded.subject.noun()));
    if (options.json)
        return tell_json(options, baked.value(), made, wanted.delta_e);
    tell(options, made, loaded.subject.noun(), wanted.delta_e);
    tell_clipped(stdout, options.out, made);
    return Exit::good;
}

} // namespace

extern const Command bake_command;
const Command bake_command = {
    "bake", "Write a filter or a look as a LUT and say how far it is from the rule itself",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, false);
        arguments
            .value("OUT", options->out,
                   fmt::format("The file to write, by its ending: {}", fmt::join(handover::lut_endings(), " ")))
            .required();
        arguments.value("--ending", options->ending, "The kind, where OUT is - for standard output: .cube, .clf ...");
        arguments.value("--size", options->size, "Points a side (default: 33, or what a wished error needs)")
            .one_of({"9", "17", "33", "65", "129"});
        arguments.value("--domain", options->domain, "Lowest and highest value that come in")
            .expected(2)
            .show_default();
        arguments.flag("--shaper", options->shaper, "Points closer where values are low, for wide domains (.clf)");
        arguments.value("--in-space", options->in_space, "What comes in (default: the working space)")
            .completes(Completes::space);
        arguments.value("--out-space", options->out_space, "What goes out (default: the working space)")
            .completes(Completes::space);
        arguments.flag("--delta-e", options->delta_e, "Measure CIEDE2000 too");
        arguments.value("--within", options->within, "The smallest table whose largest error is no larger than this")
            .positive();
        arguments.value("--within-delta-e", options->within_delta_e, "The same by CIEDE2000").positive();
        define_json(arguments, options->json, {answer});
        arguments.footer("A rule that is a matrix or three curves is written as that where the format has it "
                         "(.clf and .ctf; curves as a 1D .cube). Numbers in and out are values\n"
                         "of the working space unless others are named. What reads coordinates, neighbours "
                         "or further pictures cannot become a LUT: exit code 1.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
