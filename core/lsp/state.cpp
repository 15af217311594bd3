#include "lsp/state.hpp"

#include "document/filter_file.hpp"

namespace kasuri::lsp {

lang::CheckOptions Document::options() const {
    lang::CheckOptions with;
    if (!path.empty())
        with.open = document::used_beside(path);
    return with;
}

const lang::Checked& Document::check() {
    if (!checked)
        checked = std::make_shared<const lang::Checked>(lang::check(text.clean(), proof::vocabulary(), options()));
    return *checked;
}

Json State::position(const Document& document, std::size_t offset) const {
    const Position at = document.text.position(offset, wishes.units);
    return {{"line", at.line}, {"character", at.character}};
}

Json State::range(const Document& document, Span span) const {
    return {{"start", position(document, span.begin)}, {"end", position(document, span.end)}};
}

Document& State::document_of(const Json& params) {
    const std::string& uri = params.at("textDocument").at("uri").get_ref<const std::string&>();
    const auto found = documents.find(uri);
    if (found == documents.end())
        throw Refused{invalid_params, uri + " is not open"};
    return found->second;
}

std::size_t State::offset_of(const Document& document, const Json& position) const {
    return document.text.offset({position.at("line").get<std::size_t>(), position.at("character").get<std::size_t>()},
                                wishes.units);
}

Span State::span_of(const Document& document, const Json& range) const {
    const std::size_t begin = offset_of(document, range.at("start")), end = offset_of(document, range.at("end"));
    return {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(std::max(begin, end))};
}

std::filesystem::path path_of(const std::string& uri) {
    constexpr std::string_view scheme = "file://";
    if (!uri.starts_with(scheme))
        return {};
    std::string path;
    const auto digit = [](char c) {
        return c >= '0' && c <= '9' ? c - '0'
            : c >= 'a' && c <= 'f'  ? c - 'a' + 10
            : c >= 'A' && c <= 'F'  ? c - 'A' + 10
                                    : -1;
    };
    for (std::size_t i = uri.find('/', scheme.size()); i < uri.size(); ++i) {
        const bool escaped = uri[i] == '%' && i + 2 < uri.size() && digit(uri[i + 1]) >= 0 && digit(uri[i + 2]) >= 0;
        path += escaped ? static_cast<char>(digit(uri[i + 1]) * 16 + digit(uri[i + 2])) : uri[i];
        i += escaped ? 2 : 0;
    }
    return path;
}

namespace {

constexpr int error_severity = 1, warning_severity = 2, hint_severity = 4;

int severity_of(lang::Severity severity) {
    switch (severity) {
    case lang::Severity::error: return error_severity;
    case lang::Severity::warning: return warning_severity;
    case lang::Severity::hint: break;
    }
    return hint_severity;
}

} // namespace

Json diagnostics_of(const State& state, Document& document) {
    Json all = Json::array();
    for (const lang::Diagnostic& d : document.check().diagnostics) {
        const std::string help = lang::help(d);
        all.push_back({{"range", state.range(document, d.span)},
                       {"severity", severity_of(d.severity)},
                       {"code", lang::row(d.code).id},
                       {"source", "kasuri"},
                       {"message", help.empty() ? lang::message(d) : lang::message(d) + ".\n" + help}});
    }
    if (!document.is_measured() || !document.check().ok)
        return all;
    const std::vector<lang::ProofLine> lines = proof::lines_of(document.check().rule);
    for (std::size_t i = 0; i < lines.size() && i < document.outcomes.size(); ++i)
        if (const auto& outcome = document.outcomes[i]; outcome && !outcome->passed && !lines[i].offered)
            all.push_back({{"range", state.range(document, lines[i].span)},
                           {"severity", warning_severity},
                           {"code", "proof"},
                           {"source", "kasuri"},
                           {"message", proof::report(*outcome)}});
    return all;
}

} // namespace kasuri::lsp
