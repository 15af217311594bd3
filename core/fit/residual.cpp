#include "fit/residual.hpp"

#include "colour/difference.hpp"
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "fit/model.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::fit {

Result<Residual> residual_of(const Candidate& candidate, const Pairs& pairs, std::size_t most,
                             const CancelToken& cancel) {
    Planes from, to, made;
    const std::size_t every = std::max<std::size_t>(1, (pairs.size() + most - 1) / std::max<std::size_t>(1, most));
    for (std::size_t i = 0; i < pairs.size(); i += every)
        for (std::size_t c = 0; c < 3; ++c) {
            from[c].push_back(pairs.from[c][i]);
            to[c].push_back(pairs.to[c][i]);
        }
    const auto rule = rule_of(fmt::format("working {}\n{}", candidate.working, candidate.body));
    if (!rule)
        return rule.error();
    const subject::Subject subject(rule.value());
    const engine::ProgramPtr program = subject.program(pairs.space, pairs.space, {}, true, &cancel);
    if (!program || !run(*program, subject.values(), from, made, cancel))
        return Error{"called off", "", ""};
    const colour::Model& lab = *colour::find_model("lab");
    const colour::Space* known = colour::find_space(pairs.space);
    const colour::Space &space = known ? *known : *colour::find_space(colour::default_space),
                        &light = *colour::find_space("rec709-linear");
    Residual residual;
    for (std::size_t i = 0; i < from[0].size(); ++i) {
        const auto triple = [&](const Planes& x) {
            return colour::Triple{static_cast<double>(x[0][i]), static_cast<double>(x[1][i]),
                                  static_cast<double>(x[2][i])};
        };
        residual.wanted.push_back(colour::from_rgb(lab, space, triple(to)));
        residual.made.push_back(colour::from_rgb(lab, space, triple(made)));
        const colour::Triple shown = colour::converted(triple(to), space, light);
        residual.light.push_back(
            {static_cast<float>(shown[0]), static_cast<float>(shown[1]), static_cast<float>(shown[2])});
        residual.delta_e.push_back(colour::ciede2000(residual.wanted.back(), residual.made.back()));
    }
    return residual;
}

} // namespace kasuri::fit
