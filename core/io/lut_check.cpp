#include "io/lut_check.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <optional>
#include <vector>

namespace kasuri::io {
namespace {

constexpr const char* copy_again = "The file may be cut short; copy it again.";

bool is_element(std::string_view text, std::size_t at, std::string_view name) {
    if (text.size() < at + name.size() + 1)
        return false;
    const bool same = std::equal(name.begin(), name.end(), text.begin() + static_cast<std::ptrdiff_t>(at),
                                 [](char a, char b) { return a == std::tolower(static_cast<unsigned char>(b)); });
    const char behind = text[at + name.size()];
    return same && (std::isspace(static_cast<unsigned char>(behind)) || behind == '/' || behind == '>');
}

bool refers_to_a_file(std::string_view text) {
    for (std::size_t at = text.find('<'); at != std::string_view::npos; at = text.find('<', at + 1))
        if (is_element(text, at + 1, "reference") || is_element(text, at + 1, "!entity"))
            return true;
    return false;
}

/// The lines of a .csp that say something, one after the other.
class CspLines {
public:
    explicit CspLines(std::string_view text) : text_(text) {}
    std::optional<std::string_view> next() {
        while (at_ < text_.size()) {
            const std::size_t end = std::min(text_.find('\n', at_), text_.size());
            const std::string_view line = trimmed(text_.substr(at_, end - at_));
            at_ = end + 1;
            if (!line.empty())
                return line;
        }
        return std::nullopt;
    }

private:
    std::string_view text_;
    std::size_t at_ = 0;
};

std::vector<std::string_view> words_of(std::string_view line) {
    std::vector<std::string_view> words;
    std::size_t at = 0;
    while (at < line.size()) {
        const std::size_t from = line.find_first_not_of(" \t\r", at);
        if (from == std::string_view::npos)
            break;
        at = std::min(line.find_first_of(" \t\r", from), line.size());
        words.push_back(line.substr(from, at - from));
    }
    return words;
}

std::optional<long> whole_number(std::string_view word) {
    long value = 0;
    const auto [end, fault] = std::from_chars(word.data(), word.data() + word.size(), value);
    return fault == std::errc() && end == word.data() + word.size() && value >= 0 ? std::optional(value) : std::nullopt;
}

/// By the layout that the reader expects: a heading, its kind, what is said about it, three curves, the table.
bool is_whole_csp(std::string_view text) {
    CspLines lines(text);
    const auto heading = lines.next(), kind = lines.next();
    if (!heading || !heading->starts_with("CSPLUTV100") || !kind || (*kind != "1D" && *kind != "3D"))
        return false;
    auto line = lines.next();
    if (line && *line == "BEGIN METADATA") {
        while (line && *line != "END METADATA")
            line = lines.next();
        line = lines.next();
    }
    for (int curve = 0; curve < 3; ++curve) {
        const auto points = line ? whole_number(*line) : std::nullopt;
        if (!points)
            return false;
        if (*points > 0)
            for (int row = 0; row < 2; ++row) {
                line = lines.next();
                if (!line || words_of(*line).size() < static_cast<std::size_t>(*points))
                    return false;
            }
        line = lines.next();
    }
    const std::vector<std::string_view> sizes = line ? words_of(*line) : std::vector<std::string_view>();
    if (sizes.size() != (*kind == "3D" ? 3u : 1u))
        return false;
    double count = 1;
    for (const std::string_view size : sizes) {
        const auto each = whole_number(size);
        if (!each)
            return false;
        count *= static_cast<double>(*each);
    }
    if (count > static_cast<double>(text.size())) // each entry takes five characters at least
        return false;
    for (double i = 0; i < count; ++i) {
        line = lines.next();
        if (!line || words_of(*line).size() < 3)
            return false;
    }
    return true;
}

} // namespace

Status may_be_read_as_lut(std::string_view text, std::string_view ending, const std::string& where) {
    if (ending == ".ctf" || ending == ".clf") {
        if (text.find('\0') != std::string_view::npos)
            return Error{"is not a text", where, "Save it as UTF-8."};
        if (refers_to_a_file(text))
            return Error{"refers to another file, whose content could change what it does", where,
                         "Put the content of that file into it."};
    }
    if (ending == ".csp" && !is_whole_csp(text))
        return Error{"is not whole: its curves or its table end too early", where, copy_again};
    return {};
}

} // namespace kasuri::io
