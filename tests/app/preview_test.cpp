#include "model/preview.hpp"
#include "model/preview_worker.hpp"

#include "colour/transfer.hpp"

#include <QSignalSpy>
#include <QTest>

#include <catch2/catch.hpp>

#include <cmath>

using namespace kasuri;
using namespace kasuri::app;

namespace {

/// Asks and waits for the sheet of that request.
class Asker {
public:
    Preview preview;
    CheckedPtr checked;
    SheetPtr sheet;
    ProofsPtr proofs;
    ReadingsPtr readings;
    int sheets = 0;

    Asker() {
        QObject::connect(&preview, &Preview::checked, &preview,
                         [this](const std::string&, const CheckedPtr& c) { checked = c; });
        QObject::connect(&preview, &Preview::sheet_ready, &preview, [this](const SheetPtr& s) {
            sheet = s;
            ++sheets;
        });
        QObject::connect(&preview, &Preview::readings_ready, &preview, [this](const ReadingsPtr& r) { readings = r; });
        QObject::connect(&preview, &Preview::proofs_ready, &preview, [this](const ProofsPtr& p) { proofs = p; });
    }

    void ask(PreviewRequest request) {
        const std::uint64_t generation = preview.request(std::move(request));
        REQUIRE(QTest::qWaitFor([&] { return proofs && proofs->generation == generation && proofs->complete; }, 20000));
        REQUIRE(sheet->generation == generation);
    }
};

PreviewRequest request(const std::string& text, ValueMap values = {}) {
    PreviewRequest wanted;
    wanted.text = text;
    wanted.values = std::move(values);
    wanted.strip_pixels = 100;
    for (const char* name : {"grey_ramp", "saturation_ramp", "hue_sweep"})
        wanted.strips.push_back({static_cast<int>(wanted.strips.size()) + 1, targets::find(name)});
    wanted.readings = {{1, readings::find("response"), {}, {}}};
    wanted.cells = {{1, nullptr, targets::find("dye_chart"), "colour", QSize(8, 3)}};
    return wanted;
}

PicturePtr big_picture(std::string space = "rec709-linear") {
    image::Picture picture = image::generated(600, 400, [](int x, int y) {
        return std::array<double, 3>{x / 600.0, y / 400.0, 0.5};
    });
    picture.space = std::move(space);
    return std::make_shared<const image::Picture>(std::move(picture));
}

} // namespace

TEST_CASE("a request brings strips, cells, the response and proofs", "[preview]") {
    Asker asker;
    asker.ask(request("out.g = b"));
    REQUIRE(asker.checked);
    CHECK(asker.checked->ok);
    REQUIRE(asker.sheet->strips.size() == 3);
    CHECK(asker.sheet->strips[0].before.width == 100);
    CHECK(asker.sheet->strips[2].after.at(40, 0)[1] == asker.sheet->strips[2].before.at(40, 0)[2]);
    REQUIRE(asker.sheet->cells.size() == 1);
    CHECK(asker.sheet->cells[0].after.size() == QSize(8, 3));
    CHECK(asker.sheet->cells[0].after_pixels->at(3, 0)[1] == asker.sheet->cells[0].before_pixels->at(3, 0)[2]);
    REQUIRE(asker.readings->readings.size() == 1);
    CHECK(std::get<readings::Trace>(asker.readings->readings[0].after->layers[0].data).points.size() > 100);
    CHECK(asker.proofs->outcomes.size() == 3);
    CHECK(asker.sheet->check_ms > 0);
}

TEST_CASE("values change the result without another check", "[preview]") {
    Asker asker;
    const std::string text = "param k = 0 in 0 .. 1\nout.r = r + k";
    asker.ask(request(text));
    const CheckedPtr first = asker.checked;
    asker.ask(request(text, {{"k", 0.5}}));
    CHECK(asker.checked == first);
    CHECK(asker.sheet->check_ms == 0);
    const StripResult& ramp = asker.sheet->strips[0];
    CHECK(ramp.after.at(50, 0)[0] == Approx(ramp.before.at(50, 0)[0] + 0.5f));
}

TEST_CASE("a text that does not compile leaves the last good rule at work", "[preview]") {
    Asker asker;
    asker.ask(request("out.r = 0.25"));
    asker.ask(request("out.r = 0.75 +"));
    CHECK_FALSE(asker.checked->ok);
    CHECK(asker.sheet->strips[0].after.at(3, 0)[0] == 0.25f);
    asker.ask(request("out.r = 0.75"));
    CHECK(asker.sheet->strips[0].after.at(3, 0)[0] == 0.75f);
}

