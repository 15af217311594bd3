// Typing must be trusted blindly: whatever is typed stands in the text, and nothing else.
#include "gui/driver.hpp"
#include "support/support.hpp"
#include "widgets/writing/completion_list.hpp"
#include "widgets/writing/editor_assist.hpp"

#include <chrono>
#include <random>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::content_of;
using kasuri::test::Driver;

namespace {

struct Typing : Driver {
    EditorAssist* assist = editor().findChild<EditorAssist*>();
    int pause = -1; ///< milliseconds after a key; below 0: the next key comes before anything else is done

    Typing() {
        REQUIRE(assist);
        empty();
    }
    void empty() {
        settle_text();
        replace_text("");
        settle_text();
        editor().setFocus();
    }
    void key(int code, const QString& text = {}) {
        QKeyEvent press(QEvent::KeyPress, code, text == text.toLower() ? Qt::NoModifier : Qt::ShiftModifier, text);
        QApplication::sendEvent(&editor(), &press);
        if (pause >= 0)
            QTest::qWait(pause);
    }
    void character(QChar c) { key(c.isLetterOrNumber() ? c.toUpper().unicode() : c.unicode(), QString(c)); }
    long indentation() {
        const long line = editor().SendScintilla(QsciScintillaBase::SCI_LINEFROMPOSITION,
                                                 editor().SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS));
        return editor().SendScintilla(QsciScintillaBase::SCI_GETLINEINDENTATION, line);
    }
    /// Line by line; how far a line is indented is mended by Space and Backspace, as one does who looks at it.
    void write(const QString& text) {
        const QStringList lines = text.split('\n');
        for (qsizetype i = 0; i < lines.size(); ++i) {
            if (i > 0)
                key(Qt::Key_Return, "\r");
            const QString content = lines[i].trimmed();
            const long wanted = content.isEmpty() ? 0 : lines[i].indexOf(content[0]);
            while (indentation() > wanted)
                key(Qt::Key_Backspace, "\b");
            while (indentation() < wanted)
                key(Qt::Key_Space, " ");
            for (const QChar c : content)
                character(c);
        }
    }
    /// Types the texts of files; what came out otherwise.
    std::vector<std::string> wrong(const std::vector<std::filesystem::path>& files) {
        std::vector<std::string> names;
        for (const std::filesystem::path& file : files) {
            const std::string text = content_of(file);
            if (std::any_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) >= 0x80; }))
                continue; // no key has it
            empty();
            write(QString::fromStdString(text));
            if (editor().content() != text)
                names.push_back(file.filename().string() + ":\n" + editor().content());
        }
        return names;
    }
};

std::vector<std::filesystem::path> files_in(const char* folder, std::size_t count) {
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(KASURI_SOURCE_DIR) + folder))
        if (entry.path().extension() == ".kasuri")
            files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    files.resize(std::min(files.size(), count));
    return files;
}

} // namespace

TEST_CASE("every filter that ships, and rules of the language's cases, are what was typed", "[gui][typing]") {
    Typing d;
    // Keys that come before anything else is done; then the list and the sheet follow every key, of a part of them.
    d.pause = GENERATE(-1, 0);
    const std::size_t share = d.pause < 0 ? 1000 : 3;
    for (const auto& files : {files_in("/data/filters", share), files_in("/tests/lang/cases/ok", share)})
        for (const std::string& wrong : d.wrong(files)) {
            INFO(wrong);
            CHECK(wrong.empty());
        }
}

// Takes ten minutes: test_app "[.long-typing]"
TEST_CASE("the same at a keyboard's speed, all of them", "[.long-typing]") {
    Typing d;
    d.pause = GENERATE(0, 15);
    const auto filters = files_in("/data/filters", 1000), rules = files_in("/tests/lang/cases/ok", 40);
    REQUIRE(filters.size() > 20);
    REQUIRE(rules.size() == 40);
    for (const auto& files : {filters, rules})
        for (const std::string& wrong : d.wrong(files)) {
            INFO(wrong);
            CHECK(wrong.empty());
        }
}

TEST_CASE("a filter is what was typed at a person's speed", "[gui][typing]") {
    Typing d;
    d.pause = GENERATE(15, 60, 150);
    const std::size_t lines = d.pause == 15 ? 12 : d.pause == 60 ? 4 : 2;
    // Lines that end in a name, in a bracket, in a word that others begin with.
    const std::string all = "out.rgb = c\nout.g = b\nlet shared = mix(r, g, 0.5)\nout.b = max(shared, lum\n"
                            "let c = lch(rgb)\nc.h += 20\nout.rgb = rgb(c)\nkeep luminance\nworking acescct\n"
                            "param k = 0 in 0 .. 1\nout.r = k\nproof : neutral\n";
    std::string text;
    for (std::size_t at = 0, line = 0; line < lines; ++line) {
        const std::size_t end = all.find('\n', at) + 1;
        text += all.substr(at, end - at);
        at = end;
    }
    d.write(QString::fromStdString(text));
    CHECK(d.editor().content() == text);
}

