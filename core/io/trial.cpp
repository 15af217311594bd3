#include "io/trial.hpp"

#include "io/helper.hpp"

#include <functional>
#include <mutex>
#include <set>
#include <utility>

namespace kasuri::io {
namespace {

Status tried(const wire::Message& message, const std::string& where) {
    const Result<HelperLease> helper = HelperLease::of(Task::tables, where);
    if (!helper)
        return helper.error();
    const Result<wire::Message> answer = helper.value()->ask(message);
    if (!answer)
        return answer.error();
    const bool came_back = answer.value().kind == wire::Message::Kind::done;
    if (came_back && answer.value().n[0] == 0)
        helper.value()->rest(); // it refused nothing
    if (came_back)
        return {};
    return Error{answer.value().n[0] == 1 ? "does not fit into memory"
                                          : said("cannot be read: {}", answer.value().text),
                 where, "Is the file whole?"};
}

} // namespace

Status try_file(wire::Message::Kind kind, const std::filesystem::path& path, const std::string& more) {
    return tried({kind, path.string(), more}, path.string());
}

Status try_lut(std::string_view text, const std::string& ending, const std::string& where) {
    static std::mutex mutex;
    static std::set<std::pair<std::size_t, std::size_t>> good; // length and hash: of a text that was read, not a proof
    const std::pair key{text.size(), std::hash<std::string_view>()(text) ^ std::hash<std::string>()(ending)};
    {
        const std::lock_guard lock(mutex);
        if (good.contains(key))
            return {};
    }
    const Status status = tried({wire::Message::Kind::lut, std::string(text), ending}, where);
    if (status) {
        const std::lock_guard lock(mutex);
        good.insert(key);
    }
    return status;
}

} // namespace kasuri::io
