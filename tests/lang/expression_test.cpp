#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

/// The type of an expression after a short rule that makes some names.
std::string type_of(const std::string& expression) {
    const std::string rule = "param p = 0.5\nlet f = r\nlet v = rgb\nlet c = hsv(rgb)\nlet m = mat3(1)\nlet t = r > g\n"
                             "out.rgb = m * v * f * p * (t ? c.v : 1)\n";
    const Checked checked = check(rule, proof::vocabulary(), expression);
    if (!checked.ok)
        return checked.print_diagnostics.empty() ? "broken rule"
                                                 : std::string(row(checked.print_diagnostics[0].code).id);
    return name(checked.rule.exprs[*checked.rule.print].type);
}

} // namespace

TEST_CASE("expressions have the types one expects", "[lang]") {
    struct Expected {
        const char* expression;
        const char* type; ///< or the id of the fault
    };
    const Expected expected[] = {
        {"1", "float"},
        {"true", "bool"},
        {"r", "float"},
        {"rgb", "vec3"},
        {"rgba", "vec4"},
        {"pos", "vec2"},
        {"pixel", "vec2"},
        {"aspect", "float"},
        {"out", "vec4"},
        {"out.rgb", "vec3"},
        {"out.a", "float"},
        {"out.xw", "vec2"},
        {"p", "float"},
        {"v.zyx", "vec3"},
        {"v.xxxx", "vec4"},
        {"c", "hsv"},
        {"c.h", "float"},
        {"m", "mat3"},
        {"t", "bool"},
        {"-v", "vec3"},
        {"-m", "mat3"},
        {"!t", "bool"},
        {"v + 1", "vec3"},
        {"1 - v", "vec3"},
        {"v * v", "vec3"},
        {"f * f", "float"},
        {"m * v", "vec3"},
        {"m * m", "mat3"},
        {"2 * m", "mat3"},
        {"m / 2", "mat3"},
        {"m + m", "mat3"},
        {"f < 1", "bool"},
        {"v == v", "bool"},
        {"c == c", "bool"},
        {"t && t", "bool"},
        {"t ? 1 : v", "vec3"},
        {"t ? c : c", "hsv"},
        {"t ? m : m", "mat3"},
        {"hsv(v)", "hsv"},
        {"hsv(1, 2, 3)", "hsv"},
        {"rgb(c)", "vec3"},
        {"vec2(1)", "vec2"},
        {"vec4(v, 1)", "vec4"},
        {"vec4(pos, pos)", "vec4"},
        {"vec3(f, pos)", "vec3"},
        {"mat3(v, v, v)", "mat3"},
        {"dot(v, v)", "float"},
        {"dot(f, f)", "float"},
        {"length(pos)", "float"},
        {"normalize(v)", "vec3"},
        {"cross(v, v)", "vec3"},
        {"mix(v, v, f)", "vec3"},
        {"mix(f, v, 0.5)", "vec3"},
        {"isnan(f)", "bool"},
        {"pow(v, 2)", "vec3"},
        {"clamp(rgba, 0, 1)", "vec4"},
        // and the faults
        {"v < v", "K305"},
        {"m / m", "K305"},
        {"v * m", "K305"},
        {"c + c", "hsv"},
        {"c * 2", "hsv"},
        {"c * c", "K305"},
        {"t + 1", "K305"},
        {"v + pos", "K305"},
        {"v == f", "K305"},
        {"-t", "K307"},
        {"-c", "K307"},
        {"!f", "K308"},
        {"f && t", "K308"},
        {"f ? 1 : 2", "K308"},
        {"t ? v : pos", "K309"},
        {"t ? c : v", "K309"},
        {"f.r", "K203"},
        {"pos.z", "K203"},
        {"v.rx", "K203"},
        {"m.x", "K203"},
        {"c.x", "K203"},
        {"mix(v, pos, 0.5)", "K307"},
        {"isnan(v)", "K307"},
        {"cross(pos, pos)", "K307"},
        {"dot(v, pos)", "K307"},
        {"rgb(v)", "K307"},
        {"hsv(f)", "K307"},
        {"hsv(1, 2)", "K306"},
        {"mat3(v, v)", "K307"},
        {"vec3(t)", "K307"},
        {"vec3(m)", "K307"},
        {"vec2(v)", "K306"},
        {"nothing", "K201"},
        {"nothing(1)", "K202"},
        {"1 +", "K111"},
        {"1 2", "K113"},
        {"vec3(", "K111"},
    };
    for (const Expected& each : expected) {
        INFO(each.expression);
        CHECK(type_of(each.expression) == each.type);
    }
}

TEST_CASE("faults of a printed expression refer to it, not to the rule", "[lang]") {
    const Checked checked = check("out.g = b", proof::vocabulary(), "r + shrd");
    CHECK_FALSE(checked.ok);
    CHECK(checked.diagnostics.empty());
    REQUIRE(checked.print_diagnostics.size() == 1);
    CHECK(checked.print_diagnostics[0].span == Span{4, 8});
}

TEST_CASE("a fix always applies cleanly and never makes new faults of the same kind at its place", "[lang][fuzz]") {
    // Small slips at every place of a good rule: whatever fix is offered leaves a text that can be checked.
    const std::string good = "param meet = 0 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\n"
                             "let c = hsv(out.rgb)\nc.v *= 0.9\nout.rgb = rgb(c)\n";
    int fixed = 0, mended = 0;
    for (std::size_t at = 0; at < good.size(); ++at) {
        for (const std::string& slip :
             {good.substr(0, at) + good.substr(at + 1), good.substr(0, at) + "x" + good.substr(at),
              good.substr(0, at) + good[at] + good.substr(at)}) {
            const Checked broken = check(slip, proof::vocabulary());
            for (const Diagnostic& d : broken.diagnostics)
                for (const Fix& fix : d.fixes) {
                    REQUIRE(fix.span.begin <= fix.span.end);
                    REQUIRE(fix.span.end <= slip.size());
                    const std::string after = applied(fix, slip);
                    REQUIRE(after != slip);
                    mended += check(after, proof::vocabulary()).ok ? 1 : 0;
                    ++fixed;
                }
        }
    }
    CHECK(fixed > 50);
    CHECK(mended * 2 > fixed); // most slips of one letter are mended by one click
}

TEST_CASE("comments, blank lines and either line end are no part of a rule", "[lang]") {
    const lang::Rule plain = good_rule("out.g = b");
    const lang::Rule dressed = good_rule("\r\n// first\r\n\r\n   out.g = b   // last\r\n\r\n");
    CHECK(engine::compile(plain)->printed() == engine::compile(dressed)->printed());
    CHECK(good_rule("").steps.empty());
    CHECK(good_rule(";;;\n;").steps.empty());
}

TEST_CASE("signatures are shown as one would write them", "[lang]") {
    for (const Signature& signature : proof::vocabulary().functions)
        if (signature.name == "mix")
            CHECK(shown(signature) == "mix(x gen, y gen, share gen) gen");
        else if (signature.name == "rgb")
            CHECK((shown(signature).starts_with("rgb(colour ") && shown(signature).ends_with(") vec3")));
}
