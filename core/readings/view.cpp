#include "readings/view.hpp"

#include "builtins/builtin.hpp"
#include "colour/space.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <stdexcept>

namespace kasuri::readings {

namespace {

std::string working_line(std::string_view space) {
    const bool plain = std::all_of(space.begin(), space.end(),
                                   [](unsigned char c) { return std::isalnum(c) != 0 || c == '-' || c == '_'; });
    return plain ? fmt::format("working {}\n", space) : fmt::format("working \"{}\"\n", space);
}

} // namespace

engine::ProgramPtr Views::program(std::string_view working, std::string_view expression, std::string_view picture_space,
                                  std::string_view other_space) {
    const std::lock_guard lock(mutex_);
    if (const std::uint64_t now = colour::spaces_generation(); now != spaces_) {
        programs_.clear(); // another colour config: names may mean something else
        spaces_ = now;
    }
    engine::ProgramPtr& entry = programs_[{std::string(working), std::string(expression), std::string(picture_space),
                                           std::string(other_space)}];
    if (!entry) {
        const std::string text = working_line(working) + (other_space.empty() ? "" : "source other : vec3\n");
        const lang::Checked checked = lang::check(text, builtins::vocabulary(), expression);
        if (!checked.ok)
            throw std::logic_error(fmt::format("the view {} in {} does not compile", expression, working));
        engine::CompileOptions options;
        options.in_space = picture_space;
        options.print = true;
        if (!other_space.empty())
            options.source_spaces = {std::string(other_space)};
        entry = engine::compile(checked.rule, options);
    }
    return entry;
}

std::optional<std::array<image::Plane, 4>> Views::look(const image::Picture& picture, std::string_view working,
                                                       std::string_view expression, const CancelToken& cancel,
                                                       const image::Picture* other) {
    const engine::ProgramPtr program =
        this->program(working, expression, picture.space, other ? std::string_view(other->space) : std::string_view());
    engine::Source source{picture.width, picture.height, {}};
    for (std::size_t c = 0; c < 4; ++c)
        source.planes[c] = engine::view_of(picture.planes[c]);
    for (std::size_t c = 0; other && c < 3; ++c)
        source.more.push_back(engine::view_of(other->planes[c]));
    const std::size_t count = program->outputs().size();
    std::array<image::Samples, 4> made;
    std::vector<engine::PlaneSink> sinks;
    for (std::size_t i = 0; i < count; ++i) {
        const bool shared = i < 3 && program->passes_through(i);
        if (!shared)
            made[i] = pool_.take(picture.pixels());
        sinks.emplace_back(shared ? nullptr : made[i].data());
    }
    if (!engine::run(*program, source, {}, std::span<const engine::PlaneSink>(sinks), cancel))
        return std::nullopt;
    std::array<image::Plane, 4> planes;
    for (std::size_t i = 0; i < count; ++i)
        planes[i] = sinks[i].data ? pool_.plane(std::move(made[i])) : picture.planes[i];
    return planes;
}

std::optional<image::Picture> numbers_of(const engine::Program& program, const image::Picture& picture,
                                         std::span<const double> parameters, const std::vector<engine::PlaneView>& more,
                                         const CancelToken& cancel) {
    engine::Source source{picture.width, picture.height, {}, more};
    for (std::size_t c = 0; c < 4; ++c)
        source.planes[c] = engine::view_of(picture.planes[c]);
    const std::size_t count = std::min<std::size_t>(3, program.outputs().size());
    std::array<image::Samples, 3> made;
    std::vector<engine::PlaneSink> sinks;
    for (std::size_t i = 0; i < program.outputs().size(); ++i) {
        if (i < count)
            made[i].resize(picture.pixels());
        sinks.emplace_back(i < count ? made[i].data() : nullptr);
    }
    if (!engine::run(program, source, parameters, std::span<const engine::PlaneSink>(sinks), cancel))
        return std::nullopt;
    image::Picture numbers;
    numbers.width = picture.width;
    numbers.height = picture.height;
    numbers.space = picture.space;
    for (std::size_t i = 0; i < count; ++i)
        numbers.planes[i] = image::make_plane(std::move(made[i]));
    for (std::size_t i = count; i < 3; ++i)
        numbers.planes[i] = count == 1 ? numbers.planes[0] : image::make_plane(image::Samples(picture.pixels(), 0.0f));
    return numbers;
}

} // namespace kasuri::readings
