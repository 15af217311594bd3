// Regions, strides, half floats, several outputs, further pictures, calling off.
#include "base/parallel.hpp"
#include "colour/transfer.hpp"
#include "engine/kernels.hpp"
#include "engine/on_demand.hpp"
#include "support/support.hpp"

#include <chrono>
#include <cstring>
#include <stdexcept>
#include <thread>

using namespace kasuri;
using namespace kasuri::engine;
using namespace kasuri::test;

namespace {

constexpr int width = 613, height = 97;

std::vector<float> plane_of(unsigned seed) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<float> spread(-0.5f, 2);
    std::vector<float> plane(static_cast<std::size_t>(width) * height);
    for (float& x : plane)
        x = spread(random);
    return plane;
}

struct Fixture {
    std::array<std::vector<float>, 4> planes = {plane_of(1), plane_of(2), plane_of(3), plane_of(4)};
    Source source() const {
        return {width, height, {planes[0].data(), planes[1].data(), planes[2].data(), planes[3].data()}};
    }

    std::vector<std::vector<float>> whole(const Program& program, std::span<const double> values = {}) const {
        std::vector<std::vector<float>> out(program.outputs().size(), std::vector<float>(planes[0].size()));
        std::vector<float*> sinks;
        for (auto& plane : out)
            sinks.push_back(plane.data());
        REQUIRE(run(program, source(), values, std::span<float* const>(sinks)));
        return out;
    }
};

} // namespace

TEST_CASE("a region is that part of the whole picture, neighbourhoods and places included", "[engine][buffers]") {
    const Fixture f;
    for (const char* text : {"out.rgb = rgb.gbr * 2 + vec3(pixel, aspect)", "out.rgb = blur(rgb, 2.5) + vec3(pos, 0)",
                             "out.rgb = blur(dilate(rgb, 4), 7)"}) {
        const auto program = compile(good_rule(text));
        const auto whole = f.whole(*program);
        for (const Region region : {Region{0, 0, width, height}, Region{100, 20, 130, 61}, Region{0, 90, width, height},
                                    Region{600, 3, 613, 4}, Region{50, 50, 50, 50}}) {
            std::vector<std::vector<float>> part(4, std::vector<float>(region.pixels()));
            std::vector<PlaneSink> sinks;
            for (auto& plane : part)
                sinks.emplace_back(plane.data());
            REQUIRE(run(*program, f.source(), {}, std::span<const PlaneSink>(sinks), {}, nullptr, region));
            for (std::size_t c = 0; c < 3; ++c)
                for (int y = region.y0; y < region.y1; ++y)
                    for (int x = region.x0; x < region.x1; ++x) {
                        const float expected = whole[c][static_cast<std::size_t>(y * width + x)];
                        const float got =
                            part[c][static_cast<std::size_t>((y - region.y0) * region.width() + x - region.x0)];
                        if (std::fabs(got - expected) > 3e-5f)
                            FAIL(text << " at " << x << " " << y << ": " << got << " instead of " << expected);
                    }
        }
    }
}

