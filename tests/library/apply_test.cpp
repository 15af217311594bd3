// Applying by libkasuri: every layout and kind of numbers against the engine's reference in double precision, in the
// picture's own memory, by many threads at once, called off, and with nothing left behind.
#include "engine/reference.hpp"
#include "kasuri.h"
#include "library/owned.hpp"
#include "proof/proof.hpp"
#include "support/support.hpp"

#include <atomic>
#include <cstdint>
#include <cstring>
#include <filesystem>
#include <thread>

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

constexpr std::size_t width = 67, height = 23; // neither is a multiple of anything

/// Half floats by the definition of IEEE 754-2008, of numbers that are exact in them.
std::uint16_t half_of(double x) {
    if (x == 0)
        return 0;
    int exponent = 0;
    const double fraction = std::frexp(std::fabs(x), &exponent); // 0.5 to 1
    return static_cast<std::uint16_t>((x < 0 ? 0x8000 : 0) | (exponent + 14) << 10 |
                                      (static_cast<int>(std::lround(fraction * 2048)) - 1024));
}
double of_half(std::uint16_t h) {
    const int exponent = h >> 10 & 31, fraction = h & 1023;
    const double x = exponent == 0 ? std::ldexp(fraction, -24) : std::ldexp(1024 + fraction, exponent - 25);
    return (h & 0x8000) != 0 ? -x : x;
}

struct Kind {
    kasuri_number numbers;
    std::size_t bytes;
    double step; ///< how far what is written may be from what was meant: half of a code's step, or rounding
};
constexpr Kind kinds[] = {{KASURI_FLOAT32, 4, 1e-6},
                          {KASURI_FLOAT16, 2, 0.0006},
                          {KASURI_UINT8, 1, 0.5001 / 255},
                          {KASURI_UINT16, 2, 0.502 / 65535}};

void put(void* at, kasuri_number kind, double x) {
    const auto f = static_cast<float>(x);
    const auto h = half_of(x);
    const auto b = static_cast<std::uint8_t>(std::lround(x * 255));
    const auto w = static_cast<std::uint16_t>(std::lround(x * 65535));
    switch (kind) {
    case KASURI_FLOAT32: std::memcpy(at, &f, 4); break;
    case KASURI_FLOAT16: std::memcpy(at, &h, 2); break;
    case KASURI_UINT8: std::memcpy(at, &b, 1); break;
    case KASURI_UINT16: std::memcpy(at, &w, 2); break;
    }
}
double got(const void* at, kasuri_number kind) {
    float f = 0;
    std::uint16_t h = 0;
    std::uint8_t b = 0;
    switch (kind) {
    case KASURI_FLOAT32: std::memcpy(&f, at, 4); return static_cast<double>(f);
    case KASURI_FLOAT16: std::memcpy(&h, at, 2); return of_half(h);
    case KASURI_UINT8: std::memcpy(&b, at, 1); return b / 255.0;
    case KASURI_UINT16: std::memcpy(&h, at, 2); return h / 65535.0;
    }
    return 0;
}

/// A number of 0 to 1 that every kind holds exactly: 0, 1 and what is between only where they may.
double sample(std::size_t i, kasuri_number kind) {
    const auto code = static_cast<int>((i * 7919 + i / 13 * 104729) % 256);
    return kind == KASURI_UINT8 || kind == KASURI_UINT16 ? code / 255.0 : code / 256.0;
}

struct Layout {
    const char* name;
    std::size_t channels;
    bool planar, upside_down, backwards, gaps;
};
constexpr Layout layouts[] = {
    {"rgb", 3, false, false, false, false},   {"rgba", 4, false, false, false, false},
    {"planar", 3, true, false, false, false}, {"planar with gaps", 4, true, false, false, true},
    {"bgr", 3, false, false, true, false},    {"rgba, bottom row first, gaps", 4, false, true, false, true},
    {"abgr", 4, false, false, true, false},
};

/// Memory of a layout, with numbers around it that nobody may touch.
struct Memory {
    std::vector<unsigned char> bytes;
    kasuri_picture picture{};
    static constexpr unsigned char guard = 0xA5;

