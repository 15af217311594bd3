#include "baking/compare.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "json.hpp"
#include "proof/proof.hpp"
#include "readings/apart.hpp"
#include "streams.hpp"
#include "subject.hpp"

#include "base/file_kind.hpp"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::string a, b, layer;
    RuleOptions sources; ///< of both
    double within = -1;  ///< below 0: what is usual; 0 is a limit
    double relative = 0;
    std::vector<double> domain = {0, 1};
    bool json = false;
};

using T = JsonType;
constexpr const char *of_filters = "of two filters", *of_subjects = "of looks and LUTs", *of_pictures = "of pictures",
                     *where_apart = "of pictures that differ";
constexpr JsonField answer[] = {
    {"same", T::flag, "whether they are, within what was allowed"},
    {"largest", T::number, "the largest difference of a channel", "unless pictures are of two sizes"},
    {"at", T::numbers, "what comes in there: r, g, b and of filters a; of pictures x, y", "where something differs"},
    {"colours", T::whole, "how many were compared", "of filters, looks and LUTs"},
    {"without-picture", T::texts, "further pictures that were not given, and taken to be many things",
     "of filters, looks and LUTs"},
    {"proved", T::flag, "whether algebra shows that they are the same for all colours and values", of_filters},
    {"first-gives", T::numbers, "r, g, b, a that the first makes of `at`", of_filters},
    {"settings", T::whole, "of their parameters, that were tried", of_filters},
    {"within", T::number, "difference that was allowed", "of pictures, looks and LUTs"},
    {"relative", T::number, "the same as a share of the larger number", "of pictures, looks and LUTs"},
    {"differ", T::whole, "pixels or colours that differ by more", "of pictures, looks and LUTs"},
    {"mean", T::number, "the mean difference", "of looks and LUTs, and of pictures that differ"},
    {"ciede2000", T::object, "differences as CIEDE2000", "where both are of known spaces"},
    {"ciede2000/mean", T::number, "the mean"},
    {"ciede2000/within-99.9%", T::number, "99.9 % are no further apart"},
    {"ciede2000/largest", T::number, "of all"},
    {"ciede2000/at", T::numbers, "r, g, b that come in there", of_subjects},
    {"space", T::text, "in which they were compared", of_subjects},
    {"within-99.9%", T::number, "99.9 % are no further apart", of_subjects},
    {"not-finite", T::whole, "colours of which one alone makes NaN or infinity", of_subjects},
    {"pixels", T::whole, "how many there are", of_pictures},
    {"spaces", T::texts, "of the first and the second", "of pictures of two spaces"},
    {"channel", T::text, "that differs most", where_apart},
    {"first", T::numbers, "r, g, b, a of the first there", where_apart},
    {"second", T::numbers, "r, g, b, a of the second there", where_apart},
    {"first-size", T::numbers, "width and height", "of pictures of two sizes"},
    {"second-size", T::numbers, "width and height", "of pictures of two sizes"},
};

/// "1e-05", "0.001 and 0.02 of the value".
std::string within_words(const baking::Within& within) {
    const std::string absolute = number_text(within.absolute, 6);
    return within.relative > 0 ? fmt::format("{} and {} of the value", absolute, number_text(within.relative, 6))
                               : absolute;
}

bool is_filter(const std::string& file) { return is_kind(file, FileKind::filter); }

std::string colour(const std::array<float, 4>& c) {
    return fmt::format("({}, {}, {}, {})", number_text(c[0], 6), number_text(c[1], 6), number_text(c[2], 6),
                       number_text(c[3], 6));
}

std::string without_picture(const std::vector<std::string>& names) {
    return names.empty()
        ? std::string()
        : fmt::format("; no picture for {}: taken to be {} things", fmt::join(names, ", "), subject::source_variations);
}

/// Further pictures of either.
bool bind(const Options& options, LoadedSubject& a, LoadedSubject& b) {
    for (const std::string& text : options.sources.sources) {
        bool used = false;
        for (LoadedSubject* each : {&a, &b}) {
            const auto& sources = each->subject.sources();
            if (std::none_of(sources.begin(), sources.end(),
                             [&](const auto& source) { return text.starts_with(source.name + "="); }))
                continue;
            used = true;
            Result<subject::Subject> bound = handover::with_sources(each->subject, {text});
            if (!bound) {
                complain(bound.error());
                return false;
            }
            each->subject = std::move(bound.value());
        }
        if (!used) {
            complain({fmt::format("neither has a source for \"{}\"", text), "--source",
                      "Write NAME=FILE, NAME=FILE:LAYER or NAME=FILE:CHANNEL."});
            return false;
        }
    }
    return true;
}

