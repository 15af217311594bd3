#include "base/file.hpp"
#include "document/bench_file.hpp"
#include "support/support.hpp"

#include <cmath>

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

BenchFile sample() {
    BenchFile bench;
    bench.takes = {{"vat blue", "out.g = b // \u201cé\u201d\n", {{"meet", 1}, {"depth", 0.1}}},
                   {"", "out.r = g\n", {}}};
    bench.pins = {{1, "target:dye_chart", 3, 1}, {4, "pictures/cloths.exr#", 1700, 372}};
    bench.tuning.links = {{"meet", "depth"}};
    bench.tuning.ranges = {{"meet", {0.25, 0.5}}};
    bench.context = {{"SHOT", "sh010"}, {"SHOW", "the ford, by night = \u201cdark\u201d"}};
    return bench;
}

std::string fault(std::string_view text) {
    const Result<BenchFile> read = bench_of(text, "madder.kasuri-bench");
    return read ? "good" : read.error().text();
}

} // namespace

TEST_CASE("takes and pins come back from the file beside the filter as they were", "[document]") {
    const TemporaryFolder folder;
    const auto filter = folder / "madder.kasuri";
    CHECK(load_bench(filter).value() == BenchFile{}); // none is not a fault
    REQUIRE(save_bench(filter, sample()));
    CHECK(std::filesystem::exists(folder / "madder.kasuri-bench"));
    CHECK(load_bench(filter).value() == sample());
    REQUIRE(save_bench(filter, BenchFile{}));
    CHECK_FALSE(std::filesystem::exists(folder / "madder.kasuri-bench")); // nothing to keep, no file
    CHECK_FALSE(save_bench(folder / "nowhere" / "madder.kasuri", sample()));
}

TEST_CASE("numbers that JSON does not have, and bytes that are no text, survive", "[document]") {
    BenchFile bench;
    bench.takes = {
        {"a", "x", {{"low", -INFINITY}, {"high", INFINITY}, {"none", NAN}, {"tiny", 5e-324}, {"third", 1.0 / 3}}}};
    const auto values = bench_of(bench_text(bench), "").value().takes[0].values;
    CHECK(values.at("low") == -INFINITY);
    CHECK(values.at("high") == INFINITY);
    CHECK(std::isnan(values.at("none")));
    CHECK(values.at("tiny") == 5e-324);
    CHECK(values.at("third") == 1.0 / 3);
    bench.takes[0].text = "\xff\xfe";
    CHECK(fault(bench_text(bench)) == "good");
}

TEST_CASE("what a newer Kasuri wrote is refused politely, and fields that are not known are kept", "[document]") {
    CHECK(fault(R"({"kasuri-bench": 2, "takes": []})").find("is of version 2; this Kasuri knows version 1") !=
          std::string::npos);
    const BenchFile read =
        bench_of(R"({"kasuri-bench": 1, "pins": [], "lamps": [1, 2], "room": {"dim": true}})", "").value();
    CHECK(read.pins.empty());
    const std::string again = bench_text(read);
    CHECK(again.find("\"lamps\"") != std::string::npos);
    CHECK(again.find("\"dim\": true") != std::string::npos);
    CHECK(bench_of(again, "").value() == read);
    CHECK_FALSE(read.empty());
}

TEST_CASE("a broken bench file is an error that names it, never a crash", "[document]") {
    CHECK(fault("").find("madder.kasuri-bench") != std::string::npos);
    CHECK(fault("[1, 2]").find("not a JSON object") != std::string::npos);
    CHECK(fault("{}").find("has no number") != std::string::npos);
    CHECK(fault(R"({"kasuri-bench": "one"})").find("has no number") != std::string::npos);
    // Odd things within are left out.
    const BenchFile odd =
        bench_of(
            R"({"kasuri-bench": 1, "takes": [3, {"name": 7, "text": [], "values": [1]}], "pins": [{"number": -3}, {"number": 2, "x": "a"}, null]})",
            "")
            .value();
    CHECK(odd.takes.size() == 1);
    REQUIRE(odd.pins.size() == 1);
    CHECK(odd.pins[0].number == 2);
    const std::string whole = bench_text(sample());
    for (std::size_t cut = 0; cut < whole.size(); cut += 7)
        CHECK_FALSE(fault(whole.substr(0, cut)).empty());
    CHECK(fault(std::string(100'000, '[')).find("nests too deeply") != std::string::npos);
    const std::string deep = R"({"kasuri-bench":1,"x":)" + std::string(100'000, '[') + std::string(100'000, ']') + "}";
    CHECK(fault(deep).find("nests too deeply") != std::string::npos); // in a field that is only kept
    CHECK(fault("{\"kasuri-bench\": 1,\n \"takes\": oops}").find("breaks off in line 2, column 11") !=
          std::string::npos);
    CHECK(fault(R"({"kasuri-bench": 4294967297})").find("is of version 4294967297") != std::string::npos);
    CHECK_FALSE(fault(std::string(100'000, '{')).empty());
}
