#include "document/recovery_file.hpp"

#include "document/json_text.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::document {
namespace {
constexpr const char* version_key = "kasuri-recovery";
} // namespace

std::string recovery_text(const Recovery& recovery) {
    // Chosen values stand as a take of their own, so that there is one way to write numbers.
    BenchFile state;
    state.takes = {{"", recovery.text, recovery.values}};
    const Json all = {{version_key, recovery_version},       {"path", recovery.path}, {"state", bench_text(state)},
                      {"bench", bench_text(recovery.bench)}, {"look", recovery.look}, {"active", recovery.active}};
    return all.dump(1, '\t', false, Json::error_handler_t::replace) + "\n";
}

Result<Recovery> recovery_of(std::string_view text, const std::string& where) {
    const Result<Json> read = json_object(text, where, "It is left where it is.");
    if (!read)
        return read.error();
    const Json& all = read.value();
    const auto fault = [&](std::string what) { return Error{std::move(what), where, "It is left where it is."}; };
    const std::int64_t version = whole_number(all, version_key, 0);
    if (version < 1)
        return fault("is not a recovery file");
    if (version > recovery_version)
        return fault(said("is a recovery file of version {}; this Kasuri knows version {}", version, recovery_version));
    const auto part = [&](const char* key) {
        return all.contains(key) && all[key].is_string() ? all[key].get<std::string>() : std::string();
    };
    const Result<BenchFile> state = bench_of(part("state"), where), bench = bench_of(part("bench"), where);
    if (!state || state.value().takes.size() != 1)
        return fault("has no text in it");
    Recovery recovery;
    recovery.path = part("path");
    recovery.text = state.value().takes.front().text;
    recovery.values = state.value().takes.front().values;
    if (bench)
        recovery.bench = bench.value();
    recovery.look = part("look");
    for (const char* key : {"in-hand", "active"}) // the first: of versions before 0.2
        if (all.contains(key) && all[key].is_number_integer())
            recovery.active = static_cast<int>(std::clamp<std::int64_t>(whole_number(all, key, 0), 0, 1'000'000));
    return recovery;
}

} // namespace kasuri::document
