// The shader that is handed over: a validator of the language reads it, and a C++ compiler, which knows nothing of
// ours, computes with it.
#include "engine/evaluate.hpp"
#include "engine/reference.hpp"
#include "handover/shader.hpp"
#include "look/make.hpp"
#include "support/random_rule.hpp"
#include "support/shader_rules.hpp"
#include "support/shipped.hpp"
#include "support/support.hpp"

#include <cstdlib>
#include <fstream>
#include <random>

using namespace kasuri;
using namespace kasuri::test;

namespace {

struct Emitted {
    lang::Rule rule;
    std::vector<double> values;
    std::string name, text;
    bool placed = false;
    engine::ProgramPtr program{}; ///< of a look; else the rule's
};

/// Nothing if the rule cannot be a shader.
std::optional<Emitted> emitted(lang::Rule rule, const std::string& name, std::vector<double> values = {}) {
    Emitted made{std::move(rule), std::move(values), name, {}};
    if (made.values.empty())
        made.values = defaults(made.rule);
    for (std::size_t i = 0; i < made.values.size(); ++i)
        made.rule.parameters[i].value = made.values[i];
    handover::ShaderOptions options;
    options.function = made.name;
    const Result<std::string> text = handover::shader(made.rule, options);
    if (!text || !made.rule.sources.empty())
        return std::nullopt;
    made.text = text.value();
    made.placed = made.text.find("vec2 pixel") != std::string::npos;
    return made;
}

/// The functions of GLSL 3.30 that a shader calls, by their meaning in C++.
const char* const shim = R"(#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstring>
typedef unsigned int uint;
struct vec2 { float x, y; };
struct vec3 { float r, g, b; vec3(float x, float y, float z) : r(x), g(y), b(z) {} };
struct vec4 { float r, g, b, a; vec4(float x, float y, float z, float w) : r(x), g(y), b(z), a(w) {} };
#define uniform static
using std::abs; using std::floor; using std::ceil; using std::trunc; using std::sqrt; using std::exp2; using std::log2; using std::sin; using std::cos; using std::pow; using std::isnan;
static float roundEven(float x) { return std::nearbyint(x); }
static float atan(float y, float x) { return std::atan2(y, x); }
static float mod(float x, float y) { return x - y * std::floor(x / y); }
static float clamp(float x, float low, float high) { return std::fmin(std::fmax(x, low), high); }
static float uintBitsToFloat(uint x) { float y; std::memcpy(&y, &x, 4); return y; }
)";

constexpr int columns = 37; ///< of the picture that the colours are

std::string program_of(const std::vector<Emitted>& all, std::size_t count) {
    std::string text = shim;
    for (const Emitted& each : all)
        text += each.text;
    text += "int main() {\n    float c[4];\n    int n = -1;\n";
    for (const Emitted& each : all)
        if (each.text.find(each.name + "_height = 1080.0") != std::string::npos)
            text += "    " + each.name + "_width = " + std::to_string(columns) + ";\n    " + each.name +
                "_height = " + std::to_string(count / columns) + ";\n";
    text += "    while (std::fread(c, 4, 4, stdin) == 4) {\n        ++n;\n        vec4 o(0, 0, 0, 0);\n";
    for (const Emitted& each : all)
        text += "        o = " + each.name + "(vec4(c[0], c[1], c[2], c[3])" +
            (each.placed
                 ? ", vec2{float(n % " + std::to_string(columns) + "), float(n / " + std::to_string(columns) + ")}"
                 : "") +
            ");\n        std::fwrite(&o, 4, 4, stdout);\n";
    return text + "    }\n}\n";
}

/// What each shader makes of each colour, colour by colour.
std::vector<std::array<float, 4>> computed(const TemporaryFolder& folder, const std::vector<Emitted>& all,
                                           const std::vector<std::array<float, 4>>& colours) {
    const auto source = folder / "shader.cpp", program = folder / "shader", in = folder / "in", out = folder / "out";
    write(source, program_of(all, colours.size()));
    REQUIRE(std::system(("c++ -w -O1 -ffp-contract=off -o " + program.string() + " " + source.string()).c_str()) == 0);
    std::ofstream(in, std::ios::binary)
        .write(reinterpret_cast<const char*>(colours.data()), static_cast<std::streamsize>(colours.size() * 16));
    REQUIRE(std::system((program.string() + " < " + in.string() + " > " + out.string()).c_str()) == 0);
    std::vector<std::array<float, 4>> made(all.size() * colours.size());
    std::ifstream read(out, std::ios::binary);
    read.read(reinterpret_cast<char*>(made.data()), static_cast<std::streamsize>(made.size() * 16));
    REQUIRE(read.gcount() == static_cast<std::streamsize>(made.size() * 16));
    return made;
}

