#include "handover/read_back.hpp"

#include "baking/compare.hpp"
#include "base/parallel.hpp"
#include "io/icc_link.hpp"
#include "io/lut_file.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

namespace kasuri::handover {
namespace {

using baking::Colours;

constexpr std::size_t seeds = 64, tries = 24, rounds = 10; ///< of the search around the worst colours
constexpr double narrower = 0.62;
constexpr float hardly = 1e-6F, beyond = 1e-3F; ///< of 0 and 1: at them, but for rounding; and outside of them

/// The rule and the file, side by side.
struct Both {
    const engine::Program& program;
    std::span<const double> values;
    const ir::External& lut;
    const CancelToken& cancel;

    std::optional<Colours> by_rule(const image::Picture& colours) const {
        return baking::colours_through(program, colours, values, cancel);
    }
    Colours by_file(const image::Picture& colours) const {
        Colours made;
        for (std::size_t c = 0; c < 3; ++c)
            made[c].assign(colours.planes[c]->begin(), colours.planes[c]->end());
        (void)parallel_ranges(made[0].size(), 4096, cancel, [&](std::size_t begin, std::size_t end) {
            float* const planes[3] = {made[0].data() + begin, made[1].data() + begin, made[2].data() + begin};
            lut.apply(planes, end - begin);
        });
        return made;
    }
};

double apart(const Colours& a, const Colours& b, std::size_t i) {
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c) {
        const double d = std::fabs(static_cast<double>(a[c][i]) - static_cast<double>(b[c][i]));
        most = std::isfinite(d) ? std::max(most, d) : most;
    }
    return most;
}

/// Looks for a larger error around the worst colours, in ever smaller steps: a sample between the points of a table
/// meets the worst place by chance alone. Nothing if called off.
std::optional<std::size_t> search(LutError& error, const Both& both, const image::Picture& samples,
                                  const Colours& truth, const Colours& got, double low, double high, double step) {
    std::vector<std::size_t> order(samples.pixels());
    std::iota(order.begin(), order.end(), std::size_t{0});
    const std::size_t taken = std::min(seeds, order.size());
    std::partial_sort(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(taken), order.end(),
                      [&](std::size_t a, std::size_t b) { return apart(truth, got, a) > apart(truth, got, b); });
    std::vector<std::array<double, 3>> at(taken);
    std::vector<double> far(taken);
    for (std::size_t k = 0; k < taken; ++k) {
        const auto colour = samples.at(order[k]);
        at[k] = {static_cast<double>(colour[0]), static_cast<double>(colour[1]), static_cast<double>(colour[2])};
        far[k] = apart(truth, got, order[k]);
    }
    std::mt19937 random(1);
    const auto number = [&] { return 2 * (static_cast<double>(random()) / 4294967296.0) - 1; };
    std::size_t looked_at = 0;
    for (std::size_t round = 0; round < rounds; ++round, step *= narrower) {
        const image::Picture near = image::generated(static_cast<int>(taken * tries), 1, [&](int i, int) {
            std::array<double, 3> colour = at[static_cast<std::size_t>(i) / tries];
            for (double& x : colour)
                x = std::clamp(x + step * number(), low, high);
            return colour;
        });
        const auto wanted = both.by_rule(near);
        if (!wanted)
            return std::nullopt;
        const Colours made = both.by_file(near);
        looked_at += near.pixels();
        for (std::size_t i = 0; i < near.pixels(); ++i)
            if (const double d = apart(*wanted, made, i); d > far[i / tries]) {
                const auto colour = near.at(i);
                far[i / tries] = d;
                at[i / tries] = {static_cast<double>(colour[0]), static_cast<double>(colour[1]),
                                 static_cast<double>(colour[2])};
            }
    }
    for (std::size_t k = 0; k < taken; ++k)
        if (far[k] > error.largest) {
            error.largest = far[k];
            for (std::size_t c = 0; c < 3; ++c)
                error.worst[c] = static_cast<float>(at[k][c]);
        }
    return looked_at;
}

/// Share of the colours of which the file cuts a channel off that the rule lets go on.
double clipped_share(const Colours& truth, const Colours& got) {
    std::size_t count = 0;
    for (std::size_t i = 0; i < truth[0].size(); ++i) {
        bool cut = false;
        for (std::size_t c = 0; c < 3; ++c) {
            const float wanted = truth[c][i], made = got[c][i];
            cut = cut || (wanted < -beyond && std::fabs(made) <= hardly) ||
                (wanted > 1 + beyond && std::fabs(made - 1) <= hardly);
        }
        count += cut ? 1 : 0;
    }
    return static_cast<double>(count) / static_cast<double>(std::max<std::size_t>(1, truth[0].size()));
}

/// Whether both are the same on colours far outside of 0 .. 1, to single precision.
std::optional<bool> same_everywhere(const Both& both) {
    constexpr double reach = 100;
    std::mt19937 random(2);
    const image::Picture colours = image::generated(4096, 1, [&](int, int) {
        std::array<double, 3> colour{};
        for (double& x : colour)
            x = reach * (2 * (static_cast<double>(random()) / 4294967296.0) - 1);
        return colour;
    });
    const auto wanted = both.by_rule(colours);
    if (!wanted)
        return std::nullopt;
    const Colours made = both.by_file(colours);
    for (std::size_t i = 0; i < colours.pixels(); ++i)
        if (!(apart(*wanted, made, i) <= 1e-6 * reach))
            return false;
    return true;
}

/// As another program reads it: OpenColorIO, or Little CMS a device link.
Result<std::shared_ptr<const ir::External>> reader_of(const std::string& text, const std::string& ending,
                                                      io::Interpolation how) {
    if (ending != icc_ending)
        return io::read_lut_here(text, ending, "what would be written", how);
    auto link = io::read_icc_link(text, how == io::Interpolation::trilinear);
    if (!link)
        return link.error();
    return std::shared_ptr<const ir::External>(std::move(link.value()));
}

} // namespace

