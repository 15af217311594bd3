#include "proof/proof.hpp"

#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "insight/derivative.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::proof {

extern const Function identity, neutral, finite, sums, luminance, monotonic, folds, invertible, noise, inside, equals,
    undoes, lut;

namespace {
const Function* const table[] = {
    &identity,   &neutral, &finite, &sums, &luminance, &monotonic, &folds,
    &invertible, &noise,   &inside, &lut,  &equals,    &undoes,
};

struct Words {
    std::vector<std::string_view> names, comparing, targets = {"lattice"};
    lang::Vocabulary all;
    Words() : all(builtins::vocabulary()) {
        for (const Function* function : table) {
            names.push_back(function->name);
            if (function->compares)
                comparing.push_back(function->name);
        }
        for (const targets::Target* target : targets::all())
            targets.push_back(target->name);
        all.proofs = names;
        all.comparing_proofs = comparing;
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
    static const Words words;
    return words.all;
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

std::optional<Outcome> check(const lang::Rule& rule, const engine::Program& program, const lang::ProofLine& line,
                             std::span<const std::vector<double>> settings, const CancelToken& cancel,
                             const handover::Subject* look) {
    if (line.function.empty())
        return check_condition(rule, line, settings, cancel, look);
    const Function& function = *find(line.function);
    std::vector<std::vector<double>> sets(settings.begin(), settings.end());
    if (function.at_defaults) {
        sets.assign(1, {});
        for (const lang::Parameter& p : rule.parameters)
            sets[0].push_back(p.value);
    }
    Outcome outcome;
    outcome.of_look = look != nullptr;
    outcome.space = look ? look->space : std::string(engine::working_space(rule));
    outcome.title = line.title.empty() ? std::string(function.title) : line.title;
    outcome.function = line.function;
    outcome.doc = line.file.empty() ? std::string(function.doc) : fmt::format("{} With {}.", function.doc, line.file);
    outcome.limit = line.limit.value_or(function.limit);
    outcome.settings = static_cast<int>(sets.size());
    bool first = true;
    engine::ProgramPtr slopes;
    outcome.proved = function.shown != nullptr;
    for (const std::vector<double>& values : sets) {
        const Subject subject{rule, program, values, cancel, line.other.get(), &slopes, look};
        outcome.proved = outcome.proved && function.shown(subject);
        const std::optional<Measurement> found = function.measure(subject);
        if (!found)
            return std::nullopt;
        outcome.samples += found->samples;
        if (first || found->figure > outcome.figure) {
            outcome.figure = found->figure;
            outcome.worst = found->worst;
            outcome.values = values;
        }
        first = false;
    }
    outcome.passed = outcome.figure <= outcome.limit;
    return outcome;
}

insight::Formula Subject::formula() const { return look ? handover::formula_of(*look) : insight::Formula(rule); }

engine::ProgramPtr Subject::slopes() const {
    if (slopes_kept && *slopes_kept)
        return *slopes_kept;
    engine::ProgramPtr made = insight::derivative(formula());
    if (slopes_kept)
        *slopes_kept = made;
    return made;
}

std::string opposite(const std::string& relation) {
    return relation == "<=" ? ">" : relation == "<" ? ">=" : relation == ">" ? "<=" : "<";
}

std::string report(const lang::Rule& rule, const Outcome& outcome) {
    std::string text =
        fmt::format("{}  {}  {} {} {}", outcome.passed ? "pass" : "FAIL", outcome.title, number_text(outcome.figure, 3),
                    outcome.passed ? outcome.relation : opposite(outcome.relation), number_text(outcome.limit, 3));
    if (!outcome.passed) {
        const auto triple = [](const std::array<float, 4>& c) {
            return fmt::format("({}, {}, {})", number_text(c[0], 4), number_text(c[1], 4), number_text(c[2], 4));
        };
        text += fmt::format("  worst on {}: {} -> {}", outcome.worst.target, triple(outcome.worst.before),
                            triple(outcome.worst.after));
        for (std::size_t i = 0; i < outcome.values.size(); ++i)
            text += fmt::format("{} {} = {}", i == 0 ? "  at" : ",", rule.parameters[i].name,
                                lang::value_text(rule.parameters[i], outcome.values[i]));
    }
    return text +
        fmt::format("  [{}: {} colours{}]", outcome.proved ? "proved; rounding measured" : "sampled", outcome.samples,
                    outcome.settings > 1 ? fmt::format(" at {} settings", outcome.settings) : "");
}

} // namespace kasuri::proof