    Memory(const Layout& layout, const Kind& kind) {
        const std::size_t gap = layout.gaps ? 3 : 0, per_pixel = layout.planar ? 1 : layout.channels;
        const std::size_t row = (width * per_pixel + gap) * kind.bytes;
        const std::size_t whole = row * height * (layout.planar ? layout.channels : 1);
        bytes.assign(whole + 64, guard);
        picture.width = width;
        picture.height = height;
        picture.numbers = kind.numbers;
        picture.pixel_stride = static_cast<std::ptrdiff_t>(per_pixel * kind.bytes);
        picture.row_stride = static_cast<std::ptrdiff_t>(row);
        for (std::size_t c = 0; c < layout.channels; ++c) {
            const std::size_t where = layout.backwards ? layout.channels - 1 - c : c;
            unsigned char* plane = bytes.data() + 32 + (layout.planar ? where * row * height : where * kind.bytes);
            picture.planes[c] = layout.upside_down ? plane + row * (height - 1) : plane;
        }
        if (layout.upside_down)
            picture.row_stride = -picture.row_stride;
    }
    void* at(std::size_t c, std::size_t x, std::size_t y) const {
        return static_cast<unsigned char*>(picture.planes[c]) + static_cast<std::ptrdiff_t>(x) * picture.pixel_stride +
            static_cast<std::ptrdiff_t>(y) * picture.row_stride;
    }
};

int threads_here() {
    int count = 0;
    for ([[maybe_unused]] const auto& each : std::filesystem::directory_iterator("/proc/self/task"))
        ++count;
    return count;
}

} // namespace

TEST_CASE("every layout and kind of numbers gives what the reference gives, apart and in place", "[library][layouts]") {
    const std::string text = "out.rgb = vec3(0.25 * r + 0.5 * b, g * g, abs(r - 0.5))";
    const kasuri::lang::Rule rule = good_rule(text);
    const Filter filter = compiled(text);
    for (const Layout& layout : layouts)
        for (const Kind& kind : kinds)
            for (const bool in_place : {false, true}) {
                INFO(layout.name << ", numbers " << kind.numbers << (in_place ? ", in place" : ""));
                const Memory in(layout, kind);
                Memory out(layout, kind);
                std::vector<std::array<double, 4>> came;
                for (std::size_t i = 0; i < width * height; ++i) {
                    came.push_back({sample(i, kind.numbers), sample(i + 71, kind.numbers), sample(3 * i, kind.numbers),
                                    sample(i + 5, kind.numbers)});
                    for (std::size_t c = 0; c < layout.channels; ++c) {
                        put(in.at(c, i % width, i / width), kind.numbers, came.back()[c]);
                        if (!in_place)
                            put(out.at(c, i % width, i / width), kind.numbers, 0);
                    }
                }
                const Memory& to = in_place ? in : out;
                REQUIRE(kasuri_apply(filter.get(), &in.picture, &to.picture, 2, nullptr, nullptr) == KASURI_OK);
                double most = 0;
                for (std::size_t i = 0; i < came.size(); ++i) {
                    const auto wanted = kasuri::engine::reference(rule, {}, {came[i]});
                    for (std::size_t c = 0; c < 3; ++c)
                        most = std::max(most, std::fabs(got(to.at(c, i % width, i / width), kind.numbers) - wanted[c]));
                    if (layout.channels == 4)
                        REQUIRE(got(to.at(3, i % width, i / width), kind.numbers) == Approx(came[i][3]).margin(1e-7));
                }
                CHECK(most <= kind.step);
                std::size_t touched = 0;
                for (std::size_t i = 0; i < 32; ++i)
                    touched += (to.bytes[i] != Memory::guard) + (to.bytes[to.bytes.size() - 1 - i] != Memory::guard);
                CHECK(touched == 0);
            }
}

