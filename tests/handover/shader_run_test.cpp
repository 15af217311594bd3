// Shaders as they run: OpenGL 3.3, OpenGL ES 3.0 and Vulkan, by Mesa's software renderers, beside the reference in
// double precision.
#include "engine/evaluate.hpp"
#include "engine/reference.hpp"
#include "handover/shader.hpp"
#include "handover/shader_passes.hpp"
#include "look/make.hpp"
#include "opening/open.hpp"
#include "support/gl_shader.hpp"
#include "support/shader_rules.hpp"
#include "support/shipped.hpp"
#include "support/support.hpp"
#include "support/vulkan_shader.hpp"

#include <nlohmann/json.hpp>

#include <cstdlib>
#include <cstring>
#include <fstream>
#include <map>
#include <random>
#include <set>
#include <sstream>

using namespace kasuri;
using namespace kasuri::test;

namespace {

constexpr int columns = 37;

struct Case {
    std::string name;
    lang::Rule rule; ///< with the values as its defaults
    std::vector<double> values;
    std::vector<std::array<double, 4>> wanted{}; ///< by the reference
    bool jumps = false;
};

std::vector<std::array<float, 4>> colours() {
    std::vector<std::array<float, 4>> all;
    std::mt19937 random(26);
    std::uniform_real_distribution<float> number(0, 1), wide(-1, 4);
    for (int i = 0; i < 8 * columns; ++i)
        all.push_back({number(random), number(random), number(random), number(random)});
    for (int i = 0; i < 4 * columns; ++i)
        all.push_back({wide(random), wide(random), wide(random), 1});
    for (int i = 0; i < columns; ++i) // greys
        all.push_back({static_cast<float>(i) / 36, static_cast<float>(i) / 36, static_cast<float>(i) / 36, 1});
    return all;
}

std::vector<std::array<double, 4>> referred(const Case& of, const std::vector<std::array<float, 4>>& in) {
    const int height = static_cast<int>(in.size()) / columns;
    std::vector<std::array<double, 4>> all;
    for (std::size_t i = 0; i < in.size(); ++i) {
        engine::ReferencePixel pixel{{in[i][0], in[i][1], in[i][2], in[i][3]}};
        pixel.pixel = {static_cast<double>(i % columns), static_cast<double>(i / columns)};
        pixel.pos = {(pixel.pixel[0] + 0.5) / columns, (pixel.pixel[1] + 0.5) / height};
        pixel.aspect = static_cast<double>(columns) / height;
        pixel.extent = {columns, static_cast<double>(height)};
        all.push_back(engine::reference(of.rule, of.values, pixel));
    }
    return all;
}

/// Shipped filters at all settings that their proofs use, and what the language has.
const std::vector<Case>& cases() {
    static std::vector<Case> all;
    if (!all.empty())
        return all;
    for (const std::filesystem::path& path : test::shipped_filters()) {
        const lang::Rule rule = good_rule(content_of(path));
        if (!rule.sources.empty() || !handover::shader(rule))
            continue;
        // Settings differ in their numbers only: the defaults, the first preset, and the end of the last parameter.
        const std::vector<std::vector<double>> settings = proof::settings_of(rule);
        for (const std::size_t i :
             std::set<std::size_t>{0, std::min<std::size_t>(1, settings.size() - 1), settings.size() - 1})
            all.push_back({path.stem().string(), rule, settings[i]});
    }
    std::vector<const char*> texts(std::begin(shader_rules), std::end(shader_rules));
    texts.push_back("out.r = pos.x * aspect + pixel.y / extent.y");
    texts.push_back("working acescct\nlet c = oklch(rgb)\nc.h += 20\nout.rgb = rgb(c)");
    for (const char* text : texts) {
        const lang::Rule rule = good_rule(text);
        all.push_back({text, rule, defaults(rule)});
    }
    for (Case& each : all) {
        for (std::size_t v = 0; v < each.values.size(); ++v)
            each.rule.parameters[v].value = each.values[v];
        each.wanted = referred(each, colours());
        each.jumps = each.name == "carved-blocks" || each.name.find("bit_xor") != std::string::npos;
    }
    return all;
}

/// How far a channel is off, as a share of what is large there: a number that came in or goes out, or 1. Of rules that
/// jump from code value to code value, which may do so at another colour, all but one in fifty.
double furthest(const Case& of, const std::vector<std::array<float, 4>>& in,
                const std::vector<std::array<float, 4>>& made) {
    std::vector<double> all;
    for (std::size_t i = 0; i < in.size(); ++i) {
        double scale = 1;
        for (std::size_t k = 0; k < 3; ++k)
            scale = std::max({scale, std::fabs(static_cast<double>(in[i][k])),
                              std::isfinite(of.wanted[i][k]) ? std::fabs(of.wanted[i][k]) : 1});
        for (std::size_t k = 0; k < 4; ++k) {
            const double mine = made[i][k], theirs = of.wanted[i][k];
            const bool same = mine == theirs || (std::isnan(theirs) && std::isnan(mine));
            const double off = same ? 0 : std::fabs(mine - theirs) / scale;
            all.push_back(std::isnan(off) ? std::numeric_limits<double>::infinity() : off);
        }
    }
    std::sort(all.begin(), all.end());
    return all[of.jumps ? all.size() - all.size() / 50 : all.size() - 1];
}

/// What the shader's own second line states, with room for another rounding; 1e-5 where it states less. A rule that
/// jumps may jump at another colour.
double allowed(const std::string& text) {
    double stated = 0;
    for (const char* const before : {"at these values: within ", "from 0 to 1, within "})
        if (const std::size_t at = text.find(before); at != std::string::npos)
            stated = std::max(stated, std::strtod(text.c_str() + at + std::strlen(before), nullptr));
    return std::max(1e-5, 2 * stated);
}

/// The function with what draws it: the colours in a texture.
std::string fragment(const std::string& text, bool es) {
    const bool placed = text.find("vec2 pixel") != std::string::npos;
    return std::string(
               es ? "#version 300 es\nprecision highp float;\nprecision highp int;\nprecision highp sampler2D;\n"
                  : "#version 330 core\n") +
        "out vec4 o;\nuniform sampler2D cloth;\n" + text +
        "void main() { o = kasuri(texelFetch(cloth, ivec2(gl_FragCoord.xy), 0)" +
        (placed ? ", floor(gl_FragCoord.xy)" : "") + "); }\n";
}

/// What a line of a shader says of a value: "uniform float kasuri_meet; // usual 0.4, ..", "vec3 kasuri_madder; //
/// usual vec3(..), ..", or of the picture's size.
std::optional<Uniform> value_of(const std::string& line, int height) {
    std::istringstream words(line);
    std::string type, name;
    words >> type;
    if (type == "uniform")
        words >> type;
    words >> name;
    if (type != "float" && type != "vec3")
        return std::nullopt;
    name = name.substr(0, name.find(';'));
    if (name == "kasuri_width" || name == "kasuri_height")
        return Uniform{name, {static_cast<float>(name == "kasuri_width" ? columns : height)}};
    const std::size_t usual = line.find("// usual ");
    if (usual == std::string::npos)
        return std::nullopt;
    std::string numbers = line.substr(usual + 9);
    if (type == "vec3")
        numbers = numbers.substr(numbers.find('(') + 1);
    Uniform made{name, {}};
    const char* at = numbers.c_str();
    for (int k = 0; k < (type == "vec3" ? 3 : 1); ++k) {
        at += std::strcspn(at, "-0123456789");
        char* end = nullptr;
        made.values.push_back(std::strtof(at, &end));
        at = end;
    }
    return made;
}

std::vector<Uniform> uniforms_of(const std::string& text, int height) {
    std::vector<Uniform> all;
    std::istringstream lines(text);
    for (std::string line; std::getline(lines, line);)
        if (line.starts_with("uniform "))
            if (auto made = value_of(line, height))
                all.push_back(std::move(*made));
    return all;
}

/// The bytes of the uniform block, by the rules of std140 (OpenGL 4.6, 7.6.2.2): a number on 4 bytes, a vec3 on 16.
std::vector<std::uint8_t> block_of(const std::string& text, int height) {
    std::vector<std::uint8_t> bytes;
    const std::size_t begin = text.find("uniform kasuri_values {\n");
    if (begin == std::string::npos)
        return bytes;
    std::istringstream lines(text.substr(text.find('\n', begin) + 1));
    for (std::string line; std::getline(lines, line) && line != "};";) {
        const auto made = value_of(line, height);
        REQUIRE(made);
        const std::size_t aligned = made->values.size() == 3 ? 16 : 4;
        bytes.resize((bytes.size() + aligned - 1) / aligned * aligned);
        const std::size_t at = bytes.size();
        bytes.resize(at + made->values.size() * 4);
        std::memcpy(bytes.data() + at, made->values.data(), made->values.size() * 4);
    }
    return bytes;
}

/// Runs passes as parts.json tells, by nothing else than what is in the folder.
std::vector<std::array<float, 4>> run_parts(GlRunner& runner, const std::filesystem::path& folder,
                                            const std::map<std::string, Texture>& inputs, std::string& why) {
    using Json = nlohmann::json;
    const Json parts = Json::parse(content_of(folder / "parts.json"));
    std::map<std::string, Texture> pictures = inputs;
    const int width = inputs.at("picture").size[0], height = inputs.at("picture").size[1];
    std::vector<Uniform> uniforms;
    for (const Json& value : parts["values"])
        uniforms.push_back({value["name"],
                            value["usual"].is_array() ? value["usual"].get<std::vector<float>>()
                                                      : std::vector<float>{value["usual"]}});
    if (parts.contains("size")) {
        uniforms.push_back({parts["size"]["width"], {static_cast<float>(width)}});
        uniforms.push_back({parts["size"]["height"], {static_cast<float>(height)}});
    }
    std::vector<std::array<float, 4>> made;
    for (const Json& pass : parts["passes"]) {
        std::vector<Texture> textures;
        for (const auto& [sampler, picture] : pass["reads"].items()) {
            textures.push_back(pictures.at(picture.get<std::string>()));
            textures.back().name = sampler;
        }
        for (const Json& name : pass["tables"])
            for (const Json& table : parts["tables"])
                if (table["sampler"] == name) {
                    Texture texture{
                        name, {table["size"][0], table["size"][1], 0}, table["channels"], table["linear"], {}};
                    if (table["size"].size() == 3)
                        texture.size[2] = table["size"][2];
                    const std::string bytes = content_of(folder / table["file"].get<std::string>());
                    texture.values.resize(bytes.size() / 4);
                    std::memcpy(texture.values.data(), bytes.data(), bytes.size());
                    textures.push_back(std::move(texture));
                }
        made = runner.run(content_of(folder / pass["file"].get<std::string>()), width, height, textures, uniforms, why);
        if (made.empty())
            return {};
        Texture& into = pictures[pass["writes"]];
        into = {"", {width, height, 0}, 4, false, {}};
        for (const auto& colour : made)
            into.values.insert(into.values.end(), colour.begin(), colour.end());
    }
    return made;
}

} // namespace

