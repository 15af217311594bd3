#include "insight/polynomial.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::insight {
namespace {
constexpr double rounding = 1e-9;   ///< of published constants and their inverses
constexpr double cancelled = 1e-14; ///< of what is left when two numbers cancel
} // namespace

bool Polynomial::is_zero(double scale) const {
    return std::all_of(terms_.begin(), terms_.end(),
                       [&](const auto& term) { return std::fabs(term.second) <= rounding * scale; });
}

double Polynomial::largest() const {
    double most = 0;
    for (const auto& [product, factor] : terms_)
        most = std::max(most, std::fabs(factor));
    return most;
}

void Polynomial::add(const Product& product, double factor) {
    if (factor == 0)
        return;
    const auto [place, fresh] = terms_.try_emplace(product, factor);
    if (fresh)
        return;
    const double was = place->second;
    place->second += factor;
    if (std::fabs(place->second) <= cancelled * (std::fabs(was) + std::fabs(factor)))
        terms_.erase(place);
}

Polynomial Polynomial::plus(const Polynomial& other, double by) const {
    Polynomial sum = *this;
    for (const auto& [product, factor] : other.terms_)
        sum.add(product, by * factor);
    return sum;
}

Polynomial Polynomial::times(const Polynomial& other) const {
    Polynomial made;
    for (const auto& [a, x] : terms_)
        for (const auto& [b, y] : other.terms_) {
            Product both;
            both.reserve(a.size() + b.size());
            std::merge(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(both));
            made.add(both, x * y);
        }
    return made;
}

Polynomial Polynomial::times(double factor) const {
    Polynomial made;
    for (const auto& [product, x] : terms_)
        made.add(product, x * factor);
    return made;
}

Polynomial Polynomial::with(Atom atom, const Polynomial& value) const {
    Polynomial made;
    for (const auto& [product, factor] : terms_) {
        Product rest;
        std::copy_if(product.begin(), product.end(), std::back_inserter(rest), [atom](Atom a) { return a != atom; });
        Polynomial term;
        term.add(rest, factor);
        for (std::size_t k = rest.size(); k < product.size(); ++k)
            term = term.times(value);
        made = made.plus(term);
    }
    return made;
}

std::string Polynomial::key() const {
    const double least = rounding * largest();
    std::string text;
    for (const auto& [product, factor] : terms_)
        if (std::fabs(factor) > least)
            text += fmt::format("{:.8e}*{}+", factor, fmt::join(product, "."));
    return text;
}

} // namespace kasuri::insight
