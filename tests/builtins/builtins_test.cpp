#include "builtins/builtin.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

/// One value of a row on scalar arguments: by the reference and by the engine.
double by_reference(const builtins::Builtin& row, const std::vector<double>& arguments) {
    std::vector<const double*> pointers;
    for (const double& argument : arguments)
        pointers.push_back(&argument);
    double result = 0;
    builtins::evaluate(row, 1, pointers.data(), &result);
    return result;
}

float by_engine(const builtins::Builtin& row, const std::vector<double>& arguments) {
    ir::Graph graph;
    std::vector<ir::NodeId> inputs;
    for (std::size_t i = 0; i < arguments.size(); ++i)
        inputs.push_back(graph.input(static_cast<ir::Input>(i)));
    std::vector<const ir::NodeId*> pointers;
    for (const ir::NodeId& input : inputs)
        pointers.push_back(&input);
    ir::NodeId output = 0;
    builtins::lower(row, graph, 1, pointers.data(), &output);
    const ir::NodeId outputs[] = {output};
    const engine::Program program(graph, outputs);
    float planes[4] = {0, 0, 0, 1}, result = 0;
    for (std::size_t i = 0; i < arguments.size(); ++i)
        planes[i] = static_cast<float>(arguments[i]);
    float* const out[] = {&result};
    REQUIRE(engine::run(program, {1, 1, {&planes[0], &planes[1], &planes[2], &planes[3]}}, {}, out));
    return result;
}

bool scalar(const builtins::Builtin& row) {
    return row.form == builtins::Form::componentwise || row.form == builtins::Form::reducing ||
           row.form == builtins::Form::widening || row.form == builtins::Form::truth;
}

} // namespace

TEST_CASE("every function has documentation, a source and, where it is scalar, worked cases", "[builtins]") {
    CHECK(builtins::all().size() >= 30);
    for (const builtins::Builtin& row : builtins::all()) {
        INFO(row.name);
        CHECK_FALSE(row.doc.empty());
        CHECK_FALSE(row.source.empty());
        if (scalar(row))
            CHECK_FALSE(row.cases.empty());
    }
}

TEST_CASE("worked cases hold for the reference and for the engine", "[builtins]") {
    // Cases follow from the definitions in OpenGL Shading Language 4.60, chapter 8, as each row says.
    for (const builtins::Builtin& row : builtins::all())
        for (const builtins::Case& worked : row.cases) {
            INFO(row.name << " of " << worked.arguments[0]);
            CHECK(by_reference(row, worked.arguments) == Approx(worked.result).margin(1e-12));
            CHECK(static_cast<double>(by_engine(row, worked.arguments)) == Approx(worked.result).margin(2e-6));
        }
}

TEST_CASE("the engine keeps each row's tolerance on random and on special arguments", "[builtins]") {
    std::mt19937 random(42);
    std::uniform_real_distribution<float> spread(-4, 4);
    const float special[] = {0, -0.0f, 1, -1, 0.5f, 2, 3, 1e-9f, 1e30f, infinity, -infinity, not_a_number};
    for (const builtins::Builtin& row : builtins::all()) {
        if (!scalar(row))
            continue;
        for (int round = 0; round < 2000; ++round) {
            std::vector<double> arguments;
            bool tame = true;
            for (std::size_t i = 0; i < row.parameters.size(); ++i) {
                const bool pick = random() % 8 == 0;
                const float value = pick ? special[random() % std::size(special)] : spread(random);
                tame = tame && std::fabs(value) <= 4;
                arguments.push_back(static_cast<double>(value));
            }
            const double expected = by_reference(row, arguments);
            const double got = static_cast<double>(by_engine(row, arguments));
            INFO(row.name << "(" << arguments[0] << (arguments.size() > 1 ? ", " + std::to_string(arguments[1]) : "")
                          << (arguments.size() > 2 ? ", " + std::to_string(arguments[2]) : "") << ") is " << expected << ", engine " << got);
            if (std::isnan(expected))
                CHECK(std::isnan(got));
            else if (!std::isfinite(expected) || std::fabs(expected) > 1e30)
                CHECK((got == expected || std::fabs(got) > 1e25));
            else if (tame && std::fabs(expected) < 1e4)
                // At a jump (floor, mod, step) float and double may fall on different sides by rounding.
                CHECK((std::fabs(got - expected) <= row.tolerance * std::max(1.0, std::fabs(expected)) ||
                       (row.name == "mod" && std::fabs(std::fabs(got - expected) - std::fabs(arguments[1])) < 1e-5)));
        }
    }
}

TEST_CASE("functions work on vectors component by component and a float spreads", "[builtins]") {
    CHECK(run_one("out.rgb = clamp(rgb, 0, 1)", {-1, 0.5f, 2, 1}) == Colour{0, 0.5f, 1, 1});
    CHECK(run_one("out.rgb = mix(rgb, vec3(1, 2, 3), vec3(0, 0.5, 1))", {3, 4, 5, 1}) == Colour{3, 3, 3, 1});
    CHECK(run_one("out.rgb = max(0.25, rgb)", {0, 0.5f, 1, 1}) == Colour{0.25f, 0.5f, 1, 1});
    CHECK(run_one("out.r = dot(rgb, vec3(1, 2, 3))", {1, 1, 1, 1})[0] == 6);
    CHECK(run_one("out.r = length(rgb)", {2, 3, 6, 1})[0] == Approx(7)); // 4 + 9 + 36 = 49
    CHECK(run_one("out.r = distance(rgb, vec3(1, 1, 1))", {3, 4, 7, 1})[0] == Approx(7));
    CHECK(run_one("out.rgb = cross(vec3(1, 0, 0), vec3(0, 1, 0))", {0, 0, 0, 1}) == Colour{0, 0, 1, 1}); // right-handed
    CHECK(run_one("out.rgb = normalize(rgb)", {0, 3, 4, 1})[2] == Approx(0.8f));
}

TEST_CASE("pow follows ISO C17 F.10.4.4", "[builtins]") {
    const auto power = [](float x, float y) { return run_one("out.r = pow(r, g)", {x, y, 0, 1})[0]; };
    for (const float x : {-infinity, -2.0f, -1.0f, -0.5f, 0.0f, 0.5f, 1.0f, 2.0f, infinity, not_a_number})
        for (const float y : {-infinity, -3.0f, -2.0f, -0.5f, 0.0f, 0.5f, 2.0f, 3.0f, infinity, not_a_number}) {
            INFO(x << " to the " << y);
            const float expected = std::pow(x, y);
            const float got = power(x, y);
            CHECK(((std::isnan(expected) && std::isnan(got)) || got == Approx(expected)));
        }
}
