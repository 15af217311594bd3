#include "lang/assist.hpp"

#include "lang/assist_place.hpp"
#include "lang/statement.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

std::string lower(std::string_view text) {
    std::string made(text);
    std::transform(made.begin(), made.end(), made.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return made;
}

class Completer {
public:
    explicit Completer(const AssistPlace& place) : p_(place) {}

    Completions run() {
        replaces_ = p_.word_span();
        if (!p_.in_text)
            offer();
        // Words that begin with what is written, then those that hold it; each group in the order it was offered.
        const std::string written = lower(text_of(p_.source, {replaces_.begin, p_.at}));
        Completions result{replaces_, {}};
        for (const bool begins : {true, false})
            for (const Completion& item : items_) {
                const std::size_t found = lower(item.text).find(written);
                if (found != std::string::npos && (found == 0) == begins &&
                    std::none_of(result.items.begin(), result.items.end(),
                                 [&](const Completion& other) { return other.text == item.text; }))
                    result.items.push_back(item);
            }
        return result;
    }

private:
    void add(CompletionKind kind, std::string_view text, std::string_view detail = {}, std::string_view doc = {}) {
        items_.push_back({kind, std::string(text), std::string(detail), std::string(doc)});
    }
    void words(CompletionKind kind, std::span<const std::string_view> list) {
        for (const std::string_view word : list)
            add(kind, word);
    }
    void types(std::initializer_list<Type> plain, bool models) {
        for (const Type type : plain)
            add(CompletionKind::type, name(type));
        if (models)
            for (const ModelShape& model : p_.vocabulary.models)
                add(CompletionKind::type, model.name, "colour model", model.doc);
    }

    void offer() {
        if (p_.kind_before() == TokenKind::dot)
            return members(p_.word - 1);
        if (p_.word == p_.first)
            return beginnings();
        const std::string_view statement = p_.statement();
        const bool in_brackets = bracket_depth() > 0;
        if (statement == "working")
            return spaces();
        if (statement == "keep")
            return add(CompletionKind::word, "luminance", "", "the luminance of the input");
        if (statement == "hold") {
            if (p_.after_word("in"))
                return models_with_hue();
            if (p_.word == p_.first + 1)
                return add(CompletionKind::word, "hue", "", "turns out until a colour has its hue back");
            if (p_.word == p_.first + 2)
                return add(CompletionKind::word, "of", "", "the colour whose hue is held");
            return expression();
        }
        if (statement == "filter" || statement == "note" || statement == "use")
            return;
        if (statement == "source")
            return source();
        if (statement == "preset")
            return preset();
        if (statement == "param")
            return param(in_brackets);
        if (statement == "fn" && !p_.after(TokenKind::assign)) {
            if (in_brackets && (p_.kind_before() == TokenKind::name || p_.kind_before() == TokenKind::colon))
                types({float_type, bool_type, vec2_type, vec3_type, vec4_type, mat3_type}, true);
            return;
        }
        if (statement == "proof" && !p_.after(TokenKind::colon)) {
            if (p_.kind_before() == TokenKind::string)
                add(CompletionKind::word, "on", "", "the target it is measured on");
            else if (p_.after_word("on"))
                words(CompletionKind::target, p_.vocabulary.targets);
            return;
        }
        if (statement == "proof" && p_.kind_before() == TokenKind::colon)
            words(CompletionKind::proof, p_.vocabulary.proofs);
        if ((statement == "let" || p_.tokens[p_.first].kind == TokenKind::name) && !value_begun() && !p_.in_function)
            return; // a name, or = is missing
        if (statement == "let" && !value_begun())
            return;
        expression();
    }

    void models_with_hue() {
        for (const ModelShape& model : p_.vocabulary.models)
            if (model.hue != HueWay::none)
                add(CompletionKind::type, model.name, "colour model", model.doc);
    }

    /// Whether = or += and the like came in this statement.
    bool value_begun() const {
        return p_.after(TokenKind::assign) || p_.after(TokenKind::add_assign) || p_.after(TokenKind::sub_assign) ||
            p_.after(TokenKind::mul_assign) || p_.after(TokenKind::div_assign);
    }

    int bracket_depth() const {
        int depth = 0;
        for (std::size_t i = p_.first; i < p_.word; ++i)
            depth += p_.tokens[i].kind == TokenKind::open ? 1 : p_.tokens[i].kind == TokenKind::close ? -1 : 0;
        return depth;
    }

    void spaces() {
        // rec709-linear is one name of several tokens.
        if (p_.word > p_.first + 1)
            replaces_ = {p_.tokens[p_.first + 1].span.begin, std::max(p_.at, p_.word_span().end)};
        words(CompletionKind::space, p_.vocabulary.spaces);
        if (p_.vocabulary.further_spaces)
            for (const std::string& further : p_.vocabulary.further_spaces())
                add(CompletionKind::space, "\"" + further + "\"", "", "of the colour config");
    }

    void beginnings() {
        for (const KnownName& known : p_.names())
            if (known.kind == CompletionKind::local && known.doc != "argument")
                add(known.kind, known.name, known.detail, known.doc);
        for (const StatementRow& row : statement_table())
            if (!row.word.empty() && (!p_.in_function || row.in_functions))
                add(CompletionKind::statement, row.word, row.form, row.doc);
        if (p_.in_function)
            expression(); // the result
    }

    void source() {
        if (p_.kind_before() == TokenKind::colon)
            return types({vec4_type, vec3_type, float_type}, false);
        if (p_.kind_before() != TokenKind::assign)
            return;
        add(CompletionKind::word, "picture", "", "the picture as it came into the look");
        add(CompletionKind::word, "step", "step \"LABEL\"", "what an earlier step of the look made");
    }

    void preset() {
        if (p_.kind_before() == TokenKind::string || p_.kind_before() == TokenKind::comma) {
            for (const KnownName& known : p_.names())
                if (known.kind == CompletionKind::parameter)
                    add(known.kind, known.name, known.detail, known.doc);
        } else if (p_.kind_before() == TokenKind::assign && p_.word >= 2) {
            if (const KnownName* known = p_.find(p_.text(p_.word - 2)))
                values_of(*known);
        }
    }

    void values_of(const KnownName& known) {
        for (const std::string& option : known.options)
            add(CompletionKind::option, option, known.name);
        if (known.type == bool_type)
            for (const std::string_view word : {"true", "false"})
                add(CompletionKind::word, word);
        if (known.type == vec3_type)
            add(CompletionKind::type, "vec3", "vec3(r, g, b)");
    }

    void param(bool in_brackets) {
        if (in_brackets || !p_.after(TokenKind::assign))
            return;
        if (p_.kind_before() == TokenKind::assign) {
            for (const std::string_view word : {"true", "false"})
                add(CompletionKind::word, word, "", "a switch");
            return add(CompletionKind::type, "vec3", "vec3(r, g, b)", "a colour");
        }
        struct Part {
            std::string_view word, doc;
        };
        constexpr Part parts[] = {{"of", "the options of a choice"},
                                  {"in", "the range: LOW .. HIGH"},
                                  {"whole", "whole numbers only"},
                                  {"step", "how far one step goes"}};
        const std::string_view before = p_.text(p_.word - 1);
        for (const Part& part : parts)
            if (before == part.word && before != "whole")
                return; // a number or a name of the user's own comes here
        for (const Part& part : parts)
            if (!p_.after_word(part.word))
                add(CompletionKind::word, part.word, "", part.doc);
    }

    void members(std::size_t dot) {
        const std::size_t begin = p_.operand_of(dot);
        if (dot - begin == 1)
            if (const KnownName* known = p_.find(p_.text(begin)); known && !known->options.empty()) {
                for (const std::string& option : known->options)
                    add(CompletionKind::option, option, "bool", "whether " + known->name + " is " + option);
                return;
            }
        const Type type = p_.type_of(begin, dot);
        if (type.kind == Kind::model)
            for (std::size_t i = 0; i < 3; ++i)
                add(CompletionKind::component, type.model->components[i], "float", type.model->meanings[i]);
        if (!is_vector(type))
            return;
        const std::size_t n = static_cast<std::size_t>(width(type));
        for (std::size_t i = 0; i < n; ++i)
            add(CompletionKind::component, std::string_view("rgba").substr(i, 1), "float");
        if (n >= 3)
            add(CompletionKind::component, "rgb", "vec3");
        for (std::size_t i = 0; i < n; ++i)
            add(CompletionKind::component, std::string_view("xyzw").substr(i, 1), "float");
    }

    void expression() {
        for (const KnownName& known : p_.names())
            add(known.kind, known.name, known.detail, known.doc);
        for (const FunctionPtr& function : p_.functions())
            add(CompletionKind::function, function->name, shown(*function), function->doc);
        std::vector<Completion> language;
        for (const Signature& signature : p_.vocabulary.functions)
            if (!signature.name.empty()) // one of a colour config that is gone has none
                language.push_back({CompletionKind::function, std::string(signature.name), shown(signature),
                                    std::string(signature.doc)});
        for (const FunctionPtr& function : p_.vocabulary.prelude)
            language.push_back({CompletionKind::function, function->name, shown(*function), function->doc});
        for (const auto& [type, doc] :
             {std::pair{vec2_type, "vec2(x, y)"}, std::pair{vec3_type, "vec3(r, g, b)"},
              std::pair{vec4_type, "vec4(r, g, b, a)"}, std::pair{mat3_type, "mat3(row, row, row)"}})
            language.push_back({CompletionKind::type, name(type), doc, ""});
        for (const std::string_view word : {"true", "false"})
            language.push_back({CompletionKind::word, std::string(word), "bool", ""});
        std::stable_sort(language.begin(), language.end(),
                         [](const Completion& x, const Completion& y) { return x.text < y.text; });
        items_.insert(items_.end(), language.begin(), language.end());
    }

    const AssistPlace& p_;
    Span replaces_;
    std::vector<Completion> items_;
};

/// All forms of a function, own ones before those of the language.
template <class Own, class BuiltIn>
void each_form(const AssistPlace& place, std::string_view name, Own own, BuiltIn built_in) {
    for (const auto list : {place.functions(), place.vocabulary.prelude})
        for (const FunctionPtr& function : list)
            if (function->name == name)
                own(*function);
    for (const Signature& signature : place.vocabulary.functions)
        if (signature.name == name)
            built_in(signature);
}

std::string with_file(const Function& f) {
    return f.file.empty() ? f.doc : fmt::format("{}{}from {}", f.doc, f.doc.empty() ? "" : "\n", f.file);
}

} // namespace

