#pragma once
#include "base/cancel.hpp"
#include "engine/evaluate.hpp"
#include "engine/program.hpp"
#include "image/image.hpp"

#include <array>
#include <map>
#include <mutex>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <tuple>
#include <vector>

namespace kasuri::readings {

/// Expressions of the language over the pixels of pictures, compiled once: how readings and lenses look at colours.
/// Safe across threads.
class Views {
public:
    /// `expression` (of one to four components) with r, g, b of the picture as values of the space `working`. The text
    /// is ours: it must be without faults. With `other_space`, r, g, b of a second picture of the same size are there
    /// by the name `other`.
    engine::ProgramPtr program(std::string_view working, std::string_view expression, std::string_view picture_space,
                               std::string_view other_space = {});

    /// The expression's components for every pixel; the rest of the planes stay null. A component that is one of the
    /// picture's channels untouched shares its plane. Nothing if called off.
    std::optional<std::array<image::Plane, 4>> look(const image::Picture& picture, std::string_view working,
                                                    std::string_view expression, const CancelToken& cancel = {},
                                                    const image::Picture* other = nullptr);

private:
    using Key = std::tuple<std::string, std::string, std::string, std::string>;
    std::mutex mutex_;
    std::map<Key, engine::ProgramPtr> programs_;
    std::uint64_t spaces_ = 0;
    image::PlanePool pool_;
};

/// What a program with a `print` expression of one to four components shows of a picture, as a picture of numbers: one
/// component in all three channels, of two the third is 0, of four the last is left out. Nothing if called off.
std::optional<image::Picture> numbers_of(const engine::Program& program, const image::Picture& picture,
                                         std::span<const double> parameters, const std::vector<engine::PlaneView>& more,
                                         const CancelToken& cancel = {});

} // namespace kasuri::readings
