// Values that move together, and narrower ranges.
#include "model/tuning.hpp"
#include "model/undo_commands.hpp"
#include "proof/proof.hpp"

#include <catch2/catch.hpp>

using namespace kasuri;
using namespace kasuri::app;

namespace {

struct Tuned {
    Session session;
    Tuning tuning{session};

    Tuned() {
        const std::string text = "param meet = 0 in 0 .. 1\nparam warm = 0.5 in 0 .. 1\nparam cold = 0 in -1 .. "
                                 "1\nout.r = r * meet * warm + cold\n";
        session.recall(text, {}, "text");
        session.set_checked(text, std::make_shared<const lang::Checked>(lang::check(text, proof::vocabulary())));
        REQUIRE(session.rule());
        session.undo_stack().clear();
        QObject::connect(&tuning, &Tuning::rearranged,
                         [this](const QString& name, const QString& key, const document::KeptTuning& before) {
                             session.undo_stack().push(
                                 new ArrangementCommand<Tuning, document::KeptTuning>(tuning, name, key, before));
                         });
    }
    const lang::Parameter& parameter(int index) const {
        return session.rule()->parameters[static_cast<std::size_t>(index)];
    }
};

} // namespace

TEST_CASE("linked values move by the same amount, within their ranges, as one step", "[tuning]") {
    Tuned t;
    t.tuning.link("meet", "warm");
    t.tuning.set(0, 0.25);
    CHECK(t.session.values() == std::vector<double>{0.25, 0.75, 0});
    t.tuning.set(0, 0.75); // warm stops at its end
    CHECK(t.session.values() == std::vector<double>{0.75, 1, 0});
    CHECK(t.session.undo_stack().count() == 2); // the link, and one drag
    t.session.undo_stack().undo();
    CHECK(t.session.values() == std::vector<double>{0, 0.5, 0});
    t.session.undo_stack().undo();
    CHECK(t.tuning.linked_with("meet").empty());
    t.session.undo_stack().redo();
    t.tuning.link("cold", "meet");
    CHECK(t.tuning.linked_with("warm") == std::vector<std::string>{"cold", "meet"}); // groups join
    t.tuning.set(2, -0.25);
    CHECK(t.session.values() == std::vector<double>{0, 0.25, -0.25});
    t.tuning.unlink("cold");
    t.tuning.set(2, 0.5);
    CHECK(t.session.values() == std::vector<double>{0, 0.25, 0.5});
    t.tuning.unlink("meet");
    CHECK(t.tuning.linked_with("warm").empty()); // one alone is no group
    t.tuning.link("warm", "warm");
    CHECK(t.tuning.arrangement().empty());
}

TEST_CASE("a narrower range holds while the value is inside", "[tuning]") {
    Tuned t;
    t.tuning.narrow_around(t.parameter(1), 0.5);
    CHECK(t.tuning.range(t.parameter(1), 0.5) == std::pair(0.375, 0.625));
    t.tuning.narrow_around(t.parameter(1), 0.62);
    CHECK(t.tuning.range(t.parameter(1), 0.62).second == Approx(0.625)); // a quarter of the quarter, not beyond it
    CHECK(t.tuning.range(t.parameter(1), 0.9) == std::pair(0.0, 1.0));
    t.tuning.narrow(t.parameter(1), -3, 0.7);
    CHECK(t.tuning.range(t.parameter(1), 0.5) == std::pair(0.0, 0.7));
    t.tuning.narrow(t.parameter(1), 0.8, 0.2);
    CHECK_FALSE(t.tuning.narrowed("warm"));
    t.tuning.narrow(t.parameter(0), 0.2, 0.4);
    t.session.undo_stack().undo();
    CHECK_FALSE(t.tuning.narrowed("meet"));
}
