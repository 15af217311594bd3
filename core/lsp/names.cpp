// Names of the text: where they come from, where they stand, and another name for them.
#include "lang/symbol.hpp"
#include "lsp/methods.hpp"

namespace kasuri::lsp {
namespace {

std::optional<lang::Symbol> symbol_of(State& state, const Document& document, const Json& params) {
    return lang::symbol_at(document.text.clean(), state.offset_of(document, params.at("position")));
}

Json location(const State& state, const Document& document, const Json& params, Span span) {
    return {{"uri", params.at("textDocument").at("uri")}, {"range", state.range(document, span)}};
}

Json definition(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    const auto symbol = symbol_of(state, document, params);
    return symbol ? location(state, document, params, symbol->definition) : Json(nullptr);
}

Json references(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    const bool own = !params.contains("context") || params.at("context").value("includeDeclaration", true);
    Json all = Json::array();
    if (const auto symbol = symbol_of(state, document, params))
        for (const Span place : symbol->places)
            if (own || place != symbol->definition)
                all.push_back(location(state, document, params, place));
    return all;
}

Json highlights(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    Json all = Json::array();
    if (const auto symbol = symbol_of(state, document, params))
        for (const Span place : symbol->places)
            all.push_back({{"range", state.range(document, place)}, {"kind", place == symbol->definition ? 3 : 2}});
    return all;
}

Json prepare_rename(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    const auto symbol = symbol_of(state, document, params);
    if (!symbol)
        return nullptr;
    const std::size_t at = state.offset_of(document, params.at("position"));
    for (const Span place : symbol->places)
        if (place.begin <= at && at <= place.end)
            return {{"range", state.range(document, place)}, {"placeholder", symbol->name}};
    return nullptr;
}

Json rename(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    const auto symbol = symbol_of(state, document, params);
    if (!symbol)
        throw Refused{request_failed, "There is no name of the text's own here."};
    const std::string& name = params.at("newName").get_ref<const std::string&>();
    if (const lang::Renamed made = lang::renamed(document.text.clean(), *symbol, name, proof::vocabulary());
        made.text.empty())
        throw Refused{request_failed, made.fault};
    Json edits = Json::array();
    for (const Span place : symbol->places)
        edits.push_back({{"range", state.range(document, place)}, {"newText", name}});
    return {{"changes", {{params.at("textDocument").at("uri").get<std::string>(), edits}}}};
}

} // namespace

std::span<const Method> name_methods() {
    static const Method table[] = {
        {"textDocument/definition", "definitionProvider", nullptr, definition},
        {"textDocument/references", "referencesProvider", nullptr, references},
        {"textDocument/documentHighlight", "documentHighlightProvider", nullptr, highlights},
        {"textDocument/rename", "renameProvider",
         [] {
             return Json{{"prepareProvider", true}};
         },
         rename},
        {"textDocument/prepareRename", "", nullptr, prepare_rename},
    };
    return table;
}

} // namespace kasuri::lsp
