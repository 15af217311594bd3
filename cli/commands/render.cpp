#include "command.hpp"
#include "common.hpp"
#include "handover/render.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string in, out, layer;
};

int run(const Options& options) {
    const Loaded loaded = load(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const auto report = handover::render(loaded.rule, loaded.values, options.in, options.out, options.layer);
    if (!report)
        return complain(report.error());
    if (report.value().clipped > 0 || report.value().not_finite > 0)
        fmt::print(stderr, "{}: note: {} channel values outside 0 .. 1 were clipped, {} were NaN or infinite\n",
                   options.out, report.value().clipped, report.value().not_finite);
    return Exit::good;
}

} // namespace

extern const Command render_command;
const Command render_command = {
    "render", "Apply a filter to a picture (PNG, TIFF, EXR) and write the result",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, false);
        app.add_option("IN", options->in, "The picture to read")->required();
        app.add_option("OUT", options->out, "The picture to write; its ending says what kind")->required();
        app.add_option("--layer", options->layer, "The layer to work on (default: the unnamed one, or the first)");
        app.footer("Whole-number pictures are taken as sRGB, float pictures as linear BT.709; they are converted to\n"
                   "the rule's working space and back. A premultiplied picture is divided by its alpha first.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
