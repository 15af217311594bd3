#include "pairing/registration_module.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>
#include <optional>
#include <type_traits>
#include <vector>

using kasuri::pairing::RawPicture;

namespace {

constexpr int coarse = 160, finest = 1600; ///< longest sides of copies: whose phases are correlated, and of the largest
constexpr double surely = 0.6, no_gain = 0.004; ///< correlation: enough not to look elsewhere; as good as before
constexpr double largest_scale = 3, scale_step = 1.03, matches = 0.25;

/// Copies of so many pixels, softened so far, in so many steps at most: small ones reach far, large ones are exact.
struct Level {
    int longest, blur, steps;
};
constexpr Level levels[] = {{400, 9, 60}, {800, 3, 30}, {finest, 3, 10}};

/// Whether the work is still wanted.
struct Cancel {
    bool (*cancelled)(const void*);
    const void* token;
    bool operator()() const { return cancelled(token); }
};

struct Found {
    double map[6] = {1, 0, 0, 0, 1, 0};
    double correlation = 0, before = 0;
};

/// Its channels as 8 bits, each of them as frequent as the others: a grade by a curve is gone then.
using Flat = std::vector<cv::Mat>;

Flat flat(const RawPicture& picture) {
    const double by = std::min(1.0, static_cast<double>(finest) / std::max(picture.width, picture.height));
    const cv::Size size(static_cast<int>(std::lround(picture.width * by)),
                        static_cast<int>(std::lround(picture.height * by)));
    Flat channels;
    for (std::size_t c = 0; c < 3; ++c) {
        if (c > 0 && picture.planes[c] == picture.planes[0])
            continue;
        // A view of the plane; it is only read.
        const cv::Mat whole(picture.height, picture.width, CV_32F, const_cast<float*>(picture.planes[c]));
        cv::Mat resized, made;
        cv::resize(whole, resized, size, 0, 0, cv::INTER_AREA);
        for (float& x : cv::Mat_<float>(resized))
            x = std::isfinite(x) ? std::asinh(8 * x) : 0.0F; // light: what is above 1 must not squeeze the rest
        cv::normalize(resized, made, 0, 255, cv::NORM_MINMAX, CV_8U);
        cv::equalizeHist(made, made);
        channels.push_back(made);
    }
    return channels;
}

/// How much changes at each place, in all channels: 0 to about 3.
cv::Mat edges(const Flat& channels, int longest) {
    const cv::Size whole = channels.front().size();
    const double by = std::min(1.0, static_cast<double>(longest) / std::max(whole.width, whole.height));
    const cv::Size size(std::max(1, static_cast<int>(std::lround(whole.width * by))),
                        std::max(1, static_cast<int>(std::lround(whole.height * by))));
    cv::Mat sum = cv::Mat::zeros(size, CV_32F);
    for (const cv::Mat& channel : channels) {
        cv::Mat x, dx, dy, strength;
        cv::resize(channel, x, size, 0, 0, cv::INTER_AREA);
        cv::GaussianBlur(x, x, {}, 1);
        cv::Sobel(x, dx, CV_32F, 1, 0);
        cv::Sobel(x, dy, CV_32F, 0, 1);
        cv::magnitude(dx, dy, strength);
        sum += cv::min(strength, 400) / 400;
    }
    return sum;
}

/// Of whole pictures as maps between copies that are `by_a` and `by_b` as large; pixel centres have whole numbers.
cv::Mat scaled(const cv::Mat& map, double by_a, double by_b) {
    cv::Mat made = map.clone();
    for (int row = 0; row < 2; ++row) {
        const auto m = [&](int column) { return static_cast<double>(map.at<float>(row, column)); };
        made.at<float>(row, 0) = static_cast<float>(m(0) * by_a / by_b);
        made.at<float>(row, 1) = static_cast<float>(m(1) * by_a / by_b);
        // x_a + 0.5 = by_a * (X_a + 0.5), and the same of b.
        const double half = (0.5 / by_b - 0.5) * (m(0) + m(1)) + m(2) + 0.5;
        made.at<float>(row, 2) = static_cast<float>(by_a * half - 0.5);
    }
    return made;
}

/// The map of whole pictures, so many pixels wide, that brings edges `b` over `a`, from shift and scale of small
/// copies.
std::optional<cv::Mat> roughly(const cv::Mat& a, const cv::Mat& b, int width_a, int width_b, const Cancel& cancel) {
    double best = 0, scale = 0;
    cv::Point2d at;
    const int side = cv::getOptimalDFTSize(2 * std::max(a.cols, a.rows));
    cv::Mat first = cv::Mat::zeros(side, side, CV_32F);
    a.copyTo(first(cv::Rect(0, 0, a.cols, a.rows)));
    const int steps = static_cast<int>(std::log(largest_scale) / std::log(scale_step));
    for (int i = -steps; i <= steps && !cancel(); ++i) {
        const double by = std::pow(scale_step, i);
        const cv::Size size(static_cast<int>(std::lround(b.cols * by)), static_cast<int>(std::lround(b.rows * by)));
        if (size.width < 16 || size.height < 16 || size.width > side || size.height > side)
            continue;
        cv::Mat resized, second = cv::Mat::zeros(side, side, CV_32F);
        cv::resize(b, resized, size, 0, 0, by < 1 ? cv::INTER_AREA : cv::INTER_LINEAR);
        resized.copyTo(second(cv::Rect(0, 0, size.width, size.height)));
        double response = 0;
        const cv::Point2d shift = cv::phaseCorrelate(second, first, cv::noArray(), &response);
        if (response > best) {
            best = response;
            scale = by;
            at = shift;
        }
    }
    if (scale == 0)
        return std::nullopt;
    const cv::Mat small = (cv::Mat_<float>(2, 3) << static_cast<float>(scale), 0, static_cast<float>(at.x), 0,
                           static_cast<float>(scale), static_cast<float>(at.y));
    return scaled(small, static_cast<double>(width_a) / a.cols, static_cast<double>(width_b) / b.cols);
}

double correlation(const cv::Mat& a, const cv::Mat& b, const cv::Mat& map) {
    cv::Mat moved, mask;
    cv::warpAffine(a, moved, map, b.size(), cv::INTER_LINEAR | cv::WARP_INVERSE_MAP);
    cv::warpAffine(cv::Mat::ones(a.size(), CV_8U), mask, map, b.size(), cv::INTER_NEAREST | cv::WARP_INVERSE_MAP);
    if (cv::countNonZero(mask) < 64)
        return 0;
    const double made = cv::computeECC(b, moved, mask);
    return std::isfinite(made) ? made : 0;
}

void be_silent() {
    // What goes wrong is told by us, once, in a sentence.
    static const bool once = [] {
        cv::redirectError([](int, const char*, const char*, const char*, int, void*) { return 0; });
        return true;
    }();
    (void)once;
}

std::optional<Found> found(const RawPicture& before, const RawPicture& after, const Cancel& cancel) {
    const Flat flat_a = flat(before), flat_b = flat(after);
    const cv::Mat unmoved = cv::Mat::eye(2, 3, CV_32F);
    cv::Mat whole = unmoved;
    Found made;
    for (const Level& level : levels) {
        const cv::Mat a = edges(flat_a, level.longest), b = edges(flat_b, level.longest);
        const double by_a = static_cast<double>(a.cols) / before.width,
                     by_b = static_cast<double>(b.cols) / after.width;
        made.before = correlation(a, b, scaled(unmoved, by_a, by_b));
        if (&level == levels && made.before < surely)
            if (const auto rough =
                    roughly(edges(flat_a, coarse), edges(flat_b, coarse), before.width, after.width, cancel))
                if (correlation(a, b, scaled(*rough, by_a, by_b)) > made.before)
                    whole = *rough;
        if (cancel())
            return std::nullopt;
        cv::Mat map = scaled(whole, by_a, by_b);
        cv::findTransformECC(b, a, map, cv::MOTION_AFFINE,
                             cv::TermCriteria(cv::TermCriteria::COUNT | cv::TermCriteria::EPS, level.steps, 1e-6),
                             cv::noArray(), level.blur);
        made.correlation = correlation(a, b, map);
        whole = scaled(map, 1 / by_a, 1 / by_b);
        if (&level == levels && made.correlation < made.before + no_gain)
            break; // they lie on each other
    }
    for (std::size_t i = 0; i < 6; ++i)
        made.map[i] = static_cast<double>(whole.at<float>(static_cast<int>(i / 3), static_cast<int>(i % 3)));
    return made.correlation < matches ? std::nullopt : std::optional(made);
}

} // namespace

