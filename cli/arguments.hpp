#pragma once
#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace CLI { // the library that reads the command line; only arguments.cpp knows it, for it takes 20 s to compile
class App;
class Option;
} // namespace CLI

namespace kasuri::cli {

/// One option that has been added: what follows it limits what may be given.
class Argument {
public:
    explicit Argument(CLI::Option* option) : option_(option) {}

    Argument& required();
    Argument& take_all();                    ///< may be given several times; all of them count
    Argument& expected(int least, int most); ///< how many values
    Argument& expected(int count) { return expected(count, count); }
    Argument& show_default(); ///< in the help
    Argument& between(double low, double high);
    Argument& positive();
    Argument& not_negative();
    Argument& one_of(std::vector<std::string> values);
    Argument& excludes(Argument other); ///< not both
    Argument& on_each(std::function<void(const std::string&)> told);

private:
    CLI::Option* option_;
};

/// What a command can be given. The variables are filled when the command line has been read, and must live until then.
class Arguments {
public:
    explicit Arguments(CLI::App& app) : app_(app) {}

    /// `names`: "-o,--out" for an option, "FILE" for a positional argument.
    Argument value(const std::string& names, std::string& into, const std::string& help);
    Argument value(const std::string& names, double& into, const std::string& help);
    Argument value(const std::string& names, int& into, const std::string& help);
    Argument value(const std::string& names, std::size_t& into, const std::string& help);
    Argument value(const std::string& names, std::vector<std::string>& into, const std::string& help);
    Argument value(const std::string& names, std::vector<double>& into, const std::string& help);
    Argument flag(const std::string& names, bool& into, const std::string& help);
    void footer(const std::string& text);

private:
    CLI::App& app_;
};

/// A command as the help shows it.
struct DescribedOption {
    std::string name; ///< as it is written: "-o,--out", or of a positional argument "FILE"
    std::string help;
    bool positional = false;
    std::vector<std::string> words; ///< long names, without --
};
struct DescribedCommand {
    std::string name, also, help, footer;
    std::vector<DescribedOption> options;
};
std::vector<DescribedCommand> described_commands();

/// Reads the command line and runs what it asks for; returns the exit code. Errors and help have been written by then.
int run_command_line(int argc, char** argv);

} // namespace kasuri::cli
