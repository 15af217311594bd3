// A chart of 24 patches, measured with noise: what makes a camera's numbers of its colours.
#include "fit/fit.hpp"
#include "support/fitting.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

#include <Eigen/Dense>

using namespace kasuri;
using namespace kasuri::fit;
using namespace kasuri::test;
using Catch::Matchers::WithinAbs;

namespace {

/// The colours of the chart of 1976, as the target has them (their published values are tested in targets/).
std::vector<std::array<float, 3>> patches() {
    const targets::Target* chart = targets::find("chart_1976");
    REQUIRE(chart);
    std::vector<std::array<float, 3>> found;
    for (int i = 0; i < 24; ++i) {
        const auto colour = chart->colour(i, {});
        found.push_back({static_cast<float>(colour[0]), static_cast<float>(colour[1]), static_cast<float>(colour[2])});
    }
    return found;
}

double normal(std::mt19937& random) {
    return std::sqrt(-2 * std::log(between(random, 1e-12, 1))) * std::cos(6.283185307179586 * between(random, 0, 1));
}

constexpr double camera[3][3] = {{0.71, 0.22, 0.05}, {0.12, 0.81, 0.1}, {0.03, 0.21, 0.69}};

/// What the camera says of each patch, with noise of half a percent, and what the patch is: in light.
Pairs shot(std::mt19937& random, double bend) {
    Pairs pairs;
    pairs.space = "rec709-linear";
    pairs.noisy = true;
    for (const auto& patch : patches()) {
        std::array<float, 3> seen{};
        for (std::size_t c = 0; c < 3; ++c) {
            double x = 0;
            for (std::size_t i = 0; i < 3; ++i)
                x += camera[c][i] * static_cast<double>(patch[i]);
            x += bend *
                std::sqrt(std::max(0.0, static_cast<double>(patch[c] * patch[(c + 1) % 3]))); // no matrix undoes it
            seen[c] = static_cast<float>(x * (1 + 0.005 * normal(random)));
        }
        pairs.add(seen, patch);
    }
    return pairs;
}

/// Terms of degree 2 (Finlayson, Mackiewicz and Hurlbert 2015) and plain least squares, as the paper has it.
std::array<double, 3> by_the_paper(const Pairs& pairs, std::size_t without, const std::array<double, 3>& of) {
    const auto terms = [](const std::array<double, 3>& x) {
        return std::array{x[0], x[1], x[2], std::sqrt(x[0] * x[1]), std::sqrt(x[0] * x[2]), std::sqrt(x[1] * x[2])};
    };
    Eigen::MatrixXd design(static_cast<Eigen::Index>(pairs.size()) - 1, 6), wanted(design.rows(), 3);
    for (std::size_t i = 0, row = 0; i < pairs.size(); ++i) {
        if (i == without)
            continue;
        const auto t = terms({static_cast<double>(pairs.from[0][i]), static_cast<double>(pairs.from[1][i]),
                              static_cast<double>(pairs.from[2][i])});
        for (std::size_t k = 0; k < 6; ++k)
            design(static_cast<Eigen::Index>(row), static_cast<Eigen::Index>(k)) = t[k];
        for (std::size_t c = 0; c < 3; ++c)
            wanted(static_cast<Eigen::Index>(row), static_cast<Eigen::Index>(c)) = static_cast<double>(pairs.to[c][i]);
        ++row;
    }
    const Eigen::MatrixXd answer = design.colPivHouseholderQr().solve(wanted);
    const auto t = terms(of);
    std::array<double, 3> made{};
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t k = 0; k < 6; ++k)
            made[c] += t[k] * answer(static_cast<Eigen::Index>(k), static_cast<Eigen::Index>(c));
    return made;
}

} // namespace

TEST_CASE("a chart that is shot with noise gives the camera's matrix within a percent", "[fit]") {
    std::mt19937 random(21);
    Eigen::Matrix3d forward;
    for (Eigen::Index o = 0; o < 3; ++o)
        for (Eigen::Index i = 0; i < 3; ++i)
            forward(o, i) = camera[o][i];
    const Eigen::Matrix3d back = forward.inverse();
    Options options;
    options.families = {"matrix"};
    options.spaces = {"rec709-linear"};
    for (int trial = 0; trial < 5; ++trial) {
        const auto found = fit::fit(shot(random, 0), options);
        REQUIRE(found);
        const std::vector<double>& values = found.value().candidates.front().values;
        // Of the largest number in it: small ones are no better known.
        for (std::size_t i = 0; i < 9; ++i)
            CHECK_THAT(values[i],
                       WithinAbs(back(static_cast<Eigen::Index>(i / 3), static_cast<Eigen::Index>(i % 3)),
                                 0.01 * back.cwiseAbs().maxCoeff()));
    }
}

TEST_CASE("root polynomials of a chart meet a patch that was left out as well as the paper's method does", "[fit]") {
    std::mt19937 random(22);
    double ours = 0, papers = 0;
    for (int trial = 0; trial < 3; ++trial) {
        const Pairs all = shot(random, 0.06);
        for (std::size_t without = 0; without < all.size(); ++without) {
            Pairs pairs;
            pairs.space = all.space;
            pairs.noisy = true;
            const auto colour = [&](const Planes& planes, std::size_t i) {
                return std::array{planes[0][i], planes[1][i], planes[2][i]};
            };
            for (std::size_t i = 0; i < all.size(); ++i)
                if (i != without)
                    pairs.add(colour(all.from, i), colour(all.to, i));
            Options options;
            options.families = {"root-polynomial-2"};
            options.spaces = {all.space};
            const auto found = fit::fit(pairs, options);
            REQUIRE(found);
            const auto of = colour(all.from, without);
            const Planes made =
                through(all.space, found.value().candidates.front().body, {{{of[0]}, {of[1]}, {of[2]}}});
            const auto paper = by_the_paper(
                all, without, {static_cast<double>(of[0]), static_cast<double>(of[1]), static_cast<double>(of[2])});
            for (std::size_t c = 0; c < 3; ++c) {
                ours += std::pow(static_cast<double>(made[c][0] - all.to[c][without]), 2);
                papers += std::pow(paper[c] - static_cast<double>(all.to[c][without]), 2);
            }
        }
    }
    CAPTURE(ours, papers);
    CHECK(std::sqrt(ours) < 1.05 * std::sqrt(papers));
}
