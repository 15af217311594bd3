// Channels that are kept as they came from a file are the same numbers as floats.
#include "image/file_numbers.hpp"
#include "image/image.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <hwy/targets.h>
#include <limits>
#include <stdexcept>
#include <tuple>
#include <vector>

namespace {
using namespace kasuri::image;

constexpr float inf = std::numeric_limits<float>::infinity();

/// What binary16 of IEEE 754-2008 (3.4) stands for, by its definition.
double half_by_definition(unsigned half) {
    const unsigned exponent = (half >> 10) & 31, fraction = half & 1023;
    const double sign = (half & 0x8000) != 0 ? -1 : 1;
    if (exponent == 31)
        return fraction != 0 ? std::nan("") : sign * static_cast<double>(inf);
    return exponent == 0 ? sign * std::ldexp(fraction, -24)
                         : sign * std::ldexp(1024 + fraction, static_cast<int>(exponent) - 25);
}

Plane gathered(Depth depth, const std::vector<float>& numbers, std::size_t band = 7) {
    PlaneGatherer gatherer(depth, numbers.size());
    for (std::size_t first = 0; first < numbers.size(); first += band)
        gatherer.put(numbers.data() + first, std::min(band, numbers.size() - first), 1);
    return std::move(gatherer).plane();
}

} // namespace

TEST_CASE("half floats are what IEEE 754 says and codes what division gives on every instruction set",
          "[image][half]") {
    for (const std::int64_t set : hwy::SupportedAndGeneratedTargets()) {
        INFO(hwy::TargetName(set));
        hwy::SetSupportedTargetsForTest(set);
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
        std::vector<std::uint16_t> all(65536);
        for (std::size_t i = 0; i < all.size(); ++i)
            all[i] = static_cast<std::uint16_t>(i);
        std::vector<float> numbers(all.size());
        from_half(all.data(), numbers.data(), all.size());
        std::vector<std::uint16_t> again(all.size());
        to_half(numbers.data(), again.data(), again.size());
        std::size_t wrong = 0, lost = 0;
        for (unsigned i = 0; i < 65536; ++i) {
            const double truth = half_by_definition(i);
            const bool nan = std::isnan(truth);
            wrong += nan ? !std::isnan(numbers[i]) : static_cast<double>(numbers[i]) != truth;
            wrong += !nan && std::signbit(numbers[i]) != std::signbit(truth);
            lost += nan ? (again[i] & 0x7c00) != 0x7c00 || (again[i] & 1023) == 0 : again[i] != i;
        }
        CHECK(wrong == 0);
        CHECK(lost == 0);
        std::vector<float> shares(65536), of_bytes(256);
        from_codes(all.data(), shares.data(), shares.size());
        std::vector<std::uint8_t> bytes(256);
        for (std::size_t i = 0; i < bytes.size(); ++i)
            bytes[i] = static_cast<std::uint8_t>(i);
        from_codes(bytes.data(), of_bytes.data(), bytes.size());
        std::size_t inexact = 0;
        for (std::size_t i = 0; i < shares.size(); ++i)
            inexact += shares[i] != static_cast<float>(i) / 65535;
        for (std::size_t i = 0; i < of_bytes.size(); ++i)
            inexact += of_bytes[i] != static_cast<float>(i) / 255;
        CHECK(inexact == 0);
        // Halfway between two goes to the even one (4.3.1); what is nearest beyond the largest is infinite
        // (4.3.1, 7.4).
        std::size_t off = 0;
        for (unsigned i = 0; i < 0x7bff; ++i) {
            const double low = half_by_definition(i), high = half_by_definition(i + 1);
            const auto middle = static_cast<float>((low + high) / 2);
            const float three[] = {std::nextafter(middle, 0.0f), middle, std::nextafter(middle, inf)};
            std::uint16_t made[3];
            to_half(three, made, 3);
            off += made[0] != i || made[1] != (i % 2 == 0 ? i : i + 1) || made[2] != i + 1;
        }
        CHECK(off == 0);
        const float edge[] = {65504, 65519, 65520, 1e30f, -65520, 0x1p-25f, 0x1.000002p-25f, -0.0f};
        std::uint16_t made[8];
        to_half(edge, made, 8);
        const std::uint16_t expected[] = {0x7bff, 0x7bff, 0x7c00, 0x7c00, 0xfc00, 0, 1, 0x8000};
        for (std::size_t i = 0; i < 8; ++i)
            CHECK(made[i] == expected[i]);
    }
    hwy::SetSupportedTargetsForTest(0);
    hwy::GetChosenTarget().Update(hwy::SupportedTargets());
}

