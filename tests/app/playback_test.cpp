#include "io/picture_file.hpp"
#include "model/over_time.hpp"
#include "model/playback.hpp"

#include <QTemporaryDir>
#include <QTest>

#include <catch2/catch.hpp>

#include <cmath>
#include <filesystem>
#include <fstream>

using namespace kasuri;
using namespace kasuri::app;

namespace {

constexpr int wide = 16, high = 8;
constexpr std::size_t frame_bytes = sizeof(float) * wide * high * 3;

/// Numbered pictures, each of one grey, and a sheet that shows them on a screen as slow as wished.
struct Stage {
    QTemporaryDir folder;
    SheetModel sheet;
    Playback playback{sheet};
    int cell = 0;
    int delay_ms = 0;
    std::vector<float> seen; ///< red of each frame that came on the screen
    QStringList words;
    std::vector<std::pair<QString, Arrangement>> steps;
    const void* on_its_way = nullptr;

    Stage() {
        QObject::connect(&sheet, &SheetModel::changed, &playback, [this] { show_soon(); });
        QObject::connect(&playback, &Playback::said, &playback, [this](const QString& text, bool) { words << text; });
        QObject::connect(&sheet, &SheetModel::rearranged, &playback,
                         [this](const QString& name, const QString&, const Arrangement& before) {
                             steps.emplace_back(name, before);
                         });
    }
    std::string path(const QString& name, int number) const {
        return folder.filePath(QString("%1.%2.exr").arg(name).arg(number, 4, 10, QChar('0'))).toStdString();
    }
    void write(const QString& name, int number, double value) const {
        REQUIRE(io::save(path(name, number), image::image_of(image::generated(wide, high, [&](int x, int) {
                             return std::array<double, 3>{value, value / 2, x / 100.0};
                         }))));
    }
    void open(int number) {
        cell = sheet.add_picture(path("dusk", number), "colour");
        REQUIRE(QTest::qWaitFor([this] { return !sheet.loading(); }, 10000));
        steps.clear();
        seen.clear();
    }
    void show_soon() {
        QTimer::singleShot(delay_ms, &playback, [this] {
            const Cell* shown = sheet.find(cell);
            const PicturePtr picture = shown ? sheet.picture_of(*shown) : nullptr;
            if (!picture)
                return;
            if (on_its_way != picture.get())
                seen.push_back(picture->at(0)[0]);
            on_its_way = picture.get();
            SheetResult result;
            result.cells.push_back({});
            result.cells.back().id = cell;
            result.cells.back().input = picture;
            playback.sheet_shown(result);
        });
    }
    void wait_for_end() {
        REQUIRE(QTest::qWaitFor([this] { return !playback.playing(); }, 20000));
    }
};

} // namespace

TEST_CASE("without a rate every frame is shown once, in order, and it ends with the last", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 12; ++i)
        stage.write("dusk", i, i / 10.0);
    stage.open(1);
    stage.playback.set_rate(0);
    stage.playback.set_loops(false);
    CHECK(stage.playback.can_play(stage.cell));
    stage.playback.play(stage.cell);
    CHECK(stage.playback.playing(stage.cell));
    const int pin = stage.sheet.add_pin(stage.sheet.find(stage.cell)->source(), {2, 2});
    stage.wait_for_end();
    REQUIRE(stage.seen.size() >= 11);
    for (std::size_t i = 0; i < 11; ++i)
        CHECK(stage.seen[stage.seen.size() - 11 + i] == Approx((static_cast<double>(i) + 2) / 10));
    CHECK(stage.playback.counts().shown == 11);
    CHECK(stage.playback.counts().left_out == 0);
    CHECK(stage.playback.counts().rate > 0);
    // One step of undo for all of it; what was done meanwhile stays, on the frame that it goes back to.
    REQUIRE(stage.steps.size() == 2);
    CHECK(stage.steps[1].first == "frames played");
    CHECK(stage.steps[1].second.cells[0].picture == stage.path("dusk", 1));
    REQUIRE(stage.steps[1].second.pins.size() == 1);
    CHECK(stage.steps[1].second.pins[0].number == pin);
    CHECK(stage.steps[1].second.pins[0].source == stage.path("dusk", 1) + "#");
    CHECK(stage.sheet.find(stage.cell)->picture == stage.path("dusk", 12));
    CHECK(stage.sheet.pins()[0].source == stage.sheet.find(stage.cell)->source());
    // At the end it begins again.
    stage.seen.clear();
    stage.playback.play(stage.cell);
    stage.wait_for_end();
    REQUIRE(stage.seen.size() == 12);
    CHECK(stage.seen.front() == Approx(0.1));
}

