// One thing for rules and looks: what makes two of them the same, parts of them, and what their sources read.
#include "base/digest.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "subject/further.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;
using subject::Subject;

namespace {

document::LookStep step(const std::string& text, double opacity = 1, const std::string& mask = {}) {
    document::LookStep made;
    made.text = text;
    made.opacity = opacity;
    made.mask = mask;
    return made;
}

look::Made look_of(std::vector<document::LookStep> steps) {
    document::Look look;
    look.steps = std::move(steps);
    const auto made = look::make(look, {});
    REQUIRE(made);
    return made.value();
}

subject::PicturePtr even(float value) {
    return std::make_shared<const image::Picture>(image::generated(4, 4, [&](int, int) {
        return std::array{value, value, value};
    }));
}

std::array<float, 4> through(const Subject& subject, const std::array<double, 3>& colour) {
    const image::Picture picture = image::generated(1, 1, [&](int, int) { return colour; });
    return engine::evaluate(*subject.program(), picture, subject.values())->at(0);
}

} // namespace

TEST_CASE("digests tell content apart, and are those of FNV-1a", "[base]") {
    const auto of = [](std::initializer_list<const char*> parts) {
        Digest digest;
        for (const char* part : parts)
            digest.add(part);
        return digest.text();
    };
    // draft-eastlake-fnv-17, from memory: the basis of 128 bits is 0x6c62272e07bb014262b821756295c58d.
    CHECK(Digest().text() == "6c62272e07bb014262b821756295c58d");
    CHECK(of({"a"}) == of({"a"}));
    CHECK(of({"ab", "c"}) != of({"a", "bc"}));
    CHECK(of({"a"}) != of({"a", ""}));
    Digest plus, minus;
    plus.add(0.0);
    minus.add(-0.0);
    CHECK(plus.text() != minus.text());
}

TEST_CASE("subjects that do the same are the same, whatever they are called", "[subject]") {
    const Subject a = good_rule("filter \"A\"\nparam k = 0.5 in 0 .. 1\nout.rgb = rgb * k"),
                  b = good_rule("// another text\nparam gain = 0.5 in 0 .. 1\nlet c = gain * rgb\nout.rgb = c");
    CHECK(a.identity() == b.identity());
    CHECK(a.identity() != a.at({0.25}).identity());
    CHECK(a.at({0.25}).identity() == b.at({0.25}).identity());
    CHECK(a.identity() != Subject(good_rule("param k = 0.5 in 0 .. 1\nout.rgb = rgb + k")).identity());
    CHECK(a.identity() != Subject(good_rule("working srgb\nparam k = 0.5 in 0 .. 1\nout.rgb = rgb * k")).identity());
    CHECK(a.between("srgb", "srgb").identity() != a.identity());
    // A look of one plain step is its rule; of two it is something else.
    const Subject alone = look_of({step("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k")}).subject;
    REQUIRE(alone.rule());
    CHECK(alone.identity() == a.identity());
    CHECK(alone.parameters().size() == 1);
    CHECK(look_of({step("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k", 0.5)}).subject.identity() != a.identity());
}

TEST_CASE("what a source reads is part of the subject", "[subject]") {
    const Subject bare = good_rule("source lamp : vec3\nout.rgb = rgb + lamp");
    const subject::PicturePtr picture = even(0.25f), other = even(0.5f);
    const Subject one = bare.with_bindings({{"lamp", {picture, "lamp.exr", "1"}}}),
                  again = bare.with_bindings({{"lamp", {other, "lamp.exr", "1"}}}),
                  two = bare.with_bindings({{"lamp", {other, "lamp.exr", "2"}}});
    CHECK(bare.identity() != one.identity());
    CHECK(one.identity() == again.identity()); // whoever binds says what is the same
    CHECK(one.identity() != two.identity());
    CHECK(bare.with_bindings({{"lamp", {picture, {}, {}}}}).identity() !=
          bare.with_bindings({{"lamp", {other, {}, {}}}}).identity()); // else the picture is what it is
    CHECK(bare.with_bindings({{"plate", {picture, {}, "1"}}}).identity() == bare.identity()); // which nobody reads
    CHECK(subject::without_picture(bare, nullptr) == std::vector<std::string>{"lamp"});
    CHECK(subject::without_picture(one, nullptr).empty());
    image::Image file;
    file.width = file.height = 4;
    file.channels = {{"lamp.R", picture->planes[0]}, {"lamp.G", picture->planes[0]}, {"lamp.B", picture->planes[0]}};
    CHECK(subject::without_picture(bare, &file).empty()); // its layer of that name
}

