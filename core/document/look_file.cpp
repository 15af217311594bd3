#include "document/look_file.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "document/filter_file.hpp"
#include "document/json_text.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <fmt/format.h>
#include <optional>
#include <utility>

namespace kasuri::document {
namespace {

constexpr std::size_t longest = 64u << 20;
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
        throw Wrong{said("its \"{}\" is not {}", key, translated(kind))};
    return found->get<Value>();
}
std::string text_in(const Json& object, const char* key, std::string usual = {}) {
    return field<std::string>(object, key, std::move(usual), &Json::is_string, "a text");
}

/// Proof lines are a list of texts, so that they can be read.
std::string lines_in(const Json& object, const char* key) {
    const auto found = object.find(key);
    std::string all;
    if (found == object.end())
        return all;
    if (!found->is_array() ||
        !std::all_of(found->begin(), found->end(), [](const Json& line) { return line.is_string(); }))
        throw Wrong{said("its \"{}\" must be a list of texts", key)};
    for (const Json& line : *found)
        all += line.get<std::string>() + "\n";
    return all;
}
Json lines_of(const std::string& text) {
    Json all = Json::array();
    std::string_view rest = text;
    while (!rest.empty()) {
        const std::size_t end = rest.find('\n');
        all.push_back(std::string(rest.substr(0, end)));
        rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
    }
    return all;
}

LookStep step_of(const Json& object, int depth, std::size_t& count);

std::vector<LookStep> steps_of(const Json& list, int depth, std::size_t& count) {
    if (!list.is_array() || count + list.size() > max_steps)
        throw Wrong{said("\"steps\" must be a list of at most {} entries", max_steps)};
    if (depth > deepest_look)
        throw Wrong{said("has looks within looks, more than {} deep", deepest_look)};
    count += list.size();
    std::vector<LookStep> steps;
    for (std::size_t i = 0; i < list.size(); ++i)
        try {
            steps.push_back(step_of(list[i], depth, count));
        } catch (const Wrong& wrong) {
            throw Wrong{said("step {}: {}", i + 1, translated(wrong.what))};
        }
    return steps;
}

LookStep step_of(const Json& object, int depth, std::size_t& count) {
    if (!object.is_object())
        throw Wrong{"is not a JSON object"};
    LookStep step;
    step.label = text_in(object, "label");
    step.filter = text_in(object, "filter");
    step.text = text_in(object, "text");
    step.on = field<bool>(object, "on", true, &Json::is_boolean, "true or false");
    step.opacity = field<double>(object, "opacity", 1, &Json::is_number, "a number");
    if (!(step.opacity >= 0 && step.opacity <= 1))
        throw Wrong{said("its opacity {} is not between 0 and 1", step.opacity)};
    step.blend = text_in(object, "blend", "normal");
    step.mask = text_in(object, "mask");
    step.mask_inverted = field<bool>(object, "mask-inverted", false, &Json::is_boolean, "true or false");
    if (const auto values = object.find("values"); values != object.end()) {
        if (!values->is_object())
            throw Wrong{"its \"values\" must be a JSON object"};
        for (const auto& [name, value] : values->items()) {
            if (!value.is_number() || !std::isfinite(value.get<double>()))
                throw Wrong{said("its value of {} is not a number", name)};
            step.values[name] = value.get<double>();
        }
    }
    if (const std::string hash = text_in(object, "hash"); !hash.empty() && hash != content_hash(step.text))
        throw Wrong{
            "its copy of the rule was changed by hand (its hash is another one); remove \"hash\" if that is meant"};
    const auto pixels = [&](const char* key, double least) {
        const double value = field<double>(object, key, 0, &Json::is_number, "a number");
        if (!(value >= least && value <= max_mask_pixels))
            throw Wrong{said("its {} {} is not between {} and {} pixels", key, value, least, max_mask_pixels)};
        return value;
    };
    step.mask_grow = pixels("mask-grow", -max_mask_pixels);
    step.mask_soften = pixels("mask-soften", 0);
    if (const auto uses = object.find("uses"); uses != object.end()) {
        if (!uses->is_object())
            throw Wrong{"its \"uses\" must be a JSON object"};
        for (const auto& [name, copy] : uses->items()) {
            if (!copy.is_string())
                throw Wrong{said("its copy of {} is not a text", name)};
            step.uses[name] = copy.get<std::string>();
        }
    }
    if (const auto within = object.find("steps"); within != object.end()) {
        step.is_look = true;
        step.within = steps_of(*within, depth + 1, count);
        step.proofs = lines_in(object, "proofs");
    }
    if (const auto bench = object.find("bench"); bench != object.end())
        step.bench = bench->dump(1, '\t', false, Json::error_handler_t::replace) + "\n"; // as bench_text writes it
    step.lut = text_in(object, "lut");
    const bool plain_ending = step.lut.starts_with('.') && step.lut.find_first_of("/.", 1) == std::string::npos;
    if (!step.lut.empty() && !(plain_ending && is_kind("x" + step.lut, FileKind::lut)))
        throw Wrong{said("its \"lut\" is {}, which is not the ending of a LUT file", step.lut)};
    step.space = text_in(object, "space", "srgb");
    const std::string between = text_in(object, "between", "tetrahedral");
    if (between != "tetrahedral" && between != "trilinear")
        throw Wrong{said("its \"between\" is {}; a LUT is read tetrahedral or trilinear", between)};
    step.trilinear = between == "trilinear";
    if (!step.filter.empty() && !step.is_look && !object.contains("text"))
        throw Wrong{
            said("it names {} but has no copy of it (\"text\"), and a look does what its copies say", step.filter)};
    if (!step.lut.empty())
        step.lut_text = SharedText(std::exchange(step.text, {}));
    step.origin.look_file = true;
    step.others =
        rest_of(object,
                {"lut", "space", "between", "label", "filter", "text", "hash", "on", "opacity", "blend", "mask",
                 "mask-inverted", "mask-grow", "mask-soften", "uses", "steps", "proofs", "bench", "values"});
    return step;
}

} // namespace

