#include "pairing/rest_look.hpp"

#include "fit/errors.hpp"
#include "fit/model.hpp"
#include "fit/rest.hpp"
#include "look/make.hpp"
#include "pairing/lut_back.hpp"

#include <fmt/format.h>

namespace kasuri::pairing {

Result<RestLook> with_rest(const fit::Candidate& candidate, const fit::Pairs& pairs, int points,
                           const CancelToken& cancel) {
    const Error called_off{"called off", "", ""};
    RestLook made;
    document::LookStep rule;
    rule.text = fit::rule_text(candidate, pairs);
    rule.label = "the rule";
    made.look.title = "As in " + pairs.title;
    made.look.steps.push_back(std::move(rule));
    const auto makes = [&](fit::Planes& planes) -> std::optional<Error> {
        const Result<look::Made> runs = look::make(made.look, {});
        if (!runs)
            return runs.error();
        const engine::ProgramPtr program = runs.value().subject.program(pairs.space, pairs.space, {}, true, &cancel);
        if (!program || !fit::run(*program, runs.value().subject.values(), pairs.from, planes, cancel))
            return called_off;
        return std::nullopt;
    };
    fit::Planes planes;
    if (const auto wrong = makes(planes))
        return *wrong;
    const auto rest = fit::rest_of(planes, pairs, points, cancel);
    if (!rest)
        return rest.error();
    document::LookStep table;
    table.label = "what it leaves";
    table.lut = ".cube";
    table.lut_text = document::SharedText(cube_text(rest.value(), {}));
    table.space = pairs.space;
    made.look.steps.push_back(std::move(table));
    made.numbers = rest.value().table.size();
    if (const auto wrong = makes(planes))
        return *wrong;
    made.errors = fit::Truth(pairs).errors_of(planes);
    return made;
}

} // namespace kasuri::pairing