TEST_CASE("at a rate the clock leads, and what does not come in time is counted", "[playback]") {
    Stage stage;
    for (int i = 0; i < 20; ++i)
        stage.write("dusk", i, i / 10.0);
    stage.open(0);
    stage.delay_ms = 60; // a frame of 240 a second takes 4 ms
    stage.playback.set_rate(240);
    stage.playback.set_loops(false);
    stage.playback.play(stage.cell);
    stage.wait_for_end();
    const Playback::Counts& counts = stage.playback.counts();
    CHECK(counts.left_out > 0);
    CHECK(counts.shown + counts.left_out == 19); // the first was there
    CHECK(std::is_sorted(stage.seen.begin(), stage.seen.end()));
    CHECK(stage.seen.back() == Approx(1.9)); // the last is shown whatever was left out
}

TEST_CASE("only what is asked for is played, over and over", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 9; ++i)
        stage.write("dusk", i * 2, i / 10.0); // gaps in the numbers
    stage.open(6);
    stage.playback.begin_here(stage.cell);
    stage.sheet.set_frame(stage.cell, 4);
    stage.playback.end_here(stage.cell);
    CHECK(stage.playback.range(stage.cell) == Playback::Range{2, 4});
    REQUIRE(QTest::qWaitFor([&] { return !stage.sheet.loading(); }, 10000));
    QTest::qWait(20);
    stage.seen.clear();
    stage.playback.set_rate(0);
    stage.playback.play(stage.cell);
    REQUIRE(QTest::qWaitFor([&] { return stage.seen.size() >= 8; }, 10000));
    stage.playback.stop();
    for (std::size_t i = 0; i < 8; ++i)
        CHECK(stage.seen[i] == Approx(0.3 + 0.1 * static_cast<double>(i % 3)));
    stage.playback.play_all(stage.cell);
    CHECK(stage.playback.range(stage.cell) == Playback::Range{0, 8});
    // The last frame before the first: the other end gives way.
    stage.sheet.set_frame(stage.cell, 5);
    stage.playback.begin_here(stage.cell);
    stage.sheet.set_frame(stage.cell, 1);
    stage.playback.end_here(stage.cell);
    CHECK(stage.playback.range(stage.cell) == Playback::Range{1, 1});
}

TEST_CASE("a frame that cannot be read is said and left out", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 5; ++i)
        stage.write("dusk", i, i / 10.0);
    std::ofstream(stage.path("dusk", 3)) << "no picture";
    stage.open(1);
    for (const double rate : {0.0, 60.0}) {
        stage.words.clear();
        stage.playback.set_rate(rate);
        stage.playback.set_loops(false);
        stage.playback.play(stage.cell);
        stage.wait_for_end();
        // By the clock a frame that is late is passed over before anybody knows what is in it.
        if (rate == 0)
            CHECK(stage.words.join(" ").contains("dusk.0003.exr"));
        CHECK(stage.playback.counts().left_out >= 1);
        CHECK(stage.sheet.find(stage.cell)->picture == stage.path("dusk", 5));
        CHECK(std::none_of(stage.seen.begin(), stage.seen.end(), [](float red) { return red == 0.3f; }));
        stage.sheet.set_frame(stage.cell, 0);
        QTest::qWait(30);
    }
}

