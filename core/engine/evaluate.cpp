#include "engine/evaluate.hpp"

#include "base/parallel.hpp"
#include "engine/kernels.hpp"

#include <algorithm>
#include <cstring>

namespace kasuri::engine {

using ir::Input;
using ir::Op;

namespace {

/// The uniform table as vectors of equal floats, ready to be read by kernels.
std::vector<float> uniform_vectors(const Program& program, std::span<const double> parameters, double aspect) {
    std::vector<double> values;
    std::vector<float> vectors;
    values.reserve(program.uniforms().size());
    vectors.reserve(program.uniforms().size() * widest_vector);
    for (const UniformStep& step : program.uniforms()) {
        double value = step.value;
        if (step.op == Op::uniform)
            value = step.slot == ir::aspect_slot ? aspect : parameters[step.slot - ir::first_parameter_slot];
        else if (step.op != Op::constant) {
            const auto arg = [&](int k) { return k < ir::row(step.op).arity ? values[step.args[k]] : 0.0; };
            value = ir::row(step.op).fold(arg(0), arg(1), arg(2));
        }
        values.push_back(value);
        vectors.insert(vectors.end(), widest_vector, static_cast<float>(value));
    }
    return vectors;
}

constexpr std::size_t every_lane = ~std::size_t{0};

/// What one thread needs to run tiles: registers, padded copies of ragged inputs, coordinates.
class Worker {
public:
    Worker(const Program& program, const Source& source, const std::vector<float>& uniforms,
           std::span<const Kernel> kernels, std::span<float* const> outputs)
        : program_(program), source_(source), uniforms_(uniforms), kernels_(kernels), outputs_(outputs),
          registers_(program.registers() * tile_pixels), ones_(tile_pixels, 1.0f) {
        for (std::size_t i = 0; i < ir::input_count; ++i)
            if (program.reads(static_cast<Input>(i)))
                copies_[i].resize(tile_pixels);
    }

    void tile(std::size_t first, std::size_t count) {
        const std::size_t padded = (count + widest_vector - 1) / widest_vector * widest_vector;
        for (std::size_t i = 0; i < 4; ++i)
            bind_plane(i, first, count, padded);
        bind_position(first, count, padded);
        const auto instructions = program_.instructions();
        for (std::size_t i = 0; i < instructions.size(); ++i) {
            const Instruction& instruction = instructions[i];
            kernels_[i](register_at(instruction.target), operand(instruction.args[0]), operand(instruction.args[1]),
                        operand(instruction.args[2]), padded);
        }
        for (std::size_t i = 0; i < outputs_.size(); ++i)
            if (outputs_[i])
                store(operand(program_.outputs()[i]), outputs_[i] + first, count);
    }

private:
    float* register_at(std::uint32_t index) { return registers_.data() + index * tile_pixels; }

    KernelOperand operand(const Operand& where) {
        switch (where.place) {
        case Operand::Place::reg: return {register_at(where.index), every_lane};
        case Operand::Place::uniform: return {uniforms_.data() + where.index * widest_vector, 0};
        case Operand::Place::input: return {inputs_[where.index], every_lane};
        case Operand::Place::none: break;
        }
        return {};
    }

    void bind_plane(std::size_t i, std::size_t first, std::size_t count, std::size_t padded) {
        if (!program_.reads(static_cast<Input>(i)))
            return;
        if (!source_.planes[i]) {
            inputs_[i] = ones_.data();
        } else if (count == padded) {
            inputs_[i] = source_.planes[i] + first;
        } else { // kernels must not read behind the end of the plane
            std::copy_n(source_.planes[i] + first, count, copies_[i].begin());
            std::fill(copies_[i].begin() + static_cast<std::ptrdiff_t>(count), copies_[i].begin() + static_cast<std::ptrdiff_t>(padded), 0.0f);
            inputs_[i] = copies_[i].data();
        }
    }

