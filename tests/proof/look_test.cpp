// What looks promise as a whole, against what is known of their steps.
#include "colour/transfer.hpp"
#include "document/look_file.hpp"
#include "look/make.hpp"
#include "proof/look.hpp"
#include "proof/report.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

struct Promise {
    document::Look look;
    subject::Subject subject;

    explicit Promise(std::initializer_list<const char*> texts) {
        for (const char* text : texts) {
            document::LookStep step;
            step.text = text;
            look.steps.push_back(step);
        }
        make();
    }
    void make() {
        const auto made = look::make(look, {});
        REQUIRE(made);
        subject = made.value().subject;
    }
    std::vector<proof::Outcome> outcomes(const std::string& proofs) {
        const auto statements = proof::look_statements(proofs, subject.space());
        INFO(proofs);
        REQUIRE(statements);
        proof::FilterReport report;
        REQUIRE(proof::check_all(subject, {}, report, {}, &statements.value()));
        return report.outcomes;
    }
    proof::Outcome outcome(const std::string& proof) { return outcomes(proof).at(0); }
};

} // namespace

TEST_CASE("a look keeps what its steps break, if one mends what another did", "[proof][look]") {
    Promise there_and_back({"out.rgb = rgb.gbr", "let c = hsv(rgb)\nc.h += 0\nout.rgb = rgb(c)", "out.rgb = rgb.brg"});
    const auto identity = there_and_back.outcome("proof \"nothing\" : identity");
    CHECK(identity.passed);
    CHECK(identity.proved); // by algebra, through the colour model
    CHECK(identity.of_look);
    const auto greys = Promise({"out.r += 0.2", "out.r -= 0.2"}).outcome("proof \"greys stay grey\" : neutral");
    CHECK(greys.passed);
    CHECK(greys.proved);
    const auto broken = Promise({"out.r += 0.2", "out.r -= 0.1"}).outcome("proof \"greys stay grey\" : neutral");
    CHECK_FALSE(broken.passed);
    CHECK(broken.figure == Approx(0.1).epsilon(1e-5));
    CHECK_FALSE(broken.proved);
}

TEST_CASE("every proof function asks the look, not its statements", "[proof][look]") {
    Promise dark({"out.rgb = rgb * 0.5", "out.rgb = rgb * 0.5"}), folded({"out.r = r + 0.5", "out.r = abs(r - 1)"}),
        power({"out.rgb = spow(rgb, 3.0)", "out.rgb = spow(rgb, 1.0 / 3)"});
    for (const proof::Function* function : proof::functions()) {
        if (function->compares)
            continue;
        const std::string line =
            (function->of_colours ? "proof \"p\" on (0.7, 0.2, 0.2), (0.2, 0.5, 0.2) : " : "proof \"p\" : ") +
            std::string(function->name);
        INFO(line);
        CHECK_NOTHROW(dark.outcome(line));
        CHECK_NOTHROW(power.outcome(line));
    }
    CHECK(dark.outcome("proof \"p\" : sums").figure == Approx(0.75)); // white comes out at a quarter
    CHECK_FALSE(dark.outcome("proof \"p\" : luminance").passed);
    CHECK(dark.outcome("proof \"p\" : folds").proved);
    CHECK(dark.outcome("proof \"p\" : noise").figure == Approx(0.25).epsilon(1e-4));
    CHECK_FALSE(folded.outcome("proof \"p\" : monotonic").passed);
    CHECK_FALSE(folded.outcome("proof \"p\" : folds").passed);
    CHECK(power.outcome("proof \"p\" : lut").figure < 1e-5); // as good as nothing: a LUT holds that
    CHECK_FALSE(Promise({"out.rgb = rgb * pos.x"}).outcome("proof \"p\" : lut").passed);
}

TEST_CASE("conditions see what goes into the first step and what comes out of the last", "[proof][look]") {
    Promise look({"working srgb\nparam k = 0.5 in 0 .. 1\nout.rgb = rgb * k", "working rec709-linear\nout.b = 0.25"});
    CHECK(look.subject.space() == "srgb");
    CHECK(look.outcome("proof \"black\" on (0, 0, 0) : abs(out.r) < 0.0001").passed);
    const auto half = look.outcome("proof \"half\" on (0.8, 0.4, 0.2) : abs(out.r - 0.5 * r) < 0.0001");
    CHECK(half.passed);
    CHECK(half.worst.before[0] == Approx(0.8f));
    CHECK(half.worst.after[0] == Approx(0.4f).epsilon(1e-5));
    CHECK(half.worst.after[2] ==
          Approx(static_cast<float>(colour::srgb_encode(0.25))).epsilon(1e-5)); // the second step works in light
    CHECK_FALSE(look.outcome("proof \"no\" on grey_ramp : out.r >= r").passed);
    look.look.steps[0].values["k"] = 1;
    look.make();
    CHECK(look.outcome("proof \"yes\" on grey_ramp : abs(out.r - r) < 0.0001").passed); // at other values
    look.look.steps[1].mask = "r > 0.5 ? 1.0 : 0.0";
    look.make();
    const auto masked =
        look.outcomes("proof \"in\" on (0.9, 0, 0) : abs(out.b - b) > 0.4\nproof \"out\" on (0.2, 0, 0) : out.b == b");
    CHECK(masked[0].passed);
    CHECK(masked[1].passed);
}

TEST_CASE("only proof lines are the proofs of a look", "[proof][look]") {
    const auto error = [](const std::string& proofs) {
        const auto made = proof::look_statements(proofs, "rec709-linear");
        return made ? std::string() : made.error().text();
    };
    CHECK(error("").empty());
    CHECK(error("// what it keeps\n\nproof \"a\" : neutral\nproof \"b\" on grey_ramp : out.r >= 0 || r < 0\n").empty());
    CHECK(error("proof \"a\" : neutral\nout.r = 1").find("line 2") != std::string::npos);
    CHECK(error("proofs").find("not a proof line") != std::string::npos);
    CHECK(error("proof \"a\" : neutral\nproof \"b\" : neutrl").find("line 2") != std::string::npos);
    CHECK(error("proof \"a\" : meet > 0").find("line 1") != std::string::npos); // values of steps are their own
    CHECK(error("proof \"a\" : equals \"gone.kasuri\"").find("line 1") != std::string::npos);
    CHECK(error(std::string(500, '\n')).find("more than 200") != std::string::npos);
    CHECK_FALSE(proof::look_statements("proof \"a\" : neutral", "no such space"));
}

TEST_CASE("the proofs of a look are kept in its file as lines", "[document][look]") {
    Promise promise({"out.r = g"});
    promise.look.proofs = "proof \"a\" : neutral\nproof \"b\" : finite\n";
    const std::string text = document::look_text(promise.look);
    CHECK(text.find("\"proof \\\"b\\\" : finite\"") != std::string::npos);
    const auto back = document::look_of(text, "here");
    REQUIRE(back);
    CHECK(back.value() == promise.look);
    document::Look outer; // as a step it goes on promising
    document::LookStep step;
    step.is_look = true;
    step.within = promise.look.steps;
    step.proofs = promise.look.proofs;
    outer.steps.push_back(step);
    CHECK(document::look_of(document::look_text(outer), "here").value() == outer);
    CHECK(document::look_of(R"({"kasuri-look": 1, "proofs": "text"})", "here")
              .error()
              .what.find("must be a list of texts") != std::string::npos);
    CHECK(document::look_of(R"({"kasuri-look": 1, "proofs": [1]})", "here")
              .error()
              .what.find("must be a list of texts") != std::string::npos);
}