TEST_CASE("shaders run on OpenGL and OpenGL ES as the reference computes", "[shader][run]") {
    const std::vector<Case>& all = cases();
    const std::vector<std::array<float, 4>> in = colours();
    Texture cloth{"cloth", {columns, static_cast<int>(in.size()) / columns, 0}, 4, false, {}};
    for (const auto& colour : in)
        cloth.values.insert(cloth.values.end(), colour.begin(), colour.end());
    for (const bool es : {false, true}) {
        std::string why;
        const auto runner = GlRunner::open(es, why);
        INFO(why);
        REQUIRE(runner);
        INFO(runner->renderer());
        for (const Case& each : all) {
            const std::string text = handover::shader(each.rule, {{}, {}, "kasuri", es ? "es300" : "330"}).value();
            const auto made =
                runner->run(fragment(text, es), columns, cloth.size[1], {cloth}, uniforms_of(text, cloth.size[1]), why);
            INFO(each.name << "\n" << text << why);
            REQUIRE(made.size() == in.size());
            const double off = furthest(each, in, made);
            CHECK(off <= allowed(text));
        }
    }
}

TEST_CASE("shaders run on Vulkan as the reference computes", "[shader][run]") {
    std::string why;
    const auto runner = VulkanRunner::open(why);
    INFO(why);
    REQUIRE(runner);
    INFO(runner->renderer());
    const TemporaryFolder folder;
    const std::vector<std::array<float, 4>> in = colours();
    const int height = static_cast<int>(in.size()) / columns;
    for (const Case& each : cases()) {
        const std::string text = handover::shader(each.rule, {{}, {}, "kasuri", "vulkan450"}).value();
        write(folder / "rule.comp",
              "#version 450\nlayout(local_size_x = 64) in;\nlayout(std430, set = 1, binding = 0) readonly buffer In { "
              "vec4 "
              "came[]; };\nlayout(std430, set = 1, binding = 1) writeonly buffer Out { vec4 goes[]; };\n" +
                  text + "void main() {\n    uint i = gl_GlobalInvocationID.x;\n    if (i < " +
                  std::to_string(in.size()) + "u) goes[i] = kasuri(came[i]" +
                  (text.find("vec2 pixel") != std::string::npos ? ", vec2(float(i % " + std::to_string(columns) +
                           "u), float(i / " + std::to_string(columns) + "u))"
                                                                : "") +
                  ");\n}\n");
        INFO(each.name << "\n" << text);
        REQUIRE(std::system(("glslangValidator -V -o " + (folder / "rule.spv").string() + " " +
                             (folder / "rule.comp").string() + " > " + (folder / "said").string())
                                .c_str()) == 0);
        const std::string bytes = content_of(folder / "rule.spv");
        std::vector<std::uint32_t> program(bytes.size() / 4);
        std::memcpy(program.data(), bytes.data(), program.size() * 4);
        const auto made = runner->run(program, in, block_of(text, height), why);
        INFO(why);
        REQUIRE(made.size() == in.size());
        const double off = furthest(each, in, made);
        CHECK(off <= allowed(text));
    }
}

