#include "mutate.hpp"

#include "support/random_rule.hpp"

#include <algorithm>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <iterator>

namespace kasuri::fuzz {
namespace {

int below(Random& random, std::size_t count) { return count == 0 ? 0 : static_cast<int>(random() % count); }

/// Names, numbers, texts, line ends and signs, one after the other; together they are the text.
std::vector<std::string> words_of(std::string_view text) {
    std::vector<std::string> words;
    const auto kind = [](char c) {
        const auto u = static_cast<unsigned char>(c);
        return std::isalnum(u) || c == '_' || c == '.' || u >= 0x80 ? 1 : c == ' ' || c == '\t' ? 2 : 0;
    };
    for (std::size_t at = 0; at < text.size();) {
        std::size_t end = at + 1;
        if (text[at] == '"')
            end = std::min(text.find('"', at + 1), text.size() - 1) + 1;
        else if (const int of = kind(text[at]); of != 0)
            while (end < text.size() && kind(text[end]) == of)
                ++end;
        words.emplace_back(text.substr(at, end - at));
        at = end;
    }
    return words;
}

const std::vector<std::string>& language() {
    static const std::vector<std::string> all = {"param",      "let",      "fn",       "out.r",       "out.g",
                                                 "out.rgb",    "out.a",    "hold",     "hue of",      "lightness of",
                                                 "in oklch",   "use",      "proof",    "preset",      "working",
                                                 "acescct",    "source",   "where",    "zone",        "if",
                                                 "else",       "for",      "matrix",   "curve",       "true",
                                                 "false",      "whole",    "vec3(",    "oklch(",      "lab(",
                                                 "rgb(",       "mix(",     "clamp(",   "smoothstep(", "luminance(",
                                                 "blur(",      "sharpen(", "erode(",   "max(",        "pow(",
                                                 "1/0",        "0/0",      "-1",       "1e9",         "1e-40",
                                                 "0.18",       "360",      "r",        "g",           "b",
                                                 "a",          "rgb",      "x",        "y",           "=",
                                                 "+=",         "*=",       "==",       "<=",          "..",
                                                 "->",         "+",        "-",        "*",           "/",
                                                 "^",          "(",        ")",        "{",           "}",
                                                 "[",          "]",        ",",        ";",           ":",
                                                 ".",          "\n",       "// ",      "\"",          "\"a\"",
                                                 "greys stay", "neutral",  "monotone", "equals",      "undoes"};
    return all;
}

const std::vector<std::string>& values() {
    static const std::vector<std::string> all = {"0",
                                                 "-1",
                                                 "1e308",
                                                 "1e999",
                                                 "-0.0",
                                                 "2147483648",
                                                 "18446744073709551616",
                                                 "0.1",
                                                 "null",
                                                 "true",
                                                 "\"\"",
                                                 "[]",
                                                 "{}",
                                                 "[[]]",
                                                 "\"..\"",
                                                 "\"/etc/x\"",
                                                 "\"\\u0000\"",
                                                 "\"\xC3\"",
                                                 "nan",
                                                 "inf",
                                                 "-",
                                                 "",
                                                 " ",
                                                 "\n",
                                                 "#",
                                                 "<",
                                                 ">",
                                                 "/>",
                                                 "\"label\"",
                                                 "\"text\"",
                                                 "\"out.r = g\\n\"",
                                                 "\"multiply\"",
                                                 "\"kasuri-look\"",
                                                 "LUT_3D_SIZE",
                                                 "LUT_1D_SIZE"};
    return all;
}

std::string joined(const std::vector<std::string>& words) {
    std::string all;
    for (const std::string& word : words)
        all += word;
    return all;
}

std::string changed(const std::string& text, Random& random, const std::vector<std::string>& others) {
    std::vector<std::string> words = words_of(text);
    for (int times = 1 + below(random, 1u << below(random, 5)); times > 0 && !words.empty(); --times) {
        const auto at = static_cast<std::size_t>(below(random, words.size()));
        const auto there = words.begin() + static_cast<std::ptrdiff_t>(at);
        const std::string& other = others[static_cast<std::size_t>(below(random, others.size()))];
        switch (below(random, 8)) {
        case 0: words.erase(there); break;
        case 1: words.insert(there, other); break;
        case 2: *there = other; break;
        case 3: *there = words[static_cast<std::size_t>(below(random, words.size()))]; break;
        case 4: std::swap(*there, words[static_cast<std::size_t>(below(random, words.size()))]); break;
        case 5: { // a piece again, somewhere else
            const auto end = std::min(at + 1 + static_cast<std::size_t>(below(random, 20)), words.size());
            const std::vector<std::string> piece(there, words.begin() + static_cast<std::ptrdiff_t>(end));
            words.insert(words.begin() + below(random, words.size()), piece.begin(), piece.end());
            break;
        }
        case 6: // a letter of a word, as while it is typed
            if (!there->empty())
                there->erase(static_cast<std::size_t>(below(random, there->size())), 1);
            break;
        default: // up to here, as while one writes
            if (below(random, 4) == 0)
                words.resize(at);
        }
    }
    return joined(words);
}

} // namespace

std::vector<std::string> seeds(std::string_view ending) {
    std::vector<std::filesystem::path> files;
    for (const char* folder : {KASURI_SOURCE_DIR "/data", KASURI_SOURCE_DIR "/tests/lang/cases"})
        for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
            if (entry.path().extension() == ending)
                files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    std::vector<std::string> texts;
    for (const auto& file : files) {
        std::ifstream in(file, std::ios::binary);
        texts.emplace_back(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
    }
    return texts;
}

std::string rule_text(const std::vector<std::string>& from, Random& random) {
    std::string text = from.empty() || below(random, 3) == 0
        ? test::RandomRule<Random>(random).text()
        : from[static_cast<std::size_t>(below(random, from.size()))];
    if (!from.empty() && below(random, 8) == 0)
        text += from[static_cast<std::size_t>(below(random, from.size()))];
    return below(random, 10) == 0 ? text : with_words_changed(std::move(text), random);
}

std::string with_words_changed(std::string text, Random& random) { return changed(text, random, language()); }

std::string with_values_changed(std::string text, Random& random) { return changed(text, random, values()); }

std::string with_bytes_changed(std::string bytes, Random& random) {
    for (int times = 1 + below(random, 8); times > 0 && !bytes.empty(); --times) {
        const auto at = static_cast<std::size_t>(
            below(random, below(random, 2) ? bytes.size() : std::min<std::size_t>(bytes.size(), 400)));
        switch (below(random, 5)) {
        case 0: bytes[at] = static_cast<char>(random()); break;
        case 1: bytes[at] = static_cast<char>(bytes[at] ^ (1 << below(random, 8))); break;
        case 2: bytes.erase(at, 1 + static_cast<std::size_t>(below(random, 40))); break;
        case 3: bytes.insert(at, bytes.substr(static_cast<std::size_t>(below(random, bytes.size())), 30)); break;
        default:
            if (below(random, 3) == 0)
                bytes.resize(at);
        }
    }
    return bytes;
}

} // namespace kasuri::fuzz
