#pragma once
#include <cstddef>
#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::cli {

/// The lines of standard input as numbers.
struct Table {
    std::vector<std::vector<double>> lines; ///< r g b a, then the further columns
    std::vector<std::size_t> widths;        ///< of each line as it was written: 3 or 4
};

/// Where each column goes: 0..3 is r g b a, from 4 on the further ones.
struct Columns {
    std::vector<std::string> names; ///< all, in the order of the input
    std::vector<std::size_t> places;
    std::vector<std::string> further; ///< those that are not r, g, b or a
    bool named = false;
};

/// Of --columns; empty: r,g,b,a, of which a may be left out. A further name is a word, or of a colour a word with .r,
/// .g, .b or .a. Says what is wrong on standard error and gives nothing otherwise.
std::optional<Columns> columns_of(const std::string& text);

/// CSV (RFC 4180, numbers only): empty lines, lines that begin with #, a byte order mark and a heading are passed over;
/// numbers may stand in quotation marks. Says line and column of what is wrong and gives nothing otherwise.
std::optional<Table> read_table(std::istream& in, const Columns& columns);

} // namespace kasuri::cli