TEST_CASE("interleaved, strided and half pictures give what planes give", "[engine][buffers]") {
    const Fixture f;
    const auto program = compile(good_rule("out.rgb = rgb.bgr * 0.5 + vec3(pixel * 0.001, 0)\nout.a = 1 - a"));
    const auto whole = f.whole(*program);
    constexpr std::ptrdiff_t row = 4 * width + 12; // padded rows
    std::vector<float> in(static_cast<std::size_t>(row) * height), out(in.size(), -7);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            for (std::size_t c = 0; c < 4; ++c)
                in[static_cast<std::size_t>(y * row + 4 * x) + c] =
                    f.planes[c][static_cast<std::size_t>(y * width + x)];
    Source source{width, height, {}};
    std::vector<PlaneSink> sinks;
    for (std::size_t c = 0; c < 4; ++c) {
        source.planes[c] = PlaneView(in.data() + c, Sample::float32, 4, row);
        sinks.emplace_back(out.data() + c, Sample::float32, 4, row);
    }
    REQUIRE(run(*program, source, {}, std::span<const PlaneSink>(sinks)));
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x)
            for (std::size_t c = 0; c < 4; ++c)
                REQUIRE(out[static_cast<std::size_t>(y * row + 4 * x) + c] ==
                        whole[c][static_cast<std::size_t>(y * width + x)]);
        REQUIRE(out[static_cast<std::size_t>(y * row + 4 * width)] == -7); // the padding is not ours
    }
    // Half floats in and out: 0.5, 1.25, -2 are exact; 0.1 is the nearest half.
    const std::uint16_t halves[] = {0x3800, 0x3D00, 0xC000, 0x7C00, 0x2E66, 0x0000};
    std::uint16_t doubled[6] = {};
    const auto twice = compile(good_rule("out.r = 2 * r"));
    const Source half_source{6, 1, {PlaneView(halves, Sample::half, 1, 0)}};
    const PlaneSink half_sink[] = {PlaneSink(doubled, Sample::half, 1, 0), {}, {}, {}};
    REQUIRE(run(*twice, half_source, {}, std::span<const PlaneSink>(half_sink)));
    const std::uint16_t expected[] = {0x3C00, 0x4100, 0xC400, 0x7C00, 0x3266, 0x0000};
    CHECK(std::equal(std::begin(doubled), std::end(doubled), std::begin(expected)));
}

TEST_CASE("one run gives the result and further expressions: a peek, a mask", "[engine][buffers]") {
    const lang::Checked checked =
        lang::check("let mask = g > 0.5 ? 1 : 0\nout.r = mask * r", proof::vocabulary(), "hsv(out.rgb)");
    REQUIRE(checked.ok);
    CompileOptions options;
    options.also = {*checked.rule.print};
    const auto program = compile(checked.rule, options);
    CHECK(program->outputs().size() == 7);
    const Fixture f;
    const auto out = f.whole(*program);
    CompileOptions print;
    print.print = true;
    const auto alone = f.whole(*compile(checked.rule, print));
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(out[4 + c] == alone[c]);
}

TEST_CASE("further pictures are read by name, single channels as they are", "[engine][buffers]") {
    const lang::Rule rule = good_rule(
        "source lamp\nsource plate : float \"one lamp's plate\"\nout.rgb = lamp.rgb * plate + vec3(0, 0, lamp.a)");
    CHECK(source_channels(rule) == 5);
    const Fixture f;
    Source source = f.source();
    for (std::size_t c : {1u, 2u, 3u, 0u, 2u})
        source.more.emplace_back(f.planes[c].data());
    const auto program = compile(rule);
    CHECK(program->reads_sources());
    std::vector<std::vector<float>> out(4, std::vector<float>(f.planes[0].size()));
    std::vector<float*> sinks = {out[0].data(), out[1].data(), out[2].data(), nullptr};
    REQUIRE(run(*program, source, {}, std::span<float* const>(sinks)));
    for (std::size_t i = 0; i < out[0].size(); i += 97) {
        REQUIRE(out[0][i] == Approx(f.planes[1][i] * f.planes[2][i]));
        REQUIRE(out[2][i] == Approx(f.planes[3][i] * f.planes[2][i] + f.planes[0][i]).margin(1e-6));
    }
    // What nobody brings is 0.
    REQUIRE(run(*program, f.source(), {}, std::span<float* const>(sinks)));
    CHECK(out[0][5] == 0);
    // An encoded colour is decoded on the way in; a single channel is not.
    CompileOptions options;
    options.source_spaces = {"srgb", "srgb"};
    REQUIRE(run(*compile(rule, options), source, {}, std::span<float* const>(sinks)));
    CHECK(static_cast<double>(out[0][0]) ==
          Approx(colour::srgb_decode(static_cast<double>(f.planes[1][0])) * static_cast<double>(f.planes[2][0]))
              .margin(1e-6));
}

