#include "inverse/look.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "fit/fit.hpp"
#include "json.hpp"
#include "pairing/lut_back.hpp"
#include "subject.hpp"

#include <filesystem>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string out;
    int points = 33;
    bool nearest = false, tables = false, json = false;
};

using T = JsonType;
constexpr const char* rules = "of filters and looks";
constexpr const char* solved = "of a rule with a way back";
// What is said of one rule: the filter, or a step of a look.
#define KASURI_BACK_FIELDS(at, when)                                                                                   \
    {at "lost", T::objects, "what is lost on the way there", when}, {at "lost/part", T::text, "part of the text"},     \
        {at "lost/why", T::text, "in short"}, {at "lost/text", T::text, "a sentence"},                                 \
        {at "looked-for", T::objects, "what had to be searched for, and could not be solved", when},                   \
        {at "looked-for/part", T::text, "part of the text"}, {at "looked-for/why", T::text, "in short"},               \
        {at "looked-for/text", T::text, "a sentence"}, {at "in-the-way", T::objects, "what has no way back", when},    \
        {at "in-the-way/part", T::text, "part of the text"}, {at "in-the-way/why", T::text, "in short"},               \
        {at "in-the-way/text", T::text, "a sentence"},                                                                 \
        {at "two-become-one", T::object, "two colours that come out as one", "where some were found"},                 \
        {at "two-become-one/a", T::numbers, "r, g, b"}, {at "two-become-one/b", T::numbers, "r, g, b"},                \
        {at "two-become-one/made", T::numbers, "r, g, b that both become"},                                            \
        {at "rule", T::text, "the way back as a text", solved},                                                        \
        {at "largest", T::number, "how far a channel of a colour from 0 to 1 is off when it is back", solved},         \
        {at "at", T::numbers, "r, g, b of that colour", solved},                                                       \
        {at "at-these-values-alone", T::flag, "it has no parameters, for other values have no way back", solved},      \
        {at "everywhere", T::flag, "the same at all settings that were tried", solved},                                \
        {at "largest-anywhere", T::number, "how far a channel is off at those", solved},                               \
        {at "noise", T::number, "how many times as loud noise comes back, at most", solved},                           \
        {at "narrowed", T::objects, "parameters of which only a part has a way back", solved},                         \
        {at "narrowed/parameter", T::text, "its name"}, {at "narrowed/low", T::number, "from here"},                   \
        {at "narrowed/high", T::number, "to here"}, {                                                                  \
        at "without", T::texts, "choices and switches that have no way back", solved                                   \
    }
constexpr JsonField answer[] = {
    {"found", T::flag, "whether there is a way back", rules},
    KASURI_BACK_FIELDS("", "of a filter"),
    {"steps", T::objects, "of a look: from the last to the first", "of a look"},
    {"steps/step", T::whole, "which step of the look, from 1"},
    {"steps/label", T::text, "what it is called"},
    {"steps/found", T::flag, "whether it has a way back"},
    {"steps/fault", T::text, "why nothing could be said of it", "where it could not be read"},
    {"steps/table", T::texts, "what is said of a table that stands for it", "where one does"},
    KASURI_BACK_FIELDS("steps/", "where it could be read"),
    {"look", T::text, "the look that goes back", "of a look with a way back"},
    {"family", T::text, "of the rule that was fitted", "with --nearest"},
    {"points", T::whole, "of the table a side", "of a table"},
    {"solved", T::whole, "how many of its points are exact; at the others nothing ends, or several colours do",
     "of a table"},
    {"space", T::text, "of the table's numbers", "of a table"},
    {"domain", T::numbers, "lowest and highest value of the table", "of a table"},
    {"rms", T::number, "root mean square of a channel's distance", "of a table and with --nearest"},
    {"ciede2000-mean", T::number, "CIEDE2000, the mean", "of a table and with --nearest"},
    {"ciede2000-largest", T::number, "CIEDE2000, the largest", "of a table and with --nearest"},
};

