#include "builtins/builtin.hpp"
#include "support/support.hpp"

#include <map>
#include <set>

using namespace kasuri;
using namespace kasuri::test;
using builtins::Builtin;
using builtins::Form;

namespace {

const colour::Space& linear() { return *colour::find_space("rec709-linear"); }

/// Types of the arguments, `knots` of them for what may come again; gen stands for `width` components.
std::vector<int> argument_widths(const Builtin& row, int width, std::size_t knots = 3) {
    const lang::Vocabulary& words = builtins::vocabulary();
    const lang::Signature& signature = words.functions[static_cast<std::size_t>(&row - builtins::all().data())];
    std::vector<int> widths;
    for (const lang::Slot& slot : signature.parameters)
        widths.push_back(slot.gen ? width : lang::width(slot.type));
    for (std::size_t k = 1; row.variadic && k < knots; ++k)
        widths.push_back(widths.back());
    return widths;
}
int result_width(const Builtin& row, int width) {
    const lang::Signature& signature =
        builtins::vocabulary().functions[static_cast<std::size_t>(&row - builtins::all().data())];
    return signature.result.gen ? width : lang::width(signature.result.type);
}

/// One row applied to flat arguments, by the reference.
std::vector<double> by_reference(const Builtin& row, const std::vector<int>& widths, int width, const double* flat) {
    std::vector<const double*> pointers;
    for (const int w : widths) {
        pointers.push_back(flat);
        flat += w;
    }
    std::vector<double> result(9);
    builtins::evaluate(row, linear(), {width, static_cast<int>(widths.size())}, pointers.data(), result.data());
    result.resize(static_cast<std::size_t>(result_width(row, width)));
    return result;
}

/// The same by the engine, for many sets of arguments: [set][result component].
std::vector<std::vector<float>> by_engine(const Builtin& row, const std::vector<int>& widths, int width,
                                          const std::vector<std::vector<double>>& sets) {
    std::size_t total = 0;
    for (const int w : widths)
        total += static_cast<std::size_t>(w);
    ir::Graph graph;
    graph.reserve_sources(static_cast<std::uint32_t>(total));
    std::vector<ir::NodeId> inputs;
    for (std::uint32_t k = 0; k < total; ++k)
        inputs.push_back(graph.source_input(k));
    std::vector<const ir::NodeId*> pointers;
    std::size_t at = 0;
    for (const int w : widths) {
        pointers.push_back(&inputs[at]);
        at += static_cast<std::size_t>(w);
    }
    std::vector<ir::NodeId> outputs(static_cast<std::size_t>(result_width(row, width)));
    builtins::lower(row, linear(), graph, {width, static_cast<int>(widths.size())}, pointers.data(), outputs.data());
    const engine::Program program(graph, outputs);
    std::vector<std::vector<float>> planes(total, std::vector<float>(sets.size())),
        made(outputs.size(), std::vector<float>(sets.size()));
    engine::Source source{static_cast<int>(sets.size()), 1, {}};
    for (std::size_t k = 0; k < total; ++k) {
        for (std::size_t i = 0; i < sets.size(); ++i)
            planes[k][i] = static_cast<float>(sets[i][k]);
        source.more.emplace_back(planes[k].data());
    }
    std::vector<float*> sinks;
    for (auto& plane : made)
        sinks.push_back(plane.data());
    REQUIRE(engine::run(program, source, {}, std::span<float* const>(sinks)));
    std::vector<std::vector<float>> results(sets.size());
    for (std::size_t i = 0; i < sets.size(); ++i)
        for (const auto& plane : made)
            results[i].push_back(plane[i]);
    return results;
}

std::string listed(const std::vector<double>& values) {
    std::string text;
    for (const double value : values)
        text += (text.empty() ? "" : ", ") + std::to_string(value);
    return text;
}

} // namespace

TEST_CASE("every function has documentation, a source and worked cases", "[builtins]") {
    CHECK(builtins::all().size() >= 100);
    for (const Builtin& row : builtins::all()) {
        INFO(row.name);
        CHECK(row.doc.ends_with("."));
        CHECK_FALSE(row.source.empty());
        CHECK_FALSE(row.family.empty());
        if (!row.model && row.form != Form::neighbourhood)
            CHECK_FALSE(row.cases.empty());
    }
}

