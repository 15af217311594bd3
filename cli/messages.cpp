#include "messages.hpp"

#include "base/text.hpp"
#include "command.hpp"
#include "streams.hpp"

#include <cstdio>
#include <mutex>

namespace kasuri::cli {
namespace {

struct Said {
    std::mutex mutex; // pictures are written by several threads
    std::string command;
    bool json = false;
    std::vector<Message> messages;
    std::vector<Found> found;
};

Said& said_now() {
    static Said all;
    return all;
}

void add(Message message, const std::string& words, std::size_t longest = std::string::npos) {
    Said& all = said_now();
    const std::lock_guard lock(all.mutex);
    fmt::print(stderr, "{}\n", printable(words, longest));
    all.messages.push_back(std::move(message));
}

} // namespace

void begin_messages(std::string command, bool json) {
    said_now().command = std::move(command);
    said_now().json = json;
}
const std::string& messages_of() { return said_now().command; }
bool answers_in_json() { return said_now().json; }

int complain(const Error& error) {
    add({true, told(error.where), told(error.what), told(error.remedy)}, "kasuri-cli: " + told(error.text()), 400);
    return Exit::input_output;
}

Error within(const std::string& file, Error error) {
    error.where = error.where.empty() ? file : file + ": " + error.where;
    return error;
}

int refuse(int exit, const std::string& what) {
    const std::string& command = messages_of();
    add({true, "", told(what), ""}, fmt::format("kasuri-cli{}{}: {}", command.empty() ? "" : " ", command, told(what)));
    return exit;
}

void say_note(const std::string& where, const std::string& what) {
    add({false, told(where), told(what), ""},
        fmt::format("{}{}note: {}", told(where), where.empty() ? "" : ": ", told(what)));
}

void say_diagnostics(std::span<const lang::Diagnostic> diagnostics, std::string_view text, const std::string& file) {
    Said& all = said_now();
    const std::lock_guard lock(all.mutex);
    for (const lang::Diagnostic& diagnostic : diagnostics) {
        fmt::print(stderr, "{}\n", lang::rendered(diagnostic, text, told(file)));
        all.found.push_back({told(file), std::string(text), diagnostic});
    }
}

const std::vector<Message>& said_messages() { return said_now().messages; }
const std::vector<Found>& said_diagnostics() { return said_now().found; }

} // namespace kasuri::cli
