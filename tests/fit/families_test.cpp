#include "builtins/builtin.hpp"
#include "colour/space.hpp"
#include "engine/reference.hpp"
#include "fit/fit.hpp"
#include "fit/least_squares.hpp"
#include "lang/format.hpp"
#include "proof/proof.hpp"
#include "support/fitting.hpp"
#include "support/support.hpp"

#include <Eigen/Dense>
#include <fmt/format.h>
#include <set>

using namespace kasuri;
using namespace kasuri::fit;
using namespace kasuri::test;
using Catch::Matchers::WithinAbs;

TEST_CASE("families have names, sources and texts that are rules, and values that the text reads", "[fit]") {
    std::set<std::string> names;
    for (const Family& family : families()) {
        CAPTURE(family.name);
        CHECK(names.insert(family.name).second);
        CHECK_FALSE(family.title.empty());
        CHECK_FALSE(family.doc.empty());
        CHECK_FALSE(family.source.empty());
        CHECK(find_family(family.name) == &family);
        const Form form = family.form(family, {});
        const auto rule = rule_of(open_text(form));
        REQUIRE(rule);
        CHECK(rule.value().parameters.size() == form.values.size());
        for (const Value& value : form.values) {
            CAPTURE(value.name);
            CHECK(form.text.find("$" + value.name) != std::string::npos);
            CHECK(value.low < value.high);
        }
        for (const auto& start : form.more_starts)
            CHECK(start.size() == form.values.size());
    }
    CHECK(find_family("nonsense") == nullptr);
}

TEST_CASE("slopes along the values of every family agree with small steps of the reference", "[fit]") {
    std::mt19937 random(5);
    for (const Family& family : families()) {
        CAPTURE(family.name);
        const Form form = family.form(family, {});
        const auto model = Model::make(open_text(form), "rec709-linear", "rec709-linear", false, {});
        REQUIRE(model);
        const auto rule = rule_of(open_text(form));
        std::vector<double> values = drawn(form, random);
        Planes from;
        for (int i = 0; i < 6; ++i)
            for (auto& plane : from)
                plane.push_back(static_cast<float>(between(random, 0.08, 0.95)));
        Model::Slopes slopes;
        REQUIRE(model.value().slopes(values, from, slopes, {}));
        constexpr double step = 1e-5;
        for (std::size_t i = 0; i < 6; ++i) {
            engine::ReferencePixel pixel;
            for (std::size_t c = 0; c < 3; ++c)
                pixel.rgba[c] = static_cast<double>(from[c][i]);
            for (std::size_t v = 0; v < values.size(); ++v) {
                std::vector<double> low = values, high = values;
                low[v] -= step;
                high[v] += step;
                const auto below = engine::reference(rule.value(), low, pixel),
                           above = engine::reference(rule.value(), high, pixel);
                for (std::size_t c = 0; c < 3; ++c) {
                    const auto& plane = slopes.along[v * 3 + c];
                    const double slope = (above[c] - below[c]) / (2 * step);
                    CAPTURE(form.values[v].name, c, i);
                    CHECK_THAT(plane.empty() ? 0.0 : static_cast<double>(plane[i]),
                               WithinAbs(slope, 2e-3 * (1 + std::fabs(slope))));
                }
            }
        }
    }
}

TEST_CASE("every family is found again from what it makes of a lattice, with its numbers", "[fit]") {
    std::mt19937 random(11);
    for (const Family& family : families()) {
        CAPTURE(family.name);
        const Form form = family.form(family, {});
        std::vector<double> values = drawn(form, random);
        for (double& value : values) // what an artist would have typed
            value = std::round(value * 1000) / 1000;
        const Pairs pairs = made_by("rec709-display", closed_text(form, values), 17, true);
        Options options;
        options.families = {family.name};
        options.spaces = {"rec709-display"};
        const auto found = fit::fit(pairs, options);
        REQUIRE(found);
        const Candidate& candidate = found.value().candidates.front();
        CHECK(candidate.errors.largest < 5e-4);
        // Matrices, gains and angles have one answer; a chain of two steps may share its work out otherwise.
        if (family.name.find("curves") == std::string::npos && family.name != "zone-matrices" &&
            family.name != "matrix-between-powers" && family.name.find("polynomial") == std::string::npos)
            for (std::size_t i = 0; i < values.size(); ++i) {
                CAPTURE(form.values[i].name);
                CHECK_THAT(candidate.values[i], WithinAbs(values[i], 2e-3));
            }
    }
}

