// Any text -> tokens, tree, types, diagnostics, fixes, canonical form, what an editor offers, program: no crash, no
// hang, no leak, and what is promised about each.
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "lang/format.hpp"
#include "proof/proof.hpp"

#include <cstdint>
#include <cstdlib>
#include <string>

using namespace kasuri;

namespace {

void insist(bool holds) {
    if (!holds)
        std::abort();
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string text(reinterpret_cast<const char*>(data), size);
    lang::CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> {
        // Files that use each other, and themselves.
        return name == "a" ? Result<std::string>("use \"b\"\nfn fa(x) = x")
            : name == "b"  ? Result<std::string>("use \"a\"")
                           : Error{"does not exist", name, ""};
    };
    const lang::Checked checked = lang::check(text, proof::vocabulary(), options);
    insist(checked.ok == !lang::has_error(checked.diagnostics));
    for (const lang::Diagnostic& d : checked.diagnostics) {
        insist(d.span.begin <= d.span.end && d.span.end <= text.size());
        insist(!lang::rendered(d, text, "fuzz").empty());
        for (const lang::Fix& fix : d.fixes) {
            insist(fix.span.begin <= fix.span.end && fix.span.end <= text.size());
            insist(lang::applied(fix, text) != text);
        }
    }
    if (const auto canonical = lang::formatted(text)) {
        insist(lang::formatted(*canonical) == canonical);
        insist(lang::check(*canonical, proof::vocabulary(), options).ok == checked.ok);
    }
    // What an editor asks for, at some byte of it.
    const std::size_t at = size == 0 ? 0 : (data[0] * 257u + data[size / 2] * 31u + data[size - 1]) % (size + 1);
    const lang::Completions offered = lang::completions(text, at, proof::vocabulary(), options);
    insist(offered.replaces.begin <= at && at <= offered.replaces.end && offered.replaces.end <= size);
    if (const auto hover = lang::hover(text, at, proof::vocabulary(), options))
        insist(hover->span.end <= size && !hover->heading.empty());
    if (const auto help = lang::call_help(text, at, proof::vocabulary(), options))
        for (const lang::CallForm& form : help->forms)
            insist(form.active.end <= form.text.size());
    if (!checked.ok || checked.rule.weight > 5000)
        return 0;
    const engine::ProgramPtr program = engine::compile(checked.rule);
    std::vector<double> values;
    for (const lang::Parameter& p : checked.rule.parameters) {
        insist(p.value >= p.low && p.value <= p.high);
        insist(lang::parse_value(p, lang::value_text(p, p.value)).has_value());
        values.push_back(p.value);
    }
    const float pixel[] = {0.25f, 0.5f, 0.75f, 1, 2, -1};
    float out[4][6];
    float* const sinks[] = {out[0], out[1], out[2], out[3]};
    bool small = true; // a blur over 1e5 pixels is right, but slow
    for (const engine::Pass& pass : program->passes())
        small = small && pass.stages.empty();
    if (small)
        engine::run(*program, {3, 2, {pixel, pixel, pixel, nullptr}, {}}, values, std::span<float* const>(sinks));
    return 0;
}
