#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "engine/lower.hpp"
#include "engine/sources.hpp"
#include "io/picture_file.hpp"
#include "proof/proof.hpp"
#include "readings/view.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <memory>
#include <numeric>

namespace kasuri::cli {
namespace {

struct Options {
    std::string a, b, layer;
    double within = 0;
};

bool is_filter(const std::string& file) { return file.ends_with(document::filter_ending); }

std::string colour(const std::array<float, 4>& c) { return fmt::format("({}, {}, {}, {})", number_text(c[0], 6), number_text(c[1], 6), number_text(c[2], 6), number_text(c[3], 6)); }

int filters(const Options& options) {
    RuleOptions first, second;
    first.filter = options.a;
    second.filter = options.b;
    Loaded a = load(first), b = load(second);
    if (a.exit != Exit::good || b.exit != Exit::good)
        return std::max(a.exit, b.exit);
    lang::ProofLine line;
    line.function = "equals";
    line.file = options.b;
    line.other = std::make_shared<const lang::Rule>(b.rule);
    if (options.within > 0)
        line.limit = options.within;
    const auto outcome = proof::check(a.rule, *engine::compile(a.rule), line, proof::settings_of(a.rule));
    if (outcome->proved)
        fmt::print("the same for all finite colours and all values, proved by algebra; rounding {}\n", number_text(outcome->figure, 3));
    else
        fmt::print("{}: the largest difference is {}, at {}: {} by the first\nsampled on {} colours at {} settings\n", outcome->passed ? "the same as far as was tried" : "different", number_text(outcome->figure, 6),
                   colour(outcome->worst.before), colour(outcome->worst.after), outcome->samples, outcome->settings);
    return outcome->passed ? Exit::good : Exit::rule_failed;
}

/// delta E2000 of every pixel, by the engine: the second picture is a source.
std::optional<image::Picture> differences(const image::Picture& a, const image::Picture& b) {
    lang::CheckOptions with;
    with.print = "delta_e_2000(lab(rgb), lab(second.rgb))";
    const lang::Checked checked = lang::check("source second : vec4", proof::vocabulary(), with);
    engine::CompileOptions options;
    options.print = true;
    options.in_space = a.space;
    options.source_spaces = {b.space};
    const std::shared_ptr<const image::Picture> other[] = {std::make_shared<const image::Picture>(b)};
    return readings::numbers_of(*engine::compile(checked.rule, options), a, {}, engine::bind_sources(checked.rule, other).planes, {});
}

int pictures(const Options& options) {
    const Result<image::Image> first = io::load(options.a), second = io::load(options.b);
    for (const auto* loaded : {&first, &second})
        if (!*loaded)
            return complain(loaded->error());
    const auto a = image::picture_of(first.value(), options.layer), b = image::picture_of(second.value(), options.layer);
    if (!a || !b)
        return complain({options.layer.empty() ? "has no channel to compare" : fmt::format("has no layer {}", options.layer), a ? options.b : options.a, ""});
    if (a->width != b->width || a->height != b->height) {
        fmt::print("different sizes: {} x {} and {} x {}\n", a->width, a->height, b->width, b->height);
        return Exit::rule_failed;
    }
    if (a->space != b->space)
        fmt::print("different spaces: {} and {}; the numbers are compared as they are, delta E as colours\n", a->space, b->space);
    double most = 0, sum = 0;
    std::size_t differ = 0, worst = 0, channel = 0;
    for (std::size_t i = 0; i < a->pixels(); ++i) {
        const auto x = a->at(i), y = b->at(i);
        double here = 0;
        for (std::size_t c = 0; c < 4; ++c) {
            const double p = static_cast<double>(x[c]), q = static_cast<double>(y[c]);
            double by = p == q || (std::isnan(p) && std::isnan(q)) ? 0 : std::fabs(p - q);
            by = std::isnan(by) ? std::numeric_limits<double>::infinity() : by;
            if (by > most) {
                most = by;
                worst = i;
                channel = c;
            }
            here = std::max(here, by);
        }
        sum += std::isfinite(here) ? here : 0;
        differ += here > options.within ? 1 : 0;
    }
    if (most == 0) {
        fmt::print("the same, bit for bit as numbers\n");
        return Exit::good;
    }
    const auto width = static_cast<std::size_t>(a->width);
    fmt::print("{} of {} pixels differ by more than {}\nlargest {} in {} at x {} y {}: {} and {}\nmean of the largest channel {}\n", differ, a->pixels(), number_text(options.within, 6), number_text(most, 6), "rgba"[channel],
               worst % width, worst / width, colour(a->at(worst)), colour(b->at(worst)), number_text(sum / static_cast<double>(a->pixels()), 6));
    if (const auto made = differences(*a, *b)) {
        std::vector<float> values(made->planes[0]->begin(), made->planes[0]->end());
        std::erase_if(values, [](float value) { return !std::isfinite(value); });
        if (!values.empty()) {
            const double mean = std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
            const std::size_t high = std::min(values.size() - 1, values.size() * 999 / 1000);
            std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(high), values.end());
            fmt::print("delta E2000: mean {}, 99.9th percentile {}, largest {}\n", number_text(mean, 4), number_text(values[high], 4), number_text(*std::max_element(values.begin(), values.end()), 4));
        }
    }
    return differ > 0 ? Exit::rule_failed : Exit::good;
}

int run(const Options& options) {
    if (is_filter(options.a) != is_filter(options.b)) {
        fmt::print(stderr, "kasuri-cli diff: compare two filters or two pictures\n");
        return Exit::usage;
    }
    return is_filter(options.a) ? filters(options) : pictures(options);
}

} // namespace

extern const Command diff_command;
const Command diff_command = {
    "diff", "Compare two filters, or two pictures",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        app.add_option("FIRST", options->a, "A filter (.kasuri) or a picture")->required();
        app.add_option("SECOND", options->b, "Another one")->required();
        app.add_option("--within", options->within, "How far numbers may differ and still count as the same (default: pictures 0, filters 1e-5)")->check(CLI::NonNegativeNumber);
        app.add_option("--layer", options->layer, "Of pictures: this layer alone");
        app.footer("Filters are compared at the settings that `check` uses, parameters of one name having one value; where algebra shows that they are the same, that is said.\n"
                   "Exit code 1 if they differ.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
