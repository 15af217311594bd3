#include "model/on_bench.hpp"

#include "base/text.hpp"
#include "document/look_file.hpp"
#include "look/make.hpp"
#include "model/look_model.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"

namespace kasuri::app {
namespace {

/// The text as it stands does not compile; the steps that are not active are judged where the look is made.
std::optional<Error> fault_on_bench(const Session& session, const LookModel& look) {
    if (document::is_no_rule(look.step()) || !look.step().on || session.compiles())
        return std::nullopt;
    const std::string name = session.display_name().toStdString();
    for (const lang::Diagnostic& fault : session.diagnostics())
        if (fault.severity == lang::Severity::error)
            return Error{said("the rule does not compile: {}", lang::message(fault)),
                         said("{}, line {}", name, line_column(session.text(), fault.span.begin).line),
                         "What the sheet shows is an older text; mend this one, or undo."};
    return Error{"the rule is being checked", name, "Try again in a moment."};
}

} // namespace

Result<subject::Subject> subject_on_bench(const Session& session, const LookModel& look, const SheetModel& sheet) {
    const Result<subject::Bindings> pictures = sheet.pictures_to_render();
    if (!pictures)
        return pictures.error();
    if (const std::optional<Error> fault = fault_on_bench(session, look))
        return *fault;
    const AroundPtr around = look.around();
    if (!around)
        return subject::Subject(*session.rule(), session.values()).with_bindings(pictures.value());
    Result<look::Made> made = look::make(around->look, {});
    if (!made)
        return made.error();
    return made.value().subject.with_bindings(pictures.value());
}

} // namespace kasuri::app
