#pragma once
#include "base/cancel.hpp"
#include "engine/program.hpp"
#include "image/image.hpp"

#include <array>
#include <atomic>
#include <optional>
#include <span>

namespace kasuri::engine {

/// Pixels as planes of width * height floats. A null alpha plane means 1 everywhere.
struct Source {
    int width = 0;
    int height = 0;
    std::array<const float*, 4> planes{};
};

/// Runs `program` over every pixel on all cores. `parameters` are in the order of the rule; `outputs` has
/// one plane of width * height floats per output of the program; a null plane is skipped. An output plane must
/// not be one of the source's. The same bits come out for any number of threads.
/// Returns false if `cancel` was set before the end. `done`, if given, counts finished pixels.
bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<float* const> outputs, const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr);

/// The picture that a program of four outputs makes of another. What passes through untouched shares its
/// plane with the input. Alpha stays absent where the program leaves it alone. Nothing if cancelled.
/// With a pool, new planes use its buffers and give them back to it.
std::optional<image::Picture> evaluate(const Program& program, const image::Picture& picture,
                                       std::span<const double> parameters, const CancelToken& cancel = {},
                                       std::atomic<std::size_t>* done = nullptr, const image::PlanePool* pool = nullptr);

} // namespace kasuri::engine
