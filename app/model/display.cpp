#include "model/display.hpp"

#include "base/parallel.hpp"
#include "colour/space.hpp"
#include "image/rows.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <map>
#include <mutex>

namespace kasuri::app {
namespace {

/// Display code by the upper bits of the linear value: finer than a 16-bit table near black.
struct Codes {
    static constexpr int steps = 1 << 14;
    std::array<std::uint8_t, steps + 1> code{};
    explicit Codes(const colour::Transfer& transfer) {
        // Even steps of the square root put the entries where the eye and the encoding want them.
        for (int i = 0; i <= steps; ++i) {
            const double root = static_cast<double>(i) / steps;
            code[static_cast<std::size_t>(i)] =
                static_cast<std::uint8_t>(std::lround(255 * std::clamp(transfer.encode(root * root), 0.0, 1.0)));
        }
    }
    std::uint8_t of(float linear) const {
        if (!(linear > 0)) // NaN too
            return 0;
        return code[static_cast<std::size_t>(std::sqrt(std::min(linear, 1.0f)) * steps + 0.5f)];
    }
};

/// Built once for each curve of a screen.
const Codes& codes_of(const colour::Transfer& transfer) {
    static std::mutex mutex;
    static std::map<std::string_view, Codes> tables;
    const std::lock_guard lock(mutex);
    return tables.try_emplace(transfer.name, transfer).first->second;
}

/// Beyond what rounding can do to a colour on the edge.
bool is_outside(const std::array<float, 4>& screen) {
    const auto within = [](float x) { return x >= -1e-5f && x <= 1 + 1e-5f; }; // not for NaN
    return !(within(screen[0]) && within(screen[1]) && within(screen[2]));
}

/// Bent towards 1 from here on.
constexpr float soft_start = 0.8f;

Light softened(Light c) {
    if (!std::isfinite(c[0]) || !std::isfinite(c[1]) || !std::isfinite(c[2]))
        return c;
    const float most = std::max({c[0], c[1], c[2]});
    if (most > soft_start) {
        const float bent = 1 - (1 - soft_start) * std::exp(-(most - soft_start) / (1 - soft_start));
        for (float& x : c)
            x *= bent / most;
    }
    const float least = std::min({c[0], c[1], c[2]});
    if (least < 0) { // towards its luminance, as far as needed
        const float y = std::clamp(static_cast<float>(colour::luminance({c[0], c[1], c[2]})), 0.0f, 1.0f);
        const float share = y > least ? y / (y - least) : 0;
        for (float& x : c)
            x = y + share * (x - y);
    }
    return c;
}

} // namespace

std::uint8_t display_code(float linear) { return codes_of(*colour::find_transfer("srgb")).of(linear); }

std::span<const Surround> surrounds() {
    static constexpr Surround rows[] = {
        {QT_TRANSLATE_NOOP("Surrounds", "white"), 100},
        {QT_TRANSLATE_NOOP("Surrounds", "light grey"), 75},
        {QT_TRANSLATE_NOOP("Surrounds", "mid grey"), usual_surround},
        {QT_TRANSLATE_NOOP("Surrounds", "dark grey"), 25},
        {QT_TRANSLATE_NOOP("Surrounds", "black"), 0},
    };
    return rows;
}

float surround_light(const Screen& screen) {
    constexpr double kappa = 24389.0 / 27, knee = 8;
    const double lightness = std::clamp(screen.surround, 0.0, 100.0), root = (lightness + 16) / 116;
    return static_cast<float>(lightness > knee ? root * root * root : lightness / kappa);
}

QColor surround_colour(const Screen& to) {
    const colour::Space* named = colour::find_space(to.space);
    const colour::Space& monitor = named ? *named : *colour::find_space("srgb");
    const float light = surround_light(to);
    if (!monitor.from_light) {
        const std::uint8_t code = codes_of(transfer_of(monitor)).of(light * static_cast<float>(monitor.white_level));
        return {code, code, code};
    }
    std::array<float, 3> grey = {light, light, light};
    float* const planes[3] = {&grey[0], &grey[1], &grey[2]};
    monitor.from_light->apply(planes, 1);
    const auto code = [](float x) {
        return x > 0 ? static_cast<int>(std::lround(255 * std::min(x, 1.0f))) : 0;
    }; // not for NaN
    return {code(grey[0]), code(grey[1]), code(grey[2])};
}

QColor on_surround(const Screen& to) {
    return surround_colour(to).lightness() > 0x78 ? Qt::black : Qt::white;
} // WCAG contrast of 4.4 and more, whatever the grey

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

QColor colour_on_screen(const std::array<double, 3>& values, std::string_view space) {
    const colour::Space* from = colour::find_space(space);
    const colour::Triple light = colour::converted(values, from ? *from : *colour::find_space(colour::default_space),
                                                   *colour::find_space(colour::default_space));
    return {display_code(static_cast<float>(light[0])), display_code(static_cast<float>(light[1])),
            display_code(static_cast<float>(light[2]))};
}

namespace {

/// Rows of a part of a picture.
image::Rows rows_of(const image::Picture& picture, const QRect& of) {
    return {picture, static_cast<std::size_t>(of.left()), static_cast<std::size_t>(of.top()),
            static_cast<std::size_t>(of.width())};
}

/// A part as it is.
image::Picture cut_out(const image::Picture& picture, const QRect& of) {
    image::Picture part = picture;
    part.width = of.width();
    part.height = of.height();
    const auto wide = static_cast<std::size_t>(of.width());
    const std::size_t channels = picture.planes[3] ? 4 : 3;
    std::array<image::Samples, 4> samples;
    for (std::size_t c = 0; c < channels; ++c)
        samples[c].resize(part.pixels());
    parallel_ranges(static_cast<std::size_t>(of.height()), 32, {}, [&](std::size_t first, std::size_t last) {
        image::Rows rows = rows_of(picture, of);
        rows.at(first, last);
        for (std::size_t c = 0; c < channels; ++c)
            for (std::size_t y = first; y < last; ++y)
                std::copy_n(rows.row(c, y), wide, samples[c].data() + y * wide);
    });
    for (std::size_t c = 0; c < channels; ++c)
        part.planes[c] = image::make_plane(std::move(samples[c]));
    return part;
}

} // namespace

image::Picture downscaled(const image::Picture& picture, int width, int height, const QRect& region,
                          const CancelToken& cancel) {
    const QRect of = region.isNull() ? QRect(0, 0, picture.width, picture.height) : region;
    if (width == picture.width && height == picture.height && of.size() == QSize(width, height))
        return image::in_memory(picture);
    const bool alpha = picture.planes[3] != nullptr;
    const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    if (of.size() == QSize(width, height))
        return cut_out(picture, of);
    const auto source_width = static_cast<std::size_t>(of.width());
    std::array<image::Samples, 4> out;
    for (std::size_t c = 0; c < (alpha ? 4u : 3u); ++c)
        out[c].resize(count);
    const std::vector<int> columns = edges(width, of.width()), rows = edges(height, of.height());
    parallel_ranges(static_cast<std::size_t>(height), 8, cancel, [&](std::size_t first, std::size_t last) {
        // Rows are summed first, whole and in order (that vectorises), then along the row.
        std::array<std::vector<float>, 4> sums;
        image::Rows band = rows_of(picture, of);
        std::array<std::vector<float>, 3> plain; // for places without any alpha, whose colour would be lost otherwise
        for (std::size_t y = first; y < last; ++y) {
            const int top = rows[y], bottom = std::max(top + 1, rows[y + 1]);
            for (auto& sum : sums)
                sum.assign(source_width, 0.0f);
            for (auto& sum : plain)
                sum.assign(alpha ? source_width : 0, 0.0f);
            band.at(static_cast<std::size_t>(top), static_cast<std::size_t>(bottom));
            for (auto v = static_cast<std::size_t>(top); v < static_cast<std::size_t>(bottom); ++v) {
                const float* const weight = alpha ? band.row(3, v) : nullptr;
                for (std::size_t c = 0; c < 3; ++c) {
                    const float* const row = band.row(c, v);
                    add_row(sums[c], row, weight);
                    if (alpha)
                        add_row(plain[c], row, nullptr);
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
                    out[c][at] =
                        weight != 0 ? along(sums[c], left, right) / weight : along(plain[c], left, right) / pixels;
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

QImage shown(const image::Picture& picture, const Lens& lens, const Screen& to, double* outside, readings::Views* views,
             const image::Picture* other) {
    using colour::operator*;
    QImage image(picture.width, picture.height, QImage::Format_RGB32);
    unsigned char* const bits = image.bits();
    const auto stride = static_cast<std::size_t>(image.bytesPerLine());
    const colour::Space& standard = *colour::find_space(colour::default_space);
    const colour::Space* named = colour::find_space(picture.space);
    const colour::Space& space = named ? *named : standard;
    const colour::Space* screen = colour::find_space(to.space);
    const colour::Space& monitor = screen ? *screen : *colour::find_space("srgb");
    const bool same = same_primaries(space, standard), same_screen = same_primaries(space, monitor);
    const colour::Matrix3 across = linear_between(space, standard), to_screen = linear_between(space, monitor);
    const auto white = static_cast<float>(monitor.white_level);
    const Codes& codes = codes_of(transfer_of(monitor));
    const auto moved = [](const colour::Matrix3& m, const std::array<float, 4>& c) {
        const colour::Triple made =
            m * colour::Triple{static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
        return std::array<float, 4>{static_cast<float>(made[0]), static_cast<float>(made[1]),
                                    static_cast<float>(made[2]), c[3]};
    };
    const auto width = static_cast<std::size_t>(picture.width);
    // Numbers of a lens with an expression, one plane or three.
    std::array<image::Plane, 4> numbers{};
    if (!lens.expression.empty() && views)
        numbers = views
                      ->look(picture, picture.space, lens.expression, {},
                             lens.compares ? (other ? other : &picture) : nullptr)
                      .value_or(numbers);
    if (lens.of_rule())
        numbers = {picture.planes[0], picture.planes[1], picture.planes[2], nullptr};
    // Most of what is shown: light of the screen's own primaries, cut off at its limits.
    const float behind = surround_light(to);
    const bool plain = lens.id == "colour" && is_linear(space) && !space.to_light && same_screen &&
        !monitor.from_light && to.limits == Limits::hard && white == 1;
    std::atomic<std::size_t> beyond{0};
    const auto rows = [&](std::size_t first, std::size_t last) {
        std::size_t outside_here = 0;
        std::array<std::vector<float>, 3> lights; // a row at a time, for conversions that are not ours
        std::array<std::vector<float>, 3> paper;  // of a print: how far each colour is from what it holds
        std::vector<float> covers(width);
        for (auto& row : lights)
            row.resize(width);
        if (monitor.beyond)
            for (auto& row : paper)
                row.resize(width);
        float* const planes[3] = {lights[0].data(), lights[1].data(), lights[2].data()};
        for (std::size_t row = first; row < last; ++row) {
            const int y = static_cast<int>(row);
            auto* line = reinterpret_cast<QRgb*>(bits + row * stride);
            const std::size_t begin = row * width;
            if (plain) {
                const auto of = [&](std::size_t c, std::vector<float>& room) {
                    return picture.planes[c]->numbers(begin, width, room.data());
                };
                const float *r = of(0, lights[0]), *g = of(1, lights[1]), *b = of(2, lights[2]);
                const float* const alpha = picture.planes[3] ? of(3, covers) : nullptr;
                for (std::size_t x = 0; x < width; ++x) {
                    outside_here += is_outside({r[x], g[x], b[x], 1}) ? 1 : 0;
                    if (!alpha || alpha[x] >= 1) {
                        line[x] = qRgb(codes.of(r[x]), codes.of(g[x]), codes.of(b[x]));
                        continue;
                    }
                    const float a = std::clamp(alpha[x], 0.0f, 1.0f), rest = behind * (1 - a);
                    line[x] = qRgb(codes.of(r[x] * a + rest), codes.of(g[x] * a + rest), codes.of(b[x] * a + rest));
                }
                continue;
            }
            std::size_t at = begin;
            for (std::size_t c = 0; c < 3; ++c) {
                picture.planes[c]->copy(begin, width, lights[c].data());
                if (!is_linear(space) && !space.to_light)
                    for (float& value : lights[c])
                        value = static_cast<float>(transfer_of(space).decode(static_cast<double>(value)));
            }
            if (space.to_light)
                space.to_light->apply(planes, width);
            if (monitor.beyond) {
                for (std::size_t x = 0; x < width; ++x) {
                    std::array<float, 4> light = {lights[0][x], lights[1][x], lights[2][x], 1};
                    if (!same)
                        light = moved(across, light);
                    for (std::size_t c = 0; c < 3; ++c)
                        paper[c][x] = light[c];
                }
                float* const distances[3] = {paper[0].data(), paper[1].data(), paper[2].data()};
                monitor.beyond->apply(distances, width);
            }
            for (int x = 0; x < picture.width; ++x, ++at) {
                const auto column = static_cast<std::size_t>(x);
                LensPixel pixel;
                pixel.x = x;
                pixel.y = y;
                pixel.surround = behind;
                pixel.beyond = monitor.beyond ? paper[0][column] : 0;
                pixel.stored = picture.at(at);
                const std::array<float, 4> light = {lights[0][column], lights[1][column], lights[2][column],
                                                    pixel.stored[3]};
                pixel.light = same ? light : moved(across, light);
                pixel.screen = same_screen ? light : moved(to_screen, light);
                if (!monitor.from_light)
                    outside_here += is_outside(pixel.screen) ? 1 : 0;
                if (white != 1) // greys of lenses are shares of diffuse white
                    for (std::size_t c = 0; c < 3; ++c)
                        pixel.screen[c] /= white;
                const auto number = [&](std::size_t c) {
                    return light_for(lens, static_cast<double>((*numbers[c])[at]), x, y);
                };
                Light show{};
                if (lens.shown)
                    show = lens.shown(pixel);
                else if (numbers[1] && numbers[1] != numbers[0])
                    show = {number(0)[0], number(1)[0], number(2)[0]};
                else if (numbers[0])
                    show = number(0);
                if (to.limits == Limits::soft)
                    show = softened(show);
                if (!monitor.from_light)
                    line[x] = qRgb(codes.of(show[0] * white), codes.of(show[1] * white), codes.of(show[2] * white));
                else
                    for (std::size_t c = 0; c < 3; ++c)
                        lights[c][column] = show[c];
            }
            if (!monitor.from_light)
                continue;
            monitor.from_light->apply(planes, width); // what is outside shows in its numbers
            for (std::size_t column = 0; column < width; ++column) {
                const std::array<float, 4> code = {lights[0][column], lights[1][column], lights[2][column], 1};
                const bool within =
                    monitor.beyond ? paper[0][column] <= outside_print : !is_outside(code); // not for NaN
                outside_here += within ? 0 : 1;
                const auto whole = [](float x) {
                    return x > 0 ? static_cast<int>(std::lround(255 * std::min(x, 1.0f))) : 0;
                };
                line[column] = qRgb(whole(code[0]), whole(code[1]), whole(code[2]));
            }
        }
        beyond += outside_here;
    };
    constexpr std::size_t worth_sharing = 60'000; // pixels
    parallel_ranges(static_cast<std::size_t>(picture.height),
                    picture.pixels() < worth_sharing ? static_cast<std::size_t>(picture.height) : 32, {}, rows);
    const std::size_t at = picture.pixels();
    if (outside)
        *outside = at > 0 ? static_cast<double>(beyond.load()) / static_cast<double>(at) : 0;
    return image;
}

} // namespace kasuri::app
