#include "promises.hpp"

#include "document/edit.hpp"
#include "document/line_edits.hpp"
#include "document/merge.hpp"
#include "document/recipe.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "lang/format.hpp"
#include "lang/symbol.hpp"
#include "proof/proof.hpp"

#include <algorithm>
#include <cstdlib>
#include <cstring>

namespace kasuri::fuzz {
namespace {

lang::CheckOptions files_that_use_each_other() {
    lang::CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> {
        return name == "a" ? Result<std::string>("use \"b\"\nfn fa(x) = x")
            : name == "b"  ? Result<std::string>("use \"a\"")
                           : Error{"does not exist", name, ""};
    };
    return options;
}

void check_diagnostics(const lang::Checked& checked, const std::string& text) {
    insist(checked.ok == !lang::has_error(checked.diagnostics));
    for (const lang::Diagnostic& d : checked.diagnostics) {
        insist(d.span.begin <= d.span.end && d.span.end <= text.size());
        insist(!lang::rendered(d, text, "fuzz").empty());
        for (const lang::Fix& fix : d.fixes) {
            insist(fix.span.begin <= fix.span.end && fix.span.end <= text.size());
            insist(lang::applied(fix, text) != text);
        }
    }
}

/// What an editor asks for at a byte, and what it does there.
void check_editor(const std::string& text, std::size_t at, const lang::CheckOptions& options, bool good) {
    const lang::Completions offered = lang::completions(text, at, proof::vocabulary(), options);
    insist(offered.replaces.begin <= at && at <= offered.replaces.end && offered.replaces.end <= text.size());
    if (const auto hover = lang::hover(text, at, proof::vocabulary(), options))
        insist(hover->span.end <= text.size() && !hover->heading.empty());
    if (const auto help = lang::call_help(text, at, proof::vocabulary(), options))
        for (const lang::CallForm& form : help->forms)
            insist(form.active.end <= form.text.size());
    if (const auto symbol = lang::symbol_at(text, at)) {
        insist(!symbol->places.empty() && symbol->places.back().end <= text.size());
        const lang::Renamed renamed = lang::renamed(text, *symbol, "a_name_of_its_own", proof::vocabulary());
        insist(renamed.text.empty() != renamed.fault.empty());
        if (!renamed.text.empty() && good) // what a text means does not change
            insist(lang::check(renamed.text, proof::vocabulary(), options).ok);
    }
    if (const auto number = document::number_at(text, at)) {
        const document::TextEdit edit = document::with_number(text, *number, number->value + number->step(), 1);
        insist(edit.inverse().applied(edit.applied(text)) == text);
    }
    for (const document::ColourPlace& colour : document::colours_in(text)) {
        insist(colour.span.end <= text.size());
        const document::TextEdit edit = document::with_colour(text, colour, {0.5, 0.25, 0.125});
        insist(edit.inverse().applied(edit.applied(text)) == text);
    }
    const std::size_t end = std::min(text.size(), at + 40);
    const document::TextEdit comments =
        document::with_comments_toggled(text, {static_cast<std::uint32_t>(at), static_cast<std::uint32_t>(end)});
    insist(comments.inverse().applied(comments.applied(text)) == text);
    const auto recipes = document::recipes();
    const document::Written written = document::with_recipe(text, at, recipes[at % recipes.size()]);
    insist(written.edit.inverse().applied(written.edit.applied(text)) == text);
    insist(written.caret <= written.edit.applied(text).size());
}

void check_merging(const std::string& text, const std::string& other, std::size_t at) {
    const document::TextEdit edit = document::difference(text, other);
    insist(edit.applied(text) == other && edit.inverse().applied(other) == text);
    const std::string mine = text.substr(0, at) + "// mine\n" + text.substr(at);
    insist(document::merged(text, text, other).text == other);
    insist(document::merged(text, mine, text).text == mine);
    insist(document::merged(text, mine, mine).text == mine);
    (void)document::merged(text, mine, other);
    (void)document::merged(other, text, mine);
}

void run_a_little(const lang::Rule& rule) {
    const engine::ProgramPtr program = engine::compile(rule);
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters) {
        insist(p.value >= p.low && p.value <= p.high);
        insist(lang::parse_value(p, lang::value_text(p, p.value)).has_value());
        values.push_back(p.value);
    }
    for (const engine::Pass& pass : program->passes())
        if (!pass.stages.empty())
            return; // a blur over 1e5 pixels is right, but slow
    const float pixel[] = {0.25f, 0.5f, 0.75f, 1, 2, -1};
    float out[4][6];
    float* const sinks[] = {out[0], out[1], out[2], out[3]};
    engine::run(*program, {3, 2, {pixel, pixel, pixel, nullptr}, {}}, values, std::span<float* const>(sinks));
}

} // namespace

void insist(bool holds) {
    if (!holds)
        std::abort();
}

void keep_text_promises(const std::string& text, const std::string& other, unsigned dice) {
    const lang::CheckOptions options = files_that_use_each_other();
    const lang::Checked checked = lang::check(text, proof::vocabulary(), options);
    check_diagnostics(checked, text);
    if (const auto canonical = lang::formatted(text)) {
        insist(lang::formatted(*canonical) == canonical);
        insist(lang::check(*canonical, proof::vocabulary(), options).ok == checked.ok);
    }
    const std::size_t at = dice % (text.size() + 1);
    check_editor(text, at, options, checked.ok);
    check_merging(text, other, at);
    if (!checked.ok || checked.rule.weight > 5000)
        return;
    std::vector<double> values;
    for (const lang::Parameter& p : checked.rule.parameters)
        values.push_back(p.low == p.high ? p.low : std::clamp(0.5 * (p.low + p.high), p.low, p.high));
    const document::TextEdit defaults = document::with_defaults(text, checked.rule, values);
    insist(defaults.inverse().applied(defaults.applied(text)) == text);
    run_a_little(checked.rule);
}

} // namespace kasuri::fuzz
