#include "lang/parser.hpp"

#include "base/said.hpp"
#include "lang/parse_expression.hpp"
#include "lang/statement.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

/// Reads statements. What begins with a keyword is a row of `forms`; anything else is an assignment.
class Parser : public ExpressionParser {
public:
    using ExpressionParser::ExpressionParser;

    // file = { [ statement ] ( newline | ";" ) }
    void file() {
        // What a text of so many tokens and lines will about need, so that a long one is not moved while it grows.
        tree_.exprs.reserve(tokens_.size() * 2 / 3);
        std::size_t lines = 1;
        for (std::size_t i = 1; i < tokens_.size(); ++i)
            lines += tokens_[i - 1].kind == TokenKind::newline && tokens_[i].kind != TokenKind::newline ? 1 : 0;
        tree_.statements.reserve(std::min(lines, max_statements));
        while (look() != TokenKind::end) {
            if (accept(TokenKind::newline) || accept(TokenKind::semicolon))
                continue;
            guarded([this] { tree_.statements.push_back(statement()); });
        }
    }

private:
    struct Form {
        StatementKind kind;
        void (Parser::*read)(Statement& s);
    };
    static constexpr std::size_t form_count = 13;
    static const Form forms[form_count];

    /// Whatever goes wrong in one statement, reading goes on behind it.
    template <class Read>
    void guarded(Read&& read) {
        const int braces = braces_;
        try {
            reset_nesting();
            read();
            if (!at_line_end())
                fault(Code::extra_text, token().span, {shown(token())});
        } catch (const GiveUp&) {
            braces_ = braces;
        }
        skip_statement();
    }

    Statement statement() {
        Statement s;
        s.span = token().span;
        for (const Form& form : forms)
            if (is_word(row(form.kind).word)) {
                s.kind = form.kind;
                ++at_;
                (this->*form.read)(s);
                s.span.end = last_span().end;
                return s;
            }
        if (look() != TokenKind::name) {
            fault(Code::statement_expected, token().span, {shown(token())});
            throw GiveUp{};
        }
        assign(s);
        s.span.end = last_span().end;
        return s;
    }

    void named(Statement& s, std::string_view wanted) {
        const Word word = expect_name(wanted);
        s.name = word.text;
        s.name_span = word.span;
    }

    // filter = "filter" STRING;  note = "note" STRING;  tags = "tags" STRING;  use = "use" STRING
    void texted(Statement& s) {
        s.name_span = token().span;
        s.text = quoted();
    }

    // working = "working" SPACE;  a space's name may hold hyphens
    void working(Statement& s) {
        s.name_span = token().span;
        if (at_line_end())
            give_up("the name of a space");
        if (look() == TokenKind::string) { // those of a colour config may hold anything
            s.name = quoted();
            return;
        }
        std::uint32_t end = token().span.begin;
        while (!at_line_end() && token().span.begin == end)
            end = tokens_[at_++].span.end;
        s.name_span.end = end;
        s.name = text_of(source_, s.name_span);
    }

    // source = "source" NAME [ ":" TYPE ] [ "=" ( "picture" | "step" STRING ) [ "." COMPONENT ] ] [ STRING ]
    void source(Statement& s) {
        named(s, "the name of the further picture");
        if (accept(TokenKind::colon))
            s.type = expect_name("a type: float, vec3 or vec4");
        if (accept(TokenKind::assign)) {
            if (!is_word("picture") && !is_word("step"))
                give_up("picture or step \"LABEL\"");
            s.reads = expect_name("picture or step");
            if (s.reads.text == "step")
                s.label = quoted();
            if (accept(TokenKind::dot)) {
                const Word word = expect_name("a channel: r, g, b or a");
                s.component = word.text;
                s.component_span = word.span;
            }
        }
        if (look() == TokenKind::string)
            s.text = quoted();
    }

    // param = "param" NAME "=" value [ "of" NAME { "," NAME } ] [ "in" number ".." number ] [ "whole" ]
    //         [ "step" number ] [ STRING ];  value = number | "true" | "false" | NAME | "vec3" "(" ... ")"
    void param(Statement& s) {
        named(s, "the name of the parameter");
        expect(TokenKind::assign, "= and its default");
        s.value = unary();
        if (accept_word("of"))
            do
                s.options.push_back(expect_name("the name of an option"));
            while (accept(TokenKind::comma));
        if (accept_word("in")) {
            s.low = unary();
            expect(TokenKind::dots, "..");
            s.high = unary();
        }
        s.whole = accept_word("whole");
        if (accept_word("step"))
            s.step = unary();
        if (look() == TokenKind::string)
            s.text = quoted();
    }

