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
    CHECK(program->printed() ==
          "pass 1 of 1: 1 instructions, 1 registers\nu0 = uniform 3\nr0 = mul i0 u0\nout r0 i1 i2 i3\n");
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
        const bool ours = row.arity > 0 && row.op != Op::external; // which the worker calls
        CHECK((kernel(row.op) != nullptr) == ours);
        CHECK((row.fold != nullptr) == ours);
    }
    CHECK(std::string(instruction_set()).size() > 2);
}

namespace {

/// Runs one kernel on given operands; the last ones are uniform where an operation wants them so.
std::vector<std::vector<float>> through(Op op, const std::vector<std::vector<float>>& args) {
    const std::size_t count = args[0].size();
    std::vector<std::vector<float>> results(ir::max_results, std::vector<float>(count));
    KernelCall call;
    std::vector<KernelOperand> operands;
    for (const std::vector<float>& arg : args)
        operands.push_back({arg.data(), arg.size() == count ? ~std::size_t{0} : 0});
    call.args = operands.data();
    for (std::size_t k = 0; k < results.size(); ++k)
        call.targets[k] = results[k].data();
    kernel(op)(call, count);
    return results;
}

/// Whether a small step of an operand is a small one of the result.
bool continuous(Op op) { return op == Op::power_segment || op == Op::mirrored_segment || op == Op::log_segment; }

/// How many operands of an operation come with every pixel; the others are the same for all.
int pixel_operands(Op op) {
    switch (op) {
    case Op::pow_uniform:
    case Op::signed_power:
    case Op::power_segment:
    case Op::mirrored_segment:
    case Op::exp_segment:
    case Op::log_segment: return 1;
    case Op::linear2: return 2;
    case Op::linear3:
    case Op::matrix3_apart:
    case Op::opponent3:
    case Op::matrix3: return 3;
    default: return ir::row(op).arity;
    }
}

} // namespace

TEST_CASE("kernels of every instruction set agree with the folding of constants", "[engine]") {
    REQUIRE(instruction_sets().size() >= 2); // SSE4 at least beside the best one
    for (const std::string& set : instruction_sets()) {
        choose_instruction_set(set);
        REQUIRE(std::string(instruction_set()) == set);
        std::mt19937 random(9);
        std::uniform_real_distribution<float> spread(-3, 3);
        for (const ir::OpRow& row : ir::op_table()) {
            if (!row.fold)
                continue;
            for (int round = 0; round < 100; ++round) {
                std::vector<std::vector<float>> args;
                for (int k = 0; k < row.arity; ++k) {
                    std::vector<float> arg(widest_vector);
                    if (k < pixel_operands(row.op))
                        for (float& x : arg)
                            x = spread(random);
                    else
                        std::fill(arg.begin(), arg.end(), spread(random));
                    args.push_back(std::move(arg));
                }
                const auto made = through(row.op, args);
                for (std::size_t i = 0; i < widest_vector; ++i) {
                    double exact[ir::max_results], x[ir::max_operands] = {};
                    for (std::size_t k = 0; k < args.size(); ++k)
                        x[k] = static_cast<double>(args[k][i]);
                    row.fold(x, exact);
                    // What the last digits of the operands make of it: a power of a difference near 0 can be anything.
                    double spread_of[ir::max_results] = {};
                    for (std::size_t k = 0; k < args.size(); ++k) {
                        double moved[ir::max_results], y[ir::max_operands] = {};
                        std::copy(std::begin(x), std::end(x), std::begin(y));
                        y[k] *= 1 + 0x1p-22;
                        row.fold(y, moved);
                        for (int r = 0; r < row.results; ++r)
                            if (const double far = std::fabs(moved[r] - exact[r]); far < INFINITY)
                                spread_of[r] += far;
                    }
                    for (int r = 0; r < row.results; ++r) {
                        const float got = made[static_cast<std::size_t>(r)][i];
                        INFO(set << " " << row.name << " " << x[0] << " " << x[1] << " " << x[2] << ": " << got);
                        if (std::isnan(exact[r]))
                            CHECK(std::isnan(got));
                        else
                            // Sums of products cancel: what counts is the size of their terms.
                            CHECK(
                                static_cast<double>(got) ==
                                Approx(exact[r]).epsilon(2e-5).margin(1e-5 + (continuous(row.op) ? spread_of[r] : 0)));
                    }
                }
            }
        }
    }
    choose_instruction_set("");
}

