#include "base/said.hpp"

#include <atomic>

namespace kasuri {
namespace {
std::atomic<Translator> in_use{nullptr};
thread_local int in_english = 0;
} // namespace

InEnglish::InEnglish() { ++in_english; }
InEnglish::~InEnglish() { --in_english; }

void set_translator(Translator translator) { in_use = translator; }

std::string translated(std::string_view text) {
    const Translator translator = in_use;
    return translator && in_english == 0 && !text.empty() ? translator(text) : std::string(text);
}

std::string said_with(std::string_view english, fmt::format_args arguments) {
    const std::string text = translated(english);
    try {
        return fmt::vformat(text, arguments);
    } catch (const fmt::format_error&) { // a translation that asks for what is not there
        return fmt::vformat(english, arguments);
    }
}

} // namespace kasuri