std::string triple(const std::array<double, 3>& x) {
    return fmt::format("({}, {}, {})", number_text(x[0], 4), number_text(x[1], 4), number_text(x[2], 4));
}

void tell(std::FILE* to, const inverse::Back& back, const std::string& text, const std::string& file) {
    for (const inverse::Obstacle& o : back.losses)
        fmt::print(to, "lost: {}\n", inverse::told(o, text));
    for (const inverse::Obstacle& o : back.ranges)
        fmt::print(to, "looked for: {}\n", inverse::told(o, text));
    for (const inverse::Obstacle& o : back.obstacles)
        fmt::print(to, "in the way: {}\n", inverse::told(o, text));
    if (back.meeting)
        fmt::print(to, "two colours become one: {} and {} both give {}\n", triple(back.meeting->a),
                   triple(back.meeting->b), triple(back.meeting->made));
    if (!back.found)
        return;
    fmt::print(to, "at these values: a colour from 0 to 1 comes back within {} on 4096 colours, at worst {}\n",
               number_text(back.largest, 3), triple(back.at));
    for (const inverse::Narrowed& n : back.narrowed)
        fmt::print(to, "{}: only {} .. {} has a way back\n", n.name, number_text(n.low, 4), number_text(n.high, 4));
    for (const std::string& option : back.without)
        fmt::print(to, "{} has no way back here\n", option);
    if (back.at_values)
        fmt::print(to, "only these values have a way back, and it has no parameters\n");
    else if (back.everywhere)
        fmt::print(to, "at all {} settings of its parameters: within {}{}\n", back.settings,
                   number_text(back.largest_anywhere, 3),
                   file.empty() ? "; no proof line, for the filter does not lie beside it" : "; it promises so");
    else
        fmt::print(to, "over all that its parameters allow: not everywhere, so it promises nothing\n");
    if (back.noise > 2)
        fmt::print(to, "noise comes back up to {} times as loud\n", number_text(back.noise, 3));
}

Json json_of(const std::vector<inverse::Obstacle>& all, const std::string& text) {
    Json rows = Json::array();
    for (const inverse::Obstacle& o : all)
        rows.push_back({{"part", o.part}, {"why", o.why}, {"text", inverse::told(o, text)}});
    return rows;
}

Json json_of(const inverse::Back& back, const std::string& text) {
    Json all = {{"found", back.found},
                {"lost", json_of(back.losses, text)},
                {"looked-for", json_of(back.ranges, text)},
                {"in-the-way", json_of(back.obstacles, text)}};
    if (back.meeting)
        all["two-become-one"] = {{"a", json_numbers(back.meeting->a)},
                                 {"b", json_numbers(back.meeting->b)},
                                 {"made", json_numbers(back.meeting->made)}};
    if (!back.found)
        return all;
    all["rule"] = back.text;
    all["largest"] = json_number(back.largest);
    all["at"] = json_numbers(back.at);
    all["at-these-values-alone"] = back.at_values;
    all["everywhere"] = back.everywhere;
    all["largest-anywhere"] = json_number(back.largest_anywhere);
    all["noise"] = json_number(back.noise);
    Json narrowed = Json::array();
    for (const inverse::Narrowed& n : back.narrowed)
        narrowed.push_back({{"parameter", n.name}, {"low", json_number(n.low)}, {"high", json_number(n.high)}});
    all["narrowed"] = narrowed;
    all["without"] = back.without;
    return all;
}

