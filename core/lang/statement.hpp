#pragma once
#include "lang/syntax.hpp"

#include <span>
#include <string_view>

namespace kasuri::lang {

/// One row for each kind of statement: its keyword, what the editor and the documentation say of it, and what those who
/// go through statements want to know. Keywords, parser, printed trees, formatting, completion and folding follow.
struct StatementRow {
    StatementKind kind;
    std::string_view word; ///< that it begins with; empty: it begins with a name or an expression
    std::string_view form; ///< how it is written; empty: it is not offered
    std::string_view doc;
    bool in_functions = false;     ///< does work, and may stand in a function
    bool gives_name = false;       ///< its name can be used in expressions
    bool folds = false;            ///< several of them in a row fold in the editor
    std::string_view printed = {}; ///< in printed trees, where there is no word
};
/// In the order of StatementKind.
std::span<const StatementRow> statement_table();
const StatementRow& row(StatementKind kind);
/// The row of a keyword; null if no statement begins with it.
const StatementRow* find_statement(std::string_view word);

} // namespace kasuri::lang
