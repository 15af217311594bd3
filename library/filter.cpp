#include "objects.hpp"

#include "base/text.hpp"
#include "document/filter_file.hpp"
#include "engine/program.hpp"
#include "lang/rule.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

using namespace kasuri;
using library::failed;
using library::guarded;
using library::guarded_value;

namespace {

/// What came of a text or file becomes a filter, and what there is to say of it is said.
kasuri_status made_of(opening::Opened opened, kasuri_filter** filter, kasuri_said& said) {
    said.take(opened.diagnostics, opened.text);
    for (const std::string& note : opened.notes)
        said.line("note: " + note);
    if (!opened.ok)
        return KASURI_TEXT_FAULT;
    const auto shared = std::make_shared<const opening::Opened>(std::move(opened));
    *filter = new kasuri_filter{shared, shared->subject, {}};
    return KASURI_OK;
}

const lang::Rule* rule_of(const kasuri_filter* filter) { return filter->subject.rule(); }

const char* kind_of(const kasuri_filter* filter, std::size_t index) {
    const lang::Rule* rule = rule_of(filter);
    if (!rule)
        return "number";
    switch (rule->parameters[index].kind) {
    case lang::ParameterKind::whole: return "whole";
    case lang::ParameterKind::toggle: return "toggle";
    case lang::ParameterKind::choice: return "choice";
    case lang::ParameterKind::colour: return "colour";
    case lang::ParameterKind::number: break;
    }
    return "number";
}

std::optional<std::size_t> parameter_called(const kasuri_filter* filter, const std::string& name) {
    const auto all = filter->subject.parameters();
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].identifier == name || all[i].name == name)
            return i;
    return std::nullopt;
}

kasuri_status no_parameter(const kasuri_filter* filter, const std::string& name, kasuri_said& said) {
    std::vector<std::string> names;
    for (const subject::Parameter& each : filter->subject.parameters())
        names.push_back(rule_of(filter) ? each.name : each.identifier);
    const auto meant = did_you_mean(name, names);
    return failed(said, KASURI_BAD_ARGUMENT,
                  "there is no parameter " + name + (meant ? ". Did you mean " + *meant + "?" : ""));
}

/// Whether the parameter can have that value; says why not.
bool fits(const kasuri_filter* filter, std::size_t index, double value, kasuri_said& said) {
    const subject::Parameter& p = filter->subject.parameters()[index];
    const std::string kind = kind_of(filter, index);
    const bool whole = kind != "number" && kind != "colour";
    if (value >= p.low && value <= p.high && (!whole || value == std::floor(value)))
        return true;
    said.line(p.name + (whole ? " goes in whole numbers from " : " goes from ") + number_text(p.low, 9) + " to " +
              number_text(p.high, 9) + ", and not to " + number_text(value, 9));
    return false;
}

void set_at(kasuri_filter* filter, std::size_t index, std::span<const double> values) {
    std::vector<double> all = filter->subject.values();
    std::copy(values.begin(), values.end(), all.begin() + static_cast<std::ptrdiff_t>(index));
    filter->subject = filter->subject.at(std::move(all));
    filter->identity.clear();
}

} // namespace

kasuri_status kasuri_compile(const char* text, const char* folder, kasuri_filter** filter, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!text || !filter)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no text, or nowhere to put the filter");
        *filter = nullptr;
        Result<std::string> clean = document::filter_text(text, "rule");
        if (!clean)
            return failed(say, KASURI_BAD_ARGUMENT, clean.error());
        const auto open = folder ? document::used_beside(std::filesystem::path(folder) / "rule")
                                 : std::function<Result<std::string>(const std::string&)>();
        return made_of(opening::of_text(std::move(clean.value()), open), filter, say);
    });
}

kasuri_status kasuri_open(const char* path, const char* space, kasuri_filter** filter, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!path || !filter)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no path, or nowhere to put the filter");
        *filter = nullptr;
        opening::Options options;
        if (!library::known_space(space, options.space, say))
            return KASURI_BAD_ARGUMENT;
        Result<opening::Opened> opened = opening::of_file(path, options);
        if (!opened)
            return failed(say, KASURI_FILE, opened.error());
        return made_of(std::move(opened.value()), filter, say);
    });
}

kasuri_filter* kasuri_copy(const kasuri_filter* filter) {
    return guarded_value<kasuri_filter*>(nullptr, [&] { return filter ? new kasuri_filter(*filter) : nullptr; });
}

void kasuri_filter_free(kasuri_filter* filter) { delete filter; }

const char* kasuri_title(const kasuri_filter* filter) {
    if (!filter->opened->is_filter)
        return filter->opened->look.title.c_str();
    return filter->subject.title().c_str();
}
const char* kasuri_note(const kasuri_filter* filter) {
    if (!filter->opened->is_filter)
        return filter->opened->look.note.c_str();
    return filter->subject.note().c_str();
}
const char* kasuri_space(const kasuri_filter* filter) { return filter->subject.space().c_str(); }