TEST_CASE("spaces of what comes in and goes out are said with the pictures", "[library]") {
    const Filter filter = compiled("working acescg\nout.rgb = rgb");
    float in[] = {0.5F, 0.25F, 0.75F}, out[3];
    kasuri_picture from = kasuri_interleaved(in, 1, 1, 3, KASURI_FLOAT32),
                   to = kasuri_interleaved(out, 1, 1, 3, KASURI_FLOAT32);
    from.space = "srgb";
    to.space = "rec709-linear";
    REQUIRE(kasuri_apply(filter.get(), &from, &to, 0, nullptr, nullptr) == KASURI_OK);
    for (int c = 0; c < 3; ++c) // IEC 61966-2-1
        CHECK(static_cast<double>(out[c]) ==
              Approx(std::pow((static_cast<double>(in[c]) + 0.055) / 1.055, 2.4)).margin(2e-6));
    kasuri_said* said = nullptr;
    to.space = "rec709";
    from.space = "sgrb";
    CHECK(kasuri_apply(filter.get(), &from, &to, 0, nullptr, &said) == KASURI_BAD_ARGUMENT);
    CHECK_THAT(kasuri_said_text(said), Contains("there is no space sgrb. Did you mean srgb?"));
    kasuri_said_free(said);
    CHECK(kasuri_knows_space("acescct") == 1);
    CHECK(kasuri_knows_space("nothing") == 0);
    CHECK(kasuri_knows_space(nullptr) == 0);
    for (size_t i = 0; i < kasuri_space_count(); ++i)
        CHECK(kasuri_knows_space(kasuri_space_at(i)) == 1);
    CHECK_FALSE(kasuri_space_at(kasuri_space_count()));
}

TEST_CASE("a picture of one channel is grey, and planes that are left out are not written", "[library]") {
    const Filter filter = compiled("out.rgb = vec3(r, 2 * g, 3 * b)");
    float in[] = {1, 2}, out[] = {-1, -1};
    const kasuri_picture from = kasuri_interleaved(in, 2, 1, 1, KASURI_FLOAT32);
    kasuri_picture to = from;
    to.planes[0] = nullptr;
    to.planes[2] = out;
    REQUIRE(kasuri_apply(filter.get(), &from, &to, 1, nullptr, nullptr) == KASURI_OK);
    CHECK((out[0] == 3 && out[1] == 6));
    // No alpha reads as 1, and is written where there is a place for it.
    float four[8] = {};
    const kasuri_picture alpha = kasuri_interleaved(four, 2, 1, 4, KASURI_FLOAT32);
    REQUIRE(kasuri_apply(filter.get(), &from, &alpha, 1, nullptr, nullptr) == KASURI_OK);
    CHECK((four[3] == 1 && four[7] == 1 && four[5] == 4));
}

