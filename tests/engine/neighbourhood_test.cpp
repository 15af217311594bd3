#include "engine/kernels.hpp"
#include "engine/neighbourhood.hpp"
#include "support/support.hpp"

#include <numeric>

using namespace kasuri;
using namespace kasuri::engine;
using namespace kasuri::test;

namespace {

/// A picture of noise, edges and a gradient: what shows aliasing, leaks and lost sums.
std::vector<float> noisy(int width, int height, unsigned seed) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<float> spread(0, 1);
    std::vector<float> plane;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            plane.push_back((x / 37 + y / 23) % 2 == 0 ? spread(random)
                                                       : static_cast<float>(x) / static_cast<float>(width));
    return plane;
}

/// The convolution by its definition, in double precision, one direction after the other; edges repeated.
std::vector<double> exact_blur(const std::vector<float>& plane, int width, int height, double sigma) {
    const int far = static_cast<int>(std::ceil(9 * sigma));
    std::vector<double> weights;
    for (int k = -far; k <= far; ++k)
        weights.push_back(std::exp(-0.5 * k * k / (sigma * sigma)));
    const double sum = std::accumulate(weights.begin(), weights.end(), 0.0);
    std::vector<double> across(plane.size()), down(plane.size());
    const auto at = [&](const auto& from, int x, int y) {
        return static_cast<double>(
            from[static_cast<std::size_t>(std::clamp(y, 0, height - 1)) * static_cast<std::size_t>(width) +
                 static_cast<std::size_t>(std::clamp(x, 0, width - 1))]);
    };
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            double total = 0;
            for (int k = -far; k <= far; ++k)
                total += weights[static_cast<std::size_t>(k + far)] * at(plane, x + k, y);
            across[static_cast<std::size_t>(y * width + x)] = total / sum;
        }
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            double total = 0;
            for (int k = -far; k <= far; ++k)
                total += weights[static_cast<std::size_t>(k + far)] * at(across, x, y + k);
            down[static_cast<std::size_t>(y * width + x)] = total / sum;
        }
    return down;
}

double largest_difference(const std::vector<float>& a, const std::vector<double>& b) {
    double most = 0;
    for (std::size_t i = 0; i < a.size(); ++i)
        most = std::max(most, std::fabs(static_cast<double>(a[i]) - b[i]));
    return most;
}

std::vector<float> looked(ir::Neighbour kind, double size, int width, int height, const std::vector<float>& plane) {
    std::vector<float> result(plane.size(), -1.0f);
    REQUIRE(filter_neighbourhood(kind, size, width, height, plane.data(), result.data(), {}));
    return result;
}

} // namespace

TEST_CASE("blur is the exact convolution within 2e-5 up to 8 pixels and within 2e-4 above", "[engine][blur]") {
    for (const auto& [width, height] : {std::pair{203, 131}, std::pair{64, 300}}) {
        const std::vector<float> plane = noisy(width, height, 3);
        for (const double sigma :
             {0.3, 0.5, 1.0, 1.7, 2.5, 2.99, 3.0, 3.5, 4.0, 5.0, 6.3, 8.0, 8.1, 12.0, 20.0, 33.3, 60.0}) {
            const double off = largest_difference(looked(ir::Neighbour::blur, sigma, width, height, plane),
                                                  exact_blur(plane, width, height, sigma));
            INFO("standard deviation " << sigma << " on " << width << " x " << height << ": " << off);
            CHECK(off <= (sigma <= 8 ? 2e-5 : 2e-4));
        }
    }
}

TEST_CASE("blur beyond the size of the picture, of one pixel, of one row", "[engine][blur]") {
    const std::vector<float> plane = noisy(40, 30, 4);
    CHECK(largest_difference(looked(ir::Neighbour::blur, 200, 40, 30, plane), exact_blur(plane, 40, 30, 200)) <= 2e-4);
    CHECK(looked(ir::Neighbour::blur, 50, 1, 1, {0.25f})[0] == Approx(0.25f));
    const std::vector<float> row = noisy(500, 1, 5);
    CHECK(largest_difference(looked(ir::Neighbour::blur, 10, 500, 1, row), exact_blur(row, 500, 1, 10)) <= 2e-4);
    // A flat picture stays flat, a size of 0 or less changes nothing, a size that is no number gives none.
    for (const double sigma : {0.7, 5.0, 80.0})
        for (const float x : looked(ir::Neighbour::blur, sigma, 40, 30, std::vector<float>(1200, 0.7f)))
            REQUIRE(x == Approx(0.7f).epsilon(2e-6));
    CHECK(looked(ir::Neighbour::blur, 0, 40, 30, plane) == plane);
    CHECK(looked(ir::Neighbour::blur, -3, 40, 30, plane) == plane);
    CHECK(std::isnan(looked(ir::Neighbour::blur, std::nan(""), 1, 1, {1})[0]));
}

