#include "engine/lower.hpp"
#include "insight/algebra.hpp"
#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

/// Parameters of the same name have the same value in both; the others their defaults.
std::vector<double> values_of(const lang::Rule& other, const Subject& subject) {
    std::vector<double> values;
    for (const lang::Parameter& theirs : other.parameters) {
        values.push_back(theirs.value);
        for (std::size_t i = 0; i < subject.rule.parameters.size(); ++i)
            if (subject.rule.parameters[i].name == theirs.name)
                values.back() = lang::allowed_value(theirs, subject.values[i]);
    }
    return values;
}

engine::ProgramPtr in_our_space(const Subject& subject) {
    engine::CompileOptions options; // the other may work in another space
    const std::string space = subject.formula().space;
    options.in_space = options.out_space = space;
    return engine::compile(*subject.other, options);
}

double apart(const std::array<float, 4>& a, const std::array<float, 4>& b) {
    double most = 0;
    for (std::size_t c = 0; c < 4; ++c) {
        const double x = static_cast<double>(a[c]), y = static_cast<double>(b[c]);
        if (std::isnan(x) && std::isnan(y)) // both have no answer
            continue;
        const double by = x == y ? 0 : std::fabs(x - y) / std::max({1.0, std::fabs(x), std::fabs(y)});
        if (std::isnan(by))
            return by;
        most = std::max(most, by);
    }
    return most;
}

std::optional<Measurement> measure_equal(const Subject& subject) {
    const image::Picture picture = targets::lattice(telling_levels);
    const auto other =
        engine::evaluate(*in_our_space(subject), picture, values_of(*subject.other, subject), subject.cancel);
    Measurement result;
    std::size_t at = 0;
    const bool whole = other && measure_on(subject, picture, "lattice", result, [&](const auto&, const auto& after) {
                           return apart(after, other->at(at++));
                       });
    return whole ? std::optional(result) : std::nullopt;
}

std::optional<Measurement> measure_undone(const Subject& subject) {
    const std::vector<double> levels = middles(16);
    const image::Picture picture = targets::lattice(levels);
    const auto changed = engine::evaluate(subject.program, picture, subject.values, subject.cancel);
    const auto back = changed
        ? engine::evaluate(*in_our_space(subject), *changed, values_of(*subject.other, subject), subject.cancel)
        : std::nullopt;
    Measurement result;
    std::size_t at = 0;
    const bool whole = back && measure_on(subject, picture, "lattice", result, [&](const auto& before, const auto&) {
                           return apart(before, back->at(at++));
                       });
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function equals, undoes;

const Function equals = {
    "equals",
    "the same as the other",
    "On a lattice of 4913 colours from -1 to 16: the largest difference of a channel to what the other filter makes, "
    "relative to values above 1. Parameters of one name have one value.",
    1e-5,
    false,
    measure_equal,
    false,
    [](const Subject& s) { return insight::shown_equal(s.formula(), *s.other); },
    true,
};

const Function undoes = {
    "undoes",
    "the other undoes it",
    "On 4096 colours between 0 and 1: how far a colour comes to lie from itself when this filter and then the other "
    "have worked on it.",
    1e-4,
    false,
    measure_undone,
    false,
    nullptr,
    true,
};

} // namespace kasuri::proof
