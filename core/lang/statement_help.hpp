#pragma once
#include <span>
#include <string_view>

namespace kasuri::lang {

/// What a statement is for, as the editor and the documentation say it. One row for each keyword that begins one,
/// and one with an empty word for assignments.
struct StatementHelp {
    std::string_view word;
    std::string_view form;
    std::string_view doc;
};
std::span<const StatementHelp> statement_table();

} // namespace kasuri::lang
