// Every word of the window goes through the translator: German and Japanese are a file away.
#include "base/said.hpp"
#include "builtins/builtin.hpp"
#include "document/filter_file.hpp"
#include "gui/driver.hpp"
#include "lang/check.hpp"
#include "widgets/frame/actions.hpp"
#include "widgets/frame/help_window.hpp"
#include "widgets/frame/preferences.hpp"
#include "widgets/look/look_actions.hpp"

#include <QAbstractButton>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QRegularExpression>
#include <QSet>
#include <QTranslator>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

const QChar begin(0x27e6), end(0x27e7);

/// Writes every text between brackets, as a language would that nobody speaks.
class Bracketed : public QTranslator {
public:
    QString translate(const char*, const char* text, const char*, int) const override {
        return begin + QString::fromUtf8(text) + end;
    }
    bool isEmpty() const override { return false; }
};

/// Letters that stand outside of brackets.
QString outside(const QString& text) {
    QString left;
    int depth = 0;
    for (const QChar c : text) {
        depth += c == begin ? 1 : c == end ? -1 : 0;
        if (depth == 0 && c != end)
            left += c;
    }
    return left;
}

/// Words that are the same in every language: names of the program, of spaces and of the language of rules, what the
/// user has written, units.
bool is_name(const QString& word, const QSet<QString>& names) {
    return names.contains(word) || word.contains(QRegularExpression("[0-9_/\\\\.]")) || word.size() <= 2;
}

struct Found {
    QString where, text;
};

void look_at(const QString& where, const QString& text, const QSet<QString>& names, std::vector<Found>& found) {
    static const QRegularExpression letters("[^\\W\\d_][\\w./\\\\-]*");
    auto words = letters.globalMatch(outside(text));
    while (words.hasNext())
        if (const QString word = words.next().captured(); !is_name(word, names)) {
            found.push_back({where, text});
            return;
        }
}

} // namespace

TEST_CASE("no word of the window is out of the translator's reach", "[gui][translation]") {
    Bracketed translator;
    QCoreApplication::installTranslator(&translator);
    set_translator([](std::string_view text) { return "\u27e6" + std::string(text) + "\u27e7"; });
    std::vector<Found> found;
    {
        Driver d;
        d.replace_text("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k\n");
        d.settle();
        d.window.part<app::SideWindows>().open_preferences();
        d.window.toggle_library();
        d.trigger("empty_step");
        d.settle();
        // Names that rules are written with, blend modes and models among them, are the same in every language.
        // "Untitled" is the title that stands in the text of a new rule.
        const QSet<QString> names = {"Kasuri", "out", "rgb", "srgb", "lab", "normal", "Untitled"};
        for (QWidget* widget : QApplication::allWidgets()) {
            if (!widget->isVisible())
                continue;
            const QString where = QString::fromLatin1(widget->metaObject()->className()) + " " + widget->objectName();
            if (const auto* label = qobject_cast<QLabel*>(widget))
                look_at(where, label->text(), names, found);
            if (const auto* button = qobject_cast<QAbstractButton*>(widget))
                look_at(where, button->text(), names, found);
            if (const auto* field = qobject_cast<QLineEdit*>(widget))
                look_at(where, field->placeholderText(), names, found);
            look_at(where + " (tip)", widget->toolTip(), names, found);
            look_at(where + " (name)", widget->accessibleName(), names, found);
        }
        for (const QAction* action : d.window.actions())
            look_at("action " + action->objectName(), action->text(), names, found);
        d.session().take_as_saved();
    }
    set_translator(nullptr);
    QCoreApplication::removeTranslator(&translator);
    QStringList all;
    for (const Found& each : found)
        all << each.where + ": " + each.text;
    all.removeDuplicates();
    INFO(all.join("\n").toStdString());
    CHECK(all.isEmpty());
}

namespace {

/// German, and what was asked of it in vain.
class German : public QTranslator {
public:
    QString translate(const char* context, const char* text, const char* note, int n) const override {
        const QString found = QTranslator::translate(context, text, note, n);
        // The toolkit's own words come from its own translation.
        const bool of_user = QString(text).contains("hell") || QString(text).contains(" on lattice");
        if (found.isEmpty() && *text != 0 && !of_user && QByteArray(context) != "Core" &&
            QByteArray(context).left(1) != "Q")
            missing << QString("%1: %2").arg(context, text);
        return found;
    }
    mutable QStringList missing;
};

/// German as in the program, as long as it lives.
class InGerman {
public:
    German translator;
    InGerman() {
        REQUIRE(translator.load("kasuri_de", QCoreApplication::applicationDirPath() + "/../share/kasuri/translations"));
        QCoreApplication::installTranslator(&translator);
        set_translator([](std::string_view text) {
            return QCoreApplication::translate("Core", std::string(text).c_str()).toStdString();
        });
    }
    ~InGerman() {
        set_translator(nullptr);
        QCoreApplication::removeTranslator(&translator);
    }
};

} // namespace

TEST_CASE("the German window has a word for everything it says", "[gui][translation]") {
    InGerman german;
    {
        Driver d;
        d.replace_text("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k\nproof \"hell\" : out.r >= 0\n");
        d.settle();
        d.window.part<app::SideWindows>().open_preferences();
        d.window.part<app::SideWindows>().open_trace();
        d.window.part<app::HandoverActions>().open_bake();
        d.window.part<app::HandoverActions>().open_apply();
        d.window.toggle_library();
        d.window.toggle_mix();
        d.trigger("empty_step");
        d.settle();
        for (QMenu* menu : d.window.findChildren<QMenu*>())
            emit menu->aboutToShow();
        for (QAction* action : d.window.actions())
            CHECK(action->text() != action->objectName());
        d.session().take_as_saved();
    }
    INFO(german.translator.missing.join("\n").toStdString());
    CHECK(german.translator.missing.isEmpty());
}

TEST_CASE("faults and errors are said in German, with their names and numbers in place", "[gui][translation]") {
    InGerman german;
    const auto first = [](const std::string& text) {
        return lang::check(text, builtins::vocabulary()).diagnostics.front();
    };
    CHECK(lang::message(first("out.r = shade")) == "es gibt kein shade");
    CHECK(lang::message(first("out.r = (r + g")) == ") erwartet, das Ende der Regel gefunden");
    CHECK(lang::message(first("out.r = clamp(r, 0)")) == "clamp nimmt 3 Argumente, 2 kamen");
    CHECK(lang::message(first("working srgb\nkeep hue")) == "hue kann nicht erhalten werden");
    CHECK(lang::help(first("working srgb\nkeep hue")) == "keep luminance schreiben.");
    const auto gone = document::load_filter("/nowhere/at/all.kasuri");
    REQUIRE_FALSE(gone);
    CHECK(gone.error().text() == "/nowhere/at/all.kasuri: es gibt keine solche Datei. Den Namen prüfen.");
    const InEnglish for_a_file; // what is written into files is read by others
    CHECK(lang::message(first("out.r = shade")) == "there is no shade");
}

TEST_CASE("a translation that asks for what is not there gives way to English", "[gui][translation]") {
    set_translator([](std::string_view) { return std::string("{} und {} und {}"); });
    CHECK(said("the file is longer than {} bytes", 7) == "the file is longer than 7 bytes");
    set_translator(
        [](std::string_view text) { return text == "{} of {}" ? std::string("von {1} nur {0}") : std::string(text); });
    CHECK(said("{} of {}", 2, "three") == "von three nur 2");
    set_translator(nullptr);
    CHECK(said("{} of {}", 2, 3) == "2 of 3");
}
