// Colours that stand in a text, the values at a chosen colour, and how its proofs stand.
#include "base/text.hpp"
#include "colour/space.hpp"
#include "document/line_edits.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "lsp/methods.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::lsp {
namespace {

/// Editors show and pick colours of sRGB; in a rule they are numbers of its working space.
const colour::Space& shown() { return *colour::find_space("srgb"); }
const colour::Space& working(Document& document) {
    const lang::Checked& checked = document.check();
    const colour::Space* space = colour::find_space(engine::working_space(checked.rule));
    return space ? *space : *colour::find_space(colour::default_space);
}

Json colours(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const colour::Space& space = working(document);
    Json all = Json::array();
    for (const document::ColourPlace& place : document::colours_in(document.text.clean())) {
        const colour::Triple seen = colour::converted(place.values, space, shown());
        const auto inside = [&](std::size_t i) { return std::isfinite(seen[i]) ? std::clamp(seen[i], 0.0, 1.0) : 0.0; };
        all.push_back({{"range", state.range(document, place.span)},
                       {"color", {{"red", inside(0)}, {"green", inside(1)}, {"blue", inside(2)}, {"alpha", 1}}}});
    }
    return all;
}

Json presentation(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const Json& picked = params.at("color");
    const colour::Triple made = colour::converted(
        {picked.at("red").get<double>(), picked.at("green").get<double>(), picked.at("blue").get<double>()}, shown(),
        working(document));
    const std::string& text = document.text.clean();
    const Span asked = state.span_of(document, params.at("range"));
    const auto place = document::colour_at(text, asked.begin);
    if (!place)
        return Json::array();
    const document::TextEdit edit = document::with_colour(text, *place, made);
    const Span replaced{edit.at, edit.at + static_cast<std::uint32_t>(edit.removed.size())};
    return Json::array({{{"label", edit.inserted},
                         {"textEdit", {{"range", state.range(document, replaced)}, {"newText", edit.inserted}}}}});
}

Json hints(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const lang::Checked& checked = document.check();
    if (!checked.ok || !state.wishes.values)
        return Json::array();
    const Span asked = state.span_of(document, params.at("range"));
    std::vector<double> values;
    for (const lang::Parameter& p : checked.rule.parameters)
        values.push_back(p.value);
    const auto& c = state.wishes.colour;
    engine::ReferencePixel pixel{{c[0], c[1], c[2], 1}};
    for (const lang::SourceInput& source : checked.rule.sources) // further pictures are of the same colour
        for (std::size_t k = 0; k < static_cast<std::size_t>(lang::width(source.type)); ++k)
            pixel.sources.push_back(k < 3 ? c[k] : 1);
    Json all = Json::array();
    for (const engine::TraceNode& node : engine::reference_trace(checked.rule, values, pixel)) {
        if (node.depth != 0 || node.span.end < asked.begin || node.span.begin > asked.end)
            continue;
        std::string words = "= ";
        for (std::size_t i = 0; i < node.value.size(); ++i)
            words += (i > 0 ? ", " : "") + number_text(node.value[i], 4);
        all.push_back({{"position", state.position(document, node.span.end)}, {"label", words}, {"paddingLeft", true}});
    }
    return all;
}

Json lenses(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const lang::Checked& checked = document.check();
    if (!checked.ok)
        return Json::array();
    Json all = Json::array();
    const std::vector<lang::ProofLine> lines = proof::lines_of(checked.rule);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (lines[i].offered)
            continue;
        std::string title = "being measured \u2026";
        if (document.is_measured() && i < document.outcomes.size() && document.outcomes[i]) {
            const proof::Outcome& it = *document.outcomes[i];
            title = (it.passed ? it.proved ? "proved"
                             : it.bounded  ? "bounded"
                                           : "holds"
                               : "does not hold") +
                std::string(": ") + number_text(it.figure, 3) + " " +
                (it.passed ? it.relation : proof::opposite(it.relation)) + " " + number_text(it.limit, 3);
            if (!it.passed && !it.at.empty())
                title += ", at " + it.at;
        }
        all.push_back(
            {{"range", state.range(document, lines[i].span)}, {"command", {{"title", title}, {"command", ""}}}});
    }
    return all;
}

} // namespace

std::span<const Method> value_methods() {
    static const Method table[] = {
        {"textDocument/documentColor", "colorProvider", nullptr, colours},
        {"textDocument/colorPresentation", "", nullptr, presentation},
        {"textDocument/inlayHint", "inlayHintProvider", nullptr, hints},
        {"textDocument/codeLens", "codeLensProvider",
         [] {
             return Json{{"resolveProvider", false}};
         },
         lenses},
    };
    return table;
}

std::vector<const Method*> methods() {
    std::vector<const Method*> all;
    for (const auto& table : {writing_methods(), name_methods(), shape_methods(), value_methods()})
        for (const Method& method : table)
            all.push_back(&method);
    return all;
}

} // namespace kasuri::lsp
