#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "support/support.hpp"

#include <random>

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

Look sample() {
    Look look;
    look.title = "Dusk over the river";
    look.note = "Two dips \u201cand\u201d a glow.";
    LookStep first{"first dip", "filters/dip.kasuri", "out.g = b // \u00e9\n", {{"meet", 0.45}, {"depth", -1}}};
    LookStep second{"", "", "out.rgb *= 0.5\n", {}, false, 0.25, "soft_light", "luminance(rgb) > 0.5 ? 1 : 0", true};
    look.steps = {first, second};
    return look;
}

std::string fault(std::string_view text) {
    const Result<Look> read = look_of(text, "dusk.kasurilook");
    return read ? "good" : read.error().text();
}

} // namespace

TEST_CASE("a look comes back as it was written", "[look]") {
    const TemporaryFolder folder;
    REQUIRE(save_look(folder / "dusk.kasurilook", sample()));
    CHECK(load_look(folder / "dusk.kasurilook").value() == sample());
    CHECK(look_of(look_text(Look{}), "").value() == Look{});
    CHECK_FALSE(load_look(folder / "nowhere.kasurilook"));
    // Published test vectors of FNV-1a, 64 bits (draft-eastlake-fnv, appendix C; from memory).
    CHECK(content_hash("") == "cbf29ce484222325");
    CHECK(content_hash("a") == "af63dc4c8601ec8c");
    CHECK(content_hash("foobar") == "85944171f73967e8");
}

