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

namespace {

/// Where the pixels of one direction fall: [first[i], first[i + 1]), at least one each.
std::vector<int> edges(int to, int from) {
    std::vector<int> all;
    for (int i = 0; i <= to; ++i)
        all.push_back(static_cast<int>(static_cast<std::int64_t>(i) * from / to));
    return all;
}

/// Adds a row to `sum`, each value times its weight if there are weights; 0 weighs NaN away.
void add_row(std::vector<float>& sum, const float* row, const float* weight) {
    const std::size_t count = sum.size();
    float* const to = sum.data();
    if (!weight)
        for (std::size_t i = 0; i < count; ++i)
            to[i] += row[i];
    else
        for (std::size_t i = 0; i < count; ++i)
            to[i] += weight[i] != 0 ? row[i] * weight[i] : 0.0f;
}

} // namespace

image::Picture reduced(const image::Picture& picture, int width, int height) {
    if (width == picture.width && height == picture.height)
        return picture;
    const bool alpha = picture.planes[3] != nullptr;
    const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    const auto source_width = static_cast<std::size_t>(picture.width);
    std::array<image::Samples, 4> out;
    for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c)
        out[c].resize(count);
    const std::vector<int> columns = edges(width, picture.width), rows = edges(height, picture.height);
    parallel_ranges(static_cast<std::size_t>(height), 8, {}, [&](std::size_t first, std::size_t last) {
        // Rows are summed first, whole and in order (that vectorises), then along the row.
        std::array<std::vector<float>, 4> sums;
        std::array<std::vector<float>, 3> plain; // for places without any alpha, whose colour would be lost otherwise
        for (std::size_t y = first; y < last; ++y) {
            const int top = rows[y], bottom = std::max(top + 1, rows[y + 1]);
            for (auto& sum : sums)
                sum.assign(source_width, 0.0f);
            for (auto& sum : plain)
                sum.assign(alpha ? source_width : 0, 0.0f);
            for (int v = top; v < bottom; ++v) {
                const std::size_t start = static_cast<std::size_t>(v) * source_width;
                const float* const weight = alpha ? picture.planes[3]->data() + start : nullptr;
                for (std::size_t c = 0; c < 3; ++c) {
                    add_row(sums[c], picture.planes[c]->data() + start, weight);
                    if (alpha)
                        add_row(plain[c], picture.planes[c]->data() + start, nullptr);
                }
                if (alpha)
                    add_row(sums[3], weight, nullptr);
            }
            const auto along = [](const std::vector<float>& sum, int from, int to) {
                float total = 0;
                for (int u = from; u < to; ++u)
                    total += sum[static_cast<std::size_t>(u)];
                return total;
            };
            for (std::size_t x = 0; x < static_cast<std::size_t>(width); ++x) {
                const int left = columns[x], right = std::max(left + 1, columns[x + 1]);
                const auto pixels = static_cast<float>((bottom - top) * (right - left));
                const std::size_t at = y * static_cast<std::size_t>(width) + x;
                const float weight = alpha ? along(sums[3], left, right) : pixels;
                for (std::size_t c = 0; c < 3; ++c)
                    out[c][at] = weight != 0 ? along(sums[c], left, right) / weight : along(plain[c], left, right) / pixels;
                if (alpha)
                    out[3][at] = weight / pixels;
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
    // Lenses and the screen stand on BT.709's primaries.
    const colour::Space& screen = *colour::find_space(colour::default_space);
    const bool same = !space || same_primaries(*space, screen);
    const colour::Matrix3 across = same ? colour::Matrix3{} : linear_between(*space, screen);
    std::size_t at = 0;
    for (int y = 0; y < picture.height; ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < picture.width; ++x, ++at) {
            const Pixel stored = picture.at(at);
            Pixel light = stored;
            if (!linear)
                for (std::size_t c = 0; c < 3; ++c)
                    light[c] = static_cast<float>(transfer_of(*space).decode(stored[c]));
            if (!same) {
                using colour::operator*;
                const colour::Triple moved = across * colour::Triple{light[0], light[1], light[2]};
                for (std::size_t c = 0; c < 3; ++c)
                    light[c] = static_cast<float>(moved[c]);
            }
            const Light show = lens.shown(light, stored);
            line[x] = qRgb(display_code(show[0]), display_code(show[1]), display_code(show[2]));
        }
    }
    return image;
}

} // namespace kasuri::app