TEST_CASE("linear families have the least squares that another solver finds", "[fit]") {
    // Eigen's singular values, on the design matrix written down here: no code in common with the solver or the engine.
    std::mt19937 random(3);
    Pairs pairs;
    for (int i = 0; i < 150; ++i) {
        std::array<float, 3> from{}, to{};
        for (auto& x : from)
            x = static_cast<float>(between(random, 0, 1));
        for (std::size_t c = 0; c < 3; ++c)
            to[c] = 0.6F * from[c] + 0.3F * from[(c + 1) % 3] + static_cast<float>(between(random, -0.2, 0.2));
        pairs.add(from, to);
    }
    struct Case {
        const char* family;
        std::vector<std::function<double(const std::array<double, 3>&)>> terms;
    };
    const auto channel = [](std::size_t c) { return [c](const std::array<double, 3>& x) { return x[c]; }; };
    const auto root = [](int r, int g, int b) {
        return [=](const std::array<double, 3>& x) {
            return std::pow(std::pow(x[0], r) * std::pow(x[1], g) * std::pow(x[2], b), 1.0 / (r + g + b));
        };
    };
    // Terms of degree 3: Finlayson, Mackiewicz and Hurlbert 2015, their table (from memory).
    const Case cases[] = {
        {"matrix", {channel(0), channel(1), channel(2)}},
        {"matrix-offset", {channel(0), channel(1), channel(2), [](const auto&) { return 1.0; }}},
        {"root-polynomial-2", {channel(0), channel(1), channel(2), root(1, 1, 0), root(1, 0, 1), root(0, 1, 1)}},
        {"root-polynomial-3",
         {channel(0), channel(1), channel(2), root(1, 1, 0), root(1, 0, 1), root(0, 1, 1), root(2, 1, 0), root(2, 0, 1),
          root(1, 2, 0), root(1, 1, 1), root(1, 0, 2), root(0, 2, 1), root(0, 1, 2)}},
    };
    for (const Case& each : cases) {
        CAPTURE(each.family);
        const auto count = static_cast<Eigen::Index>(pairs.size());
        Eigen::MatrixXd design(count, static_cast<Eigen::Index>(each.terms.size())), wanted(count, 3);
        for (Eigen::Index i = 0; i < count; ++i) {
            const auto k = static_cast<std::size_t>(i);
            const std::array<double, 3> x{static_cast<double>(pairs.from[0][k]), static_cast<double>(pairs.from[1][k]),
                                          static_cast<double>(pairs.from[2][k])};
            for (std::size_t t = 0; t < each.terms.size(); ++t)
                design(i, static_cast<Eigen::Index>(t)) = each.terms[t](x);
            for (std::size_t c = 0; c < 3; ++c)
                wanted(i, static_cast<Eigen::Index>(c)) = static_cast<double>(pairs.to[c][k]);
        }
        const Eigen::MatrixXd answer = design.bdcSvd(Eigen::ComputeThinU | Eigen::ComputeThinV).solve(wanted);
        const double least = std::sqrt((design * answer - wanted).squaredNorm() / static_cast<double>(3 * count));
        Options options;
        options.families = {each.family};
        options.spaces = {pairs.space};
        const auto found = fit::fit(pairs, options);
        REQUIRE(found);
        const Candidate& candidate = found.value().candidates.front();
        CHECK_THAT(candidate.errors.rms, WithinAbs(least, 1e-3 * least)); // its numbers are rounded
        CHECK(candidate.errors.rms > least - 1e-7);
    }
}