    void bind_position(std::size_t first, std::size_t count, std::size_t padded) {
        const auto fill = [&](Input which, auto&& value) {
            if (!program_.reads(which))
                return;
            std::vector<float>& copy = copies_[static_cast<std::size_t>(which)];
            const auto width = static_cast<std::size_t>(source_.width);
            for (std::size_t i = 0; i < padded; ++i) {
                const std::size_t at = std::min(first + i, first + count - 1);
                copy[i] = static_cast<float>(value(at % width, at / width));
            }
            inputs_[static_cast<std::size_t>(which)] = copy.data();
        };
        fill(Input::pixel_x, [](std::size_t x, std::size_t) { return static_cast<double>(x); });
        fill(Input::pixel_y, [](std::size_t, std::size_t y) { return static_cast<double>(y); });
        fill(Input::pos_x, [&](std::size_t x, std::size_t) { return (static_cast<double>(x) + 0.5) / source_.width; });
        fill(Input::pos_y, [&](std::size_t, std::size_t y) { return (static_cast<double>(y) + 0.5) / source_.height; });
    }

    static void store(KernelOperand from, float* to, std::size_t count) {
        if (from.mask == 0)
            std::fill_n(to, count, from.data[0]);
        else
            std::memcpy(to, from.data, count * sizeof(float));
    }

    const Program& program_;
    const Source& source_;
    const std::vector<float>& uniforms_;
    std::span<const Kernel> kernels_;
    std::span<float* const> outputs_;
    std::vector<float> registers_;
    std::vector<float> ones_;
    std::array<std::vector<float>, ir::input_count> copies_;
    std::array<const float*, ir::input_count> inputs_{};
};

} // namespace

bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<float* const> outputs, const CancelToken& cancel, std::atomic<std::size_t>* done) {
    const std::size_t pixels = static_cast<std::size_t>(source.width) * static_cast<std::size_t>(source.height);
    const std::vector<float> uniforms =
        uniform_vectors(program, parameters, source.height > 0 ? static_cast<double>(source.width) / source.height : 1);
    std::vector<Kernel> kernels;
    for (const Instruction& instruction : program.instructions())
        kernels.push_back(kernel(instruction.op));
    const std::size_t tiles = (pixels + tile_pixels - 1) / tile_pixels;
    constexpr std::size_t tiles_at_once = 32;
    return parallel_ranges(tiles, tiles_at_once, cancel, [&](std::size_t first, std::size_t last) {
        Worker worker(program, source, uniforms, kernels, outputs);
        for (std::size_t tile = first; tile < last; ++tile)
            worker.tile(tile * tile_pixels, std::min(tile_pixels, pixels - tile * tile_pixels));
        if (done)
            done->fetch_add(std::min(last * tile_pixels, pixels) - first * tile_pixels, std::memory_order_relaxed);
    });
}

std::optional<image::Picture> evaluate(const Program& program, const image::Picture& picture,
                                       std::span<const double> parameters, const CancelToken& cancel,
                                       std::atomic<std::size_t>* done, const image::PlanePool* pool) {
    Source source{picture.width, picture.height, {}};
    std::array<std::vector<float>, 4> made;
    std::array<float*, 4> outputs{};
    for (std::size_t i = 0; i < 4; ++i) {
        source.planes[i] = picture.planes[i] ? picture.planes[i]->data() : nullptr;
        if (!program.passes_through(i)) {
            made[i] = pool ? pool->take(picture.pixels()) : std::vector<float>(picture.pixels());
            outputs[i] = made[i].data();
        }
    }
    if (!run(program, source, parameters, outputs, cancel, done))
        return std::nullopt;
    image::Picture result = picture;
    for (std::size_t i = 0; i < 4; ++i)
        if (outputs[i])
            result.planes[i] = pool ? pool->plane(std::move(made[i])) : image::make_plane(std::move(made[i]));
    return result;
}

} // namespace kasuri::engine
