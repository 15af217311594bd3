#include "readings/bands.hpp"

#include "base/parallel.hpp"
#include "engine/evaluate.hpp"
#include "image/rows.hpp"

#include <algorithm>

namespace kasuri::readings {
namespace {

/// Of what has to be made: so many that three channels and what is counted stay in a core's own cache, and no more than
/// the engine leaves to one core.
constexpr std::size_t pixels_at_once = 8192;
/// Of what lies there as it is.
constexpr std::size_t rows_at_once = 64;

using Programs = std::vector<engine::ProgramPtr>; ///< of each onlooker; null: as it is stored

/// What one thread needs to look at bands.
class Looking {
public:
    Looking(const image::Picture& picture, const Programs& programs)
        : picture_(picture), programs_(programs), rows_(picture), made_(programs.size()), seen_(programs.size()) {}

    /// Rows [first, last) as each onlooker sees them. False if called off.
    bool at(std::size_t first, std::size_t last, const CancelToken& cancel) {
        rows_.at(first, last);
        const std::size_t wide = static_cast<std::size_t>(picture_.width), count = (last - first) * wide;
        for (std::size_t i = 0; i < programs_.size(); ++i) {
            const auto same = static_cast<std::size_t>(std::find(programs_.begin(), programs_.end(), programs_[i]) -
                                                       programs_.begin());
            seen_[i].first = first * wide;
            if (same < i)
                seen_[i].components = seen_[same].components;
            else if (!programs_[i])
                for (std::size_t c = 0; c < 3; ++c)
                    seen_[i].components[c] = {rows_.all(c), count};
            else if (!look(i, static_cast<int>(last - first), count, cancel))
                return false;
        }
        return true;
    }
    const Band& seen_by(std::size_t onlooker) const { return seen_[onlooker]; }

private:
    bool look(std::size_t i, int height, std::size_t count, const CancelToken& cancel) {
        const engine::Program& program = *programs_[i];
        engine::Source source{picture_.width, height, {}};
        for (std::size_t c = 0; c < 4; ++c)
            if (picture_.planes[c])
                source.planes[c] = rows_.all(c);
        std::vector<engine::PlaneSink> sinks;
        for (std::size_t k = 0; k < program.outputs().size(); ++k) {
            const bool shared = k < 3 && program.passes_through(k);
            if (!shared)
                made_[i][k].resize(count);
            float* const to = shared ? nullptr : made_[i][k].data();
            sinks.emplace_back(to);
            seen_[i].components[k] = {shared ? rows_.all(k) : to, count};
        }
        return engine::run(program, source, {}, std::span<const engine::PlaneSink>(sinks), cancel);
    }

    const image::Picture& picture_;
    const Programs& programs_;
    image::Rows rows_;
    std::vector<std::array<image::Samples, 4>> made_;
    std::vector<Band> seen_;
};

} // namespace

bool through_bands(const image::Picture& picture, Views& views, std::span<const Onlooker> onlookers,
                   const CancelToken& cancel) {
    if (picture.pixels() == 0)
        return !cancel.cancelled();
    Programs programs;
    bool is_there = std::all_of(picture.planes.begin(), picture.planes.begin() + 3,
                                [](const image::Plane& plane) { return plane->values() != nullptr; });
    for (const Onlooker& each : onlookers) {
        const Looked& by = each.looked;
        programs.push_back(by.expression.empty() ? nullptr : views.program(by.working, by.expression, picture.space));
        is_there = is_there && !programs.back();
    }
    const auto height = static_cast<std::size_t>(picture.height);
    const std::size_t high =
        is_there ? rows_at_once : std::max<std::size_t>(1, pixels_at_once / static_cast<std::size_t>(picture.width));
    // A band at a time, so that no core has nothing to do.
    return parallel_ranges((height + high - 1) / high, 1, cancel,
                           [&](std::size_t from, std::size_t to) {
                               Looking looking(picture, programs);
                               for (std::size_t i = from; i < to; ++i) {
                                   if (!looking.at(i * high, std::min(height, (i + 1) * high), cancel))
                                       return;
                                   for (std::size_t k = 0; k < onlookers.size(); ++k)
                                       onlookers[k].each(looking.seen_by(k));
                               }
                           }) &&
        !cancel.cancelled();
}

} // namespace kasuri::readings
