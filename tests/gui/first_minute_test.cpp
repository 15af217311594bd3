// The first minute in the window: a row whose steps are ticked by doing them.
#include "driver.hpp"

#include "widgets/frame/first_minute.hpp"

#include <QFileDialog>
#include <QLineEdit>
#include <QMenu>
#include <QSettings>
#include <QTimer>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

/// Hands that have a keyboard and nothing else: keys go to what has the focus, in a menu or a dialog if one is open.
struct Keyboard : Driver {
    Keyboard() {
        window.activateWindow();
        REQUIRE(QTest::qWaitFor([this] { return window.isActiveWindow(); }, 5000));
    }
    static QWidget* place() {
        if (QWidget* popup = QApplication::activePopupWidget())
            return popup;
        QWidget* const focus = QApplication::focusWidget();
        return focus ? focus : QApplication::activeWindow();
    }
    void key(Qt::Key key, Qt::KeyboardModifiers with = {}) {
        REQUIRE(place());
        QTest::keyClick(place(), key, with);
    }
    void keys(const QString& text) {
        for (const QChar c : text)
            if (c == '\n')
                key(Qt::Key_Return);
            else
                QTest::keyClick(place(), c.toLatin1());
    }
    /// F6 until a part has the keyboard.
    void go_to(const QWidget& part) {
        for (int i = 0; i < 12 && !part.hasFocus() && !part.isAncestorOf(QApplication::focusWidget()); ++i)
            key(Qt::Key_F6);
        REQUIRE((part.hasFocus() || part.isAncestorOf(QApplication::focusWidget())));
    }
    /// Answers a file dialog that `opens` opens: a name, Return.
    template <class Opens>
    void answer(const QString& name, Opens&& opens) {
        bool answered = false;
        QTimer hand;
        QObject::connect(&hand, &QTimer::timeout, &hand, [&] {
            auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
            auto* edit = dialog ? qobject_cast<QLineEdit*>(dialog->focusWidget()) : nullptr; // has it when it opens
            if (!edit)
                return;
            answered = true;
            edit->setText(name); // the dialog is the toolkit's; its list of names has keys of its own
            QTest::keyClick(edit, Qt::Key_Return);
        });
        hand.start(20);
        opens();
        CHECK(answered);
        window.activateWindow(); // as a window manager does
        REQUIRE(QTest::qWaitFor([this] { return window.isActiveWindow() && QApplication::focusWidget(); }, 5000));
    }
};

} // namespace

TEST_CASE("all of the first minute can be done with the keyboard alone", "[gui][first][keyboard]") {
    QSettings().clear();
    Keyboard d;
    auto& first = d.window.part<FirstMinute>();
    first.begin_if_new();
    REQUIRE(first.isVisible());
    // 1. Bring a picture.
    d.answer(KASURI_DEMO_DIR "/cloths.exr", [&] { d.key(Qt::Key_O, Qt::ControlModifier); });
    d.settle();
    CHECK(first.is_done(FirstMinute::picture));
    const int cloths = d.window.bench().sheet().cells().back().id;
    // 2. Write a rule.
    d.go_to(d.editor());
    d.key(Qt::Key_End, Qt::ControlModifier);
    d.keys("\nout.g = 0.5 * g + 0.5 * b\n");
    d.settle();
    CHECK(d.text().find("out.g = 0.5 * g + 0.5 * b\n") != std::string::npos);
    CHECK(first.is_done(FirstMinute::rule));
    // 3. Look closely: the pointer goes by arrows, P pins, D is a lens, F9 held shows what was before.
    d.go_to(d.sheet());
    for (int i = 0; i < 12 && !d.sheet().cell(cloths)->hasFocus(); ++i)
        d.key(Qt::Key_Tab);
    REQUIRE(d.sheet().cell(cloths)->hasFocus());
    for (int i = 0; i < 5; ++i)
        d.key(Qt::Key_Right, Qt::ControlModifier);
    d.key(Qt::Key_P);
    d.settle();
    REQUIRE(d.window.bench().sheet().pins().size() == 1);
    CHECK(first.is_done(FirstMinute::pin));
    d.key(Qt::Key_D);
    CHECK(d.window.bench().sheet().find(cloths)->lens == "difference");
    d.key(Qt::Key_D);
    QTest::keyPress(Keyboard::place(), Qt::Key_F9);
    CHECK(d.sheet().cell(cloths)->result());
    QTest::keyRelease(Keyboard::place(), Qt::Key_F9);
    // 4. Tune: a value, takes, a comparison.
    d.go_to(d.editor());
    d.key(Qt::Key_End, Qt::ControlModifier);
    d.keys("param meet = 0 in 0 .. 1\nout.b = mix(b, g, meet)\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::value));
    d.key(Qt::Key_T, Qt::ControlModifier);
    d.go_to(d.window.part<app::ValuesPanel>());
    for (int i = 0; i < 12 && !qobject_cast<app::NumberField*>(QApplication::focusWidget()); ++i)
        d.key(Qt::Key_Tab);
    auto* field = qobject_cast<app::NumberField*>(QApplication::focusWidget());
    REQUIRE(field);
    field->selectAll();
    d.keys("0.5\n");
    d.settle();
    CHECK(d.session().values().front() == 0.5);
    d.key(Qt::Key_T, Qt::ControlModifier);
    REQUIRE(d.window.bench().takes().takes().size() == 2);
    d.key(Qt::Key_PageUp, Qt::AltModifier);
    d.settle();
    CHECK(d.session().values().front() == 0);
    d.key(Qt::Key_PageDown, Qt::AltModifier);
    d.key(Qt::Key_K, Qt::ControlModifier);
    d.settle();
    CHECK(d.window.bench().against().rule());
    // 5. Prove: the + of the row at the bottom.
    d.go_to(d.window.part<app::ProofsBar>());
    for (int i = 0; i < 8 && !qobject_cast<QToolButton*>(QApplication::focusWidget()); ++i)
        d.key(Qt::Key_Tab);
    REQUIRE(qobject_cast<QToolButton*>(QApplication::focusWidget()));
    const std::size_t promised = d.session().rule()->proofs.size();
    QTimer::singleShot(200, &d.window, [&] { // the menu waits for it
        for (int i = 0; i < 5; ++i)          // beyond those that a new filter promises
            d.key(Qt::Key_Down);
        d.key(Qt::Key_Return);
    });
    d.key(Qt::Key_Space);
    REQUIRE(QTest::qWaitFor([&] { return d.session().rule() && d.session().rule()->proofs.size() == promised + 1; },
                            20000));
    d.settle();
    CHECK(first.is_done(FirstMinute::proof));
    // 6. Use it.
    d.answer(d.file("mine.kasuri"), [&] { d.key(Qt::Key_S, Qt::ControlModifier); });
    d.settle();
    CHECK(QFile::exists(d.file("mine.kasuri")));
    CHECK(first.is_done(FirstMinute::use));
    CHECK_FALSE(first.isVisible()); // all six
    // The menu opens by F10, goes by arrows, and closes by Escape.
    d.key(Qt::Key_F10);
    REQUIRE(QTest::qWaitFor([] { return QApplication::activePopupWidget() != nullptr; }, 5000));
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu);
    CHECK(menu->activeAction() == menu->actions().front());
    d.key(Qt::Key_Down);
    CHECK(menu->activeAction() != menu->actions().front());
    d.key(Qt::Key_Escape);
    CHECK_FALSE(QApplication::activePopupWidget());
    QSettings().clear();
}

