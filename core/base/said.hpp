#pragma once
#include <fmt/format.h>
#include <string>
#include <string_view>
#include <utility>

namespace kasuri {

/// Gives a text in the language of whoever reads it, or the text itself. Called by any thread.
using Translator = std::string (*)(std::string_view text);
/// The core knows no languages: a program that does says so, once, before anything else. Without one everything is said
/// in English.
void set_translator(Translator translator);

/// A text for people as it is to be said.
std::string translated(std::string_view text);

/// A sentence for people with its {} filled in, which another language may want in another order: {1} before {0}. All
/// sentences that are written so are found by tools/core_words.py.
std::string said_with(std::string_view english, fmt::format_args arguments);
template <class... Arguments>
std::string said(fmt::format_string<Arguments...> english, Arguments&&... arguments) {
    const fmt::string_view text = english;
    return said_with({text.data(), text.size()}, fmt::make_format_args(arguments...));
}

/// While it lives, this thread says everything in English: for what goes into files, which others read.
class InEnglish {
public:
    InEnglish();
    ~InEnglish();
    InEnglish(const InEnglish&) = delete;
    InEnglish& operator=(const InEnglish&) = delete;
};

} // namespace kasuri
