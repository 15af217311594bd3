// What threads did and when, and the file that trace viewers open.
#include "base/parallel.hpp"
#include "base/timeline.hpp"
#include "support/support.hpp"

#include <nlohmann/json.hpp>
#include <pthread.h>
#include <thread>

using namespace kasuri;

namespace {
void pass(int milliseconds) { std::this_thread::sleep_for(std::chrono::milliseconds(milliseconds)); }
} // namespace

TEST_CASE("stretches are recorded between begin and end with what lies inside them, by thread", "[base]") {
    { const timeline::Stretch before("never seen"); }
    timeline::begin();
    {
        const timeline::Stretch outer("outer");
        pass(2);
        const timeline::Stretch inner("inner");
        pass(1);
    }
    std::thread([] {
        pthread_setname_np(pthread_self(), "a \"helper\"");
        const timeline::Stretch there("elsewhere");
        pass(1);
    }).join();
    timeline::end();
    { const timeline::Stretch after("never seen"); }

    std::vector<timeline::Record> all = timeline::records();
    REQUIRE(all.size() == 3);
    const auto named = [&](const std::string& what) {
        return *std::find_if(all.begin(), all.end(), [&](const timeline::Record& r) { return r.what == what; });
    };
    const timeline::Record outer = named("outer"), inner = named("inner"), there = named("elsewhere");
    CHECK(outer.thread == inner.thread);
    CHECK(outer.thread != there.thread);
    CHECK(outer.from >= 0);
    CHECK(inner.from - outer.from >= 2000); // it slept for so long, at least
    CHECK(inner.to - inner.from >= 1000);
    CHECK(outer.core < outer.to - outer.from); // asleep it needed none
    CHECK(inner.to <= outer.to);
    CHECK(there.from >= outer.to);

    // As another reader has it: the Trace Event Format's "X" (a complete event) and "M" (what a thread is called).
    const nlohmann::json file = nlohmann::json::parse(timeline::as_json());
    std::map<std::string, nlohmann::json> events;
    std::map<int, std::string> threads;
    for (const nlohmann::json& event : file.at("traceEvents"))
        if (event.at("ph") == "M")
            threads[event.at("tid").get<int>()] = event.at("args").at("name").get<std::string>();
        else
            events[event.at("name").get<std::string>()] = event;
    CHECK(events.size() == 3);
    CHECK(threads.at(events.at("elsewhere").at("tid").get<int>()) == "a \"helper\"");
    CHECK(events.at("inner").at("ph") == "X");
    CHECK(events.at("inner").at("dur").get<double>() == Approx(inner.to - inner.from).margin(1e-3));
    CHECK(events.at("inner").at("ts").get<double>() == Approx(inner.from).margin(1e-3));

    timeline::begin();
    timeline::end();
    CHECK(timeline::records().empty());
}

TEST_CASE("the shares of a loop are joined, and every core has its row", "[base]") {
    timeline::begin();
    {
        const timeline::Stretch loop("loop");
        parallel_ranges(1000, 1, {}, [](std::size_t, std::size_t) {});
    }
    timeline::end();
    std::size_t shares = 0;
    double loop = 0;
    for (const timeline::Record& record : timeline::records())
        if (record.what == "loop")
            loop = record.to;
        else
            ++shares;
    CHECK(shares >= 1);
    CHECK(shares < 500); // of 1000 pieces
    for (const timeline::Record& record : timeline::records())
        CHECK(record.to <= loop);
}