TEST_CASE("what cannot be is refused before a number is touched", "[library]") {
    const Filter filter = compiled("out.r = g");
    float memory[64] = {};
    const kasuri_picture good = kasuri_interleaved(memory, 4, 4, 3, KASURI_FLOAT32);
    const auto refused = [&](kasuri_picture in, kasuri_picture out, const char* words) {
        kasuri_said* said = nullptr;
        INFO(words);
        CHECK(kasuri_apply(filter.get(), &in, &out, 1, nullptr, &said) == KASURI_BAD_ARGUMENT);
        CHECK_THAT(kasuri_said_text(said), Contains(words));
        kasuri_said_free(said);
    };
    kasuri_picture other = good;
    other.width = 3;
    refused(good, other, "not of the same size");
    other = good;
    other.planes[0] = nullptr;
    refused(other, good, "give one plane, three, or four");
    other = good;
    other.pixel_stride = 5;
    refused(other, good, "not multiples of a number's size");
    other = good;
    other.planes[1] = reinterpret_cast<unsigned char*>(memory) + 1;
    refused(good, other, "not aligned");
    other = good;
    other.width = std::size_t{1} << 40;
    refused(other, other, "more than 2147483647");
    other = good;
    const int none = 9; // as a program in C might
    std::memcpy(&other.numbers, &none, sizeof none);
    refused(other, good, "no such kind of numbers");
    other = kasuri_interleaved(memory + 6, 4, 4, 3, KASURI_FLOAT32); // two pixels further on
    refused(good, other, "lies across");
    other = good;
    other.row_stride = 12 * 5;
    refused(good, other, "lies across");
    CHECK(kasuri_apply(nullptr, &good, &good, 1, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_apply(filter.get(), nullptr, &good, 1, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_apply(filter.get(), &good, &good, -1, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    other = good;
    other.height = 0;
    CHECK(kasuri_apply(filter.get(), &other, &other, 1, nullptr, nullptr) == KASURI_OK); // nothing of nothing
    CHECK(std::all_of(std::begin(memory), std::end(memory), [](float x) { return x == 0; }));
    kasuri_filter* made = nullptr;
    CHECK(kasuri_compile(nullptr, nullptr, &made, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_compile("out.r = g", nullptr, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_open(nullptr, nullptr, &made, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_set(nullptr, "a", 1, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_check(filter.get(), nullptr, nullptr, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_parameter_at(filter.get(), 0, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK_FALSE(kasuri_copy(nullptr));
    kasuri_filter_free(nullptr);
    kasuri_said_free(nullptr);
    kasuri_call_free(nullptr);
    kasuri_proofs_free(nullptr);
    kasuri_bytes_free(nullptr);
    CHECK(std::string(kasuri_said_text(nullptr)).empty());
}

TEST_CASE("work is called off from another thread, and says how far it is", "[library][cancel]") {
    const Filter filter = compiled("out.rgb = blur(blur(rgb, 30), 30)");
    constexpr std::size_t side = 2000;
    std::vector<float> in(3 * side * side, 0.5F), out(in.size());
    const kasuri_picture from = kasuri_interleaved(in.data(), side, side, 3, KASURI_FLOAT32),
                         to = kasuri_interleaved(out.data(), side, side, 3, KASURI_FLOAT32);
    kasuri_call* call = kasuri_call_new();
    std::thread impatient([&] {
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
        kasuri_call_off(call);
    });
    const kasuri_status status = kasuri_apply(filter.get(), &from, &to, 0, call, nullptr);
    impatient.join();
    CHECK(status == KASURI_CALLED_OFF);
    CHECK(kasuri_apply(filter.get(), &from, &to, 0, call, nullptr) == KASURI_CALLED_OFF); // it stays so
    kasuri_call_free(call);
    call = kasuri_call_new();
    REQUIRE(kasuri_apply(compiled("out.r = g").get(), &from, &to, 0, call, nullptr) == KASURI_OK);
    CHECK(kasuri_call_done(call) == side * side);
    kasuri_call_free(call);
}

TEST_CASE("many threads use one filter at once, each of its own values, and nothing is left behind",
          "[library][threads]") {
    REQUIRE(kasuri_rest() == 1);
    const int before = threads_here();
    const Filter filter = compiled("param gain = 1 in 0 .. 8\nout.rgb = rgb * gain");
    std::atomic<int> wrong = 0;
    std::vector<std::thread> threads;
    for (int t = 0; t < 8; ++t)
        threads.emplace_back([&, t] {
            const Filter mine(kasuri_copy(filter.get()));
            kasuri_set(mine.get(), "gain", t, nullptr);
            std::vector<float> pixels(3 * 300 * 200);
            for (int round = 0; round < 20; ++round) {
                std::fill(pixels.begin(), pixels.end(), 0.5F);
                const kasuri_picture picture = kasuri_interleaved(pixels.data(), 300, 200, 3, KASURI_FLOAT32);
                const bool good = kasuri_apply((t & 1) != 0 ? mine.get() : filter.get(), &picture, &picture, t % 3,
                                               nullptr, nullptr) == KASURI_OK;
                const float wanted = 0.5F * static_cast<float>((t & 1) != 0 ? t : 1);
                wrong +=
                    !good || std::any_of(pixels.begin(), pixels.end(), [&](float x) { return x != wanted; }) ? 1 : 0;
                kasuri_filter* broken = nullptr;
                wrong += kasuri_compile("out.r =", nullptr, &broken, nullptr) == KASURI_TEXT_FAULT ? 0 : 1;
            }
        });
    for (std::thread& each : threads)
        each.join();
    CHECK(wrong == 0);
    CHECK(kasuri_rest() == 1);
    for (int i = 0; i < 100 && threads_here() > before; ++i) // the system takes a moment to count them off
        std::this_thread::sleep_for(std::chrono::milliseconds(20));
    CHECK(threads_here() == before);
    CHECK(applied(filter, {1, 2, 3}) == std::array<float, 3>{1, 2, 3}); // and it starts again
    // One thread is this one.
    const Filter one = compiled("out.r = sqrt(r)");
    REQUIRE(kasuri_rest() == 1);
    std::vector<float> pixels(3 * 1000 * 1000, 0.25F);
    const kasuri_picture picture = kasuri_interleaved(pixels.data(), 1000, 1000, 3, KASURI_FLOAT32);
    REQUIRE(kasuri_apply(one.get(), &picture, &picture, 1, nullptr, nullptr) == KASURI_OK);
    CHECK(threads_here() == before);
    CHECK(kasuri_rest() == 1);
}