TEST_CASE("sine and cosine hold for any angle that a float can be", "[engine]") {
    // std::sin and std::cos of doubles, which reduce the angle exactly.
    for (const std::string& set : instruction_sets()) {
        choose_instruction_set(set);
        std::mt19937 random(5);
        for (int exponent = -20; exponent < 128; ++exponent)
            for (const auto& [op, exact] :
                 {std::pair<Op, double (*)(double)>{Op::sin, std::sin}, {Op::cos, std::cos}}) {
                std::vector<float> angles(widest_vector);
                for (float& x : angles)
                    x = std::ldexp(std::uniform_real_distribution<float>(-1, 1)(random), exponent);
                const auto result = through(op, {angles})[0];
                for (std::size_t i = 0; i < angles.size(); ++i) {
                    INFO(set << " " << angles[i]);
                    REQUIRE(std::fabs(static_cast<double>(result[i]) - exact(static_cast<double>(angles[i]))) < 3e-7);
                }
            }
    }
}

TEST_CASE("exp2, log2 and powers stay within 3e-7 over their range, subnormals counting as 0", "[engine]") {
    for (const std::string& set : instruction_sets()) {
        choose_instruction_set(set);
        INFO(set);
        const FlushSubnormals flush;
        std::vector<float> in;
        for (int i = 0; i < 1024; ++i)
            in.push_back(-125.5f + static_cast<float>(i) * 0.2475f);
        auto out = through(Op::exp2, {in})[0];
        for (std::size_t i = 0; i < in.size(); ++i)
            REQUIRE(std::fabs(static_cast<double>(out[i]) / std::exp2(static_cast<double>(in[i])) - 1) < 2e-7);
        for (std::size_t i = 0; i < in.size(); ++i)
            in[i] = std::ldexp(1.0f + static_cast<float>(i) / 1024.0f, static_cast<int>(i % 250) - 125);
        out = through(Op::log2, {in})[0];
        for (std::size_t i = 0; i < in.size(); ++i) {
            const double exact = std::log2(static_cast<double>(in[i]));
            REQUIRE(std::fabs(static_cast<double>(out[i]) - exact) <= 1.2e-7 * std::max(1.0, std::fabs(exact)));
        }
        for (std::size_t i = 0; i < in.size(); ++i)
            in[i] = static_cast<float>(i) / 64;
        for (const float exponent : {2.4f, 1 / 2.4f, 1 / 3.0f, -0.5f}) {
            out = through(Op::pow_uniform, {in, std::vector<float>(widest_vector, exponent)})[0];
            for (std::size_t i = 1; i < in.size(); ++i)
                REQUIRE(static_cast<double>(out[i]) ==
                        Approx(std::pow(static_cast<double>(in[i]), static_cast<double>(exponent))).epsilon(1e-6));
        }
        out = through(Op::exp2,
                      {{200, -200, -140, not_a_number, infinity, -infinity, 127, 128, 0, 1, 2, 3, 4, 5, 6, 7}})[0];
        CHECK(out[0] == infinity);
        CHECK(out[1] == 0);
        CHECK(out[2] == 0); // would be subnormal
        CHECK(std::isnan(out[3]));
        CHECK(out[4] == infinity);
        CHECK(out[5] == 0);
        CHECK(out[6] == std::exp2(127.0f));
        CHECK(out[7] == infinity);
        CHECK(out[8] == 1);
        out =
            through(Op::log2, {{0, -1, infinity, not_a_number, -infinity, 1, 2, 1e-42f, 0.5f, 1, 1, 1, 1, 1, 1, 1}})[0];
        CHECK(out[0] == -infinity);
        CHECK(std::isnan(out[1]));
        CHECK(out[2] == infinity);
        CHECK(std::isnan(out[3]));
        CHECK(std::isnan(out[4]));
        CHECK(out[5] == 0);
        CHECK(out[6] == 1);
        CHECK(out[7] == -infinity);
    }
    choose_instruction_set("");
}

TEST_CASE("powers with one exponent for all pixels follow ISO C17 F.10.4.4, too", "[engine]") {
    const std::vector<float> in = {-infinity, -2,       -1,           -0.5f, -0.0f, 0, 0.5f, 1,
                                   2,         infinity, not_a_number, 3,     4,     5, 6,    7};
    for (const float exponent : {-infinity, -3.0f, -2.0f, -0.5f, 0.0f, 0.5f, 2.0f, 3.0f, infinity, not_a_number}) {
        const auto out = through(Op::pow_uniform, {in, std::vector<float>(widest_vector, exponent)})[0];
        for (std::size_t i = 0; i < in.size(); ++i) {
            const float exact = std::pow(in[i], exponent);
            INFO(in[i] << " to the " << exponent << ": " << out[i]);
            CHECK(((std::isnan(exact) && std::isnan(out[i])) || std::fabs(out[i]) == Approx(std::fabs(exact))));
        }
    }
}

