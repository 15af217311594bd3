#include "lsp/framing.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <fmt/format.h>

namespace kasuri::lsp {
namespace {

constexpr std::size_t longest = std::size_t{64} << 20; ///< of a message; a text is at most 1 MB
constexpr std::size_t longest_header = 4096;

/// What Content-Length says among these lines.
std::optional<std::size_t> length_in(std::string_view headers) {
    std::optional<std::size_t> found;
    for (std::string_view line : split(headers, '\n')) {
        const std::size_t colon = line.find(':');
        if (colon == std::string_view::npos)
            continue;
        std::string name(trimmed(line.substr(0, colon)));
        std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
        const std::string_view value = trimmed(line.substr(colon + 1));
        std::size_t length = 0;
        if (name == "content-length" &&
            std::from_chars(value.data(), value.data() + value.size(), length).ec == std::errc() && length <= longest)
            found = length;
    }
    return found;
}

} // namespace

std::optional<std::string> Framing::next() {
    for (;;) {
        const std::size_t end = waiting_.find("\r\n\r\n");
        if (end == std::string::npos) {
            if (waiting_.size() > longest_header) // no header: the last bytes may be the beginning of one
                waiting_.erase(0, waiting_.size() - longest_header);
            return std::nullopt;
        }
        const auto length = length_in(std::string_view(waiting_).substr(0, end));
        if (!length) {
            waiting_.erase(0, end + 4);
            continue;
        }
        if (waiting_.size() < end + 4 + *length)
            return std::nullopt;
        std::string content = waiting_.substr(end + 4, *length);
        waiting_.erase(0, end + 4 + *length);
        return content;
    }
}

std::string Framing::framed(std::string_view content) {
    return fmt::format("Content-Length: {}\r\n\r\n{}", content.size(), content);
}

} // namespace kasuri::lsp