TEST_CASE("a broken first text gives diagnostics and no sheet", "[preview]") {
    Asker asker;
    asker.preview.request(request("out.r = "));
    REQUIRE(QTest::qWaitFor([&] { return asker.checked != nullptr; }, 20000));
    CHECK_FALSE(asker.checked->ok);
    QTest::qWait(30);
    CHECK(asker.sheet == nullptr);
}

TEST_CASE("the latest request wins", "[preview]") {
    Asker asker;
    PreviewRequest wanted = request("param k = 0 in 0 .. 1\nout.r = k");
    wanted.cells.push_back({2, big_picture(), nullptr, "colour", QSize(60, 40)});
    std::uint64_t last = 0;
    for (int i = 0; i <= 200; ++i) {
        wanted.values["k"] = i / 200.0;
        last = asker.preview.request(wanted);
    }
    REQUIRE(QTest::qWaitFor([&] { return asker.proofs && asker.proofs->generation == last; }, 20000));
    CHECK(asker.sheet->generation == last);
    CHECK(asker.sheet->strips[0].after.at(9, 0)[0] == 1);
    CHECK(asker.sheets < 201); // what waited was replaced
}

TEST_CASE("readings count what is before once, and come at the end of fast changes", "[preview]") {
    Asker asker;
    int readings_seen = 0;
    QObject::connect(&asker.preview, &Preview::readings_ready, &asker.preview,
                     [&](const ReadingsPtr&) { ++readings_seen; });
    PreviewRequest wanted = request("param k = 1 in 0 .. 2\nout.rgb = k * rgb");
    wanted.cells.push_back({2, big_picture(), nullptr, "colour", QSize(60, 40)});
    wanted.readings.push_back(
        {2, readings::find("histogram"), completed(readings::find("histogram")->settings, {}), {2}});
    asker.ask(wanted);
    REQUIRE(asker.readings->readings.size() == 2);
    const MeasuredPtr before = asker.readings->readings[1].before, after = asker.readings->readings[1].after;
    const int first = readings_seen;
    for (int i = 0; i < 30; ++i) {
        wanted.values["k"] = 0.5 + i / 100.0;
        asker.preview.request(wanted);
    }
    wanted.values["k"] = 0.25;
    asker.ask(wanted);
    CHECK(asker.readings->generation == asker.sheet->generation); // the newest, whatever was left out
    CHECK(asker.readings->readings[1].before == before);          // was not counted again
    CHECK(asker.readings->readings[1].after != after);
    CHECK(readings_seen > first);
    // The same again: nothing is counted.
    const MeasuredPtr now = asker.readings->readings[1].after;
    asker.ask(wanted);
    CHECK(asker.readings->readings[1].after == now);
}

TEST_CASE("while values follow each other the sheet is coarse, and readings and numbers of pins come aside",
          "[preview]") {
    Asker asker;
    PicturePtr picture = std::make_shared<const image::Picture>([] {
        image::Picture made = image::generated(1600, 900, [](int x, int y) {
            return std::array<double, 3>{x / 1600.0, y / 900.0, 0.25};
        });
        made.space = "rec709-linear";
        return made;
    }());
    const auto wanted = [&](int step) {
        PreviewRequest all = request("param k = 0 in 0 .. 100\nout.b = b + k", {{"k", static_cast<double>(step)}});
        all.cells = {{1, picture, nullptr, "colour", QSize(160, 90)}};
        all.cells[0].numbers = true;
        all.readings = {{1, readings::find("parade"), {}, {1}}};
        return all;
    };
    asker.ask(wanted(0));
    const std::uint64_t first = asker.sheet->generation;
    int aside = 0, coarse = 0;
    std::uint64_t newest = 0;
    bool in_order = true;
    QObject::connect(&asker.preview, &Preview::sheet_ready, &asker.preview,
                     [&](const SheetPtr& sheet) { coarse += sheet->coarse ? 1 : 0; });
    QObject::connect(&asker.preview, &Preview::readings_ready, &asker.preview, [&](const ReadingsPtr& read) {
        in_order = in_order && read->generation >= newest;
        newest = read->generation;
        if (read->counted.empty())
            return;
        ++aside;
        REQUIRE(read->counted.size() == 1);
        REQUIRE(read->counted[0].after_pixels);
        // What is told belongs to the request whose generation it carries.
        CHECK(read->counted[0].after_pixels->at(700, 3)[2] == 0.25f + static_cast<float>(read->generation - first));
        CHECK(read->counted[0].after.isNull());
        REQUIRE(read->readings.size() == 1);
        CHECK(read->readings[0].after);
    });
    std::uint64_t last = 0;
    for (int step = 1; step < 400 && aside < 3; ++step) {
        last = asker.preview.request(wanted(std::min(step, 90)));
        if (step >= 90)
            break;
        QTest::qWait(8);
    }
    REQUIRE(QTest::qWaitFor([&] { return asker.proofs && asker.proofs->generation == last; }, 20000));
    CHECK(aside > 0);
    CHECK(coarse > 3);
    CHECK(in_order);
    CHECK_FALSE(asker.sheet->coarse); // the row ends exactly
    CHECK(asker.sheet->generation == last);
    CHECK(newest == last);
}