std::string content_hash(std::string_view text) {
    std::uint64_t hash = 0xcbf29ce484222325ULL;
    for (const char c : text)
        hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return fmt::format("{:016x}", hash);
}

namespace {

Json written(const LookStep& step) {
    Json object = {{"label", step.label}, {"filter", step.filter}};
    if (!step.is_look) {
        object["values"] = Json::object();
        for (const auto& [name, value] : step.values)
            object["values"][name] = value;
    }
    object["on"] = step.on;
    object["opacity"] = step.opacity;
    object["blend"] = step.blend;
    object["mask"] = step.mask;
    object["mask-inverted"] = step.mask_inverted;
    if (step.mask_grow != 0)
        object["mask-grow"] = step.mask_grow;
    if (step.mask_soften != 0)
        object["mask-soften"] = step.mask_soften;
    if (step.is_look) {
        object["steps"] = Json::array();
        for (const LookStep& each : step.within)
            object["steps"].push_back(written(each));
        if (!step.proofs.empty())
            object["proofs"] = lines_of(step.proofs);
    } else {
        object["hash"] = step.lut.empty() ? content_hash(step.text) : step.lut_text.hash();
        object["text"] = step.lut.empty() ? step.text : step.lut_text.text();
    }
    if (!step.lut.empty()) {
        object["lut"] = step.lut;
        object["space"] = step.space;
        if (step.trilinear)
            object["between"] = "trilinear";
    }
    for (const auto& [name, copy] : step.uses)
        object["uses"][name] = copy;
    if (!step.bench.empty())
        object["bench"] = Json::parse(step.bench, nullptr, false);
    add_rest(object, step.others);
    return object;
}

template <class Change>
void change_paths(std::vector<LookStep>& steps, Change change) {
    for (LookStep& step : steps) {
        if (!step.filter.empty())
            step.filter = change(std::filesystem::path(step.filter)).generic_string();
        change_paths(step.within, change);
    }
}

} // namespace

