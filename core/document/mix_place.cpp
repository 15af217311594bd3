#include "document/mix_place.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <utility>
#include <vector>

namespace kasuri::document {
namespace {

using lang::Kind;
using lang::Operator;
using lang::TypedKind;

/// A number that is written out, perhaps with a sign.
std::optional<double> written(const lang::Rule& rule, lang::TypedId id) {
    const lang::Typed& t = rule.exprs[id];
    if (t.kind == TypedKind::constant && t.span.begin < t.span.end)
        return t.number;
    if (t.kind == TypedKind::unary && t.op == Operator::neg)
        if (const auto inner = written(rule, t.args[0]))
            return -*inner;
    return std::nullopt;
}

/// `count` numbers side by side.
template <std::size_t count>
bool numbers_of(const lang::Rule& rule, lang::TypedId id, std::array<Span, count>& spans,
                std::array<double, count>& values) {
    const lang::Typed& t = rule.exprs[id];
    if (t.kind != TypedKind::construct || t.args.size() != count)
        return false;
    for (std::size_t i = 0; i < count; ++i) {
        const auto number = written(rule, t.args[i]);
        if (!number)
            return false;
        values[i] = *number;
        spans[i] = rule.exprs[t.args[i]].span;
    }
    return true;
}

std::string offset_term(const std::array<double, 3>& offsets) {
    return fmt::format(" + vec3({}, {}, {})", number_for_text(offsets[0]), number_for_text(offsets[1]),
                       number_for_text(offsets[2]));
}

/// What a construct is made of, with constructs in it taken apart.
void leaves_of(const lang::Rule& rule, lang::TypedId id, std::vector<lang::TypedId>& leaves) {
    const lang::Typed& t = rule.exprs[id];
    if (t.kind != TypedKind::construct)
        leaves.push_back(id);
    else
        for (const lang::TypedId arg : t.args)
            leaves_of(rule, arg, leaves);
}

std::optional<MixPlace> matrix_of(const lang::Rule& rule, lang::TypedId id) {
    const lang::Typed& t = rule.exprs[id];
    if (t.kind != TypedKind::construct || t.type.kind != Kind::mat3)
        return std::nullopt;
    std::vector<lang::TypedId> leaves;
    leaves_of(rule, id, leaves);
    MixPlace place;
    if (leaves.size() != place.numbers.size())
        return std::nullopt;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const lang::Typed& leaf = rule.exprs[leaves[i]];
        place.numbers[i] = leaf.span;
        place.parameters[i] = leaf.kind == TypedKind::parameter ? static_cast<int>(leaf.index) : -1;
        const std::optional<double> number = leaf.kind == TypedKind::parameter
            ? std::optional(rule.parameters[leaf.index].value)
            : written(rule, leaves[i]);
        if (!number)
            return std::nullopt;
        place.values[i] = *number;
    }
    return place;
}

/// Every matrix in an expression, from the left.
void matrices_in(const lang::Rule& rule, lang::TypedId id, std::vector<std::pair<lang::TypedId, MixPlace>>& found) {
    if (std::optional<MixPlace> place = matrix_of(rule, id)) {
        found.emplace_back(id, std::move(*place));
        return;
    }
    for (const lang::TypedId arg : rule.exprs[id].args)
        matrices_in(rule, arg, found);
}

/// The matrix of `mat3(...) * ...`; nothing if that is something else.
std::optional<lang::TypedId> factor_of(const lang::Rule& rule, lang::TypedId id) {
    const lang::Typed& t = rule.exprs[id];
    return t.kind == TypedKind::binary && t.op == Operator::mul && rule.exprs[t.args[0]].type.kind == Kind::mat3 &&
            rule.exprs[t.args[1]].type.kind != Kind::mat3
        ? std::optional(t.args[0])
        : std::nullopt;
}

} // namespace

std::vector<MixPlace> mix_places(const lang::Rule& rule) {
    std::vector<MixPlace> all;
    for (const lang::Step& step : rule.steps) {
        std::vector<std::pair<lang::TypedId, MixPlace>> found;
        matrices_in(rule, step.value, found);
        const lang::Typed& t = rule.exprs[step.value];
        const bool adds = t.kind == TypedKind::binary && t.op == Operator::add;
        const std::optional<lang::TypedId> factor = factor_of(rule, adds ? t.args[0] : step.value);
        int count = 0;
        for (auto& [id, place] : found) {
            ++count;
            place.statement = step.span;
            place.name = step.to_output ? "out.rgb" : rule.locals[step.local].name;
            if (count > 1)
                place.name += fmt::format(", {}", count);
            std::array<Span, 3> spans{};
            place.takes_offset = id == factor && !step.hold_hue;
            if (place.takes_offset && adds && numbers_of(rule, t.args[1], spans, place.offset_values))
                place.offsets = spans;
            all.push_back(std::move(place));
        }
    }
    return all;
}

std::optional<MixPlace> mix_place(const lang::Rule& rule) {
    std::vector<MixPlace> all = mix_places(rule);
    return all.empty() ? std::nullopt : std::optional(std::move(all.front()));
}

TextEdit with_mix_number(std::string_view text, const MixPlace& place, int which, double value) {
    const auto index = static_cast<std::size_t>(which);
    if (index < 9 ? place.parameters[index] >= 0 : !place.offsets)
        return {};
    const Span span = index < 9 ? place.numbers[index] : (*place.offsets)[index - 9];
    return {span.begin, std::string(text_of(text, span)), number_for_text(value)};
}

TextEdit with_mix_numbers(std::string_view text, const MixPlace& place, const std::array<double, 9>& values,
                          const std::array<double, 3>& offsets) {
    std::vector<std::pair<Span, double>> all;
    for (std::size_t i = 0; i < 9; ++i)
        if (place.parameters[i] < 0)
            all.emplace_back(place.numbers[i], values[i]);
    for (std::size_t i = 0; place.offsets && i < 3; ++i)
        all.emplace_back((*place.offsets)[i], offsets[i]);
    TextEdit edit;
    const bool adds = !place.offsets && place.takes_offset &&
        offsets != std::array<double, 3>{}; // they have no place yet: behind the statement
    if (all.empty() && !adds)
        return edit;
    Span whole = {place.statement.end, place.statement.end};
    for (const auto& [span, value] : all)
        whole.begin = std::min(whole.begin, span.begin);
    if (!adds)
        whole.end = std::max_element(all.begin(), all.end(), [](const auto& a, const auto& b) {
                        return a.first.begin < b.first.begin;
                    })->first.end;
    edit.at = whole.begin;
    edit.removed = std::string(text_of(text, whole));
    edit.inserted = edit.removed;
    std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first.begin > b.first.begin; });
    for (const auto& [span, value] : all) // from behind, so that places stay
        if (number_for_text(value) != text_of(text, span))
            edit.inserted.replace(span.begin - whole.begin, span.size(), number_for_text(value));
    if (adds)
        edit.inserted += offset_term(offsets);
    return edit;
}

std::string mix_statement(const std::array<double, 9>& values, const std::array<double, 3>& offsets,
                          std::string_view of) {
    std::string numbers;
    for (std::size_t i = 0; i < 9; ++i)
        numbers += fmt::format("{}{}", i == 0 ? "" : i % 3 == 0 ? ",  " : ", ", number_for_text(values[i]));
    return fmt::format("out.rgb = mat3({}) * {}{}", numbers, of,
                       offsets == std::array<double, 3>{} ? "" : offset_term(offsets));
}

} // namespace kasuri::document