void validate(const TemporaryFolder& folder, const Emitted& shader) {
    const auto file = folder / (shader.name + ".frag");
    write(file,
          "#version 330 core\nin vec4 c;\nout vec4 o;\n" + shader.text + "void main() { o = " + shader.name + "(c" +
              (shader.placed ? ", gl_FragCoord.xy" : "") + "); }\n");
    INFO(shader.text);
    REQUIRE(std::system(("glslangValidator " + file.string() + " > " + (folder / "said").string()).c_str()) == 0);
}

/// The same rule in the other dialects of GLSL, as their programs have it.
void validate_dialects(const TemporaryFolder& folder, const Emitted& shader) {
    const struct {
        const char *dialect, *head, *options;
    } rows[] = {{"es300", "#version 300 es\nprecision highp float;\nin vec4 c;\nout vec4 o;\n", ""},
                {"vulkan450", "#version 450\nlayout(location = 0) in vec4 c;\nlayout(location = 0) out vec4 o;\n",
                 "-V -o /dev/null "}};
    for (const auto& row : rows) {
        const std::string text = handover::shader(shader.rule, {{}, {}, shader.name, row.dialect}).value();
        const auto file = folder / (shader.name + "-" + row.dialect + ".frag");
        write(file,
              row.head + text + "void main() { o = " + shader.name + "(c" + (shader.placed ? ", gl_FragCoord.xy" : "") +
                  "); }\n");
        INFO(row.dialect << "\n" << text);
        REQUIRE(std::system(("glslangValidator " + std::string(row.options) + file.string() + " > " +
                             (folder / "said").string())
                                .c_str()) == 0);
    }
}

/// What the C of each makes of each colour, by a compiler of C.
std::vector<std::array<float, 4>> computed_in_c(const TemporaryFolder& folder, const std::vector<Emitted>& all,
                                                const std::vector<std::array<float, 4>>& colours) {
    std::string text = "#include <stdio.h>\n", calls;
    for (const Emitted& each : all) {
        const std::string one = handover::shader(each.rule, {{}, {}, each.name, "c"}).value();
        text += one;
        const bool sized = one.find("double width, height;") != std::string::npos,
                   valued = one.find("_values *values") != std::string::npos;
        if (valued)
            calls += "        { struct " + each.name + "_values v = " + each.name + "_usual;" +
                (sized ? " v.width = " + std::to_string(columns) +
                         "; v.height = " + std::to_string(colours.size() / columns) + ";"
                       : "");
        else
            calls += "        {";
        calls += " " + each.name + "(c" + (one.find("pixel[2]") != std::string::npos ? ", p" : "") +
            (valued ? ", &v" : "") + ", o); fwrite(o, 4, 4, stdout); }\n";
    }
    text += "int main(void) {\n    float c[4], o[4], p[2];\n    int n = -1;\n    while (fread(c, 4, 4, stdin) == 4) "
            "{\n        ++n;\n"
            "        p[0] = (float)(n % " +
        std::to_string(columns) + ");\n        p[1] = (float)(n / " + std::to_string(columns) +
        ");\n        (void)p;\n" + calls + "    }\n    return 0;\n}\n";
    const auto source = folder / "rule.c", program = folder / "rule", in = folder / "in", out = folder / "out";
    write(source, text);
    REQUIRE(std::system(("cc -std=c99 -Wall -Wextra -Wpedantic -Werror -Wno-unused-variable "
                         "-Wno-unused-parameter -O1 -ffp-contract=off -o " +
                         program.string() + " " + source.string() + " -lm")
                            .c_str()) == 0);
    std::ofstream(in, std::ios::binary)
        .write(reinterpret_cast<const char*>(colours.data()), static_cast<std::streamsize>(colours.size() * 16));
    REQUIRE(std::system((program.string() + " < " + in.string() + " > " + out.string()).c_str()) == 0);
    std::vector<std::array<float, 4>> made(all.size() * colours.size());
    std::ifstream read(out, std::ios::binary);
    read.read(reinterpret_cast<char*>(made.data()), static_cast<std::streamsize>(made.size() * 16));
    REQUIRE(read.gcount() == static_cast<std::streamsize>(made.size() * 16));
    return made;
}

} // namespace

