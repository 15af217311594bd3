#pragma once
#include "base/result.hpp"
#include "lang/diagnostic.hpp"
#include "lang/rule.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// The most faults that are listed for one rule.
inline constexpr std::size_t max_diagnostics = 100;
/// The most scalar operations of a rule with every call written out.
inline constexpr std::size_t max_operations = 100'000;
/// The most neighbourhood functions (each is a pass over the picture, for every component).
inline constexpr std::size_t max_stages = 64;
/// The most parameters (a colour counts as three).
inline constexpr std::size_t max_parameters = 1000;
/// How deep files may use files.
inline constexpr int deepest_use = 8;

struct Checked {
    Rule rule;                                 ///< only of use if `ok`
    std::vector<Diagnostic> diagnostics;       ///< in the order of the text
    std::vector<Diagnostic> print_diagnostics; ///< of the `print` expression, whose spans refer to it
    bool ok = false;
};

/// What a check may be told beside the text.
struct UsedFiles;
struct CheckOptions {
    std::optional<std::string_view>
        print;                        ///< an expression evaluated after the last statement (it sees every let and out)
    std::vector<std::string> columns; ///< names of plain floats that come with every pixel
    /// The text of a used file by the name written in the rule; null: nothing can be used.
    std::function<Result<std::string>(const std::string& name)> open;
    bool proofs = true; ///< false: proof lines are passed over
    /// What has been read of used files in this check, each once; made by `check`.
    std::shared_ptr<UsedFiles> used{};
};

/// Text -> tokens -> tree -> typed tree. All faults are found.
Checked check(std::string_view source, const Vocabulary& vocabulary, const CheckOptions& options);
Checked check(std::string_view source, const Vocabulary& vocabulary, std::optional<std::string_view> print = {});

/// The functions of a text of which nothing else matters (the prelude, a used file).
struct CheckedFunctions {
    std::vector<FunctionPtr> functions;
    std::vector<Diagnostic> diagnostics;
};
CheckedFunctions check_functions(std::string_view source, const std::string& file, const Vocabulary& vocabulary,
                                 const CheckOptions& options = {}, int depth = 0);

} // namespace kasuri::lang
