// The library as a list: search, favourites, faults, thumbnails, files that come and go, and those that ship.
#include "base/file.hpp"
#include "model/display.hpp"
#include "model/library_model.hpp"
#include "support/support.hpp"

#include <set>

#include <QSignalSpy>
#include <QTest>

using namespace kasuri;
using namespace kasuri::app;
using namespace kasuri::test;

namespace {

PicturePtr sample() {
    image::Picture picture = image::generated(24, 16, [](int x, int y) {
        return std::array<double, 3>{x / 24.0, y / 16.0, 0.4};
    });
    picture.space = "rec709-linear";
    return std::make_shared<const image::Picture>(std::move(picture));
}

struct Library {
    TemporaryFolder folder;
    LibraryModel model;
    Library() {
        write(folder / "dip.kasuri",
              "filter \"Dip\"\nparam k = 0 in 0 .. 1\npreset \"Full\" k = 1\nout.rgb = mix(rgb, vec3(0, 0, 1), k)\n");
        write(folder / "bath.kasuri", "filter \"Bath\"\nout.rgb = rgb.gbr\n");
        write(folder / "wrong.kasuri", "filter \"Wrong\"\n\nout.r = nothing(g)\n");
        model.set_folders({folder.path});
        model.set_sample(sample());
        settle();
    }
    void settle() {
        REQUIRE(QTest::qWaitFor([this] { return !model.busy(); }, 10000));
    }
    QStringList titles() const {
        QStringList all;
        for (int i = 0; i < model.rowCount(); ++i)
            all << model.index(i).data().toString();
        return all;
    }
    QString path(const char* name) const { return QString::fromStdString((folder / name).string()); }
};

} // namespace

TEST_CASE("a library lists, searches and marks favourites and faults", "[library]") {
    Library l;
    CHECK(l.titles() == QStringList{"Bath", "Dip", "Wrong"});
    CHECK(l.model.index(2).data(LibraryModel::fault_role).toString().startsWith("line 3: "));
    CHECK(l.model.index(0).data(LibraryModel::fault_role).toString().isEmpty());
    CHECK(l.model.index(1).data(LibraryModel::presets_role).toStringList() == QStringList{"Full"});
    // A thumbnail shows the first preset: the whole picture is blue.
    const QImage picture = l.model.index(1).data(Qt::DecorationRole).value<QImage>();
    REQUIRE(picture.size() == QSize(24, 16));
    CHECK((qBlue(picture.pixel(20, 4)) == 255 && qRed(picture.pixel(20, 4)) == 0));
    l.model.set_query("mix");
    CHECK(l.titles() == QStringList{"Dip"});
    l.model.set_query("");
    l.model.set_favourite(l.path("wrong.kasuri"), true);
    CHECK(l.titles() == QStringList{"Wrong", "Bath", "Dip"});
    CHECK(l.model.favourites() == QStringList{l.path("wrong.kasuri")});
}

TEST_CASE("a saved filter is there at once, and a file that goes is gone", "[library]") {
    Library l;
    const auto soon = [&](const QStringList& wanted) {
        return QTest::qWaitFor([&] { return l.titles() == wanted; }, 10000);
    };
    write(l.folder / "ash.kasuri", "filter \"Ash\"\n");
    CHECK(soon({"Ash", "Bath", "Dip", "Wrong"}));
    REQUIRE(write_file(l.folder / "ash.kasuri",
                       "filter \"Cinder\"\nout.r = b\n")); // as the program saves: another file takes its place
    CHECK(soon({"Bath", "Cinder", "Dip", "Wrong"}));
    std::filesystem::remove(l.folder / "bath.kasuri");
    CHECK(soon({"Cinder", "Dip", "Wrong"}));
    std::filesystem::create_directories(l.folder / "more");
    QTest::qWait(300);
    write(l.folder / "more/deep.kasuri", "filter \"Deep\"\n");
    CHECK(soon({"Cinder", "Deep", "Dip", "Wrong"}));
}

TEST_CASE("files are renamed and doubled, and what cannot be done says why", "[library]") {
    Library l;
    CHECK_FALSE(l.model.rename(l.path("dip.kasuri"), "bath"));
    CHECK_FALSE(l.model.rename(l.path("dip.kasuri"), "a/b"));
    CHECK_FALSE(l.model.rename(l.path("nothing.kasuri"), "else"));
    l.model.set_favourite(l.path("dip.kasuri"), true);
    REQUIRE(l.model.rename(l.path("dip.kasuri"), "deep dip"));
    CHECK(std::filesystem::exists(l.folder / "deep dip.kasuri"));
    CHECK(l.model.favourites() == QStringList{l.path("deep dip.kasuri")}); // it stays one
    const Result<QString> copy = l.model.duplicate(l.path("bath.kasuri"));
    REQUIRE(copy);
    CHECK(copy.value() == l.path("bath-2.kasuri"));
    CHECK_FALSE(l.model.duplicate(l.path("nothing.kasuri")));
    CHECK_FALSE(l.model.to_trash(l.path("nothing.kasuri")));
    CHECK(QTest::qWaitFor([&] { return l.model.rowCount() == 4; }, 10000));
}

TEST_CASE("what ships: at least 24 filters, each with note, tags, parameters, presets and a thumbnail that differs "
          "from the picture",
          "[library]") {
    const auto files = document::library_files(std::string(KASURI_SOURCE_DIR) + "/data/filters");
    CHECK(files.size() >= 24);
    std::string fault;
    // Fine enough for what works on detail.
    auto fine = std::make_shared<image::Picture>(image::generated(300, 200, [](int x, int y) {
        return std::array<double, 3>{0.5 + 0.4 * ((x / 2 + y) % 2), 0.2 + 0.5 * (x % 3 == 0), x / 300.0};
    }));
    fine->space = "rec709-linear";
    const PicturePtr chart = fine;
    const QImage plain = shown(*chart, lens("colour"));
    std::set<std::string> titles;
    for (const std::filesystem::path& file : files) {
        INFO(file);
        const document::LibraryEntry entry = document::library_entry(file);
        CHECK_FALSE(entry.note.empty());
        CHECK_FALSE(entry.tags.empty());
        CHECK(entry.presets.size() >= 2);
        CHECK(titles.insert(entry.title).second);
        CHECK(entry.text.find("\nparam ") != std::string::npos);
        CHECK(entry.text.find("\nproof ") != std::string::npos);
        const QImage picture = library_thumbnail(entry, *chart, fault);
        CHECK(fault.empty());
        if (file.stem() != "three-lamps") // whose plates are here the picture's own channels
            CHECK(picture != plain);
    }
}
