#include "lang/lexer.hpp"

#include "base/said.hpp"
#include "lang/statement.hpp"
#include <algorithm>
#include <cfloat>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <iterator>

namespace kasuri::lang {
namespace {

/// Keywords of expressions; those of statements stand in their table.
constexpr std::string_view in_expressions[] = {"in", "true", "false"};

bool is_digit(char c) { return c >= '0' && c <= '9'; }
bool is_name_start(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; }
bool is_name_part(char c) { return is_name_start(c) || is_digit(c); }

struct Symbol {
    std::string_view text;
    TokenKind kind;
};
/// Longer symbols before those they begin with.
constexpr Symbol symbols[] = {
    {"..", TokenKind::dots},          {"+=", TokenKind::add_assign}, {"-=", TokenKind::sub_assign},
    {"*=", TokenKind::mul_assign},    {"/=", TokenKind::div_assign}, {"<=", TokenKind::less_equal},
    {">=", TokenKind::greater_equal}, {"==", TokenKind::equal},      {"!=", TokenKind::not_equal},
    {"&&", TokenKind::logical_and},   {"||", TokenKind::logical_or}, {"(", TokenKind::open},
    {")", TokenKind::close},          {",", TokenKind::comma},       {".", TokenKind::dot},
    {"?", TokenKind::question},       {":", TokenKind::colon},       {"=", TokenKind::assign},
    {"+", TokenKind::plus},           {"-", TokenKind::minus},       {"*", TokenKind::star},
    {"/", TokenKind::slash},          {"<", TokenKind::less},        {">", TokenKind::greater},
    {"!", TokenKind::logical_not},    {";", TokenKind::semicolon},   {"{", TokenKind::open_brace},
    {"}", TokenKind::close_brace},
};

class Lexer {
public:
    Lexer(std::string_view source, std::vector<Diagnostic>* diagnostics) : source_(source), diagnostics_(diagnostics) {}

    std::vector<Token> run() {
        tokens_.reserve(source_.size() / 3 + 8); // about what rules have: long ones are not moved while they grow
        while (at_ < source_.size())
            next();
        push(TokenKind::end, at_);
        return std::move(tokens_);
    }

private:
    char look(std::size_t ahead = 0) const { return at_ + ahead < source_.size() ? source_[at_ + ahead] : '\0'; }

    void push(TokenKind kind, std::size_t begin) {
        tokens_.push_back({kind, {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(at_)}});
    }

    void fault(Code code, std::size_t begin, std::vector<std::string> arguments, std::vector<Fix> fixes = {}) {
        if (diagnostics_)
            diagnostics_->push_back({code,
                                     row(code).severity,
                                     {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(at_)},
                                     std::move(arguments),
                                     std::move(fixes)});
    }

    void next() {
        const std::size_t begin = at_;
        const char c = look();
        if (c == ' ' || c == '\t' || c == '\r') {
            ++at_;
        } else if (c == '\n') {
            ++at_;
            push(TokenKind::newline, begin);
        } else if (c == '/' && look(1) == '/') {
            at_ = std::min(source_.find('\n', at_), source_.size());
            push(TokenKind::comment, begin);
        } else if (is_name_start(c)) {
            while (is_name_part(look()))
                ++at_;
            push(is_keyword(source_.substr(begin, at_ - begin)) ? TokenKind::keyword : TokenKind::name, begin);
        } else if (is_digit(c) || (c == '.' && is_digit(look(1)))) {
            number();
        } else if (c == '"') {
            string();
        } else {
            symbol();
        }
    }

    // number = digits [ "." digits ] [ exponent ] | "." digits [ exponent ];  "0 .. 1" and "0..1" are ranges
    void number() {
        const std::size_t begin = at_;
        while (is_digit(look()))
            ++at_;
        if (look() == '.' && look(1) != '.') {
            ++at_;
            while (is_digit(look()))
                ++at_;
        }
        if (look() == 'e' || look() == 'E') {
            ++at_;
            if (look() == '+' || look() == '-')
                ++at_;
            while (is_digit(look()))
                ++at_;
        }
        const bool runs_on = is_name_part(look());
        while (is_name_part(look()))
            ++at_;
        const std::string text(source_.substr(begin, at_ - begin));
        double value = 0;
        const auto [end, failure] = std::from_chars(text.data(), text.data() + text.size(), value);
        if (runs_on || end != text.data() + text.size() || failure == std::errc::invalid_argument)
            fault(Code::bad_number, begin, {text});
        else if (failure == std::errc::result_out_of_range || std::fabs(value) > FLT_MAX)
            fault(Code::number_too_large, begin, {text});
        push(TokenKind::number, begin);
    }

    void string() {
        const std::size_t begin = at_++;
        while (at_ < source_.size() && look() != '"' && look() != '\n')
            ++at_;
        if (look() == '"') {
            ++at_;
        } else {
            const auto end = static_cast<std::uint32_t>(at_);
            fault(Code::unclosed_string, begin, {}, {{"add the closing \"", {end, end}, "\""}});
        }
        push(TokenKind::string, begin);
    }

    void symbol() {
        const std::size_t begin = at_;
        for (const Symbol& candidate : symbols)
            if (candidate.text[0] == source_[at_] && source_.substr(at_, candidate.text.size()) == candidate.text) {
                at_ += candidate.text.size();
                push(candidate.kind, begin);
                return;
            }
        // A foreign character counts once, with all of its UTF-8 bytes.
        ++at_;
        while ((static_cast<unsigned char>(look()) & 0xC0) == 0x80)
            ++at_;
        const std::string text(source_.substr(begin, at_ - begin));
        const bool control = static_cast<unsigned char>(text[0]) < 0x20 || static_cast<unsigned char>(text[0]) == 0x7F;
        fault(Code::bad_character, begin,
              {control ? said("the control character {}", static_cast<int>(text[0])) : text});
        push(TokenKind::bad, begin);
    }

    std::string_view source_;
    std::vector<Diagnostic>* diagnostics_;
    std::size_t at_ = 0;
    std::vector<Token> tokens_;
};

} // namespace

std::vector<Token> lex(std::string_view source, std::vector<Diagnostic>* diagnostics) {
    return Lexer(source, diagnostics).run();
}

bool is_keyword(std::string_view word) {
    return find_statement(word) ||
        std::find(std::begin(in_expressions), std::end(in_expressions), word) != std::end(in_expressions);
}

std::span<const std::string_view> keywords() {
    static const std::vector<std::string_view> all = [] {
        std::vector<std::string_view> words;
        for (const StatementRow& statement : statement_table())
            if (!statement.word.empty())
                words.push_back(statement.word);
        words.insert(words.end(), std::begin(in_expressions), std::end(in_expressions));
        return words;
    }();
    return all;
}

} // namespace kasuri::lang
