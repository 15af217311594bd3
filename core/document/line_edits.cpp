#include "document/line_edits.hpp"

#include "base/text.hpp"
#include "lang/lexer.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::document {
namespace {

using lang::Token;
using lang::TokenKind;

bool ends_a_value(const Token& token) {
    return token.kind == TokenKind::name || token.kind == TokenKind::number || token.kind == TokenKind::close;
}

/// A minus belongs to the number if nothing stands before it that it could take away from.
bool signed_by(std::span<const Token> tokens, std::size_t number) {
    return number > 0 && tokens[number - 1].kind == TokenKind::minus &&
        tokens[number - 1].span.end == tokens[number].span.begin && (number < 2 || !ends_a_value(tokens[number - 2]));
}

std::optional<NumberPlace> number_of(std::string_view text, std::span<const Token> tokens, std::size_t index) {
    const std::optional<double> value = parse_number(text_of(text, tokens[index].span));
    if (!value)
        return std::nullopt;
    const bool negative = signed_by(tokens, index);
    NumberPlace place;
    place.span = tokens[index].span;
    place.value = negative ? -*value : *value;
    const std::string_view written = text_of(text, tokens[index].span);
    if (const std::size_t point = written.find('.'); point != written.npos)
        place.decimals = static_cast<int>(std::find_if_not(written.begin() + static_cast<std::ptrdiff_t>(point) + 1,
                                                           written.end(), [](char c) { return c >= '0' && c <= '9'; }) -
                                          written.begin() - static_cast<std::ptrdiff_t>(point) - 1);
    if (negative)
        place.span.begin = tokens[index - 1].span.begin;
    return place;
}

std::vector<Token> tokens_of(std::string_view text) {
    std::vector<Token> tokens = lang::lex(text, nullptr);
    std::erase_if(tokens, [](const Token& token) {
        return token.kind == TokenKind::comment || token.kind == TokenKind::newline;
    });
    return tokens;
}

std::string written(double value, int decimals) {
    std::string text = fmt::format("{:.{}f}", value, std::clamp(decimals, 0, 9));
    return text.starts_with('-') && text.find_first_of("123456789") == text.npos ? text.substr(1) : text; // no -0
}

} // namespace

TextEdit difference(std::string_view before, std::string_view after) {
    const std::size_t least = std::min(before.size(), after.size());
    std::size_t head = 0, tail = 0;
    while (head < least && before[head] == after[head])
        ++head;
    while (tail < least - head && before[before.size() - 1 - tail] == after[after.size() - 1 - tail])
        ++tail;
    // Not in the middle of a letter of several bytes.
    const auto continues = [](char c) { return (static_cast<unsigned char>(c) & 0xC0) == 0x80; };
    while (head > 0 &&
           ((head < before.size() && continues(before[head])) || (head < after.size() && continues(after[head]))))
        --head;
    while (tail > 0 && continues(before[before.size() - tail]))
        --tail;
    return {static_cast<std::uint32_t>(head), std::string(before.substr(head, before.size() - head - tail)),
            std::string(after.substr(head, after.size() - head - tail))};
}

TextEdit with_comments_toggled(std::string_view text, Span span) {
    std::size_t begin = text.rfind('\n', span.begin == 0 ? text.npos : span.begin - 1);
    begin = span.begin == 0 || begin == text.npos ? 0 : begin + 1;
    // A selection that ends where a line begins does not touch that line.
    const std::size_t last =
        span.end > span.begin && span.end > 0 && text[span.end - 1] == '\n' ? span.end - 1 : span.end;
    std::size_t end = text.find('\n', last);
    end = end == text.npos ? text.size() : end;
    const std::vector<std::string_view> lines = split(text.substr(begin, end - begin), '\n');
    const auto indent = [](std::string_view line) { return std::min(line.find_first_not_of(" \t"), line.size()); };
    std::size_t least = text.size();
    bool all = true, any = false;
    for (const std::string_view line : lines)
        if (indent(line) < line.size()) {
            any = true;
            least = std::min(least, indent(line));
            all = all && line.substr(indent(line)).starts_with("//");
        }
    if (!any)
        return {};
    std::string made;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const std::string_view line = lines[i];
        if (i > 0)
            made += '\n';
        if (indent(line) == line.size()) {
            made += line;
        } else if (all) {
            const std::string_view rest = line.substr(indent(line) + 2);
            made +=
                std::string(line.substr(0, indent(line))) + std::string(rest.starts_with(' ') ? rest.substr(1) : rest);
        } else {
            made += std::string(line.substr(0, least)) + "// " + std::string(line.substr(least));
        }
    }
    return {static_cast<std::uint32_t>(begin), std::string(text.substr(begin, end - begin)), made};
}

