#pragma once
#include <array>
#include <cstdint>
#include <string>
#include <string_view>

namespace kasuri {

/// A name for content: equal content has an equal digest, other content, as good as certainly, another one. FNV-1a of
/// 128 bits (draft-eastlake-fnv-17, from memory); no protection against somebody who looks for equal digests.
class Digest {
public:
    void add(std::string_view bytes) { add_bytes(bytes.data(), bytes.size()); }
    /// Every NaN is the same; 0 and -0 are not.
    void add(double value);
    void add(std::uint64_t value) { add_bytes(&value, sizeof value); }

    /// High and low half.
    using Value = std::array<std::uint64_t, 2>;
    Value value() const { return {static_cast<std::uint64_t>(state_ >> 64), static_cast<std::uint64_t>(state_)}; }
    void add(const Value& value) { add_bytes(value.data(), sizeof value); }
    /// 32 hexadecimal digits.
    std::string text() const;

private:
    __extension__ using Wide = unsigned __int128;

    void add_bytes(const void* bytes, std::size_t count) {
        const unsigned char* at = static_cast<const unsigned char*>(bytes);
        Wide state = state_;
        for (std::size_t i = 0; i < count; ++i)
            state = (state ^ at[i]) * prime;
        // So that "ab", "c" is not "a", "bc".
        state_ = (state ^ count) * prime;
    }

    static constexpr Wide prime = (Wide{1} << 88) | 0x13b;
    Wide state_ = (Wide{0x6c62272e07bb0142} << 64) | 0x62b821756295c58d;
};

} // namespace kasuri