std::string look_text(const Look& look) {
    Json all;
    all[version_key] = look_version;
    all["title"] = look.title;
    all["note"] = look.note;
    if (!look.proofs.empty())
        all["proofs"] = lines_of(look.proofs);
    all["steps"] = Json::array();
    for (const LookStep& step : look.steps)
        all["steps"].push_back(written(step));
    add_rest(all, look.others);
    return all.dump(1, '\t', false, Json::error_handler_t::replace) + "\n";
}

Result<Look> look_of(std::string_view text, const std::string& where) {
    const Result<Json> read = json_object(text, where, left_as_it_is);
    if (!read)
        return Error{said("is not a look: {}", read.error().what), where, left_as_it_is};
    const Json& all = read.value();
    const std::int64_t version = whole_number(all, version_key, 0);
    if (version < 1)
        return Error{said("has no number under \"{}\"", version_key), where, left_as_it_is};
    if (version > look_version)
        return Error{said("is of version {}; this Kasuri knows version {}", version, look_version), where,
                     left_as_it_is};
    Look look;
    std::size_t count = 0;
    try {
        look.title = text_in(all, "title");
        look.note = text_in(all, "note");
        if (const auto steps = all.find("steps"); steps != all.end())
            look.steps = steps_of(*steps, 0, count);
        look.proofs = lines_in(all, "proofs");
    } catch (const Wrong& wrong) {
        return Error{wrong.what, where, left_as_it_is};
    }
    look.others = rest_of(all, {version_key, "title", "note", "steps", "proofs"});
    return look;
}

namespace {

void came_from(std::vector<LookStep>& steps, const std::filesystem::path& folder) {
    for (LookStep& step : steps) {
        step.origin.folder = folder;
        came_from(step.within, folder);
    }
}

} // namespace

Result<Look> load_look(const std::filesystem::path& path) {
    const Result<std::string> text = read_file(path, longest);
    Result<Look> look = text ? look_of(text.value(), path.string()) : Result<Look>(text.error());
    std::error_code error;
    if (look)
        came_from(look.value().steps, std::filesystem::absolute(path, error).parent_path());
    return look;
}

bool may_open_file(const LookStep& step, const std::filesystem::path& folder) {
    if (step.filter.empty())
        return false;
    if (!step.origin.look_file)
        return true;
    if (step.origin.folder.empty())
        return false;
    std::error_code error;
    const std::filesystem::path own = std::filesystem::weakly_canonical(step.origin.folder, error),
                                file = std::filesystem::weakly_canonical(folder / step.filter, error);
    const auto [end, at] = std::mismatch(own.begin(), own.end(), file.begin(), file.end());
    return !error && end == own.end() && at != file.end();
}

namespace {

std::size_t count_of(const std::vector<LookStep>& steps) {
    std::size_t count = steps.size();
    for (const LookStep& step : steps)
        count += count_of(step.within);
    return count;
}

int depth_of(const std::vector<LookStep>& steps) {
    int depth = 0;
    for (const LookStep& step : steps)
        if (step.is_look)
            depth = std::max(depth, 1 + depth_of(step.within));
    return depth;
}

} // namespace

Status fits_limits(const Look& look) {
    if (const std::size_t count = count_of(look.steps); count > max_steps)
        return Error{said("has {} steps, with those of looks within it; {} are the most", count, max_steps), look.title,
                     "Make two looks of it."};
    if (const int depth = depth_of(look.steps); depth > deepest_look)
        return Error{said("has looks within looks, {} deep; {} is the deepest", depth, deepest_look), look.title,
                     "Take one of them apart."};
    return {};
}

Status save_look(const std::filesystem::path& path, const Look& look) {
    if (const Status fits = fits_limits(look); !fits)
        return Error{fits.error().what, path.string(), fits.error().remedy};
    return write_file(path, look_text(look));
}

SharedText::SharedText(std::string text) {
    std::string hash = content_hash(text);
    of_ = std::make_shared<const Data>(Data{std::move(text), std::move(hash)});
}

const std::shared_ptr<const SharedText::Data>& SharedText::nothing() {
    static const auto one = std::make_shared<const Data>(Data{{}, content_hash({})});
    return one;
}

