#include "engine/neighbourhood.hpp"

#include "base/parallel.hpp"
#include "engine/kernels.hpp"
#include "engine/scratch.hpp"
#include "engine/wide_blur.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace kasuri::engine {
namespace {

constexpr double largest_size = 1e9, largest_reach = 1e8; // beyond any picture
/// Below, a kernel is short enough; and what would remain for the small picture is too sharp to be sampled.
constexpr double direct_below = 3.5;

/// Standard deviations that a kernel reaches on either side.
double truncation_radius(double sigma) { return sigma <= 8 ? 4.6 : 4.3; }

/// Rows of floats of one width; row `first` is the first one kept.
struct Rows {
    int width = 0;
    int first = 0;
    int count = 0;
    Scratch data;

    Rows(int wide, int from, int rows)
        : width(wide), first(from), count(rows), data(static_cast<std::size_t>(wide) * static_cast<std::size_t>(rows)) {
    }
    float* row(int y) { return data.data() + static_cast<std::size_t>(y - first) * static_cast<std::size_t>(width); }
    const float* row(int y) const {
        return data.data() + static_cast<std::size_t>(y - first) * static_cast<std::size_t>(width);
    }
};

/// A run of weights; the first belongs to the sample at `begin`.
struct Weights {
    int begin = 0;
    std::vector<float> values;
};

/// exp(-(k - centre)^2 / 2 sigma^2) for `step` k within `radius` of the centre, with a sum of 1.
Weights gaussian(double sigma, double centre, double step, double radius) {
    Weights weights;
    weights.begin = static_cast<int>(std::ceil((centre - radius) / step));
    const int end = static_cast<int>(std::floor((centre + radius) / step));
    std::vector<double> exact;
    double sum = 0;
    for (int k = weights.begin; k <= end; ++k) {
        const double away = (k * step - centre) / sigma;
        exact.push_back(std::exp(-0.5 * away * away));
        sum += exact.back();
    }
    for (const double weight : exact)
        weights.values.push_back(static_cast<float>(weight / sum));
    return weights;
}

/// How one direction is blurred.
struct Plan {
    int step = 1;               ///< D: every how many pixels one is kept
    Weights before;             ///< around the kept pixels; for step 1 the whole kernel
    Weights middle;             ///< on the kept ones
    std::vector<Weights> after; ///< for each place between two kept ones
    int margin = 0;             ///< kept samples outside the picture on either side
    int middle_margin = 0;      ///< of those, how many the middle step must leave right

    explicit Plan(double sigma) {
        const double ends = truncation_radius(sigma);
        if (sigma < direct_below) {
            before = gaussian(sigma, 0, 1, std::max(1.0, std::ceil(ends * sigma)));
            return;
        }
        // Not more than sigma / sqrt(3), so that at least one kept pixel of deviation remains for the middle.
        step = std::max(2, static_cast<int>(sigma / 1.75));
        const double d = step;
        before = gaussian(d, 0, 1, ends * d);
        const double rest = std::sqrt(std::max(sigma * sigma - 2 * d * d, 0.25 * d * d)) / d;
        middle = gaussian(rest, 0, 1, std::ceil(ends * rest));
        for (int place = 0; place < step; ++place)
            after.push_back(gaussian(d, place, d, ends * d));
        middle_margin = static_cast<int>(std::ceil(ends)) + 1;
        margin = middle_margin - middle.begin;
    }
    int kept(int length) const { return (length + step - 1) / step; }
};

/// What one row of a result is made of.
struct Sum {
    std::vector<const float*> rows;
    std::vector<float> weights;

