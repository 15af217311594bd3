#include "fit/fit.hpp"

#include "base/file_kind.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "json.hpp"
#include "pairing/chart.hpp"
#include "pairing/rest_look.hpp"
#include "streams.hpp"

#include <cmath>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::vector<std::string> from;
    std::string out, take;
    pairing::PairingOptions pairing;
    fit::Options fit;
    pairing::ChartWish chart;
    std::vector<double> corners, other_corners, grid, hold_hue;
    int rest = 0; ///< points of the table for what the rule leaves; 0: none
    bool all = false, json = false;
};

using T = JsonType;
constexpr JsonField answer[] = {
    {"from", T::texts, "the files"},
    {"detail", T::text, "what was read of them"},
    {"patches", T::objects, "of a chart; else none"},
    {"patches/name", T::text, "its column and row"},
    {"patches/seen", T::numbers, "r, g, b in the picture"},
    {"patches/wanted", T::numbers, "r, g, b that it should be"},
    {"patches/noise", T::number, "standard deviation within it"},
    {"patches/clipped", T::number, "share of it at 0 or 1"},
    {"patches/left-out", T::number, "share of it that was no part of its colour"},
    {"patches/why-not", T::text, "why it was not fitted; empty: it was"},
    {"space", T::text, "of the numbers"},
    {"fitted", T::whole, "how many colours were fitted"},
    {"measured", T::whole, "how many others were measured"},
    {"unexplained", T::number, "share of the colours that came out differently in different places"},
    {"noise", T::number, "standard deviation of what was read"},
    {"rule", T::text, "the rule that says most with fewest numbers"},
    {"rest", T::object, "a table for what it leaves", "with --rest"},
    {"rest/points", T::whole, "a side"},
    {"rest/numbers", T::whole, "how many are in the table"},
    {"rest/ciede2000", T::object, "what rule and table leave together"},
    {"rest/ciede2000/mean", T::number, "the mean"},
    {"rest/ciede2000/within-95%", T::number, "95 % are no further off"},
    {"rest/ciede2000/largest", T::number, "of all"},
    {"rest/rms", T::number, "root mean square of a channel"},
    {"rest/largest", T::number, "of a channel"},
    {"candidates", T::objects, "all families"},
    {"candidates/family", T::text, "its name"},
    {"candidates/working", T::text, "the space that it works in"},
    {"candidates/numbers", T::whole, "how many it needs"},
    {"candidates/ciede2000", T::object, "how far it is off, on colours that were not fitted"},
    {"candidates/ciede2000/mean", T::number, "the mean"},
    {"candidates/ciede2000/within-95%", T::number, "95 % are no further off"},
    {"candidates/ciede2000/largest", T::number, "of all"},
    {"candidates/ciede2000/at", T::numbers, "r, g, b that come in there"},
    {"candidates/rms", T::number, "root mean square of a channel"},
    {"candidates/largest", T::number, "of a channel"},
    {"candidates/at", T::numbers, "r, g, b that come in there"},
    {"candidates/bits", T::number, "length of its description: its numbers and what it leaves"},
    {"candidates/marked", T::flag, "whether `rule` is of this one"},
};

Json json_of(const fit::Candidate& candidate, bool marked) {
    return {{"family", candidate.family->name},
            {"working", candidate.working},
            {"numbers", candidate.values.size()},
            {"ciede2000",
             {{"mean", json_number(candidate.errors.delta_e_mean)},
              {"within-95%", json_number(candidate.errors.delta_e_95)},
              {"largest", json_number(candidate.errors.delta_e_largest)},
              {"at", json_numbers(candidate.errors.delta_e_at)}}},
            {"rms", json_number(candidate.errors.rms)},
            {"largest", json_number(candidate.errors.largest)},
            {"at", json_numbers(candidate.errors.at)},
            {"bits", json_number(candidate.bits)},
            {"marked", marked}};
}