int filters(const Options& options) {
    if (options.relative > 0) {
        complain({"two filters are compared relative to values above 1 as it is", "--relative",
                  "Say how far they may differ with --within."});
        return Exit::usage;
    }
    RuleOptions first, second;
    first.filter = options.a;
    second.filter = options.b;
    LoadedSubject a = load_subject(first), b = load_subject(second);
    if (a.exit != Exit::good || b.exit != Exit::good)
        return std::max(a.exit, b.exit);
    if (!bind(options, a, b))
        return Exit::input_output;
    lang::ProofLine line;
    line.function = "equals";
    line.file = options.b;
    line.other = std::make_shared<const lang::Rule>(*b.subject.rule());
    if (options.within >= 0)
        line.limit = options.within;
    // A picture of the other's is that of both.
    subject::Bindings bindings = b.subject.bindings();
    for (const auto& [name, bound] : a.subject.bindings())
        bindings[name] = bound;
    a.subject = a.subject.with_bindings(bindings);
    b.subject = b.subject.with_bindings(bindings);
    const auto outcome = proof::check(a.subject, line, proof::settings_of(*a.subject.rule()));
    std::vector<std::string> varied = outcome->varied;
    for (std::string& name : subject::unbound(b.subject))
        if (std::find(varied.begin(), varied.end(), name) == varied.end())
            varied.push_back(std::move(name));
    if (options.json)
        return print_json({{"same", outcome->passed},
                           {"proved", outcome->proved},
                           {"largest", json_number(outcome->figure)},
                           {"at", json_numbers(outcome->worst.before)},
                           {"first-gives", json_numbers(outcome->worst.after)},
                           {"colours", outcome->samples},
                           {"settings", outcome->settings},
                           {"without-picture", varied}},
                          outcome->passed ? Exit::good : Exit::rule_failed);
    if (outcome->proved)
        fmt::print("the same for all finite colours and all values, proved by algebra; rounding {}\n",
                   number_text(outcome->figure, 3));
    else
        fmt::print(
            "{}: the largest difference is {}, at {}: {} by the first{}\nsampled on {} colours at {} settings{}\n",
            outcome->passed ? "the same as far as was tried" : "different", number_text(outcome->figure, 6),
            colour(outcome->worst.before), colour(outcome->worst.after),
            outcome->at.empty() ? "" : ", where " + outcome->at, outcome->samples, outcome->settings,
            without_picture(varied));
    return outcome->passed ? Exit::good : Exit::rule_failed;
}

/// The numbers of two pictures of one size, channel by channel. NaN is equal to NaN.
struct Compared {
    double most = 0, mean = 0; ///< of the channel that differs most
    std::size_t differ = 0, worst = 0, channel = 0;
};
Compared compared(const image::Picture& a, const image::Picture& b, const baking::Within& within) {
    Compared found;
    double sum = 0;
    for (std::size_t i = 0; i < a.pixels(); ++i) {
        const auto x = a.at(i), y = b.at(i);
        double here = 0;
        bool same = true;
        for (std::size_t c = 0; c < 4; ++c) {
            const double p = static_cast<double>(x[c]), q = static_cast<double>(y[c]);
            double by = p == q || (std::isnan(p) && std::isnan(q)) ? 0 : std::fabs(p - q);
            by = std::isnan(by) ? std::numeric_limits<double>::infinity() : by;
            if (by > found.most) {
                found.most = by;
                found.worst = i;
                found.channel = c;
            }
            here = std::max(here, by);
            same = same && baking::same_number(p, q, within);
        }
        sum += std::isfinite(here) ? here : 0;
        found.differ += same ? 0 : 1;
    }
    found.mean = sum / static_cast<double>(a.pixels());
    return found;
}