TEST_CASE("Return takes a row that was moved to or asked for, Tab takes the first", "[gui][typing]") {
    Typing d;
    d.pause = 0;
    d.write("out.rgb = lumin");
    REQUIRE(d.assist->list()->isVisible());
    SECTION("Return alone is a new line") {
        d.key(Qt::Key_Return, "\r");
        CHECK(d.editor().content() == "out.rgb = lumin\n");
    }
    SECTION("moved to") {
        d.key(Qt::Key_Down);
        d.key(Qt::Key_Up);
        d.key(Qt::Key_Return, "\r");
        CHECK(d.editor().content() == "out.rgb = luminance()");
    }
    SECTION("asked for") {
        d.key(Qt::Key_Escape);
        QTest::keyClick(&d.editor(), Qt::Key_Space, Qt::ControlModifier);
        d.key(Qt::Key_Return, "\r");
        CHECK(d.editor().content() == "out.rgb = luminance()");
    }
    SECTION("Tab, even if more was typed before the list could follow") {
        d.pause = -1;
        d.write("a");
        d.key(Qt::Key_Tab, "\t");
        CHECK(d.editor().content() == "out.rgb = luminance()");
        // What it closed by itself is not written twice, what somebody else closed is.
        d.write("rgb)");
        CHECK(d.editor().content() == "out.rgb = luminance(rgb)");
        d.key(Qt::Key_Left);
        d.write(")");
        CHECK(d.editor().content() == "out.rgb = luminance(rgb))");
    }
    SECTION("a list of another word is gone") {
        d.pause = -1;
        d.write("x");
        d.key(Qt::Key_Return, "\r");
        CHECK(d.editor().content() == "out.rgb = luminx\n");
    }
}

TEST_CASE("random keys do in the text what they do in a plain model of text", "[gui][typing]") {
    Typing d;
    std::mt19937 random(20);
    const std::string letters = "abgrlmoux.(), =1+";
    for (int round = 0; round < 12; ++round) {
        d.empty();
        d.pause = round % 3 == 0 ? -1 : 0;
        std::string model;
        std::size_t caret = 0;
        std::string history;
        for (int i = 0; i < 120; ++i) {
            const bool list = d.assist->list()->isVisible();
            const auto pick = random() % 30;
            if (pick < 20) {
                const char c = letters[random() % letters.size()];
                model.insert(caret++, 1, c);
                d.character(QChar(c));
                history += c;
            } else if (pick < 23) { // indented as the line before; spaces behind the caret count, and stay behind it
                const std::size_t begin = caret == 0 ? 0 : model.rfind('\n', caret - 1) + 1;
                std::size_t indent = 0, spaces = 0;
                while (begin + indent < caret && model[begin + indent] == ' ')
                    ++indent;
                while (indent > 0 && caret < model.size() && model[caret] == ' ') {
                    model.erase(caret, 1);
                    ++spaces;
                }
                model.insert(caret, "\n" + std::string(indent, ' '));
                caret += 1 + indent - std::min(spaces, indent);
                d.key(Qt::Key_Return, "\r");
                history += "<Return>";
            } else if (pick < 25) {
                d.key(Qt::Key_Escape);
                history += "<Escape>";
            } else if (pick < 27) {
                caret -= caret > 0 ? 1 : 0;
                d.key(Qt::Key_Left);
                history += "<Left>";
            } else if (pick < 28) {
                caret += caret < model.size() ? 1 : 0;
                d.key(Qt::Key_Right);
                history += "<Right>";
            } else if (pick < 29) {
                if (caret > 0)
                    model.erase(--caret, 1);
                d.key(Qt::Key_Backspace, "\b");
                history += "<Backspace>";
            } else { // may take a row: the model takes over what it finds, before the caret alone
                const std::string behind = model.substr(caret);
                const std::string before = model.substr(0, caret);
                d.key(Qt::Key_Tab, "\t");
                const std::string now = d.editor().content();
                INFO(history);
                const std::size_t closed = now.ends_with(behind) ? now.size() - behind.size() : 0;
                REQUIRE(closed >= (list ? 0 : before.size()));
                model = now;
                caret = static_cast<std::size_t>(d.editor().SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS));
                history += "<Tab>";
                if (now != before + behind && caret < now.size() &&
                    now[caret] == ')') { // closed by itself: written over
                    d.character(')');
                    ++caret;
                    history += ')';
                }
            }
            INFO(history);
            REQUIRE(d.editor().content() == model);
            REQUIRE(static_cast<std::size_t>(d.editor().SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS)) == caret);
        }
    }
}
