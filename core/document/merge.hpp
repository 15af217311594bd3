#pragma once
#include <string>
#include <string_view>

namespace kasuri::document {

struct Merged {
    std::string text;
    /// How many places both sides have changed in different ways; there `text` has ours.
    int conflicts = 0;
};

/// Three texts become one, line by line: what one side alone has changed since `base` is taken. Changes of neighbouring
/// lines count as of one place. Source: S. Khanna, K. Kunal, B. C. Pierce, A formal investigation of diff3, FSTTCS 2007
/// (from memory).
Merged merged(std::string_view base, std::string_view ours, std::string_view theirs);

} // namespace kasuri::document