TEST_CASE("a hue that is turned and a chroma that is scaled need no angle", "[engine]") {
    struct Case {
        const char* rule;
        std::size_t angles, roots; ///< arctangents and powers that are left
    };
    for (const Case& c :
         {Case{"let c = oklch(rgb)\nc.c *= 1.3\nout.rgb = rgb(c)", 0, 3},
          Case{"param turn = 20 in -180 .. 180\nlet c = oklch(rgb)\nc.h += turn\nc.l *= 0.9\nout.rgb = "
               "rgb(c)",
               0, 3},
          Case{"let c = lch(rgb)\nc.c *= 0.5 + g\nc.h -= 30 * b\nout.rgb = rgb(c)", 0, 6},
          Case{"let c = lchuv(rgb)\nc.h += 5\nc.c *= 2\nout.rgb = rgb(c)", 0, 2},
          // there, back, and there again for the hue that is held: the cube roots meet their cubes
          Case{"out.g = 0.4 * g + 0.6 * b\nlet c = oklch(out.rgb)\nc.c *= 1.2\nout.rgb = rgb(c)\nhold hue of "
               "(0.62, 0.34, 0.25) in oklch",
               0, 3},
          // what is no turn keeps its angle
          Case{"let c = oklch(rgb)\nc.h *= 2\nout.rgb = rgb(c)", 1, 3},
          Case{"let c = oklch(rgb)\nc.c = min(c.c, 0.1)\nout.rgb = rgb(c)", 1, 3}}) {
        const lang::Rule rule = good_rule(c.rule);
        const auto program = compile(rule);
        INFO(c.rule << "\n" << program->printed());
        CHECK(count(*program, Op::atan2) == c.angles);
        std::size_t roots = 0;
        const std::string printed = program->printed();
        for (std::size_t at = printed.find("= pow"); at != std::string::npos; at = printed.find("= pow", at + 1))
            ++roots;
        CHECK(roots <= c.roots);
        // The reference goes by the angle, in double precision: to the same colours, neutral and nearly neutral ones,
        // negative ones, and ones far above white.
        const std::vector<double> values(rule.parameters.size(), 20);
        for (const std::array<float, 3>& colour : {std::array<float, 3>{0.2f, 0.5f, 0.7f},
                                                   {0.3f, 0.3f, 0.3f},
                                                   {0, 0, 0},
                                                   {0.3f, 0.3001f, 0.2999f},
                                                   {-0.2f, 0.4f, 0.1f},
                                                   {40, 3, 0.5f},
                                                   {1e-6f, 0, 0}}) {
            image::Picture one = image::generated(1, 1, [&](int, int) { return colour; });
            const auto made = evaluate(*program, one, values);
            ReferencePixel pixel;
            pixel.rgba = {static_cast<double>(colour[0]), static_cast<double>(colour[1]),
                          static_cast<double>(colour[2]), 1};
            const auto exact = reference(rule, values, pixel);
            for (std::size_t k = 0; k < 3; ++k) {
                INFO(colour[0] << " " << colour[1] << " " << colour[2] << ", channel " << k);
                CHECK(static_cast<double>((*made->planes[k])[0]) ==
                      Approx(exact[k]).epsilon(2e-5).margin(3e-6 * std::max(1.0f, colour[0])));
            }
        }
    }
}

