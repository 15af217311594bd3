#include "lang/syntax.hpp"

#include "base/text.hpp"
#include "lang/statement.hpp"

#include <fmt/format.h>
#include <iterator>

namespace kasuri::lang {

std::string_view symbol(Operator op) {
    switch (op) {
    case Operator::none: return "";
    case Operator::neg:
    case Operator::sub: return "-";
    case Operator::logical_not: return "!";
    case Operator::add: return "+";
    case Operator::mul: return "*";
    case Operator::div: return "/";
    case Operator::less: return "<";
    case Operator::less_equal: return "<=";
    case Operator::greater: return ">";
    case Operator::greater_equal: return ">=";
    case Operator::equal: return "==";
    case Operator::not_equal: return "!=";
    case Operator::logical_and: return "&&";
    case Operator::logical_or: return "||";
    }
    return "";
}

namespace {

std::string printed(const Tree& tree, ExprId id) {
    if (id == no_expr)
        return "_";
    const Expr& e = tree.exprs[id];
    std::string head;
    switch (e.kind) {
    case ExprKind::bad: return "bad";
    case ExprKind::number: return number_text(e.number, 9);
    case ExprKind::boolean: return e.number != 0 ? "true" : "false";
    case ExprKind::name: return e.name;
    case ExprKind::call: head = e.name; break;
    case ExprKind::component: head = "." + e.name; break;
    case ExprKind::unary:
    case ExprKind::binary: head = symbol(e.op); break;
    case ExprKind::choice: head = "?"; break;
    }
    for (const ExprId arg : e.args)
        head += " " + printed(tree, arg);
    return "(" + head + ")";
}

void print(const Tree& tree, const std::vector<Statement>& statements, const std::string& indent, std::string& all) {
    for (const Statement& s : statements) {
        all += indent;
        const StatementRow& statement = row(s.kind);
        all += statement.word.empty() ? statement.printed : statement.word;
        if (!s.name.empty())
            all += " " + s.name;
        if (!s.component.empty())
            all += "." + s.component;
        if (!s.type.text.empty())
            all += " : " + s.type.text;
        for (const FunctionParameter& p : s.parameters)
            all += fmt::format(" {}:{}", p.name.text, p.type.text.empty() ? "float" : p.type.text);
        if (s.op != Operator::none)
            all += fmt::format(" {}=", symbol(s.op));
        for (const ExprId id : {s.value, s.low, s.high, s.step})
            if (id != no_expr)
                all += " " + printed(tree, id);
        for (const ExprId id : s.colours)
            all += " " + printed(tree, id);
        if (s.whole)
            all += " whole";
        for (const Word& option : s.options)
            all += " |" + option.text;
        for (const NamedValue& value : s.values)
            all += fmt::format(" {}={}", value.name, printed(tree, value.value));
        if (!s.text.empty())
            all += fmt::format(" \"{}\"", s.text);
        all += "\n";
        print(tree, s.body, indent + "    ", all);
    }
}

} // namespace

std::string printed(const Tree& tree) {
    std::string all;
    print(tree, tree.statements, "", all);
    return all;
}

} // namespace kasuri::lang
