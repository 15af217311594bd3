#pragma once
#include "fit/fit.hpp"
#include "fit/model.hpp"

#include <fmt/format.h>
#include <random>

namespace kasuri::test {

inline double between(std::mt19937& random, double low, double high) {
    return low + (high - low) * static_cast<double>(random()) / 4294967296.0;
}

/// Values within what is usual.
inline std::vector<double> drawn(const fit::Form& form, std::mt19937& random) {
    std::vector<double> values;
    for (const fit::Value& value : form.values)
        values.push_back(between(random, value.low, value.high));
    return values;
}

inline fit::Pairs lattice(int points, const std::string& space) {
    fit::Pairs pairs;
    pairs.space = space;
    const auto at = [&](int i) { return static_cast<float>(i) / static_cast<float>(points - 1); };
    for (int b = 0; b < points; ++b)
        for (int g = 0; g < points; ++g)
            for (int r = 0; r < points; ++r)
                pairs.add({at(r), at(g), at(b)}, {0, 0, 0});
    return pairs;
}

/// What the statements make of colours, in the space's own numbers.
inline fit::Planes through(const std::string& space, const std::string& statements, const fit::Planes& from) {
    auto rule = fit::rule_of(fmt::format("working {}\n{}", space, statements));
    fit::Planes made;
    if (rule) {
        const subject::Subject subject(std::move(rule.value()));
        fit::run(*subject.program({}, {}, {}, true), subject.values(), from, made, {});
    }
    return made;
}

/// A lattice through the statements; with the digits of a file, if asked for.
inline fit::Pairs made_by(const std::string& space, const std::string& statements, int points, bool six_digits) {
    fit::Pairs pairs = lattice(points, space);
    pairs.to = through(space, statements, pairs.from);
    for (auto& plane : pairs.to)
        for (float& x : plane)
            if (six_digits)
                x = std::stof(fmt::format("{:.6f}", x));
    return pairs;
}

} // namespace kasuri::test
