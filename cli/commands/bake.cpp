#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "handover/cube.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string out;
    int size = 33;
    std::vector<double> domain = {0, 1};
};

void print_error(std::string_view name, const handover::LutError& error) {
    fmt::print("{}: mean {}, largest {} at ({}, {}, {})\n", name, number_text(error.mean, 4), number_text(error.largest, 4),
               number_text(error.worst[0], 4), number_text(error.worst[1], 4), number_text(error.worst[2], 4));
}

int run(const Options& options) {
    const Loaded loaded = load(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const auto baked = handover::bake(loaded.rule, loaded.values, {options.size, options.domain[0], options.domain[1]});
    if (!baked) {
        complain(baked.error());
        return Exit::rule_failed;
    }
    if (const Status written = handover::write_cube(options.out, loaded.rule, loaded.values, baked.value()); !written)
        return complain(written.error());
    fmt::print("{}: {} points a side, {} to {}; error against the rule on {} colours\n", options.out, options.size,
               number_text(options.domain[0], 9), number_text(options.domain[1], 9), baked.value().samples);
    print_error("trilinear", baked.value().trilinear);
    print_error("tetrahedral", baked.value().tetrahedral);
    if (baked.value().reads_alpha)
        fmt::print(stderr, "{}: note: the rule reads alpha; the table holds it for alpha 1\n", options.out);
    return Exit::good;
}

} // namespace

extern const Command bake_command;
const Command bake_command = {
    "bake", "Write a filter as a 3D LUT (.cube) and say how far it is from the rule itself",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, false);
        app.add_option("OUT", options->out, "The .cube file to write")->required();
        app.add_option("--size", options->size, "Points a side")->check(CLI::IsMember({17, 33, 65}))->capture_default_str();
        app.add_option("--domain", options->domain, "Lowest and highest value that come in")->expected(2)->capture_default_str();
        app.footer("Numbers in and out are values of the rule's working space. A rule that reads coordinates cannot\n"
                   "become a LUT; that is an error of the rule (exit code 1).");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
