// The settings window: every row works at once, is remembered, and can be put back.
#include "gui/driver.hpp"
#include "widgets/frame/preferences.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/parts/room_menu.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/editor_settings.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QSettings>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Settings : Driver {
    PreferencesWindow* settings = nullptr;
    Settings() {
        trigger("preferences");
        settings = window.findChild<PreferencesWindow*>();
        REQUIRE(settings);
    }
    ~Settings() {
        settings->findChild<QPushButton*>("usual")->click();
        settings->close();
    }
    template <class T>
    T& control(const char* id) {
        T* found = settings->findChild<T*>(QString::fromLatin1(id));
        REQUIRE(found);
        return *found;
    }
    void choose(const char* id, const QString& value) {
        QComboBox& box = control<QComboBox>(id);
        const int index = box.findData(value);
        REQUIRE(index >= 0);
        box.setFocus();
        while (box.currentIndex() != index) // by keys, as one would
            QTest::keyClick(&box, box.currentIndex() < index ? Qt::Key_Down : Qt::Key_Up);
    }
    void type_number(const char* id, const QString& number) {
        NumberField& field = control<NumberField>(id);
        field.setFocus();
        field.selectAll();
        QTest::keyClicks(&field, number);
        QTest::keyClick(&field, Qt::Key_Return);
    }
    QColor behind_cells() { return QColor(sheet().grab().toImage().pixel(5, sheet().height() - 4)); }
};

} // namespace

TEST_CASE("every setting has a control that says what it is", "[gui][settings]") {
    Settings d;
    for (const PreferenceRow& row : preference_table()) {
        INFO(row.id);
        QWidget* control = d.settings->findChild<QWidget*>(QString::fromLatin1(row.id));
        REQUIRE(control);
        CHECK(control->isVisible());
        CHECK(!control->accessibleName().isEmpty());
        CHECK(QString::fromLatin1(row.doc).endsWith('.'));
    }
    d.trigger("preferences"); // once is enough
    CHECK(d.window.findChildren<PreferencesWindow*>().size() == 1);
}

TEST_CASE("what pictures stand on is typed as a lightness", "[gui][settings]") {
    Settings d;
    CHECK(d.behind_cells() == QColor(0x77, 0x77, 0x77));
    d.type_number("surround", "20");
    CHECK(d.behind_cells() == QColor(48, 48, 48)); // L* 20 in sRGB, as in the tests of the model
    CHECK(theme::on_surround == QColor(Qt::white));
    d.type_number("surround", "75");
    CHECK(d.behind_cells() == QColor(185, 185, 185));
    CHECK(theme::on_surround == QColor(Qt::black));
    d.type_number("surround", "250"); // no lighter than white
    CHECK(d.behind_cells() == QColor(Qt::white));
    d.window.close();
    CHECK(QSettings().value("screen/surround").toDouble() == 100);
    d.control<QPushButton>("usual").click();
    CHECK(d.behind_cells() == QColor(0x77, 0x77, 0x77));
}

TEST_CASE("the surround is in the menu of the display too", "[gui][settings]") {
    Driver d;
    QToolButton* display = nullptr;
    for (QToolButton* button : d.window.findChildren<QToolButton*>())
        if (button->accessibleName() == "Display")
            display = button;
    REQUIRE(display);
    emit display->menu()->aboutToShow();
    QMenu* surround = display->menu()->findChild<QMenu*>("surround");
    REQUIRE(surround);
    REQUIRE(surround->actions().size() == static_cast<qsizetype>(surrounds().size()));
    CHECK(surround->actions()[2]->isChecked());
    surround->actions()[4]->trigger();
    d.settle();
    CHECK(theme::surround == QColor(Qt::black));
    CHECK(d.window.bench().sheet().screen().space == "srgb"); // the rest stays
    Screen usual;
    d.window.bench().sheet().set_screen(usual);
}

TEST_CASE("room, screen and limits are chosen, and follow what is chosen elsewhere", "[gui][settings]") {
    Settings d;
    d.choose("room", "dark");
    CHECK(theme::is_dark());
    CHECK(QSettings().value("room").toString() == "dark");
    d.choose("screen", "p3-d65-srgb");
    d.choose("limits", "soft");
    CHECK(d.window.bench().sheet().screen() == Screen{"p3-d65-srgb", Limits::soft});
    d.window.bench().sheet().set_screen({});
    CHECK(d.control<QComboBox>("screen").currentData().toString() == "srgb");
    CHECK(d.control<QComboBox>("limits").currentData().toString() == "hard");
    choose_room("dim");
    CHECK(d.control<QComboBox>("room").currentData().toString() == "dim");
    d.control<QPushButton>("usual").click();
    CHECK(theme::room() == "bright");
}

TEST_CASE("the text of rules grows, wraps or not, and is so the next time", "[gui][settings]") {
    {
        Settings d;
        restore_editor(d.editor());
        const long line = d.editor().SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0);
        d.type_number("text_size", "14");
        CHECK(text_size(d.editor()) == 14);
        CHECK(d.editor().SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0) > line);
        d.control<QCheckBox>("wrap").click();
        CHECK(!wraps(d.editor()));
        CHECK(QSettings().value("editor/size").toDouble() == 14);
        d.editor().zoomTo(100); // as by the wheel: no further than the largest
        CHECK(text_size(d.editor()) == max_text_size);
        CHECK(d.control<NumberField>("text_size").value() == max_text_size);
        set_text_size(d.editor(), 14);
        {
            Driver next;
            restore_editor(next.editor());
            CHECK(text_size(next.editor()) == 14);
            CHECK(!wraps(next.editor()));
        }
    }
    CHECK(QSettings().value("editor/size").toDouble() == usual_text_size); // put back by "as they came"
    CHECK(QSettings().value("editor/wrap").toBool());
}

TEST_CASE("folders, recent files and the start are kept", "[gui][settings]") {
    Settings d;
    QSettings().setValue("recent", QStringList{"/nowhere/a.kasuri", "/nowhere/b.kasuri"});
    d.trigger("preferences");
    emit d.window.bench().sheet().changed(); // it looks again
    QPushButton& forget = d.control<QPushButton>("recent");
    CHECK(forget.text().contains("(2)"));
    forget.click();
    CHECK(QSettings().value("recent").toStringList().isEmpty());
    CHECK(!forget.isEnabled());

    auto* list = d.control<QWidget>("folders").findChild<QListWidget*>();
    REQUIRE(list);
    d.window.part<app::LibraryPanel>().keep_folder(d.folder.path());
    REQUIRE(list->count() == 1);
    CHECK(QSettings().value("library/folders").toStringList() == QStringList{d.folder.path()});
    list->setCurrentRow(0);
    for (QPushButton* button : d.control<QWidget>("folders").findChildren<QPushButton*>())
        if (button->text() == "Leave out")
            button->click();
    CHECK(list->count() == 0);
    CHECK(QSettings().value("library/folders").toStringList().isEmpty());

    d.choose("start", "chart");
    CHECK(QSettings().value("start").toString() == "chart");
    d.type_number("jobs", "3");
    CHECK(QSettings().value("apply/jobs").toInt() == 3);
    d.control<QPushButton>("usual").click();
    CHECK(!QSettings().contains("apply/jobs"));
    CHECK(QSettings().value("start").toString() == "left");
}