void print_row(std::FILE* to, const fit::Candidate& candidate, bool marked) {
    fmt::print(to, "{} {:3} numbers  {:8} {:8} {:8}  {:9}  {} in {}\n", marked ? '*' : ' ', candidate.values.size(),
               number_text(candidate.errors.delta_e_mean, 3), number_text(candidate.errors.delta_e_95, 3),
               number_text(candidate.errors.delta_e_largest, 3), number_text(candidate.errors.largest, 3),
               candidate.family->name, candidate.working);
}

Json json_of(const pairing::PatchPair& patch) {
    return {{"name", patch.seen.name},
            {"seen", json_numbers(patch.seen.colour)},
            {"wanted", json_numbers(patch.wanted.colour)},
            {"noise", json_number(patch.seen.noise)},
            {"clipped", json_number(patch.seen.clipped)},
            {"left-out", json_number(patch.seen.left_out)},
            {"why-not", patch.seen.why_not.empty() ? patch.wanted.why_not : patch.seen.why_not}};
}

Json json_of(const pairing::RestLook& rest, int points) {
    return {{"points", points},
            {"numbers", rest.numbers},
            {"ciede2000",
             {{"mean", json_number(rest.errors.delta_e_mean)},
              {"within-95%", json_number(rest.errors.delta_e_95)},
              {"largest", json_number(rest.errors.delta_e_largest)}}},
            {"rms", json_number(rest.errors.rms)},
            {"largest", json_number(rest.errors.largest)}};
}

void tell(std::FILE* to, const Options& options, const pairing::Paired& paired, const fit::Found& found,
          std::size_t taken) {
    fmt::print(to, "{}: {}, numbers of {}; fitted on {} colours, measured on {}\n", paired.pairs.title, paired.detail,
               paired.pairs.space, found.fitted, found.candidates.front().errors.pairs);
    fmt::print(to, "  CIEDE2000:   mean     95 %     largest   a channel  family and working space\n");
    const std::vector<std::size_t> row = fit::simple_to_exact(found);
    for (std::size_t i = 0; i < found.candidates.size(); ++i)
        if (options.all || i == taken || std::find(row.begin(), row.end(), i) != row.end())
            print_row(to, found.candidates[i], i == found.best);
    if (found.unexplained > 0.02)
        fmt::print(
            to,
            "{:.0f} % of the colours came out differently in different places: no rule of a colour alone explains them "
            "(a mask, a vignette, a blur, a compression?)\n",
            100 * found.unexplained);
}

image::Corners corners_of(const std::vector<double>& numbers) {
    image::Corners made{};
    for (std::size_t i = 0; i < made.size(); ++i)
        made[i] = {numbers[2 * i], numbers[2 * i + 1]};
    return made;
}

/// What of the options does not go together; empty: nothing.
std::string wrong_of(const Options& options) {
    const bool chart = !options.corners.empty();
    if (!chart && (!options.other_corners.empty() || !options.chart.values.empty() || !options.grid.empty()))
        return "a chart needs --corners: eight numbers, x and y of its four outer corners, from the first patch on";
    for (const double count : options.grid)
        if (count < 1 || count > 999 || count != std::floor(count))
            return "--grid is how many columns and rows the chart has: two whole numbers";
    if (chart && (options.from.size() == 2) != !options.other_corners.empty())
        return "the same chart in another picture needs that picture and --other-corners";
    if (!chart && options.from.size() == 1 && !pairing::holds_pairs(options.from[0]))
        return options.from[0] +
            " is no LUT, look, filter or table (.csv, .tsv, .txt); of pictures give two, before and after, or the "
            "--corners of a chart in one";
    if (options.pairing.domain.size() == 2 && !(options.pairing.domain[0] < options.pairing.domain[1]))
        return "the domain is empty; give the lower end first, such as 0 1";
    if (options.rest != 0 && !options.out.empty() && !is_kind(options.out, FileKind::look))
        return "a rule and a table for the rest are a look: give --out a name that ends in .kasurilook";
    return {};
}

