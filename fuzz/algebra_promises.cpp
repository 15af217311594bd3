#include "promises.hpp"

#include "carry/carry.hpp"
#include "engine/evaluate.hpp"
#include "inverse/invert.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"
#include "simplify/simplify.hpp"
#include "subject/subject.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

namespace kasuri::fuzz {
namespace {

constexpr int largest = 400; ///< of rules that are looked at: algebra has its own limits, which are slow to reach

lang::Checked checked(const std::string& text) { return lang::check(text, proof::vocabulary()); }

std::optional<image::Picture> made_by(const lang::Rule& rule) {
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    const subject::Subject subject(rule, values);
    const engine::ProgramPtr program = subject.program();
    if (!program || program->reads_neighbours() || program->reads_sources())
        return std::nullopt;
    const image::Picture colours = image::generated(8, 8, [](int x, int y) {
        return std::array<double, 3>{0.05 + x * 0.12, 0.9 - y * 0.1, 0.02 + (x + y) * 0.06};
    });
    return engine::evaluate(*program, colours, values);
}

/// As single precision has it, of numbers that are no larger than rules for pictures make them.
void insist_on_the_same(const image::Picture& a, const image::Picture& b) {
    for (std::size_t i = 0; i < a.pixels(); ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const double x = static_cast<double>(a.at(i)[c]), y = static_cast<double>(b.at(i)[c]);
            if (!std::isfinite(x) || std::fabs(x) > 1e3)
                continue; // what is proved is proved of finite colours
            insist(std::fabs(x - y) <= 1e-3 * std::max(1.0, std::fabs(x)));
        }
}

} // namespace

void keep_algebra_promises(const std::string& text) {
    const lang::Checked rule = checked(text);
    if (!rule.ok || rule.rule.weight > largest)
        return;
    const auto before = made_by(rule.rule);
    if (const auto shorter = simplify::simplified(text)) {
        const lang::Checked after = checked(shorter.value().text);
        insist(after.ok);
        insist(shorter.value().after <= shorter.value().before);
        insist(shorter.value().done.empty() == (shorter.value().text == text));
        if (const auto now = made_by(after.rule); now && before)
            insist_on_the_same(*before, *now);
    }
    if (const auto carried = carry::carried(text, "acescct"))
        insist(checked(carried.value().text).ok);
    std::vector<double> values;
    for (const lang::Parameter& p : rule.rule.parameters)
        values.push_back(p.value);
    if (const auto back = inverse::invert(rule.rule, text, values); back && back.value().found) {
        insist(checked(back.value().text).ok);
        insist(back.value().largest >= 0);
    }
}

} // namespace kasuri::fuzz
