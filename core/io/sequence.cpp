#include "io/sequence.hpp"

#include "base/movie_name.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <map>
#include <optional>
#include <string>

namespace kasuri::io {
namespace {

std::optional<int> number_of(const std::string& digits) {
    int number = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), number);
    return error == std::errc() ? std::optional(number) : std::nullopt; // more digits than frames can have
}

} // namespace

std::optional<FrameName> frame_name(const std::filesystem::path& path) {
    const std::string stem = path.stem().string(), ending = path.extension().string();
    std::size_t begin = 0, length = 0;
    for (std::size_t i = 0; i < stem.size();) {
        std::size_t end = i;
        while (end < stem.size() && std::isdigit(static_cast<unsigned char>(stem[end])) != 0)
            ++end;
        if (end > i && end - i >= length) {
            begin = i;
            length = end - i;
        }
        i = std::max(end, i + 1);
    }
    if (length == 0)
        return std::nullopt;
    return FrameName{stem.substr(0, begin), stem.substr(begin, length), stem.substr(begin + length) + ending};
}

Sequence sequence_of(const std::filesystem::path& path) {
    const std::optional<FrameName> own = frame_name(path);
    if (!own || !number_of(own->digits))
        return {};
    std::map<int, std::filesystem::path> found;
    std::error_code unreadable;
    const std::filesystem::path folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    for (std::filesystem::directory_iterator entry(folder, unreadable), end; !unreadable && entry != end;
         entry.increment(unreadable)) {
        const std::optional<FrameName> other = frame_name(entry->path().filename());
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

Sequence sequence_of_movie(const std::filesystem::path& movie, int frames, int at) {
    Sequence sequence;
    if (frames < 2)
        return sequence;
    sequence.frames.reserve(static_cast<std::size_t>(frames));
    for (int number = 1; number <= frames; ++number)
        sequence.frames.push_back({number, frame_path(movie, number)});
    sequence.at = static_cast<std::size_t>(std::clamp(at, 1, frames) - 1);
    return sequence;
}

} // namespace kasuri::io
