#pragma once
#include "base/cancel.hpp"
#include "engine/program.hpp"
#include "image/image.hpp"

#include <array>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

namespace kasuri::engine {

/// One row each in sample.cpp; whole numbers stand for 0 to 1, and are cut off there when they are written.
enum class Sample : std::uint8_t { float32, half, uint8, uint16 };

/// One channel in memory. Strides count samples; a row stride of 0 stands for rows that follow each other.
/// An interleaved picture of four channels is four of these with a pixel stride of 4.
struct PlaneView {
    const void* data = nullptr;
    Sample sample = Sample::float32;
    std::ptrdiff_t pixel_stride = 1;
    std::ptrdiff_t row_stride = 0;

    PlaneView() = default;
    PlaneView(const float* plane) : data(plane) {}
    PlaneView(const void* samples, Sample kind, std::ptrdiff_t between_pixels, std::ptrdiff_t between_rows)
        : data(samples), sample(kind), pixel_stride(between_pixels), row_stride(between_rows) {}
};

/// A plane as it is kept; none: a view of nothing. Throws std::logic_error for one that is made on demand.
PlaneView view_of(const image::Plane& plane);

/// The same to write to.
struct PlaneSink {
    void* data = nullptr;
    Sample sample = Sample::float32;
    std::ptrdiff_t pixel_stride = 1;
    std::ptrdiff_t row_stride = 0;

    PlaneSink() = default;
    PlaneSink(float* plane) : data(plane) {}
    PlaneSink(void* samples, Sample kind, std::ptrdiff_t between_pixels, std::ptrdiff_t between_rows)
        : data(samples), sample(kind), pixel_stride(between_pixels), row_stride(between_rows) {}
};

/// Pixels [x0, x1) x [y0, y1).
struct Region {
    int x0 = 0, y0 = 0, x1 = 0, y1 = 0;

    int width() const { return x1 - x0; }
    int height() const { return y1 - y0; }
    std::size_t pixels() const { return static_cast<std::size_t>(width()) * static_cast<std::size_t>(height()); }
    friend bool operator==(const Region&, const Region&) = default;
};

/// What a program reads: the whole picture, r g b a. A null alpha plane means 1 everywhere.
struct Source {
    int width = 0;
    int height = 0;
    std::array<PlaneView, 4> planes{};
    /// Channels of further pictures in the order of the rule's sources; null planes read as 0.
    std::vector<PlaneView> more{};
    /// Outputs lie in the memory of `planes` or `more`, so that every pixel lies where it came from (the strides are
    /// the same) and the region is the whole picture.
    bool in_place = false;
};

/// Runs `program` over the pixels of `region` (nothing: all) on all cores. `parameters` are in the order of the
/// rule; `outputs` has one plane of the region's size per output of the program; a null plane is skipped. An
/// output plane may lie in the memory of the source's planes only where Source::in_place says so. Neighbourhoods look
/// beyond the region, so that its pixels are those of the whole picture. The same bits come out for any number of
/// threads; subnormal numbers count as 0. Returns false if `cancel` was set before the end, at most a few tiles of work
/// later. `done`, if given, grows to the number of pixels.
bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<const PlaneSink> outputs, const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr,
         std::optional<Region> region = {});
bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<float* const> outputs, const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr);

/// The picture that a program of four outputs makes of another. What passes through untouched shares its
/// plane with the input. Alpha stays absent where the program leaves it alone. Nothing if cancelled.
/// With a pool, new planes use its buffers and give them back to it. `more` are channels of further pictures.
std::optional<image::Picture> evaluate(const Program& program, const image::Picture& picture,
                                       std::span<const double> parameters, const CancelToken& cancel = {},
                                       std::atomic<std::size_t>* done = nullptr, const image::PlanePool* pool = nullptr,
                                       std::vector<PlaneView> more = {});

} // namespace kasuri::engine
