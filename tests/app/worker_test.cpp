// What one request makes: coarse and exact sheets, another rule as before, peeked expressions, pictures given to
// sources.
#include "model/preview_worker.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>

using namespace kasuri;
using namespace kasuri::app;

namespace {

/// Smooth, and larger than shown.
PicturePtr slopes(int width = 640, int height = 360) {
    return std::make_shared<const image::Picture>(image::generated(width, height, [=](int x, int y) {
        return std::array<double, 3>{(x + 0.5) / width, (y + 0.5) / height, 0.25};
    }));
}

PreviewRequest request(const std::string& text, PicturePtr picture, const std::string& lens = "colour",
                       QSize pixels = {64, 36}) {
    PreviewRequest wanted;
    wanted.text = text;
    CellJob job;
    job.id = 7;
    job.picture = std::move(picture);
    job.lens = lens;
    job.pixels = pixels;
    wanted.cells = {job};
    wanted.strip_pixels = 50;
    wanted.strips = {{1, targets::find("grey_ramp")}};
    return wanted;
}

std::shared_ptr<SheetResult> sheet_of(PreviewWorker& worker, const PreviewRequest& wanted, bool coarse = false) {
    worker.take(wanted);
    REQUIRE(worker.has_rule());
    auto sheet = worker.sheet(wanted, coarse, {});
    REQUIRE(sheet);
    return sheet;
}

int farthest(const QImage& a, const QImage& b) {
    REQUIRE(a.size() == b.size());
    int most = 0;
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x)
            for (const int shift : {0, 8, 16})
                most = std::max(most,
                                std::abs(static_cast<int>(a.pixel(x, y) >> shift & 255) -
                                         static_cast<int>(b.pixel(x, y) >> shift & 255)));
    return most;
}

} // namespace

