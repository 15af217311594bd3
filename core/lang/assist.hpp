#pragma once
#include "base/span.hpp"
#include "lang/check.hpp"
#include "lang/signature.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

// What an editor can offer at a place of a text, finished or not. All of it comes from the tables that the checker
// itself uses, and from a check of the text as far as it goes.

enum class CompletionKind {
    statement,
    word,
    input,
    local,
    parameter,
    source,
    function,
    type,
    component,
    option,
    space,
    target,
    proof
};

struct Completion {
    CompletionKind kind{};
    std::string text;   ///< to be written
    std::string detail; ///< type or signature
    std::string doc;
};

struct Completions {
    Span replaces; ///< the word, written in part, that an item stands for
    std::vector<Completion> items;
};

/// What can be written at byte `at`: only what makes sense there and begins with, or else holds, what is already
/// written of the word. The nearest first: own names, then the language's.
Completions completions(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                        const CheckOptions& options = {});

struct Hover {
    Span span;
    std::string heading; ///< "let c : hsv, per pixel"; several forms are lines
    std::string doc;
};

/// What the word at byte `at` means.
std::optional<Hover> hover(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                           const CheckOptions& options = {});

/// One form of a function that is being called.
struct CallForm {
    std::string text; ///< "mix(x gen, y gen, a gen) gen"
    Span active;      ///< of the argument at hand, in `text`; empty if there are fewer
    std::string doc;
};
struct CallHelp {
    Span name;                ///< of the function, in the source
    std::size_t argument = 0; ///< which one the place is in, from 0
    std::vector<CallForm> forms;
};

/// The call whose brackets byte `at` stands in.
std::optional<CallHelp> call_help(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                                  const CheckOptions& options = {});

} // namespace kasuri::lang
