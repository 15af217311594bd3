// Pictures that are shifted, cropped or scaled against each other.
#include "pairing/registration.hpp"

#include "fit/fit.hpp"
#include "io/picture_file.hpp"
#include "pairing/pairing.hpp"
#include "support/support.hpp"
#include "targets/paint.hpp"

using namespace kasuri;
using namespace kasuri::pairing;
using Catch::Matchers::Contains;
using Catch::Matchers::WithinAbs;

namespace {

/// What is to be seen at a place: cloths of different colours with soft edges, of any place, so that a shift by parts
/// of a pixel is exact.
colour::Triple scene(double x, double y) {
    using namespace targets::paint;
    const double u = noise(x / 17, y / 23, 3), v = noise(x / 31, y / 13, 4), w = noise(x / 11, y / 19, 5);
    return {0.1 + 0.7 * soft(0.4, 0.6, u), 0.1 + 0.6 * soft(0.35, 0.6, v), 0.15 + 0.6 * soft(0.4, 0.65, w)};
}

/// A graded scene: channels mixed, and the first two exchanged, if asked for.
colour::Triple graded(const colour::Triple& c) {
    return {0.7 * c[1] + 0.2 * c[2], 0.8 * c[0] + 0.1 * c[1], 0.1 * c[0] + 0.75 * c[2]};
}

image::Picture taken(int width, int height, double scale, double dx, double dy, bool grade) {
    return image::generated(width, height, [&](int x, int y) {
        colour::Triple sum{};
        // A pixel is the mean over its square.
        const int n = std::max(1, static_cast<int>(std::lround(2 * scale)));
        for (int j = 0; j < n; ++j)
            for (int i = 0; i < n; ++i) {
                const colour::Triple c = scene((x + (i + 0.5) / n) * scale + dx, (y + (j + 0.5) / n) * scale + dy);
                sum = targets::paint::plus(sum, targets::paint::times(c, 1.0 / n / n));
            }
        return grade ? graded(sum) : sum;
    });
}

struct Case {
    int width, height;
    double scale, dx, dy;
};

} // namespace

TEST_CASE("shift, crop and scale are found through a grade that exchanges channels", "[pairing]") {
    const image::Picture before = taken(480, 320, 1, 0, 0, false);
    for (const Case& c : {Case{480, 320, 1, 1.5, -2.25}, Case{480, 320, 1, 0.6, 0.4}, Case{360, 240, 1, 70, 40},
                          Case{240, 160, 2, 0, 0}, Case{420, 300, 0.7, 90, 60}, Case{200, 140, 1.6, 60.5, 33}}) {
        CAPTURE(c.width, c.scale, c.dx, c.dy);
        const image::Picture after = taken(c.width, c.height, c.scale, c.dx, c.dy, true);
        const auto found = registered(before, after, {});
        REQUIRE(found);
        // Corners of the second, in pixels of the first, to a quarter of a pixel of the coarser one.
        for (const double x : {0.0, c.width - 1.0})
            for (const double y : {0.0, c.height - 1.0}) {
                CHECK_THAT(found->map[0] * x + found->map[1] * y + found->map[2],
                           WithinAbs((x + 0.5) * c.scale + c.dx - 0.5, 0.25 * std::max(1.0, c.scale)));
                CHECK_THAT(found->map[3] * x + found->map[4] * y + found->map[5],
                           WithinAbs((y + 0.5) * c.scale + c.dy - 0.5, 0.25 * std::max(1.0, c.scale)));
            }
    }
}

TEST_CASE("pictures of different things are not brought over each other", "[pairing]") {
    const image::Picture before = taken(300, 200, 1, 0, 0, false), other = taken(280, 200, 1, 5000, 7000, true);
    const auto found = registered(before, other, {});
    CHECK_FALSE(found);
    const image::Picture grey = image::generated(64, 64, [](int, int) { return std::array{0.5, 0.5, 0.5}; });
    CHECK_FALSE(registered(grey, grey, {}));
    CancelToken cancel;
    cancel.cancel();
    CHECK_FALSE(registered(before, taken(200, 200, 1, 40, 3, true), cancel));
}

TEST_CASE("a grade is found behind a shift, a crop and a scale, and what was done is said", "[pairing][fit]") {
    const auto folder = std::filesystem::temp_directory_path();
    const auto saved = [&](const char* name, const image::Picture& picture) {
        const std::string file = (folder / name).string();
        REQUIRE(io::save(file, image::image_of(picture)));
        return file;
    };
    const std::string before = saved("kasuri-before.exr", taken(480, 320, 1, 0, 0, false));
    const std::string shifted = saved("kasuri-shifted.exr", taken(480, 320, 1, 2, -1, true));
    const std::string cropped = saved("kasuri-cropped.exr", taken(300, 200, 1.2, 50, 40, true));
    for (const std::string& after : {shifted, cropped}) {
        INFO(after);
        const auto made = pairs_from({before, after}, PairingOptions{});
        REQUIRE(made);
        CHECK_THAT(made.value().detail, Contains("brought over each other"));
        fit::Options options;
        options.families = {"identity", "matrix", "matrix-balanced", "channel-gains", "curves-5"};
        const auto found = fit::fit(made.value().pairs, options);
        REQUIRE(found);
        const fit::Candidate& best = found.value().candidates[found.value().best];
        CHECK(best.family->name == "matrix");
        const double wanted[] = {0, 0.7, 0.2, 0.8, 0.1, 0, 0.1, 0, 0.75};
        for (std::size_t i = 0; i < 9; ++i)
            CHECK_THAT(best.values[i], WithinAbs(wanted[i], 0.02));
    }
    PairingOptions options;
    options.as_they_lie = true;
    CHECK_THAT(pairs_from({before, shifted}, options).value().detail, !Contains("brought over"));
    CHECK_THAT(pairs_from({before, cropped}, options).error().text(), Contains("480 x 320") && Contains("300 x 200"));
    CHECK_THAT(pairs_from({before, before}, PairingOptions{}).value().detail, !Contains("brought over"));
}

TEST_CASE("a second picture in another space is converted to the first one's, and a note says so", "[pairing][fit]") {
    const auto folder = std::filesystem::temp_directory_path();
    const std::string light = (folder / "kasuri-light.exr").string(), coded = (folder / "kasuri-coded.exr").string();
    const image::Picture picture = taken(160, 120, 1, 0, 0, false);
    image::Picture as_srgb = picture;
    for (std::size_t c = 0; c < 3; ++c) { // IEC 61966-2-1
        image::Samples plane = picture.planes[c]->copied();
        for (float& x : plane)
            x = static_cast<float>(x <= 0.0031308F ? 12.92 * x : 1.055 * std::pow(x, 1 / 2.4F) - 0.055);
        as_srgb.planes[c] = image::make_plane(std::move(plane));
    }
    as_srgb.space = "srgb";
    image::Image image = image::image_of(as_srgb);
    image.space = "srgb";
    REQUIRE(io::save(light, image::image_of(picture)));
    REQUIRE(io::save(coded, image));
    const auto made = pairs_from({light, coded}, PairingOptions{});
    REQUIRE(made);
    const fit::Pairs& pairs = made.value().pairs;
    for (std::size_t i = 0; i < pairs.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            REQUIRE_THAT(static_cast<double>(pairs.to[c][i]), WithinAbs(static_cast<double>(pairs.from[c][i]), 1e-5));
}