TEST_CASE("of a rule of thousands of operations a coarse sheet has fewer pixels than the cell", "[worker]") {
    PreviewWorker worker;
    std::string text = "let a0 = r\n";
    for (int i = 1; i < 3000; ++i)
        text += fmt::format("let a{} = a{} * 0.9999 + g * {}\n", i, i - 1, 1e-6 * i);
    PreviewRequest wanted = request(text + "out.r = a2999\n", slopes());
    wanted.cells[0].pixels = QSize(480, 270); // of 640 x 360
    REQUIRE(worker.take(wanted));
    const auto coarse = sheet_of(worker, wanted, true), exact = sheet_of(worker, wanted);
    CHECK(exact->cells[0].after.size() == QSize(480, 270));
    CHECK(coarse->cells[0].after.size() == QSize(240, 135)); // 3000 operations
    CHECK(coarse->cells[0].before.size() == coarse->cells[0].after.size());
    CHECK(coarse->cells[0].region == exact->cells[0].region); // the same place, so it is drawn as large
    CHECK(farthest(coarse->cells[0].after, exact->cells[0].after.scaled(240, 135)) <=
          12);                       // half a pixel aside on a slope
    wanted.text = "out.r = 2 * r\n"; // few operations: every pixel that is shown
    REQUIRE(worker.take(wanted));
    CHECK(sheet_of(worker, wanted, true)->cells[0].after.size() == QSize(480, 270));
    CellJob large;
    large.pixels = QSize(7680, 4320);
    CHECK(affordable(large, 200).pixels == large.pixels);     // however large
    CHECK(affordable(large, 20'000).pixels == QSize(60, 34)); // and never nothing
}

TEST_CASE("a coarse sheet looks like the exact one where a picture is smooth, and keeps nothing", "[worker]") {
    PreviewWorker worker;
    const PreviewRequest wanted = request("out.rgb = rgb * rgb", slopes());
    worker.take(wanted);
    CHECK(worker.coarse_helps(wanted));
    const auto coarse = sheet_of(worker, wanted, true), exact = sheet_of(worker, wanted);
    CHECK(coarse->coarse);
    CHECK_FALSE(exact->coarse);
    CHECK(coarse->cells[0].after_pixels == nullptr);
    CHECK(coarse->cells[0].size == QSize(640, 360));
    CHECK(exact->cells[0].after_pixels->width == 640);
    CHECK(coarse->cells[0].before == exact->cells[0].before); // nothing is done to it
    CHECK(farthest(coarse->cells[0].after, exact->cells[0].after) <= 1);
    CHECK(exact->cells[0].after.pixel(60, 30) == sheet_of(worker, wanted)->cells[0].after.pixel(60, 30));
    // A stripe of single pixels is where both differ: the rule squares before or after the mean.
    const auto stripes = std::make_shared<const image::Picture>(image::generated(640, 360, [](int x, int) {
        return std::array<double, 3>{x % 2 * 1.0, x % 2 * 1.0, x % 2 * 1.0};
    }));
    PreviewWorker other;
    const PreviewRequest striped = request("out.rgb = rgb * rgb", stripes);
    CHECK(farthest(sheet_of(other, striped, true)->cells[0].after, sheet_of(other, striped)->cells[0].after) > 40);
}

TEST_CASE("a picture too large to be kept as floats is shown, told and counted as any other", "[worker]") {
    image::Picture made = *slopes();
    image::Samples cover(made.pixels());
    for (std::size_t i = 0; i < cover.size(); ++i)
        cover[i] = static_cast<float>(i % 3) / 2;
    const auto open = std::make_shared<const image::Picture>(made);
    made.planes[3] = image::make_plane(std::move(cover));
    const auto covered = std::make_shared<const image::Picture>(made);
    const std::string text = "out.r = g * g + 0.1 * pos.x\nout.b = sqrt(r)"; // green passes through
    for (const PicturePtr& picture : {open, covered})
        for (const char* lens : {"colour", "change", "green"})
            for (const QRect& region : {QRect(), QRect(31, 17, 64, 36), QRect(5, 40, 600, 300), QRect(3, 3, 20, 10)}) {
                PreviewRequest wanted = request(text, picture, lens);
                wanted.cells[0].region = region;
                wanted.cells[0].both = true;
                wanted.against = OtherRule{"out.rgb = rgb * 0.5", {}, {}};
                wanted.readings = {{1, readings::find("histogram"), {}, {7}}, {2, readings::find("ab"), {}, {7}}};
                PreviewWorker keeps, makes(std::size_t{48} << 20, 1000);
                const auto kept = sheet_of(keeps, wanted), seen = sheet_of(makes, wanted);
                INFO(lens << " " << region.x() << " " << region.width());
                const CellResult &is = seen->cells[0], &should = kept->cells[0];
                CHECK(is.after == should.after);
                CHECK(is.before == should.before);
                CHECK(is.outside_after == should.outside_after);
                REQUIRE(is.after_pixels->planes[0]->on_demand());
                CHECK(is.after_pixels->planes[0]->bytes() == 0);
                CHECK(is.after_pixels->planes[1] == picture->planes[1]);
                CHECK(is.after_pixels->planes[3] == picture->planes[3]);
                CHECK(image::same(image::in_memory(*is.after_pixels), *should.after_pixels));
                CHECK(is.after_pixels->at(639, 359) == should.after_pixels->at(639, 359));
                CHECK(is.before_pixels->at(11, 300) == should.before_pixels->at(11, 300));
                const auto counted = makes.readings(wanted, *seen, {}), as_counted = keeps.readings(wanted, *kept, {});
                REQUIRE((counted && as_counted));
                for (std::size_t i = 0; i < 2; ++i) {
                    const auto told = [&](const ReadingsResult& of, const MeasuredPtr& measured) {
                        return readings::csv(of.readings[i].panels, *measured);
                    };
                    CHECK(told(*counted, counted->readings[i].after) ==
                          told(*as_counted, as_counted->readings[i].after));
                    CHECK(told(*counted, counted->readings[i].before) ==
                          told(*as_counted, as_counted->readings[i].before));
                }
            }
    // Neighbours would be made again for every band: such a result is kept.
    PreviewWorker makes(std::size_t{48} << 20, 1000);
    CHECK(sheet_of(makes, request("out.rgb = blur(rgb, 3)", open))->cells[0].after_pixels->planes[0]->values());
    // Called off: nothing is shown, and nothing half made is remembered.
    const PreviewRequest wanted = request(text, covered);
    CancelToken cancel;
    makes.take(wanted);
    cancel.cancel();
    CHECK_FALSE(makes.sheet(wanted, false, cancel));
    PreviewWorker keeps;
    CHECK(sheet_of(makes, wanted)->cells[0].after == sheet_of(keeps, wanted)->cells[0].after);
}

TEST_CASE("a coarse sheet is no help for small pictures, parts of pictures and rules that look at neighbours",
          "[worker]") {
    const auto helps = [](const PreviewRequest& wanted) {
        PreviewWorker worker;
        worker.take(wanted);
        return worker.coarse_helps(wanted);
    };
    CHECK(helps(request("out.r = g", slopes())));
    CHECK_FALSE(helps(request("out.r = g", slopes(64, 36))));
    CHECK_FALSE(helps(request("out.rgb = blur(rgb, 9)", slopes())));
    PreviewRequest part = request("out.r = g", slopes());
    part.cells[0].region = QRect(10, 10, 64, 36);
    CHECK_FALSE(helps(part));
}

TEST_CASE("another rule stands for before, in cells and strips, with its own values", "[worker]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("out.rgb = rgb * 0.5", slopes(), "change");
    wanted.against = OtherRule{"param gain = 0.25 in 0 .. 1\nout.rgb = rgb * gain", {}, {}};
    auto sheet = sheet_of(worker, wanted);
    const auto input = wanted.cells[0].picture->at(320, 180);
    CHECK(sheet->cells[0].before_pixels->at(320, 180)[0] == Approx(input[0] * 0.25f));
    CHECK(sheet->cells[0].after_pixels->at(320, 180)[0] == Approx(input[0] * 0.5f));
    CHECK(sheet->strips[0].before.at(40, 0)[1] == Approx(sheet->strips[0].after.at(40, 0)[1] / 2));
    wanted.against->values = {{"gain", 0.5}};
    sheet = sheet_of(worker, wanted);
    CHECK(*sheet->cells[0].before_pixels->planes[0] == *sheet->cells[0].after_pixels->planes[0]);
    CHECK(qRed(sheet->cells[0].after.pixel(5, 5)) ==
          qRed(sheet->cells[0].after.pixel(60, 30))); // no change anywhere: one grey
    // Gone, before is the picture again.
    wanted.against.reset();
    sheet = sheet_of(worker, wanted);
    CHECK(sheet->cells[0].before_pixels == wanted.cells[0].picture);
    CHECK(qRed(sheet->cells[0].after.pixel(5, 5)) != qRed(sheet->cells[0].after.pixel(60, 30)));
    // One that does not compile is told, and before is the picture.
    wanted.against = OtherRule{"out.rgb = rgb * ", {}, {}};
    sheet = sheet_of(worker, wanted);
    CHECK_FALSE(sheet->against_fault.empty());
    CHECK(sheet->cells[0].before_pixels == wanted.cells[0].picture);
}

TEST_CASE("readings compare with the other rule, on the same axes", "[worker]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("out.rgb = rgb * 0.5", slopes());
    wanted.readings = {{1, readings::find("histogram"), {}, {7}}, {2, readings::find("response"), {}, {}}};
    const auto measured = [&] {
        const auto sheet = sheet_of(worker, wanted);
        return worker.readings(wanted, *sheet, {});
    };
    const auto counts = [](const std::shared_ptr<ReadingsResult>& all, std::size_t i, bool after) {
        REQUIRE(all);
        const ReadingResult& reading = all->readings[i];
        return readings::csv(reading.panels, after ? *reading.after : *reading.before);
    };
    const auto alone = measured();
    wanted.against = OtherRule{"out.rgb = 0.5 * rgb", {}, {}};
    const auto equal = measured();
    for (const std::size_t i : {0u, 1u}) {
        CHECK(counts(equal, i, false) == counts(equal, i, true));
        CHECK(counts(alone, i, false) != counts(alone, i, true));
        CHECK(counts(alone, i, true) == counts(equal, i, true));
    }
    wanted.against.reset();
    CHECK(counts(measured(), 0, false) == counts(alone, 0, false));
}

TEST_CASE("an expression of the rule is a lens: whole pixels, its range, its faults", "[worker]") {
    PreviewWorker worker;
    PreviewRequest wanted =
        request("param at = 0.5 in 0 .. 1\nlet mask = step(at, r)\nout.rgb = rgb * mask", slopes(), peek_lens("mask"));
    auto sheet = sheet_of(worker, wanted);
    CHECK(sheet->cells[0].fault.empty());
    CHECK(sheet->cells[0].after.pixelColor(10, 10) == QColor(0, 0, 0));
    CHECK(sheet->cells[0].after.pixelColor(50, 10) == QColor(255, 255, 255));
    CHECK(sheet->cells[0].after_pixels->at(600, 100)[0] ==
          wanted.cells[0].picture->at(600, 100)[0]); // the numbers stay the rule's result
    CHECK(sheet_of(worker, wanted, true)->cells[0].after.pixelColor(50, 10) == QColor(255, 255, 255));
    // It follows values.
    wanted.values = {{"at", 0.1}};
    CHECK(sheet_of(worker, wanted)->cells[0].after.pixelColor(10, 10) == QColor(255, 255, 255));
    // Three components are shown as three, a range is spread, and what is outside it is hatched.
    wanted.cells[0].lens = peek_lens("vec3(0, 1, 0)");
    CHECK(sheet_of(worker, wanted)->cells[0].after.pixelColor(3, 3) == QColor(0, 255, 0));
    wanted.cells[0].lens = peek_lens("r + 4", 4, 5);
    CHECK(qRed(sheet_of(worker, wanted)->cells[0].after.pixel(32, 10)) == Approx(128).margin(3));
    wanted.cells[0].lens = peek_lens("0.0 * r + 7", 0, 1);
    sheet = sheet_of(worker, wanted);
    CHECK(sheet->cells[0].after.pixel(0, 0) != sheet->cells[0].after.pixel(3, 0));
    // A name that is not there is told; the picture is shown.
    wanted.cells[0].lens = peek_lens("nowhere");
    sheet = sheet_of(worker, wanted);
    CHECK(sheet->cells[0].fault.find("nowhere") != std::string::npos);
    CHECK_FALSE(sheet->cells[0].after.isNull());
    CHECK(lens(peek_lens("r | g", 1, 0)).peeks == "r | g"); // bars in it, and a range the wrong way round
    CHECK(lens(peek_lens("r", 1, 0)).high > lens(peek_lens("r", 1, 0)).low);
}

TEST_CASE("a picture given to a source is stretched to each picture, and its space is minded", "[worker]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("source lantern : vec3\nout.rgb = lantern", slopes());
    CHECK(sheet_of(worker, wanted)->missing_sources == std::vector<std::string>{"lantern"});
    CHECK(sheet_of(worker, wanted)->cells[0].after_pixels->at(100, 100)[0] == 0);
    wanted.sources["lantern"].picture = slopes(64, 36);
    auto sheet = sheet_of(worker, wanted);
    CHECK(sheet->missing_sources.empty());
    for (const int x : {100, 320, 500})
        CHECK(sheet->cells[0].after_pixels->at(x, 100)[0] ==
              Approx(wanted.cells[0].picture->at(x, 100)[0]).margin(0.002));
    image::Picture encoded = *slopes();
    encoded.space = "srgb";
    wanted.sources["lantern"].picture = std::make_shared<const image::Picture>(std::move(encoded));
    sheet = sheet_of(worker, wanted);
    const double code = static_cast<double>(wanted.cells[0].picture->at(320, 100)[0]);
    CHECK(sheet->cells[0].after_pixels->at(320, 100)[0] ==
          Approx(std::pow((code + 0.055) / 1.055, 2.4)).epsilon(1e-5)); // IEC 61966-2-1
}

TEST_CASE("an active step that looks back is seen, peeked into and traced at what the look brings it",
          "[worker][back]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("source original : vec3 = picture\nsource dark : vec3 = step \"dark\"\nlet sum = "
                                    "original + 0 * dark\nout.rgb = rgb + sum",
                                    slopes());
    auto around = std::make_shared<Around>();
    around->look.steps.resize(3);
    around->look.steps[0].text = "out.rgb = rgb * 0.5";
    around->look.steps[0].label = "dark";
    around->look.steps[1].text = "out.rgb = rgb.gbr";
    around->look.steps[2].text = wanted.text;
    around->look.steps[2].mask = "source o : vec3 = picture\no.g";
    around->active = 2;
    wanted.around = around;
    const auto in = wanted.cells[0].picture->at(320, 180);
    const auto sheet = sheet_of(worker, wanted);
    CHECK(sheet->step_faults.empty());
    CHECK(sheet->missing_sources.empty());
    const float dyed = 0.5f * in[1];
    CHECK(sheet->cells[0].after_pixels->at(320, 180)[0] ==
          Approx(dyed * (1 - in[1]) + (dyed + in[0]) * in[1]).epsilon(1e-4));
    // A value of the rule, the step's mask, and every part of it at a pixel.
    const auto level = [&](const std::string& lens) {
        wanted.cells[0].lens = lens;
        const auto seen = sheet_of(worker, wanted);
        CHECK(seen->cells[0].fault.empty());
        return qRed(seen->cells[0].after.pixel(32, 18));
    };
    const int original = level(peek_lens("original.r")), same = level(peek_lens("sum.r")),
              dark = level(peek_lens("dark.r"));
    CHECK(std::abs(original - same) <= 1);
    CHECK(dark < original - 10);
    wanted.trace = PreviewRequest::Point{7, QPoint(320, 180), {}};
    const auto traced = sheet_of(worker, wanted);
    const auto part = std::find_if(traced->trace.begin(), traced->trace.end(), [&](const engine::TraceNode& node) {
        return node.depth > 0 && text_of(traced->text, node.span) == "original";
    });
    REQUIRE(part != traced->trace.end());
    CHECK(part->value[0] == Approx(static_cast<double>(in[0])).epsilon(1e-4));
}

TEST_CASE("a part that was asked for a larger picture is not read beyond the one that is there now", "[worker]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("", slopes(320, 180));
    wanted.cells[0].region = QRect(300, 150, 64, 36); // seen before, in one of 640 x 360
    const auto sheet = sheet_of(worker, wanted);
    CHECK(sheet->cells[0].region == QRect(0, 0, 320, 180));
    CHECK(sheet->cells[0].after.size() == QSize(64, 36));
    wanted.cells[0].region = QRect(256, 144, 64, 36);
    CHECK(sheet_of(worker, wanted)->cells[0].region == QRect(256, 144, 64, 36));
}

TEST_CASE("noise gain and folds are seen in the rule's own space, whatever the picture's", "[worker]") {
    PreviewWorker worker;
    const auto shade = [&](const std::string& rule, const std::string& lens, const std::string& space,
                           bool coarse = false) {
        auto picture = std::make_shared<image::Picture>(image::generated(96, 54, [](int x, int) {
            return std::array<double, 3>{(x + 0.5) / 96, 0.4, 0.3};
        }));
        picture->space = space;
        const auto sheet = sheet_of(worker, request(rule, picture, lens, {96, 54}), coarse);
        CHECK(sheet->cells[0].fault.empty());
        return sheet->cells[0].after;
    };
    // Gain 2 of a range of 4 is the grey of 0.5, by IEC 61966-2-1 code 128, everywhere.
    for (const char* space : {"rec709-linear", "srgb", "acescg"})
        for (const bool coarse : {false, true}) {
            const QImage doubled = shade("out.r = 2 * r", "noise_gain", space, coarse);
            CHECK(std::abs(qGreen(doubled.pixel(10, 10)) - 128) <= 1);
            CHECK(std::abs(qGreen(doubled.pixel(90, 50)) - 128) <= 1);
        }
    // r (1 - r) turns round at 0.5.
    const QImage folded = shade("out.r = 4 * r * (1 - r)", "folds", "rec709-linear");
    int left = 0, right = 0; // rows 8 to 13: one whole period of the stripes
    for (int y = 8; y < 14; ++y) {
        left = std::max(left, qGreen(folded.pixel(20, y)));
        right = std::max(right, qGreen(folded.pixel(70, y)));
    }
    CHECK(left < 150);
    CHECK(right > 200);
    CHECK(lens("folds").of_rule());
    CHECK(caption(lens("folds")) == "folds");
    CHECK(caption(lens("noise_gain")) == "noise gain 0 .. 4");
}
