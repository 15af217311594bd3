#include "colour/space.hpp"
#include "handover/render.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

using namespace kasuri;
using namespace kasuri::handover;
using namespace kasuri::test;

namespace {

image::Plane ramp(int count, float step) {
    image::Samples values;
    for (int i = 0; i < count; ++i)
        values.push_back(static_cast<float>(i) * step);
    return image::make_plane(std::move(values));
}

/// 4 x 2: R G B, a layer "lamp", a channel "matte".
image::Image layered() {
    image::Image image;
    image.width = 4;
    image.height = 2;
    for (const char* name : {"R", "G", "B"})
        image.channels.push_back({name, ramp(8, 0.125f)});
    for (const char* name : {"lamp.R", "lamp.G", "lamp.B"})
        image.channels.push_back({name, ramp(8, 1)});
    image.channels.push_back({"matte", ramp(8, 0.5f)});
    return image;
}

subject::Subject reading(const lang::Rule& rule, const std::vector<std::string>& sources) {
    const auto bound = with_sources(rule, sources);
    REQUIRE(bound);
    return bound.value();
}

} // namespace

TEST_CASE("a source is the layer or the channel of its name, or a file of its own", "[handover]") {
    const TemporaryFolder folder;
    REQUIRE(io::save(folder / "in.exr", layered()));
    const lang::Rule rule = good_rule("source lamp : vec3\nsource matte : float\nout.rgb = rgb + lamp * matte");
    REQUIRE(render(rule, {folder / "in.exr", folder / "out.exr"}));
    const auto out = io::load(folder / "out.exr");
    REQUIRE(out);
    for (std::size_t i = 0; i < 8; ++i)
        CHECK((*out.value().find("G")->plane)[i] == 0.125f * static_cast<float>(i) + 0.5f * static_cast<float>(i * i));
    CHECK(*out.value().find("lamp.R")->plane == *ramp(8, 1)); // what was read stays

    // From another file, of another space: 8-bit sRGB is decoded for a linear rule.
    image::Image grey = image::image_of(image::generated(4, 2, [](int, int) {
        return std::array<double, 3>{0.5, 0.5, 0.5};
    }));
    grey.depth = image::Depth::uint8;
    grey.space = "srgb";
    REQUIRE(io::save(folder / "grey.png", grey));
    const lang::Rule one = good_rule("source lamp : vec3\nout.rgb = lamp");
    REQUIRE(render(reading(one, {"lamp=" + (folder / "grey.png").string()}), {folder / "in.exr", folder / "grey.exr"}));
    // IEC 61966-2-1, decoding: code 128 of 255 is ((0.50196 + 0.055) / 1.055)^2.4 = 0.21586.
    CHECK(static_cast<double>((*io::load(folder / "grey.exr").value().find("R")->plane)[0]) ==
          Approx(0.21586).margin(1e-4)); // half float
    REQUIRE(render(reading(one, {"lamp=" + (folder / "in.exr").string() + ":lamp"}),
                   {folder / "in.exr", folder / "layer.exr"}));
    CHECK((*io::load(folder / "layer.exr").value().find("B")->plane)[7] == 7);
    // vec4 has alpha 1 where the picture has none.
    REQUIRE(render(good_rule("source lamp\nout.rgb = vec3(lamp.a)"), {folder / "in.exr", folder / "alpha.exr"}));
    CHECK((*io::load(folder / "alpha.exr").value().find("B")->plane)[3] == 1);
}

TEST_CASE("a source that is not there is an error that writes nothing, and one of another size is stretched, "
          "which is noted",
          "[handover]") {
    const TemporaryFolder folder;
    REQUIRE(io::save(folder / "in.exr", layered()));
    REQUIRE(io::save(folder / "small.exr", image::image_of(image::generated(2, 2, [](int, int) {
                         return std::array<double, 3>{0, 0, 0};
                     }))));
    const lang::Rule rule = good_rule("source dye : vec3\nout.rgb = dye");
    const auto said = [&](const std::vector<std::string>& sources) {
        const auto bound = with_sources(rule, sources);
        if (!bound)
            return bound.error().text();
        const auto result = render(bound.value(), {folder / "in.exr", folder / "out.exr"});
        return result ? std::string("good") : result.error().text();
    };
    CHECK(said({}).find("reads the further picture dye") != std::string::npos);
    CHECK(said({"dye=" + (folder / "none.exr").string()}).find("none.exr") != std::string::npos);
    CHECK(said({"dye=" + (folder / "in.exr").string() + ":nobody"}).find("no layer or channel nobody") !=
          std::string::npos);
    CHECK(said({"dye=" + (folder / "in.exr").string(), "lamp=" + (folder / "in.exr").string()})
              .find("has no source lamp") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists(folder / "out.exr"));
    CHECK(said({"dye=" + (folder / "in.exr").string() + ":lamp"}) == "good");
    const auto report =
        render(reading(rule, {"dye=" + (folder / "small.exr").string()}), {folder / "in.exr", folder / "wide.exr"});
    REQUIRE(report);
    REQUIRE_FALSE(report.value().notes.empty());
    CHECK(report.value().notes.front() == "small.exr for dye is 2 x 2 pixels: stretched to 4 x 2");
    CHECK(io::load(folder / "wide.exr").value().width == 4);
}