int run_look(const Options& options) {
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != 0)
        return loaded.exit;
    const std::filesystem::path folder = std::filesystem::path(options.rule.filter).parent_path();
    const auto made =
        inverse::invert(loaded.look, folder, pairing::with_tables(folder, options.points, options.tables));
    if (!made) {
        complain(made.error());
        return Exit::rule_failed;
    }
    const inverse::LookBack& back = made.value();
    if (back.found && !options.out.empty())
        if (const Status written = write_out(options.out, document::look_text(back.look)); !written)
            return complain(written.error());
    if (options.json) {
        Json rows = Json::array();
        for (const inverse::StepBack& step : back.steps) {
            Json row =
                step.fault.empty() ? json_of(step.back, step.text) : Json{{"found", false}, {"fault", step.fault}};
            if (!step.table.empty())
                row["table"] = step.table;
            row["step"] = step.step + 1;
            row["label"] = step.label;
            rows.push_back(row);
        }
        Json all = {{"found", back.found}, {"steps", rows}};
        if (back.found) {
            all["look"] = document::look_text(back.look);
            all["largest"] = json_number(back.largest);
            all["at"] = json_numbers(back.at);
        }
        return print_json(all, back.found ? Exit::good : Exit::rule_failed);
    }
    std::FILE* to = options.out == standard_stream ? stderr : stdout;
    for (const inverse::StepBack& step : back.steps) {
        fmt::print(to, "{}{}\n", step.label, step.fault.empty() ? "" : ": " + step.fault);
        for (const std::string& line : step.table)
            fmt::print(to, "  {}\n", line);
        tell(to, step.back, step.text, "it");
    }
    if (back.found)
        fmt::print(to, "the whole look: a colour from 0 to 1 comes back within {} on 4096 colours, at worst {}\n",
                   number_text(back.largest, 3), triple(back.at));
    return back.found ? Exit::good : Exit::rule_failed;
}

/// The simplest rule that comes near what went in, by what comes out: fitted, not solved.
int run_nearest(const Options& options) {
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != 0)
        return loaded.exit;
    constexpr int points = 33;
    auto pairs = fit::pairs_of(loaded.subject, points, 0, 1);
    if (!pairs) {
        complain(pairs.error());
        return Exit::rule_failed;
    }
    fit::Pairs there; // the other way round, of what has an answer
    there.space = pairs.value().space;
    there.title = (options.rule.filter.empty() ? "the rule" : options.rule.filter) + ", the other way round";
    for (std::size_t i = 0; i < pairs.value().size(); ++i) {
        const auto at = [&](const fit::Planes& planes) -> std::array<float, 3> {
            return {planes[0][i], planes[1][i], planes[2][i]};
        };
        const std::array<float, 3> made = at(pairs.value().to);
        if (std::all_of(made.begin(), made.end(), [](float x) { return std::isfinite(x); }))
            there.add(made, at(pairs.value().from));
    }
    const auto found = fit::fit(there);
    if (!found) {
        complain(found.error());
        return Exit::rule_failed;
    }
    const fit::Candidate& best = found.value().candidates[found.value().best];
    const std::string text = fit::rule_text(best, there);
    if (!options.out.empty() || !options.json)
        if (const Status written = write_out(options.out, text); !written)
            return complain(written.error());
    if (options.json)
        return print_json({{"family", best.family->name},
                           {"rule", text},
                           {"largest", json_number(best.errors.largest)},
                           {"at", json_numbers(best.errors.at)},
                           {"rms", json_number(best.errors.rms)},
                           {"ciede2000-mean", json_number(best.errors.delta_e_mean)},
                           {"ciede2000-largest", json_number(best.errors.delta_e_largest)}});
    fmt::print(
        stderr,
        "fitted, not solved: {}; a channel comes back within {} at most, {} by root mean square; CIEDE2000 {} on "
        "average, {} at most, on {} colours\n",
        best.family->name, number_text(best.errors.largest, 3), number_text(best.errors.rms, 3),
        number_text(best.errors.delta_e_mean, 3), number_text(best.errors.delta_e_largest, 3), best.errors.pairs);
    return Exit::good;
}

