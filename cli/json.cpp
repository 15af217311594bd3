#include "json.hpp"

#include "base/text.hpp"
#include "command.hpp"
#include "messages.hpp"

#include <cmath>
#include <cstdio>

namespace kasuri::cli {
namespace {

bool answered = false;

Json json_of(const Message& message) {
    return {{"severity", message.error ? "error" : "note"},
            {"where", message.where},
            {"what", message.what},
            {"remedy", message.remedy}};
}

/// The place of a part of a text: lines and columns from 1, a column a character; the end is behind the last one.
Json place_of(std::string_view text, const Span& span) {
    const LineColumn begin = line_column(text, span.begin), end = line_column(text, span.end);
    return {{"line", begin.line}, {"column", begin.column}, {"end-line", end.line}, {"end-column", end.column}};
}

Json json_of(const Found& found) {
    const lang::Diagnostic& diagnostic = found.diagnostic;
    Json made = {{"file", found.file},
                 {"severity", lang::word(diagnostic.severity)},
                 {"code", lang::row(diagnostic.code).id},
                 {"what", lang::message(diagnostic)},
                 {"remedy", lang::help(diagnostic)}};
    made.update(place_of(found.text, diagnostic.span));
    made["fixes"] = Json::array();
    for (const lang::Fix& fix : diagnostic.fixes) {
        Json each = {{"title", fix.label}};
        each.update(place_of(found.text, fix.span));
        each["text"] = fix.text;
        made["fixes"].push_back(each);
    }
    return made;
}

} // namespace

void define_json(Arguments& arguments, bool& wanted, Answers answers, const std::string& what) {
    arguments.flag("--json", wanted, what);
    arguments.answers(answers);
}

Json json_number(double value) { return std::isfinite(value) ? Json(value) : Json(number_text(value, 3)); }

Json json_numbers(std::span<const double> values) {
    Json all = Json::array();
    for (const double value : values)
        all.push_back(json_number(value));
    return all;
}

Json json_numbers(std::span<const float> values) {
    Json all = Json::array();
    for (const float value : values)
        all.push_back(std::isfinite(value) ? Json(value) : json_number(static_cast<double>(value)));
    return all;
}

Json json_settings(std::span<const Setting> settings) {
    Json all = Json::array();
    for (const Setting& setting : settings) {
        Json made = {{"name", setting.name}, {"doc", setting.doc}};
        if (setting.choices.empty()) {
            made["usual"] = json_number(setting.value);
            made["low"] = json_number(setting.low);
            made["high"] = json_number(setting.high);
        } else {
            made["usual-choice"] = setting.choices[static_cast<std::size_t>(setting.value)];
            made["choices"] = setting.choices;
        }
        all.push_back(made);
    }
    return all;
}

void print_json_line(const Json& value) {
    const std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
    std::fwrite(text.data(), 1, text.size(), stdout);
}

int print_json(const Json& result, int exit) {
    answered = true;
    Json answer = {
        {"version", answer_version}, {"program", KASURI_VERSION},    {"command", messages_of()}, {"exit", exit},
        {"messages", Json::array()}, {"diagnostics", Json::array()}, {"result", result}};
    for (const Message& message : said_messages())
        answer["messages"].push_back(json_of(message));
    for (const Found& found : said_diagnostics())
        answer["diagnostics"].push_back(json_of(found));
    print_json_line(answer);
    return std::fflush(stdout) == 0 ? exit : static_cast<int>(Exit::input_output);
}

int finish_json(int exit) { return answered ? exit : print_json(nullptr, exit); }

} // namespace kasuri::cli