TEST_CASE("a blur larger than the picture costs no more than it, and is the exact convolution", "[engine][blur]") {
    for (const auto& [width, height] : {std::pair{24, 17}, {7, 40}, {1, 9}, {33, 1}}) {
        const std::vector<float> plane = noisy(width, height, 5);
        std::vector<float> blurred(plane.size());
        for (const double times : {1.0, 1.3, 3.0, 20.0}) {
            const double sigma = times * std::max(width, height);
            INFO(width << " x " << height << ", " << sigma);
            REQUIRE(filter_neighbourhood(ir::Neighbour::blur, sigma, width, height, plane.data(), blurred.data(), {}));
            CHECK(largest_difference(blurred, exact_blur(plane, width, height, sigma)) < 5e-5); // where the kernel ends
        }
        // Without end it is the mean of the corners: all else is outnumbered by the repeated edge.
        const auto at = [&](int x, int y) {
            return static_cast<double>(plane[static_cast<std::size_t>(y * width + x)]);
        };
        const double corners = (at(0, 0) + at(width - 1, 0) + at(0, height - 1) + at(width - 1, height - 1)) / 4;
        for (const double sigma : {1e9, 1e30, std::numeric_limits<double>::infinity()}) {
            REQUIRE(filter_neighbourhood(ir::Neighbour::blur, sigma, width, height, plane.data(), blurred.data(), {}));
            for (const float value : blurred)
                CHECK(static_cast<double>(value) == Approx(corners).margin(1e-6));
        }
    }
    CancelToken called_off;
    called_off.cancel();
    std::vector<float> plane(64 * 64, 0.5f), blurred(plane.size());
    CHECK_FALSE(filter_neighbourhood(ir::Neighbour::blur, 1e6, 64, 64, plane.data(), blurred.data(), called_off));
}

TEST_CASE("dilate and erode by a disc, against looking through every pixel", "[engine][disc]") {
    const int width = 70, height = 41;
    std::vector<float> plane = noisy(width, height, 6);
    for (const double radius : {0.4, 1.0, 1.5, 2.0, 3.7, 9.0, 25.0, 60.0, 100.0})
        for (const bool largest : {true, false}) {
            const auto made =
                looked(largest ? ir::Neighbour::dilate : ir::Neighbour::erode, radius, width, height, plane);
            bool same = true;
            for (int y = 0; y < height; ++y)
                for (int x = 0; x < width; ++x) {
                    float extreme = plane[static_cast<std::size_t>(y * width + x)];
                    for (int py = 0; py < height; ++py)
                        for (int px = 0; px < width; ++px)
                            if ((px - x) * (px - x) + (py - y) * (py - y) <= radius * radius) {
                                const float other = plane[static_cast<std::size_t>(py * width + px)];
                                extreme = largest ? std::max(extreme, other) : std::min(extreme, other);
                            }
                    same = same && made[static_cast<std::size_t>(y * width + x)] == extreme;
                }
            INFO((largest ? "dilate " : "erode ") << radius);
            CHECK(same);
        }
    // A NaN spreads as far as the disc and no further.
    plane[static_cast<std::size_t>(20 * width + 30)] = not_a_number;
    const auto made = looked(ir::Neighbour::dilate, 2, width, height, plane);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            REQUIRE(std::isnan(made[static_cast<std::size_t>(y * width + x)]) ==
                    ((x - 30) * (x - 30) + (y - 20) * (y - 20) <= 4));
}

TEST_CASE("a disc beyond all numbers is the largest and the smallest of the picture", "[engine][disc]") {
    const std::vector<float> plane = {0.1f, 0.2f, 0.3f, 0.7f, 0.5f, 0.6f};
    std::vector<float> made(6);
    for (const double radius : {1e5, 3e9, 1e300, std::numeric_limits<double>::infinity()}) {
        INFO(radius);
        REQUIRE(filter_neighbourhood(ir::Neighbour::dilate, radius, 3, 2, plane.data(), made.data(), {}));
        CHECK(made == std::vector<float>(6, 0.7f));
        REQUIRE(filter_neighbourhood(ir::Neighbour::erode, radius, 3, 2, plane.data(), made.data(), {}));
        CHECK(made == std::vector<float>(6, 0.1f));
        std::vector<ReferencePixel> pixels(6);
        for (std::size_t i = 0; i < 6; ++i)
            pixels[i].rgba = {static_cast<double>(plane[i]), 0, 0, 1};
        const lang::Rule rule = good_rule("param size = 1 in 0 .. 2\nout.r = dilate(r, size)");
        for (const auto& out : reference_picture(rule, std::vector<double>{radius}, 3, pixels))
            CHECK(out[0] == Approx(0.7));
    }
}