TEST_CASE("further pictures are taken to be several things, the same for sources of one name", "[subject]") {
    const Subject a = good_rule("source matte : float\nsource lamp : vec3\nout.rgb = rgb * matte + lamp"),
                  b = good_rule("source lamp : vec3\nout.rgb = lamp");
    const auto of_a = subject::source_settings(a), of_b = subject::source_settings(b);
    REQUIRE(of_a.size() == subject::source_variations);
    REQUIRE(of_b.size() == subject::source_variations);
    CHECK(of_a[0] == std::vector<float>(4, 0.0f));
    CHECK(of_a[1] == std::vector<float>(4, 1.0f));
    for (std::size_t k = 0; k < of_a.size(); ++k) {
        CHECK(std::vector<float>(of_a[k].begin() + 1, of_a[k].end()) == of_b[k]);
        for (const float value : of_a[k])
            CHECK((value >= 0 && value <= 1));
    }
    CHECK(of_a[5][1] != of_a[5][2]); // a colour, not a grey
    CHECK(subject::source_settings(good_rule("out.r = g")) == std::vector<std::vector<float>>{{}});
    // One that is there is read.
    const auto read = subject::source_settings(b.with_bindings({{"lamp", {even(0.125f), {}, {}}}}));
    for (const std::vector<float>& each : read)
        CHECK(each == std::vector<float>(3, 0.125f));
}

TEST_CASE("a part of a look is what its steps do, with their values and their names", "[subject][look]") {
    const Subject whole = look_of({step("param k = 2 in 0 .. 4\nout.rgb = rgb * k"), step("out.rgb = rgb + 0.5", 0.5),
                                   step("param k = 3 in 0 .. 4\nout.r = r * k")})
                              .subject;
    REQUIRE(whole.values() == std::vector<double>{2, 0.5, 3});
    CHECK(through(whole.part(0, 0), {0.1, 0.1, 0.1})[0] == Approx(0.2));
    CHECK(through(whole.part(1, 1), {0.1, 0.1, 0.1})[0] == Approx(0.35));
    CHECK(through(whole.part(1, 2), {0.1, 0.1, 0.1})[0] == Approx(1.05));
    CHECK(through(whole, {0.1, 0.1, 0.1})[0] == Approx(3 * (0.2 * 0.5 + 0.7 * 0.5)));
    CHECK(whole.part(1, 2).parameters()[0].name == "step 2: opacity");
    CHECK(whole.part(2, 2).parameters()[0].name == "k"); // one plain step is its rule
    // Fixed, it has no parameters left, and what they decide is known.
    const Subject choice = good_rule("param on = false\nout.r = on ? pos.x : r");
    CHECK(choice.program()->reads_position());
    CHECK_FALSE(choice.fixed().program()->reads_position());
    CHECK(choice.fixed().values().empty());
    CHECK(choice.fixed().identity() == choice.identity());
}

TEST_CASE("a program keeps the LUT that it reads when nobody else does", "[subject][look]") {
    document::LookStep lut;
    lut.lut = ".cube";
    lut.space = "rec709-linear";
    lut.lut_text = document::SharedText("LUT_3D_SIZE 2\n0 0 0\n0.5 0 0\n0 0.5 0\n0.5 0.5 0\n0 0 0.5\n0.5 0 0.5\n0 0.5 "
                                        "0.5\n0.5 0.5 0.5\n");
    engine::ProgramPtr program, fixed, part;
    {
        const Subject subject = look_of({lut, step("out.rgb = rgb.gbr")}).subject;
        program = subject.program();
        fixed = subject.fixed().program();
        part = subject.part(0, 0).program();
    }
    const image::Picture picture = image::generated(1, 1, [](int, int) { return std::array{0.2, 0.4, 0.6}; });
    for (const engine::ProgramPtr& each : {program, fixed})
        CHECK(engine::evaluate(*each, picture, {})->at(0)[0] == Approx(0.2));
    CHECK(engine::evaluate(*part, picture, {})->at(0)[0] == Approx(0.1));
}

TEST_CASE("what is called off gives no program, and is made when it is asked for again", "[subject][cancel]") {
    CancelToken off;
    off.cancel();
    engine::CompileOptions options;
    options.cancel = &off;
    const lang::Rule rule = good_rule("let d = rgb * 0.5\nout.rgb = d\nhold hue of vec3(0.8, 0.4, 0.2)");
    CHECK(engine::compile(rule, options) == nullptr);
    options.print = true;
    ir::Graph graph;
    CHECK(engine::lower(rule, graph, options).empty());
    CHECK(engine::compile(rule) != nullptr);
    // Masks, groups and steps that look back, too.
    document::LookStep group;
    group.is_look = true;
    group.within = {step("out.rgb = rgb.gbr"), step("source first : vec3 = step \"1\"\nout.rgb = rgb + first")};
    group.mask = "luminance(rgb)";
    group.opacity = 0.5;
    const std::vector<document::LookStep> steps = {step("out.rgb = rgb * 0.5"), group};
    const Subject look = look_of(steps).subject;
    CHECK_FALSE(look.chain().prepare(off));
    CHECK(look.program({}, {}, {}, false, &off) == nullptr);
    CHECK(look.fixed().program({}, {}, {}, true, &off) == nullptr);
    CHECK(look.chain().prepare({}));
    CHECK(look.identity() == look_of(steps).subject.identity());
    CHECK(look.program({}, {}, {}, false, &off) == look.program()); // it is there
    document::Look whole;
    whole.steps = steps;
    CHECK_FALSE(look::make_so_far(whole, {}, off));
    CHECK(look::make_so_far(whole, {})->subject.identity() == look.identity());
}
