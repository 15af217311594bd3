#include "engine/worker.hpp"

#include "engine/sample.hpp"

#include <algorithm>
#include <cstring>
#include <hwy/cache_control.h>
#include <utility>

namespace kasuri::engine {

using ir::Input;

namespace {

constexpr std::size_t every_lane = ~std::size_t{0};

template <class View>
bool gapless(const View& view, int width) {
    return view.sample == Sample::float32 && view.pixel_stride == 1 &&
        (view.row_stride == 0 || view.row_stride == width);
}

} // namespace

TileJob::TileJob(const Pass& pass, const Source& source, std::span<const PlaneView> inputs,
                 std::span<const Region> origins, std::span<const double> uniforms, std::span<const PlaneSink> outputs,
                 const Region& region)
    : pass_(pass), width_(source.width), height_(source.height), inputs_(inputs), origins_(origins), outputs_(outputs),
      region_(region) {
    std::size_t written = 0;
    for (const PlaneSink& sink : outputs)
        if (sink.data) {
            flat_ = flat_ && gapless(sink, region.width());
            written += region.pixels() * sizeof(float);
        }
    for (std::uint32_t slot = 0; slot < inputs.size(); ++slot)
        if (pass.reads[slot] && inputs[slot].data)
            flat_ = flat_ && origins[slot] == region && gapless(inputs[slot], region.width());
    constexpr std::size_t cached = std::size_t{4} << 20;
    copied_ = source.in_place;
    stream_ = written > cached;
    uniforms_ = hwy::AllocateAligned<float>(std::max<std::size_t>(1, uniforms.size()) * widest_vector);
    for (std::size_t i = 0; i < uniforms.size(); ++i)
        std::fill_n(uniforms_.get() + i * widest_vector, widest_vector, static_cast<float>(uniforms[i]));
    kernels_.reserve(pass.instructions.size());
    for (const Instruction& instruction : pass.instructions) {
        kernels_.push_back(kernel(instruction.op));
        operands_ += static_cast<std::size_t>(ir::row(instruction.op).arity);
    }
}

Worker::Worker(const TileJob& job)
    : job_(job), registers_(hwy::AllocateAligned<float>(std::max<std::size_t>(1, job.pass_.registers) * tile_pixels)),
      copies_(hwy::AllocateAligned<float>(std::max<std::size_t>(1, job.inputs_.size()) * tile_pixels)),
      bound_(job.inputs_.size()) {
    const Pass& pass = job.pass_;
    for (std::uint32_t slot = 0; slot < pass.reads.size(); ++slot)
        if (pass.reads[slot]) {
            slots_.push_back(slot);
            if (!job.inputs_[slot].data) // alpha 1, or a further picture that nobody brought
                std::fill_n(copy_of(slot), tile_pixels, slot == static_cast<std::uint32_t>(Input::a) ? 1.0f : 0.0f);
        }
    calls_.reserve(pass.instructions.size());
    operands_.reserve(job.operands_); // the calls point into it
    for (const Instruction& instruction : pass.instructions) {
        const ir::OpRow& facts = ir::row(instruction.op);
        KernelCall call;
        call.args = operands_.data() + operands_.size();
        for (std::size_t k = 0; k < static_cast<std::size_t>(facts.results); ++k)
            call.targets[k] = registers_.get() + instruction.targets[k] * tile_pixels;
        for (std::size_t k = 0; k < static_cast<std::size_t>(facts.arity); ++k) {
            if (instruction.args[k].place == Operand::Place::input)
                patches_.push_back({operands_.size(), instruction.args[k].index});
            operands_.push_back(operand(instruction.args[k]));
        }
        calls_.push_back(call);
    }
}

KernelOperand Worker::operand(const Operand& where) {
    switch (where.place) {
    case Operand::Place::reg: return {registers_.get() + where.index * tile_pixels, every_lane};
    case Operand::Place::uniform: return {job_.uniforms_.get() + where.index * widest_vector, 0};
    case Operand::Place::input: return {bound_[where.index], every_lane};
    case Operand::Place::none: break;
    }
    return {};
}

std::size_t Worker::tile(std::size_t index) {
    const Region& region = job_.region_;
    std::size_t first = 0, count = 0; // in the region, as if it had no rows
    if (job_.flat_) {
        first = index * tile_pixels;
        count = std::min(tile_pixels, region.pixels() - first);
    } else {
        const std::size_t per_row = job_.tiles_per_row(), width = static_cast<std::size_t>(region.width());
        const std::size_t column = index % per_row * tile_pixels;
        first = index / per_row * width + column;
        count = std::min(tile_pixels, width - column);
    }
    const auto wide = static_cast<std::size_t>(region.width());
    const int x = region.x0 + static_cast<int>(first % wide), y = region.y0 + static_cast<int>(first / wide);
    const std::size_t padded = (count + widest_vector - 1) / widest_vector * widest_vector;
    for (const std::uint32_t slot : slots_)
        bind(slot, x, y, first, count, padded);
    for (const Patch& patch : patches_)
        operands_[patch.operand].data = bound_[patch.slot];
    for (std::size_t i = 0; i < calls_.size(); ++i)
        if (job_.kernels_[i])
            job_.kernels_[i](calls_[i], padded);
        else
            through(*job_.pass_.instructions[i].external, calls_[i], padded);
    for (std::size_t i = 0; i < job_.outputs_.size(); ++i)
        if (job_.outputs_[i].data)
            store(i, x, y, first, count);
    return count;
}

void Worker::through(const ir::External& conversion, const KernelCall& call, std::size_t count) {
    // Copies, because operands may be uniform, and targets may be operands of each other.
    alignas(64) std::array<std::array<float, tile_pixels>, 3> planes;
    for (std::size_t k = 0; k < 3; ++k)
        for (std::size_t i = 0; i < count; ++i)
            planes[k][i] = call.args[k].data[i & call.args[k].mask];
    float* const all[3] = {planes[0].data(), planes[1].data(), planes[2].data()};
    conversion.apply(all, count);
    for (std::size_t k = 0; k < 3; ++k)
        std::copy_n(planes[k].data(), count, call.targets[k]);
}

void Worker::bind(std::uint32_t slot, int x, int y, std::size_t first, std::size_t count, std::size_t padded) {
    float* const copy = copy_of(slot);
    if (slot >= static_cast<std::uint32_t>(Input::pixel_x) && slot < ir::input_count) {
        bind_position(slot, x, y, count, padded);
        return;
    }
    const PlaneView& view = job_.inputs_[slot];
    if (!view.data) {
        bound_[slot] = copy;
        return;
    }
    const Region& origin = job_.origins_[slot];
    const std::ptrdiff_t row =
        view.row_stride != 0 ? view.row_stride : static_cast<std::ptrdiff_t>(origin.width()) * view.pixel_stride;
    const std::ptrdiff_t at =
        job_.flat_ ? static_cast<std::ptrdiff_t>(first) : (y - origin.y0) * row + (x - origin.x0) * view.pixel_stride;
    if (view.sample == Sample::float32 && view.pixel_stride == 1) {
        const float* from = static_cast<const float*>(view.data) + at;
        if (count == padded && !job_.copied_) {
            bound_[slot] = from;
            return;
        }
        std::copy_n(from, count, copy); // kernels must not read behind the end of the plane
    } else {
        const SampleRow& kind = row_of(view.sample);
        kind.read(static_cast<const char*>(view.data) + at * static_cast<std::ptrdiff_t>(kind.bytes), view.pixel_stride,
                  copy, count);
        // Reading waits for memory, not for the processor: the next tile's numbers come while this one is computed.
        const auto step = static_cast<std::ptrdiff_t>(count) * view.pixel_stride;
        const char* const next =
            static_cast<const char*>(view.data) + (at + step) * static_cast<std::ptrdiff_t>(kind.bytes);
        for (std::ptrdiff_t ahead = 0; ahead < step * static_cast<std::ptrdiff_t>(kind.bytes); ahead += 64)
            hwy::Prefetch(next + ahead);
    }
    std::fill(copy + count, copy + padded, 0.0f);
    bound_[slot] = copy;
}

void Worker::bind_position(std::uint32_t slot, int x, int y, std::size_t count, std::size_t padded) {
    float* const copy = copy_of(slot);
    const auto fill = [&](auto&& value) {
        int column = x, row = y;
        for (std::size_t i = 0; i < padded; ++i) {
            copy[i] = static_cast<float>(value(column, row));
            if (i + 1 < count && ++column == job_.region_.x1) {
                column = job_.region_.x0;
                ++row;
            }
        }
    };
    switch (static_cast<Input>(slot)) {
    case Input::pixel_x: fill([](int column, int) { return static_cast<double>(column); }); break;
    case Input::pixel_y: fill([](int, int row) { return static_cast<double>(row); }); break;
    case Input::pos_x: fill([&](int column, int) { return (column + 0.5) / job_.width_; }); break;
    case Input::pos_y: fill([&](int, int row) { return (row + 0.5) / job_.height_; }); break;
    case Input::r:
    case Input::g:
    case Input::b:
    case Input::a: break;
    }
    bound_[slot] = copy;
}

void Worker::store(std::size_t output, int x, int y, std::size_t first, std::size_t count) {
    const PlaneSink& sink = job_.outputs_[output];
    const KernelOperand from = operand(job_.pass_.outputs[output]);
    std::array<float, tile_pixels> equal;
    const float* values = from.data;
    if (from.mask == 0) {
        equal.fill(from.data[0]);
        values = equal.data();
    }
    const std::ptrdiff_t row =
        sink.row_stride != 0 ? sink.row_stride : static_cast<std::ptrdiff_t>(job_.region_.width()) * sink.pixel_stride;
    const std::ptrdiff_t at = job_.flat_ ? static_cast<std::ptrdiff_t>(first)
                                         : (y - job_.region_.y0) * row + (x - job_.region_.x0) * sink.pixel_stride;
    if (sink.sample == Sample::float32 && sink.pixel_stride == 1) {
        float* to = static_cast<float*>(sink.data) + at;
        if (job_.stream_)
            kernels().stream(values, to, count);
        else
            std::memcpy(to, values, count * sizeof(float));
        return;
    }
    const SampleRow& kind = row_of(sink.sample);
    kind.write(values, static_cast<char*>(sink.data) + at * static_cast<std::ptrdiff_t>(kind.bytes), sink.pixel_stride,
               count);
}

WorkerStore::Lent WorkerStore::lend() {
    std::unique_ptr<Worker> worker;
    {
        const std::lock_guard lock(mutex_);
        if (!free_.empty()) {
            worker = std::move(free_.back());
            free_.pop_back();
        }
    }
    if (!worker)
        worker = std::make_unique<Worker>(job_);
    return {worker.release(), {this}};
}

void WorkerStore::GiveBack::operator()(Worker* worker) const {
    const std::lock_guard lock(store->mutex_);
    store->free_.emplace_back(worker);
}

} // namespace kasuri::engine
