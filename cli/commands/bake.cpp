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
    std::string out, in_space, out_space;
    int size = 0;
    std::vector<double> domain = {0, 1};
    double within = 0, within_delta_e = 0;
    bool shaper = false, delta_e = false, json = false;
};

void print_error(std::string_view name, const baking::LutError& error, bool delta_e) {
    fmt::print("{}: mean {}, 99.9 % within {}, largest {} at ({}, {}, {})\n", name, number_text(error.mean, 4),
               number_text(error.most, 4), number_text(error.largest, 4), number_text(error.worst[0], 4),
               number_text(error.worst[1], 4), number_text(error.worst[2], 4));
    if (delta_e)
        fmt::print("{}, CIEDE2000: mean {}, 99.9 % within {}, largest {} at ({}, {}, {})\n", name,
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

int tell_json(const Options& options, const baking::Baked& baked, bool delta_e) {
    Json made = {{"file", options.out},
                 {"in-space", baked.in_space},
                 {"out-space", baked.out_space},
                 {"reads-alpha", baked.reads_alpha}};
    if (baked.matrix && !options.out.ends_with(".cube")) {
        made["kind"] = "matrix";
        return print_json(made);
    }
    made["kind"] = baked.curves ? "curves" : "table";
    made["points"] = baked.curves ? baked.curves->points.size() : static_cast<std::size_t>(baked.lut.size);
    made["domain"] = json_numbers(options.domain);
    made["colours"] = baked.samples;
    if (baked.curves)
        made["errors"] = {{"linear", json_of(baked.by_curves, delta_e)}};
    else
        made["errors"] = {{"trilinear", json_of(baked.trilinear, delta_e)},
                          {"tetrahedral", json_of(baked.tetrahedral, delta_e)}};
    return print_json(made);
}

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    const LoadedSubject loaded = load_subject(options.rule, "bake");
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
    const auto made = search ? baking::bake_for(loaded.subject, wanted, wished) : baking::bake(loaded.subject, wanted);
    if (!made) {
        complain(made.error());
        return Exit::rule_failed;
    }
    const baking::Baked& baked = made.value();
    if (baked.not_finite == 0 && !baking::near_enough(baked, wished)) {
        print_error("tetrahedral", baked.tetrahedral, wanted.delta_e);
        fmt::print(stderr,
                   "kasuri-cli bake: no table of up to {} points is within the wished error; nothing was written\n",
                   baked.lut.size);
        return Exit::rule_failed;
    }
    if (const Status written = handover::write_lut(options.out, loaded.subject, baked); !written) {
        const int failed = complain(written.error());
        return baked.not_finite > 0 ? Exit::rule_failed : failed;
    }
    if (options.json)
        return tell_json(options, baked, wanted.delta_e);
    const bool cube = options.out.ends_with(".cube");
    if (baked.matrix && !cube) {
        fmt::print("{}: exactly a matrix, for all numbers\n", options.out);
    } else if (baked.curves) {
        fmt::print("{}: three curves of {} points, {} to {}; error on {} colours\n", options.out,
                   baked.curves->points.size(), number_text(options.domain[0], 9), number_text(options.domain[1], 9),
                   baked.samples);
        print_error("linear", baked.by_curves, wanted.delta_e);
    } else {
        fmt::print("{}: {} points a side, {} to {}; error against the {} on {} colours\n", options.out, baked.lut.size,
                   number_text(options.domain[0], 9), number_text(options.domain[1], 9), loaded.subject.noun(),
                   baked.samples);
        print_error("trilinear", baked.trilinear, wanted.delta_e);
        print_error("tetrahedral", baked.tetrahedral, wanted.delta_e);
    }
    if (baked.reads_alpha)
        fmt::print(stderr, "{}: note: the {} reads alpha; the table holds it for alpha 1\n", options.out,
                   loaded.subject.noun());
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
        arguments.value("--size", options->size, "Points a side (default: 33, or what a wished error needs)")
            .one_of({"9", "17", "33", "65", "129"});
        arguments.value("--domain", options->domain, "Lowest and highest value that come in")
            .expected(2)
            .show_default();
        arguments.flag("--shaper", options->shaper, "Points closer where values are low, for wide domains (.clf)");
        arguments.value("--in-space", options->in_space, "What comes in (default: the working space)");
        arguments.value("--out-space", options->out_space, "What goes out (default: the working space)");
        arguments.flag("--delta-e", options->delta_e, "Measure CIEDE2000 too");
        arguments.value("--within", options->within, "The smallest table whose largest error is no larger than this")
            .positive();
        arguments.value("--within-delta-e", options->within_delta_e, "The same by CIEDE2000").positive();
        define_json(arguments, options->json);
        arguments.footer("A rule that is a matrix or three curves is written as that where the format has it "
                         "(.clf; curves as a 1D .cube). Numbers in and out are values\n"
                         "of the working space unless others are named. What reads coordinates, neighbours "
                         "or further pictures cannot become a LUT: exit code 1.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
