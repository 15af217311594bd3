#pragma once
// Handles of libkasuri that end with their scope.
#include "kasuri.h"
#include "support/support.hpp"

#include <memory>

namespace kasuri::test {

struct EndFilter {
    void operator()(kasuri_filter* it) const { kasuri_filter_free(it); }
};
using Filter = std::unique_ptr<kasuri_filter, EndFilter>;

inline Filter compiled(const std::string& text) {
    kasuri_filter* filter = nullptr;
    kasuri_said* said = nullptr;
    const kasuri_status status = kasuri_compile(text.c_str(), nullptr, &filter, &said);
    INFO(text << "\n" << kasuri_said_text(said));
    CHECK(status == KASURI_OK);
    kasuri_said_free(said);
    return Filter(filter);
}

/// One pixel, in the numbers of the working space.
inline std::array<float, 3> applied(const Filter& filter, std::array<double, 3> pixel) {
    float in[3] = {static_cast<float>(pixel[0]), static_cast<float>(pixel[1]), static_cast<float>(pixel[2])};
    std::array<float, 3> out{};
    const kasuri_picture from = kasuri_interleaved(in, 1, 1, 3, KASURI_FLOAT32),
                         to = kasuri_interleaved(out.data(), 1, 1, 3, KASURI_FLOAT32);
    CHECK(kasuri_apply(filter.get(), &from, &to, 1, nullptr, nullptr) == KASURI_OK);
    return out;
}

} // namespace kasuri::test