int pictures(const Options& options) {
    const Result<image::Image> first = io::load(options.a), second = io::load(options.b);
    for (const auto* loaded : {&first, &second})
        if (!*loaded)
            return complain(loaded->error());
    const auto a = image::picture_of(first.value(),
                                     options.layer.empty() ? image::usual_layer(first.value()) : options.layer),
               b = image::picture_of(second.value(),
                                     options.layer.empty() ? image::usual_layer(second.value()) : options.layer);
    if (!a || !b)
        return complain(
            {options.layer.empty() ? "has no channel to compare" : fmt::format("has no layer {}", options.layer),
             a ? options.b : options.a, ""});
    if (a->width != b->width || a->height != b->height) {
        if (options.json)
            return print_json(
                {{"same", false}, {"first-size", {a->width, a->height}}, {"second-size", {b->width, b->height}}},
                Exit::rule_failed);
        fmt::print("different sizes: {} x {} and {} x {}\n", a->width, a->height, b->width, b->height);
        return Exit::rule_failed;
    }
    const baking::Within within{std::max(0.0, options.within), options.relative};
    const Compared found = compared(*a, *b, within);
    const int exit = found.differ > 0 ? Exit::rule_failed : Exit::good;
    const auto width = static_cast<std::size_t>(a->width);
    const std::optional<readings::Apart> seen = readings::seen_apart(*a, *b);
    if (options.json) {
        Json made = {{"same", found.differ == 0}, {"pixels", a->pixels()},       {"differ", found.differ},
                     {"within", within.absolute}, {"relative", within.relative}, {"largest", json_number(found.most)}};
        if (a->space != b->space)
            made["spaces"] = {a->space, b->space};
        if (found.most > 0) {
            made["channel"] = std::string(1, "rgba"[found.channel]);
            made["at"] = {found.worst % width, found.worst / width};
            made["first"] = json_numbers(a->at(found.worst));
            made["second"] = json_numbers(b->at(found.worst));
            made["mean"] = json_number(found.mean);
        }
        if (seen && found.most > 0)
            made["ciede2000"] = {{"mean", json_number(seen->mean)},
                                 {"within-99.9%", json_number(seen->most)},
                                 {"largest", json_number(seen->largest)}};
        return print_json(made, exit);
    }
    if (a->space != b->space)
        fmt::print("different spaces: {} and {}; the numbers are compared as they are, delta E as colours\n", a->space,
                   b->space);
    if (found.most == 0) {
        fmt::print("the same, bit for bit as numbers\n");
        return Exit::good;
    }
    fmt::print("{} of {} pixels differ by more than {}\nlargest {} in {} at x {} y {}: {} and {}\nmean of "
               "the largest channel {}\n",
               found.differ, a->pixels(), within_words(within), number_text(found.most, 6), "rgba"[found.channel],
               found.worst % width, found.worst / width, colour(a->at(found.worst)), colour(b->at(found.worst)),
               number_text(found.mean, 6));
    if (seen)
        fmt::print("delta E2000: mean {}, 99.9th percentile {}, largest {}\n", number_text(seen->mean, 4),
                   number_text(seen->most, 4), number_text(seen->largest, 4));
    return exit;
}

bool is_subject(const std::string& file) {
    return is_filter(file) || is_kind(file, FileKind::look) || is_kind(file, FileKind::lut);
}