TEST_CASE("rules with neighbours equal the double reference: nested, of a component, of a mask", "[engine][blur]") {
    const char* rules[] = {
        "out.rgb = blur(blur(rgb, 1.5), 2)",
        "let c = hsv(rgb)\nc.s = blur(c.s, 2)\nout.rgb = rgb(c)",
        "let mask = smoothstep(0.3, 0.6, g)\nlet soft = blur(dilate(mask, 2), 1)\nout.rgb = mix(rgb, 1 - rgb, soft)",
        "out.rgb = sharpen(rgb, 1.2, 0.8)\nout.a = erode(r, 1.5)",
        "out.r = r - blur(r, 2) + blur(g, 2) * pos.x\nout.g = blur(pos.y * g, 1)",
        "fn glow(c vec3, size) = c + 0.3 * blur(max(c - 0.5, 0), size)\nout.rgb = glow(glow(rgb, 1), 2)",
        "param size = 1.3 in 0 .. 9\nout.rgb = blur(rgb, size) * blur(luminance(rgb), 2 * size)",
    };
    const int width = 31, height = 17;
    std::array<std::vector<float>, 3> planes = {noisy(width, height, 7), noisy(width, height, 8),
                                                noisy(width, height, 9)};
    std::vector<ReferencePixel> pixels;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            ReferencePixel p;
            for (std::size_t c = 0; c < 3; ++c)
                p.rgba[c] = static_cast<double>(planes[c][static_cast<std::size_t>(y * width + x)]);
            p.pixel = {static_cast<double>(x), static_cast<double>(y)};
            p.pos = {(x + 0.5) / width, (y + 0.5) / height};
            p.aspect = static_cast<double>(width) / height;
            p.extent = {width, height};
            pixels.push_back(p);
        }
    for (const char* text : rules) {
        const lang::Rule rule = good_rule(text);
        const auto exact = reference_picture(rule, defaults(rule), width, pixels);
        const auto program = compile(rule);
        CHECK(program->reads_neighbours());
        std::array<std::vector<float>, 4> out;
        std::vector<float*> sinks;
        for (auto& plane : out) {
            plane.resize(pixels.size());
            sinks.push_back(plane.data());
        }
        REQUIRE(run(*program, {width, height, {planes[0].data(), planes[1].data(), planes[2].data(), nullptr}},
                    defaults(rule), std::span<float* const>(sinks)));
        double most = 0;
        for (std::size_t i = 0; i < pixels.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c)
                most = std::max(most, std::fabs(static_cast<double>(out[c][i]) - exact[i][c]));
        INFO(text << "\n" << program->printed());
        CHECK(most <= 4e-5);
    }
}

TEST_CASE("passes are as many as neighbourhoods are deep, and equal ones are one", "[engine]") {
    const auto passes = [](const char* text) { return compile(good_rule(text))->passes().size(); };
    CHECK(passes("out.r = g") == 1);
    CHECK(passes("out.rgb = blur(rgb, 2)") == 2);
    CHECK(passes("out.rgb = blur(rgb, 2) + blur(rgb, 3)") == 2);
    CHECK(passes("out.rgb = blur(blur(rgb, 2), 3)") == 3);
    CHECK(passes("out.rgb = blur(vec3(0.5), 2)") == 1); // what is the same everywhere
    const auto twice = compile(good_rule("out.r = blur(g, 2)\nout.b = blur(g, 2)"));
    CHECK(twice->passes()[0].stages.size() == 1);
    CHECK(passes("let unused = blur(r, 5)\nout.r = unused * 0 + g") == 2);
    CHECK(passes("let unused = blur(r, 5)\nout.r = g") == 1);
}

TEST_CASE("a picture without a pixel comes out as one, through neighbourhoods too", "[engine]") {
    for (const char* text :
         {"out.rgb = rgb * 2", "out.rgb = blur(rgb, 20)", "out.rgb = dilate(rgb, 3)", "out.rgb = sharpen(rgb, 2, 1)"})
        for (const auto& [width, height] : {std::pair{0, 1}, {1, 0}, {0, 0}}) {
            INFO(text << ", " << width << " x " << height);
            image::Picture empty;
            empty.width = width;
            empty.height = height;
            for (std::size_t c = 0; c < 3; ++c)
                empty.planes[c] = image::make_plane(image::Samples());
            const auto made = engine::evaluate(*engine::compile(good_rule(text)), empty, {});
            REQUIRE(made);
            CHECK(made->pixels() == 0);
        }
}
