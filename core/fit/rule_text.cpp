#include "colour/space.hpp"
#include "fit/errors.hpp"
#include "fit/model.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace kasuri::fit {
namespace {

constexpr std::size_t most_proofs = 6;

/// As a text of the language can hold it: on one line, without quotes.
std::string quotable(std::string text) {
    std::replace_if(
        text.begin(), text.end(), [](unsigned char c) { return c < ' ' || c == '"' || c == '\\' || c == 127; }, '\'');
    return text;
}

std::string number(double x) {
    std::string text = fmt::format("{:.7f}", x);
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.')
        text.pop_back();
    return text == "-0" ? "0" : text;
}

/// Two digits, never less than it is.
std::string limit_text(double x) {
    if (!(x > 1e-7))
        return "0.000001";
    const double by = std::pow(10, 1 - std::floor(std::log10(x)));
    return fmt::format("{:.9g}", std::ceil(x * by * 1.01) / by);
}

/// For people: what is too small to be seen, or to be in the file, is no number to speak of.
std::string figure(double x) { return x < 0.001 ? "below 0.001" : fmt::format("{:.3g}", x); }

std::string triple(const colour::Triple& x) {
    return fmt::format("{}, {}, {}", number(x[0]), number(x[1]), number(x[2]));
}

/// Colours before and after in the rule's working space, and how far apart the rule's answer is there.
struct Example {
    colour::Triple from{}, to{};
    double distance = 0;
};

std::vector<Example> examples_of(const Candidate& candidate, const Pairs& pairs) {
    const colour::Space *a = colour::find_space(pairs.space), *b = colour::find_space(candidate.working);
    const auto rule = rule_of(fmt::format("working {}\n{}", candidate.working, candidate.body));
    if (!a || !b || !rule)
        return {};
    const subject::Subject subject(rule.value());
    const engine::ProgramPtr program = subject.program({}, {}, {}, true);
    std::vector<Example> all;
    Planes from, made;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        const auto at = [&](const Planes& planes) {
            return colour::converted({static_cast<double>(planes[0][i]), static_cast<double>(planes[1][i]),
                                      static_cast<double>(planes[2][i])},
                                     *a, *b);
        };
        all.push_back({at(pairs.from), at(pairs.to), 0});
        for (std::size_t c = 0; c < 3; ++c)
            from[c].push_back(static_cast<float>(all.back().from[c]));
    }
    if (!run(*program, subject.values(), from, made, {}))
        return {};
    for (std::size_t i = 0; i < all.size(); ++i) {
        double sum = 0;
        for (std::size_t c = 0; c < 3; ++c)
            sum += std::pow(static_cast<double>(made[c][i]) - all[i].to[c], 2);
        all[i].distance = std::sqrt(sum);
    }
    return all;
}

/// Colours far from each other, each taken from those that the rule meets as well as it meets most; the first is the
/// worst of them.
std::vector<Example> spread(std::vector<Example> all, bool noisy) {
    std::erase_if(all, [](const Example& e) { return !std::isfinite(e.distance); });
    std::sort(all.begin(), all.end(), [](const Example& x, const Example& y) { return x.distance > y.distance; });
    if (noisy) // what is plainly wrong is nothing that a rule should promise
        all.erase(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(all.size() / 3));
    std::vector<Example> taken;
    std::vector<double> near(all.size(), std::numeric_limits<double>::infinity());
    for (std::size_t next = 0; taken.size() < std::min(most_proofs, all.size());) {
        taken.push_back(all[next]);
        for (std::size_t i = 0; i < all.size(); ++i) {
            double sum = 0;
            for (std::size_t c = 0; c < 3; ++c)
                sum += std::pow(all[i].from[c] - taken.back().from[c], 2);
            near[i] = std::min(near[i], sum);
        }
        next = static_cast<std::size_t>(std::max_element(near.begin(), near.end()) - near.begin());
    }
    return taken;
}

} // namespace

std::string rule_text(const Candidate& candidate, const Pairs& pairs) {
    const std::string source = quotable(pairs.title.empty() ? "a table" : pairs.title);
    std::string made = fmt::format("filter \"As in {}\"\n", source);
    made += fmt::format(
        "note   \"Found from {} colours of {} ({}): {}, {} numbers. On {} colours: CIEDE2000 {} on average, "
        "{} at most; a channel is off by {} at most.\"\n\nworking {}\n",
        pairs.size(), source, pairs.space, candidate.family->title, candidate.values.size(), candidate.errors.pairs,
        figure(candidate.errors.delta_e_mean), figure(candidate.errors.delta_e_largest),
        figure(candidate.errors.largest), candidate.working);
    const bool changes = candidate.family->name != "identity";
    if (changes)
        made += "param strength = 1 in 0 .. 1  \"How far it goes\"\n" + candidate.body +
            "out.rgb = mix(rgb, out.rgb, strength)\n";
    // At other values of its own parameters the rule is another one.
    const Form form = candidate.family->form(*candidate.family, {});
    std::string elsewhere;
    for (std::size_t i = 0; i < form.values.size(); ++i)
        if (form.values[i].parameter)
            elsewhere += fmt::format(" || {} != {}", form.values[i].name, number(candidate.values[i]));
    made += "\n";
    const std::vector<Example> examples = spread(examples_of(candidate, pairs), pairs.noisy);
    double most = 0;
    for (const Example& example : examples)
        most = std::max(most, example.distance);
    for (const Example& example : examples)
        made += fmt::format(
            "proof \"as there at {:.2g} {:.2g} {:.2g}\" on ({}) : distance(out.rgb, {}) < {}{}\n", example.from[0],
            example.from[1], example.from[2], triple(example.from),
            fmt::format(fmt::runtime(changes ? "mix(rgb, vec3({}), strength)" : "vec3({})"), triple(example.to)),
            limit_text(most + 2e-6), elsewhere);
    return made;
}

} // namespace kasuri::fit