TEST_CASE("shaders are valid GLSL and compute what the engine computes", "[shader]") {
    const TemporaryFolder folder;
    std::vector<Emitted> all;
    const auto add = [&](lang::Rule rule, std::vector<double> values = {}) {
        if (auto made = emitted(std::move(rule), "rule" + std::to_string(all.size()), std::move(values)))
            all.push_back(std::move(*made));
    };
    for (const std::filesystem::path& path : test::shipped_filters()) {
        const lang::Rule rule = good_rule(content_of(path));
        for (const std::vector<double>& values : proof::settings_of(rule))
            add(rule, values);
    }
    for (const char* text : shader_rules)
        add(good_rule(text));
    REQUIRE(all.size() > 40);
    // A look as one function: own values, opacity, blend mode, mask, a step that is off.
    const std::filesystem::path file = KASURI_SOURCE_DIR "/data/looks/river-cloth.kasurilook";
    const document::Look look = document::load_look(file).value();
    const auto runs = look::make(look, file.parent_path());
    REQUIRE(runs);
    CHECK(runs.value().notes.empty()); // its filters are as they are in data/filters
    const subject::Subject subject = runs.value().subject;
    Emitted whole{{}, subject.values(), "river", handover::shader(subject, {{}, {}, "river"}).value()};
    whole.program = subject.program();
    CHECK(whole.text.find("uniform float river_step2_dip = 0.5;") != std::string::npos);
    CHECK(whole.text.find("river_step4") == std::string::npos);
    all.push_back(std::move(whole));
    std::vector<std::array<float, 4>> colours;
    std::mt19937 random(26);
    std::uniform_real_distribution<float> number(0, 1), wide(-1, 4);
    for (int i = 0; i < 300; ++i)
        colours.push_back({number(random), number(random), number(random), number(random)});
    for (int i = 0; i < 100; ++i)
        colours.push_back({wide(random), wide(random), wide(random), 1});
    const float inf = std::numeric_limits<float>::infinity();
    for (const std::array<float, 4>& special : {std::array<float, 4>{0, 0, 0, 0},
                                                {1, 1, 1, 1},
                                                {0.5f, 0.5f, 0.5f, 1},
                                                {std::nanf(""), 0.2f, 0.3f, 1},
                                                {inf, 0.2f, 0.3f, 1},
                                                {-1, -0.5f, -0.25f, 1},
                                                {16, 0, 0, 1}})
        colours.push_back(special);
    REQUIRE(colours.size() % columns == 0);
    const std::vector<std::array<float, 4>> found = computed(folder, all, colours);
    for (std::size_t s = 0; s < all.size(); ++s) {
        INFO(all[s].text);
        if (s % 5 == 0 || s + 14 >= all.size()) // settings differ in their numbers only
            validate(folder, all[s]);
        if (s % 5 == 0 && !all[s].program)
            validate_dialects(folder, all[s]);
        image::Picture picture =
            image::generated(columns, static_cast<int>(colours.size()) / columns, [&](int x, int y) {
                const auto& c = colours[static_cast<std::size_t>(y * columns + x)];
                return std::array<double, 3>{static_cast<double>(c[0]), static_cast<double>(c[1]),
                                             static_cast<double>(c[2])};
            });
        image::Samples alpha(colours.size());
        for (std::size_t i = 0; i < colours.size(); ++i)
            alpha[i] = colours[i][3];
        picture.planes[3] = image::make_plane(std::move(alpha));
        const auto wanted =
            engine::evaluate(all[s].program ? *all[s].program : *engine::compile(all[s].rule), picture, all[s].values);
        REQUIRE(wanted);
        for (std::size_t i = 0; i < colours.size(); ++i)
            for (std::size_t c = 0; c < 4; ++c) {
                const auto mine = static_cast<double>(found[i * all.size() + s][c]),
                           theirs = static_cast<double>(wanted->at(i)[c]);
                // Of a colour far above 1 a small channel is what is left of large ones.
                double scale = std::max(1.0, std::fabs(theirs));
                for (std::size_t k = 0; k < 3; ++k)
                    if (std::isfinite(colours[i][k]))
                        scale = std::max(scale, std::fabs(static_cast<double>(colours[i][k])));
                INFO("colour " << colours[i][0] << " " << colours[i][1] << " " << colours[i][2] << ", channel " << c);
                const bool same = (std::isnan(mine) && std::isnan(theirs)) || mine == theirs ||
                    std::fabs(mine - theirs) <= 1e-5 * scale;
                REQUIRE(same);
            }
    }
}

