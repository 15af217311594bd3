#include "lang/format.hpp"
#include "base/file.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "lang/parser.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::vector<std::string> files;
    bool check = false;
};

int one(const std::string& file, bool check) {
    const Result<std::string> text = read_filter(file);
    if (!text)
        return complain(text.error());
    const std::optional<std::string> canonical = lang::formatted(text.value());
    if (!canonical) {
        std::vector<lang::Diagnostic> faults;
        lang::parse(text.value(), faults);
        for (const lang::Diagnostic& d : faults)
            fmt::print(stderr, "{}\n", lang::rendered(d, text.value(), file));
        fmt::print(stderr, "kasuri-cli format: {} cannot be read and was left as it is\n", file);
        return Exit::rule_failed;
    }
    if (*canonical == text.value() && (check || file != standard_stream))
        return Exit::good;
    if (check) {
        fmt::print("{}\n", file);
        return Exit::rule_failed;
    }
    const Status saved = write_out(file, *canonical);
    if (!saved)
        return complain(saved.error());
    if (file != standard_stream)
        fmt::print("{}\n", file);
    return Exit::good;
}

} // namespace

extern const Command format_command;
const Command format_command = {
    "format", "Bring filters into their canonical form; comments stay",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("FILTER", options->files, "Filter files (.kasuri)").required();
        arguments.flag("--check", options->check,
                       "Change nothing; name the files that would change and exit with 1 if there are any");
        arguments.footer("Names of the files that changed are written. Files that cannot be read as rules "
                         "are not touched.");
        return [options]() -> int {
            int worst = Exit::good;
            for (const std::string& file : options->files)
                worst = std::max(worst, one(file, options->check));
            return worst;
        };
    }};

} // namespace kasuri::cli
