#include "simplify/simplify.hpp"

#include "document/filter_file.hpp"

#include <fmt/format.h>

namespace kasuri::simplify {
namespace {

/// False if it was called off.
bool shorten(std::vector<document::LookStep>& steps, const std::string& before, ShorterLook& made,
             const CancelToken& cancel) {
    int number = 0;
    for (document::LookStep& step : steps) {
        const std::string name = before + std::to_string(++number) + (step.label.empty() ? "" : " " + step.label);
        if (cancel.cancelled())
            return false;
        if (step.is_look) {
            if (!shorten(step.within, name + ", step ", made, cancel))
                return false;
            continue;
        }
        if (!step.lut.empty())
            continue;
        Options with;
        with.open = document::used_by(step, {});
        Result<Shorter> shorter = simplified(step.text, with, cancel);
        if (!shorter) {
            made.not_read.push_back(name + ": " + shorter.error().text());
            continue;
        }
        made.before += shorter.value().before;
        made.after += shorter.value().after;
        for (const std::string& what : shorter.value().done)
            made.done.push_back(name + ": " + what);
        step.text = std::move(shorter.value().text);
    }
    return true;
}

} // namespace

Result<ShorterLook> simplified(const document::Look& look, const CancelToken& cancel) {
    ShorterLook made;
    made.look = look;
    if (!shorten(made.look.steps, "step ", made, cancel))
        return Error{"called off", "", ""};
    return made;
}

} // namespace kasuri::simplify