TEST_CASE("fields of later versions are kept, newer versions and wrong values are refused with their place", "[look]") {
    const Look kept =
        look_of(R"({"kasuri-look": 1, "mood": [1, 2], "steps": [{"text": "out.r = g\n", "grain": {"size": 3}}]})", "x")
            .value();
    CHECK(kept.steps[0].blend == "normal");
    CHECK(look_of(look_text(kept), "x").value() == kept);
    CHECK(look_text(kept).find("\"grain\"") != std::string::npos);
    CHECK(look_text(kept).find("\"mood\"") != std::string::npos);
    CHECK(fault("no look").find("not a JSON object") != std::string::npos);
    CHECK(fault("[]").find("not a JSON object") != std::string::npos);
    CHECK(fault("{}").find("kasuri-look") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 2})").find("is of version 2") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": 5})").find("steps") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{}, {"opacity": 2}]})")
              .find("step 2: its opacity 2 is not between 0 and 1") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"on": 1}]})").find("step 1: its \"on\" is not true or false") !=
          std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"values": {"meet": "lots"}}]})")
              .find("its value of meet is not a number") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"text": "out.r = b", "hash": "0000000000000000"}]})")
              .find("changed by hand") != std::string::npos);
    CHECK(fault(std::string(100'000, '[')).find("nests too deeply") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "title": 3})").find("its \"title\" is not a text") != std::string::npos);
}

TEST_CASE("a look notices that a filter has changed, and changes only when asked", "[look]") {
    const TemporaryFolder folder;
    write(folder / "dip.kasuri", "out.g = b\n");
    LookStep step{"", "dip.kasuri", "out.g = b\n", {{"meet", 0.5}}};
    CHECK(state_of(step, folder.path) == FilterState::same);
    write(folder / "dip.kasuri", "out.g = r\n");
    CHECK(state_of(step, folder.path) == FilterState::changed);
    CHECK(step.text == "out.g = b\n");
    const LookStep fresh = brought_up_to_date(step, folder.path).value();
    CHECK((fresh.text == "out.g = r\n" && fresh.values.at("meet") == 0.5));
    std::filesystem::remove(folder / "dip.kasuri");
    CHECK(state_of(step, folder.path) == FilterState::gone);
    CHECK_FALSE(brought_up_to_date(step, folder.path));
    step.filter.clear();
    CHECK(state_of(step, folder.path) == FilterState::none);
}

TEST_CASE("broken looks are errors, never anything else", "[look]") {
    const std::string whole = look_text(sample());
    std::mt19937 random(5);
    int good = 0;
    for (int trial = 0; trial < 3000; ++trial) {
        std::string text = whole;
        for (int change = 1 + static_cast<int>(random() % 3); change > 0 && !text.empty(); --change) {
            const std::size_t at = random() % text.size();
            if (random() % 3 == 0)
                text.resize(at + 1);
            else if (random() % 2 == 0)
                text[at] = static_cast<char>(random());
            else
                text.erase(at, random() % 20);
        }
        if (const Result<Look> read = look_of(text, "x"))
            good += look_of(look_text(read.value()), "x").ok() ? 1 : 0;
        else
            CHECK_FALSE(read.error().text().empty());
    }
    CHECK(good < 3000);
}

TEST_CASE("looks within looks, masks, copies and LUTs come back as they were written", "[look]") {
    Look look = sample();
    LookStep inner;
    inner.is_look = true;
    inner.label = "both";
    inner.opacity = 0.5;
    inner.within = sample().steps;
    inner.within[0].uses = {{"parts.kasuri", "fn half(x) = x / 2\n"}};
    inner.within[1].mask_grow = -2.5;
    inner.within[1].mask_soften = 4;
    inner.within[1].bench = "{\n\t\"kasuri-bench\": 1\n}\n";
    LookStep lut;
    lut.lut = ".cube";
    lut.lut_text = SharedText("LUT_1D_SIZE 2\n0 0 0\n1 1 1\n");
    lut.space = "acescct";
    look.steps.push_back(inner);
    look.steps.push_back(lut);
    CHECK(look_of(look_text(look), "x").value() == look);
    // Faults have their places, however deep.
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"steps": [{}, {"opacity": -1}]}]})")
              .find("step 1: step 2: its opacity -1") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"mask-grow": 900}]})")
              .find("mask-grow 900 is not between -200 and 200") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"mask-soften": -1}]})").find("mask-soften") != std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"uses": {"a": 1}}]})").find("its copy of a is not a text") !=
          std::string::npos);
    CHECK(fault(R"({"kasuri-look": 1, "steps": [{"lut": ".exe"}]})").find("not the ending of a LUT file") !=
          std::string::npos);
    std::string deep = R"({"kasuri-look": 1, "steps": [)", end = "]}";
    for (int i = 0; i < 12; ++i) {
        deep += R"({"steps": [)";
        end = "]}" + end;
    }
    CHECK(fault(deep + end).find("looks within looks, more than 8 deep") != std::string::npos);
    std::string many = R"({"kasuri-look": 1, "steps": [{})";
    for (int i = 0; i < 1001; ++i)
        many += ",{}";
    CHECK(fault(many + "]}").find("must be a list of at most 1000") != std::string::npos);
}

TEST_CASE("a step is made of a filter, a look or a LUT, and paths go along with the look", "[look]") {
    const TemporaryFolder folder;
    std::filesystem::create_directories(folder / "a/b");
    write(folder / "a/dip.kasuri", "filter \"Dip\"\nout.g = b\n");
    write(folder / "a/film.cube", "LUT_1D_SIZE 2\n0 0 0\n1 1 1\n");
    Look look;
    look.title = "Two";
    for (const char* name : {"a/dip.kasuri", "a/film.cube"})
        look.steps.push_back(step_from(folder / name).value());
    CHECK(look.steps[1].lut == ".cube");
    Look written = look;
    make_relative(written, folder / "a/b");
    CHECK(written.steps[0].filter == "../dip.kasuri");
    REQUIRE(save_look(folder / "a/b/two.kasurilook", written));
    Look back = load_look(folder / "a/b/two.kasurilook").value();
    make_absolute(back, folder / "a/b");
    CHECK(back.steps == look.steps);
    const LookStep whole = step_from(folder / "a/b/two.kasurilook").value();
    CHECK((whole.is_look && whole.label == "Two" && whole.within.size() == 2));
    CHECK(state_of(whole, {}) == FilterState::same);
    REQUIRE(save_look(folder / "a/b/two.kasurilook", Look{}));
    CHECK(state_of(whole, {}) == FilterState::changed);
    CHECK(brought_up_to_date(whole, {}).value().within.empty());
    write(folder / "a/film.cube", "\xff\xfe");
    CHECK_FALSE(step_from(folder / "a/film.cube"));
    CHECK_FALSE(step_from(folder / "nothing.kasuri"));
}