    void clear() {
        rows.clear();
        weights.clear();
    }
    /// A row that comes again (the edge) is read once.
    void add(const float* row, float weight) {
        if (!rows.empty() && rows.back() == row) {
            weights.back() += weight;
            return;
        }
        rows.push_back(row);
        weights.push_back(weight);
    }
};

/// Rows [0, count) of `width` floats: `fill(y, sum)` says what row y is made of, `target(y)` where it goes. Goes down
/// the rows in columns narrow enough that the rows that neighbours share stay in the nearest cache.
template <class Fill, class Target>
bool convolve_rows(int count, int width, Fill&& fill, Target&& target, const CancelToken& cancel) {
    constexpr std::size_t columns = 256;
    return parallel_ranges(static_cast<std::size_t>(count), 32, cancel,
                           [&](std::size_t first, std::size_t last) {
                               const FlushSubnormals flush;
                               std::vector<Sum> sums(last - first);
                               for (std::size_t y = first; y < last; ++y)
                                   fill(static_cast<int>(y), sums[y - first]);
                               std::vector<const float*> rows;
                               for (std::size_t x = 0; x < static_cast<std::size_t>(width) && !cancel.cancelled();
                                    x += columns)
                                   for (std::size_t y = first; y < last; ++y) {
                                       const Sum& sum = sums[y - first];
                                       rows.resize(sum.rows.size());
                                       for (std::size_t k = 0; k < rows.size(); ++k)
                                           rows[k] = sum.rows[k] + x;
                                       kernels().convolve_rows(rows.data(), sum.weights.data(), rows.size(),
                                                               target(static_cast<int>(y)) + x,
                                                               std::min(columns, static_cast<std::size_t>(width) - x));
                                   }
                           }) &&
        !cancel.cancelled();
}

/// One row, kept at every step-th pixel, blurred there and filled up again.
class RowBlur {
public:
    RowBlur(const Plan& plan, int width) : plan_(plan), width_(width) {
        const int kept = plan.kept(width);
        if (plan.step == 1) {
            padded_.resize(static_cast<std::size_t>(width) + plan.before.values.size());
            rows_.resize(plan.before.values.size());
            return;
        }
        // x[j D + k] with k = a D + q is element j + a of phase q.
        first_ = -plan.margin + floor_div(plan.before.begin, plan.step);
        const int last = kept + plan.margin +
            floor_div(plan.before.begin + static_cast<int>(plan.before.values.size()), plan.step) + 1;
        phase_length_ = static_cast<std::size_t>(last - first_);
        phases_.resize(phase_length_ * static_cast<std::size_t>(plan.step));
        small_.resize(static_cast<std::size_t>(kept + 2 * plan.margin));
        blurred_.resize(static_cast<std::size_t>(kept + 2 * plan.middle_margin));
        filled_.resize(static_cast<std::size_t>(kept));
    }

    void run(const float* from, float* to) {
        if (plan_.step == 1) {
            direct(from, to);
            return;
        }
        const auto step = static_cast<std::size_t>(plan_.step);
        for (std::size_t i = 0; i < phase_length_; ++i)
            for (std::size_t q = 0; q < step; ++q) {
                const int x = (first_ + static_cast<int>(i)) * plan_.step + static_cast<int>(q);
                phases_[q * phase_length_ + i] = from[std::clamp(x, 0, width_ - 1)];
            }
        convolve(plan_.before, small_, [&](int k) {
            const int a = floor_div(k, plan_.step);
            const auto q = static_cast<std::size_t>(k - a * plan_.step);
            return phases_.data() + q * phase_length_ + static_cast<std::size_t>(-plan_.margin + a - first_);
        });
        convolve(plan_.middle, blurred_,
                 [&](int k) { return small_.data() + (plan_.margin - plan_.middle_margin + k); });
        for (std::size_t q = 0; q < step; ++q) {
            convolve(plan_.after[q], filled_, [&](int k) { return blurred_.data() + (plan_.middle_margin + k); });
            for (std::size_t j = 0, x = q; x < static_cast<std::size_t>(width_); ++j, x += step)
                to[x] = filled_[j];
        }
    }

private:
    static int floor_div(int a, int b) { return a >= 0 ? a / b : -((-a + b - 1) / b); }

    template <class Start>
    void convolve(const Weights& weights, std::vector<float>& to, Start&& start) {
        rows_.resize(weights.values.size());
        for (std::size_t k = 0; k < rows_.size(); ++k)
            rows_[k] = start(weights.begin + static_cast<int>(k));
        kernels().convolve_rows(rows_.data(), weights.values.data(), rows_.size(), to.data(), to.size());
    }

    void direct(const float* from, float* to) {
        const int before = -plan_.before.begin;
        for (std::size_t i = 0; i < padded_.size(); ++i)
            padded_[i] = from[std::clamp(static_cast<int>(i) - before, 0, width_ - 1)];
        for (std::size_t k = 0; k < rows_.size(); ++k)
            rows_[k] = padded_.data() + k;
        kernels().convolve_rows(rows_.data(), plan_.before.values.data(), rows_.size(), to,
                                static_cast<std::size_t>(width_));
    }

