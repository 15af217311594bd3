#include "command.hpp"
#include "common.hpp"

#include <cstdio>
#include <exception>
#include <vector>

namespace kasuri::cli {

extern const Command eval_command, render_command, bake_command, check_command, explain_command, diff_command,
    glsl_command, cdl_command, report_command, format_command, picture_command, target_command, measure_command,
    solve_command, docs_command, demo_command;

namespace {
const Command* const table[] = {
    &eval_command,    &render_command, &bake_command,   &check_command,  &explain_command, &diff_command,
    &glsl_command,    &cdl_command,    &report_command, &format_command, &picture_command, &target_command,
    &measure_command, &solve_command,  &docs_command,   &demo_command,
};
} // namespace

std::span<const Command* const> commands() { return table; }

} // namespace kasuri::cli

int main(int argc, char** argv) {
    using namespace kasuri::cli;
    CLI::App app{"Kasuri on the command line: evaluates, applies, bakes and proves per-pixel colour rules.",
                 "kasuri-cli"};
    app.set_version_flag("--version", KASURI_VERSION);
    app.footer("Exit codes: 0 good, 1 the rule or a proof failed, 2 usage, 3 input or output.\n"
               "The language is described in docs/language.md.");
    app.require_subcommand(1);
    std::string config;
    app.add_option(
        "--config", config,
        "An OpenColorIO config whose spaces can be used beside the built-in ones (default: what $OCIO names)");
    struct Defined {
        CLI::App* app;
        std::function<int()> run;
    };
    std::vector<Defined> defined;
    for (const Command* command : commands()) {
        CLI::App* sub = app.add_subcommand(std::string(command->name), std::string(command->help));
        defined.push_back({sub, command->define(*sub)});
        if (!command->also.empty())
            sub->alias(std::string(command->also));
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& failure) {
        return app.exit(failure) == 0 ? Exit::good : Exit::usage;
    }
    try {
        if (const int exit = use_config(config); exit != Exit::good)
            return exit;
        for (const Defined& command : defined)
            if (command.app->parsed())
                return command.run();
    } catch (const std::exception& failure) { // out of memory, mostly
        std::fprintf(stderr, "kasuri-cli: gave up: %s\n", failure.what());
        return Exit::input_output;
    }
    return Exit::usage;
}
