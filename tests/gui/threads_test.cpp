#include "targets/target.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/strip_view.hpp"
#include "widgets/sheet/threads.hpp"

#include <QImage>
#include <QPainter>

#include <catch2/catch.hpp>

#include <cmath>
#include <functional>

using namespace kasuri;
using namespace kasuri::app;

namespace {

constexpr int width = 300, height = 60;

image::Picture row(const std::function<std::array<double, 3>(double)>& colour) {
    return image::generated(width, 1, [&](int x, int) { return colour((x + 0.5) / width); });
}

QImage drawn(const image::Picture& picture, const ThreadScale& scale, bool solid = true) {
    QImage image(width, height, QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter painter(&image);
    draw_traces(painter, QRectF(0, 0, width, height), scale, picture, solid);
    return image;
}

/// Whether a pixel is a trace's colour on white, however antialiasing has thinned it.
bool is_trace(QRgb pixel, std::size_t channel) {
    const QColor c = theme::trace[channel];
    const double ink[3] = {255.0 - qRed(pixel), 255.0 - qGreen(pixel), 255.0 - qBlue(pixel)};
    const double full[3] = {255.0 - c.red(), 255.0 - c.green(), 255.0 - c.blue()};
    double dot = 0, a = 0, b = 0;
    for (int i = 0; i < 3; ++i) {
        dot += ink[i] * full[i];
        a += ink[i] * ink[i];
        b += full[i] * full[i];
    }
    return a > 60 * 60 && dot > 0.985 * std::sqrt(a * b);
}

/// Columns in which a trace's colour appears anywhere.
int columns_with(const QImage& image, std::size_t channel) {
    int found = 0;
    for (int x = 0; x < image.width(); ++x)
        for (int y = 0; y < image.height(); ++y)
            if (is_trace(image.pixel(x, y), channel)) {
                ++found;
                break;
            }
    return found;
}

} // namespace

TEST_CASE("traces that part are drawn whole", "[threads]") {
    const image::Picture picture = row([](double t) {
        return std::array<double, 3>{0.2 + 0.1 * t, 0.5, 0.8 - 0.1 * t};
    });
    const QImage image = drawn(picture, {0, 1, targets::Scale::linear});
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(columns_with(image, c) > width - 8);
}

TEST_CASE("traces that coincide are plied: each is seen in its turn", "[threads]") {
    const image::Picture picture = row([](double t) { return std::array<double, 3>{t, t, t}; });
    const QImage image = drawn(picture, {0, 1, targets::Scale::linear});
    for (std::size_t c = 0; c < 3; ++c) {
        CHECK(columns_with(image, c) > width / 6);
        CHECK(columns_with(image, c) < width / 2);
    }
    // Two of three coincide: the third is whole, the two take turns.
    const image::Picture two = row([](double t) { return std::array<double, 3>{0.9, t * 0.5, t * 0.5}; });
    const QImage pair = drawn(two, {0, 1, targets::Scale::linear});
    CHECK(columns_with(pair, 0) > width - 8);
    CHECK(columns_with(pair, 1) > width / 4);
    CHECK(columns_with(pair, 2) > width / 4);
    CHECK(columns_with(pair, 1) < width * 3 / 4);
}

TEST_CASE("a bend stands exactly under the colour that makes it", "[threads]") {
    const image::Picture picture = row([](double t) { return std::array<double, 3>{t < 0.5 ? 0.1 : 0.9, 0, 0}; });
    const QImage image = drawn(picture, {-0.2, 1, targets::Scale::linear});
    const auto red_at = [&](int x) {
        for (int y = 0; y < height; ++y)
            if (is_trace(image.pixel(x, y), 0))
                return y;
        return -1;
    };
    CHECK(red_at(140) > 40); // low before the middle
    CHECK(red_at(160) < 10); // high after it
}

TEST_CASE("NaN leaves a gap and does no harm", "[threads]") {
    const image::Picture picture = row([](double t) {
        return std::array<double, 3>{t > 0.4 && t < 0.6 ? std::nan("") : 0.5, 0.1, 0.9};
    });
    const QImage image = drawn(picture, {0, 1, targets::Scale::linear});
    int red_in_gap = 0;
    for (int x = 125; x < 175; ++x)
        for (int y = 0; y < height; ++y)
            red_in_gap += is_trace(image.pixel(x, y), 0) ? 1 : 0;
    CHECK(red_in_gap == 0);
    CHECK(columns_with(image, 0) > width / 2);
}

TEST_CASE("before is fainter than after", "[threads]") {
    const image::Picture picture = row([](double) { return std::array<double, 3>{0.2, 0.5, 0.8}; });
    const auto ink = [](const QImage& image) {
        long sum = 0;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x)
                sum += 255 - qGray(image.pixel(x, y));
        return sum;
    };
    const ThreadScale scale{0, 1, targets::Scale::linear};
    CHECK(ink(drawn(picture, scale, false)) * 2 < ink(drawn(picture, scale, true)));
}

TEST_CASE("the scale widens in round steps and never shrinks below the usual range", "[threads]") {
    const targets::Target& target = *targets::find("hue_sweep");
    const image::Picture inside = row([](double) { return std::array<double, 3>{0.5, 0.5, 0.5}; });
    const ThreadScale usual = ThreadScale::fitting(&target, inside, inside);
    CHECK(usual.low == target.thread_low);
    CHECK(usual.high == target.thread_high);
    const image::Picture outside = row([](double t) {
        return std::array<double, 3>{-0.6, 1.2 + 0.1 * t, std::nan("")};
    });
    const ThreadScale wide = ThreadScale::fitting(&target, inside, outside);
    CHECK(wide.low == -1);
    CHECK(wide.high == 1.5);
    const QRectF area(0, 10, 100, 50);
    CHECK(wide.y_of(wide.low, area) == Approx(60));
    CHECK(wide.y_of(wide.high, area) == Approx(10));
    CHECK(wide.y_of(1e9, area) >= 8); // far out stays near the edge
}

TEST_CASE("strip and threads share one scale to the pixel", "[threads]") {
    SheetModel model;
    const int id = model.strips().front().id;
    StripView view(model, id);
    view.resize(636, 106);
    auto sheet = std::make_shared<SheetResult>();
    StripResult strip{id, targets::find("grey_ramp"), targets::find("grey_ramp")->axis, {}, {}};
    strip.before = targets::make(*strip.target, view.plot_right() - view.plot_left());
    strip.after = strip.before;
    sheet->strips.push_back(strip);
    view.show_result(sheet, sheet->strips[0]);
    // One sample a pixel: the share of a pixel's middle is its sample.
    const int samples = view.plot_right() - view.plot_left();
    for (int i = 0; i < samples; i += 13)
        CHECK(view.sample_at((i + 0.5) / samples) == i);
    CHECK(view.sample_at(-1) == 0);
    CHECK(view.sample_at(2) == samples - 1);
    CHECK_FALSE(view.grab().isNull());
}
