#include "document/look_text.hpp"

namespace kasuri::document {
namespace {

constexpr int max_files = 64;

} // namespace

std::vector<std::string> strings_after(std::string_view text, std::string_view word) {
    std::vector<std::string> found;
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t end = std::min(text.find('\n', at), text.size());
        std::string_view line = text.substr(at, end - at);
        at = end + 1;
        line.remove_prefix(std::min(line.find_first_not_of(" \t"), line.size()));
        if (!line.starts_with(word))
            continue;
        line.remove_prefix(word.size());
        const std::size_t open = line.find_first_not_of(" \t");
        if (open == std::string_view::npos || line[open] != '"')
            continue;
        const std::size_t close = line.find('"', open + 1);
        if (close != std::string_view::npos)
            found.emplace_back(line.substr(open + 1, close - open - 1));
    }
    return found;
}

std::string title_in(std::string_view text) {
    const std::vector<std::string> titles = strings_after(text, "filter");
    return titles.empty() ? std::string() : titles.front();
}

std::vector<std::string> uses_in(std::string_view text) { return strings_after(text, "use"); }

std::vector<std::string> keep_used_files(LookStep& step) {
    std::vector<std::string> taken;
    for (LookStep& each : step.within)
        for (std::string& name : keep_used_files(each))
            taken.push_back(std::move(name));
    std::vector<std::string> wanted = uses_in(step.text);
    for (std::size_t i = 0; i < wanted.size() && wanted.size() < max_files; ++i) {
        const std::string name = wanted[i];
        if (const Result<std::string> text = used_by(step, {})(name)) {
            if (step.uses.try_emplace(name, text.value()).second)
                taken.push_back(name);
            for (const std::string& further : uses_in(text.value()))
                if (!step.uses.contains(further))
                    wanted.push_back(further);
        }
    }
    return taken;
}

} // namespace kasuri::document