    const Plan& plan_;
    int width_;
    int first_ = 0;
    std::size_t phase_length_ = 0;
    std::vector<float> padded_, phases_, small_, blurred_, filled_;
    std::vector<const float*> rows_;
};

bool blur_rows(const Plan& plan, const Rows& from, Rows& to, const CancelToken& cancel) {
    return parallel_ranges(static_cast<std::size_t>(to.count), 8, cancel,
                           [&](std::size_t first, std::size_t last) {
                               const FlushSubnormals flush;
                               RowBlur row(plan, to.width);
                               for (std::size_t i = first; i < last && !cancel.cancelled(); ++i) {
                                   const int y = to.first + static_cast<int>(i);
                                   row.run(from.row(y), to.row(y));
                               }
                           }) &&
        !cancel.cancelled();
}

bool blur(double sigma, int width, int height, const float* from, float* to, const CancelToken& cancel) {
    if (sigma >= std::max(width, height) && sigma >= direct_below)
        return wide_blur(std::min(sigma, largest_size), truncation_radius(sigma), width, height, from, to, cancel);
    const Plan plan(sigma);
    const auto picture_row = [&](int y) {
        return from + static_cast<std::size_t>(std::clamp(y, 0, height - 1)) * static_cast<std::size_t>(width);
    };
    const auto gather = [](Sum& sum, const Weights& weights, int centre, auto&& row) {
        sum.clear();
        for (std::size_t k = 0; k < weights.values.size(); ++k)
            sum.add(row(centre + weights.begin + static_cast<int>(k)), weights.values[k]);
    };
    if (plan.step == 1) {
        Rows across(width, 0, height);
        if (!convolve_rows(
                height, width, [&](int y, Sum& sum) { gather(sum, plan.before, y, picture_row); },
                [&](int y) { return across.row(y); }, cancel))
            return false;
        return parallel_ranges(static_cast<std::size_t>(height), 8, cancel,
                               [&](std::size_t first, std::size_t last) {
                                   const FlushSubnormals flush;
                                   RowBlur row(plan, width);
                                   for (std::size_t y = first; y < last && !cancel.cancelled(); ++y)
                                       row.run(across.row(static_cast<int>(y)),
                                               to + y * static_cast<std::size_t>(width));
                               }) &&
            !cancel.cancelled();
    }
    const int kept = plan.kept(height);
    Rows few(width, -plan.margin, kept + 2 * plan.margin);
    if (!convolve_rows(
            few.count, width,
            [&](int i, Sum& sum) { gather(sum, plan.before, (few.first + i) * plan.step, picture_row); },
            [&](int i) { return few.row(few.first + i); }, cancel))
        return false;
    Rows middle(width, -plan.middle_margin, kept + 2 * plan.middle_margin);
    if (!convolve_rows(
            middle.count, width,
            [&](int i, Sum& sum) { gather(sum, plan.middle, middle.first + i, [&](int y) { return few.row(y); }); },
            [&](int i) { return middle.row(middle.first + i); }, cancel))
        return false;
    Rows across(width, middle.first, middle.count);
    if (!blur_rows(plan, middle, across, cancel))
        return false;
    return convolve_rows(
        height, width,
        [&](int y, Sum& sum) {
            gather(sum, plan.after[static_cast<std::size_t>(y % plan.step)], y / plan.step,
                   [&](int k) { return across.row(k); });
        },
        [&](int y) { return to + static_cast<std::size_t>(y) * static_cast<std::size_t>(width); }, cancel);
}

/// Largest (or smallest) of a disc: for every row of the disc the maximum over its half width, from maxima over
/// 1, 2, 4 ... pixels, of which two overlapping ones make any width.
class Disc {
public:
    Disc(bool largest, double radius, int width, int height, const float* from)
        : width_(width), height_(height), from_(from),
          reach_(static_cast<int>(std::min(radius, static_cast<double>(std::max(width, height))))),
          widen_(largest ? kernels().widen_max : kernels().widen_min) {
        for (int dy = 0; dy <= reach_; ++dy)
            half_.push_back(static_cast<int>( // further away there is only the repeated edge
                std::min<double>(width, std::sqrt(std::max(0.0, radius * radius - static_cast<double>(dy) * dy)))));
        reach_ = std::min(reach_, height);
        half_.resize(static_cast<std::size_t>(reach_) + 1);
        for (std::size_t span = 1; span <= static_cast<std::size_t>(2 * half_[0] + 1); span *= 2)
            ++levels_;
        padded_length_ = static_cast<std::size_t>(width + 2 * half_[0]);
    }

