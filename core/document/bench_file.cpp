#include "document/bench_file.hpp"

#include "base/file.hpp"
#include "document/json_text.hpp"

#include <cmath>
#include <fmt/format.h>

namespace kasuri::document {
namespace {

constexpr std::size_t longest = 64u << 20;
constexpr const char* version_key = "kasuri-bench";

/// What is asked of a field; empty if it is not there or of another kind.
std::string text_in(const Json& object, const char* key) {
    const auto found = object.find(key);
    return found != object.end() && found->is_string() ? found->get<std::string>() : std::string();
}

int whole_in(const Json& object, const char* key) {
    const auto found = object.find(key);
    return found != object.end() && found->is_number_integer() ? found->get<int>() : 0;
}

Json number(double value) {
    if (std::isfinite(value))
        return value;
    return std::isnan(value) ? "nan" : value > 0 ? "inf" : "-inf"; // JSON has none of them
}

double number_in(const Json& value) {
    if (value.is_number())
        return value.get<double>();
    const std::string word = value.is_string() ? value.get<std::string>() : "nan";
    return word == "inf" ? INFINITY : word == "-inf" ? -INFINITY : NAN;
}

} // namespace

std::filesystem::path bench_path(const std::filesystem::path& filter) {
    return filter.string() + std::string(bench_ending);
}

std::string bench_text(const BenchFile& bench) {
    Json all;
    all[version_key] = bench_version;
    all["takes"] = Json::array();
    for (const KeptTake& take : bench.takes) {
        Json values = Json::object();
        for (const auto& [name, value] : take.values)
            values[name] = number(value);
        all["takes"].push_back({{"name", take.name}, {"values", values}, {"text", take.text}});
    }
    all["pins"] = Json::array();
    for (const KeptPin& pin : bench.pins)
        all["pins"].push_back({{"number", pin.number}, {"of", pin.source}, {"x", pin.x}, {"y", pin.y}});
    if (!bench.tuning.links.empty())
        all["links"] = bench.tuning.links;
    for (const auto& [name, range] : bench.tuning.ranges)
        all["ranges"][name] = {number(range.first), number(range.second)};
    if (!bench.context.empty())
        all["context"] = bench.context;
    if (const Json others = Json::parse(bench.others, nullptr, false); others.is_object())
        for (const auto& [key, value] : others.items())
            all[key] = value;
    return all.dump(1, '\t', false, Json::error_handler_t::replace) + "\n";
}

Result<BenchFile> bench_of(std::string_view text, const std::string& where) {
    Result<Json> read = json_object(
        text, where, "Takes and pins are not shown; the file is left as it is. Move it away to keep new ones.");
    if (!read)
        return read.error();
    Json& all = read.value();
    const std::int64_t version = whole_number(all, version_key, 0);
    if (version < 1)
        return Error{said("has no number under \"{}\"", version_key), where,
                     "Takes and pins are not shown; the file is left as it is. Move it away to keep new ones."};
    if (version > bench_version)
        return Error{said("is of version {}; this Kasuri knows version {}", version, bench_version), where,
                     "Takes and pins are not shown; the file is left as it is."};
    BenchFile bench;
    const auto list = [&](const char* key) {
        return all.contains(key) && all[key].is_array() ? all[key] : Json::array();
    };
    for (const Json& entry : list("takes")) {
        if (!entry.is_object())
            continue;
        KeptTake take{text_in(entry, "name"), text_in(entry, "text"), {}};
        if (const auto values = entry.find("values"); values != entry.end() && values->is_object())
            for (const auto& [name, value] : values->items())
                take.values[name] = number_in(value);
        bench.takes.push_back(std::move(take));
    }
    for (const Json& entry : list("pins"))
        if (entry.is_object() && whole_in(entry, "number") > 0)
            bench.pins.push_back(
                {whole_in(entry, "number"), text_in(entry, "of"), whole_in(entry, "x"), whole_in(entry, "y")});
    for (const Json& entry : list("links")) {
        std::vector<std::string> group;
        for (const Json& name : entry)
            if (name.is_string())
                group.push_back(name.get<std::string>());
        if (group.size() > 1)
            bench.tuning.links.push_back(std::move(group));
    }
    if (const auto ranges = all.find("ranges"); ranges != all.end() && ranges->is_object())
        for (const auto& [name, range] : ranges->items())
            if (range.is_array() && range.size() == 2 && number_in(range[0]) < number_in(range[1]))
                bench.tuning.ranges[name] = {number_in(range[0]), number_in(range[1])};
    if (const auto context = all.find("context"); context != all.end() && context->is_object())
        for (const auto& [name, value] : context->items())
            if (value.is_string())
                bench.context[name] = value.get<std::string>();
    for (const char* known : {version_key, "takes", "pins", "links", "ranges", "context"})
        all.erase(known);
    if (!all.empty())
        bench.others = all.dump(-1, ' ', false, Json::error_handler_t::replace);
    return bench;
}

Result<BenchFile> load_bench(const std::filesystem::path& filter) {
    const std::filesystem::path path = bench_path(filter);
    std::error_code error;
    if (!std::filesystem::exists(path, error))
        return BenchFile{};
    const Result<std::string> text = read_file(path, longest);
    if (!text)
        return text.error();
    return bench_of(text.value(), path.string());
}

Status save_bench(const std::filesystem::path& filter, const BenchFile& bench) {
    const std::filesystem::path path = bench_path(filter);
    if (!bench.empty())
        return write_file(path, bench_text(bench));
    std::error_code error;
    std::filesystem::remove(path, error); // an empty one says nothing
    return {};
}

} // namespace kasuri::document
