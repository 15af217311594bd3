#pragma once
#include "base/span.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// How a line folds: bodies of functions, and runs of lines of one kind (parameters, presets, proofs, comments).
struct FoldLine {
    int level = 0;
    bool opens = false; ///< the lines behind it that lie deeper fold into it
    friend bool operator==(const FoldLine&, const FoldLine&) = default;
};
/// One for each line of the text, whatever the text.
std::vector<FoldLine> fold_lines(std::string_view text);

/// A statement that an overview of a text shows.
struct OutlineEntry {
    enum class Kind { filter, parameter, preset, source, function, local, output, proof } kind{};
    std::string name;   ///< "meet", a title
    std::string detail; ///< of a parameter its range and the like; may be empty
    Span span;          ///< of the statement
    Span name_span;     ///< of its name, or of its first word
};
/// In the order of the text, which may have faults; what cannot be read is left out.
std::vector<OutlineEntry> outline(std::string_view text);

} // namespace kasuri::lang
