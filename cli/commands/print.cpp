#include "io/print.hpp"
#include "base/parallel.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "command.hpp"
#include "common.hpp"
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "json.hpp"
#include "streams.hpp"
#include "subject.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <memory>
#include <mutex>

namespace kasuri::cli {
namespace {

struct Options {
    std::string profile;
    RuleOptions rule;
    std::vector<std::string> pictures;
    double most = -1;
    bool json = false;
};

struct Found {
    std::size_t pixels = 0, outside = 0;
    double largest = 0, sum = 0, ink = 0;
    std::array<double, 3> at{};
    void add(const Found& other) {
        pixels += other.pixels;
        outside += other.outside;
        sum += other.sum;
        ink = std::max(ink, other.ink);
        if (other.largest > largest) {
            largest = other.largest;
            at = other.at;
        }
    }
};

Found measured(const io::Press& press, const image::Picture& picture) {
    const colour::Space &from = *colour::find_space(picture.space),
                        &standard = *colour::find_space(colour::default_space);
    Found all;
    std::mutex mutex;
    parallel_ranges(picture.pixels(), 4096, {}, [&](std::size_t first, std::size_t last) {
        Found here;
        for (std::size_t i = first; i < last; ++i) {
            const auto c = picture.at(i);
            const colour::Triple numbers{static_cast<double>(c[0]), static_cast<double>(c[1]),
                                         static_cast<double>(c[2])};
            const colour::Triple light = colour::converted(numbers, from, standard);
            const double off = press.beyond(light);
            ++here.pixels;
            if (!(off <= colour::outside_print)) // NaN too
                ++here.outside;
            if (std::isnan(off))
                continue;
            here.sum += off;
            double ink = 0;
            for (const double each : press.inks(light))
                ink += each;
            here.ink = std::max(here.ink, ink);
            if (off > here.largest) {
                here.largest = off;
                here.at = numbers;
            }
        }
        const std::lock_guard lock(mutex);
        all.add(here);
    });
    return all;
}

using T = JsonType;
constexpr JsonField answer[] = {
    {"pictures", T::objects, "each that was named"},
    {"pictures/picture", T::text, "its name"},
    {"pictures/outside", T::number, "share of its pixels that the press cannot hold"},
    {"pictures/largest", T::number, "CIEDE2000 between what is meant and what is printed, at most"},
    {"pictures/mean", T::number, "the same on average"},
    {"pictures/at", T::numbers, "r, g, b of the largest"},
    {"pictures/space", T::text, "what they mean"},
    {"pictures/ink", T::number, "of a pixel at most: 3 is 300 %", "of a press with inks"},
    {"pictures/holds", T::flag, "whether no more is outside than was allowed", "with --outside"},
};

int run(const Options& options) {
    const auto press = io::Press::open(options.profile);
    if (!press)
        return complain(press.error());
    const LoadedSubject what = load_subject(options.rule);
    if (what.exit != Exit::good)
        return what.exit;
    std::vector<std::string> files = options.pictures;
    if (const Status there = take_standard_input(files); !there)
        return complain(there.error());
    const bool inked = press.value()->space() != "RGB " && press.value()->space() != "GRAY";
    int exit = Exit::good;
    Json all = Json::array();
    for (const std::string& file : files) {
        const Result<image::Image> image = handover::source_image(file);
        if (!image)
            return complain(image.error());
        auto picture = image::picture_of(image.value(), image::usual_layer(image.value()));
        if (!picture)
            return complain({"has no channel to work on", file, ""});
        if (picture->space.empty()) // a target's numbers are the rule's
            picture->space = what.subject.space();
        if (const auto missing = subject::without_picture(what.subject, &image.value()); !missing.empty())
            return say_not_measured(file, missing);
        const auto made = handover::applied(what.subject, *picture, &image.value());
        const Found found = measured(*press.value(), *made);
        const double share =
            static_cast<double>(found.outside) / static_cast<double>(std::max<std::size_t>(found.pixels, 1));
        const double mean = found.sum / static_cast<double>(std::max<std::size_t>(found.pixels, 1));
        const bool fails = options.most >= 0 && 100 * share > options.most;
        if (fails)
            exit = Exit::rule_failed;
        if (options.json) {
            Json line = {{"picture", told(file)},
                         {"outside", share},
                         {"largest", json_number(found.largest)},
                         {"mean", json_number(mean)},
                         {"at", json_numbers(found.at)},
                         {"space", made->space}};
            if (inked)
                line["ink"] = json_number(found.ink);
            if (options.most >= 0)
                line["holds"] = !fails;
            all.push_back(line);
            continue;
        }
        fmt::print("{}: {:.2f} % outside of {}; CIEDE2000 {} at most, at ({}, {}, {}) of {}, {} on average{}{}\n", file,
                   100 * share, press.value()->name(), number_text(found.largest, 3), number_text(found.at[0], 4),
                   number_text(found.at[1], 4), number_text(found.at[2], 4), made->space, number_text(mean, 3),
                   inked ? fmt::format("; {:.0f} % of ink at most", 100 * found.ink) : std::string(),
                   options.most < 0 ? ""
                       : fails      ? "; FAILS"
                                    : "; holds");
    }
    return options.json ? print_json({{"pictures", all}}, exit) : exit;
}

} // namespace

extern const Command print_command;
const Command print_command = {
    "print", "Measure what a press or printer, by its ICC profile, can hold of what a filter or look makes of pictures",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("PROFILE", options->profile, "The ICC profile of a press or printer (.icc, .icm)").required();
        options->rule.define(arguments, false);
        arguments.value("PICTURE...", options->pictures, "Pictures, frames of movies, or target:NAME").required();
        arguments.value("--outside", options->most,
                        "The most per cent of pixels that may be outside; else the exit code is 1");
        define_json(arguments, options->json, {answer});
        options->rule.define_sources(arguments);
        arguments.footer(
            "A colour is outside when what is printed for it is more than CIEDE2000 2 from it, relative "
            "colorimetric.\nTo see it: kasuri-cli --print PROFILE.icc render FILTER IN OUT.png --out-space "
            "'PROFILE printed'\n('PROFILE printed, perceptual', 'PROFILE on its paper'); in the window the "
            "menu of the display has them.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
