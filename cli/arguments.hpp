#pragma once
#include "answer.hpp"

#include <deque>
#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace CLI { // the library that reads the command line; only arguments.cpp knows it, for it takes 20 s to compile
class App;
class Option;
} // namespace CLI

namespace kasuri::cli {

/// What a shell may offer in the place of a value; how each is found is a row in completion.cpp.
enum class Completes {
    nothing,
    file,
    space,
    preset,
    setting,
    source,
    target,
    target_setting,
    reading,
    reading_setting,
    family
};

/// An option as the help shows it.
struct DescribedOption {
    std::string name; ///< as it is written: "-o,--out", or of a positional argument "FILE"
    std::string help;
    bool positional = false, takes_value = true;
    std::vector<std::string> words, letters; ///< its names, without -- and -
    std::vector<std::string> values;         ///< all that may be given, where that is a list
    Completes completes = Completes::nothing;
};

/// One option that has been added: what follows it limits what may be given.
class Argument {
public:
    Argument(CLI::Option* option, DescribedOption& described) : option_(option), described_(&described) {}

    Argument& required();
    Argument& take_all();                    ///< may be given several times; all of them count
    Argument& expected(int least, int most); ///< how many values
    Argument& expected(int count) { return expected(count, count); }
    Argument& show_default(); ///< in the help
    Argument& between(double low, double high);
    Argument& positive();
    Argument& not_negative();
    Argument& one_of(std::vector<std::string> values);
    Argument& completes(Completes what);
    Argument& excludes(Argument other); ///< not both
    Argument& on_each(std::function<void(const std::string&)> told);

private:
    CLI::Option* option_;
    DescribedOption* described_;
};

/// What is known of a command's arguments beside the library that reads them.
struct Described {
    std::deque<DescribedOption> options;
    Answers answers{};
};

/// What a command can be given. The variables are filled when the command line has been read, and must live until then.
class Arguments {
public:
    Arguments(CLI::App& app, Described& described) : app_(app), described_(described) {}

    /// `names`: "-o,--out" for an option, "FILE" for a positional argument.
    Argument value(const std::string& names, std::string& into, const std::string& help);
    Argument value(const std::string& names, double& into, const std::string& help);
    Argument value(const std::string& names, int& into, const std::string& help);
    Argument value(const std::string& names, std::size_t& into, const std::string& help);
    Argument value(const std::string& names, std::vector<std::string>& into, const std::string& help);
    Argument value(const std::string& names, std::vector<double>& into, const std::string& help);
    Argument flag(const std::string& names, bool& into, const std::string& help);
    void footer(const std::string& text);
    void answers(Answers answers); ///< of --json

private:
    Argument described(CLI::Option* option, bool takes_value = true);

    CLI::App& app_;
    Described& described_;
};

/// A command as the help shows it.
struct DescribedCommand {
    std::string name, also, help, footer;
    std::vector<DescribedOption> options;
    Answers answers{};
};
std::vector<DescribedCommand> described_commands();

/// Reads the command line and runs what it asks for; returns the exit code. Errors and help have been written by then.
int run_command_line(int argc, char** argv);

} // namespace kasuri::cli