TEST_CASE("an offset makes no light where a premultiplied picture has no cover", "[handover]") {
    TemporaryFolder folder;
    image::Image image;
    image.width = 4;
    image.height = 1;
    image.alpha = image::Alpha::premultiplied;
    image.depth = image::Depth::float32;
    // An edge, half covered; nothing; light without cover, as of a flame; and what the rule uncovers.
    image.channels = {{"R", image::make_plane({0.1f, 0, 0.25f, 0.5f})},
                      {"G", image::make_plane({0.1f, 0, 0.125f, 0.5f})},
                      {"B", image::make_plane({0.1f, 0, 0, 0.5f})},
                      {"A", image::make_plane({0.25f, 0, 0, 0.9f})}};
    REQUIRE(io::save(folder / "in.exr", image));
    for (const std::string space : {"rec709-linear", "acescg"}) {
        RenderJob job{folder / "in.exr", folder / "out.exr"};
        job.out_space = space;
        REQUIRE(render(good_rule("out.rgb = rgb + 0.2\nout.a = a > 0.5 ? 0 : a"), job));
        const image::Image out = io::load(folder / "out.exr").value();
        CHECK(out.space == space);
        CHECK(out.alpha == image::Alpha::premultiplied);
        const auto at = [&](const char* name, std::size_t i) {
            return static_cast<double>((*out.find(name)->plane)[i]);
        };
        CHECK(at("R", 0) == Approx(0.25 * (0.4 + 0.2)).margin(1e-6));
        CHECK(at("A", 0) == 0.25);
        CHECK(at("R", 1) == 0);
        CHECK(at("B", 1) == 0);
        const colour::Triple flame =
            colour::converted({0.25, 0.125, 0}, *colour::find_space("rec709-linear"), *colour::find_space(space));
        CHECK(at("R", 2) == Approx(flame[0]).margin(1e-6));
        CHECK(at("G", 2) == Approx(flame[1]).margin(1e-6));
        CHECK(at("R", 3) == 0); // gone with its cover
    }
}

TEST_CASE("a generated target is a source of every command, in the working space or its own", "[handover]") {
    const TemporaryFolder folder;
    REQUIRE(io::save(folder / "in.exr",
                     image::image_of(image::generated(1920, 2, [](int, int) { return std::array<double, 3>{}; }))));
    const lang::Rule rule = good_rule("source dye : vec3\nout.rgb = dye");
    const subject::Subject ramp = reading(rule, {"dye=target:grey_ramp"});
    REQUIRE(render(ramp, {folder / "in.exr", folder / "out.exr"}));
    const auto out = io::load(folder / "out.exr");
    REQUIRE(out);
    // As wide as the target is made, it is not stretched.
    const image::Picture values = targets::make(*targets::find("grey_ramp"), 1920);
    for (const std::size_t x : {0u, 700u, 1919u})
        CHECK((*out.value().find("R")->plane)[1920 + x] == values.at(static_cast<int>(x), 0)[0]);
    CHECK(ramp.bindings().at("dye").picture->space.empty());
    CHECK(ramp.identity() == reading(rule, {"dye=target:grey_ramp"}).identity());
    CHECK(ramp.identity() != reading(rule, {"dye=target:hue_sweep"}).identity());
    // One channel; patches as even areas; a target with a space of its own.
    const subject::Subject one = reading(rule, {"dye=target:hue_sweep:R"});
    CHECK(one.bindings().at("dye").picture->planes[0] == one.bindings().at("dye").picture->planes[1]);
    const targets::Target& chart = *targets::find("dye_chart");
    const subject::PicturePtr patches = reading(rule, {"dye=target:dye_chart"}).bindings().at("dye").picture;
    const int size = patches->width / chart.columns;
    CHECK(size > 50);
    CHECK(patches->height == size * chart.rows);
    CHECK(patches->at(0, 0) == patches->at(size - 1, size - 1));
    CHECK(patches->at(size, 0) == targets::make(chart, 0).at(1, 0));
    for (const targets::Target* each : targets::all())
        CHECK(source_from("target:" + std::string(each->name)).value().picture->space == each->space);
    const auto wrong = with_sources(rule, {"dye=target:nobody"});
    REQUIRE_FALSE(wrong);
    CHECK(wrong.error().what == "there is no target nobody");
}
