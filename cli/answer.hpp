#pragma once
#include <span>
#include <string_view>

namespace kasuri::cli {

// With --json a command writes one answer on standard output and nothing else, whatever comes of it:
//   {"version": 1, "program": .., "command": .., "exit": .., "messages": [..], "diagnostics": [..], "result": ..}
// What `result` has is a table beside each command, from which the page and the schema are made (json_pages.hpp).

/// Of the answers: larger when a field is gone or means something else. New fields do not change it.
inline constexpr int answer_version = 1;

/// What a field holds.
enum class JsonType {
    text,
    flag,    ///< true or false
    whole,   ///< a number without a fraction
    number,  ///< or "nan", "inf", "-inf"
    object,  ///< the fields below it
    texts,   ///< a list
    numbers, ///< a list
    rows,    ///< a list of lists of numbers
    objects, ///< a list: the fields below are of each
    values,  ///< an object of numbers; names as they come
    words,   ///< an object of texts; names as they come
};

/// One row: a field of a result.
struct JsonField {
    std::string_view path; ///< its name, behind those that it is within: "errors/tetrahedral/largest"
    JsonType type;
    std::string_view doc;    ///< what it is, with its unit
    std::string_view when{}; ///< it is not always there: "where it fails"
};

/// What a command answers. `lines`: a line each before the answer, of commands that go through many things.
struct Answers {
    std::span<const JsonField> result{};
    std::span<const JsonField> lines{};
    bool rows = false; ///< or the lines are lists of numbers
};

} // namespace kasuri::cli
