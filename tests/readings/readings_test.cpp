#include "colour/space.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "proof/proof.hpp"
#include "readings/reading.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

#include <cmath>

using namespace kasuri;
using namespace kasuri::readings;
using namespace kasuri::test;

namespace {

struct Case {
    Views views;
    std::vector<image::Picture> pictures;
    lang::Rule rule;
    engine::ProgramPtr program;
    std::vector<double> values;

    explicit Case(const std::string& text = "")
        : rule(good_rule(text)), program(engine::compile(rule)), values(defaults(rule)) {}

    Measured measure(const char* name, std::vector<double> settings = {}, Line line = {}) {
        const Reading& reading = *find(name);
        readings::Order subject;
        for (const image::Picture& picture : pictures)
            subject.pictures.push_back(&picture);
        subject.rule = [this](const image::Picture& picture) { return engine::evaluate(*program, picture, values); };
        subject.working = engine::working_space(rule);
        subject.settings = completed(reading.settings, settings);
        subject.line = line;
        subject.views = &views;
        return *reading.measure(subject);
    }
};

template <class Data>
Data layer(const Measured& measured, std::size_t index) {
    return std::get<Data>(measured.layers[index].data);
}

double figure(const Measured& measured, const std::string& name, const std::string& of) {
    for (const Figure& f : measured.figures)
        if (f.name == name && f.of == of)
            return f.value;
    FAIL("no figure " << name);
    return 0;
}

image::Picture flat(std::array<double, 3> colour, const std::string& space, int width = 40, int height = 25) {
    image::Picture picture = image::generated(width, height, [&](int, int) { return colour; });
    picture.space = space;
    return picture;
}

} // namespace

TEST_CASE("bars fall on the places of the vectorscope that the standard gives them", "[readings]") {
    Case c;
    c.pictures = {targets::make(*targets::find("bars_75"), 0)};
    const Measured measured = c.measure("vectorscope");
    const auto& density = layer<Density>(measured, 0);
    const std::vector<Panel> panels = find("vectorscope")->panels(completed(find("vectorscope")->settings, {}));
    // ITU-R BT.709-6, items 3.2 and 3.3, by hand: Cb = (B - Y) / 1.8556, Cr = (R - Y) / 1.5748.
    std::uint64_t found = 0;
    for (const auto [r, g, b] : {std::array{0.75, 0.75, 0.0}, std::array{0.0, 0.75, 0.75}, std::array{0.0, 0.75, 0.0},
                                 std::array{0.75, 0.0, 0.75}, std::array{0.75, 0.0, 0.0}, std::array{0.0, 0.0, 0.75}}) {
        const double y = 0.2126 * r + 0.7152 * g + 0.0722 * b, cb = (b - y) / 1.8556, cr = (r - y) / 1.5748;
        const int column = static_cast<int>(panels[0].x.share_of(cb) * density.columns),
                  row = static_cast<int>(panels[0].y.share_of(cr) * density.rows);
        // The value may lie on an edge: look at the cell and its neighbours.
        std::uint32_t here = 0;
        for (int dy = -1; dy <= 1; ++dy)
            for (int dx = -1; dx <= 1; ++dx)
                here += density.counts[static_cast<std::size_t>((row + dy) * density.columns + column + dx)];
        CHECK(here == 640 / 8 * 360);
        found += here;
        // And inside the lozenge that is drawn for it.
        const bool inside = std::any_of(panels[0].guides.begin(), panels[0].guides.end(), [&](const Guide& guide) {
            return guide.points.size() == 5 && std::fabs(guide.points[0][0] - 0.02 - cb) < 1e-6 &&
                std::fabs(guide.points[0][1] - cr) < 1e-6;
        });
        CHECK(inside);
    }
    CHECK(found == 640 / 8 * 6 * 360);
}

TEST_CASE("a waveform counts every pixel at its level, in its column", "[readings]") {
    Case c;
    c.pictures = {targets::make(*targets::find("grey_ramp"), 960)};
    const Measured measured = c.measure("waveform", {0, -0.5, 4.5});
    for (std::size_t channel = 0; channel < 3; ++channel) {
        const auto& density = layer<Density>(measured, channel);
        std::uint64_t sum = 0;
        for (int x = 0; x < density.columns; ++x)
            for (int y = 0; y < density.rows; ++y)
                if (const std::uint32_t count = density.counts[static_cast<std::size_t>(y * density.columns + x)]) {
                    sum += count;
                    const double level = -0.5 + 5 * (y + 0.5) / density.rows;
                    CHECK(level ==
                          Approx(targets::find("grey_ramp")->axis.value_at((x + 0.5) / density.columns))
                              .margin(5.0 / density.rows + 0.012));
                }
        CHECK(sum == 960);
    }
    CHECK(measured.figures.empty());
    const Measured narrow = c.measure("parade", {0, 0, 1});
    CHECK(narrow.layers[2].panel == 2);
    CHECK(figure(narrow, "above the range", "r") > 20);
    CHECK(figure(narrow, "below the range", "b") > 10);
}

