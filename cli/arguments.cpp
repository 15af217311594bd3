#include "arguments.hpp"

#include "command.hpp"
#include "common.hpp"
#include "io/print.hpp"
#include "json.hpp"

#include <CLI/CLI.hpp>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <cstring>
#include <deque>
#include <exception>
#include <new>
#include <system_error>

namespace kasuri::cli {
namespace {

/// Every command on an app of its own; keeps what the options are bound to.
struct Table {
    struct Entry {
        const Command* command;
        CLI::App* app;
        Described described{};
        std::function<int()> run{};
    };
    std::deque<Entry> entries; // their options point into them

    explicit Table(CLI::App& app) {
        for (const Command* command : commands()) {
            CLI::App* sub = app.add_subcommand(std::string(command->name), std::string(command->help));
            if (!command->also.empty())
                sub->alias(std::string(command->also));
            Entry& entry = entries.emplace_back(Entry{command, sub});
            Arguments arguments(*sub, entry.described);
            entry.run = command->define(arguments);
        }
    }
};

} // namespace

Argument& Argument::required() {
    option_->required();
    return *this;
}

Argument& Argument::take_all() {
    option_->take_all();
    option_->allow_extra_args(false); // one behind each --name: what comes then is another argument
    return *this;
}

Argument& Argument::expected(int least, int most) {
    if (least == most)
        option_->expected(least);
    else
        option_->expected(least, most);
    return *this;
}

Argument& Argument::show_default() {
    option_->capture_default_str();
    return *this;
}

Argument& Argument::between(double low, double high) {
    option_->check(CLI::Range(low, high));
    return *this;
}

Argument& Argument::positive() {
    option_->check(CLI::PositiveNumber);
    return *this;
}

Argument& Argument::not_negative() {
    option_->check(CLI::NonNegativeNumber);
    return *this;
}

Argument& Argument::one_of(std::vector<std::string> values) {
    option_->check(CLI::IsMember(values));
    described_->values = std::move(values);
    return *this;
}

Argument& Argument::completes(Completes what) {
    described_->completes = what;
    return *this;
}

Argument& Argument::excludes(Argument other) {
    option_->excludes(other.option_);
    return *this;
}

Argument& Argument::on_each(std::function<void(const std::string&)> told) {
    option_->each(std::move(told));
    return *this;
}

Argument Arguments::described(CLI::Option* option, bool takes_value) {
    DescribedOption& made = described_.options.emplace_back();
    made.positional = option->get_positional();
    made.name = option->get_name(made.positional, true);
    made.help = option->get_description();
    made.words = option->get_lnames();
    for (const std::string& letter : option->get_snames())
        made.letters.push_back(letter);
    made.takes_value = takes_value;
    made.completes = made.positional ? Completes::file : Completes::nothing;
    return Argument(option, made);
}

Argument Arguments::value(const std::string& names, std::string& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::value(const std::string& names, double& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::value(const std::string& names, int& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::value(const std::string& names, std::size_t& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::value(const std::string& names, std::vector<std::string>& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::value(const std::string& names, std::vector<double>& into, const std::string& help) {
    return described(app_.add_option(names, into, help));
}
Argument Arguments::flag(const std::string& names, bool& into, const std::string& help) {
    return described(app_.add_flag(names, into, help), false);
}
void Arguments::answers(Answers answers) { described_.answers = answers; }
void Arguments::footer(const std::string& text) { app_.footer(text); }

std::vector<DescribedCommand> described_commands() {
    CLI::App app{"", "kasuri-cli"};
    const Table table(app);
    std::vector<DescribedCommand> all;
    for (const Table::Entry& entry : table.entries)
        all.push_back({entry.app->get_name(),
                       std::string(entry.command->also),
                       entry.app->get_description(),
                       entry.app->get_footer(),
                       {entry.described.options.begin(), entry.described.options.end()},
                       entry.described.answers});
    return all;
}

namespace {

/// What was written is there only when the last of it has gone out: a full disk, a closed pipe.
int with_output_checked(int exit) {
    if (std::fflush(stdout) == 0 && std::ferror(stdout) == 0)
        return exit;
    std::fprintf(stderr, "kasuri-cli: cannot write all of the output: %s\n", std::strerror(errno));
    return Exit::input_output;
}

bool given(const CLI::App& app, const std::string& option) {
    const CLI::Option* const found = app.get_option_no_throw(option);
    return found && found->count() > 0;
}

/// The exit code of what is run, or of what it threw.
int run_guarded(const std::function<int()>& command) {
    try {
        return command();
    } catch (const std::bad_alloc&) {
        return refuse(Exit::input_output, "out of memory");
    } catch (const std::system_error& failure) { // by whoever prints: the output could not be written
        if (std::ferror(stdout) == 0)
            return refuse(Exit::input_output, "gave up: {}", failure.what());
        errno = failure.code().value();
        return Exit::good; // said by `with_output_checked`
    } catch (const std::exception& failure) {
        return refuse(Exit::input_output, "gave up: {}", failure.what());
    }
}

int run_commands(int argc, char** argv) {
    CLI::App app{"Kasuri on the command line: evaluates, applies, bakes and proves per-pixel colour rules.",
                 "kasuri-cli"};
    app.set_version_flag("--version", KASURI_VERSION);
    app.footer(
        "Exit codes: 0 good, 1 the rule or a proof failed, 2 usage, 3 input or output, 4 could not be measured.\n"
        "The language is described in docs/language.md.");
    app.require_subcommand(1);
    std::string config;
    app.add_option(
        "--config", config,
        "An OpenColorIO config whose spaces can be used beside the built-in ones (default: what $OCIO names)");
    std::vector<std::string> context, prints;
    app.add_option("--context", context,
                   "NAME=VALUE of a variable of the colour config, such as SHOT (default: that of the environment)")
        ->expected(1)
        ->take_all();
    app.add_option("--print", prints,
                   "The ICC profile of a press: 'NAME printed', 'NAME printed, perceptual' and 'NAME on its paper' are "
                   "spaces to write then")
        ->expected(1)
        ->take_all();
    const Table table(app);
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& failure) {
        const bool json =
            std::any_of(argv + 1, argv + argc, [](const char* word) { return std::string_view(word) == "--json"; });
        if (!json || failure.get_exit_code() == 0) // help is no failure
            return app.exit(failure) == 0 ? Exit::good : Exit::usage;
        const auto begun = app.get_subcommands();
        begin_messages(begun.empty() ? "" : begun.front()->get_name(), true);
        return finish_json(refuse(Exit::usage, "{}. --help tells what there is", failure.what()));
    }
    const Table::Entry& entry = *std::find_if(table.entries.begin(), table.entries.end(),
                                              [](const Table::Entry& each) { return each.app->parsed(); });
    begin_messages(entry.app->get_name(), given(*entry.app, "--json"));
    const int exit = run_guarded([&]() -> int {
        if (const int failed = use_config(config, context); failed != Exit::good)
            return failed;
        for (const std::string& profile : prints)
            if (const auto added = io::add_prints(profile); !added)
                return complain(added.error());
        if (answers_in_json() && given(*entry.app, "--out") && entry.app->get_option("--out")->as<std::string>() == "-")
            return refuse(Exit::usage, "standard output holds the file or the JSON, not both");
        return entry.run();
    });
    return answers_in_json() ? finish_json(exit) : exit;
}

} // namespace

int run_command_line(int argc, char** argv) { return with_output_checked(run_commands(argc, argv)); }

} // namespace kasuri::cli
