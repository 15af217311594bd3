#include "engine/wide_blur.hpp"

#include "base/parallel.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <vector>

namespace kasuri::engine {
namespace {

/// exp(u v) for |u|, |v| <= 1/2: the ninth term is below 4e-10.
constexpr std::size_t terms = 9;
using Moments = std::array<double, terms>;

/// One direction: out(x) = left(x) first + right(x) last + the sum over j of w(x - j) f(j), where
/// w(x - j) ~ e(x) e(j) exp(u(x) u(j)), u = (x - middle) / sigma, e = exp(-u^2 / 2).
class Line {
public:
    Line(int length, double sigma, double radius) : weights_(static_cast<std::size_t>(length)) {
        const double middle = (length - 1) / 2.0;
        const auto below = [](double deviations) { return 0.5 * std::erfc(-deviations / std::numbers::sqrt2); };
        const double cut = below(-radius), kept = 1 - 2 * cut;
        const double scale = 1 / (sigma * std::sqrt(2 * std::numbers::pi) * kept);
        Moments of_ones{};
        for (int x = 0; x < length; ++x) {
            Weights& w = weights_[static_cast<std::size_t>(x)];
            const double u = (x - middle) / sigma, e = std::exp(-0.5 * u * u);
            double power = e;
            for (std::size_t m = 0; m < terms; ++m, power *= u) {
                w.gives[m] = power;
                of_ones[m] += power;
            }
            w.left = std::max(0.0, (below(-(x + 0.5) / sigma) - cut) / kept);
            w.right = std::max(0.0, (below(-(length - 0.5 - x) / sigma) - cut) / kept);
            double taken = scale * e;
            for (std::size_t m = 0; m < terms; taken *= u / static_cast<double>(++m))
                w.takes[m] = taken;
        }
        for (Weights& w : weights_) { // a sum of 1, to the last digit
            double sum = w.left + w.right;
            for (std::size_t m = 0; m < terms; ++m)
                sum += w.takes[m] * of_ones[m];
            w.left /= sum;
            w.right /= sum;
            for (double& taken : w.takes)
                taken /= sum;
        }
    }
    const Moments& gives(int x) const { return weights_[static_cast<std::size_t>(x)].gives; }
    double value(int x, const Moments& moments, double first, double last) const {
        const Weights& w = weights_[static_cast<std::size_t>(x)];
        double sum = w.left * first + w.right * last;
        for (std::size_t m = 0; m < terms; ++m)
            sum += w.takes[m] * moments[m];
        return sum;
    }

private:
    struct Weights {
        Moments gives{}, takes{};
        double left = 0, right = 0;
    };
    std::vector<Weights> weights_;
};

} // namespace

bool wide_blur(double sigma, double radius, int width, int height, const float* from, float* to,
               const CancelToken& cancel) {
    const Line across(width, sigma, radius), down(height, sigma, radius);
    const auto wide = static_cast<std::size_t>(width);
    return parallel_ranges(static_cast<std::size_t>(height), 8, cancel,
                           [&](std::size_t first, std::size_t last) {
                               for (std::size_t y = first; y < last; ++y) {
                                   const float* row = from + y * wide;
                                   Moments moments{};
                                   for (int x = 0; x < width; ++x)
                                       for (std::size_t m = 0; m < terms; ++m)
                                           moments[m] += across.gives(x)[m] * static_cast<double>(row[x]);
                                   for (int x = 0; x < width; ++x)
                                       to[y * wide + static_cast<std::size_t>(x)] =
                                           static_cast<float>(across.value(x, moments, static_cast<double>(row[0]),
                                                                           static_cast<double>(row[width - 1])));
                               }
                           }) &&
        parallel_ranges(wide, 64, cancel,
                        [&](std::size_t begin, std::size_t end) {
                            std::vector<Moments> moments(end - begin);
                            const std::vector<float> top(to + begin, to + end),
                                bottom(to + (static_cast<std::size_t>(height) - 1) * wide + begin,
                                       to + (static_cast<std::size_t>(height) - 1) * wide + end);
                            for (int y = 0; y < height; ++y)
                                for (std::size_t x = begin; x < end; ++x)
                                    for (std::size_t m = 0; m < terms; ++m)
                                        moments[x - begin][m] += down.gives(y)[m] *
                                            static_cast<double>(to[static_cast<std::size_t>(y) * wide + x]);
                            for (int y = 0; y < height; ++y)
                                for (std::size_t x = begin; x < end; ++x)
                                    to[static_cast<std::size_t>(y) * wide + x] = static_cast<float>(
                                        down.value(y, moments[x - begin], static_cast<double>(top[x - begin]),
                                                   static_cast<double>(bottom[x - begin])));
                        }) &&
        !cancel.cancelled();
}

} // namespace kasuri::engine
