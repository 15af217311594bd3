#pragma once
#include "base/result.hpp"
#include "lang/diagnostic.hpp"

#include <fmt/format.h>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace kasuri::cli {

// All that a command says beside its result goes through here: as words on standard error, and with --json into the
// answer too (json.hpp).

struct Message {
    bool error = true; ///< or a note: the command did what it was asked for
    std::string where, what, remedy;
};

/// A diagnostic with the text that its places are in.
struct Found {
    std::string file, text;
    lang::Diagnostic diagnostic;
};

/// The command that is being run, by the name that its messages begin with; `json`: standard output is for its answer.
void begin_messages(std::string command, bool json);
const std::string& messages_of();
bool answers_in_json();

/// "kasuri-cli: where: what. remedy"; returns the exit code for files.
int complain(const Error& error);

/// The same error with that file before its place.
Error within(const std::string& file, Error error);

/// "kasuri-cli COMMAND: what"; returns the exit code.
int refuse(int exit, const std::string& what);
template <class... Values>
int refuse(int exit, fmt::format_string<Values...> what, Values&&... values) {
    return refuse(exit, fmt::format(what, std::forward<Values>(values)...));
}

/// "where: note: what"
void say_note(const std::string& where, const std::string& what);

/// "where:line:column: error CODE: message" and what to do, for each.
void say_diagnostics(std::span<const lang::Diagnostic> diagnostics, std::string_view text, const std::string& file);

/// What has been said until now; to be called when nothing is being said.
const std::vector<Message>& said_messages();
const std::vector<Found>& said_diagnostics();

} // namespace kasuri::cli
