#pragma once
// What the methods of the server work on.
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "lsp/text.hpp"
#include "proof/proof.hpp"

#include <map>
#include <memory>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::lsp {

using Json = nlohmann::json;

/// A text that the editor has open.
struct Document {
    Text text{};
    std::int64_t version = 0;
    std::filesystem::path path{};                   ///< empty: of no file
    bool dirty = false;                             ///< its faults have not been told yet
    std::shared_ptr<const lang::Checked> checked{}; ///< null: not since the text changed
    /// Of the text `measured_text`: what came of its proof lines, those that are done, in their order.
    std::string measured_text{};
    std::vector<std::optional<proof::Outcome>> outcomes{};

    const lang::Checked& check();
    lang::CheckOptions options() const;
    /// Whether the outcomes are those of the text as it is.
    bool is_measured() const { return !measured_text.empty() && measured_text == text.clean(); }
};

/// What the editor can do, and what it wants.
struct Wishes {
    Units units = Units::utf16;
    bool refreshes_lenses = false;
    bool takes_one_range = false;                      ///< for all items of a completion, instead of one each
    std::array<double, 3> colour = {0.18, 0.18, 0.18}; ///< whose values stand in the text, in the working space
    bool values = true;                                ///< whether they do
};

struct State {
    std::map<std::string, Document> documents; ///< by URI
    Wishes wishes;
    std::vector<lang::Completion> offered{}; ///< last, so that the words of one can be asked for alone

    Json range(const Document& document, Span span) const;
    Json position(const Document& document, std::size_t offset) const;
    /// The document that a request's parameters name. Throws Refused if it is not open.
    Document& document_of(const Json& params);
    std::size_t offset_of(const Document& document, const Json& position) const;
    Span span_of(const Document& document, const Json& range) const;
};

/// A request that cannot be answered: an error of the protocol.
struct Refused {
    int code;
    std::string message;
};
inline constexpr int parse_error = -32700, invalid_request = -32600, method_not_found = -32601, invalid_params = -32602,
                     internal_error = -32603, not_initialized = -32002, request_cancelled = -32800,
                     request_failed = -32803;

/// "file:///a%20b" as a path; empty if it is another kind of URI.
std::filesystem::path path_of(const std::string& uri);

/// The faults of a document, and proofs that do not hold, as the protocol's diagnostics.
Json diagnostics_of(const State& state, Document& document);

} // namespace kasuri::lsp
