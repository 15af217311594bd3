#include "report/report.hpp"

#include "base/file.hpp"
#include "command.hpp"
#include "document/filter_file.hpp"
#include "json.hpp"
#include "subject.hpp"

#include <chrono>
#include <cstdio>
#include <ctime>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

using T = JsonType;
constexpr JsonField answer[] = {
    {"file", T::text, "what was written", "with --out"},
    {"page", T::text, "the page (HTML)", "without --out"},
};

struct Options {
    RuleOptions rule;
    std::string out;
    std::vector<std::string> pictures;
    bool json = false;
};

int run(const Options& options) {
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    report::Order order;
    const std::filesystem::path file = options.rule.filter;
    order.folder = file.parent_path();
    order.sources = loaded.subject.bindings();
    if (!loaded.is_filter) {
        order.look = loaded.look;
    } else {
        document::LookStep step;
        step.filter = file.filename().string();
        step.text = loaded.text;
        const auto parameters = loaded.subject.parameters();
        for (std::size_t i = 0; i < parameters.size(); ++i)
            step.values[parameters[i].name] = loaded.subject.values()[i];
        order.look.steps = {step};
    }
    order.pictures.assign(options.pictures.begin(), options.pictures.end());
    order.made_at = fmt::format("{:%Y-%m-%d %H:%M}", fmt::localtime(std::time(nullptr)));
    const Result<std::string> page = report::html(order);
    if (!page)
        return complain(page.error());
    if (options.json && options.out.empty())
        return print_json({{"page", page.value()}});
    if (const Status written = write_out(options.out, page.value()); !written)
        return complain(written.error());
    if (options.json)
        return print_json({{"file", options.out}});
    if (!options.out.empty() && options.out != standard_stream)
        fmt::print("{}\n", options.out);
    return Exit::good;
}

} // namespace

extern const Command report_command;
const Command report_command = {
    "report", "Write one page (HTML) about a filter or a look, to send along",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, false);
        options->rule.define_sources(arguments);
        arguments.value("-o,--out", options->out, "File to write (otherwise standard output)")
            .completes(Completes::file);
        arguments
            .value("--picture", options->pictures, "A picture to show before and after; may be given several times")
            .completes(Completes::file)
            .take_all();
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "The page holds the rule, its values, what is certain about it, ramps, chart and pictures before "
            "and after, the proofs at these values and the error as a LUT. Everything is in the one file.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
