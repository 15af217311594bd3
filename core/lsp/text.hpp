#pragma once
#include "base/span.hpp"

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lsp {

/// What the editor counts the letters of a line in.
enum class Units { utf8, utf16 };

struct Position {
    std::size_t line = 0, character = 0; ///< from 0
    friend bool operator==(const Position&, const Position&) = default;
};

/// A text with its lines (which end with \n, \r\n or \r).
class Text {
public:
    explicit Text(std::string text = {});

    /// As the editor has it.
    const std::string& raw() const { return raw_; }
    /// The same for the language, byte for byte as long: without \r, and without a byte order mark.
    const std::string& clean() const { return clean_; }
    /// The byte of a position; what lies behind the end of a line or of the text is its end.
    std::size_t offset(Position at, Units units) const;
    Position position(std::size_t offset, Units units) const;
    /// `text` in place of what lies between.
    void replace(std::size_t begin, std::size_t end, std::string_view text);
    std::size_t lines() const { return starts_.size(); }

private:
    void took();

    std::string raw_, clean_;
    std::vector<std::size_t> starts_; ///< of the lines
};

} // namespace kasuri::lsp