TEST_CASE("a cut of a picture is kept up with in a row, which takes the exact sheet", "[preview]") {
    Asker asker;
    const PicturePtr picture = big_picture();
    const auto wanted = [&](int step) {
        PreviewRequest all = request("param k = 0 in 0 .. 1000\nout.b = b + k", {{"k", static_cast<double>(step)}});
        all.cells = {{1, picture, nullptr, "colour", QSize(60, 40)}};
        all.readings.clear();
        StripJob cut;
        cut.id = 9;
        cut.cell = 1;
        cut.line = {0, 0.5, 1, 0.5};
        all.strips = {cut};
        return all;
    };
    asker.ask(wanted(0));
    int exact = 0;
    QObject::connect(&asker.preview, &Preview::sheet_ready, &asker.preview,
                     [&](const SheetPtr& sheet) { exact += sheet->coarse || sheet->strips.empty() ? 0 : 1; });
    std::uint64_t last = 0;
    for (int step = 1; step < 200 && exact < 3; ++step) {
        last = asker.preview.request(wanted(step));
        QTest::qWait(8);
    }
    CHECK(exact >= 3);
    REQUIRE(QTest::qWaitFor([&] { return asker.proofs && asker.proofs->generation == last; }, 20000));
}

TEST_CASE("cells of one picture share its evaluation and have their own lens", "[preview]") {
    Asker asker;
    PreviewRequest wanted = request("out.rgb = rgb.gbr");
    const PicturePtr picture = big_picture();
    wanted.cells = {{1, picture, nullptr, "red", QSize(60, 40)}, {2, picture, nullptr, "green", QSize(60, 40)}};
    asker.ask(wanted);
    REQUIRE(asker.sheet->cells.size() == 2);
    CHECK(asker.sheet->cells[0].after_pixels == asker.sheet->cells[1].after_pixels);
    CHECK(asker.sheet->cells[0].after != asker.sheet->cells[1].after);
    CHECK(asker.sheet->cells[0].after == asker.sheet->cells[1].before); // red out is green in
    CHECK(asker.sheet->cells[1].before_pixels == picture);
}

TEST_CASE("the working space decides what the numbers of a picture mean", "[preview]") {
    Asker asker;
    const PicturePtr encoded = big_picture("srgb");
    PreviewRequest wanted = request("working rec709-linear\nout.rgb = rgb * 0.5");
    wanted.cells = {{1, encoded, nullptr, "colour", QSize(60, 40)}};
    asker.ask(wanted);
    const double in = static_cast<double>(encoded->at(300, 200)[0]);
    CHECK(static_cast<double>(asker.sheet->cells[0].after_pixels->at(300, 200)[0]) ==
          Approx(colour::srgb_encode(0.5 * colour::srgb_decode(in))).margin(1e-6));
    wanted.text = "working srgb\nout.rgb = rgb * 0.5";
    asker.ask(wanted);
    CHECK(static_cast<double>(asker.sheet->cells[0].after_pixels->at(300, 200)[0]) == Approx(0.5 * in));
    CHECK(asker.sheet->strips[0].before.space == "srgb"); // ramps are numbers of the working space
}

TEST_CASE("proofs are measured at the chosen values", "[preview]") {
    Asker asker;
    const std::string text = "param k = 0 in 0 .. 1\nproof \"greys\" : neutral\nout.r = r + 0.1 * k";
    asker.ask(request(text));
    REQUIRE(asker.proofs->outcomes.size() == 1);
    CHECK(asker.proofs->outcomes[0].passed);
    asker.ask(request(text, {{"k", 1}}));
    CHECK_FALSE(asker.proofs->outcomes[0].passed);
    CHECK(asker.proofs->outcomes[0].figure == Approx(0.1).margin(1e-6));
}

TEST_CASE("closing while there is work ends, and nothing arrives afterwards", "[preview]") {
    int arrived = 0;
    for (int i = 0; i < 10; ++i) {
        Preview preview;
        QObject receiver;
        QObject::connect(&preview, &Preview::sheet_ready, &receiver, [&arrived] { ++arrived; });
        PreviewRequest wanted = request("out.rgb = sin(rgb)");
        wanted.cells.push_back({2, big_picture(), nullptr, "colour", QSize(60, 40)});
        preview.request(std::move(wanted));
    }
    QTest::qWait(20);
    CHECK(arrived == 0); // no event loop ran while they lived
}

