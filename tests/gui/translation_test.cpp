// Every word of the window goes through the translator: German and Japanese are a file away.
#include "gui/driver.hpp"
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
            if (!widget->isVisible() ||
                widget->objectName() == "amounts") // what steps amount to is a sentence of the core
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
    QCoreApplication::removeTranslator(&translator);
    QStringList all;
    for (const Found& each : found)
        all << each.where + ": " + each.text;
    all.removeDuplicates();
    INFO(all.join("\n").toStdString());
    CHECK(all.isEmpty());
}