TEST_CASE("units: numbers as stored, signal, cd/m2 and stops", "[readings]") {
    const auto level = [](const image::Picture& picture, double unit, double low, double high) {
        Case c;
        c.pictures = {picture};
        const Measured measured = c.measure("histogram", {unit, low, high});
        const auto& trace = layer<Trace>(measured, 1);
        for (const auto& [x, share] : trace.points)
            if (share > 99)
                return static_cast<double>(x);
        return -1e9;
    };
    const image::Picture grey = flat({0.18, 0.18, 0.18}, "rec709-linear");
    CHECK(level(grey, 0, 0, 1) == Approx(0.18).margin(1.0 / 256));
    CHECK(level(grey, 1, 0, 1) == Approx(std::pow(0.18, 1 / 2.4)).margin(1.0 / 256)); // ITU-R BT.1886 with black 0
    CHECK(level(grey, 2, 0, 100) == Approx(0.18 * 203).margin(100.0 / 256)); // ITU-R BT.2408-7: diffuse white 203 cd/m2
    CHECK(level(grey, 3, -8, 8) == Approx(0).margin(16.0 / 256));
    CHECK(level(flat({0.72, 0.72, 0.72}, "rec709-linear"), 3, -8, 8) == Approx(2).margin(16.0 / 256));
    // PQ: the signal 0.5806 is 203 cd/m2 (ITU-R BT.2408-7, Table 1: 58 %).
    CHECK(level(flat({0.5806, 0.5806, 0.5806}, "rec2100-pq"), 2, 0, 400) == Approx(203).margin(2));
}

TEST_CASE("the plane of a* and b* and the chromaticity diagram agree with published values", "[readings]") {
    Case c;
    c.pictures = {flat({1, 0, 0}, "rec709-linear", 2, 2)};
    // Red of BT.709: a* 80.1, b* 67.2 (CSS Color 4's rounded D65 values); x 0.64, y 0.33 (ITU-R BT.709-6).
    const Measured ab = c.measure("ab");
    CHECK(layer<Spots>(ab, 1).spots[0].at[0] == Approx(80.1).margin(0.1));
    CHECK(layer<Spots>(ab, 1).spots[0].at[1] == Approx(67.2).margin(0.1));
    const Measured xy = c.measure("chromaticity"), uv = c.measure("chromaticity", {1});
    CHECK(layer<Spots>(xy, 1).spots[0].at[0] == Approx(0.64));
    CHECK(layer<Spots>(xy, 1).spots[0].at[1] == Approx(0.33));
    // CIE 15: u' = 4x / (-2x + 12y + 3) = 0.4507, v' = 9y / (-2x + 12y + 3) = 0.5229.
    CHECK(layer<Spots>(uv, 1).spots[0].at[0] == Approx(0.4507).margin(1e-4));
    CHECK(layer<Spots>(uv, 1).spots[0].at[1] == Approx(0.5229).margin(1e-4));
    // Greys: a* = b* = 0 (common practice, no source).
    c.pictures = {flat({0.3, 0.3, 0.3}, "rec709-linear", 2, 2)};
    CHECK(layer<Spots>(c.measure("ab"), 1).spots[0].at[0] == Approx(0).margin(1e-4));
}

TEST_CASE("a rule of two dyes leaves one axis in the hue map", "[readings]") {
    // Making green and blue equal leaves only the red-cyan axis: common practice, no source.
    Case c("working rec709-linear\nlet both = 0.5 * g + 0.5 * b\nout.g = both\nout.b = both");
    const Measured measured = c.measure("hue_map", {1}); // OKLab: a line stays nearly straight there
    const auto& arrows = layer<Arrows>(measured, 0).arrows;
    REQUIRE(arrows.size() == 18 * 4);
    double area = 0, widest = 0;
    std::array<float, 2> far{};
    for (const Arrow& arrow : arrows)
        if (const double reach = std::hypot(arrow.to[0], arrow.to[1]); reach > widest) {
            widest = reach;
            far = arrow.to;
        }
    for (const Arrow& arrow : arrows)
        area = std::max(area, std::fabs(static_cast<double>(arrow.to[0] * far[1] - arrow.to[1] * far[0])) / widest);
    CHECK(widest > 0.1);
    CHECK(area < 0.2 * widest); // nothing lies far from the line through the middle
    // Nothing moves under the identity.
    Case nothing;
    const Measured same = nothing.measure("hue_map");
    for (const Arrow& arrow : layer<Arrows>(same, 0).arrows)
        CHECK(arrow.from == arrow.to);
}