    // preset = "preset" STRING NAME "=" value { "," NAME "=" value }
    void preset(Statement& s) {
        s.name_span = token().span;
        s.text = quoted();
        do {
            skip_newlines();
            const Word name = expect_name("the name of a parameter");
            expect(TokenKind::assign, "=");
            s.values.push_back({name.text, name.span, unary()});
        } while (accept(TokenKind::comma));
    }

    // let = "let" NAME "=" expression
    void let(Statement& s) {
        named(s, "a name");
        expect(TokenKind::assign, "=");
        skip_newlines();
        s.value = expression();
    }

    // fn = "fn" NAME "(" [ NAME [ [ ":" ] TYPE ] { "," NAME [ [ ":" ] TYPE ] } ] ")" ( "=" expression | block )
    void fn(Statement& s) {
        try {
            fn_heading(s);
        } catch (const GiveUp&) {
            skip_block(); // its body would only bring more faults
            throw;
        }
        if (braces_ > 0) {
            fault(Code::nested_function, s.name_span, {s.name});
            skip_block();
            throw GiveUp{};
        }
        if (accept(TokenKind::assign)) {
            skip_newlines();
            s.body.push_back(result());
        } else {
            block(s);
        }
    }

    void skip_block() {
        while (!at_line_end() && look() != TokenKind::open_brace)
            ++at_;
        if (!accept(TokenKind::open_brace))
            return;
        for (int open = 1; open > 0 && look() != TokenKind::end; ++at_)
            open += look() == TokenKind::open_brace ? 1 : look() == TokenKind::close_brace ? -1 : 0;
    }

    void fn_heading(Statement& s) {
        named(s, "the name of the function");
        expect(TokenKind::open, "( and the function's arguments");
        skip_newlines();
        if (look() != TokenKind::close)
            do {
                skip_newlines();
                FunctionParameter p;
                p.name = expect_name("the name of an argument");
                if (accept(TokenKind::colon) || look() == TokenKind::name) // without the colon: as it was once written
                    p.type = expect_name("a type");
                s.parameters.push_back(std::move(p));
                skip_newlines();
            } while (accept(TokenKind::comma));
        expect(TokenKind::close, ") or ,");
        if (look() != TokenKind::assign && look() != TokenKind::open_brace)
            give_up("= and an expression, or {");
    }

    // block = "{" { statement ( newline | ";" ) } expression "}"
    void block(Statement& s) {
        expect(TokenKind::open_brace, "= and an expression, or {");
        ++braces_;
        while (look() != TokenKind::close_brace) {
            if (accept(TokenKind::newline) || accept(TokenKind::semicolon))
                continue;
            if (look() == TokenKind::end) { // kept, so that an editor knows what is in it
                fault(Code::expected, token().span, {"} at the end of the function", shown(token())});
                s.unclosed = true;
                --braces_;
                return;
            }
            guarded([&] { s.body.push_back(statement_begins_here() ? statement() : result()); });
        }
        --braces_;
        ++at_;
    }

    Statement result() {
        Statement s;
        s.kind = StatementKind::result;
        s.span = token().span;
        s.value = expression();
        s.span = span_of(s.value);
        return s;
    }

    // keep = "keep" NAME
    void keep(Statement& s) { named(s, "luminance"); }

    // hold = "hold" NAME "of" ( expression | "(" expression "," expression "," expression ")" ) [ "in" MODEL ]
    void hold(Statement& s) {
        named(s, "hue");
        if (!accept_word("of"))
            give_up("of and a colour");
        const std::size_t begin = at_;
        s.value = look() == TokenKind::open ? three_numbers() : no_expr;
        if (s.value == no_expr) {
            at_ = begin;
            s.value = expression();
        }
        if (accept_word("in"))
            s.type = expect_name("the name of a colour model");
    }

    /// (r, g, b), which is vec3(r, g, b) here; nothing if it is some other bracket.
    ExprId three_numbers() {
        Expr e;
        e.kind = ExprKind::call;
        e.name = "vec3";
        e.span = e.name_span = token().span;
        ++at_;
        e.args.push_back(expression());
        if (look() != TokenKind::comma)
            return no_expr;
        while (accept(TokenKind::comma))
            e.args.push_back(expression());
        e.span = cover(e.span, token().span);
        expect(TokenKind::close, ")");
        for (const ExprId arg : e.args)
            e.height = std::max(e.height, tree_.exprs[arg].height + 1);
        tree_.exprs.push_back(std::move(e));
        return static_cast<ExprId>(tree_.exprs.size() - 1);
    }