TEST_CASE("closing while a value is dragged ends, whatever is being read aside", "[preview]") {
    int arrived = 0;
    for (int steps = 4; steps < 40; steps += 4) {
        Preview preview;
        QObject receiver;
        QObject::connect(&preview, &Preview::readings_ready, &receiver, [&arrived] { ++arrived; });
        for (int step = 0; step < steps; ++step) {
            PreviewRequest wanted =
                request("param k = 0 in 0 .. 100\nout.b = b + sin(k * r)", {{"k", static_cast<double>(step)}});
            wanted.cells.push_back({2, big_picture(), nullptr, "colour", QSize(60, 40)});
            wanted.readings.push_back({2, readings::find("parade"), {}, {2}});
            preview.request(std::move(wanted));
            QTest::qWait(4);
        }
    }
    CHECK(arrived > 0);
    const int before = arrived;
    QTest::qWait(30);
    CHECK(arrived == before);
}

TEST_CASE("a look that takes seconds to be made is called off when something newer waits", "[preview][cancel]") {
    // As many operations as a rule may have, a few hundred times: minutes of checking and compiling.
    std::string long_text = "working rec709-linear\n";
    for (int i = 0; i < 1200; ++i)
        long_text += "out.rgb = rgb * 0.9" + std::to_string(i) + " + pow(abs(out.rgb), vec3(1." + std::to_string(i) +
            ")) * oklch(out.rgb).c\n";
    auto around = std::make_shared<Around>();
    around->look.steps.resize(400);
    for (document::LookStep& step : around->look.steps)
        step.text = long_text;
    Asker asker;
    PreviewRequest wanted = request(long_text);
    wanted.around = around;
    const std::uint64_t slow = asker.preview.request(wanted);
    REQUIRE(QTest::qWaitFor([&] { return asker.checked != nullptr || asker.sheet != nullptr; }, 60) == false);
    // While its thread is busy with it, and before that is known to be slow.
    asker.ask(request("out.r = 0.25"));
    CHECK(asker.sheets == 1);
    CHECK(asker.sheet->generation == slow + 1);
    CHECK(asker.sheet->strips[0].after.at(3, 0)[0] == 0.25f);
    // Called off in the middle, it is made from the beginning when it is asked for again.
    PreviewWorker worker;
    CancelToken off;
    off.cancel();
    auto small = std::make_shared<Around>();
    small->look.steps.resize(2);
    small->look.steps[0].text = "out.rgb = rgb * 0.5";
    small->look.steps[1].text = "out.rgb = rgb + 0.25";
    wanted = request("out.rgb = rgb + 0.25");
    small->active = 1;
    wanted.around = small;
    CHECK_FALSE(worker.take(wanted, off));
    CHECK(worker.take(wanted));
    const auto sheet = worker.sheet(wanted, false, {});
    REQUIRE(sheet);
    CHECK(sheet->strips[0].after.at(50, 0)[0] == Approx(sheet->strips[0].before.at(50, 0)[0] * 0.5f + 0.25f));
}

#if !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__) // they need the room themselves
#include <fstream>
#include <sys/resource.h>
#include <unistd.h>

TEST_CASE("a request for which there is not enough memory is dropped and said, and the next one is answered",
          "[preview]") {
    Asker asker;
    asker.ask(request("out.g = b"));
    QSignalSpy gave_up(&asker.preview, &Preview::gave_up);
    rlimit before{};
    REQUIRE(::getrlimit(RLIMIT_AS, &before) == 0);
    rlimit tight = before;
    std::size_t pages = 0; // that the process has now
    std::ifstream("/proc/self/statm") >> pages;
    tight.rlim_cur = static_cast<rlim_t>(pages) * static_cast<rlim_t>(::sysconf(_SC_PAGESIZE)) + (rlim_t{1} << 30);
    REQUIRE(::setrlimit(RLIMIT_AS, &tight) == 0);
    PreviewRequest huge = request("out.g = r");
    huge.strip_pixels = 900'000'000;
    asker.preview.request(std::move(huge));
    const bool told = QTest::qWaitFor([&] { return !gave_up.isEmpty(); }, 20000);
    REQUIRE(::setrlimit(RLIMIT_AS, &before) == 0);
    REQUIRE(told);
    CHECK(gave_up[0][0].toString().contains("not enough memory"));
    asker.ask(request("out.g = 1.0"));
    CHECK(asker.sheet->cells[0].after_pixels->at(3, 0)[1] == 1);
}
#endif