bool is_no_rule(const LookStep& step) { return step.is_look || !step.lut.empty(); }

bool is_one_filter(const Look& look) {
    if (look.steps.size() != 1 || !look.title.empty() || !look.note.empty() || !look.proofs.empty())
        return false;
    const LookStep& step = look.steps.front();
    return step.on && !is_no_rule(step) && step.opacity == 1 && step.blend == "normal" && step.mask.empty() &&
        step.label.empty();
}

FilterState state_of(const LookStep& step, const std::filesystem::path& folder) {
    if (!may_open_file(step, folder))
        return FilterState::none;
    if (step.is_look) {
        Result<Look> now = load_look(folder / step.filter);
        if (!now)
            return FilterState::gone;
        Look was;
        was.steps = step.within;
        make_absolute(now.value(), (folder / step.filter).parent_path());
        make_absolute(was, folder);
        const bool same = now.value().steps == was.steps && now.value().proofs == step.proofs;
        return same ? FilterState::same : FilterState::changed;
    }
    const Result<std::string> now =
        step.lut.empty() ? load_filter(folder / step.filter) : read_file(folder / step.filter, longest);
    return !now                                                                ? FilterState::gone
        : now.value() == (step.lut.empty() ? step.text : step.lut_text.text()) ? FilterState::same
                                                                               : FilterState::changed;
}

std::function<Result<std::string>(const std::string&)> used_by(const LookStep& step,
                                                               const std::filesystem::path& folder) {
    return [copies = step.uses, alone = step.origin.look_file,
            beside = used_beside(folder / step.filter)](const std::string& name) -> Result<std::string> {
        if (const auto copy = copies.find(name); copy != copies.end())
            return copy->second;
        if (alone)
            return Error{"the look has no copy of it", "", "Bring the step up to date with its file."};
        return beside(name);
    };
}

Result<LookStep> step_from(const std::filesystem::path& file) {
    LookStep step;
    step.filter = file.generic_string();
    if (is_kind(file, FileKind::lut)) {
        Result<std::string> content = read_file(file, longest);
        if (!content)
            return content.error();
        if (utf8_fault(content.value()) != std::string::npos)
            return Error{"is not a text LUT", file.string(), ""};
        step.lut = lower_ending(file);
        step.lut_text = SharedText(std::move(content.value()));
        return step;
    }
    if (!is_kind(file, FileKind::look)) {
        Result<std::string> text = load_filter(file);
        if (!text)
            return text.error();
        step.text = std::move(text.value());
        return step;
    }
    Result<Look> look = load_look(file);
    if (!look)
        return look.error();
    make_absolute(look.value(), file.parent_path());
    step.is_look = true;
    step.label = look.value().title;
    step.proofs = look.value().proofs;
    step.within = std::move(look.value().steps);
    return step;
}

void make_relative(Look& look, const std::filesystem::path& folder) {
    std::error_code error;
    const std::filesystem::path whole = std::filesystem::absolute(folder, error);
    change_paths(look.steps, [&](const std::filesystem::path& path) {
        return path.is_absolute() ? path.lexically_proximate(whole) : path;
    });
}

void make_absolute(Look& look, const std::filesystem::path& folder) {
    std::error_code error;
    const std::filesystem::path whole = std::filesystem::absolute(folder, error);
    change_paths(look.steps, [&](const std::filesystem::path& path) {
        return path.is_absolute() ? path : (whole / path).lexically_normal();
    });
}

Result<LookStep> brought_up_to_date(const LookStep& step, const std::filesystem::path& folder) {
    Result<LookStep> now = step_from(folder / step.filter);
    if (!now)
        return now.error();
    LookStep fresh = step;
    fresh.text = std::move(now.value().text);
    fresh.within = std::move(now.value().within);
    fresh.is_look = now.value().is_look;
    fresh.proofs = std::move(now.value().proofs);
    fresh.lut = now.value().lut;
    fresh.lut_text = std::move(now.value().lut_text);
    fresh.uses.clear();
    fresh.origin = {}; // the user has agreed to that file
    return fresh;
}

} // namespace kasuri::document
