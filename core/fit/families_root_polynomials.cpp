#include "fit/families.hpp"

#include <fmt/format.h>

namespace kasuri::fit {
namespace {

/// A term: which powers of r, g, b stand under a root of their sum.
struct Term {
    int r, g, b;
};

/// Terms of a degree that are not those of a lower one: Finlayson, Mackiewicz and Hurlbert, Color Correction Using
/// Root-Polynomial Regression, IEEE Transactions on Image Processing 24 (5), 2015 (from memory): all monomials of the
/// degree under its root, but for those that a lower degree has.
std::vector<Term> terms_of(int degree) {
    std::vector<Term> terms;
    for (int d = 1; d <= degree; ++d)
        for (int r = d; r >= 0; --r)
            for (int g = d - r; g >= 0; --g) {
                const int b = d - r - g;
                const auto divided = [&](int by) { return r % by == 0 && g % by == 0 && b % by == 0; };
                bool lower = false;
                for (int by = 2; by <= d; ++by)
                    lower = lower || (d % by == 0 && divided(by));
                if (!lower)
                    terms.push_back({r, g, b});
            }
    return terms;
}

std::string named(const Term& term) {
    std::string name;
    const auto add = [&](char channel, int power) {
        if (power > 0)
            name += power > 1 ? fmt::format("{}{}", channel, power) : std::string(1, channel);
    };
    add('r', term.r);
    add('g', term.g);
    add('b', term.b);
    return name;
}

std::string product(const Term& term) {
    std::string made;
    const auto add = [&](const char* channel, int power) {
        for (int i = 0; i < power; ++i)
            made += fmt::format("{}{}", made.empty() ? "" : " * ", channel);
    };
    add("c.r", term.r);
    add("c.g", term.g);
    add("c.b", term.b);
    return made;
}

Form root_polynomial(const Family& family, const Range&) {
    Form form{"let c = max(rgb, 0)\n", {}};
    const std::vector<Term> terms = terms_of(family.size);
    for (const Term& term : terms)
        if (const int degree = term.r + term.g + term.b; degree > 1)
            form.text += degree == 2
                ? fmt::format("let root_{} = sqrt({})\n", named(term), product(term))
                : fmt::format("let root_{} = pow({}, 1 / {})\n", named(term), product(term), degree);
    for (const char channel : {'r', 'g', 'b'}) {
        form.text += fmt::format("out.{} = ", channel);
        for (std::size_t i = 0; i < terms.size(); ++i) {
            const bool plain = terms[i].r + terms[i].g + terms[i].b == 1;
            const std::string name = named(terms[i]);
            const std::string value = fmt::format("{}_from_{}", channel, name);
            form.values.push_back({value,
                                   plain && name[0] == channel ? 1.0 : 0.0,
                                   plain && name[0] == channel ? 0.6 : -0.2,
                                   plain && name[0] == channel ? 1.2 : 0.2,
                                   false,
                                   {}});
            form.text += fmt::format("{}${} * {}", i == 0 ? "" : " +\n    ", value, plain ? name : "root_" + name);
        }
        form.text += "\n";
    }
    return form;
}

} // namespace

void add_root_polynomials(std::vector<Family>& table) {
    for (const int degree : {2, 3, 4})
        table.push_back(
            {fmt::format("root-polynomial-{}", degree),
             fmt::format("root polynomial of degree {}", degree),
             "A matrix of the channels and of roots of their products: twice the light gives twice the result.",
             "Finlayson, Mackiewicz and Hurlbert, IEEE Transactions on Image Processing 24 (5), 2015 (terms from "
             "memory)",
             root_polynomial,
             Family::Spaces::both,
             {},
             degree});
}

} // namespace kasuri::fit