/// Looks and LUTs, with each other or with filters: colour by colour, at their values.
int subjects(const Options& options) {
    RuleOptions names[2];
    names[0].filter = options.a;
    names[1].filter = options.b;
    // A LUT says nothing of its space: it is that of what it is compared with.
    const bool lut_first = is_kind(options.a, FileKind::lut);
    LoadedSubject loaded[2];
    for (const std::size_t i : {lut_first ? 1u : 0u, lut_first ? 0u : 1u}) {
        if (is_kind(names[i].filter, FileKind::lut))
            names[i].lut_space = loaded[1 - i].subject.space();
        loaded[i] = load_subject(names[i]);
        if (loaded[i].exit != Exit::good)
            return loaded[i].exit;
    }
    if (!bind(options, loaded[0], loaded[1]))
        return Exit::input_output;
    const LoadedSubject &first = loaded[0], &second = loaded[1];
    baking::Within within;
    if (options.within >= 0 || options.relative > 0)
        within = {std::max(0.0, options.within), options.relative};
    const auto found = baking::compare(first.subject, second.subject, options.domain[0], options.domain[1], {}, within);
    if (!found) { // nothing was compared: that is no difference
        complain(found.error());
        return Exit::not_measured;
    }
    const baking::LutError& error = found.value().error;
    const bool same = found.value().beyond == 0;
    if (options.json)
        return print_json({{"same", same},
                           {"within", within.absolute},
                           {"relative", within.relative},
                           {"differ", found.value().beyond},
                           {"colours", found.value().samples},
                           {"space", found.value().space},
                           {"without-picture", found.value().varied},
                           {"mean", json_number(error.mean)},
                           {"within-99.9%", json_number(error.most)},
                           {"largest", json_number(error.largest)},
                           {"at", json_numbers(error.worst)},
                           {"not-finite", found.value().not_finite},
                           {"ciede2000",
                            {{"mean", json_number(error.delta_e_mean)},
                             {"within-99.9%", json_number(error.delta_e_most)},
                             {"largest", json_number(error.delta_e_largest)},
                             {"at", json_numbers(error.delta_e_worst)}}}},
                          same ? Exit::good : Exit::rule_failed);
    const auto at = [](const std::array<float, 3>& c) {
        return fmt::format("({}, {}, {})", number_text(static_cast<double>(c[0]), 4),
                           number_text(static_cast<double>(c[1]), 4), number_text(static_cast<double>(c[2]), 4));
    };
    fmt::print("{} on {} colours of {} .. {} in {}{}\nmean {}, 99.9 % within {}, largest {} at {}\nCIEDE2000: "
               "mean {}, 99.9 % within {}, largest {} at {}\n",
               same ? "the same within " + within_words(within) : "different", found.value().samples,
               number_text(options.domain[0], 6), number_text(options.domain[1], 6), found.value().space,
               without_picture(found.value().varied), number_text(error.mean, 4), number_text(error.most, 4),
               number_text(error.largest, 4), at(error.worst), number_text(error.delta_e_mean, 4),
               number_text(error.delta_e_most, 4), number_text(error.delta_e_largest, 4), at(error.delta_e_worst));
    if (found.value().not_finite > 0)
        fmt::print("on {} colours one alone is NaN or infinite\n", found.value().not_finite);
    return same ? Exit::good : Exit::rule_failed;
}

int run(Options options) {
    std::vector<std::string> both = {options.a, options.b};
    if (!is_subject(options.a) && !is_subject(options.b))
        if (const Status there = take_standard_input(both); !there)
            return complain(there.error());
    options.a = both[0];
    options.b = both[1];
    if (is_subject(options.a) != is_subject(options.b))
        return refuse(Exit::usage, "compare filters, looks and LUTs with one another, or two pictures");
    return !is_subject(options.a)                      ? pictures(options)
        : is_filter(options.a) && is_filter(options.b) ? filters(options)
                                                       : subjects(options);
}

} // namespace

extern const Command diff_command;
const Command diff_command = {
    "diff", "Compare two filters, looks or LUTs, or two pictures", [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("FIRST", options->a, "A filter (.kasuri), a look (.kasurilook), a LUT or a picture").required();
        arguments.value("SECOND", options->b, "Another one").required();
        arguments
            .value("--within", options->within,
                   "How far numbers may differ and still count as the same (default: pictures 0, others 1e-5)")
            .not_negative();
        arguments
            .value("--relative", options->relative,
                   "The same, as a share of the larger number: 0.001 is a thousandth. Given alone, nothing else is "
                   "allowed; with --within, the sum of both")
            .not_negative();
        options->sources.define_sources(arguments);
        arguments.value("--layer", options->layer, "Of pictures: this layer alone");
        arguments.value("--domain", options->domain, "Of looks and LUTs: lowest and highest value that come in")
            .expected(2)
            .show_default();
        define_json(arguments, options->json, {answer});
        arguments.footer("Filters are compared at the settings that `check` uses, parameters of one name "
                         "having one value; where algebra shows that they are the same, that is said.\n"
                         "Looks and LUTs are compared colour by colour at their values, in the working space "
                         "of the first; the numbers of a LUT mean that space too.\n"
                         "Exit code 1 if they differ, 4 if they could not be compared.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
