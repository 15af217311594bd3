#include "pairing/registration.hpp"

#include "pairing/registration_module.hpp"

#include <algorithm>
#include <cmath>
#include <dlfcn.h>
#include <filesystem>

namespace kasuri::pairing {
namespace {

/// kasuri-registration.so, opened once, beside the program or where it is installed; null functions where it is not.
struct Module {
    RegisterPictures registers = nullptr;
    WarpPicture warps = nullptr;
};

const Module& module() {
    static const Module opened = [] {
        namespace fs = std::filesystem;
        std::error_code none;
        const fs::path folder = fs::read_symlink("/proc/self/exe", none).parent_path();
        for (const char* place : {"kasuri-registration.so", "../libexec/kasuri/kasuri-registration.so"})
            if (void* const library = ::dlopen((folder / place).c_str(), RTLD_NOW | RTLD_LOCAL))
                return Module{reinterpret_cast<RegisterPictures>(::dlsym(library, "kasuri_register_pictures")),
                              reinterpret_cast<WarpPicture>(::dlsym(library, "kasuri_warp_picture"))};
        return Module{};
    }();
    return opened;
}

/// `picture` is kept as floats.
RawPicture raw(const image::Picture& picture) {
    return {
        {picture.planes[0]->floats().data(), picture.planes[1]->floats().data(), picture.planes[2]->floats().data()},
        picture.width,
        picture.height};
}

using Map = std::array<double, 6>;

/// `picture` where another of the size width x height lies.
std::optional<image::Picture> seen_through(const image::Picture& picture, const Map& map, int width, int height,
                                           double soften) {
    image::Picture made;
    made.width = width;
    made.height = height;
    made.space = picture.space;
    std::array<image::Samples, 3> planes{image::Samples(made.pixels()), image::Samples(made.pixels()),
                                         image::Samples(made.pixels())};
    const double place[6] = {map[0], map[1], map[2], map[3], map[4], map[5]};
    float* const into[3] = {planes[0].data(), planes[1].data(), planes[2].data()};
    if (!module().warps(raw(image::as_floats(picture)), place, width, height, soften, into))
        return std::nullopt;
    for (std::size_t c = 0; c < 3; ++c)
        made.planes[c] = image::make_plane(std::move(planes[c]));
    return made;
}

Map inverse_of(const Map& m) {
    const double d = m[0] * m[4] - m[1] * m[3];
    const double a = m[4] / d, b = -m[1] / d, c = -m[3] / d, e = m[0] / d;
    return {a, b, -a * m[2] - b * m[5], c, e, -c * m[2] - e * m[5]};
}

} // namespace

bool can_register() { return module().registers && module().warps; }

std::optional<Registration> registered(const image::Picture& before, const image::Picture& after,
                                       const CancelToken& cancel) {
    if (!can_register())
        return std::nullopt;
    Registration made;
    double map[6];
    const auto cancelled = [](const void* token) { return static_cast<const CancelToken*>(token)->cancelled(); };
    if (!module().registers(raw(image::as_floats(before)), raw(image::as_floats(after)), cancelled, &cancel, map,
                            made.correlation, made.before))
        return std::nullopt;
    std::copy(std::begin(map), std::end(map), made.map.begin());
    for (const double x : {0.0, after.width - 1.0})
        for (const double y : {0.0, after.height - 1.0})
            made.farthest = std::max(made.farthest,
                                     std::hypot(made.map[0] * x + made.map[1] * y + made.map[2] - x,
                                                made.map[3] * x + made.map[4] * y + made.map[5] - y));
    return made;
}

std::optional<std::pair<image::Picture, image::Picture>>
brought_over(const image::Picture& before, const image::Picture& after, const Registration& registration) {
    const Map& m = registration.map;
    const double scale = std::sqrt(std::fabs(m[0] * m[4] - m[1] * m[3])); // pixels of the first in one of the second
    // A pixel of the coarser one is an average over its square, whose deviation is its side by the root of 12.
    const auto soften = [](double s) { return std::sqrt(std::max(0.0, s * s - 1) / 12); };
    const bool first_is_finer = scale >= 1;
    auto moved = first_is_finer ? seen_through(before, m, after.width, after.height, soften(scale))
                                : seen_through(after, inverse_of(m), before.width, before.height, soften(1 / scale));
    if (!moved)
        return std::nullopt;
    return first_is_finer ? std::pair{std::move(*moved), after} : std::pair{before, std::move(*moved)};
}

} // namespace kasuri::pairing