TEST_CASE("a channel of codes is kept as codes and read as their shares", "[image][plane]") {
    for (const auto& [depth, most, bytes] : {std::tuple{Depth::uint8, 255, 1}, std::tuple{Depth::uint16, 65535, 2}}) {
        std::vector<float> divided, multiplied;
        for (int code = 0; code <= most; ++code) {
            divided.push_back(static_cast<float>(code) / static_cast<float>(most));
            multiplied.push_back(static_cast<float>(code) * (1.0f / static_cast<float>(most)));
        }
        // Readers of files multiply; the nearest float is what division gives.
        for (const auto& numbers : {divided, multiplied}) {
            const Plane plane = gathered(depth, numbers);
            REQUIRE(plane->kind() == depth);
            CHECK(plane->bytes() == divided.size() * static_cast<std::size_t>(bytes));
            CHECK(plane->copied() == Samples(divided.begin(), divided.end()));
            CHECK((*plane)[static_cast<std::size_t>(most)] == 1);
            CHECK(*plane == *make_plane(Samples(divided.begin(), divided.end())));
            CHECK(as_floats(plane)->floats() == plane->copied());
        }
    }
}

TEST_CASE("what codes or half floats cannot say is kept as floats, all of it", "[image][plane]") {
    const std::vector<float> codes(30, 51 / 255.0f);
    for (const float other : {0.5f, -1 / 255.0f, 256 / 255.0f, inf, -inf, std::nanf(""), 1e-30f, 0.2001f})
        for (const std::size_t at : {std::size_t{0}, std::size_t{13}, std::size_t{29}}) {
            std::vector<float> numbers = codes;
            numbers[at] = other;
            const Plane plane = gathered(Depth::uint8, numbers);
            INFO(other << " at " << at);
            REQUIRE(plane->kind() == Depth::float32);
            for (std::size_t i = 0; i < numbers.size(); ++i)
                CHECK((i == at
                           ? std::isnan(other) == std::isnan((*plane)[i]) && (std::isnan(other) || (*plane)[i] == other)
                           : (*plane)[i] == codes[i]));
        }
    std::vector<float> halves = {0, -0.0f, 0.5f, 65504, -inf, inf, 0x1p-24f, -0x1.004p-14f};
    CHECK(gathered(Depth::half, halves)->kind() == Depth::half);
    CHECK(gathered(Depth::half, halves)->copied() == Samples(halves.begin(), halves.end()));
    CHECK(std::signbit((*gathered(Depth::half, halves))[1]));
    halves.push_back(0.1f);
    CHECK(gathered(Depth::half, halves)->kind() == Depth::float32);
    CHECK(gathered(Depth::float32, halves)->kind() == Depth::float32);
    CHECK(gathered(Depth::uint32, halves)->kind() == Depth::float32); // bits, not numbers
}

TEST_CASE("bands of channels that lie between each other are gathered in order", "[image][plane]") {
    PlaneGatherer gatherer(Depth::uint8, 5000);
    std::vector<float> pairs(10000);
    for (std::size_t i = 0; i < 5000; ++i) {
        pairs[2 * i] = 9;
        pairs[2 * i + 1] = static_cast<float>(i % 256) / 255;
    }
    gatherer.put(pairs.data() + 1, 3001, 2);
    gatherer.put(pairs.data() + 1 + 2 * 3001, 1999, 2);
    const Plane plane = std::move(gatherer).plane();
    REQUIRE(plane->kind() == Depth::uint8);
    for (std::size_t i = 0; i < 5000; ++i)
        REQUIRE((*plane)[i] == static_cast<float>(i % 256) / 255);
    float few[3];
    CHECK(plane->numbers(254, 3, few) == few);
    CHECK((few[1] == 1 && few[2] == 0));
    PlaneGatherer short_of(Depth::half, 2);
    short_of.put(pairs.data(), 1, 1);
    CHECK_THROWS_AS(std::move(short_of).plane(), std::logic_error);
}

TEST_CASE("light under an alpha that only covers or does not is not divided and stays as it came", "[image][plane]") {
    Image image;
    image.width = 2;
    image.height = 1;
    image.alpha = Alpha::premultiplied;
    for (const char* name : {"R", "G", "B"})
        image.channels.push_back({name, gathered(Depth::half, {0.25f, 0.5f})});
    image.channels.push_back({"A", gathered(Depth::half, {1, 0})});
    CHECK(picture_of(image, "")->planes[0] == image.channels[0].plane);
    image.channels[3].plane = gathered(Depth::half, {1, 0.5f});
    const auto divided = picture_of(image, "");
    CHECK(divided->at(1)[0] == 1);
    CHECK(divided->at(0)[2] == 0.25f);
    CHECK(same(as_floats(*divided), *divided));
}
