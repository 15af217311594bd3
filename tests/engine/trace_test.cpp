#include "engine/reference.hpp"
#include "support/support.hpp"

#include <cmath>

using namespace kasuri;
using namespace kasuri::engine;
using namespace kasuri::test;

namespace {

struct Traced {
    std::string text;
    std::vector<TraceNode> nodes;

    Traced(std::string rule_text, std::array<double, 4> rgba) : text(std::move(rule_text)) {
        const lang::Rule rule = good_rule(text);
        ReferencePixel pixel;
        pixel.rgba = rgba;
        nodes = reference_trace(rule, defaults(rule), pixel);
    }
    const TraceNode& at(const std::string& part) const {
        for (const TraceNode& node : nodes)
            if (text_of(text, node.span) == part)
                return node;
        FAIL("no part " << part);
        return nodes.front();
    }
    std::vector<std::string> born() const {
        std::vector<std::string> all;
        for (const TraceNode& node : nodes)
            if (node.born)
                all.emplace_back(text_of(text, node.span));
        return all;
    }
};

} // namespace

TEST_CASE("a trace holds every part of the rule with its value, parts under wholes", "[engine][trace]") {
    const Traced t("let shared = 0.5 * g + 0.25 * b\nout.g = shared\nout.rgb *= 2\n", {0.1, 0.2, 0.4, 1});
    // By hand: 0.5 * 0.2 = 0.1, 0.25 * 0.4 = 0.1.
    CHECK(t.at("let shared = 0.5 * g + 0.25 * b").value[0] == Approx(0.2));
    CHECK(t.at("0.5 * g").value[0] == Approx(0.1));
    CHECK(t.at("0.25 * b").value[0] == Approx(0.1));
    CHECK(t.at("out.rgb *= 2").value.size() == 3);
    CHECK(t.at("out.rgb *= 2").value[1] == Approx(0.4));
    int steps = 0;
    for (std::size_t i = 0; i < t.nodes.size(); ++i) {
        steps += t.nodes[i].depth == 0 ? 1 : 0;
        CHECK(t.nodes[i].value.size() == static_cast<std::size_t>(width(t.nodes[i].type)));
        if (i > 0)
            CHECK(t.nodes[i].depth <= t.nodes[i - 1].depth + 1);
    }
    CHECK(steps == 3);
    CHECK(t.at("let shared = 0.5 * g + 0.25 * b").depth == 0);
    CHECK(t.born().empty());
}

TEST_CASE("a number that is none is found where it is born, not where it went", "[engine][trace]") {
    const Traced t("let glow = log2(r - 1.0)\nlet more = glow + 1\nout.r += 0.02 * more\n", {0.5, 0.2, 0.4, 1});
    CHECK(std::isnan(t.at("let glow = log2(r - 1.0)").value[0]));
    CHECK(t.born() == std::vector<std::string>{"let glow = log2(r - 1.0)"}); // a statement stands for its value
    CHECK(Traced("out.r = 1 + sqrt(r - 1) * 2\n", {0.5, 0, 0, 1}).born() == std::vector<std::string>{"sqrt(r - 1)"});
    CHECK(Traced("let p = r / (g - g)\nlet q = sqrt(b - 1)\nout.r = p + q\n", {0.5, 0.25, 0, 1}).born().size() == 2);
    // One that came with the picture is nobody's fault.
    CHECK(Traced("out.r = r * 2\n", {NAN, 0, 0, 1}).born().empty());
    // Inside a function it is the call that is told.
    CHECK(Traced("fn f(x float) = sqrt(x - 1) * 3\nout.r = 1 + f(r)\n", {0.5, 0, 0, 1}).born() ==
          std::vector<std::string>{"f(r)"});
}
