#include "report/picture.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "io/picture_file.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <filesystem>
#include <fmt/format.h>

namespace kasuri::report {
namespace {

std::string base64(const std::string& bytes) { // RFC 4648, chapter 4
    constexpr char letters[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string made;
    made.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        const auto at = [&](std::size_t k) {
            return i + k < bytes.size() ? static_cast<std::uint32_t>(static_cast<unsigned char>(bytes[i + k])) : 0u;
        };
        const std::uint32_t three = at(0) << 16 | at(1) << 8 | at(2);
        for (int k = 0; k < 4; ++k)
            made += i + static_cast<std::size_t>(k) > bytes.size() ? '=' : letters[three >> (18 - 6 * k) & 63];
    }
    return made;
}

/// Averages blocks of n x n pixels, in light as it is stored.
image::Picture smaller(const image::Picture& picture, int n) {
    image::Picture made =
        image::generated(std::max(1, picture.width / n), std::max(1, picture.height / n), [&](int x, int y) {
            std::array<double, 3> sum{};
            for (int dy = 0; dy < n; ++dy)
                for (int dx = 0; dx < n; ++dx) {
                    const auto c =
                        picture.at(std::min(x * n + dx, picture.width - 1), std::min(y * n + dy, picture.height - 1));
                    for (std::size_t k = 0; k < 3; ++k)
                        sum[k] += static_cast<double>(c[k]) / (n * n);
                }
            return sum;
        });
    made.space = picture.space;
    return made;
}

constexpr const char* colours[] = {"#b3372f", "#35803f", "#2a74bd"};

} // namespace

std::string escaped(const std::string& text) {
    std::string made;
    for (const char c : well_formed(text))
        switch (c) {
        case '&': made += "&amp;"; break;
        case '<': made += "&lt;"; break;
        case '>': made += "&gt;"; break;
        case '"': made += "&quot;"; break;
        default: made += c;
        }
    return made;
}

std::string png_address(const image::Picture& picture, int width) {
    const int n = std::max(1, (picture.width + width - 1) / width);
    const image::Picture little = n > 1 ? smaller(picture, n) : picture;
    const colour::Space &from = *colour::find_space(little.space.empty() ? colour::default_space
                                                                         : std::string_view(little.space)),
                        &to = *colour::find_space("srgb");
    image::Picture shown = image::generated(little.width, little.height, [&](int x, int y) {
        const auto c = little.at(x, y);
        colour::Triple made = colour::converted(
            {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])}, from, to);
        for (double& v : made)
            v = std::isfinite(v) ? std::clamp(v, 0.0, 1.0) : 0;
        return std::array<double, 3>{made[0], made[1], made[2]};
    });
    shown.space = "srgb";
    image::Image image = image::image_of(shown);
    image.depth = image::Depth::uint8;
    const std::filesystem::path file =
        std::filesystem::temp_directory_path() / fmt::format("kasuri-report-{}.png", static_cast<const void*>(&image));
    std::string address = "data:image/png;base64,";
    if (io::save(file, image))
        if (const Result<std::string> bytes = read_file(file, 256u << 20))
            address += base64(bytes.value());
    std::error_code ignored;
    std::filesystem::remove(file, ignored);
    return address;
}

std::string threads_svg(const image::Picture& before, const image::Picture& after, int width, int height, double low,
                        double high, targets::Scale scale) {
    const double from = targets::forward(scale, low), to = targets::forward(scale, high);
    std::string svg = fmt::format("<svg viewBox=\"0 0 {0} {1}\" width=\"{0}\" height=\"{1}\" role=\"img\"><rect "
                                  "width=\"{0}\" height=\"{1}\" fill=\"#e3e3e3\"/>",
                                  width, height);
    const auto y_of = [&](double value) {
        return std::clamp(height - (targets::forward(scale, value) - from) / (to - from) * height, -2.0, height + 2.0);
    };
    for (const double line : {0.0, 1.0})
        if (line > low && line < high)
            svg += fmt::format("<path d=\"M0 {0:.1f}H{1}\" stroke=\"#b3b3b3\"/>", y_of(line), width);
    for (const image::Picture* row : {&before, &after})
        for (std::size_t c = 0; c < 3; ++c) {
            std::string path;
            bool down = false;
            for (int x = 0; x < row->width; ++x) {
                const double value = static_cast<double>(row->at(x, 0)[c]);
                if (!std::isfinite(value)) {
                    down = false;
                    continue;
                }
                path += fmt::format("{}{:.1f} {:.1f}", down ? "L" : "M", (x + 0.5) / row->width * width, y_of(value));
                down = true;
            }
            // Where channels coincide their dashes alternate, so that equality is seen.
            const bool solid = row == &after;
            svg += fmt::format("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"{}\" stroke-dasharray=\"7 "
                               "14\" stroke-dashoffset=\"{}\"{}/>",
                               path, colours[c], solid ? 1.7 : 1.0, 21 - 7 * static_cast<int>(c),
                               solid ? "" : " opacity=\"0.5\"");
            svg += fmt::format("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"{}\" opacity=\"{}\"/>", path,
                               colours[c], solid ? 1.2 : 0.8, solid ? 0.55 : 0.25);
        }
    return svg + "</svg>";
}

} // namespace kasuri::report