Result<pairing::Paired> paired_of(const Options& options, std::vector<pairing::PatchPair>& patches) {
    if (options.corners.empty())
        return pairing::pairs_from(options.from, options.pairing);
    pairing::ChartWish wish = options.chart;
    wish.picture = options.from[0];
    wish.corners = corners_of(options.corners);
    if (options.grid.size() == 2) {
        wish.columns = static_cast<int>(options.grid[0]);
        wish.rows = static_cast<int>(options.grid[1]);
    }
    if (options.from.size() == 2) {
        wish.other = options.from[1];
        wish.other_corners = corners_of(options.other_corners);
    }
    auto made = pairing::pairs_of_chart(wish, options.pairing);
    if (!made)
        return made.error();
    patches = std::move(made.value().patches);
    return std::move(made.value().paired);
}

int run(Options options) {
    if (!options.take.empty() && !fit::find_family(options.take)) {
        std::vector<std::string> names;
        for (const fit::Family& family : fit::families())
            names.push_back(family.name);
        return refuse(Exit::usage, "there is no family {}; there are {}", options.take, fmt::join(names, ", "));
    }
    for (const std::string& space : options.fit.spaces)
        if (!known_space(space))
            return Exit::usage;
    if (!known_space(options.pairing.lut_space) || !known_space(options.pairing.in_space))
        return Exit::usage;
    if (const Status there = take_standard_input(options.from); !there)
        return complain(there.error());
    if (const std::string wrong = wrong_of(options); !wrong.empty())
        return refuse(Exit::usage, "{}", wrong);
    std::vector<pairing::PatchPair> patches;
    const auto read = paired_of(options, patches);
    if (!read) { // a rule that cannot be fitted was read well
        const int exit = complain(read.error());
        return is_kind(options.from[0], FileKind::filter) || is_kind(options.from[0], FileKind::look)
            ? int{Exit::rule_failed}
            : exit;
    }
    const pairing::Paired& paired = read.value();
    for (const std::string& note : paired.notes)
        say_note("", note);
    fit::Options with = options.fit;
    if (!options.take.empty())
        with.families = {options.take};
    if (options.hold_hue.size() == 3)
        with.hold_hue = {{options.hold_hue[0], options.hold_hue[1], options.hold_hue[2]}};
    const auto found = fit::fit(paired.pairs, with);
    if (!found) {
        complain(found.error());
        return Exit::rule_failed;
    }
    const std::size_t taken = found.value().best;
    const fit::Candidate& candidate = found.value().candidates[taken];
    const std::string text = fit::rule_text(candidate, paired.pairs);
    std::optional<pairing::RestLook> rest;
    if (options.rest != 0) {
        auto made = pairing::with_rest(candidate, paired.pairs, options.rest);
        if (!made) {
            complain(made.error());
            return Exit::rule_failed;
        }
        rest = std::move(made.value());
    }
    if (!options.out.empty())
        if (const Status written = write_out(options.out, rest ? document::look_text(rest->look) : text); !written)
            return complain(written.error());
    if (options.json) {
        Json rows = Json::array();
        for (std::size_t i = 0; i < found.value().candidates.size(); ++i)
            rows.push_back(json_of(found.value().candidates[i], i == taken));
        Json of_chart = Json::array();
        for (const pairing::PatchPair& patch : patches)
            of_chart.push_back(json_of(patch));
        Json all = {{"from", options.from},
                    {"detail", paired.detail},
                    {"patches", of_chart},
                    {"space", paired.pairs.space},
                    {"fitted", found.value().fitted},
                    {"measured", candidate.errors.pairs},
                    {"unexplained", json_number(found.value().unexplained)},
                    {"noise", json_number(paired.pairs.noise)},
                    {"rule", text},
                    {"candidates", rows}};
        if (rest)
            all["rest"] = json_of(*rest, options.rest);
        return print_json(all);
    }
    std::FILE* const to = options.out == standard_stream ? stderr : stdout;
    tell(to, options, paired, found.value(), taken);
    if (rest)
        fmt::print(
            to, "  + a table    {:8} {:8} {:8}  {:9}  of {} points an axis for what that leaves, on all {} colours\n",
            number_text(rest->errors.delta_e_mean, 3), number_text(rest->errors.delta_e_95, 3),
            number_text(rest->errors.delta_e_largest, 3), number_text(rest->errors.largest, 3), options.rest,
            rest->errors.pairs);
    return Exit::good;
}

} // namespace

