#include "builtins/builtin.hpp"
#include "command.hpp"
#include "json_pages.hpp"
#include "lang/error_documentation.hpp"
#include "manual.hpp"
#include "proof/proof.hpp"
#include "words.hpp"

#include <cstdio>
#include <memory>

namespace kasuri::cli {
namespace {

struct Page {
    std::string_view name;
    std::string (*text)();
};
constexpr Page pages[] = {
    {"builtins", builtins::documentation},
    {"colour", builtins::colour_documentation},
    {"errors", [] { return lang::error_documentation(proof::vocabulary()); }},
    {"man", manual_page},
    {"completion", bash_completion},
    {"zsh-completion", zsh_completion},
    {"fish-completion", fish_completion},
    {"json", json_page},
    {"json-schema", json_schema},
    {"words", words_to_translate},
    {"prelude", [] { return std::string(builtins::prelude_text()); }},
};

} // namespace

extern const Command docs_command;
const Command docs_command = {
    "docs", "Write a page of the documentation that is made from the program's own tables",
    [](Arguments& arguments) -> std::function<int()> {
        auto page = std::make_shared<std::string>();
        std::vector<std::string> names;
        for (const Page& row : pages)
            names.emplace_back(row.name);
        arguments
            .value(
                "PAGE", *page,
                "builtins, colour, errors, prelude (the functions written in the language), man (the "
                "manual page), completion, zsh-completion and fish-completion (for shells), json and json-schema (what "
                "--json writes) or words (what there is to translate)")
            .required()
            .one_of(names);
        return [page]() -> int {
            for (const Page& row : pages)
                if (row.name == *page) {
                    const std::string text = row.text();
                    std::fwrite(text.data(), 1, text.size(), stdout);
                }
            return std::fflush(stdout) == 0 ? Exit::good : Exit::input_output;
        };
    }};

} // namespace kasuri::cli
