// Per-target header: included once for each instruction set, inside of what includes highway.h. What all workloads by
// hand share.
#if defined(KASURI_HANDWRITTEN_LOOP_INL) == defined(HWY_TARGET_TOGGLE)
#ifdef KASURI_HANDWRITTEN_LOOP_INL
#undef KASURI_HANDWRITTEN_LOOP_INL
#else
#define KASURI_HANDWRITTEN_LOOP_INL
#endif

#include <hwy/highway.h>

#include "engine/vector_math-inl.hpp"
#include "handwritten.hpp"

HWY_BEFORE_NAMESPACE();
namespace kasuri::bench::HWY_NAMESPACE {

using namespace kasuri::engine::HWY_NAMESPACE;

struct Rgb {
    V r, g, b;
};

HWY_INLINE V Row(const Rgb& c, float x, float y, float z) {
    return hn::MulAdd(Const(x), c.r, hn::MulAdd(Const(y), c.g, hn::Mul(Const(z), c.b)));
}

/// Powers of numbers that are known to be positive: no special cases but 0.
HWY_INLINE V PowPositive(V x, float e) { return Exp2(hn::Mul(Const(e), Log2(x))); }

/// `count` is a multiple of 16. A block is computed into the nearest cache and then streamed out, which was faster
/// than streaming every vector (three streams and their alignment).
template <Rgb (*work)(const Rgb&)>
void Loop(const Planes& from, const Targets& to, std::size_t count) {
    const D d;
    constexpr std::size_t block = 512;
    HWY_ALIGN float made[3][block];
    for (std::size_t first = 0; first < count; first += block) {
        const std::size_t n = count - first < block ? count - first : block;
        for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
            const Rgb out = work({hn::LoadU(d, from[0] + first + i), hn::LoadU(d, from[1] + first + i),
                                  hn::LoadU(d, from[2] + first + i)});
            hn::Store(out.r, d, made[0] + i);
            hn::Store(out.g, d, made[1] + i);
            hn::Store(out.b, d, made[2] + i);
        }
        for (int c = 0; c < 3; ++c)
            engine::kernels().stream(made[c], to[c] + first, n);
    }
}

} // namespace kasuri::bench::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif
