#include "engine/sources.hpp"
#include "ir/printed.hpp"
#include "support/support.hpp"

#include <set>

using namespace kasuri;
using namespace kasuri::engine;
using namespace kasuri::test;

namespace {

image::Plane plane(std::vector<float> values) {
    return image::make_plane(image::Samples(values.begin(), values.end()));
}

/// 2 x 1 pixels: R G B, a layer "robe" with alpha, a channel "matte".
image::Image layered(image::Alpha alpha) {
    image::Image image;
    image.width = 2;
    image.height = 1;
    image.alpha = alpha;
    image.channels = {{"R", plane({1, 2})},         {"G", plane({3, 4})},          {"B", plane({5, 6})},
                      {"robe.R", plane({0.5f, 1})}, {"robe.G", plane({0.25f, 2})}, {"robe.B", plane({0, 4})},
                      {"robe.A", plane({0.5f, 1})}, {"matte", plane({0.125f, 7})}};
    return image;
}

} // namespace

TEST_CASE("a source in a picture's own file is its layer, straight, or its channel", "[engine][sources]") {
    const auto robe = source_in(layered(image::Alpha::premultiplied), "robe");
    REQUIRE(robe);
    CHECK(robe->at(0, 0) == Colour{1, 0.5f, 0, 0.5f}); // divided by its alpha
    CHECK(source_in(layered(image::Alpha::straight), "robe")->at(0, 0) == Colour{0.5f, 0.25f, 0, 0.5f});
    const auto matte = source_in(layered(image::Alpha::straight), "matte");
    REQUIRE(matte);
    CHECK(matte->at(1, 0) == Colour{7, 7, 7, 1});
    CHECK_FALSE(source_in(layered(image::Alpha::straight), "lantern"));
    CHECK_FALSE(source_in(layered(image::Alpha::straight), "robes"));
}

TEST_CASE("sources are bound in the order of the rule, with the channels of their types", "[engine][sources]") {
    const lang::Rule rule =
        good_rule("source matte : float\nsource robe\nsource none : vec3\nout.rgb = robe.rgb * matte + none + robe.a");
    const image::Image image = layered(image::Alpha::straight);
    std::vector<std::shared_ptr<const image::Picture>> pictures;
    for (const lang::SourceInput& source : rule.sources)
        pictures.push_back(source_in(image, source.name));
    CHECK_FALSE(pictures[2]);
    const BoundSources bound = bind_sources(rule, pictures);
    REQUIRE(bound.planes.size() == 1 + 4 + 3);
    REQUIRE(bound.planes.size() == source_channels(rule));
    CHECK(bound.spaces == std::vector<std::string>{"rec709-linear", "rec709-linear", ""});
    for (std::size_t i = 5; i < 8; ++i)
        CHECK(bound.planes[i].data == nullptr); // reads as 0
    CompileOptions options;
    options.source_spaces = bound.spaces;
    const ProgramPtr program = compile(rule, options);
    CHECK(program->reads_sources());
    const auto out = evaluate(*program, *image::picture_of(image, ""), {}, {}, nullptr, nullptr, bound.planes);
    REQUIRE(out);
    CHECK(out->at(0, 0)[0] == 0.5f * 0.125f + 0.5f);
    CHECK(out->at(1, 0)[1] == 2 * 7 + 1);
    // A picture without alpha counts as covering everything.
    const lang::Rule cover = good_rule("source matte\nout.r = matte.a");
    const std::vector<std::shared_ptr<const image::Picture>> one = {source_in(image, "matte")};
    const BoundSources bound_one = bind_sources(cover, one);
    const auto covered =
        evaluate(*compile(cover), *image::picture_of(image, ""), {}, {}, nullptr, nullptr, bound_one.planes);
    CHECK(covered->at(1, 0)[0] == 1);
    // With nothing brought at all every source is 0.
    const auto nothing =
        evaluate(*program, *image::picture_of(image, ""), {}, {}, nullptr, nullptr, bind_sources(rule, {}).planes);
    CHECK(nothing->at(1, 0)[1] == 0);
}

TEST_CASE("a graph prints what its outputs need, with names for what a picture brings", "[engine][sources]") {
    const lang::Rule rule = good_rule("param k = 1\nsource lamp : float\nout.r = blur(lamp, k) + aspect * pos.x\nlet "
                                      "unused = sqrt(g)\nout.g = unused * 0 + g");
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = lower(rule, graph, {});
    const std::string text = ir::printed(graph, outputs);
    for (const char* part : {"= source channel 0\n", "= parameter 0\n", "= blur n", "= aspect\n", "= pos.x\n"}) {
        INFO(text);
        CHECK(text.find(part) != std::string::npos);
    }
    CHECK(text.find("out n") != std::string::npos);
    const lang::Rule identity = good_rule("let unused = sqrt(g)\nlet more = unused * 2");
    ir::Graph small;
    CHECK(ir::printed(small, lower(identity, small, {})).find("sqrt") == std::string::npos); // nobody needs it
}

TEST_CASE("memory of pictures goes back to its pool, also when work is called off", "[engine][sources]") {
    const image::PlanePool pool;
    const image::Picture picture = image::generated(64, 64, [](int x, int y) {
        return std::array<double, 3>{x * 0.1, y * 0.1, 0};
    });
    const ProgramPtr program = compile(good_rule("out.rgb = rgb * 2"));
    std::set<const float*> seen;
    for (int round = 0; round < 5; ++round) {
        CancelToken cancel;
        if (round % 2 == 1)
            cancel.cancel();
        const auto out = evaluate(*program, picture, {}, cancel, nullptr, &pool);
        CHECK(out.has_value() == (round % 2 == 0));
        if (out)
            for (std::size_t c = 0; c < 3; ++c)
                seen.insert(out->planes[c]->floats().data());
    }
    CHECK(seen.size() == 3); // the same three buffers every time
}
