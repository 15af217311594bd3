#pragma once
#include <cstdint>
#include <string_view>

namespace kasuri {

/// Half-open range of bytes in a source text.
struct Span {
    std::uint32_t begin = 0;
    std::uint32_t end = 0;

    friend bool operator==(const Span&, const Span&) = default;
    std::uint32_t size() const { return end - begin; }
    bool contains(std::uint32_t at) const { return begin <= at && at < end; }
};

/// Smallest span that covers both.
inline Span cover(Span a, Span b) { return {a.begin < b.begin ? a.begin : b.begin, a.end > b.end ? a.end : b.end}; }

/// The part of `source`; the span must lie within it.
inline std::string_view text_of(std::string_view source, Span span) {
    return source.substr(span.begin, span.end - span.begin);
}

} // namespace kasuri