TEST_CASE("published matrices are found from the colours that they make", "[fit]") {
    const auto pairs_by = [](const std::function<colour::Triple(const colour::Triple&)>& to) {
        Pairs pairs = lattice(7, "rec709-linear");
        for (std::size_t i = 0; i < pairs.size(); ++i) {
            const colour::Triple made =
                to({static_cast<double>(pairs.from[0][i]), static_cast<double>(pairs.from[1][i]),
                    static_cast<double>(pairs.from[2][i])});
            for (std::size_t c = 0; c < 3; ++c)
                pairs.to[c][i] = static_cast<float>(made[c]);
        }
        return pairs;
    };
    const auto best_of = [](const Pairs& pairs) {
        Options options;
        options.spaces = {pairs.space};
        const auto found = fit::fit(pairs, options);
        REQUIRE(found);
        return found.value().candidates[found.value().best];
    };
    SECTION("BT.709 to BT.2020: ITU-R BT.2087-0, annex 1, M2 (from memory)") {
        const double published[9] = {0.6274, 0.3293, 0.0433, 0.0691, 0.9195, 0.0114, 0.0164, 0.0880, 0.8956};
        const Candidate best = best_of(pairs_by([](const colour::Triple& x) {
            return colour::converted(x, *colour::find_space("rec709-linear"), *colour::find_space("rec2020-linear"));
        }));
        // White stays white, so that six numbers say it all.
        REQUIRE(best.family->name == "matrix-balanced");
        const std::size_t places[6] = {1, 2, 3, 5, 6, 7};
        for (std::size_t i = 0; i < 6; ++i)
            CHECK_THAT(best.values[i], WithinAbs(published[places[i]], 6e-5));
    }
    SECTION("saturate: W3C Filter Effects Module Level 1, feColorMatrix (from memory)") {
        // Rows of 0.213 + 0.787 s, 0.715 - 0.715 s, 0.072 - 0.072 s and so on.
        const double s = 0.4;
        const Candidate best = best_of(pairs_by([s](const colour::Triple& x) {
            const double grey = 0.213 * x[0] + 0.715 * x[1] + 0.072 * x[2];
            return colour::Triple{grey + s * (x[0] - grey), grey + s * (x[1] - grey), grey + s * (x[2] - grey)};
        }));
        REQUIRE(best.family->name == "weighted-saturation");
        CHECK_THAT(best.values[0], WithinAbs(0.213, 1e-4));
        CHECK_THAT(best.values[1], WithinAbs(0.072, 1e-4));
        CHECK_THAT(best.values[2], WithinAbs(0.4, 1e-4));
        CHECK(best.body.find("vec3(0.213, 0.715, 0.072)") != std::string::npos);
    }
    SECTION("grayscale: the luma of ITU-R BT.709-6, item 3.2") {
        const Candidate best = best_of(pairs_by([](const colour::Triple& x) {
            const double y = 0.2126 * x[0] + 0.7152 * x[1] + 0.0722 * x[2];
            return colour::Triple{y, y, y};
        }));
        REQUIRE(best.family->name == "mono");
        CHECK_THAT(best.values[0], WithinAbs(0.2126, 1e-4));
        CHECK_THAT(best.values[1], WithinAbs(0.7152, 1e-4));
    }
    SECTION("a gamma: IEC 61966-2-5's power of 2.19921875 (from memory)") {
        const Candidate best = best_of(pairs_by([](const colour::Triple& x) {
            return colour::Triple{std::pow(x[0], 2.19921875), std::pow(x[1], 2.19921875), std::pow(x[2], 2.19921875)};
        }));
        REQUIRE(best.family->name == "gain-offset-power");
        CHECK_THAT(best.values[2], WithinAbs(2.19921875, 1e-4));
    }
}
