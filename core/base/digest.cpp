#include "base/digest.hpp"

#include <cmath>
#include <cstring>
#include <fmt/format.h>
#include <limits>

namespace kasuri {

void Digest::add(double value) {
    if (std::isnan(value))
        value = std::numeric_limits<double>::quiet_NaN();
    std::uint64_t bits = 0;
    std::memcpy(&bits, &value, sizeof bits);
    add(bits);
}

std::string Digest::text() const {
    return fmt::format("{:016x}{:016x}", static_cast<std::uint64_t>(state_ >> 64), static_cast<std::uint64_t>(state_));
}

} // namespace kasuri
