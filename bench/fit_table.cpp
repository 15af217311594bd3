// How often the fit finds the rule again: rules drawn from the families with random values, from a seed.
// usage: fit_table luts COUNT SEED | pictures COUNT SEED
#include "colour/space.hpp"
#include "fit/fit.hpp"
#include "fit/model.hpp"

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <fmt/format.h>
#include <random>
#include <string>

namespace {

using namespace kasuri;
using Clock = std::chrono::steady_clock;

struct Drawn {
    const fit::Family* family = nullptr;
    std::string space, working;
    std::vector<double> values;
    std::string body;
};

double uniform(std::mt19937& random, double low, double high) {
    return low + (high - low) * static_cast<double>(random()) / 4294967296.0;
}

Drawn draw(std::mt19937& random, std::size_t number) {
    constexpr const char* spaces[] = {"rec709-display", "acescct", "rec709-gamma22"};
    const auto all = fit::families();
    Drawn made;
    made.family = &all[number % all.size()];
    made.space = spaces[random() % 3];
    made.working = made.space;
    if (made.family->spaces == fit::Family::Spaces::both && random() % 2 == 0)
        made.working = made.space == "acescct" ? "acescg" : "rec709-linear";
    // Knots over the range of the numbers, 0 to 1: families with knots work in the numbers' own space.
    const fit::Form form = made.family->form(*made.family, {});
    for (const fit::Value& value : form.values)
        made.values.push_back(uniform(random, value.low, value.high));
    made.body = fit::closed_text(form, made.values);
    return made;
}

std::optional<fit::Planes> applied(const Drawn& drawn, const fit::Planes& from) {
    auto rule = fit::rule_of(fmt::format("working {}\n{}", drawn.working, drawn.body));
    if (!rule) {
        std::fprintf(stderr, "%s\n%s\n", rule.error().text().c_str(), drawn.body.c_str());
        std::exit(1);
    }
    const subject::Subject subject(rule.value());
    fit::Planes made;
    if (!fit::run(*subject.program(drawn.space, drawn.space, {}, true), subject.values(), from, made, {}))
        return std::nullopt;
    for (const auto& plane : made)
        for (const float x : plane)
            if (!std::isfinite(x))
                return std::nullopt;
    return made;
}

/// What a file of six digits holds.
float six_digits(float x) { return std::strtof(fmt::format("{:.6f}", x).c_str(), nullptr); }

fit::Pairs lattice(int points, const std::string& space) {
    fit::Pairs pairs;
    pairs.space = space;
    for (int b = 0; b < points; ++b)
        for (int g = 0; g < points; ++g)
            for (int r = 0; r < points; ++r) {
                const auto at = [&](int i) { return static_cast<float>(i) / static_cast<float>(points - 1); };
                pairs.add({at(r), at(g), at(b)}, {0, 0, 0});
            }
    return pairs;
}

struct Sum {
    int tried = 0, right = 0, near = 0;
    double seconds = 0, slowest = 0, worst = 0;
};

void judge(Sum& sum, const Drawn& drawn, const fit::Pairs& pairs, bool pictures, const fit::Planes* clean) {
    const auto start = Clock::now();
    const auto found = fit::fit(pairs);
    const double seconds = std::chrono::duration<double>(Clock::now() - start).count();
    ++sum.tried;
    sum.seconds += seconds;
    sum.slowest = std::max(sum.slowest, seconds);
    if (!found) {
        std::printf("%s: %s\n", drawn.family->name.c_str(), found.error().text().c_str());
        return;
    }
    const fit::Candidate& best = found.value().candidates[found.value().best];
    // A gain in light is another gain behind a pure power: the family counts, not the space.
    const bool right = best.family == drawn.family;
    double error = best.errors.largest;
    if (pictures) { // against what it would have been without noise
        Drawn again = drawn;
        again.working = best.working;
        again.body = best.body;
        fit::Pairs truth = pairs;
        truth.to = *clean;
        const auto made = applied(again, pairs.from);
        error = made ? fit::mean_delta_e(truth, *made) : 1e9;
    }
    const double wished = pictures ? 0.3 : 5e-4;
    sum.right += right;
    sum.near += error <= wished;
    sum.worst = std::max(sum.worst, error);
    if (!right || error > wished) {
        const fit::Candidate* own = nullptr;
        for (const fit::Candidate& candidate : found.value().candidates)
            if (candidate.family == drawn.family && candidate.working == drawn.working)
                own = &candidate;
        std::printf("%-34s %-15s marked %-34s %-15s off by %.2g, %.0f bits; its own: rms %.2g, %.0f bits\n",
                    drawn.family->name.c_str(), drawn.working.c_str(), best.family->name.c_str(), best.working.c_str(),
                    error, best.bits, own ? own->errors.rms : -1, own ? own->bits : -1);
    }
}

void luts(int count, unsigned seed) {
    std::mt19937 random(seed);
    Sum sum;
    for (std::size_t number = 0; sum.tried < count; ++number) {
        const Drawn drawn = draw(random, number);
        fit::Pairs pairs = lattice(33, drawn.space);
        auto made = applied(drawn, pairs.from);
        if (!made)
            continue;
        pairs.to = std::move(*made);
        for (auto& plane : pairs.to)
            for (float& x : plane)
                x = six_digits(x);
        judge(sum, drawn, pairs, false, nullptr);
    }
    std::printf("LUTs of 33 points: %d, seed %u: marked %d (%.1f %%), within 5e-4 %d (%.1f %%), largest %.2g; %.2f s "
                "each, %.2f s the slowest\n",
                sum.tried, seed, sum.right, 100.0 * sum.right / sum.tried, sum.near, 100.0 * sum.near / sum.tried,
                sum.worst, sum.seconds / sum.tried, sum.slowest);
}

double normal(std::mt19937& random) {
    return std::sqrt(-2 * std::log(uniform(random, 1e-12, 1))) * std::cos(6.283185307179586 * uniform(random, 0, 1));
}

/// Smooth shapes of many colours, as pictures have them.
image::Picture picture(std::mt19937& random, int width, int height, const std::string& space) {
    std::array<std::array<double, 4>, 9> waves{};
    for (auto& wave : waves)
        wave = {uniform(random, 1, 9), uniform(random, 1, 9), uniform(random, 0, 6.28), uniform(random, 0.5, 1)};
    image::Picture made = image::generated(width, height, [&](int x, int y) {
        std::array<double, 3> rgb{};
        for (std::size_t c = 0; c < 3; ++c) {
            double sum = 0;
            for (std::size_t k = 0; k < 3; ++k) {
                const auto& w = waves[3 * c + k];
                sum += w[3] * std::sin(w[0] * x / width * 6.28 + w[1] * y / height * 6.28 + w[2]);
            }
            rgb[c] = std::clamp(0.48 + 0.19 * sum, 0.03, 0.93);
        }
        return rgb;
    });
    made.space = space;
    return made;
}

void pictures(int count, unsigned seed) {
    std::mt19937 random(seed);
    Sum sum;
    for (std::size_t number = 0; sum.tried < count; ++number) {
        const Drawn drawn = draw(random, number);
        const image::Picture before = picture(random, 480, 270, drawn.space);
        fit::Planes from;
        for (std::size_t c = 0; c < 3; ++c)
            from[c].assign(before.planes[c]->begin(), before.planes[c]->end());
        const auto clean = applied(drawn, from);
        if (!clean)
            continue;
        image::Picture after = before;
        for (std::size_t c = 0; c < 3; ++c) {
            image::Samples plane(before.pixels());
            for (std::size_t i = 0; i < plane.size(); ++i)
                plane[i] = (*clean)[c][i] + static_cast<float>(0.01 * normal(random));
            after.planes[c] = image::make_plane(std::move(plane));
        }
        std::array<image::Samples, 3> wrong{after.planes[0]->copied(), after.planes[1]->copied(),
                                            after.planes[2]->copied()};
        for (std::size_t i = 0; i < before.pixels(); ++i)
            if (uniform(random, 0, 1) < 0.05)
                for (auto& plane : wrong)
                    plane[i] = static_cast<float>(uniform(random, 0, 1));
        for (std::size_t c = 0; c < 3; ++c)
            after.planes[c] = image::make_plane(std::move(wrong[c]));
        const auto pairs = fit::pairs_of(before, after, 0);
        if (!pairs)
            continue;
        const auto truth = applied(drawn, pairs.value().pairs.from);
        judge(sum, drawn, pairs.value().pairs, true, &*truth);
    }
    std::printf("pictures with noise 0.01 and 5 %% wrong: %d, seed %u: marked %d (%.1f %%), CIEDE2000 below 0.3 %d "
                "(%.1f %%), largest %.2g; %.2f s each, %.2f s the slowest\n",
                sum.tried, seed, sum.right, 100.0 * sum.right / sum.tried, sum.near, 100.0 * sum.near / sum.tried,
                sum.worst, sum.seconds / sum.tried, sum.slowest);
}

} // namespace

int main(int argc, char** argv) {
    std::setvbuf(stdout, nullptr, _IOLBF, 0);
    const std::string what = argc > 1 ? argv[1] : "luts";
    const int count = argc > 2 ? std::atoi(argv[2]) : 240;
    const auto seed = static_cast<unsigned>(argc > 3 ? std::atoi(argv[3]) : 1);
    what == "pictures" ? pictures(count, seed) : luts(count, seed);
}