    // assign = NAME [ "." NAME ] ( "=" | "+=" | "-=" | "*=" | "/=" ) expression
    void assign(Statement& s) {
        s.kind = StatementKind::assign;
        named(s, "a name");
        if (accept(TokenKind::dot)) {
            const Word component = expect_name("a component");
            s.component = component.text;
            s.component_span = component.span;
        }
        const std::optional<Operator> op = assignment(look());
        if (!op) {
            if (s.component.empty() && at_line_end()) {
                fault(Code::statement_expected, s.name_span, {s.name});
                throw GiveUp{};
            }
            give_up(said("= after {}", s.name));
        }
        s.op = *op;
        ++at_;
        skip_newlines();
        s.value = expression();
    }

    // proof = "proof" STRING [ "on" ( TARGET | colour { "," colour } ) ] ":" ( NAME STRING [ "<" expression ] |
    // expression ), where colour = "(" r "," g "," b ")"
    void proof(Statement& s) {
        s.text = quoted();
        if (accept_word("on")) {
            if (look() != TokenKind::open)
                s.type = expect_name("the name of a target, or a colour such as (0.72, 0.49, 0.4)");
            else
                do {
                    if (look() != TokenKind::open)
                        give_up("a colour such as (0.72, 0.49, 0.4)");
                    s.colours.push_back(three_numbers());
                    if (s.colours.back() == no_expr)
                        give_up("a colour such as (0.72, 0.49, 0.4)");
                } while (accept(TokenKind::comma));
        }
        expect(TokenKind::colon, ": and what is promised");
        skip_newlines();
        s.value = look() == TokenKind::name && look(1) == TokenKind::string ? compared_with_file(s) : expression();
    }

    // NAME STRING [ "<" expression ]
    ExprId compared_with_file(Statement& s) {
        Expr name;
        name.kind = ExprKind::name;
        name.span = name.name_span = token().span;
        name.name = text(token());
        ++at_;
        s.file.span = token().span;
        s.file.text = quoted();
        tree_.exprs.push_back(name);
        const auto subject = static_cast<ExprId>(tree_.exprs.size() - 1);
        if (!accept(TokenKind::less))
            return subject;
        Expr compared;
        compared.kind = ExprKind::binary;
        compared.op = Operator::less;
        compared.args = {subject, expression()};
        compared.span = cover(name.span, last_span());
        compared.height = tree_.exprs[compared.args[1]].height + 1;
        tree_.exprs.push_back(std::move(compared));
        return static_cast<ExprId>(tree_.exprs.size() - 1);
    }
};

const Parser::Form Parser::forms[form_count] = {
    {StatementKind::filter, &Parser::texted}, {StatementKind::note, &Parser::texted},
    {StatementKind::tags, &Parser::texted},   {StatementKind::working, &Parser::working},
    {StatementKind::use, &Parser::texted},    {StatementKind::source, &Parser::source},
    {StatementKind::param, &Parser::param},   {StatementKind::preset, &Parser::preset},
    {StatementKind::fn, &Parser::fn},         {StatementKind::let, &Parser::let},
    {StatementKind::keep, &Parser::keep},     {StatementKind::hold, &Parser::hold},
    {StatementKind::proof, &Parser::proof},
};

bool too_long(std::string_view source, std::vector<Diagnostic>& diagnostics) {
    if (source.size() <= longest_text)
        return false;
    diagnostics.push_back({Code::text_too_long,
                           Severity::error,
                           {0, 0},
                           {fmt::format("{}", source.size()), fmt::format("{}", longest_text)},
                           {}});
    return true;
}

} // namespace

Tree parse(std::string_view source, std::vector<Diagnostic>& diagnostics) {
    Tree tree;
    if (!too_long(source, diagnostics))
        Parser(source, tree, diagnostics).file();
    return tree;
}

ExprId parse_expression(std::string_view source, Tree& tree, std::vector<Diagnostic>& diagnostics) {
    return too_long(source, diagnostics) ? no_expr : ExpressionParser(source, tree, diagnostics).single();
}

} // namespace kasuri::lang
