#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace kasuri::lsp {

/// Messages of the protocol's base (LSP 3.17, "Base Protocol"): headers, an empty line, as many bytes as
/// Content-Length says.
class Framing {
public:
    /// More of what came in.
    void feed(std::string_view bytes) { waiting_ += bytes; }
    /// The next whole message's content; nothing until there is one. What stands before the next header that says a
    /// length is passed over.
    std::optional<std::string> next();
    /// A message as it goes out.
    static std::string framed(std::string_view content);

private:
    std::string waiting_;
};

} // namespace kasuri::lsp
