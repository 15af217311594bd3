#include "model/on_bench.hpp"

#include "base/text.hpp"
#include "look/make.hpp"
#include "model/look_model.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"

namespace kasuri::app {

Result<subject::Subject> subject_on_bench(const Session& session, const LookModel& look, const SheetModel& sheet) {
    const Result<subject::Bindings> pictures = sheet.pictures_to_render();
    if (!pictures)
        return pictures.error();
    if (look.is_look()) {
        Result<look::Made> made = look::make(look.look(), {});
        if (!made)
            return made.error();
        return made.value().subject.with_bindings(pictures.value());
    }
    const std::string name = session.display_name().toStdString();
    if (!session.rule())
        return Error{"there is no rule that compiles yet", name, ""};
    if (!session.compiles()) {
        for (const lang::Diagnostic& fault : session.diagnostics())
            if (fault.severity == lang::Severity::error)
                return Error{"the rule does not compile: " + lang::message(fault),
                             name + ", line " + std::to_string(line_column(session.text(), fault.span.begin).line),
                             "What the sheet shows is an older text; mend this one, or undo."};
        return Error{"the rule is being checked", name, "Try again in a moment."};
    }
    return subject::Subject(*session.rule(), session.values()).with_bindings(pictures.value());
}

} // namespace kasuri::app