extern const Command fit_command;
const Command fit_command = {
    "fit", "Find the simplest rule that explains a LUT, two pictures or a table of colours",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments
            .value("FROM", options->from,
                   "A LUT, a look or a filter; a table of six columns, r, g, b before and after (.csv); two "
                   "pictures, before and after; or a picture of a chart, with --corners")
            .required()
            .expected(1, 2);
        arguments
            .value("-o,--out", options->out,
                   "The rule to write (.kasuri), or with --rest the look (.kasurilook); - is standard output")
            .completes(Completes::file);
        arguments.value("--family", options->take, "Only this family, not the one with the shortest description")
            .completes(Completes::family);
        arguments
            .value("--try-space", options->fit.spaces, "Working spaces to try (default: the numbers' own, and light)")
            .completes(Completes::space);
        arguments.value("--lut-space", options->pairing.lut_space, "What the numbers of a LUT mean (default: srgb)")
            .completes(Completes::space);
        arguments.value("--in-space", options->pairing.in_space, "What the numbers of pictures or of a table mean")
            .completes(Completes::space);
        arguments.value("--layer", options->pairing.layer, "Of pictures: this layer");
        arguments
            .value("--domain", options->pairing.domain,
                   "Lowest and highest value that come in (default: the LUT's own, else 0 1)")
            .expected(2);
        arguments.flag("--as-they-lie", options->pairing.as_they_lie,
                       "Of pictures: pixel by pixel, without bringing the second over the first");
        arguments
            .value("--corners", options->corners,
                   "A chart: x and y of its four outer corners in pixels, from the first patch along its row and round")
            .expected(8);
        arguments.value("--chart", options->chart.chart, "Which chart of published values")
            .show_default()
            .one_of(pairing::chart_names());
        arguments
            .value("--values", options->chart.values,
                   "Your own values of its patches instead: a table with columns L a b, X Y Z, x y Y or r g b, or "
                   "CGATS")
            .completes(Completes::file);
        arguments.value("--grid", options->grid, "How many columns and rows your own chart has").expected(2);
        arguments
            .value("--other-corners", options->other_corners,
                   "The same chart in a second picture instead: where it lies there")
            .expected(8);
        arguments.value("--close", options->fit.close, "Differences that are as good as none (default: 1e-5)")
            .positive();
        arguments
            .value("--rest", options->rest,
                   "A table of so many points an axis for what the rule leaves: writes a look of both")
            .between(2, 65);
        arguments.flag("--keep-greys", options->fit.keep_greys,
                       "Only rules of which it is proved that every grey stays as it is");
        arguments.flag("--keep-luminance", options->fit.keep_luminance,
                       "Every rule ends with keep luminance, and is fitted so");
        arguments.flag("--keep-sums", options->fit.keep_sums,
                       "Every rule keeps r + g + b of each colour, and is fitted so");
        arguments
            .value("--hold-hue", options->hold_hue,
                   "Every rule holds the hue of this colour, three numbers of the space of what is fitted")
            .expected(3);
        arguments.flag("--by-eye", options->fit.by_eye,
                       "Differences count as the eye sees them (in OKLab), not as numbers");
        arguments.flag("--all", options->all,
                       "Show every family, not those alone that are better than all with fewer numbers");
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "Every family of rules is fitted; * marks the one that says most with fewest numbers. Errors are "
            "measured on colours that were not\nfitted, of the very text that is written. How, and where it "
            "fails: docs/fitting.md.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
