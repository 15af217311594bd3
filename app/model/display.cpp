#include "model/display.hpp"

#include "base/parallel.hpp"
#include "colour/space.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

using Pixel = std::array<float, 4>;
using Light = std::array<float, 3>;

/// Display code by the upper bits of the linear value: finer than a 16-bit table near black.
struct Codes {
    static constexpr int steps = 1 << 14;
    std::array<std::uint8_t, steps + 1> code{};
    Codes() {
        // Even steps of the square root put the entries where the eye and the encoding want them.
        for (int i = 0; i <= steps; ++i) {
            const double root = static_cast<double>(i) / steps;
            code[static_cast<std::size_t>(i)] =
                static_cast<std::uint8_t>(std::lround(255 * colour::srgb_encode(root * root)));
        }
    }
};

const float surround_light = static_cast<float>(colour::srgb_decode(surround_code / 255.0));

Light grey(float value) { return {value, value, value}; }

/// A stored number on its own is shown as what it is in its own encoding.
constexpr Lens table[] = {
    {"colour", "colour", "The picture, laid over the surround where it is transparent.",
     [](const Pixel& p, const Pixel&) {
         const float a = std::clamp(p[3], 0.0f, 1.0f);
         const auto over = [a](float c) { return c * a + surround_light * (1 - a); };
         return Light{over(p[0]), over(p[1]), over(p[2])};
     }},
    {"red", "red channel", "Red alone, as a neutral grey.", [](const Pixel& p, const Pixel&) { return grey(p[0]); }},
    {"green", "green channel", "Green alone, as a neutral grey.", [](const Pixel& p, const Pixel&) { return grey(p[1]); }},
    {"blue", "blue channel", "Blue alone, as a neutral grey.", [](const Pixel& p, const Pixel&) { return grey(p[2]); }},
    {"alpha", "alpha", "Alpha: 0 black, 1 white, in even steps for the eye.",
     [](const Pixel&, const Pixel& s) { return grey(static_cast<float>(colour::srgb_decode(s[3]))); }},
    {"luminance", "luminance", "Luminance Y of linear light, as a neutral grey.",
     [](const Pixel& p, const Pixel&) {
         return grey(static_cast<float>(colour::luminance({p[0], p[1], p[2]})));
     }},
};

} // namespace

std::uint8_t display_code(float linear) {
    static const Codes codes;
    if (!(linear > 0)) // NaN too
        return 0;
    const float root = std::sqrt(std::min(linear, 1.0f));
    return codes.code[static_cast<std::size_t>(root * Codes::steps + 0.5f)];
}

std::span<const Lens> lenses() { return table; }

const Lens& lens(std::string_view id) {
    const auto found = std::find_if(std::begin(table), std::end(table), [&](const Lens& l) { return l.id == id; });
    return found == std::end(table) ? table[0] : *found;
}

image::Picture reduced(const image::Picture& picture, int width, int height) {
    if (width == picture.width && height == picture.height)
        return picture;
    std::array<std::vector<float>, 4> out;
    const bool alpha = picture.planes[3] != nullptr;
    const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c)
        out[c].resize(count);
    const auto edge = [](int i, int to, int from) { return static_cast<int>(static_cast<std::int64_t>(i) * from / to); };
    parallel_ranges(static_cast<std::size_t>(height), 8, {}, [&](std::size_t first, std::size_t last) {
        for (int y = static_cast<int>(first); y < static_cast<int>(last); ++y) {
            const int top = edge(y, height, picture.height);
            const int bottom = std::max(top + 1, edge(y + 1, height, picture.height));
            for (int x = 0; x < width; ++x) {
                const int left = edge(x, width, picture.width);
                const int right = std::max(left + 1, edge(x + 1, width, picture.width));
                float sum[4] = {};
                float plain[3] = {}; // for places without any alpha, whose colour would be lost otherwise
                for (int v = top; v < bottom; ++v) {
                    const auto row = static_cast<std::size_t>(v) * static_cast<std::size_t>(picture.width);
                    if (!alpha) {
                        for (std::size_t c = 0; c < 3; ++c) {
                            const float* plane = picture.planes[c]->data() + row;
                            for (int u = left; u < right; ++u)
                                sum[c] += plane[u];
                        }
                        continue;
                    }
                    for (int u = left; u < right; ++u) {
                        const std::size_t at = row + static_cast<std::size_t>(u);
                        const float weight = (*picture.planes[3])[at];
                        for (std::size_t c = 0; c < 3; ++c) {
                            const float value = (*picture.planes[c])[at];
                            plain[c] += value;
                            sum[c] += weight != 0 ? value * weight : 0;
                        }
                        sum[3] += weight;
                    }
                }
                const auto pixels = static_cast<float>((bottom - top) * (right - left));
                const std::size_t at = static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
                for (std::size_t c = 0; c < 3; ++c)
                    out[c][at] = alpha ? (sum[3] != 0 ? sum[c] / sum[3] : plain[c] / pixels) : sum[c] / pixels;
                if (alpha)
                    out[3][at] = sum[3] / pixels;
            }
        }
    });
    image::Picture result = picture;
    result.width = width;
    result.height = height;
    for (std::size_t c = 0; c < 4; ++c)
        result.planes[c] = out[c].empty() ? nullptr : image::make_plane(std::move(out[c]));
    return result;
}

QImage shown(const image::Picture& picture, const Lens& lens) {
    QImage image(picture.width, picture.height, QImage::Format_RGB32);
    const colour::Space* space = colour::find_space(picture.space);
    const bool linear = !space || space->transfer == "linear";
    std::size_t at = 0;
    for (int y = 0; y < picture.height; ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < picture.width; ++x, ++at) {
            const Pixel stored = picture.at(at);
            Pixel light = stored;
            if (!linear)
                for (std::size_t c = 0; c < 3; ++c)
                    light[c] = static_cast<float>(transfer_of(*space).decode(stored[c]));
            const Light show = lens.shown(light, stored);
            line[x] = qRgb(display_code(show[0]), display_code(show[1]), display_code(show[2]));
        }
    }
    return image;
}

} // namespace kasuri::app
