#include "engine/evaluate.hpp"

#include "base/parallel.hpp"
#include "engine/kernels.hpp"
#include "engine/neighbourhood.hpp"
#include "engine/scratch.hpp"
#include "engine/worker.hpp"

#include <algorithm>
#include <cmath>
#include <hwy/cache_control.h>
#include <stdexcept>

namespace kasuri::engine {

using ir::Op;

namespace {

/// The numbers that are the same for every pixel, in double precision.
std::vector<double> uniform_values(const Pass& pass, std::span<const double> parameters, const Source& source) {
    std::vector<double> values;
    values.reserve(pass.uniforms.size());
    for (const UniformStep& step : pass.uniforms) {
        double value = step.value;
        if (step.op == Op::uniform) {
            switch (step.slot) {
            case ir::aspect_slot:
                value = source.height > 0 ? static_cast<double>(source.width) / source.height : 1;
                break;
            case ir::width_slot: value = source.width; break;
            case ir::height_slot: value = source.height; break;
            default: value = parameters[step.slot - ir::first_parameter_slot];
            }
        } else if (step.op != Op::constant) {
            double args[ir::max_graph_operands] = {};
            for (int k = 0; k < ir::row(step.op).arity; ++k)
                args[k] = values[step.args[static_cast<std::size_t>(k)]];
            value = step.external ? ir::applied(*step.external, args)[static_cast<std::size_t>(step.value)]
                                  : ir::folded(step.op, args);
        }
        values.push_back(value);
    }
    return values;
}

Region grown(const Region& region, int by, const Source& source) {
    return {std::max(0, region.x0 - by), std::max(0, region.y0 - by), std::min(source.width, region.x1 + by),
            std::min(source.height, region.y1 + by)};
}

/// One pass over `region`: tiles on all cores. Progress counts pixels of `share` of the whole.
bool walk(const TileJob& job, const CancelToken& cancel, std::atomic<std::size_t>* done, double share) {
    const std::size_t tiles = job.tiles();
    // Few enough that calling off is felt at once, many enough that taking them costs nothing.
    constexpr std::size_t tiles_at_once = 16;
    WorkerStore workers(job);
    return parallel_ranges(tiles, tiles_at_once, cancel,
                           [&](std::size_t first, std::size_t last) {
                               const FlushSubnormals flush;
                               const WorkerStore::Lent lent = workers.lend();
                               Worker& worker = *lent;
                               std::size_t pixels = 0;
                               for (std::size_t tile = first; tile < last && !cancel.cancelled(); ++tile)
                                   pixels += worker.tile(tile);
                               // Stores past the caches are only seen by others after this.
                               hwy::FlushStream();
                               if (done)
                                   done->fetch_add(static_cast<std::size_t>(static_cast<double>(pixels) * share),
                                                   std::memory_order_relaxed);
                           }) &&
        !cancel.cancelled();
}

/// The plane of an output that is nothing but an input, if it can be read as it is: nobody has to copy it.
const float* plain_plane(const Operand& output, std::span<const PlaneView> inputs, std::span<const Region> origin,
                         const Region& region) {
    if (output.place != Operand::Place::input || origin[output.index] != region)
        return nullptr;
    const PlaneView& view = inputs[output.index];
    const bool plain = view.sample == Sample::float32 && view.pixel_stride == 1 &&
        (view.row_stride == 0 || view.row_stride == region.width());
    return plain ? static_cast<const float*>(view.data) : nullptr;
}

} // namespace

PlaneView view_of(const image::Plane& plane) {
    if (!plane)
        return {};
    if (plane->on_demand())
        throw std::logic_error("a channel that is made on demand is read as if it were kept");
    const auto sample = [&] {
        switch (plane->kind()) {
        case image::Depth::uint8: return Sample::uint8;
        case image::Depth::uint16: return Sample::uint16;
        case image::Depth::half: return Sample::half;
        case image::Depth::float32:
        case image::Depth::uint32: break;
        }
        return Sample::float32;
    };
    return {plane->kept(), sample(), 1, 0};
}

bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<const PlaneSink> outputs, const CancelToken& cancel, std::atomic<std::size_t>* done,
         std::optional<Region> wanted) {
    if (source.width <= 0 || source.height <= 0) // nothing of nothing; a neighbour of no pixel is none
        return !cancel.cancelled();
    const Region region = wanted.value_or(Region{0, 0, source.width, source.height});
    const std::span<const Pass> passes = program.passes();
    std::vector<std::vector<double>> uniforms;
    for (const Pass& pass : passes)
        uniforms.push_back(uniform_values(pass, parameters, source));
    // From the last pass backwards: what it looks at must be right somewhat further out.
    std::vector<Region> regions(passes.size(), region);
    for (std::size_t i = passes.size() - 1; i-- > 0;) {
        int furthest = 0;
        for (const StageStep& stage : passes[i].stages)
            furthest = std::max(furthest, reach(stage.kind, uniforms[i][stage.size]));
        regions[i] = grown(regions[i + 1], furthest, source);
    }
    std::vector<PlaneView> inputs(program.input_slots());
    std::copy(source.planes.begin(), source.planes.end(), inputs.begin());
    std::copy_n(source.more.begin(), std::min<std::size_t>(source.more.size(), inputs.size() - ir::input_count),
                inputs.begin() + ir::input_count);
    std::vector<Scratch> kept; // planes of stages
    // Where a plane begins in the picture: further pictures and inputs at 0, stages at their pass's region.
    std::vector<Region> origin(program.input_slots(), Region{0, 0, source.width, source.height});
    for (std::size_t i = 0; i < passes.size(); ++i) {
        const Pass& pass = passes[i];
        const bool final = i + 1 == passes.size();
        std::vector<Scratch> made;
        std::vector<PlaneSink> sinks(outputs.begin(), outputs.end());
        std::vector<const float*> looked_at; // outputs of a pass that stages read
        if (!final) {
            sinks.clear();
            for (const Operand& output : pass.outputs) {
                looked_at.push_back(plain_plane(output, inputs, origin, regions[i]));
                sinks.emplace_back(looked_at.back() ? nullptr : made.emplace_back(regions[i].pixels()).data());
                if (!looked_at.back())
                    looked_at.back() = made.back().data();
            }
        }
        const double share = 1.0 / static_cast<double>(passes.size()) * static_cast<double>(region.pixels()) /
            std::max(1.0, static_cast<double>(regions[i].pixels()));
        const bool work =
            std::any_of(sinks.begin(), sinks.end(), [](const PlaneSink& sink) { return sink.data != nullptr; });
        if (work && !walk(TileJob(pass, source, inputs, origin, uniforms[i], sinks, regions[i]), cancel, done, share))
            return false;
        for (const StageStep& stage : pass.stages) {
            Scratch result(regions[i].pixels());
            if (!filter_neighbourhood(stage.kind, uniforms[i][stage.size], regions[i].width(), regions[i].height(),
                                      looked_at[stage.output], result.data(), cancel))
                return false;
            kept.push_back(std::move(result));
            inputs[stage.slot] = kept.back().data();
            origin[stage.slot] = regions[i];
        }
    }
    if (done && passes.size() > 1)
        done->store(region.pixels(), std::memory_order_relaxed);
    return true;
}