TEST_CASE("frames in memory stay within their limit, and a file that is written again is read again", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 10; ++i)
        stage.write("dusk", i, i / 10.0);
    stage.open(1);
    FrameStore& store = stage.playback.store();
    store.set_limit(4 * frame_bytes);
    std::size_t most = 0;
    QObject::connect(&store, &FrameStore::arrived, &stage.playback, [&] { most = std::max(most, store.bytes()); });
    stage.playback.set_rate(0);
    stage.playback.set_loops(false);
    stage.playback.play(stage.cell);
    stage.wait_for_end();
    CHECK(stage.playback.counts().shown == 9);
    CHECK(most == 4 * frame_bytes);
    store.set_limit(100 * frame_bytes);
    store.want({{stage.path("dusk", 7), ""}});
    REQUIRE(QTest::qWaitFor([&] { return store.find({stage.path("dusk", 7), ""}) != nullptr; }, 10000));
    CHECK(store.find({stage.path("dusk", 7), "acescg"}) == nullptr); // said to mean something else: another reading
    store.want({});
    stage.write("dusk", 7, 0.05);
    std::filesystem::last_write_time(stage.path("dusk", 7),
                                     std::filesystem::file_time_type::clock::now() + std::chrono::seconds(3));
    CHECK(store.find({stage.path("dusk", 7), ""}) == nullptr);
}

TEST_CASE("other sequences go along by their numbers, and pictures for sources too", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 6; ++i) {
        stage.write("dusk", i, i / 10.0);
        if (i != 4)
            stage.write("key", i, i / 100.0); // a frame is missing: the one before stays
    }
    stage.open(1);
    const int key = stage.sheet.add_picture(stage.path("key", 1), "colour");
    stage.sheet.give("mask", stage.path("key", 1));
    REQUIRE(QTest::qWaitFor([&] { return !stage.sheet.loading(); }, 10000));
    stage.playback.set_rate(0);
    stage.playback.set_loops(false);
    std::vector<std::pair<std::string, std::string>> together;
    QObject::connect(&stage.sheet, &SheetModel::changed, &stage.playback, [&] {
        together.emplace_back(stage.sheet.find(stage.cell)->picture, stage.sheet.find(key)->picture);
    });
    stage.playback.play(stage.cell);
    stage.wait_for_end();
    const std::vector<int> keys = {2, 3, 3, 5, 6};
    REQUIRE(together.size() >= keys.size());
    for (std::size_t i = 0; i < keys.size(); ++i) {
        CHECK(together[i].first == stage.path("dusk", static_cast<int>(i) + 2));
        CHECK(together[i].second == stage.path("key", keys[i]));
    }
    CHECK(stage.sheet.source_pictures().at("mask").picture == stage.path("key", 6));
}

TEST_CASE("a pin over time has the colour of its pixel in every frame", "[playback]") {
    Stage stage;
    for (int i = 1; i <= 7; ++i)
        stage.write("dusk", 10 * i, i / 10.0);
    std::ofstream(stage.path("dusk", 50)) << "no picture";
    stage.open(20);
    OverTime over_time(stage.sheet, stage.playback.store());
    CHECK(stage.sheet.add_over_time(1) == 0); // no such pin
    const int pin = stage.sheet.add_pin(stage.sheet.find(stage.cell)->source(), {3, 1});
    const int strip = stage.sheet.add_over_time(pin);
    CHECK(stage.sheet.add_over_time(pin) == strip); // it is there
    REQUIRE(QTest::qWaitFor([&] { return over_time.row(pin).read == 7; }, 10000));
    OverTime::Row row = over_time.row(pin);
    CHECK(row.numbers == std::vector<int>{10, 20, 30, 40, 50, 60, 70});
    CHECK(row.at == 1);
    for (int i = 0; i < 7; ++i) {
        const auto colour = row.colours->at(i, 0);
        if (i == 4) {
            CHECK(std::isnan(colour[0])); // it could not be read
            continue;
        }
        CHECK(colour[0] == Approx((i + 1) / 10.0));
        CHECK(colour[1] == Approx((i + 1) / 20.0));
        CHECK(colour[2] == Approx(0.03));
    }
    stage.sheet.move_pin(pin, {7, 1}); // another pixel: read anew
    REQUIRE(QTest::qWaitFor([&] { return over_time.row(pin).read == 7; }, 10000));
    CHECK(over_time.row(pin).colours->at(2, 0)[2] == Approx(0.07));
    stage.sheet.set_frame(stage.cell, 3); // the pin goes along, and nothing is read again
    CHECK(over_time.row(pin).at == 3);
    CHECK(over_time.row(pin).read == 7);
    stage.sheet.remove_pin(pin);
    CHECK(stage.sheet.find_strip(strip) == nullptr);
    CHECK(over_time.row(pin).colours == nullptr);
}
