#include "lsp/text.hpp"

#include "base/text.hpp"

#include <algorithm>

namespace kasuri::lsp {
namespace {

/// Of the letter at `at`: its bytes (1 for a byte that is none), and what it counts.
std::size_t bytes_of(std::string_view text, std::size_t at) {
    return std::max<std::size_t>(1, letter_length(text, at));
}
std::size_t count_of(std::size_t bytes, Units units) {
    return units == Units::utf8 ? bytes : bytes == 4 ? 2 : 1; // beyond U+FFFF a pair of surrogates
}

} // namespace

Text::Text(std::string text) : raw_(std::move(text)) { took(); }

void Text::took() {
    clean_ = raw_;
    if (clean_.starts_with("\xef\xbb\xbf"))
        std::fill_n(clean_.begin(), 3, ' ');
    starts_ = {0};
    for (std::size_t i = 0; i < clean_.size(); ++i) {
        const bool pair = clean_[i] == '\r' && i + 1 < clean_.size() && clean_[i + 1] == '\n';
        if (clean_[i] == '\n' || (clean_[i] == '\r' && !pair))
            starts_.push_back(i + 1);
        if (clean_[i] == '\r')
            clean_[i] = pair ? ' ' : '\n';
    }
}

std::size_t Text::offset(Position at, Units units) const {
    if (at.line >= starts_.size())
        return raw_.size();
    std::size_t byte = starts_[at.line], end = at.line + 1 < starts_.size() ? starts_[at.line + 1] : raw_.size();
    while (end > byte && (raw_[end - 1] == '\n' || raw_[end - 1] == '\r'))
        --end;
    for (std::size_t counted = 0; byte < end && counted < at.character;) {
        const std::size_t bytes = bytes_of(raw_, byte);
        counted += count_of(bytes, units);
        if (counted > at.character)
            break; // inside a letter: before it
        byte += bytes;
    }
    return std::min(byte, end);
}

Position Text::position(std::size_t offset, Units units) const {
    offset = std::min(offset, raw_.size());
    const auto line =
        static_cast<std::size_t>(std::upper_bound(starts_.begin(), starts_.end(), offset) - starts_.begin()) - 1;
    Position at{line, 0};
    for (std::size_t byte = starts_[line]; byte < offset;) {
        const std::size_t bytes = bytes_of(raw_, byte);
        at.character += count_of(bytes, units);
        byte += bytes;
    }
    return at;
}

void Text::replace(std::size_t begin, std::size_t end, std::string_view text) {
    raw_.replace(begin, std::max(begin, end) - begin, text);
    took();
}

} // namespace kasuri::lsp
