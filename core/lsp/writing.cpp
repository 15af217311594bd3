// What helps while writing: completion, hover, signatures, fixes, the canonical form.
#include "builtins/curve.hpp"
#include "lang/assist.hpp"
#include "lang/format.hpp"
#include "lsp/methods.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::lsp {
namespace {

/// CompletionItemKind of LSP 3.17.
int kind_of(lang::CompletionKind kind) {
    switch (kind) {
    case lang::CompletionKind::statement:
    case lang::CompletionKind::word: return 14;      // Keyword
    case lang::CompletionKind::input: return 21;     // Constant
    case lang::CompletionKind::local: return 6;      // Variable
    case lang::CompletionKind::parameter: return 5;  // Field
    case lang::CompletionKind::source: return 18;    // Reference
    case lang::CompletionKind::function: return 3;   // Function
    case lang::CompletionKind::type: return 7;       // Class
    case lang::CompletionKind::component: return 10; // Property
    case lang::CompletionKind::option: return 20;    // EnumMember
    case lang::CompletionKind::space:
    case lang::CompletionKind::target:
    case lang::CompletionKind::proof: break;
    }
    return 12; // Value
}

Json completion(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const std::size_t at = state.offset_of(document, params.at("position"));
    lang::Completions found = lang::completions(document.text.clean(), at, proof::vocabulary(), document.options());
    const Json range = state.range(document, found.replaces);
    Json items = Json::array();
    for (const lang::Completion& each : found.items) {
        items.push_back({{"label", each.text},
                         {"kind", kind_of(each.kind)},
                         {"detail", each.detail},
                         {"sortText", fmt::format("{:05}", items.size())}}); // the nearest first
        if (!state.wishes.takes_one_range)
            items.back()["textEdit"] = {{"range", range}, {"newText", each.text}};
    }
    state.offered = std::move(found.items);
    Json list = {{"isIncomplete", false}, {"items", std::move(items)}};
    if (state.wishes.takes_one_range)
        list["itemDefaults"]["editRange"] = range;
    return list;
}

/// The words of an item that was offered last.
Json resolve(State& state, const Json& params) {
    Json item = params;
    for (const lang::Completion& each : state.offered)
        if (each.text == params.at("label") && each.detail == params.value("detail", ""))
            item["documentation"] = each.doc;
    return item;
}

std::string base64(std::string_view bytes) {
    constexpr std::string_view letters =
        "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/"; // RFC 4648, 4
    std::string made;
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t three = 0;
        for (std::size_t k = 0; k < 3; ++k)
            three = three << 8 | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k)
            made += i + k > bytes.size() ? '=' : letters[three >> (18 - 6 * k) & 63];
    }
    return made;
}

/// The graph of a function, as a picture in the text; empty if it has none.
std::string graph_of(std::string_view name) {
    constexpr double low = -0.25, high = 1.25, width = 150, height = 100;
    const auto x_of = [&](double x) { return (x - low) / (high - low) * width; };
    const auto y_of = [&](double y) {
        return std::clamp(height - (y - low) / (high - low) * height, -50.0, height + 50);
    };
    const auto lines = builtins::curve_of(name, low, high, static_cast<int>(width));
    if (lines.empty())
        return {};
    std::string svg = fmt::format("<svg xmlns='http://www.w3.org/2000/svg' width='{0}' height='{1}'>"
                                  "<rect width='{0}' height='{1}' fill='#e3e3e3'/><path stroke='#c4c4c4' d='",
                                  width, height);
    for (const double mark : {0.0, 0.5, 1.0})
        svg += fmt::format("M{0:.1f} 0V{1}M0 {2:.1f}H{3}", x_of(mark), height, y_of(mark), width);
    svg += "'/><path fill='none' stroke='#2f4a86' stroke-width='1.6' d='";
    for (const auto& line : lines)
        for (std::size_t i = 0; i < line.size(); ++i)
            svg += fmt::format("{}{:.1f} {:.1f}", i == 0 ? 'M' : 'L', x_of(line[i][0]), y_of(line[i][1]));
    return "![graph](data:image/svg+xml;base64," + base64(svg + "'/></svg>") + ")";
}

Json hover(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const std::string& text = document.text.clean();
    const auto found =
        lang::hover(text, state.offset_of(document, params.at("position")), proof::vocabulary(), document.options());
    if (!found)
        return nullptr;
    std::string words = "```kasuri\n" + found->heading + "\n```\n";
    if (!found->doc.empty())
        words += "\n" + found->doc + "\n";
    if (const std::string graph = graph_of(text_of(text, found->span)); !graph.empty())
        words += "\n" + graph + "\n";
    return {{"contents", {{"kind", "markdown"}, {"value", words}}}, {"range", state.range(document, found->span)}};
}

Json signature_help(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const auto found = lang::call_help(document.text.clean(), state.offset_of(document, params.at("position")),
                                       proof::vocabulary(), document.options());
    if (!found)
        return nullptr;
    Json forms = Json::array();
    std::size_t active = 0;
    for (const lang::CallForm& form : found->forms) {
        // The protocol wants every argument; only the one at hand is known by its place, which is what is shown.
        Json arguments = Json::array();
        if (form.active.size() > 0) {
            active = std::min(active, forms.size());
            const Text label(form.text); // places in a label count in UTF-16, whatever was agreed for documents
            arguments.push_back({{"label",
                                  {label.position(form.active.begin, Units::utf16).character,
                                   label.position(form.active.end, Units::utf16).character}}});
        }
        forms.push_back(
            {{"label", form.text}, {"documentation", form.doc}, {"parameters", arguments}, {"activeParameter", 0}});
    }
    return {{"signatures", forms}, {"activeSignature", active}, {"activeParameter", 0}};
}

Json code_action(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const Span asked = state.span_of(document, params.at("range"));
    const std::string& uri = params.at("textDocument").at("uri").get_ref<const std::string&>();
    Json actions = Json::array();
    for (const lang::Diagnostic& d : document.check().diagnostics) {
        if (d.span.begin > asked.end || d.span.end < asked.begin)
            continue;
        bool first = true;
        for (const lang::Fix& fix : d.fixes) {
            Json edit = {{"range", state.range(document, fix.span)}, {"newText", fix.text}};
            actions.push_back({{"title", fix.label},
                               {"kind", "quickfix"},
                               {"isPreferred", first},
                               {"edit", {{"changes", {{uri, Json::array({std::move(edit)})}}}}}});
            first = false;
        }
    }
    return actions;
}

Json formatting(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const std::string& text = document.text.clean();
    const auto made = lang::formatted(text);
    if (!made || *made == text)
        return Json::array(); // what is broken is not touched
    return Json::array({{{"range", state.range(document, {0, static_cast<std::uint32_t>(document.text.raw().size())})},
                         {"newText", *made}}});
}

} // namespace

std::span<const Method> writing_methods() {
    static const Method table[] = {
        {"textDocument/completion", "completionProvider",
         [] {
             return Json{{"triggerCharacters", {".", "\""}}, {"resolveProvider", true}};
         },
         completion},
        {"completionItem/resolve", "", nullptr, resolve},
        {"textDocument/hover", "hoverProvider", nullptr, hover},
        {"textDocument/signatureHelp", "signatureHelpProvider",
         [] {
             return Json{{"triggerCharacters", {"(", ","}}};
         },
         signature_help},
        {"textDocument/codeAction", "codeActionProvider",
         [] {
             return Json{{"codeActionKinds", {"quickfix"}}};
         },
         code_action},
        {"textDocument/formatting", "documentFormattingProvider", nullptr, formatting},
    };
    return table;
}

} // namespace kasuri::lsp
