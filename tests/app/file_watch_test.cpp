// A filter's file that somebody else changes while it is on the bench.
#include "model/file_watch.hpp"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::app;

namespace {

struct Disk {
    QTemporaryDir folder;
    Session session;
    FileWatch watch{session};
    QString said;
    std::filesystem::path file = folder.filePath("dye.kasuri").toStdString();

    Disk() {
        QObject::connect(&watch, &FileWatch::said, [this](const QString& message, bool) { said = message; });
        write("out.r = g\nout.g = b\nout.b = r\n");
        REQUIRE(session.open(file));
    }
    void write(const std::string& text) const {
        QFile out(QString::fromStdString(file.string()));
        REQUIRE(out.open(QIODevice::WriteOnly));
        out.write(text.data(), static_cast<qint64>(text.size()));
    }
    void edit(const std::string& from, const std::string& to) {
        session.apply_edit({static_cast<std::uint32_t>(session.text().find(from)), from, to}, "edit");
    }
};

} // namespace

TEST_CASE("an untouched text follows its file, as a step that can be taken back", "[disk]") {
    Disk d;
    d.write("out.r = b\n");
    REQUIRE(QTest::qWaitFor([&] { return d.session.text() == "out.r = b\n"; }, 5000)); // noticed by itself
    CHECK_FALSE(d.session.modified());
    CHECK(d.said.contains("read again"));
    d.session.undo_stack().undo();
    CHECK(d.session.text() == "out.r = g\nout.g = b\nout.b = r\n");
    CHECK(d.session.modified()); // against what the file holds now
    // Put in its place, as careful programs do.
    d.session.undo_stack().redo();
    QFile::remove(d.folder.filePath("new"));
    QFile fresh(d.folder.filePath("new"));
    REQUIRE(fresh.open(QIODevice::WriteOnly));
    fresh.write("out.g = r\n");
    fresh.close();
    std::filesystem::rename(d.folder.filePath("new").toStdString(), d.file);
    REQUIRE(QTest::qWaitFor([&] { return d.session.text() == "out.g = r\n"; }, 5000));
    d.write("out.g = b\n"); // and it is still watched
    REQUIRE(QTest::qWaitFor([&] { return d.session.text() == "out.g = b\n"; }, 5000));
}

TEST_CASE("changes of different lines are merged, of the same lines chosen", "[disk]") {
    Disk d;
    d.edit("out.r = g", "out.r = g * 0.5");
    d.write("out.r = g\nout.g = b\nout.b = r\nkeep luminance\n");
    CHECK(d.watch.look());
    CHECK(d.session.text() == "out.r = g * 0.5\nout.g = b\nout.b = r\nkeep luminance\n");
    CHECK(d.session.modified());
    CHECK(d.said.contains("both changes"));
    d.write("out.r = b\nout.g = b\nout.b = r * 2\nkeep luminance\n");
    CHECK_FALSE(d.watch.look()); // do not save over it
    CHECK(d.watch.clashes());
    CHECK(d.session.text().starts_with("out.r = g * 0.5\n"));
    CHECK_FALSE(d.watch.look());
    SECTION("both") {
        d.watch.choose(FileWatch::Way::merged);
        CHECK(d.session.text() == "out.r = g * 0.5\nout.g = b\nout.b = r * 2\nkeep luminance\n");
    }
    SECTION("mine") {
        d.watch.choose(FileWatch::Way::mine);
        CHECK(d.session.text() == "out.r = g * 0.5\nout.g = b\nout.b = r\nkeep luminance\n");
        CHECK(d.session.modified());
    }
    SECTION("theirs") {
        d.watch.choose(FileWatch::Way::theirs);
        CHECK_FALSE(d.session.modified());
        d.session.undo_stack().undo();
        CHECK(d.session.text().starts_with("out.r = g * 0.5\n"));
    }
    CHECK_FALSE(d.watch.clashes());
    CHECK(d.watch.look());
    REQUIRE(d.session.save(d.file));
    CHECK(d.watch.look());
}

TEST_CASE("own saves are no news, and a file that is gone is told once", "[disk]") {
    Disk d;
    d.edit("out.r = g", "out.r = b");
    REQUIRE(d.session.save(d.file));
    QTest::qWait(250);
    CHECK(d.said.isEmpty());
    std::filesystem::remove(d.file);
    REQUIRE(QTest::qWaitFor([&] { return d.said.contains("gone"); }, 5000));
    CHECK(d.session.text().starts_with("out.r = b"));
    REQUIRE(d.session.save(d.file));
    d.said.clear();
    d.write("broken \xff text"); // half written, or no text
    CHECK(d.watch.look());
    CHECK(d.session.text().starts_with("out.r = b"));
    Session other;
    FileWatch none(other);
    CHECK(none.look()); // no file, nothing to see
}
