#include "base/text.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace kasuri {

int edit_distance(std::string_view a, std::string_view b) {
    const std::size_t width = b.size() + 1;
    std::vector<int> rows((a.size() + 1) * width);
    const auto at = [&](std::size_t i, std::size_t j) -> int& { return rows[i * width + j]; };
    for (std::size_t i = 0; i <= a.size(); ++i)
        at(i, 0) = static_cast<int>(i);
    for (std::size_t j = 0; j <= b.size(); ++j)
        at(0, j) = static_cast<int>(j);
    for (std::size_t i = 1; i <= a.size(); ++i)
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const int replace = at(i - 1, j - 1) + (a[i - 1] == b[j - 1] ? 0 : 1);
            int best = std::min({at(i - 1, j) + 1, at(i, j - 1) + 1, replace});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                best = std::min(best, at(i - 2, j - 2) + 1);
            at(i, j) = best;
        }
    return at(a.size(), b.size());
}

std::optional<std::string> did_you_mean(std::string_view word, std::span<const std::string> candidates) {
    constexpr std::size_t longest_name = 64; // longer words are not slips of the finger
    if (word.empty() || word.size() > longest_name)
        return std::nullopt;
    int best = static_cast<int>(std::max<std::size_t>(1, word.size() / 3)) + 1;
    std::optional<std::string> found;
    for (const std::string& candidate : candidates) {
        if (candidate.size() > longest_name || candidate == word)
            continue;
        // One letter is near every other letter: only a change of case counts there.
        if (word.size() == 1 &&
            !(candidate.size() == 1 &&
              std::tolower(static_cast<unsigned char>(word[0])) ==
                  std::tolower(static_cast<unsigned char>(candidate[0]))))
            continue;
        const int distance = edit_distance(word, candidate);
        if (distance < best) {
            best = distance;
            found = candidate;
        }
    }
    return found;
}

std::string number_text(double value, int digits) {
    if (std::isnan(value))
        return "nan";
    if (std::isinf(value))
        return value > 0 ? "inf" : "-inf";
    return fmt::format("{:.{}g}", value, digits);
}

std::optional<double> parse_number(std::string_view text) {
    text = trimmed(text);
    if (!text.empty() && text.front() == '+')
        text.remove_prefix(1);
    double value = 0;
    const auto [end, failure] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (failure != std::errc{} || end != text.data() + text.size())
        return std::nullopt;
    return value;
}

std::size_t letter_length(std::string_view text, std::size_t at) {
    const auto byte = [&](std::size_t k) { return static_cast<unsigned char>(text[at + k]); };
    if (at >= text.size())
        return 0;
    const unsigned char first = byte(0);
    const std::size_t length = first < 0x80 ? 1
        : first < 0xC2                      ? 0
        : first < 0xE0                      ? 2
        : first < 0xF0                      ? 3
        : first < 0xF5                      ? 4
                                            : 0;
    if (length == 0 || at + length > text.size())
        return 0;
    for (std::size_t k = 1; k < length; ++k)
        if ((byte(k) & 0xC0) != 0x80)
            return 0;
    // Overlong forms, surrogates and what lies above U+10FFFF are ill-formed.
    if ((first == 0xE0 && byte(1) < 0xA0) || (first == 0xED && byte(1) > 0x9F) || (first == 0xF0 && byte(1) < 0x90) ||
        (first == 0xF4 && byte(1) > 0x8F))
        return 0;
    return length;
}

std::string well_formed(std::string_view text) {
    std::string made;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t length = letter_length(text, i);
        if (length > 0)
            made += text.substr(i, length);
        else
            made += "\xEF\xBF\xBD";
        i += std::max<std::size_t>(length, 1);
    }
    return made;
}

std::string printable(std::string_view text, std::size_t longest) {
    std::string made;
    for (std::size_t i = 0; i < text.size();) {
        if (made.size() >= longest)
            return made + "...";
        const auto byte = static_cast<unsigned char>(text[i]);
        const std::size_t length = letter_length(text, i);
        const bool whole = length > 0;
        // U+0080 to U+009F are control characters, too.
        const bool control =
            byte < 0x20 || byte == 0x7F || (whole && byte == 0xC2 && static_cast<unsigned char>(text[i + 1]) < 0xA0);
        if (!whole || control) {
            const std::size_t count = whole ? length : 1;
            for (std::size_t k = 0; k < count; ++k)
                made += fmt::format("\\x{:02x}", static_cast<unsigned char>(text[i + k]));
            i += count;
        } else {
            made += text.substr(i, length);
            i += length;
        }
    }
    return made;
}

std::string_view trimmed(std::string_view text) {
    constexpr std::string_view blanks = " \t\r\n\v\f";
    const auto first = text.find_first_not_of(blanks);
    if (first == std::string_view::npos)
        return {};
    return text.substr(first, text.find_last_not_of(blanks) - first + 1);
}

std::vector<std::string_view> split(std::string_view text, char separator) {
    std::vector<std::string_view> parts;
    while (true) {
        const auto at = text.find(separator);
        parts.push_back(text.substr(0, at));
        if (at == std::string_view::npos)
            return parts;
        text.remove_prefix(at + 1);
    }
}

LineColumn line_column(std::string_view text, std::size_t offset) {
    LineColumn place;
    for (const char c : text.substr(0, std::min(offset, text.size()))) {
        if (c == '\n') {
            ++place.line;
            place.column = 1;
        } else if ((static_cast<unsigned char>(c) & 0xC0) != 0x80) { // not a UTF-8 continuation byte
            ++place.column;
        }
    }
    return place;
}

} // namespace kasuri
