#include "document/json_text.hpp"

#include "base/text.hpp"

namespace kasuri::document {
namespace {

bool too_deep(std::string_view text) {
    int depth = 0;
    bool quoted = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted && c == '\\')
            ++i;
        else if (c == '"')
            quoted = !quoted;
        else if (!quoted && (c == '{' || c == '['))
            ++depth;
        else if (!quoted && (c == '}' || c == ']'))
            --depth;
        if (depth > deepest_json)
            return true;
    }
    return false;
}

} // namespace

Result<Json> json_object(std::string_view text, const std::string& where, const std::string& remedy) {
    if (too_deep(text))
        return Error{said("nests too deeply: {} levels are the most", deepest_json), where, remedy};
    try {
        Json all = Json::parse(text);
        if (all.is_object())
            return all;
        return Error{said("is {}, not a JSON object", all.type_name()), where, remedy};
    } catch (const Json::parse_error& fault) {
        const LineColumn place = line_column(text, fault.byte > 0 ? fault.byte - 1 : 0);
        return Error{said("is not a JSON object: it breaks off in line {}, column {}", place.line, place.column), where,
                     remedy};
    } catch (const Json::exception&) { // a number that nothing can hold
        return Error{"is not a JSON object: a number in it is too large", where, remedy};
    }
}

std::int64_t whole_number(const Json& object, const char* key, std::int64_t usual) {
    const auto found = object.find(key);
    return found != object.end() && found->is_number_integer() ? found->get<std::int64_t>() : usual;
}

} // namespace kasuri::document
