#include "scopes/response.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {
scopes::Response response_of(const std::string& rule) {
    const image::Picture greys = image::generated(101, 1, [](int x, int) {
        return std::array<double, 3>{x / 100.0, x / 100.0, x / 100.0};
    });
    return scopes::response(greys, *engine::evaluate(*engine::compile(good_rule(rule)), greys, {}));
}
} // namespace

TEST_CASE("the response is what comes out for greys", "[scopes]") {
    const scopes::Response response = response_of("out.rgb = rgb * vec3(1, 0.5, 2)");
    REQUIRE(response.points.size() == 101);
    CHECK(response.points[50].in == 0.5f);
    CHECK(response.points[50].out == std::array<float, 3>{0.5f, 0.25f, 1});
    CHECK(response.reverses == std::array<bool, 3>{false, false, false});
}

TEST_CASE("a channel that falls is reported, rounding is not", "[scopes]") {
    CHECK(response_of("out.g = 1 - g").reverses == std::array<bool, 3>{false, true, false});
    CHECK(response_of("out.b = b * (1.5 - b)").reverses == std::array<bool, 3>{false, false, true});
    CHECK(response_of("out.rgb = vec3(0.1) + (rgb - 0.1)").reverses == std::array<bool, 3>{false, false, false});
    CHECK(response_of("out.rgb = vec3(0.3)").reverses == std::array<bool, 3>{false, false, false});
}
