#pragma once
#include "engine/evaluate.hpp"

#include <cstddef>

namespace kasuri::engine {

/// How numbers of one kind become floats and floats become them. Strides count samples.
struct SampleRow {
    std::size_t bytes;
    void (*read)(const void* from, std::ptrdiff_t stride, float* to, std::size_t count);
    void (*write)(const float* from, void* to, std::ptrdiff_t stride, std::size_t count);
};

/// One row for each Sample, at most `tile_pixels` numbers at a time.
const SampleRow& row_of(Sample sample);

} // namespace kasuri::engine