TEST_CASE("shapes that one kernel can do are fused", "[engine]") {
    const auto ops = [](const std::string& rule) { return compile(good_rule(rule))->printed(); };
    const auto has = [&](const std::string& rule, const std::string& name) {
        INFO(rule << "\n" << ops(rule));
        CHECK(ops(rule).find("= " + name + " ") != std::string::npos);
        CHECK(compile(good_rule(rule))->instructions().size() == 1);
    };
    has("out.r = r <= 0.04045 ? r / 12.92 : pow((r + 0.055) / 1.055, 2.4)", "power_segment");
    has("out.r = r > 0.0031308 ? 1.055 * pow(r, 1 / 2.4) - 0.055 : 12.92 * r", "power_segment");
    has("out.r = r < 0.0031308 ? r * 12.92 : 1.055 * pow(r, 1 / 2.4) - 0.055", "power_segment");
    has("out.r = 0.0031308 <= r ? 1.055 * pow(r, 1 / 2.4) - 0.055 : r * 12.92", "power_segment");
    has("out.r = acescct_decode(r)", "exp_segment");
    has("out.r = acescct_encode(r)", "log_segment");
    has("out.r = r <= 0.1 ? 2 * r : log2(8 * r + 0.2)", "log_segment");
    has("out.r = clamp(r, g, b)", "clamp");
    has("out.r = mix(r, g, b)", "mix");
    has("out.r = smoothstep(0.2, 0.7, g)", "smooth");
    has("param low = 0.1\nout.r = smoothstep(low, 0.7, g)", "smooth");
    has("out.r = r * r * r", "cube");
    has("out.r = pow(g, 3)", "cube");
    has("out.r = pow(g, 0.8)", "pow_uniform");
    has("out.r = r < 0 ? -pow(abs(r), 1 / 3) : pow(abs(r), 1 / 3)", "signed_power");
    has("out.r = 0.2 * r - 0.3 * g", "linear2");
    has("out.r = floor(r * 8)", "floor_scaled");
    has("out.rgb = mat3(1, 2, 3, 4, 5, 6, 7, 8, 9) * vec3(g, r - g, b - g)", "matrix3_apart");
    has("let u = r - g\nlet v = b - g\nout.rgb = vec3(0.2 * u + g + 0.1 * v, 0.3 * u - 0.4 * v, 0.5 * v + 0.1 * u)",
        "opponent3");
    has("out.rgb = vec3(r * g + g * b + b * r, r * b + g * g + b * g, r * r + g * r + b * b)", "blend3");
    has("out.r = r * g + b", "fma");
    has("out.r = r * g - b", "fms");
    has("out.r = r - g * b", "fnma");
    has("out.r = r < g ? b : a", "select_less");
    has("out.r = 0.2 * r + 0.3 * g + 0.5 * b + 0.1", "linear3");
    has("out.rgb = mat3(1, 2, 3, 4, 5, 6, 7, 8, 9) * rgb + vec3(1, 2, 3)", "matrix3");
    const std::string hue = ops("let c = hsv(rgb)\nc.h += 20\nout.rgb = rgb(c)");
    CHECK(hue.find("to_hexcone") != std::string::npos);
    CHECK(hue.find("from_hexcone") != std::string::npos);
    CHECK(compile(good_rule("let c = hsv(rgb)\nc.h += 20\nout.rgb = rgb(c)"))->instructions().size() == 3);
    engine::CompileOptions from_srgb;
    from_srgb.in_space = from_srgb.out_space = "srgb";
    CHECK(compile(good_rule("out.r = r * 2"), from_srgb)->printed().find("mirrored_segment") != std::string::npos);
}

TEST_CASE("bit operations that follow each other stay with the whole numbers", "[engine]") {
    const char* const three = "let q = quantise(rgb, 8)\nout.r = bit_xor(q.r, bit_right(q.r, 1, 8), 8)\n"
                              "out.g = bit_or(bit_and(q.g, 240 / 255, 8), bit_right(q.b, 4, 8), 8)\n"
                              "out.b = bit_left(bit_not(q.b, 8), 1, 8)";
    CHECK(compile(good_rule(three))->instructions().size() <= 18); // 30 where each goes there and back
    // Beside whole numbers of the processor, at every depth whose codes a float holds with room for rounding.
    for (const unsigned bits : {1u, 2u, 8u, 10u, 16u, 20u}) {
        const std::string n = std::to_string(bits);
        const lang::Rule rule =
            good_rule("out.r = bit_right(bit_xor(r, quantise(g, " + n + "), " + n + "), 2, " + n +
                      ")\nout.g = bit_and(quantise(2 * g, " + n + "), bit_not(b, " + n + "), " + n +
                      ")\nout.b = bit_left(bit_or(bit_and(r, b, " + n + "), g, " + n + "), 1, " + n + ")");
        const unsigned top = (1u << bits) - 1;
        std::mt19937 random(bits);
        std::vector<Colour> colours;
        std::vector<std::array<unsigned, 3>> codes;
        for (int i = 0; i < 400; ++i) {
            const auto code = [&] { return static_cast<unsigned>(random()) & top; };
            codes.push_back({code(), code(), code()});
            Colour colour{0, 0, 0, 1};
            for (std::size_t c = 0; c < 3; ++c) {
                colour[c] = static_cast<float>(static_cast<double>(codes.back()[c]) / top);
                if (random() % 16 == 0) { // outside, and no number
                    colour[c] = random() % 2 == 0 ? not_a_number : codes.back()[c] % 2 == 0 ? -0.5f : 1.5f;
                    codes.back()[c] = colour[c] > 1 ? top : 0;
                }
            }
            colours.push_back(colour);
        }
        const auto made = run(rule, colours), plain = run(rule, colours, {}, false, false);
        for (std::size_t i = 0; i < colours.size(); ++i) {
            const auto [r, g, b] = codes[i];
            const bool nan_r = std::isnan(colours[i][0]), nan_g = std::isnan(colours[i][1]),
                       nan_b = std::isnan(colours[i][2]);
            const unsigned twice = colours[i][1] < 0 ? 0 : std::min(2 * g, top);
            const unsigned expected[3] = {(r ^ g) >> 2, twice & (top - b), (((r & b) | g) << 1) & top};
            const bool is_nan[3] = {nan_r || nan_g, nan_g || nan_b, nan_r || nan_g || nan_b};
            for (std::size_t c = 0; c < 3; ++c) {
                INFO(bits << " bits, " << colours[i][0] << " " << colours[i][1] << " " << colours[i][2]);
                CHECK(std::isnan(made[i][c]) == is_nan[c]);
                CHECK(std::isnan(plain[i][c]) == is_nan[c]);
                if (!is_nan[c]) {
                    CHECK(std::lround(static_cast<double>(made[i][c]) * top) == static_cast<long>(expected[c]));
                    CHECK(std::lround(static_cast<double>(plain[i][c]) * top) == static_cast<long>(expected[c]));
                }
            }
        }
    }
}

