#include "proof/proof.hpp"

#include "base/said.hpp"
#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "insight/derivative.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <memory>
#include <mutex>
#include <set>
#include <vector>

namespace kasuri::proof {

extern const Function identity, neutral, finite, sums, luminance, monotonic, folds, invertible, noise, inside, equals,
    undoes, lut, apart, apart_for_everyone;

namespace {
const Function* const table[] = {
    &identity, &neutral, &finite, &sums,   &luminance, &monotonic,          &folds,  &invertible,
    &noise,    &inside,  &lut,    &equals, &apart,     &apart_for_everyone, &undoes,
};

struct Words {
    std::vector<std::string_view> names, comparing, of_colours, targets = {"lattice"};
    lang::Vocabulary all;
    Words() : all(builtins::vocabulary()) {
        for (const Function* function : table) {
            names.push_back(function->name);
            if (function->compares)
                comparing.push_back(function->name);
            if (function->of_colours)
                of_colours.push_back(function->name);
        }
        for (const targets::Target* target : targets::all())
            targets.push_back(target->name);
        all.proofs = names;
        all.comparing_proofs = comparing;
        all.colour_proofs = of_colours;
        all.targets = targets;
    }
};
} // namespace

std::span<const Function* const> functions() { return table; }

const Function* find(std::string_view name) {
    for (const Function* function : table)
        if (function->name == name)
            return function;
    return nullptr;
}

const lang::Vocabulary& vocabulary() {
    static std::mutex mutex;
    static std::vector<std::unique_ptr<const Words>> all; // one for each of the language's own
    static std::atomic<const Words*> latest{nullptr};
    const auto current = [](const Words* words) {
        return words && words->all.functions.data() == builtins::vocabulary().functions.data();
    };
    if (const Words* const known = latest; current(known))
        return known->all;
    const std::lock_guard lock(mutex);
    if (const Words* const known = latest; current(known))
        return known->all;
    all.push_back(std::make_unique<const Words>());
    latest = all.back().get();
    return all.back()->all;
}

std::vector<lang::ProofLine> lines_of(const lang::Rule& rule) {
    if (!rule.proofs.empty())
        return rule.proofs;
    std::vector<lang::ProofLine> lines;
    for (const Function* function : table) {
        if (!function->usual)
            continue;
        lang::ProofLine line;
        line.title = function->title;
        line.function = function->name;
        line.offered = true;
        lines.push_back(std::move(line));
    }
    return lines;
}

std::vector<std::vector<double>> settings_of(const lang::Rule& rule) {
    std::vector<double> defaults, low, high;
    for (const lang::Parameter& p : rule.parameters) {
        defaults.push_back(p.value);
        low.push_back(p.low);
        high.push_back(p.high);
    }
    std::vector<std::vector<double>> all = {defaults, low, high};
    for (const lang::Preset& preset : rule.presets)
        all.push_back(preset.values);
    for (std::size_t i = 0; i < defaults.size(); ++i) {
        std::vector<double> ends = {low[i], high[i]};
        if (rule.parameters[i].kind == lang::ParameterKind::choice) // every option is an end
            for (double option = 1; option < high[i]; ++option)
                ends.push_back(option);
        for (const double end : ends) {
            all.push_back(defaults);
            all.back()[i] = end;
        }
    }
    std::vector<std::vector<double>> unique;
    for (std::vector<double>& values : all)
        if (std::find(unique.begin(), unique.end(), values) == unique.end())
            unique.push_back(std::move(values));
    return unique;
}

std::string settings_text(const subject::Subject& subject, std::span<const double> values,
                          std::span<const float> sources) {
    std::vector<std::string> parts;
    const lang::Rule* const rule = subject.rule();
    const auto parameters = subject.parameters();
    for (std::size_t i = 0; i < values.size() && i < parameters.size(); ++i)
        parts.push_back(
            fmt::format("{} = {}", parameters[i].name,
                        rule ? lang::value_text(rule->parameters[i], values[i]) : number_text(values[i], 6)));
    std::size_t at = 0;
    std::set<std::string> said;
    for (const lang::SourceInput& source : subject.sources()) {
        std::string text;
        const auto components = static_cast<std::size_t>(width(source.type));
        for (std::size_t c = 0; c < components && at + c < sources.size(); ++c)
            text += (c == 0 ? "" : ", ") + number_text(static_cast<double>(sources[at + c]), 4);
        if (at < sources.size() && said.insert(source.name).second)
            parts.push_back(source.name + " = " + (components > 1 ? "(" + text + ")" : text));
        at += components;
    }
    return fmt::format("{}", fmt::join(parts, ", "));
}

std::optional<Outcome> check(const subject::Subject& about, const lang::ProofLine& line,
                             std::span<const std::vector<double>> settings, const CancelToken& cancel,
                             const lang::Rule* statements) {
    const std::vector<double> own[1] = {about.values()};
    if (statements)
        settings = own;
    if (line.function.empty())
        return check_condition(about, line, settings, cancel, statements);
    const Function& function = *find(line.function);
    std::vector<std::vector<double>> sets(settings.begin(), settings.end());
    // A look promises what it does at its values: they are its usual ones.
    std::vector<double> usual = about.values();
    if (!statements)
        for (std::size_t i = 0; i < usual.size(); ++i)
            usual[i] = about.parameters()[i].value;
    if (function.at_defaults)
        sets.assign(1, usual);
    const std::vector<std::vector<float>> sources = subject::source_settings(about);
    Outcome outcome;
    outcome.of_look = statements != nullptr;
    outcome.offered = line.offered;
    outcome.space = about.in_space();
    outcome.title = line.title.empty() ? std::string(function.title) : line.title;
    outcome.function = line.function;
    outcome.doc = line.file.empty() ? std::string(function.doc) : fmt::format("{} With {}.", function.doc, line.file);
    outcome.limit = line.limit.value_or(function.limit);
    outcome.settings = static_cast<int>(sets.size());
    outcome.varied = subject::unbound(about);
    outcome.variations = static_cast<int>(sources.size());
    bool first = true;
    const engine::ProgramPtr program = about.program({}, {}, subject::source_spaces(about));
    engine::ProgramPtr slopes;
    outcome.shown = function.shown != nullptr;
    for (const std::vector<double>& values : sets) {
        const subject::Subject subject = about.at(values);
        for (std::size_t k = 0; k < sources.size(); ++k) {
            const std::vector<float>& further = sources[k];
            const Task task{subject, usual, *program, cancel, k, further, line.other.get(), line.colours, &slopes};
            if (k == 0) { // what the further pictures are is open to algebra
                const subject::Subject thought = statements ? subject.fixed() : subject;
                outcome.shown = outcome.shown &&
                    function.shown({thought, thought.is_fixed() ? std::vector<double>() : usual, *program, cancel, k,
                                    further, line.other.get(), line.colours, nullptr});
            }
            const std::optional<Measurement> found = function.measure(task);
            if (!found)
                return std::nullopt;
            outcome.samples += found->samples;
            if (first || (function.of_colours ? found->figure < outcome.figure : found->figure > outcome.figure)) {
                outcome.figure = found->figure;
                outcome.worst = found->worst;
                outcome.values = values;
                outcome.at = settings_text(subject, values, further);
            }
            first = false;
        }
    }
    outcome.relation = function.of_colours ? ">=" : "<=";
    outcome.passed = function.of_colours ? outcome.figure >= outcome.limit : outcome.figure <= outcome.limit;
    outcome.proved = outcome.shown && outcome.passed;
    if (function.bounded && outcome.passed && !outcome.proved) {
        const subject::Subject of = statements ? about.fixed() : about;
        outcome.bounded_values = function.bounded({of, true, cancel}, outcome.limit);
        outcome.bounded =
            outcome.bounded_values || (!statements && std::all_of(sets.begin(), sets.end(), [&](const auto& values) {
                return function.bounded({about.at(values), false, cancel}, outcome.limit);
            }));
        if (cancel.cancelled())
            return std::nullopt;
    }
    return outcome;
}

engine::ProgramPtr Task::slopes() const {
    if (slopes_kept && *slopes_kept)
        return *slopes_kept;
    engine::ProgramPtr made = insight::derivative(subject, subject::source_spaces(subject));
    if (slopes_kept)
        *slopes_kept = made;
    return made;
}

std::optional<image::Picture> Task::applied(const image::Picture& picture) const {
    return engine::evaluate(program, picture, subject.values(), cancel, nullptr, nullptr,
                            subject::constant_planes(sources));
}

std::string opposite(const std::string& relation) {
    return relation == "<=" ? ">" : relation == "<" ? ">=" : relation == ">" ? "<=" : "<";
}

std::string report(const Outcome& outcome) {
    std::string text =
        fmt::format("{}  {}  {} {} {}",
                    outcome.offered      ? outcome.passed ? "holds" : "does not hold"
                        : outcome.passed ? "pass"
                                         : "FAIL",
                    outcome.title, number_text(outcome.figure, 3),
                    outcome.passed ? outcome.relation : opposite(outcome.relation), number_text(outcome.limit, 3));
    if (!outcome.passed && !outcome.offered) {
        const auto triple = [](const std::array<float, 4>& c) {
            return fmt::format("({}, {}, {})", number_text(c[0], 4), number_text(c[1], 4), number_text(c[2], 4));
        };
        text += fmt::format("  worst on {}: {} -> {}", outcome.worst.target, triple(outcome.worst.before),
                            triple(outcome.worst.after));
        if (!outcome.at.empty())
            text += "  at " + outcome.at;
    }
    return text + "  [" + how_known(outcome) + "]";
}

std::string how_known(const Outcome& outcome) {
    std::string text = outcome.proved ? said("proved; rounding measured")
        : outcome.bounded_values      ? said("bounded, at every value; measured")
        : outcome.bounded             ? said("bounded; measured")
        : outcome.shown ? said("shown by algebra where the rule gives numbers, but it gives none here; sampled")
                        : said("sampled");
    text += said(": {} colours", outcome.samples);
    if (outcome.settings > 1)
        text += said(" at {} settings", outcome.settings);
    if (outcome.variations > 1 && !outcome.varied.empty())
        text += outcome.varied.size() == 1
            ? said(", {} taken to be {} things: there is no picture for it", outcome.varied.front(), outcome.variations)
            : said(", {} taken to be {} things: there is no picture for them",
                   fmt::to_string(fmt::join(outcome.varied, ", ")), outcome.variations);
    else if (outcome.variations > 1)
        text += said(", with {} places of the further pictures", outcome.variations);
    return text;
}

} // namespace kasuri::proof
