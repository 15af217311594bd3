#include "pairing/patches.hpp"

#include "base/said.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numeric>

namespace kasuri::pairing {
namespace {

using Colour = std::array<double, 3>;

constexpr double inner = 0.5; ///< of a patch's width: what is looked at
constexpr double most_clipped = 0.05, most_left_out = 0.5, most_uneven = 0.1, far_out = 5;
constexpr int fewest_pixels = 3;
/// Of a patch along a side, and of all patches: a corner that is dragged is followed at once, however many there are.
constexpr int most_samples = 64, fewest_samples = 8, most_of_all = 200'000;

double median(std::vector<double> numbers) {
    const auto middle = numbers.begin() + static_cast<std::ptrdiff_t>(numbers.size() / 2);
    std::nth_element(numbers.begin(), middle, numbers.end());
    return *middle;
}

struct Sample {
    Colour colour{};
    std::size_t quarter = 0;
    bool counts = true;
};

/// Which samples are near the others: marks those that are not.
void leave_out_strangers(std::vector<Sample>& samples) {
    for (std::size_t c = 0; c < 3; ++c) {
        std::vector<double> all;
        for (const Sample& s : samples)
            all.push_back(s.colour[c]);
        const double middle = median(all);
        for (double& x : all)
            x = std::fabs(x - middle);
        const double usual = 1.4826 * median(all);
        for (Sample& s : samples)
            if (std::fabs(s.colour[c] - middle) > std::max(far_out * usual, 1e-6 + 1e-4 * std::fabs(middle)))
                s.counts = false;
    }
}

/// Mean and deviation of those that count; of a quarter, or of all (4).
std::pair<Colour, double> mean_of(const std::vector<Sample>& samples, std::size_t quarter) {
    Colour sum{}, squares{};
    double count = 0;
    for (const Sample& s : samples)
        if (s.counts && (quarter == 4 || s.quarter == quarter)) {
            ++count;
            for (std::size_t c = 0; c < 3; ++c) {
                sum[c] += s.colour[c];
                squares[c] += s.colour[c] * s.colour[c];
            }
        }
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c) {
        sum[c] /= count;
        most = std::max(most, squares[c] / count - sum[c] * sum[c]);
    }
    return {sum, std::sqrt(std::max(0.0, most))};
}

/// How far the quarters of a patch are from all of it, as a share of its brightest channel.
double unevenness(const std::vector<Sample>& samples, const Colour& mean) {
    double most = 0;
    for (std::size_t quarter = 0; quarter < 4; ++quarter) {
        const Colour part = mean_of(samples, quarter).first;
        for (std::size_t c = 0; c < 3; ++c)
            if (std::isfinite(part[c]))
                most = std::max(most, std::fabs(part[c] - mean[c]));
    }
    return most / std::max({std::fabs(mean[0]), std::fabs(mean[1]), std::fabs(mean[2]), 1e-6});
}

Patch judged(std::vector<Sample> samples, std::size_t looked_at, std::size_t clipped) {
    Patch patch;
    const auto all = static_cast<double>(looked_at);
    patch.clipped = static_cast<double>(clipped) / all;
    if (2 * samples.size() < looked_at) {
        patch.left_out = 1 - static_cast<double>(samples.size()) / all;
        patch.why_not = said("outside the picture, or no numbers");
        return patch;
    }
    // A shine has many shades: it is seen in all pixels, before what is strange is left out.
    const double uneven = unevenness(samples, mean_of(samples, 4).first);
    leave_out_strangers(samples);
    const auto counted =
        static_cast<double>(std::count_if(samples.begin(), samples.end(), [](const Sample& s) { return s.counts; }));
    patch.left_out = 1 - counted / all;
    if (counted > 0)
        std::tie(patch.colour, patch.noise) = mean_of(samples, 4);
    if (patch.clipped > most_clipped)
        patch.why_not = said("clipped: {:.0f} % of it", 100 * patch.clipped);
    else if (patch.left_out > most_left_out)
        patch.why_not = said("something covers {:.0f} % of it", 100 * patch.left_out);
    else if (uneven > most_uneven)
        patch.why_not = said("uneven: its quarters differ by {:.0f} %", 100 * uneven);
    return patch;
}

/// Places in the order of brightness.
std::vector<double> ranks(const std::vector<double>& numbers) {
    std::vector<std::size_t> order(numbers.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return numbers[a] < numbers[b]; });
    std::vector<double> made(numbers.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        made[order[i]] = static_cast<double>(i);
    return made;
}

/// Of two orders of the same length: 1 the same, -1 the other way round (C. Spearman 1904).
double agreement(const std::vector<double>& a, const std::vector<double>& b) {
    const auto n = static_cast<double>(a.size());
    double sum = 0;
    for (std::size_t i = 0; i < a.size(); ++i)
        sum += (a[i] - b[i]) * (a[i] - b[i]);
    return 1 - 6 * sum / (n * (n * n - 1));
}

} // namespace