extern "C" __attribute__((visibility("default"))) bool
kasuri_register_pictures(const RawPicture& first, const RawPicture& second, bool (*cancelled)(const void*),
                         const void* token, double (&map)[6], double& correlation, double& before) {
    be_silent();
    if (std::min({first.width, first.height, second.width, second.height}) < 16)
        return false;
    try {
        const auto made = found(first, second, {cancelled, token});
        if (!made)
            return false;
        std::copy(std::begin(made->map), std::end(made->map), std::begin(map));
        correlation = made->correlation;
        before = made->before;
        return true;
    } catch (const std::exception&) { // it did not settle: the pictures have too little in common, or do not fit
        return false;
    }
}

extern "C" __attribute__((visibility("default"))) bool kasuri_warp_picture(const RawPicture& picture,
                                                                           const double (&map)[6], int width,
                                                                           int height, double soften,
                                                                           float* const (&into)[3]) {
    be_silent();
    try {
        const cv::Mat place = (cv::Mat_<double>(2, 3) << map[0], map[1], map[2], map[3], map[4], map[5]);
        for (std::size_t c = 0; c < 3; ++c) {
            cv::Mat whole(picture.height, picture.width, CV_32F, const_cast<float*>(picture.planes[c]));
            if (soften > 0.1) {
                cv::Mat soft;
                cv::GaussianBlur(whole, soft, {}, soften, soften, cv::BORDER_REPLICATE);
                whole = soft;
            }
            cv::Mat moved(height, width, CV_32F, into[c]);
            cv::warpAffine(whole, moved, place, {width, height}, cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                           cv::BORDER_CONSTANT, cv::Scalar(std::numeric_limits<double>::quiet_NaN()));
        }
        return true;
    } catch (const std::exception&) {
        return false;
    }
}

// The compiler holds both to what the program expects.
static_assert(std::is_same_v<decltype(&kasuri_register_pictures), kasuri::pairing::RegisterPictures>);
static_assert(std::is_same_v<decltype(&kasuri_warp_picture), kasuri::pairing::WarpPicture>);
