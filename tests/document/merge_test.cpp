#include "document/merge.hpp"

#include <catch2/catch.hpp>
#include <random>
#include <vector>

using kasuri::document::merged;

TEST_CASE("what one side alone has changed is taken", "[merge]") {
    const std::string base = "a\nb\nc\nd\ne\n";
    CHECK(merged(base, base, "a\nB\nc\nd\ne\n").text == "a\nB\nc\nd\ne\n");
    CHECK(merged(base, "a\nb\nc\nd\nE\n", base).text == "a\nb\nc\nd\nE\n");
    const auto both = merged(base, "A\nb\nc\nd\ne\n", "a\nb\nc\nd\ne\nf\n");
    CHECK((both.text == "A\nb\nc\nd\ne\nf\n" && both.conflicts == 0));
    CHECK(merged(base, "a\nc\nd\ne\n", "a\nb\nc\nd\nx\ne\n").text == "a\nc\nd\nx\ne\n"); // one took away, one added
    CHECK(merged("", "x\n", "").text == "x\n");
    CHECK(merged("a", "a", "b").text == "b"); // no end of line
}

TEST_CASE("where both have changed one place, ours stays and it is counted", "[merge]") {
    const auto made = merged("a\nb\nc\n", "a\nmine\nc\n", "a\ntheirs\nc\n");
    CHECK((made.text == "a\nmine\nc\n" && made.conflicts == 1));
    CHECK(merged("a\nb\nc\n", "a\nsame\nc\n", "a\nsame\nc\n").conflicts == 0);
    const auto two = merged("a\nb\nc\nd\n", "1\nb\nc\n2\n", "3\nb\nc\n4\n");
    CHECK((two.text == "1\nb\nc\n2\n" && two.conflicts == 2));
    CHECK(merged("a\n", "", "b\n").conflicts == 1);
}

TEST_CASE("random changes of different lines all arrive", "[merge]") {
    std::mt19937 random(26);
    for (int trial = 0; trial < 300; ++trial) {
        std::vector<std::string> base, ours, theirs, wanted;
        for (int line = 0; line < 24; ++line) {
            const std::string was = "line " + std::to_string(random() % 6) + "\n";
            const int who = line % 4 == 1 ? static_cast<int>(random() % 4)
                                          : 3; // lines that change have three between them that do not
            const std::string fresh = "new " + std::to_string(line) + "\n";
            const std::string keep = line % 4 == 3 ? "fence " + std::to_string(line) + "\n" : was;
            base.push_back(keep);
            ours.push_back(who == 0 ? fresh : keep);
            theirs.push_back(who == 1 ? fresh : keep);
            wanted.push_back(who == 0 || who == 1 ? fresh : keep);
        }
        const auto all = [](const std::vector<std::string>& lines) {
            std::string text;
            for (const std::string& line : lines)
                text += line;
            return text;
        };
        const auto made = merged(all(base), all(ours), all(theirs));
        CHECK(made.conflicts == 0);
        CHECK(made.text == all(wanted));
    }
}