/// A table instead of a rule: from what comes out to what went in.
int run_table(const Options& options) {
    if (lower_ending(options.out) != ".cube")
        return refuse(Exit::usage, "a table of the way back is written as .cube");
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != 0)
        return loaded.exit;
    const auto made = pairing::lut_back(loaded.subject, options.points);
    if (!made) {
        complain(made.error());
        return Exit::rule_failed;
    }
    const pairing::LutBack& back = made.value();
    const std::vector<std::string> words =
        pairing::words_of(back, options.rule.filter.empty() ? "the rule" : options.rule.filter);
    if (const Status written = write_out(options.out, pairing::cube_text(back.table, words)); !written)
        return complain(written.error());
    if (options.json)
        return print_json({{"points", back.table.points},
                           {"solved", back.solved},
                           {"space", back.space},
                           {"domain", json_numbers(std::array{back.table.low, back.table.high})},
                           {"largest", json_number(back.errors.largest)},
                           {"at", json_numbers(back.errors.at)},
                           {"rms", json_number(back.errors.rms)},
                           {"ciede2000-mean", json_number(back.errors.delta_e_mean)},
                           {"ciede2000-largest", json_number(back.errors.delta_e_largest)}});
    for (const std::string& line : words)
        fmt::print("{}\n", line);
    return Exit::good;
}

int run(const Options& options) {
    if (is_kind(options.out, FileKind::lut))
        return run_table(options);
    if (options.nearest)
        return run_nearest(options);
    if (is_kind(options.rule.filter, FileKind::look))
        return run_look(options);
    if (is_kind(options.rule.filter, FileKind::lut))
        return refuse(Exit::usage,
                      "{} is a LUT, which has no rule to solve: -o BACK.cube makes a table of "
                      "the way back, --nearest a rule that is near, and kasuri-cli fit finds the rule behind it",
                      options.rule.filter);
    const Loaded loaded = load(options.rule);
    if (loaded.exit != 0)
        return loaded.exit;
    inverse::Options with;
    with.file = options.rule.text_given ? std::string() : name_beside(options.rule.filter, options.out);
    with.open = document::used_beside(options.rule.filter);
    const auto made = inverse::invert(loaded.rule, loaded.text, loaded.values, with);
    if (!made) {
        Error error = made.error();
        if (error.where.empty())
            error.where = options.rule.filter.empty() ? "the rule" : options.rule.filter;
        complain(error);
        return Exit::rule_failed;
    }
    const inverse::Back& back = made.value();
    if (back.found && !options.out.empty())
        if (const Status written = write_out(options.out, back.text); !written)
            return complain(written.error());
    const int exit = back.found ? Exit::good : Exit::rule_failed;
    if (options.json)
        return print_json(json_of(back, loaded.text), exit);
    const bool rule_on_output = options.out.empty() || options.out == standard_stream;
    if (back.found && options.out.empty())
        fmt::print("{}", back.text);
    tell(rule_on_output && back.found ? stderr : stdout, back, loaded.text, with.file);
    return exit;
}

} // namespace

extern const Command invert_command;
const Command invert_command = {
    "invert", "Write the rule that takes the effect of a filter or a look off again",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, true);
        arguments
            .value("-o,--out", options->out,
                   "The rule to write (.kasuri), best beside the filter, so that its proof finds it; of a look a look "
                   "(.kasurilook); or a table (.cube), of anything; - is standard output")
            .completes(Completes::file);
        arguments.value("--points", options->points, "Of a table: points an axis").show_default().between(2, 65);
        arguments.flag(
            "--nearest", options->nearest,
            "Of a filter, a look or a LUT: do not solve, but fit the simplest rule that comes near what went in");
        arguments.flag("--tables", options->tables,
                       "Of a look: a table of --points also where a step's rule cannot be solved, not for LUTs alone");
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "The way back is solved statement by statement, keeps the filter's parameters, and is measured: their "
            "ranges are made smaller\nwhere only a part of them can be undone. Where something is lost it says what, "
            "and shows two colours that become one.\nExit 1: there is no way back. How, and what cannot be undone: "
            "docs/inverse.md.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