TEST_CASE("rules that look at neighbours, and LUTs, run as passes", "[shader][run]") {
    const TemporaryFolder folder;
    image::Picture picture = image::generated(61, 43, [](int x, int y) {
        const double ring = std::hypot(x - 30.0, y - 20.0);
        return std::array<double, 3>{0.5 + 0.5 * std::sin(0.7 * ring), x > 30 ? 0.9 : 0.1, y / 43.0};
    });
    Texture in{"", {61, 43, 0}, 4, false, {}};
    for (std::size_t i = 0; i < picture.pixels(); ++i)
        for (const float value : picture.at(i))
            in.values.push_back(value);
    struct Made {
        std::string name;
        subject::Subject subject;
        double within;
    };
    std::vector<Made> all;
    const auto add = [&](const std::string& name, const std::string& text, double within) {
        const lang::Rule rule = good_rule(text);
        all.push_back({name, subject::Subject(rule, defaults(rule)), within});
    };
    for (const std::filesystem::path& path : test::shipped_filters()) {
        const lang::Rule rule = good_rule(content_of(path));
        if (rule.sources.empty())
            all.push_back({path.stem().string(), subject::Subject(rule, defaults(rule)), 1e-4});
    }
    add("blur", "out.rgb = blur(rgb, 2)", 1e-5);
    add("wide", "out.rgb = blur(rgb, 9)", 3e-5); // the engine ends its kernel where 2e-5 is left
    add("six", "out.rgb = blur(rgb, 1) - blur(rgb * rgb, 1) + dilate(rgb, 2)", 1e-5);
    add("deep",
        "param size = 3 in 0 .. 9\nlet soft = blur(rgb, size)\nout.rgb = erode(soft, size / 2) + pos.x * blur(soft, 1)",
        1e-5);
    add("none", "out.rgb = blur(rgb, 0) * dilate(rgb, 0.5)", 1e-5);
    // A look with a table in it, curves before and behind.
    write(folder / "t.cube", [] {
        std::string text = "LUT_3D_SIZE 5\n";
        for (int b = 0; b < 5; ++b)
            for (int g = 0; g < 5; ++g)
                for (int r = 0; r < 5; ++r)
                    text += std::to_string(0.2 + r * g / 20.0) + " " + std::to_string(g * g / 16.0) + " " +
                        std::to_string(0.25 * b) + "\n";
        return text;
    }());
    write(folder / "c.cube", [] {
        std::string text = "LUT_1D_SIZE 17\n";
        for (int i = 0; i < 17; ++i)
            text += std::to_string(std::sqrt(i / 16.0)) + " " + std::to_string(i / 16.0) + " " +
                std::to_string(i * i / 256.0) + "\n";
        return text;
    }());
    for (const char* file : {"t.cube", "c.cube"}) {
        const document::Look look = opening::look_of(folder / file, {"srgb", false}).value();
        const auto runs = look::make(look, folder.path);
        REQUIRE(runs);
        all.push_back({file, runs.value().subject, 1e-5});
    }
    for (const Made& each : all) { // what Vulkan takes, by its compiler
        const auto parts = handover::shader_parts(each.subject, {{}, {}, "kasuri", "vulkan450"});
        REQUIRE(parts);
        REQUIRE(handover::write_parts(parts.value(), folder / (each.name + ".vulkan")));
        CHECK(parts.value().width == "kasuri_width"); // it is in the block, so that its size has to be known
        for (const handover::ShaderPass& pass : parts.value().passes) {
            INFO(each.name << "\n" << pass.text);
            CHECK(std::system(("glslangValidator -V -o /dev/null '" +
                               (folder / (each.name + ".vulkan") / pass.file).string() + "' > " +
                               (folder / "said").string())
                                  .c_str()) == 0);
        }
    }
    for (const bool es : {false, true}) {
        std::string why;
        const auto runner = GlRunner::open(es, why);
        REQUIRE(runner);
        for (const Made& each : all) {
            INFO(each.name);
            const auto parts = handover::shader_parts(each.subject, {{}, {}, "kasuri", es ? "es300" : "330"});
            REQUIRE(parts);
            REQUIRE(handover::write_parts(parts.value(), folder / (each.name + ".passes")));
            const auto made = run_parts(*runner, folder / (each.name + ".passes"), {{"picture", in}}, why);
            INFO(why << content_of(folder / (each.name + ".passes") / parts.value().passes.back().file));
            REQUIRE(made.size() == picture.pixels());
            const auto wanted = engine::evaluate(*each.subject.program(), picture, each.subject.values());
            double most = 0;
            for (std::size_t i = 0; i < made.size(); ++i)
                for (std::size_t c = 0; c < 4; ++c)
                    most = std::max(most,
                                    std::fabs(static_cast<double>(made[i][c]) - static_cast<double>(wanted->at(i)[c])));
            CHECK(most <= each.within);
        }
    }
}
