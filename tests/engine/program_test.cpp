#include "engine/kernels.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::engine;
using namespace kasuri::test;
using ir::Input;
using ir::NodeId;
using ir::Op;

namespace {

std::size_t count(const Program& program, Op op) {
    std::size_t found = 0;
    for (const Instruction& instruction : program.instructions())
        found += instruction.op == op ? 1 : 0;
    return found;
}

} // namespace

TEST_CASE("a product used once is fused with the sum that uses it", "[engine]") {
    ir::Graph g;
    const NodeId product = g.mul(g.input(Input::r), g.input(Input::g));
    const NodeId sum = g.add(product, g.input(Input::b));
    const NodeId once[] = {sum};
    CHECK(count(Program(g, once), Op::fma) == 1);
    CHECK(count(Program(g, once), Op::mul) == 0);
    const NodeId twice[] = {sum, product}; // wanted by itself, too
    CHECK(count(Program(g, twice), Op::fma) == 0);
    CHECK(count(Program(g, twice), Op::mul) == 1);
}

TEST_CASE("what nobody needs is not computed", "[engine]") {
    const auto program = compile(good_rule("let unused = sin(r) + cos(g)\nout.r = g * 2"));
    CHECK(program->instructions().size() == 1);
    CHECK_FALSE(program->reads(Input::r));
}

TEST_CASE("work on parameters alone is done once a run", "[engine]") {
    const auto program = compile(good_rule("param k = 1 in 0 .. 2\nout.r = r * (sin(k) + pow(k, 3) - 1)"));
    CHECK(program->instructions().size() == 1);
    CHECK(count(*program, Op::sin) == 0);
    // It is done in double precision: 1 - (1 - 1e-9) is not 0 there.
    const lang::Rule fine = good_rule("param k = 0 in 0 .. 1\nout.r = r + (1 - (1 - k)) * 1e9");
    CHECK(run(fine, {{0, 0, 0, 1}}, {1e-9})[0][0] == Approx(1).epsilon(1e-6));
}

TEST_CASE("outputs that pass through are known, and so is the identity", "[engine]") {
    const auto program = compile(good_rule("out.g = g * 1 + 0\nout.b = r"));
    CHECK(program->passes_through(0));
    CHECK(program->passes_through(1)); // rewritten away
    CHECK_FALSE(program->passes_through(2));
    CHECK(program->passes_through(3));
    CHECK_FALSE(program->is_identity());
    CHECK(compile(good_rule("out.rgb = rgb"))->is_identity());
    CHECK(compile(good_rule("out.rgb = rgb.bgr.bgr"))->is_identity());
    CHECK_FALSE(compile(good_rule("out.rgb = rgb.bgr"))->is_identity());
}

TEST_CASE("a program prints as one instruction a line", "[engine]") {
    const auto program = compile(good_rule("param k = 0 in 0 .. 1\nout.r = r * k"));
    CHECK(program->printed() == "u0 = uniform 1\nr0 = mul i0 u0\nout r0 i1 i2 i3\n");
}

TEST_CASE("constant outputs fill their planes", "[engine]") {
    const lang::Rule rule = good_rule("out = vec4(0.25, 0.5, 0.75, 1)");
    const std::vector<Colour> out = run(rule, std::vector<Colour>(700, Colour{9, 9, 9, 9}));
    for (const Colour& colour : out)
        REQUIRE(colour == Colour{0.25f, 0.5f, 0.75f, 1});
}

TEST_CASE("every operation but the leaves has a kernel", "[engine]") {
    for (const ir::OpRow& row : ir::op_table()) {
        INFO(row.name);
        CHECK((kernel(row.op) != nullptr) == (row.arity > 0));
        CHECK((row.fold != nullptr) == (row.arity > 0));
    }
    CHECK(std::string(instruction_set()).size() > 2);
}

TEST_CASE("kernels agree with the folding of constants", "[engine]") {
    std::mt19937 random(9);
    std::uniform_real_distribution<float> spread(-3, 3);
    for (const ir::OpRow& row : ir::op_table()) {
        if (row.arity == 0)
            continue;
        for (int round = 0; round < 200; ++round) {
            std::array<std::vector<float>, 3> args;
            for (auto& arg : args)
                for (std::size_t i = 0; i < widest_vector; ++i)
                    arg.push_back(spread(random));
            std::vector<float> target(widest_vector);
            const std::size_t all = ~std::size_t{0};
            kernel(row.op)(target.data(), {args[0].data(), all}, {args[1].data(), all}, {args[2].data(), all}, widest_vector);
            for (std::size_t i = 0; i < widest_vector; ++i) {
                const double exact = row.fold(static_cast<double>(args[0][i]), static_cast<double>(args[1][i]), static_cast<double>(args[2][i]));
                INFO(row.name << " " << args[0][i] << " " << args[1][i] << " " << args[2][i]);
                if (std::isnan(exact))
                    CHECK(std::isnan(target[i]));
                else
                    CHECK(static_cast<double>(target[i]) == Approx(exact).epsilon(2e-6).margin(1e-6));
            }
        }
    }
}

TEST_CASE("exp2 and log2 stay within 2e-7 over their range, subnormals included", "[engine]") {
    std::vector<float> in, out(1024);
    const auto through = [&](Op op) {
        kernel(op)(out.data(), {in.data(), ~std::size_t{0}}, {}, {}, in.size());
    };
    for (int i = 0; i < 1024; ++i)
        in.push_back(-126.0f + static_cast<float>(i) * 0.248f);
    through(Op::exp2);
    for (std::size_t i = 0; i < in.size(); ++i)
        REQUIRE(std::fabs(static_cast<double>(out[i]) / std::exp2(static_cast<double>(in[i])) - 1) < 2e-7);
    for (std::size_t i = 0; i < in.size(); ++i)
        in[i] = std::ldexp(1.0f + static_cast<float>(i) / 1024.0f, static_cast<int>(i % 250) - 140);
    through(Op::log2);
    for (std::size_t i = 0; i < in.size(); ++i) {
        const double exact = std::log2(static_cast<double>(in[i]));
        REQUIRE(std::fabs(static_cast<double>(out[i]) - exact) <= 1.2e-7 * std::max(1.0, std::fabs(exact)));
    }
    in.assign(1024, 0);
    in[0] = 200;
    in[1] = -200;
    in[2] = -140; // a subnormal result
    through(Op::exp2);
    CHECK(out[0] == infinity);
    CHECK(out[1] == 0);
    CHECK(out[2] == std::exp2(-140.0f));
}
