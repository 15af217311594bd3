#include "base/movie_name.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"

#include <algorithm>
#include <cctype>

namespace kasuri {
namespace {

bool digits(std::string_view text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), [](unsigned char c) { return std::isdigit(c) != 0; });
}

/// "120", "4.5s", "01:00:04:12" (the last colon may be a semicolon: drop-frame timecode).
bool is_place(std::string_view text) {
    if (digits(text))
        return true;
    if (text.ends_with('s')) {
        const std::string_view number = text.substr(0, text.size() - 1);
        const std::size_t dot = number.find('.');
        return dot == std::string_view::npos ? digits(number)
                                             : digits(number.substr(0, dot)) && digits(number.substr(dot + 1));
    }
    for (std::size_t i = 0; i < text.size(); ++i)
        if (i % 3 == 2 ? text[i] != ':' && (text[i] != ';' || i != 8) : !digits(text.substr(i, 1)))
            return false;
    return text.size() == 11;
}

} // namespace

MovieFrame movie_frame(const std::filesystem::path& path) {
    const std::string& name = path.native();
    const std::size_t mark = name.rfind('@');
    if (mark != std::string::npos && is_place(std::string_view(name).substr(mark + 1)) &&
        is_kind(name.substr(0, mark), FileKind::movie)) {
        std::error_code none;
        if (!std::filesystem::exists(path, none))
            return {name.substr(0, mark), name.substr(mark + 1)};
    }
    return is_kind(path, FileKind::movie) ? MovieFrame{path, {}} : MovieFrame{};
}

std::filesystem::path frame_path(const std::filesystem::path& movie, int number) {
    return number <= 1 ? movie : std::filesystem::path(movie.native() + "@" + std::to_string(number));
}

std::filesystem::path file_of(const std::filesystem::path& path) {
    MovieFrame frame = movie_frame(path);
    return frame.movie.empty() ? path : std::move(frame.movie);
}

} // namespace kasuri