TEST_CASE("the first minute's steps are ticked by doing them, in any order, and it goes for good", "[gui][first]") {
    QSettings().clear();
    Driver d;
    auto& first = d.window.part<FirstMinute>();
    CHECK_FALSE(first.isVisible()); // only where a person starts the program
    first.begin_if_new();
    REQUIRE(first.isVisible());
    for (std::size_t step = 0; step < FirstMinute::count; ++step)
        CHECK_FALSE(first.is_done(static_cast<FirstMinute::Step>(step)));
    // A step says how.
    first.button(FirstMinute::pin)->click();
    CHECK(d.window.part<StatusLine>().message().contains("press P"));
    d.window.part<Files>().open(KASURI_DEMO_DIR "/cloths.exr");
    d.settle();
    CHECK(first.is_done(FirstMinute::picture));
    CHECK(first.button(FirstMinute::picture)->text().startsWith(QString::fromUtf8("\u2713")));
    // What is in a file that is opened nobody has done.
    // A copy: pins are kept beside the filter.
    REQUIRE(QFile::copy(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri", d.file("madder.kasuri")));
    d.window.part<Files>().open(d.file("madder.kasuri"));
    d.settle();
    CHECK_FALSE(first.is_done(FirstMinute::rule));
    CHECK_FALSE(first.is_done(FirstMinute::value));
    CHECK_FALSE(first.is_done(FirstMinute::proof));
    CHECK_FALSE(first.is_done(FirstMinute::use));
    d.replace_text("out.g = 0.5 * g + 0.5 * b\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::rule));
    CHECK_FALSE(first.is_done(FirstMinute::value));
    const int cell = d.window.bench().sheet().cells().back().id;
    d.sheet().cell(cell)->setFocus();
    const QPointF place = d.sheet().cell(cell)->point_of({300, 300});
    QTest::mouseMove(d.sheet().cell(cell), place.toPoint());
    d.trigger("pin");
    d.settle();
    CHECK(first.is_done(FirstMinute::pin));
    // One where the file had two: it is new all the same.
    d.replace_text("param one = 0 in 0 .. 1\nout.g = mix(g, b, one)\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::value));
    d.session().take_as_saved(); // by the program itself
    CHECK_FALSE(first.is_done(FirstMinute::use));
    REQUIRE(d.window.part<Files>().save_to(d.file("mine.kasuri")));
    d.settle();
    CHECK(first.is_done(FirstMinute::use));
    CHECK_FALSE(first.is_done(FirstMinute::proof));
    d.replace_text("out.g = b\nproof \"mine\" : finite\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::proof));
    CHECK_FALSE(first.isVisible()); // all is done
    first.begin_if_new();
    CHECK_FALSE(first.isVisible());
    d.trigger("first_minute"); // the menu has it still
    CHECK(first.isVisible());
    CHECK_FALSE(first.is_done(FirstMinute::picture));
    first.findChild<QToolButton*>("close")->click();
    CHECK_FALSE(first.isVisible());
    QSettings().clear();
}