double NumberPlace::step() const {
    const double size = std::max(std::fabs(value), 0.11);
    return std::pow(10, std::floor(std::log10(size) + 1e-9) - 1);
}

std::optional<NumberPlace> number_at(std::string_view text, std::size_t at) {
    const std::vector<Token> tokens = tokens_of(text);
    std::optional<NumberPlace> before;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (tokens[i].kind != TokenKind::number)
            continue;
        const std::optional<NumberPlace> place = number_of(text, tokens, i);
        if (place && at >= place->span.begin && at < place->span.end)
            return place;
        if (place && at == place->span.end)
            before = place;
    }
    return before;
}

TextEdit with_number(std::string_view text, const NumberPlace& place, double value, double step) {
    const int needed = step >= 1 ? 0 : static_cast<int>(std::ceil(-std::log10(step) - 1e-9));
    return {place.span.begin, std::string(text_of(text, place.span)), written(value, std::max(place.decimals, needed))};
}

std::vector<ColourPlace> colours_in(std::string_view text) {
    const std::vector<Token> tokens = tokens_of(text);
    std::vector<ColourPlace> found;
    for (std::size_t open = 0; open < tokens.size(); ++open) {
        if (tokens[open].kind != TokenKind::open)
            continue;
        const bool named = open > 0 && tokens[open - 1].kind == TokenKind::name;
        if (named && text_of(text, tokens[open - 1].span) != "vec3" && text_of(text, tokens[open - 1].span) != "of" &&
            text_of(text, tokens[open - 1].span) != "on")
            continue; // the arguments of some other function
        ColourPlace place;
        std::size_t at = open + 1, count = 0;
        for (; count < 3 && at < tokens.size(); ++count) {
            if (tokens[at].kind == TokenKind::minus)
                ++at;
            if (at >= tokens.size() || tokens[at].kind != TokenKind::number)
                break;
            const std::optional<NumberPlace> number = number_of(text, tokens, at);
            if (!number)
                break;
            place.numbers[count] = number->span;
            place.values[count] = number->value;
            ++at;
            if (count < 2 && (at >= tokens.size() || tokens[at].kind != TokenKind::comma))
                break;
            at += count < 2 ? 1 : 0;
        }
        if (count != 3 || at >= tokens.size() || tokens[at].kind != TokenKind::close)
            continue;
        const bool vec3 = named && text_of(text, tokens[open - 1].span) == "vec3";
        place.span = {vec3 ? tokens[open - 1].span.begin : tokens[open].span.begin, tokens[at].span.end};
        found.push_back(place);
    }
    return found;
}

std::optional<ColourPlace> colour_at(std::string_view text, std::size_t at) {
    for (const ColourPlace& place : colours_in(text))
        if (at >= place.span.begin && at <= place.span.end)
            return place;
    return std::nullopt;
}

TextEdit with_colour(std::string_view text, const ColourPlace& place, const std::array<double, 3>& values) {
    const std::uint32_t begin = place.numbers[0].begin, end = place.numbers[2].end;
    TextEdit edit{begin, std::string(text.substr(begin, end - begin)), {}};
    std::uint32_t done = begin;
    for (std::size_t i = 0; i < 3; ++i) {
        edit.inserted += text.substr(done, place.numbers[i].begin - done);
        edit.inserted += number_text(std::round(values[i] * 1e5) / 1e5, 9);
        done = place.numbers[i].end;
    }
    return edit;
}

} // namespace kasuri::document