TEST_CASE("worked cases hold for the reference and for the engine", "[builtins]") {
    // Cases follow from the definition that each row names as its source.
    for (const Builtin& row : builtins::all())
        for (const builtins::Case& worked : row.cases) {
            std::size_t first = 0;
            for (const int w : argument_widths(row, 1, 1))
                first += static_cast<std::size_t>(w);
            const std::size_t knots = row.variadic ? 1 + (worked.arguments.size() - first) / 2 : 1;
            const std::vector<int> widths = argument_widths(row, 1, knots);
            INFO(row.name << "(" << listed(worked.arguments) << ")");
            CHECK(by_reference(row, widths, 1, worked.arguments.data())[0] == Approx(worked.result).margin(1e-12));
            CHECK(static_cast<double>(by_engine(row, widths, 1, {worked.arguments})[0][0]) ==
                  Approx(worked.result).margin(2e-6));
        }
}

TEST_CASE("the engine keeps each row's tolerance on random and on special arguments", "[builtins]") {
    std::mt19937 random(42);
    std::uniform_real_distribution<float> spread(-4, 4);
    const float special[] = {0, -0.0f, 1, -1, 0.5f, 2, 3, 1e-9f, 1e30f, infinity, -infinity, not_a_number};
    for (const Builtin& row : builtins::all()) {
        if (row.form == Form::neighbourhood || row.model || row.space)
            continue; // have tests of their own
        for (const int width : {1, 3}) {
            const std::vector<int> widths = argument_widths(row, width);
            std::size_t total = 0;
            bool matrix = false;
            for (const int w : widths) {
                total += static_cast<std::size_t>(w);
                matrix = matrix || w == 9;
            }
            const bool by_component =
                row.form == Form::componentwise || row.form == Form::reducing || row.form == Form::widening;
            std::vector<std::vector<double>> sets;
            for (int round = 0; round < 1500; ++round) {
                std::vector<double> flat;
                for (std::size_t k = 0; k < total; ++k) {
                    const bool pick = random() % 8 == 0;
                    float value = pick && by_component ? special[random() % std::size(special)] : spread(random);
                    if (pick && !by_component && !matrix && random() % 4 == 0)
                        value = not_a_number;
                    flat.push_back(static_cast<double>(value));
                }
                if (row.variadic) { // knots stand in order
                    const auto begin = static_cast<std::size_t>(width);
                    for (std::size_t k = begin; k < total; ++k)
                        flat[k] = std::isnan(flat[k]) ? 0.25 : flat[k] / 4;
                    for (std::size_t k = begin + 2; k < total; k += 2)
                        flat[k] = flat[k - 2] + 0.05 + std::fabs(flat[k]);
                    flat[begin] = static_cast<double>(static_cast<float>(flat[begin]));
                }
                for (double& value : flat)
                    value = static_cast<double>(static_cast<float>(value));
                sets.push_back(std::move(flat));
            }
            const auto fast = by_engine(row, widths, width, sets);
            int apart = 0, compared = 0;
            for (std::size_t i = 0; i < sets.size(); ++i) {
                const std::vector<double> exact = by_reference(row, widths, width, sets[i].data());
                const bool tame =
                    std::all_of(sets[i].begin(), sets[i].end(), [](double x) { return std::fabs(x) <= 4; });
                const bool huge = std::any_of(sets[i].begin(), sets[i].end(),
                                              [](double x) { return std::isfinite(x) && std::fabs(x) > 1e10; });
                for (std::size_t c = 0; c < exact.size(); ++c) {
                    if (huge && !std::isnan(exact[c]))
                        continue; // a float overflows earlier than a double
                    const double got = static_cast<double>(fast[i][c]);
                    INFO(row.name << "(" << listed(sets[i]) << ") is " << exact[c] << ", engine " << got);
                    if (std::isnan(exact[c]))
                        CHECK(std::isnan(got));
                    else if (!std::isfinite(exact[c]) || std::fabs(exact[c]) > 1e30)
                        CHECK((got == exact[c] || std::fabs(got) > 1e25));
                    else if (tame && std::fabs(exact[c]) < 1e3) {
                        ++compared;
                        const bool close =
                            std::fabs(got - exact[c]) <= row.tolerance * std::max(1.0, std::fabs(exact[c]));
                        // At a jump (floor, mod, step) float and double may fall on different sides by rounding.
                        if (row.jumps)
                            apart += close ? 0 : 1;
                        else
                            CHECK(close);
                    }
                }
            }
            INFO(row.name << ": " << apart << " of " << compared);
            CHECK(apart * 50 <= compared);
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