TEST_CASE("a look that could not be read again is not written", "[look]") {
    const test::TemporaryFolder folder;
    Look look;
    look.steps.emplace_back();
    look.steps[0].text = "out.r = g\n";
    const auto deeper = [](const Look& within) {
        Look outer;
        outer.steps.emplace_back();
        outer.steps[0].is_look = true;
        outer.steps[0].within = within.steps;
        return outer;
    };
    for (int depth = 0; depth <= deepest_look; ++depth) {
        REQUIRE(save_look(folder / "deep.kasurilook", look));
        CHECK(load_look(folder / "deep.kasurilook"));
        look = deeper(look);
    }
    const Status refused = save_look(folder / "deep.kasurilook", look);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what.find("9 deep") != std::string::npos);
    CHECK(load_look(folder / "deep.kasurilook")); // the one before is still there
    Look wide;
    wide.steps.resize(max_steps);
    CHECK(fits_limits(wide));
    CHECK(look_of(look_text(wide), "here"));
    wide.steps[0].is_look = true;
    wide.steps[0].within.resize(1);
    CHECK_FALSE(fits_limits(wide));
    CHECK_FALSE(look_of(look_text(wide), "here"));
}

TEST_CASE("what a look within a look promises is noticed and brought up to date", "[look]") {
    const test::TemporaryFolder folder;
    Look inner;
    inner.steps.emplace_back();
    inner.steps[0].text = "out.r = g\n";
    inner.proofs = "proof \"a\" : finite\n";
    REQUIRE(save_look(folder / "inner.kasurilook", inner));
    LookStep step = step_from(folder / "inner.kasurilook").value();
    step.filter = "inner.kasurilook";
    CHECK(state_of(step, folder.path) == FilterState::same);
    inner.proofs = "proof \"a\" : neutral\n";
    REQUIRE(save_look(folder / "inner.kasurilook", inner));
    CHECK(state_of(step, folder.path) == FilterState::changed);
    const LookStep fresh = brought_up_to_date(step, folder.path).value();
    CHECK(fresh.proofs == inner.proofs);
    CHECK(state_of(fresh, folder.path) == FilterState::same);
}

TEST_CASE("a step that names a filter and holds no copy of it is an error", "[look]") {
    const Result<Look> bare = look_of(R"({"kasuri-look": 1, "steps": [{"filter": "dip.kasuri"}]})", "here");
    REQUIRE_FALSE(bare);
    CHECK(bare.error().what.find("step 1: it names dip.kasuri") != std::string::npos);
    CHECK(look_of(R"({"kasuri-look": 1, "steps": [{"filter": "dip.kasuri", "text": ""}]})",
                  "here")); // an empty rule is one
    CHECK(look_of(R"({"kasuri-look": 1, "steps": [{}]})", "here"));
}

TEST_CASE("only well-formed UTF-8 passes", "[document]") { // Unicode 15, table 3-7
    for (const char* good : {"", "a", "\xc2\x80", "\xdf\xbf", "\xe0\xa0\x80", "\xed\x9f\xbf", "\xee\x80\x80",
                             "\xef\xbf\xbf", "\xf0\x90\x80\x80", "\xf4\x8f\xbf\xbf"})
        CHECK(utf8_fault(good) == std::string_view::npos);
    for (const char* bad :
         {"\xed\xa0\x80", "\xed\xbf\xbf", "\xe0\x80\xaf", "\xe0\x9f\xbf", "\xf0\x80\x80\x80", "\xf0\x8f\xbf\xbf",
          "\xf4\x90\x80\x80", "\xf5\x80\x80\x80", "\xc0\x80", "\xc1\xbf", "\x80", "\xc2", "\xe1\x80", "\xff"}) {
        CHECK(utf8_fault(std::string("ok") + bad) == 2);
    }
}
