#include "command.hpp"
#include "common.hpp"
#include "engine/lower.hpp"
#include "proof/proof.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
};

int run(const Options& options) {
    const Loaded loaded = load(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    std::vector<std::vector<double>> settings = proof::settings_of(loaded.rule);
    if (!options.rule.settings.empty() || !options.rule.preset.empty())
        settings = {loaded.values};
    const engine::ProgramPtr program = engine::compile(loaded.rule);
    const auto lines = proof::lines_of(loaded.rule);
    if (loaded.rule.proofs.empty())
        fmt::print("The filter has no proof lines; these are the ready-made ones.\n");
    int failed = 0;
    for (const lang::ProofLine& line : lines) {
        const auto outcome = proof::check(loaded.rule, *program, line, settings);
        failed += outcome->passed ? 0 : 1;
        fmt::print("{}\n", proof::report(loaded.rule, *outcome));
    }
    fmt::print("{} of {} proofs fail\n", failed, lines.size());
    return failed > 0 ? Exit::rule_failed : Exit::good;
}

} // namespace

extern const Command check_command;
const Command check_command = {
    "check", "Measure a filter's proofs",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, false);
        app.footer("Without --set and --preset every proof is measured at the defaults, at every preset, and with each\n"
                   "parameter at either end of its range; with them, at those values. Proofs about the defaults\n"
                   "(identity) are always measured at the defaults.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
