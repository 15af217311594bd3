#include "command.hpp"
#include "common.hpp"
#include "handover/look.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string in, out, layer, in_space, out_space;
    std::vector<std::string> sources;
};

/// NAME=FILE or NAME=FILE:LAYER.
std::optional<handover::SourceFile> source_file(const std::string& text) {
    const std::size_t equals = text.find('=');
    if (equals == std::string::npos || equals == 0)
        return std::nullopt;
    handover::SourceFile made{text.substr(0, equals), text.substr(equals + 1)};
    const std::string file = made.file.string();
    const std::size_t colon = file.rfind(':');
    std::error_code unreadable;
    if (colon != std::string::npos && !std::filesystem::exists(made.file, unreadable)) { // a colon may belong to the name
        made.file = file.substr(0, colon);
        made.layer = file.substr(colon + 1);
    }
    return made;
}

/// What is applied: a filter, or a look.
struct Applied {
    int exit = Exit::good;
    Loaded filter{};
    std::shared_ptr<const handover::RunnableLook> look{};
};

Applied applied(const RuleOptions& options) {
    Applied made;
    if (!options.filter.ends_with(document::look_ending)) {
        made.filter = load(options);
        made.exit = made.filter.exit;
        return made;
    }
    if (!options.settings.empty() || !options.preset.empty()) {
        fmt::print(stderr, "kasuri-cli render: a look has its own values; --set and --preset are for filters\n");
        made.exit = Exit::usage;
        return made;
    }
    const Result<document::Look> look = document::load_look(options.filter);
    if (!look) {
        made.exit = complain(look.error());
        return made;
    }
    const auto runs = handover::runnable(look.value(), std::filesystem::path(options.filter).parent_path());
    if (!runs) {
        fmt::print(stderr, "{}: {}\n", options.filter, runs.error().text());
        made.exit = Exit::rule_failed;
        return made;
    }
    made.look = runs.value();
    return made;
}

int run(const Options& options) {
    const Applied what = applied(options.rule);
    if (what.exit != Exit::good)
        return what.exit;
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    handover::RenderJob job{options.in, options.out, options.layer, {}, options.in_space, options.out_space};
    for (const std::string& text : options.sources) {
        const std::optional<handover::SourceFile> file = source_file(text);
        if (!file) {
            fmt::print(stderr, "kasuri-cli render: --source {}: write NAME=FILE or NAME=FILE:LAYER\n", text);
            return Exit::usage;
        }
        job.sources.push_back(*file);
    }
    const auto report = what.look ? handover::render(*what.look, job) : handover::render(what.filter.rule, what.filter.values, job);
    if (!report)
        return complain(report.error());
    for (const std::string& note : report.value().notes)
        fmt::print(stderr, "{}: note: {}\n", options.in, note);
    if (report.value().clipped > 0 || report.value().not_finite > 0)
        fmt::print(stderr, "{}: note: {} channel values outside 0 .. 1 were clipped, {} were NaN or infinite\n",
                   options.out, report.value().clipped, report.value().not_finite);
    return Exit::good;
}

} // namespace

extern const Command render_command;
const Command render_command = {
    "render", "Apply a filter or a look to a picture (PNG, TIFF, EXR) and write the result",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, false);
        app.add_option("IN", options->in, "The picture to read")->required();
        app.add_option("OUT", options->out, "The picture to write; its ending says what kind")->required();
        app.add_option("--layer", options->layer, "The layer to work on (default: the unnamed one, or the first)");
        app.add_option("--in-space", options->in_space, "What the picture's numbers mean (default: what the file says)");
        app.add_option("--out-space", options->out_space, "The space to write (default: that of IN, or the usual one of OUT's kind)");
        app.add_option("--source", options->sources, "NAME=FILE or NAME=FILE:LAYER of a further picture that the rule reads; may be given several\n"
                       "times. Without it a source is the layer or channel of its name in IN")->take_all();
        app.footer("A picture's space is what its file says, else sRGB for whole numbers and linear BT.709 for floats\n"
                   "(kasuri-cli picture FILE tells). It is converted to the rule's working space and back. A premultiplied picture is divided by its alpha first.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
