#include "document/look_file.hpp"

#include "base/file.hpp"
#include "document/filter_file.hpp"

#include <cmath>
#include <cstdint>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <optional>

namespace kasuri::document {
namespace {

using Json = nlohmann::ordered_json;
constexpr std::size_t longest = 64u << 20;
constexpr std::size_t most_steps = 1000;
constexpr int deepest = 64; ///< levels of a JSON text; what we write has four
constexpr const char* version_key = "kasuri-look";
const std::string left_as_it_is = "The file is left as it is.";

/// Fields that are not known are written again.
std::string rest_of(Json object, std::initializer_list<const char*> known) {
    for (const char* key : known)
        object.erase(key);
    return object.empty() ? std::string() : object.dump(-1, ' ', false, Json::error_handler_t::replace);
}
void add_rest(Json& object, const std::string& others) {
    if (const Json rest = Json::parse(others, nullptr, false); rest.is_object())
        for (const auto& [key, value] : rest.items())
            object[key] = value;
}

/// A text that nests too deeply would be walked by recursion.
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
        if (depth > deepest)
            return true;
    }
    return false;
}

/// What is wrong with a step, said once.
struct Wrong {
    std::string what;
};

template <class Value>
Value field(const Json& object, const char* key, Value usual, bool (Json::*is)() const noexcept, const char* kind) {
    const auto found = object.find(key);
    if (found == object.end())
        return usual;
    if (!((*found).*is)())
        throw Wrong{fmt::format("its \"{}\" is not {}", key, kind)};
    return found->get<Value>();
}
std::string text_in(const Json& object, const char* key, std::string usual = {}) { return field<std::string>(object, key, std::move(usual), &Json::is_string, "a text"); }

LookStep step_of(const Json& object) {
    if (!object.is_object())
        throw Wrong{"is no JSON object"};
    LookStep step;
    step.label = text_in(object, "label");
    step.filter = text_in(object, "filter");
    step.text = text_in(object, "text");
    step.on = field<bool>(object, "on", true, &Json::is_boolean, "true or false");
    step.opacity = field<double>(object, "opacity", 1, &Json::is_number, "a number");
    if (!(step.opacity >= 0 && step.opacity <= 1))
        throw Wrong{fmt::format("its opacity {} is not between 0 and 1", step.opacity)};
    step.blend = text_in(object, "blend", "normal");
    step.mask = text_in(object, "mask");
    step.mask_inverted = field<bool>(object, "mask-inverted", false, &Json::is_boolean, "true or false");
    if (const auto values = object.find("values"); values != object.end()) {
        if (!values->is_object())
            throw Wrong{"its \"values\" are no JSON object"};
        for (const auto& [name, value] : values->items()) {
            if (!value.is_number() || !std::isfinite(value.get<double>()))
                throw Wrong{fmt::format("its value of {} is not a number", name)};
            step.values[name] = value.get<double>();
        }
    }
    if (const std::string hash = text_in(object, "hash"); !hash.empty() && hash != content_hash(step.text))
        throw Wrong{"its copy of the rule was changed by hand (its hash is another one); remove \"hash\" if that is meant"};
    step.others = rest_of(object, {"label", "filter", "text", "hash", "on", "opacity", "blend", "mask", "mask-inverted", "values"});
    return step;
}

} // namespace

std::string content_hash(std::string_view text) {
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    for (const char c : text)
        hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return fmt::format("{:016x}", hash);
}

std::string look_text(const Look& look) {
    Json all;
    all[version_key] = look_version;
    all["title"] = look.title;
    all["note"] = look.note;
    all["steps"] = Json::array();
    for (const LookStep& step : look.steps) {
        Json values = Json::object();
        for (const auto& [name, value] : step.values)
            values[name] = value;
        Json object = {{"label", step.label}, {"filter", step.filter}, {"values", values}, {"on", step.on}, {"opacity", step.opacity}, {"blend", step.blend},
                       {"mask", step.mask}, {"mask-inverted", step.mask_inverted}, {"hash", content_hash(step.text)}, {"text", step.text}};
        add_rest(object, step.others);
        all["steps"].push_back(std::move(object));
    }
    add_rest(all, look.others);
    return all.dump(1, '\t', false, Json::error_handler_t::replace) + "\n";
}

Result<Look> look_of(std::string_view text, const std::string& where) {
    if (too_deep(text))
        return Error{"nests too deeply to be a look", where, left_as_it_is};
    const Json all = Json::parse(text, nullptr, false);
    if (!all.is_object())
        return Error{"is no look (no JSON object)", where, left_as_it_is};
    const auto version = all.find(version_key);
    if (version == all.end() || !version->is_number_integer() || version->get<int>() < 1)
        return Error{fmt::format("has no number under \"{}\"", version_key), where, left_as_it_is};
    if (version->get<int>() > look_version)
        return Error{fmt::format("is of version {}; this Kasuri knows version {}", version->get<int>(), look_version), where, left_as_it_is};
    Look look;
    const auto steps = all.find("steps");
    if (steps != all.end() && (!steps->is_array() || steps->size() > most_steps))
        return Error{fmt::format("its \"steps\" are no list of at most {}", most_steps), where, left_as_it_is};
    std::size_t number = 0;
    try {
        look.title = text_in(all, "title");
        look.note = text_in(all, "note");
        for (std::size_t i = 0; steps != all.end() && i < steps->size(); ++i) {
            number = i + 1;
            look.steps.push_back(step_of((*steps)[i]));
        }
    } catch (const Wrong& wrong) {
        return Error{number == 0 ? wrong.what : fmt::format("step {}: {}", number, wrong.what), where, left_as_it_is};
    }
    look.others = rest_of(all, {version_key, "title", "note", "steps"});
    return look;
}

Result<Look> load_look(const std::filesystem::path& path) {
    const Result<std::string> text = read_file(path, longest);
    return text ? look_of(text.value(), path.string()) : Result<Look>(text.error());
}

Status save_look(const std::filesystem::path& path, const Look& look) { return write_file(path, look_text(look)); }

FilterState state_of(const LookStep& step, const std::filesystem::path& folder) {
    if (step.filter.empty())
        return FilterState::none;
    const Result<std::string> now = load_filter(folder / step.filter);
    return !now ? FilterState::gone : now.value() == step.text ? FilterState::same : FilterState::changed;
}

Result<LookStep> brought_up_to_date(const LookStep& step, const std::filesystem::path& folder) {
    Result<std::string> now = load_filter(folder / step.filter);
    if (!now)
        return now.error();
    LookStep fresh = step;
    fresh.text = std::move(now.value());
    return fresh;
}

} // namespace kasuri::document
