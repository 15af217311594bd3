#include "model/sheet.hpp"

#include "io/picture_file.hpp"

#include <QTemporaryDir>
#include <QTest>

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::app;

namespace {

std::filesystem::path layered(const QTemporaryDir& folder) {
    image::Image image;
    image.width = 2;
    image.height = 1;
    image.depth = image::Depth::float32;
    for (const char* name : {"R", "G", "B", "moon.R", "moon.G", "moon.B"})
        image.channels.push_back({name, image::make_plane({static_cast<float>(image.channels.size()), 0.5f})});
    const std::filesystem::path path = folder.filePath("layered.exr").toStdString();
    REQUIRE(io::save(path, image));
    return path;
}

void wait(const SheetModel& sheet) {
    REQUIRE(QTest::qWaitFor([&] { return !sheet.loading(); }, 10000));
}

} // namespace

TEST_CASE("cells are added, found, changed and removed", "[sheet]") {
    SheetModel sheet;
    int changes = 0;
    QObject::connect(&sheet, &SheetModel::changed, [&changes] { ++changes; });
    const int chart = sheet.add_target(*targets::find("dye_chart"), "colour");
    const int again = sheet.add_target(*targets::find("dye_chart"), "red");
    CHECK(chart != again);
    CHECK(sheet.title(*sheet.find(chart)) == "dye chart");
    CHECK(sheet.find(chart)->source() == sheet.find(again)->source()); // shared work
    sheet.set_lens(chart, "blue");
    CHECK(sheet.find(chart)->lens == "blue");
    sheet.remove(chart);
    CHECK(sheet.find(chart) == nullptr);
    CHECK(sheet.cells().size() == 1);
    CHECK(changes == 4);
    sheet.set_lens(chart, "red"); // gone: nothing happens
    sheet.set_layer(chart, "x");
    CHECK(changes == 4);
}

TEST_CASE("a picture is read in the background, once for all its cells", "[sheet]") {
    QTemporaryDir folder;
    const auto path = layered(folder);
    SheetModel sheet;
    const int one = sheet.add_picture(path, "colour");
    const int two = sheet.add_picture(path, "red", "moon");
    CHECK(sheet.picture_of(*sheet.find(one)) == nullptr); // not there yet
    wait(sheet);
    REQUIRE(sheet.picture_of(*sheet.find(one)));
    CHECK(sheet.picture_of(*sheet.find(one))->at(0, 0)[2] == 2);
    CHECK(sheet.picture_of(*sheet.find(two))->at(0, 0)[0] == 3);
    CHECK(sheet.title(*sheet.find(two)) == "layered, moon");
    CHECK(sheet.layers_of(*sheet.find(one)).size() == 2);
    CHECK(sheet.picture_of(*sheet.find(one)) == sheet.picture_of(*sheet.find(one))); // kept
}

TEST_CASE("a layer that is not there becomes the first one", "[sheet]") {
    QTemporaryDir folder;
    SheetModel sheet;
    const int id = sheet.add_picture(layered(folder), "colour", "sun");
    wait(sheet);
    CHECK(sheet.find(id)->layer.empty());
    CHECK(sheet.picture_of(*sheet.find(id)) != nullptr);
}

TEST_CASE("a picture that cannot be read takes its cells away and says why", "[sheet]") {
    QTemporaryDir folder;
    SheetModel sheet;
    QString said;
    QObject::connect(&sheet, &SheetModel::failed,
                     [&said](const Error& error) { said = QString::fromStdString(error.text()); });
    sheet.add_target(*targets::find("dye_chart"), "colour");
    sheet.add_picture(folder.filePath("none.exr").toStdString(), "colour");
    CHECK(sheet.cells().size() == 2);
    wait(sheet);
    CHECK(sheet.cells().size() == 1);
    CHECK(said.contains("no such file"));
}

TEST_CASE("a cell can show another picture", "[sheet]") {
    QTemporaryDir folder;
    SheetModel sheet;
    const int id = sheet.add_target(*targets::find("dye_chart"), "green");
    sheet.set_picture(id, layered(folder));
    wait(sheet);
    CHECK(sheet.find(id)->target == nullptr);
    CHECK(sheet.find(id)->lens == "green"); // the lens stays
    CHECK(sheet.title(*sheet.find(id)) == "layered");
}