bool seems_upside_down(const std::vector<Patch>& seen, const std::vector<Patch>& wanted) {
    if (seen.size() != wanted.size() || seen.size() < 4)
        return false;
    const auto bright = [](const Patch& p) { return 0.2 * p.colour[0] + 0.7 * p.colour[1] + 0.1 * p.colour[2]; };
    std::vector<double> a, b;
    for (std::size_t i = 0; i < seen.size(); ++i) {
        a.push_back(bright(seen[i]));
        b.push_back(bright(wanted[i]));
    }
    const std::vector<double> in_a = ranks(a), in_b = ranks(b);
    return agreement({in_a.rbegin(), in_a.rend()}, in_b) > agreement(in_a, in_b) + 0.3;
}

Ends ends_of(const image::Picture& picture, double unsure_ends) {
    if (unsure_ends > 0)
        return {unsure_ends, {1 - unsure_ends, 1 - unsure_ends, 1 - unsure_ends}};
    // A sensor or a file that ends somewhere: many pixels have the very same largest number.
    Ends ends;
    for (std::size_t c = 0; c < 3; ++c) {
        const image::PlaneData& plane = *picture.planes[c];
        float most = -1e30F;
        for (const float x : plane)
            if (std::isfinite(x))
                most = std::max(most, x);
        const auto many = static_cast<std::size_t>(std::count(plane.begin(), plane.end(), most));
        if (many >= std::max<std::size_t>(4, plane.size() / 2000))
            ends.high[c] = static_cast<double>(most);
    }
    return ends;
}

Result<std::vector<Patch>> patches_of(const image::Picture& picture, const image::Corners& corners, int columns,
                                      int rows, const Ends& ends) {
    const auto view = image::Perspective::make(corners);
    if (!view)
        return Error{"the four corners make no four-sided figure", "",
                     "Give them in turn, from the first patch on: along its row, to the last patch, and back."};
    const int side =
        std::clamp(static_cast<int>(std::sqrt(most_of_all / (columns * rows))), fewest_samples, most_samples);
    std::vector<Patch> made;
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const auto at = [&](double u, double v) { return view->at((column + u) / columns, (row + v) / rows); };
            const auto far = [&](image::Point a, image::Point b) { return std::hypot(a.x - b.x, a.y - b.y); };
            constexpr double begin = (1 - inner) / 2, end = (1 + inner) / 2;
            const double across = far(at(begin, 0.5), at(end, 0.5)), down = far(at(0.5, begin), at(0.5, end));
            if (across < fewest_pixels || down < fewest_pixels)
                return Error{said("the patches are too small: {:.1f} x {:.1f} pixels without their rims", across, down),
                             "", "The corners lie too near to each other."};
            const int nx = std::min(side, static_cast<int>(across)), ny = std::min(side, static_cast<int>(down));
            std::vector<Sample> samples;
            std::size_t clipped = 0;
            for (int j = 0; j < ny; ++j)
                for (int i = 0; i < nx; ++i) {
                    const double u = (i + 0.5) / nx, v = (j + 0.5) / ny;
                    const image::Point p = at(begin + inner * u, begin + inner * v);
                    const double x = std::floor(p.x), y = std::floor(p.y);
                    if (!(x >= 0 && y >= 0 && x < picture.width && y < picture.height))
                        continue;
                    const std::array<float, 4> read = picture.at(static_cast<int>(x), static_cast<int>(y));
                    Sample sample;
                    sample.quarter = static_cast<std::size_t>((u >= 0.5 ? 1 : 0) + (v >= 0.5 ? 2 : 0));
                    bool at_end = false, finite = true;
                    for (std::size_t c = 0; c < 3; ++c) {
                        sample.colour[c] = static_cast<double>(read[c]);
                        finite = finite && std::isfinite(sample.colour[c]);
                        at_end = at_end || sample.colour[c] <= ends.low || sample.colour[c] >= ends.high[c];
                    }
                    clipped += at_end;
                    if (finite)
                        samples.push_back(sample);
                }
            made.push_back(
                judged(std::move(samples), static_cast<std::size_t>(nx) * static_cast<std::size_t>(ny), clipped));
        }
    return made;
}

} // namespace kasuri::pairing