TEST_CASE("the response gives slopes and says where it falls", "[readings]") {
    Case c("out.r = 2 * r\nout.g = 1 - g\nout.b = b < 0.5 ? b : 1 - b");
    const Measured measured = c.measure("response");
    CHECK(figure(measured, "slope at 0.18", "r") == Approx(2).epsilon(1e-4));
    CHECK(figure(measured, "slope at 0.18", "g") == Approx(-1).epsilon(1e-4));
    CHECK(figure(measured, "reverses from", "g") == Approx(-0.1).margin(1e-6));
    CHECK(figure(measured, "reverses from", "b") == Approx(0.5).margin(0.005));
    CHECK(layer<Trace>(measured, 0).points.size() == 600);
    CHECK(layer<Trace>(measured, 0).points[599][1] == Approx(2.6).margin(1e-5));
    // By stops: twice the light is one stop up everywhere.
    const Measured stops = c.measure("response", {1});
    for (const auto& [in, out] : layer<Trace>(stops, 0).points)
        CHECK(out == Approx(in + 1).margin(1e-4));
}

TEST_CASE("a cut reads the pixels along its line", "[readings]") {
    Case c;
    c.pictures = {image::generated(64, 32, [](int x, int y) {
        return std::array<double, 3>{x / 64.0, y / 32.0, 0.5};
    })};
    const Measured across = c.measure("cut", {}, {0, 0.25, 1, 0.25});
    REQUIRE(layer<Trace>(across, 0).points.size() == 64);
    for (std::size_t i = 0; i < 64; ++i) {
        CHECK(layer<Trace>(across, 0).points[i][1] == static_cast<float>(static_cast<double>(i) / 64));
        CHECK(layer<Trace>(across, 1).points[i][1] == 0.25f);
    }
    // Backwards along a diagonal, and far outside of the picture: clamped to its edge.
    const Measured back = c.measure("cut", {}, {1, 1, 0, 0});
    CHECK(layer<Trace>(back, 0).points.front()[1] == Approx(63.0 / 64));
    CHECK(layer<Trace>(back, 1).points.back()[1] == 0);
    CHECK(layer<Trace>(c.measure("cut", {}, {-2, -2, -1, -1}), 0).points[0][1] == 0);
    CHECK(layer<Trace>(c.measure("cut", {}, {0.5, 0.5, 0.5, 0.5}), 0).points.size() == 1);
}

TEST_CASE("every reading measures the empty rule on anything, before as after, and says its numbers as CSV",
          "[readings]") {
    for (const Reading* reading : all()) {
        INFO(reading->name);
        CHECK_FALSE(reading->doc.empty());
        Case c;
        image::Picture odd = image::generated(33, 7, [](int x, int y) {
            return std::array<double, 3>{x / 10.0 - 1, std::log(static_cast<double>(y)), std::sqrt(5.0 - x)};
        });
        c.pictures = {targets::make(*targets::find("dye_chart"), 0), odd};
        // Every choice of every setting.
        for (std::size_t s = 0; s <= reading->settings.size(); ++s)
            for (int choice = 0; choice == 0 ||
                 (s < reading->settings.size() && choice < static_cast<int>(reading->settings[s].choices.size()));
                 ++choice) {
                std::vector<double> set = completed(reading->settings, {});
                if (s < set.size() && !reading->settings[s].choices.empty())
                    set[s] = choice;
                const Measured measured = c.measure(std::string(reading->name).c_str(), set);
                const std::vector<Panel> panels = reading->panels(set);
                for (const Layer& layer : measured.layers) {
                    REQUIRE(layer.panel < static_cast<int>(panels.size()));
                    if (const auto* density = std::get_if<Density>(&layer.data))
                        CHECK(density->counts.size() ==
                              static_cast<std::size_t>(density->columns) * static_cast<std::size_t>(density->rows));
                }
                for (const Panel& panel : panels)
                    CHECK(panel.x.low < panel.x.high);
                const std::string text = csv(panels, measured);
                CHECK(text.size() > 20);
                CHECK(text.find(',') != std::string::npos);
            }
        if (reading->about == About::pictures && reading->name != "cut") {
            // Two pictures are counted as one after the other.
            Case once, both;
            once.pictures = {c.pictures[0]};
            both.pictures = {c.pictures[0], c.pictures[0]};
            const Measured one = once.measure(std::string(reading->name).c_str()),
                           two = both.measure(std::string(reading->name).c_str());
            if (const auto* density = std::get_if<Density>(&one.layers[0].data))
                for (std::size_t i = 0; i < density->counts.size(); ++i)
                    CHECK(layer<Density>(two, 0).counts[i] == 2 * density->counts[i]);
        }
    }
}