    /// Rows [first, last) of the result.
    void band(int first, int last, float* to, const CancelToken& cancel) const {
        std::vector<std::vector<float>> level(static_cast<std::size_t>(levels_),
                                              std::vector<float>(padded_length_ + widest_vector));
        std::vector<bool> begun(static_cast<std::size_t>(last - first));
        for (int y = first - reach_; y < last + reach_ && !cancel.cancelled(); ++y) {
            const float* row =
                from_ + static_cast<std::size_t>(std::clamp(y, 0, height_ - 1)) * static_cast<std::size_t>(width_);
            const int pad = half_[0];
            for (std::size_t i = 0; i < padded_length_; ++i)
                level[0][i] = row[std::clamp(static_cast<int>(i) - pad, 0, width_ - 1)];
            for (std::size_t k = 1; k < level.size(); ++k) {
                const std::size_t half = std::size_t{1} << (k - 1);
                const std::size_t count = padded_length_ - 2 * half + 1;
                std::copy_n(level[k - 1].begin(), count, level[k].begin());
                widen_(level[k - 1].data() + half, level[k - 1].data() + half, level[k].data(), count);
            }
            for (int out = std::max(first, y - reach_); out < std::min(last, y + reach_ + 1); ++out) {
                const int half = half_[static_cast<std::size_t>(std::abs(y - out))];
                const auto span = static_cast<std::size_t>(2 * half + 1);
                std::size_t k = 0;
                while ((std::size_t{2} << k) <= span)
                    ++k;
                const float* left = level[k].data() + (pad - half);
                const float* right = left + (span - (std::size_t{1} << k));
                float* target = to + static_cast<std::size_t>(out) * static_cast<std::size_t>(width_);
                if (!begun[static_cast<std::size_t>(out - first)]) {
                    std::copy_n(left, width_, target);
                    begun[static_cast<std::size_t>(out - first)] = true;
                }
                widen_(left, right, target, static_cast<std::size_t>(width_));
            }
        }
    }
    int reach() const { return reach_; }

private:
    int width_, height_;
    const float* from_;
    int reach_;
    void (*widen_)(const float*, const float*, float*, std::size_t);
    std::vector<int> half_; ///< half width of the disc's row at each distance from its middle
    int levels_ = 0;
    std::size_t padded_length_ = 0;
};

bool disc(bool largest, double radius, int width, int height, const float* from, float* to, const CancelToken& cancel) {
    const Disc disc(largest, radius, width, height, from);
    // A band looks at rows above and below itself, too: tall enough that this is not most of the work.
    const int tall = std::max(16, disc.reach());
    const auto bands = static_cast<std::size_t>((height + tall - 1) / tall);
    return parallel_ranges(bands, 1, cancel,
                           [&](std::size_t first, std::size_t last) {
                               for (std::size_t band = first; band < last; ++band)
                                   disc.band(static_cast<int>(band) * tall,
                                             std::min(height, static_cast<int>(band + 1) * tall), to, cancel);
                           }) &&
        !cancel.cancelled();
}

/// One row: a neighbourhood, of a size above 0.
struct NeighbourhoodRow {
    ir::Neighbour kind;
    int (*reach)(double size);
    bool (*run)(double size, int width, int height, const float* from, float* to, const CancelToken& cancel);
};
template <bool largest>
bool disc_of(double radius, int width, int height, const float* from, float* to, const CancelToken& cancel) {
    return disc(largest, radius, width, height, from, to, cancel);
}
int disc_reach(double radius) { return static_cast<int>(radius); }
int blur_reach(double sigma) {
    // The three parts of a large blur reach further than the kernel that they make together.
    return static_cast<int>(std::ceil((sigma < direct_below ? 1 : 2) * truncation_radius(sigma) * sigma)) + 4;
}
constexpr NeighbourhoodRow rows[] = {
    {ir::Neighbour::blur, blur_reach, blur},
    {ir::Neighbour::dilate, disc_reach, disc_of<true>},
    {ir::Neighbour::erode, disc_reach, disc_of<false>},
};
const NeighbourhoodRow& row_of(ir::Neighbour kind) { return rows[static_cast<std::size_t>(kind)]; }

} // namespace

int reach(ir::Neighbour kind, double size) { return size > 0 ? row_of(kind).reach(std::min(size, largest_reach)) : 0; }

bool filter_neighbourhood(ir::Neighbour kind, double size, int width, int height, const float* from, float* to,
                          const CancelToken& cancel) {
    const std::size_t count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    if (std::isnan(size))
        std::fill_n(to, count, std::numeric_limits<float>::quiet_NaN());
    else if (!(size > 0))
        std::copy_n(from, count, to);
    else
        return row_of(kind).run(size, width, height, from, to, cancel);
    return !cancel.cancelled();
}

} // namespace kasuri::engine