Completions completions(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                        const CheckOptions& options) {
    return Completer(AssistPlace(source, at, vocabulary, options)).run();
}

std::optional<Hover> hover(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                           const CheckOptions& options) {
    const AssistPlace place(source, at, vocabulary, options);
    if (!place.has_word || place.in_text)
        return std::nullopt;
    Hover made{place.word_span(), "", ""};
    const std::string word(place.text(place.word));
    const TokenKind next = place.word + 1 < place.tokens.size() ? place.tokens[place.word + 1].kind : TokenKind::end;
    if (place.tokens[place.word].kind == TokenKind::keyword) {
        const StatementRow* statement = find_statement(word);
        if (!statement)
            return std::nullopt;
        return Hover{made.span, std::string(statement->form), std::string(statement->doc)};
    }
    if (place.kind_before() == TokenKind::dot) {
        const std::size_t begin = place.operand_of(place.word - 1);
        const Type type = place.type_of(begin, place.word - 1);
        if (type.kind == Kind::model)
            for (std::size_t i = 0; i < 3; ++i)
                if (type.model->components[i] == word)
                    return Hover{made.span, fmt::format("{} of {} : float", word, type.model->name),
                                 std::string(type.model->meanings[i])};
        if (is_vector(type))
            return Hover{made.span,
                         fmt::format("{} of {} : {}", word, name(type), name(vector_of(static_cast<int>(word.size())))),
                         ""};
        return std::nullopt;
    }
    if (next == TokenKind::open) {
        const auto say = [&](const std::string& form, std::string_view doc) {
            made.heading += (made.heading.empty() ? "" : "\n") + form;
            if (made.doc.find(doc) == std::string::npos)
                made.doc += (made.doc.empty() ? "" : "\n") + std::string(doc);
        };
        each_form(
            place, word, [&](const Function& f) { say(shown(f), with_file(f)); },
            [&](const Signature& s) { say(shown(s), s.doc); });
        if (made.heading.empty())
            return std::nullopt;
        return made;
    }
    if (const KnownName* known = place.find(word)) {
        constexpr std::string_view kinds[] = {"", "", "", "let", "param", "source"};
        const std::string_view kind = known->doc == "argument" ? ""
            : word == "out"                                    ? ""
                                                               : kinds[static_cast<std::size_t>(known->kind)];
        made.heading = fmt::format("{}{}{} : {}", kind, kind.empty() ? "" : " ", word, known->detail);
        made.doc = known->doc;
        return made;
    }
    for (const ModelShape& model : vocabulary.models)
        if (model.name == word)
            return Hover{made.span, word, std::string(model.doc)};
    return std::nullopt;
}

