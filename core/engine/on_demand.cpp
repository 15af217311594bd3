#include "engine/on_demand.hpp"

#include "engine/evaluate.hpp"

#include <array>
#include <span>
#include <utility>

namespace kasuri::engine {
namespace {

class ByProgram final : public image::MadeOnDemand {
public:
    ByProgram(ProgramPtr program, std::shared_ptr<const image::Picture> picture, std::vector<double> values,
              std::shared_ptr<const BoundSources> sources)
        : program_(std::move(program)), picture_(std::move(picture)), values_(std::move(values)),
          sources_(std::move(sources)) {}

    std::size_t width() const override { return static_cast<std::size_t>(picture_->width); }
    std::size_t height() const override { return static_cast<std::size_t>(picture_->height); }
    void make(std::size_t x, std::size_t y, std::size_t wide, std::size_t high,
              const std::array<float*, 4>& to) const override {
        Source source{picture_->width, picture_->height, {}, sources_->planes};
        for (std::size_t c = 0; c < 4; ++c)
            source.planes[c] = view_of(picture_->planes[c]);
        const std::array<PlaneSink, 4> sinks{to[0], to[1], to[2], to[3]};
        const auto whole = [](std::size_t n) { return static_cast<int>(n); };
        run(*program_, source, values_, std::span<const PlaneSink>(sinks), {}, nullptr,
            Region{whole(x), whole(y), whole(x + wide), whole(y + high)});
    }

private:
    ProgramPtr program_;
    std::shared_ptr<const image::Picture> picture_;
    std::vector<double> values_;
    std::shared_ptr<const BoundSources> sources_;
};

} // namespace

image::Picture on_demand(ProgramPtr program, std::shared_ptr<const image::Picture> picture, std::vector<double> values,
                         std::shared_ptr<const BoundSources> sources) {
    image::Picture made = *picture;
    const Program& known = *program;
    const auto pixels = std::make_shared<const ByProgram>(std::move(program), std::move(picture), std::move(values),
                                                          std::move(sources));
    for (std::size_t c = 0; c < 4; ++c)
        if (!known.passes_through(c))
            made.planes[c] = std::make_shared<const image::PlaneData>(pixels, c);
    return made;
}

} // namespace kasuri::engine
