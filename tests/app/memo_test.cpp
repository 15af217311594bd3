// What the preview remembers, and how much.
#include "model/memo.hpp"
#include "model/preview_worker.hpp"
#include "readings/reading.hpp"

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::app;

namespace {

struct Thing {
    int value = 0;
    std::size_t bytes = 0;
    friend std::size_t bytes_of(const Thing& thing) { return thing.bytes; }
};

PicturePtr even(int size, double value, const std::string& space = "rec709-linear") {
    image::Picture made = image::generated(size, size, [&](int, int) { return std::array{value, value, value}; });
    made.space = space;
    return std::make_shared<const image::Picture>(std::move(made));
}

PreviewRequest request(const std::string& text, std::vector<PicturePtr> pictures, const std::string& lens = "colour") {
    PreviewRequest wanted;
    wanted.text = text;
    for (PicturePtr& picture : pictures) {
        CellJob job;
        job.id = static_cast<int>(wanted.cells.size()) + 1;
        job.picture = picture;
        job.lens = lens;
        job.pixels = {16, 16};
        wanted.cells.push_back(job);
    }
    return wanted;
}

std::shared_ptr<SheetResult> sheet_of(PreviewWorker& worker, const PreviewRequest& wanted) {
    worker.take(wanted);
    REQUIRE(worker.has_rule());
    auto sheet = worker.sheet(wanted, false, {});
    REQUIRE(sheet);
    return sheet;
}

} // namespace

TEST_CASE("results are made once, and the oldest go when there are too many", "[memo]") {
    MemoClock clock(100);
    Memo<int, Thing> memo(clock);
    int made = 0;
    const auto get = [&](int key, std::size_t bytes) {
        return memo
            .get(key,
                 [&]() -> std::optional<Thing> {
                     ++made;
                     return Thing{key, bytes};
                 })
            ->value;
    };
    CHECK(get(1, 60) == 1);
    CHECK(get(1, 60) == 1);
    CHECK(made == 1);
    get(2, 60);
    clock.trim();
    CHECK(memo.size() == 2); // both are in use, however large
    clock.next_request();
    get(2, 60);
    get(3, 60);
    clock.next_request();
    get(3, 60);
    clock.trim(); // two of 60 to spare, of two requests, 100 allowed
    CHECK(memo.size() == 2);
    CHECK(clock.spare() == 60);
    clock.next_request();
    get(3, 60);
    get(4, 60);
    clock.next_request();
    clock.trim();
    CHECK(clock.spare() <= 100);
    // What was called off is not remembered.
    CHECK_FALSE(memo.get(9, []() -> std::optional<Thing> { return std::nullopt; }));
    CHECK(get(9, 1) == 9);
}

TEST_CASE("a value that was there before is not computed again, and memory has an end", "[memo][worker]") {
    PreviewWorker worker;
    const PicturePtr picture = even(512, 0.5);
    PreviewRequest wanted = request("param k = 0 in 0 .. 1\nout.rgb = rgb * k", {picture});
    wanted.values["k"] = 0.25;
    const PicturePtr first = sheet_of(worker, wanted)->cells[0].after_pixels;
    wanted.values["k"] = 0.5;
    CHECK(sheet_of(worker, wanted)->cells[0].after_pixels != first);
    wanted.values["k"] = 0.25;
    CHECK(sheet_of(worker, wanted)->cells[0].after_pixels == first); // undo costs nothing
    // Another text that does the same, too.
    wanted.text = "param k = 0 in 0 .. 1\nlet c = k * rgb\nout.rgb = c";
    CHECK(sheet_of(worker, wanted)->cells[0].after_pixels == first);
    for (int i = 0; i < 100; ++i) { // 3 MiB each
        wanted.values["k"] = 0.001 * i;
        sheet_of(worker, wanted);
        CHECK(worker.spare_bytes() <= (std::size_t{48} << 20));
    }
    CHECK(worker.spare_bytes() > (std::size_t{24} << 20)); // and it is used
}

TEST_CASE("a large result of another value is let go, by all that was made of it too", "[memo][worker]") {
    PreviewWorker worker;
    PreviewRequest wanted =
        request("param k = 0 in 0 .. 1\nout.rgb = rgb * k", {even(2100, 0.5)}, "colour"); // 53 MB, 48 may be to spare
    wanted.values["k"] = 0.25;
    const std::weak_ptr<const image::Picture> first = sheet_of(worker, wanted)->cells[0].after_pixels;
    CHECK_FALSE(first.expired());
    wanted.values["k"] = 0.5;
    sheet_of(worker, wanted);
    CHECK(first.expired()); // its small picture for the cell held it
}

TEST_CASE("what was read of before is not read again at another value, however little may be to spare",
          "[memo][worker]") {
    PreviewWorker worker(0, 1000); // the picture is made where it is looked at, and nothing is to spare
    PreviewRequest wanted = request("param k = 0 in 0 .. 1\nout.rgb = rgb * k", {even(64, 0.5)}, "colour");
    const readings::Reading* histogram = readings::find("histogram");
    wanted.readings = {{1, histogram, completed(histogram->settings, {}), {1}, {}}};
    const auto read = [&](double k) {
        wanted.values["k"] = k;
        const auto sheet = sheet_of(worker, wanted);
        const auto made = worker.readings(wanted, *sheet, {});
        worker.trim();
        REQUIRE(made);
        return made->readings[0];
    };
    const ReadingResult first = read(0.25), second = read(0.5);
    CHECK(first.before == second.before); // the very same
    CHECK(first.after != second.after);
    CHECK(worker.spare_bytes() == 0);
}

TEST_CASE("another picture of the same name, or in another space, is another picture", "[memo][worker]") {
    PreviewWorker worker;
    PreviewRequest wanted = request("out.rgb = rgb", {even(64, 0.5)}, "colour");
    const QImage before = sheet_of(worker, wanted)->cells[0].after;
    wanted.cells[0].picture = even(64, 0.5, "srgb");
    CHECK(sheet_of(worker, wanted)->cells[0].after != before);
    wanted.cells[0].picture = even(64, 0.25);
    CHECK(sheet_of(worker, wanted)->cells[0].after != before);
}

TEST_CASE("readings of takes side by side are those of their takes", "[memo][worker]") {
    PreviewWorker worker;
    const PicturePtr picture = even(32, 0.5);
    PreviewRequest wanted = request("out.rgb = rgb", {picture, picture, picture});
    wanted.cells[1].take =
        std::make_shared<const document::KeptTake>(document::KeptTake{"dark", "out.rgb = rgb * 0.1", {}});
    wanted.cells[2].take = std::make_shared<const document::KeptTake>(
        document::KeptTake{"by value", "param k = 0 in 0 .. 1\nout.rgb = rgb * k", {{"k", 0.2}}});
    const readings::Reading* histogram = readings::find("histogram");
    const auto read = [&](int cell) {
        wanted.readings = {{1, histogram, completed(histogram->settings, {}), {cell}, {}}};
        const auto sheet = sheet_of(worker, wanted);
        const auto made = worker.readings(wanted, *sheet, {});
        REQUIRE(made);
        return readings::csv(made->readings[0].panels, *made->readings[0].after);
    };
    const std::string plain = read(1), dark = read(2), by_value = read(3);
    CHECK(plain != dark);
    CHECK(dark != by_value);
    CHECK(read(1) == plain);
    CHECK(read(2) == dark);
}