std::optional<CallHelp> call_help(std::string_view source, std::size_t at, const Vocabulary& vocabulary,
                                  const CheckOptions& options) {
    const AssistPlace place(source, at, vocabulary, options);
    CallHelp help;
    int depth = 0;
    std::size_t open = place.word;
    for (; open > place.first; --open) {
        const Token& token = place.tokens[open - 1];
        if (token.span.end > place.at)
            continue;
        if (token.kind == TokenKind::close)
            ++depth;
        else if (token.kind == TokenKind::open && depth-- == 0)
            break;
        else if (token.kind == TokenKind::comma && depth == 0)
            ++help.argument;
    }
    if (open < place.first + 2 || place.tokens[open - 2].kind != TokenKind::name)
        return std::nullopt;
    if (open >= place.first + 3 && place.text(open - 3) == "fn")
        return std::nullopt; // the heading of a function calls nothing
    help.name = place.tokens[open - 2].span;
    const auto add = [&](const auto& callee, std::string_view name, std::string_view doc, bool variadic) {
        CallForm form{shown(callee), {}, std::string(doc)};
        const std::size_t count = callee.parameters.size();
        const std::size_t active = variadic && help.argument >= count && count > 0 ? count - 1 : help.argument;
        std::size_t from = name.size() + 1;
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t size = shown_parameter(callee, i).size();
            if (i == active)
                form.active = {static_cast<std::uint32_t>(from), static_cast<std::uint32_t>(from + size)};
            from += size + 2;
        }
        help.forms.push_back(std::move(form));
    };
    each_form(
        place, text_of(source, help.name), [&](const Function& f) { add(f, f.name, with_file(f), false); },
        [&](const Signature& s) { add(s, s.name, s.doc, s.variadic); });
    if (help.forms.empty())
        return std::nullopt;
    // Forms that have so many arguments come first.
    std::stable_partition(help.forms.begin(), help.forms.end(),
                          [](const CallForm& form) { return form.active.size() > 0; });
    return help;
}

} // namespace kasuri::lang
