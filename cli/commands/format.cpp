#include "lang/format.hpp"
#include "base/file.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "json.hpp"
#include "lang/parser.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

using T = JsonType;
constexpr JsonField answer[] = {
    {"files", T::objects, "each that was named"},
    {"files/file", T::text, "its name"},
    {"files/state", T::text, "canonical (it was already), changed, not-canonical (with --check), or failed"},
};

struct Options {
    std::vector<std::string> files;
    bool check = false, json = false;
};

/// `state`: what is told of it.
int one(const std::string& file, bool check, bool words, std::string& state) {
    const Result<std::string> text = read_filter(file);
    if (!text)
        return complain(text.error());
    const std::optional<std::string> canonical = lang::formatted(text.value());
    if (!canonical) {
        std::vector<lang::Diagnostic> faults;
        lang::parse(text.value(), faults);
        say_diagnostics(faults, text.value(), file);
        return refuse(Exit::rule_failed, "{} cannot be read and was left as it is", file);
    }
    state = *canonical == text.value() ? "canonical" : check ? "not-canonical" : "changed";
    if (*canonical == text.value() && (check || file != standard_stream))
        return Exit::good;
    if (check) {
        if (words)
            fmt::print("{}\n", file);
        return Exit::rule_failed;
    }
    const Status saved = write_out(file, *canonical);
    if (!saved) {
        state = "failed";
        return complain(saved.error());
    }
    if (words && file != standard_stream)
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
        define_json(arguments, options->json, {answer});
        arguments.footer("Names of the files that changed are written. Files that cannot be read as rules "
                         "are not touched.");
        return [options]() -> int {
            int worst = Exit::good;
            Json all = Json::array();
            for (const std::string& file : options->files) {
                std::string state = "failed";
                worst = std::max(worst, one(file, options->check, !options->json, state));
                all.push_back({{"file", file}, {"state", state}});
            }
            return options->json ? print_json({{"files", all}}, worst) : worst;
        };
    }};

} // namespace kasuri::cli
