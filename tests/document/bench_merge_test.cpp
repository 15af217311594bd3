// Two programs that keep takes, pins, links and ranges of one filter.
#include "document/bench_file.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

KeptTake take(const std::string& name, double value) { return {name, "out.r = r", {{"k", value}}}; }

std::vector<std::string> names(const BenchFile& bench) {
    std::vector<std::string> all;
    for (const KeptTake& each : bench.takes)
        all.push_back(each.name);
    return all;
}

} // namespace

TEST_CASE("takes of two programs on one filter are all there", "[document][bench]") {
    BenchFile base, mine, theirs;
    base.takes = {take("old", 1), take("gone", 2), take("kept", 3)};
    mine.takes = {take("old", 1), take("kept", 3), take("bone", 4)};
    theirs.takes = {take("old", 1), take("gone", 2), take("kept", 3), take("aone", 5), take("atwo", 6)};
    const BenchFile both = merged(base, mine, theirs);
    CHECK(names(both) == std::vector<std::string>{"old", "kept", "aone", "atwo", "bone"});
    // From the other side the same, in their order.
    const BenchFile again = merged(base, theirs, mine);
    CHECK(names(again) == std::vector<std::string>{"old", "kept", "bone", "aone", "atwo"});
    CHECK(merged(base, base, theirs) == theirs);
    CHECK(merged(base, mine, base) == mine);
    CHECK(merged({}, mine, {}) == mine);
}

TEST_CASE("where both changed one thing nothing is lost", "[document][bench]") {
    BenchFile base, mine, theirs;
    base.takes = {take("dusk", 1)};
    mine.takes = {take("dusk", 2)};
    theirs.takes = {take("dusk", 3), take("dusk 2", 4)};
    BenchFile both = merged(base, mine, theirs);
    REQUIRE(names(both) == std::vector<std::string>{"dusk", "dusk 2", "dusk 3"});
    CHECK(both.takes[0].values.at("k") == 2);
    CHECK(both.takes[2].values.at("k") == 3);
    // Changed here and taken away there: it stays.
    theirs.takes.clear();
    CHECK(merged(base, mine, theirs).takes == mine.takes);
    CHECK(merged(base, theirs, mine).takes == mine.takes);
    // Pins of one number at two places.
    mine.pins = {{1, "a.exr#", 1, 1}};
    theirs.pins = {{1, "a.exr#", 9, 9}, {2, "a.exr#", 2, 2}};
    both = merged(base, mine, theirs);
    REQUIRE(both.pins.size() == 3);
    CHECK(both.pins[0].x == 1);
    CHECK(both.pins[2].number == 3);
    CHECK(both.pins[2].x == 9);
}

TEST_CASE("takes without names are known by what they hold", "[document][bench]") {
    BenchFile base, mine, theirs;
    base.takes = {take("", 1)};
    mine.takes = {take("", 1), take("", 2)};
    theirs.takes = {take("", 1), take("", 3), take("", 4)};
    CHECK(merged(base, mine, theirs).takes.size() == 4);
    mine.takes.erase(mine.takes.begin());
    CHECK(merged(base, mine, theirs).takes == std::vector<KeptTake>{take("", 3), take("", 4), take("", 2)});
}

TEST_CASE("links and ranges come together, and a name is linked once", "[document][bench]") {
    BenchFile base, mine, theirs;
    base.tuning.links = {{"a", "b"}};
    base.tuning.ranges = {{"a", {0, 1}}, {"b", {0, 1}}};
    mine.tuning.links = {{"a", "b"}, {"c", "d"}};
    mine.tuning.ranges = {{"a", {0.2, 0.4}}};
    theirs.tuning.links = {{"d", "e"}, {"f", "g"}};
    theirs.tuning.ranges = {{"a", {0, 1}}, {"b", {0, 1}}, {"h", {2, 3}}};
    theirs.others = "{\"later\":1}";
    const BenchFile both = merged(base, mine, theirs);
    CHECK(both.tuning.links == std::vector<std::vector<std::string>>{{"c", "d"}, {"f", "g"}});
    CHECK(both.tuning.ranges == std::map<std::string, std::pair<double, double>>{{"a", {0.2, 0.4}}, {"h", {2, 3}}});
    CHECK(both.others == theirs.others);
    mine.context = {{"SHOT", "sh010"}};
    CHECK(merged(base, mine, theirs).context == mine.context);
    CHECK(merged(mine, mine, theirs).context.empty()); // they took it away
}
