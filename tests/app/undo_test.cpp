#include "model/session.hpp"
#include "model/undo_commands.hpp"

#include "proof/proof.hpp"

#include <QSignalSpy>
#include <QTest>

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::app;

namespace {

void at_end(Session& session, const std::string& text) {
    session.record_edit({static_cast<std::uint32_t>(session.text().size()), "", text});
}
void erase_last(Session& session) {
    const auto at = static_cast<std::uint32_t>(session.text().size() - 1);
    session.record_edit({at, session.text().substr(at), ""});
}
void understand(Session& session) {
    session.set_checked(session.text(),
                        std::make_shared<const lang::Checked>(lang::check(session.text(), proof::vocabulary())));
}

} // namespace

TEST_CASE("a new line begins a new step", "[undo]") {
    Session session;
    at_end(session, "a");
    at_end(session, "b");
    at_end(session, "\n");
    at_end(session, "c");
    CHECK(session.undo_stack().count() == 2); // "ab"; the line end and what follows it
}

TEST_CASE("deleting is a step of its own, and goes on while one deletes", "[undo]") {
    Session session;
    const std::string start = session.text();
    for (const char* letter : {"a", "b", "c"})
        at_end(session, letter);
    erase_last(session);
    erase_last(session);
    CHECK(session.undo_stack().count() == 2);
    session.undo_stack().undo();
    CHECK(session.text() == start + "abc");
    session.undo_stack().undo();
    CHECK(session.text() == start);
}

TEST_CASE("typing elsewhere is another step", "[undo]") {
    Session session;
    at_end(session, "a");
    session.record_edit({0, "", "// "});
    CHECK(session.undo_stack().count() == 2);
}

TEST_CASE("replacing a selection is one step though the editor tells it as two", "[undo]") {
    Session session;
    session.apply_edit({0, session.text(), "out.g = blue"}, "start");
    session.record_edit({8, "blue", ""});
    session.record_edit({8, "", "r"});
    CHECK(session.text() == "out.g = r");
    session.undo_stack().undo();
    CHECK(session.text() == "out.g = blue");
}

TEST_CASE("a pasted piece is a step of its own", "[undo]") {
    Session session;
    at_end(session, "a");
    at_end(session, "a longer piece that was pasted");
    CHECK(session.undo_stack().count() == 2);
}

TEST_CASE("edits from elsewhere are told to the editor, typed ones are not, undo always is", "[undo]") {
    Session session;
    QSignalSpy told(&session, &Session::text_edited);
    at_end(session, "x");
    CHECK(told.count() == 0);
    session.apply_edit({0, "", "// fix\n"}, "a fix");
    CHECK(told.count() == 1);
    session.undo_stack().undo();
    session.undo_stack().undo();
    CHECK(told.count() == 3);
    CHECK(told[1][0].value<document::TextEdit>() == document::TextEdit{0, "// fix\n", ""});
}

TEST_CASE("an edit that changes nothing is no step", "[undo]") {
    Session session;
    session.apply_edit({0, "filter", "filter"}, "nothing");
    CHECK(session.undo_stack().count() == 0);
    CHECK_FALSE(session.modified());
}

TEST_CASE("dragging one value is one step, another value another", "[undo]") {
    Session session;
    session.apply_edit({0, session.text(), "param k = 0 in 0 .. 1\nparam j = 0 in 0 .. 1\nout.r = k + j"}, "start");
    understand(session);
    const int before = session.undo_stack().count();
    for (int i = 1; i <= 20; ++i)
        session.set_value(0, i / 20.0);
    session.set_value(1, 0.5);
    CHECK(session.undo_stack().count() == before + 2);
    CHECK(session.undo_stack().text(before) == "k");
    session.undo_stack().undo();
    session.undo_stack().undo();
    CHECK(session.values() == std::vector<double>{0, 0});
    session.set_value(0, 0); // no change, no step
    session.set_value(7, 1); // no such parameter
    CHECK(session.undo_stack().index() == before);
}

TEST_CASE("undoing back to what was saved is not modified any more", "[undo]") {
    Session session;
    at_end(session, "x");
    session.take_as_saved();
    CHECK_FALSE(session.modified());
    QTest::qWait(2);
    at_end(session, "\n");
    CHECK(session.modified());
    session.undo_stack().undo();
    CHECK_FALSE(session.modified());
}
