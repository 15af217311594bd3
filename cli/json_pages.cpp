#include "json_pages.hpp"

#include "arguments.hpp"
#include "json.hpp"

#include <fmt/format.h>

namespace kasuri::cli {
namespace {

using T = JsonType;

/// What every answer has around its result.
constexpr JsonField around[] = {
    {"version", T::whole, "of these answers: larger when a field is gone or means something else; new fields leave it"},
    {"program", T::text, "the version of Kasuri"},
    {"command", T::text, "the command that answers; empty: there is none of the name that was given"},
    {"exit", T::whole,
     "the exit code: 0 good, 1 the rule or a proof failed, 2 usage, 3 input or output, 4 not measured"},
    {"messages", T::objects, "errors and notes, as they also stand on standard error"},
    {"messages/severity", T::text, "error or note"},
    {"messages/where", T::text, "a file, a place in it or an option; empty: nowhere in particular"},
    {"messages/what", T::text, "what is wrong, or to be known"},
    {"messages/remedy", T::text, "what to do; empty: nothing in particular"},
    {"diagnostics", T::objects, "what is wrong, or odd, in the text of a rule"},
    {"diagnostics/file", T::text, "the file; a step of a look; `rule` for --rule, `print` for --print"},
    {"diagnostics/severity", T::text, "error, warning or hint"},
    {"diagnostics/code", T::text, "such as K201: docs/errors.md tells about each"},
    {"diagnostics/what", T::text, "a sentence"},
    {"diagnostics/remedy", T::text, "what to do; empty: that is clear"},
    {"diagnostics/line", T::whole, "where it begins, from 1"},
    {"diagnostics/column", T::whole, "in characters, from 1"},
    {"diagnostics/end-line", T::whole, "where it ends"},
    {"diagnostics/end-column", T::whole, "the character behind it"},
    {"diagnostics/fixes", T::objects, "changes of the text, each of which mends it"},
    {"diagnostics/fixes/title", T::text, "what it does"},
    {"diagnostics/fixes/line", T::whole, "where what is replaced begins"},
    {"diagnostics/fixes/column", T::whole, "in characters, from 1"},
    {"diagnostics/fixes/end-line", T::whole, "where it ends"},
    {"diagnostics/fixes/end-column", T::whole, "the character behind it"},
    {"diagnostics/fixes/text", T::text, "what comes there"},
    {"result", T::object, "of the command: below", "where it came to one; else null"},
};

std::string_view words(JsonType type) {
    switch (type) {
    case T::text: return "text";
    case T::flag: return "true or false";
    case T::whole: return "whole number";
    case T::number: return "number";
    case T::object: return "object";
    case T::texts: return "list of texts";
    case T::numbers: return "list of numbers";
    case T::rows: return "list of lists of numbers";
    case T::objects: return "list of objects";
    case T::values: return "object of numbers";
    case T::words: break;
    }
    return "object of texts";
}

/// Rows directly within a path (empty: the outermost), with their own names.
std::vector<std::pair<std::string_view, const JsonField*>> within(std::span<const JsonField> fields,
                                                                  std::string_view path) {
    std::vector<std::pair<std::string_view, const JsonField*>> found;
    for (const JsonField& field : fields) {
        const std::size_t slash = field.path.rfind('/');
        const bool outermost = slash == std::string_view::npos;
        if ((outermost ? std::string_view() : field.path.substr(0, slash)) == path)
            found.emplace_back(outermost ? field.path : field.path.substr(slash + 1), &field);
    }
    return found;
}

/// A table of the page; a field within others is written with theirs: `filters[].proofs[].title`.
void add_table(std::string& page, std::span<const JsonField> fields, std::string_view path, const std::string& shown) {
    for (const auto& [name, field] : within(fields, path)) {
        const std::string whole = shown + std::string(name);
        page += fmt::format("| `{}` | {} | {}{} |\n", whole, words(field->type), field->doc,
                            field->when.empty() ? "" : fmt::format(" *({})*", field->when));
        add_table(page, fields, field->path, whole + (field->type == T::objects ? "[]." : "."));
    }
}

std::string table(std::span<const JsonField> fields) {
    std::string page = "| field | holds | which is |\n| --- | --- | --- |\n";
    add_table(page, fields, "", "");
    return page + "\n";
}

Json object_of(std::span<const JsonField> fields, std::string_view path);

Json schema_of(std::span<const JsonField> fields, const JsonField& field) {
    const auto named = [](const char* name) { return Json{{"$ref", std::string("#/definitions/") + name}}; };
    const auto list = [](Json items) { return Json{{"type", "array"}, {"items", std::move(items)}}; };
    switch (field.type) {
    case T::text: return {{"type", "string"}};
    case T::flag: return {{"type", "boolean"}};
    case T::whole: return {{"type", "integer"}};
    case T::number: return named("number");
    case T::object: return object_of(fields, field.path);
    case T::texts: return list({{"type", "string"}});
    case T::numbers: return list(named("number"));
    case T::rows: return list(list(named("number")));
    case T::objects: return list(object_of(fields, field.path));
    case T::values: return {{"type", "object"}, {"additionalProperties", named("number")}};
    case T::words: break;
    }
    return {{"type", "object"}, {"additionalProperties", {{"type", "string"}}}};
}

Json object_of(std::span<const JsonField> fields, std::string_view path) {
    Json made = {{"type", "object"}, {"properties", Json::object()}, {"required", Json::array()}};
    for (const auto& [name, field] : within(fields, path)) {
        Json one = schema_of(fields, *field);
        one["description"] = field->doc;
        made["properties"][std::string(name)] = one;
        if (field->when.empty())
            made["required"].push_back(name);
    }
    return made;
}

} // namespace

std::string json_page() {
    std::string page =
        "# Answers for programs: --json\n\n"
        "Made by `kasuri-cli docs json`; the same as a JSON Schema by `kasuri-cli docs json-schema`, which is "
        "installed "
        "as `share/kasuri/kasuri-cli.schema.json`.\n\n"
        "With `--json` a command writes one JSON value (RFC 8259) on one line of standard output, and nothing else, "
        "also where it fails: an answer, with the result in it. The words for people stay on standard error. A few "
        "commands go through many things and write a line for each before the answer, which is the last line. What has "
        "no number is a text: `\"nan\"`, `\"inf\"`, `\"-inf\"`. A file is not written to standard output then.\n\n"
        "```sh\nkasuri-cli check filters/ --json | jq '.diagnostics[] | {file, line, code, what}'\n```\n\n"
        "A build server that checks every push: [build-server.md](build-server.md).\n\n## The answer\n\n" +
        table(around) + "What is in brackets tells when the field is there; others always are.\n\n";
    for (const DescribedCommand& command : described_commands()) {
        if (command.answers.result.empty())
            continue;
        page += fmt::format("## {}\n\n{}.\n\n", command.name, command.help);
        if (command.answers.rows)
            page += "A line for each colour: a list of numbers. Then the answer, whose result is\n\n";
        if (!command.answers.lines.empty())
            page +=
                "A line for each picture:\n\n" + table(command.answers.lines) + "Then the answer, whose result is\n\n";
        page += table(command.answers.result);
    }
    page.pop_back(); // one newline at the end
    return page;
}

std::string json_schema() {
    Json any = Json::array();
    for (const DescribedCommand& command : described_commands()) {
        if (command.answers.result.empty())
            continue;
        Json answer = object_of(around, "");
        answer["title"] = "the answer of " + command.name;
        answer["properties"]["version"] = {{"const", answer_version}};
        answer["properties"]["command"] = {{"const", command.name}};
        answer["properties"]["result"] = {{"anyOf", {object_of(command.answers.result, ""), {{"type", "null"}}}}};
        answer["required"].push_back("result");
        answer["if"] = {{"properties", {{"exit", {{"const", 0}}}}}};
        answer["then"] = {{"properties", {{"result", {{"type", "object"}}}}}};
        any.push_back(answer);
        if (command.answers.rows)
            any.push_back({{"title", "a line of " + command.name},
                           {"type", "array"},
                           {"items", {{"$ref", "#/definitions/number"}}}});
        if (!command.answers.lines.empty()) {
            Json line = object_of(command.answers.lines, "");
            line["title"] = "a line of " + command.name;
            any.push_back(line);
        }
    }
    Json nothing = object_of(around, "");
    nothing["title"] = "an answer where there is no such command";
    nothing["properties"]["version"] = {{"const", answer_version}};
    nothing["properties"]["command"] = {{"const", ""}};
    nothing["properties"]["result"] = {{"type", "null"}};
    any.push_back(nothing);
    const Json whole = {
        {"$schema", "http://json-schema.org/draft-07/schema#"},
        {"title", "A line that kasuri-cli writes with --json"},
        {"definitions", {{"number", {{"anyOf", {{{"type", "number"}}, {{"enum", {"nan", "inf", "-inf"}}}}}}}}},
        {"anyOf", any}};
    return whole.dump(1) + "\n";
}

} // namespace kasuri::cli