TEST_CASE("a picture made on demand has the bits of one that is kept, wherever it is looked at", "[engine][buffers]") {
    const auto picture = std::make_shared<const image::Picture>(image::generated(width, height, [](int x, int y) {
        return std::array<double, 3>{x * 0.01 - 1, y * 0.02, (x * y) % 97 / 97.0};
    }));
    const auto program = compile(good_rule("param k = 2 in 0 .. 4\nout.r = k * g + pos.x\nout.b = r * r"));
    const std::vector<double> values = {3};
    const auto none = std::make_shared<const BoundSources>();
    const image::Picture lazy = on_demand(program, picture, values, none);
    const auto kept = evaluate(*program, *picture, values);
    REQUIRE(kept);
    CHECK(lazy.planes[1] == picture->planes[1]);
    REQUIRE(lazy.planes[0]->on_demand());
    CHECK(lazy.planes[0]->size() == picture->pixels());
    CHECK(image::same(image::in_memory(lazy), *kept));
    CHECK(image::same(image::as_floats(lazy), *kept));
    CHECK(image::same(lazy, *kept)); // by pieces that end within rows
    for (const int x : {0, 1, 300, width - 1})
        for (const int y : {0, 50, height - 1})
            CHECK(lazy.at(x, y) == kept->at(x, y));
    CHECK(*lazy.planes[2] == *kept->planes[2]);
    CHECK_THROWS_AS(view_of(lazy.planes[0]), std::logic_error);
    CHECK(image::in_memory(*kept).planes[0] == kept->planes[0]);
}

TEST_CASE("the same bits for any number of threads, on every instruction set, blur included", "[engine][buffers]") {
    const Fixture f;
    const auto program = compile(good_rule("out.rgb = pow(blur(abs(rgb), 6), 0.7) + dilate(rgb, 3)"));
    for (const std::string& set : instruction_sets()) {
        choose_instruction_set(set);
        limit_threads(1);
        const auto one = f.whole(*program);
        limit_threads(0);
        CHECK(f.whole(*program) == one);
    }
    choose_instruction_set("");
}

TEST_CASE("work with neighbours is called off, too, and counts its progress", "[engine][buffers]") {
    const lang::Rule rule = good_rule("out.rgb = blur(dilate(blur(rgb, 40), 30), 60)");
    const auto program = compile(rule);
    const image::Picture picture = image::generated(1200, 900, [](int x, int y) {
        return std::array<double, 3>{x * 1e-3, y * 1e-3, 0.5};
    });
    std::atomic<std::size_t> done{0};
    REQUIRE(evaluate(*program, picture, {}, {}, &done));
    CHECK(done == picture.pixels());
    for (const int wait : {0, 3, 10, 25}) {
        CancelToken cancel;
        std::thread stopper([&] {
            std::this_thread::sleep_for(std::chrono::milliseconds(wait));
            cancel.cancel();
        });
        const auto result = evaluate(*program, picture, {}, cancel);
        stopper.join();
        CHECK_FALSE(result); // the whole takes hundreds of milliseconds
    }
}