const char* kasuri_identity(kasuri_filter* filter) {
    return guarded_value("", [&] {
        if (filter->identity.empty())
            filter->identity = filter->subject.identity();
        return filter->identity.c_str();
    });
}

int kasuri_looks_at_places(const kasuri_filter* filter) {
    return guarded_value(1, [&] {
        const auto program = filter->subject.program();
        return program->reads_position() || program->reads_neighbours() || program->reads_sources() ? 1 : 0;
    });
}

size_t kasuri_parameter_count(const kasuri_filter* filter) { return filter->subject.parameters().size(); }

kasuri_status kasuri_parameter_at(const kasuri_filter* filter, size_t index, kasuri_parameter* parameter) {
    if (!parameter || index >= kasuri_parameter_count(filter))
        return KASURI_BAD_ARGUMENT;
    const subject::Parameter& p = filter->subject.parameters()[index];
    const lang::Rule* rule = rule_of(filter);
    *parameter = {rule ? p.name.c_str() : p.identifier.c_str(),
                  p.name.c_str(),
                  p.description.c_str(),
                  kind_of(filter, index),
                  filter->subject.values()[index],
                  p.value,
                  p.low,
                  p.high,
                  rule ? rule->parameters[index].options.size() : 0};
    return KASURI_OK;
}

const char* kasuri_choice_at(const kasuri_filter* filter, size_t parameter, size_t index) {
    const lang::Rule* rule = rule_of(filter);
    if (!rule || parameter >= rule->parameters.size() || index >= rule->parameters[parameter].options.size())
        return nullptr;
    return rule->parameters[parameter].options[index].c_str();
}

kasuri_status kasuri_set(kasuri_filter* filter, const char* name, double value, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || !name)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no filter, or no name");
        const auto found = parameter_called(filter, name);
        if (!found)
            return no_parameter(filter, name, say);
        if (!fits(filter, *found, value, say))
            return KASURI_BAD_ARGUMENT;
        set_at(filter, *found, std::array{value});
        return KASURI_OK;
    });
}

kasuri_status kasuri_set_text(kasuri_filter* filter, const char* name, const char* value, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || !name || !value)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no filter, no name, or no value");
        auto found = parameter_called(filter, name);
        std::vector<std::string_view> parts = {value};
        if (!found) { // a colour is three numbers; its name alone takes them all
            found = parameter_called(filter, std::string(name) + ".r");
            parts = split(value, ',');
            if (found && parts.size() != 3)
                return failed(say, KASURI_BAD_ARGUMENT, std::string(name) + ": a colour is three numbers, R, G, B");
        }
        if (!found)
            return no_parameter(filter, name, say);
        std::vector<double> numbers;
        for (std::size_t k = 0; k < parts.size(); ++k) {
            const lang::Rule* rule = rule_of(filter);
            const std::optional<double> number =
                rule ? lang::parse_value(rule->parameters[*found + k], parts[k]) : parse_number(parts[k]);
            if (!number)
                return failed(say, KASURI_BAD_ARGUMENT,
                              std::string(name) + " cannot be " + printable(std::string(parts[k])));
            if (!fits(filter, *found + k, *number, say))
                return KASURI_BAD_ARGUMENT;
            numbers.push_back(*number);
        }
        set_at(filter, *found, numbers);
        return KASURI_OK;
    });
}

void kasuri_reset(kasuri_filter* filter) {
    guarded_value(0, [&] {
        std::vector<double> usual;
        for (const subject::Parameter& p : filter->subject.parameters())
            usual.push_back(p.value);
        set_at(filter, 0, usual);
        return 0;
    });
}

size_t kasuri_preset_count(const kasuri_filter* filter) {
    return rule_of(filter) ? rule_of(filter)->presets.size() : 0;
}

const char* kasuri_preset_at(const kasuri_filter* filter, size_t index) {
    return index < kasuri_preset_count(filter) ? rule_of(filter)->presets[index].name.c_str() : nullptr;
}

kasuri_status kasuri_use_preset(kasuri_filter* filter, const char* name, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || !name)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no filter, or no name");
        std::vector<std::string> names;
        for (std::size_t i = 0; i < kasuri_preset_count(filter); ++i) {
            const lang::Preset& preset = rule_of(filter)->presets[i];
            if (preset.name == name) {
                set_at(filter, 0, preset.values);
                return KASURI_OK;
            }
            names.push_back(preset.name);
        }
        const auto meant = did_you_mean(name, names);
        return failed(say, KASURI_BAD_ARGUMENT,
                      std::string("there is no preset ") + name + (meant ? ". Did you mean " + *meant + "?" : ""));
    });
}