TEST_CASE("rules in C are what the reference computes in double precision", "[shader][c]") {
    const TemporaryFolder folder;
    std::vector<Emitted> all;
    const auto add = [&](lang::Rule rule, std::vector<double> values = {}) {
        if (auto made = emitted(std::move(rule), "rule" + std::to_string(all.size()), std::move(values)))
            all.push_back(std::move(*made));
    };
    for (const std::filesystem::path& path : test::shipped_filters()) {
        const lang::Rule rule = good_rule(content_of(path));
        for (const std::vector<double>& values : proof::settings_of(rule))
            add(rule, values);
    }
    for (const char* text :
         {"out.rgb = rgb.gbr", "let c = hsv(rgb)\nc.h += 40\nc.s *= 0.5\nout.rgb = rgb(c)",
          "out.rgb = pq_encode(clamp(rgb, 0, 1))", "out.r = atan(g, b)\nout.g = pow(r, 3)\nout.b = spow(b - 0.5, 1.7)",
          "out.r = bit_xor(r, g, 8)\nout.b = quantise(b, 4)", "out.r = pos.x * aspect + pixel.y\nout.g = r / 0",
          "param int = 2 in 0 .. 4\nparam tint = vec3(1, 0.5, 0.25)\nout.rgb *= tint * int",
          "working acescct\nlet c = oklch(rgb)\nc.h += 20\nout.rgb = rgb(c)"})
        add(good_rule(text));
    std::mt19937 random(29);
    for (int i = 0; i < 60; ++i) // whatever the language has
        if (const lang::Checked checked = lang::check(RandomRule(random).text(), proof::vocabulary()); checked.ok)
            add(checked.rule);
    REQUIRE(all.size() > 60);
    std::vector<std::array<float, 4>> colours;
    std::uniform_real_distribution<float> number(0, 1), wide(-1, 4);
    for (int i = 0; i < 8 * columns; ++i)
        colours.push_back({number(random), number(random), number(random), number(random)});
    for (int i = 0; i < 2 * columns; ++i)
        colours.push_back({wide(random), wide(random), wide(random), 1});
    const std::vector<std::array<float, 4>> found = computed_in_c(folder, all, colours);
    double most = 0;
    for (std::size_t s = 0; s < all.size(); ++s)
        for (std::size_t i = 0; i < colours.size(); ++i) {
            const auto& c = colours[i];
            engine::ReferencePixel pixel{{static_cast<double>(c[0]), static_cast<double>(c[1]),
                                          static_cast<double>(c[2]), static_cast<double>(c[3])}};
            const double height = static_cast<double>(colours.size() / columns);
            const auto x = static_cast<double>(i % columns), y = static_cast<double>(i / columns);
            pixel.pixel = {x, y};
            pixel.pos = {(x + 0.5) / columns, (y + 0.5) / height};
            pixel.aspect = columns / height;
            pixel.extent = {columns, height};
            const auto wanted = engine::reference(all[s].rule, all[s].values, pixel);
            for (std::size_t k = 0; k < 4; ++k) {
                const auto mine = static_cast<double>(found[i * all.size() + s][k]), theirs = wanted[k];
                const double off = std::fabs(mine - theirs) / std::max(1.0, std::fabs(theirs));
                INFO(all[s].text << "\ncolour " << c[0] << " " << c[1] << " " << c[2] << ", channel " << k << ": "
                                 << mine << ", and not " << theirs);
                if (std::isnan(theirs) || std::isinf(theirs) || std::fabs(theirs) > 3e38)
                    CHECK_FALSE((std::isfinite(mine) && std::fabs(mine) < 3e38));
                else
                    REQUIRE(off <= 1e-6);
                most = std::isfinite(off) ? std::max(most, off) : most;
            }
        }
    CHECK(most < 3e-7); // what is written as a float, and two orders of adding
}

TEST_CASE("what a shader cannot do is refused, and its names are its own", "[shader]") {
    CHECK_FALSE(handover::shader(good_rule("out.rgb = blur(rgb, 2)")));
    const auto text = [](const std::string& rule) { return handover::shader(good_rule(rule)).value(); };
    const std::string names = text("param width = 1 in 0 .. 2\nparam a_b = 1 in 0 .. 2\nparam a__b = 1 in 0 .. 2 "
                                   "\"says\\\\\"\nout.r = r * width * a_b * a__b");
    CHECK(names.find("uniform float kasuri_width_2 = 1.0;") != std::string::npos);
    CHECK(names.find("uniform float kasuri_a_b_2 = 1.0;") != std::string::npos);
    CHECK(names.find("__") == std::string::npos);
    CHECK(text("out.r = pos.x * aspect").find("vec2 pixel") != std::string::npos);
    CHECK(text("source lamp : vec3\nsource plate : float\nout.rgb += lamp * plate")
              .find("vec4 kasuri(vec4 colour, vec3 kasuri_lamp, float kasuri_plate)") != std::string::npos);
    CHECK(text("filter \"a\\nb\"\nout.r = g").find("\nb\"") == std::string::npos);
    CHECK(text("") ==
          "// A rule of Kasuri\n// Colours come in as rec709-linear and go out as rec709-linear, alpha "
          "straight.\n// Single precision, at these values: within 0 of double on 128 colours from 0 to 1, within 0 on "
          "as many from -1 to 4.\n\nvec4 kasuri(vec4 colour) {\n    return vec4(colour.r, colour.g, colour.b, "
          "colour.a);\n}\n");
}
