#include "command.hpp"
#include "completion.hpp"

#include <cstdio>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

/// On one line, without what would end it.
std::string plain(std::string text) {
    for (char& c : text)
        if (c == '\t' || c == '\n')
            c = ' ';
    return text;
}

} // namespace

extern const Command complete_command;
const Command complete_command = {
    "complete", "Tell a shell what may stand in the place of the last word",
    [](Arguments& arguments) -> std::function<int()> {
        auto words = std::make_shared<std::vector<std::string>>();
        arguments.value("WORD", *words, "After --: the words behind kasuri-cli; the last may be empty")
            .required()
            .completes(Completes::nothing);
        arguments.footer("A line each: the word and, after a tab, what it is. A line :files says that files may stand "
                         "there too.\nkasuri-cli docs completion, zsh-completion and fish-completion write what makes "
                         "bash, zsh and fish ask this.");
        return [words]() -> int {
            const Candidates all = candidates(*words);
            const std::string& word = words->back();
            for (const Candidate& each : all.values)
                if (each.value.starts_with(word))
                    fmt::print("{}\t{}\n", plain(each.value), plain(each.doc));
            if (all.files)
                fmt::print(":files\n");
            return Exit::good;
        };
    }};

} // namespace kasuri::cli
