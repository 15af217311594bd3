// The table for what a rule leaves.
#include "fit/rest.hpp"

#include "pairing/rest_look.hpp"
#include "support/fitting.hpp"
#include "support/support.hpp"

#include <OpenColorIO/OpenColorIO.h>

using namespace kasuri;
using namespace kasuri::fit;
using namespace kasuri::test;
using Catch::Matchers::Contains;
using Catch::Matchers::WithinAbs;

namespace {

/// Nothing that a family is: a bump in the middle of the cube.
Pairs bumpy(int points) {
    Pairs pairs = lattice(points, "srgb");
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        double far = 0;
        for (std::size_t c = 0; c < 3; ++c)
            far += std::pow(static_cast<double>(pairs.from[c][i]) - 0.5, 2);
        const auto bump = static_cast<float>(0.1 * std::exp(-8 * far));
        for (std::size_t c = 0; c < 3; ++c)
            pairs.to[c][i] = 0.9F * pairs.from[c][i] + bump * (c == 0 ? 1.F : -0.5F);
    }
    return pairs;
}

double largest_of(const Planes& a, const Planes& b) {
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < a[c].size(); ++i)
            most = std::max(most, std::fabs(static_cast<double>(a[c][i]) - static_cast<double>(b[c][i])));
    return most;
}

} // namespace

TEST_CASE("a table meets what a rule leaves, and goes on where nothing is known", "[pairing][fit]") {
    const Pairs pairs = bumpy(17);
    const auto rest = rest_of(pairs.from, pairs, 17, {});
    REQUIRE(rest);
    CHECK(largest_of(applied(rest.value(), pairs.from), pairs.to) < 2e-3);
    // Known in one half alone: a straight change goes on into the other.
    Pairs half;
    half.space = "srgb";
    const Pairs whole = lattice(9, "srgb");
    for (std::size_t i = 0; i < whole.size(); ++i)
        if (whole.from[0][i] < 0.6F)
            half.add({whole.from[0][i], whole.from[1][i], whole.from[2][i]},
                     {0.8F * whole.from[0][i] + 0.05F, whole.from[1][i], 0.9F * whole.from[2][i]});
    const auto known = rest_of(half.from, half, 9, {});
    REQUIRE(known);
    const Planes far = applied(known.value(), Planes{{{0.55F}, {0.5F}, {0.5F}}});
    CHECK_THAT(static_cast<double>(far[0][0]), WithinAbs(0.49, 2e-3));
    // Noise and plain errors do not bend it.
    std::mt19937 random(3);
    Pairs noisy = bumpy(13);
    noisy.noisy = true;
    const Planes true_to = noisy.to;
    for (std::size_t i = 0; i < noisy.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            noisy.to[c][i] += i % 20 == 7 ? 0.4F : static_cast<float>(between(random, -0.01, 0.01));
    const auto through_noise = rest_of(noisy.from, noisy, 17, {});
    REQUIRE(through_noise);
    CHECK(largest_of(applied(through_noise.value(), noisy.from), true_to) < 0.02);
    CHECK_FALSE(rest_of(pairs.from, pairs, 1, {}));
    CancelToken cancel;
    cancel.cancel();
    CHECK(rest_of(pairs.from, pairs, 9, cancel).error().what == "called off");
}

TEST_CASE("a rule and the table for its rest are a look, and OpenColorIO reads the table as we do", "[pairing][fit]") {
    const Pairs pairs = bumpy(17);
    Options options;
    options.families = {"gain"};
    options.spaces = {"srgb"};
    const auto found = fit::fit(pairs, options);
    REQUIRE(found);
    const Candidate& rule = found.value().candidates.front();
    const auto made = pairing::with_rest(rule, pairs, 17);
    REQUIRE(made);
    CHECK(made.value().errors.largest < 3e-3);
    CHECK(made.value().errors.largest < 0.1 * rule.errors.largest);
    REQUIRE(made.value().look.steps.size() == 2);
    CHECK(made.value().look.steps[0].text.find("gain") != std::string::npos);
    CHECK(made.value().look.steps[1].space == "srgb");
    const auto again = document::look_of(document::look_text(made.value().look), "x");
    REQUIRE(again);
    // The table alone, by another reader.
    namespace ocio = OCIO_NAMESPACE;
    const auto file = std::filesystem::temp_directory_path() / "kasuri-rest.cube";
    std::ofstream(file) << made.value().look.steps[1].lut_text.text();
    const auto transform = ocio::FileTransform::Create();
    transform->setSrc(file.c_str());
    transform->setInterpolation(ocio::INTERP_TETRAHEDRAL);
    const auto processor = ocio::Config::CreateRaw()->getProcessor(transform)->getDefaultCPUProcessor();
    const auto rest = rest_of(through("srgb", rule.body, pairs.from), pairs, 17, {});
    REQUIRE(rest);
    for (const std::array<float, 3>& x : {std::array{0.2F, 0.5F, 0.45F}, {0.4F, 0.4F, 0.4F}, {0.1F, 0.7F, 0.3F}}) {
        float by_ocio[] = {x[0], x[1], x[2]};
        processor->applyRGB(by_ocio);
        const Planes ours = applied(rest.value(), Planes{{{x[0]}, {x[1]}, {x[2]}}});
        for (std::size_t c = 0; c < 3; ++c)
            CHECK_THAT(static_cast<double>(by_ocio[c]), WithinAbs(static_cast<double>(ours[c][0]), 1e-5));
    }
}