TEST_CASE("whole numbers of 8 and 16 bits stand for 0 to 1, to the nearest on the way out", "[engine][buffers]") {
    const auto swap = compile(good_rule("out.rgb = rgb.gbr"));
    std::vector<std::uint8_t> every(256), back(3 * 256);
    for (std::size_t i = 0; i < 256; ++i)
        every[i] = static_cast<std::uint8_t>(i);
    Source source{256, 1, {}};
    std::vector<PlaneSink> sinks;
    for (std::size_t c = 0; c < 3; ++c) {
        source.planes[c] = PlaneView(every.data(), Sample::uint8, 1, 0);
        sinks.emplace_back(back.data() + c, Sample::uint8, 3, 3 * 256);
    }
    sinks.emplace_back();
    REQUIRE(run(*swap, source, {}, std::span<const PlaneSink>(sinks)));
    for (std::size_t i = 0; i < back.size(); ++i)
        REQUIRE(back[i] == every[i / 3]); // every code comes back
    std::vector<std::uint16_t> codes(65536), codes_back(65536);
    for (std::size_t i = 0; i < codes.size(); ++i)
        codes[i] = static_cast<std::uint16_t>(i);
    Source wide{65536, 1, {PlaneView(codes.data(), Sample::uint16, 1, 0)}};
    const PlaneSink one[] = {PlaneSink(codes_back.data(), Sample::uint16, 1, 0), {}, {}, {}};
    REQUIRE(run(*compile(good_rule("out.r = r")), wide, {}, std::span<const PlaneSink>(one)));
    CHECK(codes == codes_back);
    // What is outside is cut off, what is no number is 0, halves of a code go up: by the formula, in double precision.
    const float values[] = {-1, -0.0F, 0.25F, 0.5F, 1, 7, NAN, INFINITY, -INFINITY, 0.499F / 255, 0.5F / 255, 1e-40F};
    std::uint8_t made[std::size(values)];
    const Source floats{static_cast<int>(std::size(values)), 1, {PlaneView(values)}};
    const PlaneSink bytes[] = {PlaneSink(made, Sample::uint8, 1, 0), {}, {}, {}};
    REQUIRE(run(*compile(good_rule("out.r = r * 1.0")), floats, {}, std::span<const PlaneSink>(bytes)));
    const std::uint8_t wanted[] = {0, 0, 64, 128, 255, 255, 0, 255, 0, 0, 1, 0};
    for (std::size_t i = 0; i < std::size(values); ++i)
        CHECK(static_cast<int>(made[i]) == static_cast<int>(wanted[i]));
}

TEST_CASE("a picture is worked on in its own memory, whatever lies where", "[engine][buffers]") {
    const Fixture f;
    for (const char* text :
         {"out.rgb = rgb.gbr", "out.rgb = vec3(r + 0.25 * b, b, g - r)", "out.rgb = blur(rgb.bgr, 3) + vec3(g)",
          "out.r = b", "out.rgb = max(rgb.gbr, vec3(dilate(r, 2)))", "out.rgb = rgb * pos.x"}) {
        INFO(text);
        const auto program = compile(good_rule(text));
        const auto apart = f.whole(*program);
        // Planes: each in the place of its own, and in the place of another.
        for (const std::size_t turn : {std::size_t{0}, std::size_t{1}}) {
            auto planes = f.planes;
            Source source{width, height, {}};
            source.in_place = true;
            std::vector<PlaneSink> sinks;
            for (std::size_t c = 0; c < 4; ++c) {
                source.planes[c] = PlaneView(planes[c].data());
                sinks.emplace_back(planes[c < 3 ? (c + turn) % 3 : c].data());
            }
            REQUIRE(run(*program, source, {}, std::span<const PlaneSink>(sinks)));
            for (std::size_t c = 0; c < 3; ++c)
                for (std::size_t i = 0; i < apart[c].size(); ++i)
                    REQUIRE(planes[(c + turn) % 3][i] == apart[c][i]);
        }
        std::vector<float> mixed(static_cast<std::size_t>(4 * width * height));
        for (std::size_t i = 0; i < mixed.size(); ++i)
            mixed[i] = f.planes[i % 4][i / 4];
        Source source{width, height, {}};
        source.in_place = true;
        std::vector<PlaneSink> sinks;
        for (std::size_t c = 0; c < 4; ++c) {
            source.planes[c] = PlaneView(mixed.data() + c, Sample::float32, 4, 0);
            sinks.emplace_back(mixed.data() + 3 - c, Sample::float32, 4, 0); // a b g r
        }
        REQUIRE(run(*program, source, {}, std::span<const PlaneSink>(sinks)));
        for (std::size_t i = 0; i < mixed.size(); ++i)
            REQUIRE(mixed[i] == apart[3 - i % 4][i / 4]);
    }
}