bool run(const Program& program, const Source& source, std::span<const double> parameters,
         std::span<float* const> outputs, const CancelToken& cancel, std::atomic<std::size_t>* done) {
    std::vector<PlaneSink> sinks(outputs.begin(), outputs.end());
    return run(program, source, parameters, std::span<const PlaneSink>(sinks), cancel, done);
}

std::optional<image::Picture> evaluate(const Program& program, const image::Picture& picture,
                                       std::span<const double> parameters, const CancelToken& cancel,
                                       std::atomic<std::size_t>* done, const image::PlanePool* pool,
                                       std::vector<PlaneView> more) {
    Source source{picture.width, picture.height, {}, std::move(more)};
    std::array<image::Samples, 4> made;
    std::array<float*, 4> outputs{};
    for (std::size_t i = 0; i < 4; ++i) {
        source.planes[i] = view_of(picture.planes[i]);
        if (!program.passes_through(i)) {
            made[i] = pool ? pool->take(picture.pixels()) : image::Samples(picture.pixels());
            outputs[i] = made[i].data();
        }
    }
    const auto plane_of = [&](std::size_t i) {
        return pool ? pool->plane(std::move(made[i])) : image::make_plane(std::move(made[i]));
    };
    if (!run(program, source, parameters, outputs, cancel, done)) {
        for (std::size_t i = 0; pool && i < 4; ++i)
            if (outputs[i])
                plane_of(i); // gone at once, and its buffer is back in the pool
        return std::nullopt;
    }
    image::Picture result = picture;
    for (std::size_t i = 0; i < 4; ++i)
        if (outputs[i])
            result.planes[i] = plane_of(i);
    return result;
}

} // namespace kasuri::engine
