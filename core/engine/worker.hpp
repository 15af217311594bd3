#pragma once
#include "engine/evaluate.hpp"
#include "engine/kernels.hpp"

#include <hwy/aligned_allocator.h>
#include <memory>
#include <mutex>
#include <span>
#include <vector>

namespace kasuri::engine {

/// One pass over a region, cut into tiles: what all threads share.
class TileJob {
public:
    /// `inputs` and `origins` per input slot: the plane and the part of the picture that it holds.
    TileJob(const Pass& pass, const Source& source, std::span<const PlaneView> inputs, std::span<const Region> origins,
            std::span<const double> uniforms, std::span<const PlaneSink> outputs, const Region& region);

    std::size_t tiles() const {
        return flat_ ? (region_.pixels() + tile_pixels - 1) / tile_pixels
                     : tiles_per_row() * static_cast<std::size_t>(region_.height());
    }

private:
    friend class Worker;
    std::size_t tiles_per_row() const {
        return (static_cast<std::size_t>(region_.width()) + tile_pixels - 1) / tile_pixels;
    }

    const Pass& pass_;
    int width_, height_; ///< of the picture
    std::span<const PlaneView> inputs_;
    std::span<const Region> origins_;
    std::span<const PlaneSink> outputs_;
    Region region_;
    bool flat_ = true;    ///< every plane is as wide as the region and without gaps: rows do not matter
    bool copied_ = false; ///< inputs are copied before anything is written, because that may lie in their place
    bool stream_ = false; ///< the result is too large to stay in a cache
    hwy::AlignedFreeUniquePtr<float[]> uniforms_; ///< as vectors of equal floats
    std::vector<Kernel> kernels_;
    std::size_t operands_ = 0; ///< of all instructions
};

/// What one thread needs to run tiles: registers, padded copies of ragged or strided inputs, coordinates.
class Worker {
public:
    explicit Worker(const TileJob& job);
    Worker(const Worker&) = delete; // calls point into it
    Worker& operator=(const Worker&) = delete;
    /// Computes one tile; returns its pixels.
    std::size_t tile(std::size_t index);

private:
    struct Patch {
        std::size_t operand;
        std::uint32_t slot;
    };
    KernelOperand operand(const Operand& where);
    float* copy_of(std::uint32_t slot) { return copies_.get() + slot * tile_pixels; }
    void bind(std::uint32_t slot, int x, int y, std::size_t first, std::size_t count, std::size_t padded);
    void bind_position(std::uint32_t slot, int x, int y, std::size_t count, std::size_t padded);
    static void through(const ir::External& conversion, const KernelCall& call, std::size_t count);
    void store(std::size_t output, int x, int y, std::size_t first, std::size_t count);

    const TileJob& job_;
    hwy::AlignedFreeUniquePtr<float[]> registers_; ///< a vector that lies across two lines costs as much as two
    std::vector<std::uint32_t> slots_;             ///< that the pass reads
    hwy::AlignedFreeUniquePtr<float[]> copies_;    ///< a tile of each
    std::vector<const float*> bound_;
    std::vector<KernelCall> calls_;
    std::vector<KernelOperand> operands_; ///< of all calls
    std::vector<Patch> patches_;
};

/// The workers of one job: a piece of it borrows one, so that there are no more of them than threads. A long rule's
/// worker is a megabyte.
class WorkerStore {
    struct GiveBack {
        WorkerStore* store;
        void operator()(Worker* worker) const;
    };

public:
    explicit WorkerStore(const TileJob& job) : job_(job) {}
    using Lent = std::unique_ptr<Worker, GiveBack>;
    /// From any thread.
    Lent lend();

private:
    const TileJob& job_;
    std::mutex mutex_;
    std::vector<std::unique_ptr<Worker>> free_;
};

} // namespace kasuri::engine
