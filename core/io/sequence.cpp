#include "io/sequence.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <map>
#include <optional>
#include <string>

namespace kasuri::io {
namespace {

/// A file name around its last run of digits, endings left out.
struct Numbered {
    std::string before, digits, after;
};

std::optional<Numbered> numbered(const std::filesystem::path& path) {
    const std::string stem = path.stem().string(), ending = path.extension().string();
    const auto digit = [](char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; };
    const auto last = std::find_if(stem.rbegin(), stem.rend(), digit);
    if (last == stem.rend())
        return std::nullopt;
    const auto first = std::find_if_not(last, stem.rend(), digit);
    const std::size_t begin = static_cast<std::size_t>(stem.rend() - first),
                      end = static_cast<std::size_t>(stem.rend() - last);
    return Numbered{stem.substr(0, begin), stem.substr(begin, end - begin), stem.substr(end) + ending};
}

std::optional<int> number_of(const std::string& digits) {
    int number = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), number);
    return error == std::errc() ? std::optional(number) : std::nullopt; // more digits than frames can have
}

} // namespace

Sequence sequence_of(const std::filesystem::path& path) {
    const std::optional<Numbered> own = numbered(path);
    if (!own || !number_of(own->digits))
        return {};
    std::map<int, std::filesystem::path> found;
    std::error_code unreadable;
    const std::filesystem::path folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    for (std::filesystem::directory_iterator entry(folder, unreadable), end; !unreadable && entry != end;
         entry.increment(unreadable)) {
        const std::optional<Numbered> other = numbered(entry->path().filename());
        if (!other || other->before != own->before || other->after != own->after)
            continue;
        const std::optional<int> number = number_of(other->digits);
        if (!number)
            continue;
        const bool alike = other->digits.size() == own->digits.size();
        if (alike || !found.contains(*number))
            found[*number] = path.has_parent_path() ? folder / entry->path().filename() : entry->path().filename();
    }
    Sequence sequence;
    for (const auto& [number, file] : found) {
        if (number == *number_of(own->digits))
            sequence.at = sequence.frames.size();
        sequence.frames.push_back({number, file});
    }
    if (sequence.frames.size() < 2)
        return {};
    return sequence;
}

} // namespace kasuri::io