Status read_back(LutFile& file, const std::string& text, const std::string& ending, const Subject& subject,
                 const Baked& baked, bool delta_e, const CancelToken& cancel) {
    const Error called_off{"called off", "", ""};
    const engine::ProgramPtr program = subject.program(baked.in_space, baked.out_space, {}, true, &cancel);
    if (!program)
        return called_off;
    const image::Picture samples = baking::samples_in(baked.lut);
    file.samples = samples.pixels();
    const std::string* const by_eye = delta_e ? &baked.out_space : nullptr;
    for (const io::Interpolation how : {io::Interpolation::tetrahedral, io::Interpolation::trilinear}) {
        LutError& error = how == io::Interpolation::tetrahedral ? file.tetrahedral : file.trilinear;
        if (how == io::Interpolation::trilinear && file.holds != LutHolds::table) {
            error = file.tetrahedral;
            break;
        }
        // In this process: we wrote it ourselves.
        const auto lut = reader_of(text, ending, how);
        if (!lut)
            return lut.error();
        const Both both{*program, subject.values(), *lut.value(), cancel};
        const auto truth = both.by_rule(samples);
        if (!truth)
            return called_off;
        const Colours got = both.by_file(samples);
        error = {};
        if (!baking::sum_up(error, samples, *truth, got, by_eye, cancel))
            return called_off;
        const double step = (baked.lut.high - baked.lut.low) / std::max(2, baked.lut.size - 1);
        const auto searched = search(error, both, samples, *truth, got, baked.lut.low, baked.lut.high, step);
        if (!searched)
            return called_off;
        file.searched += *searched;
        if (how == io::Interpolation::tetrahedral)
            file.clipped = clipped_share(*truth, got);
        if (file.holds == LutHolds::matrix) {
            const auto same = same_everywhere(both);
            if (!same)
                return called_off;
            file.exact = *same;
        }
    }
    return {};
}

} // namespace kasuri::handover