TEST_CASE("fused or not, the results are the same to rounding, at the limits, too", "[engine]") {
    const char* rules[] = {
        "out.rgb = vec3(r <= 0.04045 ? r / 12.92 : pow((r + 0.055) / 1.055, 2.4), g < 0.25 ? g : 2 * pow(g, 0.5) - "
        "0.75, b >= 0.5 ? pow(b, 2.5) : 0.3 * b)",
        "let c = hsv(rgb)\nc.h += 20\nc.s *= 0.8\nout.rgb = rgb(c)",
        "out.rgb = mix(rgb, rgb.gbr, smoothstep(0.1, 0.6, rgb)) * rgb - rgb.bgr",
        // sums by the same three weights, of which each needs the one before
        "out.r = r * g + g * b + b * r\nout.g = r * b + g * out.r + b * g\nout.b = r * r + g * r + b * out.g",
        "let s = smoothstep(0, 1, g)\nlet k = vec3(1) - rgb\nout.rgb = s * rgb.gbr + (1 - s) * k + g * rgb.brg",
        "let c = oklab(rgb)\nc.a *= 1.1\nout.rgb = rgb(c)",
        "let c = lab(rgb)\nc.a *= 1.1\nc.l += 2\nout.rgb = rgb(c)",
        "let u = r - g\nlet v = b - g\nout.rgb = vec3(g + 0.2 * u + 0.1 * v, 0.3 * u - 0.4 * v, 0.5 * v + 0.1 * u)",
        "let u = r - g\nlet v = b - g\nout.rgb = vec3(g + 0.2 * u + 0.1 * v, 0.3 * u - 0.4 * v, u * v)",
        "let q = quantise(rgb, 8)\nout.r = bit_xor(q.r, bit_right(q.r, 1, 8), 8)\n"
        "out.g = bit_or(bit_and(q.g, 240 / 255, 8), bit_right(q.b, 4, 8), 8)\nout.b = bit_left(bit_not(q.b, 8), 1, 8)",
        "out.rgb = clamp(mat3(0.5, 0.25, 0.25, 0.1, 0.8, 0.1, -0.5, 1, 0.5) * rgb + 0.125, 0, 1)",
    };
    std::vector<Colour> colours;
    for (const float r :
         {-0.5f, 0.0f, 0.04045f, std::nextafterf(0.04045f, 1), 0.25f, 0.5f, 1.0f, 3.0f, infinity, not_a_number})
        for (const float g : {-1.0f, std::nextafterf(0.25f, 0), 0.25f, 0.7f, not_a_number})
            for (const float b : {0.0f, std::nextafterf(0.5f, 0), 0.5f, 2.0f})
                colours.push_back({r, g, b, 1});
    for (const char* text : rules) {
        const lang::Rule rule = good_rule(text);
        const auto fused = run(rule, colours);
        const auto plain = run(rule, colours, {}, true, false);
        for (std::size_t i = 0; i < colours.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                INFO(text << " of " << colours[i][0] << " " << colours[i][1] << " " << colours[i][2] << ": "
                          << fused[i][c] << " " << plain[i][c]);
                CHECK(((std::isnan(fused[i][c]) && std::isnan(plain[i][c])) ||
                       fused[i][c] == Approx(plain[i][c]).epsilon(2e-6).margin(2e-6)));
            }
    }
}