TEST_CASE("round ticks", "[readings]") {
    const auto values = [](double low, double high, int wanted) {
        std::vector<double> made;
        for (const Tick& tick : even_ticks(low, high, wanted))
            made.push_back(tick.value);
        return made;
    };
    CHECK(values(0, 1, 5).size() == 6);
    CHECK(values(-0.25, 1.25, 5) ==
          std::vector<double>{-0.2, 0, 0.2, 0.4, 0.6000000000000001, 0.8, 1, 1.2000000000000002});
    CHECK(values(0, 1000, 5).back() == 1000);
    CHECK(values(1, 0, 5).empty());
    CHECK(even_ticks(-1, 1, 2)[1].label == "0");
}

TEST_CASE("the spectral locus is that of the published fit of the CIE 1931 observer", "[readings]") {
    // C. Wyman, P.-P. Sloan, P. Shirley, Simple Analytic Approximations to the CIE XYZ Color Matching Functions,
    // Journal of Computer Graphics Techniques 2 (2), 2013: the multi-lobe fit; coefficients from memory.
    const auto lobe = [](double x, double at, double left, double right) {
        const double t = (x - at) / (x < at ? left : right);
        return std::exp(-0.5 * t * t);
    };
    const auto xy = [&](double nm) {
        const double x = 1.056 * lobe(nm, 599.8, 37.9, 31.0) + 0.362 * lobe(nm, 442.0, 16.0, 26.7) -
            0.065 * lobe(nm, 501.1, 20.4, 26.2);
        const double y = 0.821 * lobe(nm, 568.8, 46.9, 40.5) + 0.286 * lobe(nm, 530.9, 16.3, 31.1);
        const double z = 1.217 * lobe(nm, 437.0, 11.8, 36.0) + 0.681 * lobe(nm, 459.0, 26.0, 13.8);
        return std::array{x / (x + y + z), y / (x + y + z)};
    };
    std::vector<double> wavelengths;
    for (int nm = 380; nm <= 700; nm += nm >= 480 && nm < 530 ? 5 : 10)
        wavelengths.push_back(nm);
    const std::vector<Panel> panels = find("chromaticity")->panels(completed(find("chromaticity")->settings, {}));
    const Guide& locus = panels[0].guides.front();
    REQUIRE(locus.points.size() == wavelengths.size() + 1);
    CHECK(locus.points.front() == locus.points.back()); // closed by the line of purples
    for (std::size_t i = 0; i < wavelengths.size(); ++i)
        if (wavelengths[i] >= 440 && wavelengths[i] <= 640) { // where the fit is good
            INFO(wavelengths[i]);
            CHECK(std::hypot(locus.points[i][0] - xy(wavelengths[i])[0], locus.points[i][1] - xy(wavelengths[i])[1]) <
                  0.025);
        }
    // The primaries of BT.2020 are the spectrum's at 630, 532 and 467 nm (the Recommendation says so).
    const colour::Space& wide = *colour::find_space("rec2020-linear");
    const auto near = [&](double nm, std::size_t corner, double most) {
        double best = 1;
        for (std::size_t i = 0; i + 1 < wavelengths.size(); ++i)
            if (wavelengths[i] <= nm && wavelengths[i + 1] >= nm) {
                const double t = (nm - wavelengths[i]) / (wavelengths[i + 1] - wavelengths[i]);
                const double x = locus.points[i][0] + t * (locus.points[i + 1][0] - locus.points[i][0]),
                             y = locus.points[i][1] + t * (locus.points[i + 1][1] - locus.points[i][1]);
                best = std::min(best, std::hypot(x - wide.primaries[corner].x, y - wide.primaries[corner].y));
            }
        CHECK(best < most);
    };
    near(630, 0, 0.001);
    near(532, 1, 0.006);
    near(467, 2, 0.004); // between steps of 10 nm
}
