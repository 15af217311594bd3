#include "lang/format.hpp"

#include "base/text.hpp"
#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "lang/statement.hpp"

#include <algorithm>
#include <vector>

namespace kasuri::lang {
namespace {

bool is_binary(TokenKind kind) {
    switch (kind) {
    case TokenKind::plus:
    case TokenKind::minus:
    case TokenKind::star:
    case TokenKind::slash:
    case TokenKind::less:
    case TokenKind::less_equal:
    case TokenKind::greater:
    case TokenKind::greater_equal:
    case TokenKind::equal:
    case TokenKind::not_equal:
    case TokenKind::logical_and:
    case TokenKind::logical_or:
    case TokenKind::assign:
    case TokenKind::add_assign:
    case TokenKind::sub_assign:
    case TokenKind::mul_assign:
    case TokenKind::div_assign:
    case TokenKind::question:
    case TokenKind::colon:
    case TokenKind::dots: return true;
    default: return false;
    }
}

/// Whether a value has just ended, so that + or - after it is of two operands.
bool ends_value(TokenKind kind) {
    return kind == TokenKind::name || kind == TokenKind::number || kind == TokenKind::close ||
        kind == TokenKind::string;
}

class Formatter {
public:
    explicit Formatter(std::string_view source) : source_(source) {}

    std::string run() {
        std::vector<Token> line;
        for (const Token& token : lex(source_, nullptr)) {
            if (token.kind == TokenKind::newline || token.kind == TokenKind::end) {
                write(line);
                line.clear();
            } else {
                line.push_back(token);
            }
        }
        while (result_.ends_with("\n\n"))
            result_.pop_back();
        return std::move(result_);
    }

private:
    std::string_view text(const Token& t) const { return text_of(source_, t.span); }
    std::size_t gap(const Token& before, const Token& after) const { return after.span.begin - before.span.end; }

    /// Whether a statement with this first word says something about the filter, and computes nothing.
    bool declares(const Token& first) const {
        const StatementRow* statement = first.kind == TokenKind::keyword ? find_statement(text(first)) : nullptr;
        return statement && !statement->in_functions && statement->kind != StatementKind::fn;
    }

    void write(const std::vector<Token>& line) {
        if (line.empty()) {
            if (!result_.empty() && !result_.ends_with("\n\n"))
                result_ += "\n";
            return;
        }
        // A line that closes a body stands where the body began.
        const bool closes = line[0].kind == TokenKind::close_brace;
        std::string out(indent(closes), ' ');
        const bool declaration = open_.empty() && braces_ == 0 && !goes_on_ && declares(line[0]);
        const bool space_name = declaration && text(line[0]) == "working";
        TokenKind last = TokenKind::newline; // of the whole text so far, comments aside
        bool unary = false;                  // the last token was a sign of one operand
        if (open_.empty())
            heading_ = line[0].kind == TokenKind::keyword && text(line[0]) == row(StatementKind::fn).word;
        for (std::size_t i = 0; i < line.size(); ++i) {
            const Token& token = line[i];
            if (heading_ && open_.size() == 1 && token.kind == TokenKind::name && last == TokenKind::name)
                out += " : "; // one way to write a type
            else if (i > 0)
                out.append(spaces(line[i - 1], token, last, unary, declaration, space_name), ' ');
            const bool sign =
                token.kind == TokenKind::plus || token.kind == TokenKind::minus || token.kind == TokenKind::logical_not;
            unary = sign && !ends_value(i > 0 ? last : before_);
            if (token.kind == TokenKind::open)
                open_.push_back(out.size() + 1);
            else if (token.kind == TokenKind::close && !open_.empty()) {
                open_.pop_back();
                heading_ = heading_ && !open_.empty();
            } else if (token.kind == TokenKind::open_brace)
                ++braces_;
            else if (token.kind == TokenKind::close_brace)
                braces_ = std::max(0, braces_ - 1);
            out += text(token);
            if (token.kind != TokenKind::comment)
                last = token.kind;
        }
        if (last != TokenKind::newline) { // more than a comment
            goes_on_ = is_binary(last) || last == TokenKind::comma || last == TokenKind::logical_not;
            before_ = last;
        }
        while (out.ends_with(' ') || out.ends_with('\t'))
            out.pop_back();
        result_ += out + "\n";
    }

    std::size_t indent(bool closes) const {
        if (!open_.empty())
            return open_.back();
        return static_cast<std::size_t>(std::max(0, braces_ - (closes ? 1 : 0))) * 4 + (goes_on_ ? 4 : 0);
    }

    std::size_t spaces(const Token& before, const Token& token, TokenKind last, bool unary, bool declaration,
                       bool space_name) const {
        const std::size_t written = gap(before, token);
        if (token.kind == TokenKind::comment)
            return std::max<std::size_t>(2, written);
        if (space_name && before.kind != TokenKind::keyword)
            return written == 0 ? 0 : 1; // rec709-linear is one name
        if (unary || before.kind == TokenKind::open || before.kind == TokenKind::dot || token.kind == TokenKind::dot ||
            token.kind == TokenKind::close || token.kind == TokenKind::comma || token.kind == TokenKind::semicolon)
            return 0;
        if (token.kind == TokenKind::open && before.kind == TokenKind::name && (!declaration || written == 0))
            return 0; // a call
        if (declaration || (!open_.empty() && last == TokenKind::comma))
            return std::max<std::size_t>(1, written); // columns that somebody made
        return 1;
    }

    std::string_view source_;
    std::string result_;
    std::vector<std::size_t> open_; ///< columns behind open brackets
    int braces_ = 0;
    bool heading_ = false; ///< in the brackets of a function's arguments
    bool goes_on_ = false; ///< the last line ended in an operator
    TokenKind before_ = TokenKind::newline;
};

} // namespace

std::optional<std::string> formatted(std::string_view source) {
    std::vector<Diagnostic> faults;
    parse(source, faults);
    if (!faults.empty())
        return std::nullopt;
    return Formatter(source).run();
}

} // namespace kasuri::lang
