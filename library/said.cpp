#include "objects.hpp"

#include "base/text.hpp"
#include "colour/space.hpp"

using kasuri::library::guarded_value;

void kasuri_said::take(const std::vector<kasuri::lang::Diagnostic>& diagnostics, const std::string& of) {
    source = of;
    for (const kasuri::lang::Diagnostic& diagnostic : diagnostics) {
        faults.push_back({diagnostic, std::string(kasuri::lang::row(diagnostic.code).id),
                          kasuri::lang::message(diagnostic), kasuri::lang::help(diagnostic)});
        line(kasuri::lang::rendered(diagnostic, of, "rule"));
    }
}

bool kasuri::library::known_space(const char* name, std::string& to, kasuri_said& said) {
    to = name ? name : "";
    if (to.empty() || colour::find_space(to))
        return true;
    std::vector<std::string> names = colour::added_spaces();
    for (const colour::Space& space : colour::spaces())
        names.emplace_back(space.name);
    const auto meant = did_you_mean(to, names);
    said.line("there is no space " + to + (meant ? ". Did you mean " + *meant + "?" : ""));
    return false;
}

const char* kasuri_version(void) { return KASURI_LIBRARY_VERSION; }

const char* kasuri_status_text(kasuri_status status) {
    switch (status) {
    case KASURI_OK: return "good";
    case KASURI_TEXT_FAULT: return "the rule has faults";
    case KASURI_BAD_ARGUMENT: return "what was asked makes no sense";
    case KASURI_FILE: return "a file is not there, or is not what it should be";
    case KASURI_CALLED_OFF: return "called off";
    case KASURI_NO_MEMORY: return "there is no memory";
    case KASURI_NOT_POSSIBLE: return "not possible";
    case KASURI_INTERNAL: return "a fault of the library";
    }
    return "no status";
}

void kasuri_said_free(kasuri_said* said) { delete said; }

const char* kasuri_said_text(const kasuri_said* said) { return said ? said->text.c_str() : ""; }

size_t kasuri_fault_count(const kasuri_said* said) { return said ? said->faults.size() : 0; }

kasuri_status kasuri_fault_at(const kasuri_said* said, size_t index, kasuri_fault* fault) {
    if (!fault || index >= kasuri_fault_count(said))
        return KASURI_BAD_ARGUMENT;
    const kasuri_said::Fault& it = said->faults[index];
    const kasuri::Span span = it.diagnostic.span;
    const kasuri::LineColumn place = kasuri::line_column(said->source, span.begin);
    *fault = {it.code.c_str(),
              kasuri::lang::word(it.diagnostic.severity).data(),
              it.message.c_str(),
              it.help.c_str(),
              span.begin,
              span.end,
              place.line,
              place.column,
              it.diagnostic.fixes.size()};
    return KASURI_OK;
}

kasuri_status kasuri_fix_at(const kasuri_said* said, size_t fault, size_t index, kasuri_fix* fix) {
    if (!fix || fault >= kasuri_fault_count(said) || index >= said->faults[fault].diagnostic.fixes.size())
        return KASURI_BAD_ARGUMENT;
    const kasuri::lang::Fix& it = said->faults[fault].diagnostic.fixes[index];
    *fix = {it.label.c_str(), it.text.c_str(), it.span.begin, it.span.end};
    return KASURI_OK;
}

size_t kasuri_space_count(void) { return kasuri::colour::spaces().size(); }

const char* kasuri_space_at(size_t index) {
    return index < kasuri_space_count() ? kasuri::colour::spaces()[index].name.data() : nullptr;
}

int kasuri_knows_space(const char* name) {
    return guarded_value(0, [&] { return name && kasuri::colour::find_space(name) ? 1 : 0; });
}
