// Pictures that are gone through band by band: however they are kept, and for several readings at once.
#include "builtins/builtin.hpp"
#include "engine/lower.hpp"
#include "engine/on_demand.hpp"
#include "image/rows.hpp"
#include "readings/reading.hpp"
#include "support/support.hpp"

#include <atomic>
#include <cmath>

using namespace kasuri;
using namespace kasuri::readings;
using namespace kasuri::test;

namespace {

// Two pixels wider than a band, so that each is a row; and narrow, so that the last band is not whole.
constexpr std::array<std::array<int, 2>, 3> sizes = {{{8194, 3}, {301, 97}, {1, 70}}};

image::Picture scene(int width, int height) {
    image::Picture picture = image::generated(width, height, [&](int x, int y) {
        return std::array<double, 3>{((x * 7 + y * 13) % 256) / 255.0, (x % 32) / 31.0, (y % 5) / 4.0};
    });
    picture.space = "srgb";
    return picture;
}

/// The same numbers, kept as codes of 8 bits.
image::Picture packed(image::Picture picture) {
    for (std::size_t c = 0; c < 3; ++c)
        picture.planes[c] = image::packed(picture.planes[c], image::Depth::uint8);
    return picture;
}

/// Another picture's pixels, made when they are asked for; counts how often.
class Counted final : public image::MadeOnDemand {
public:
    explicit Counted(image::Picture of) : of_(std::move(of)) {}
    std::size_t width() const override { return static_cast<std::size_t>(of_.width); }
    std::size_t height() const override { return static_cast<std::size_t>(of_.height); }
    void make(std::size_t x, std::size_t y, std::size_t wide, std::size_t high,
              const std::array<float*, 4>& to) const override {
        ++calls;
        pixels += wide * high;
        for (std::size_t c = 0; c < 4; ++c)
            for (std::size_t row = 0; to[c] && row < high; ++row)
                of_.planes[c]->copy((y + row) * width() + x, wide, to[c] + row * wide);
    }
    mutable std::atomic<std::size_t> calls{0}, pixels{0};

private:
    image::Picture of_;
};

image::Picture lazy(const std::shared_ptr<const Counted>& made, const image::Picture& like) {
    image::Picture picture = like;
    for (std::size_t c = 0; c < 3; ++c)
        picture.planes[c] = std::make_shared<const image::PlaneData>(made, c);
    return picture;
}

bool same(const Measured& a, const Measured& b) {
    const std::vector<Panel> none(3);
    return csv(none, a) == csv(none, b);
}

} // namespace

TEST_CASE("rows of a picture are the same numbers, however it is kept, of all of it and of a part", "[image][bands]") {
    const image::Picture kept = scene(60, 20);
    const auto made = std::make_shared<const Counted>(kept);
    for (const image::Picture& picture : {kept, packed(kept), lazy(made, kept)})
        for (const std::size_t left : {0u, 17u}) {
            const std::size_t width = left == 0 ? 60 : 30, top = left == 0 ? 0 : 4;
            image::Rows rows(picture, left, top, width);
            for (const auto [first, last] : {std::array<std::size_t, 2>{2, 9}, {0, 1}, {9, 16}}) {
                rows.at(first, last);
                for (std::size_t c = 0; c < 3; ++c) {
                    const float* const all = rows.all(c);
                    for (std::size_t y = first; y < last; ++y)
                        for (std::size_t x = 0; x < width; ++x)
                            CHECK(all[(y - first) * width + x] == (*picture.planes[c])[(top + y) * 60 + left + x]);
                    for (std::size_t y = first; y < last; ++y) {
                        const float* const row = rows.row(c, y);
                        for (std::size_t x = 0; x < width; ++x)
                            CHECK(row[x] == (*picture.planes[c])[(top + y) * 60 + left + x]);
                    }
                }
            }
        }
}

TEST_CASE("every pixel is shown once, as stored and through an expression", "[readings][bands]") {
    Views views;
    for (const auto [width, height] : sizes) {
        INFO(width << " x " << height);
        const image::Picture kept = scene(width, height);
        const auto made = std::make_shared<const Counted>(kept);
        for (const image::Picture& picture : {kept, packed(kept), lazy(made, kept)}) {
            std::vector<std::atomic<int>> seen(picture.pixels());
            std::atomic<std::size_t> wrong{0};
            const auto truth = views.look(kept, "rec709-linear", "vec2(2 * g, r)");
            REQUIRE(truth);
            const Onlooker both[] = {
                {{},
                 [&](const Band& band) {
                     for (std::size_t i = 0; i < band.components[2].size(); ++i) {
                         ++seen[band.first + i];
                         wrong += band.components[2][i] != (*kept.planes[2])[band.first + i] ? 1 : 0;
                     }
                 }},
                {{"rec709-linear", "vec2(2 * g, r)"},
                 [&](const Band& band) {
                     for (std::size_t c = 0; c < 2; ++c)
                         for (std::size_t i = 0; i < band.components[c].size(); ++i)
                             // Codes stand for numbers within the rounding of a division, which vectors do otherwise.
                             wrong += std::fabs(band.components[c][i] - (*(*truth)[c])[band.first + i]) > 1e-6f ? 1 : 0;
                 }},
            };
            REQUIRE(through_bands(picture, views, both, {}));
            CHECK(std::all_of(seen.begin(), seen.end(), [](const std::atomic<int>& n) { return n == 1; }));
            CHECK(wrong == 0);
        }
        CHECK(made->pixels == kept.pixels()); // for both who look, once
    }
}

TEST_CASE("readings of a picture that is made on demand are those of one that is kept", "[readings][bands]") {
    for (const auto [width, height] : sizes) {
        const image::Picture kept = scene(width, height);
        const auto made = std::make_shared<const Counted>(kept);
        const image::Picture on_demand = lazy(made, kept), codes = packed(kept);
        Views views;
        std::vector<Asked> together;
        std::vector<Measured> alone;
        for (const Reading* reading : all()) {
            if (reading->about != About::pictures)
                continue;
            INFO(reading->name << ", " << width << " x " << height);
            Order order;
            order.settings = completed(reading->settings, {});
            order.line = {0.1, 0.9, 0.95, 0.2};
            order.views = &views;
            const auto of = [&](const image::Picture& picture) {
                Order one = order;
                one.pictures = {&picture};
                return *reading->measure(one);
            };
            alone.push_back(of(kept));
            CHECK(same(of(on_demand), alone.back()));
            CHECK(same(of(codes), of(image::as_floats(codes))));
            order.pictures = {&on_demand};
            together.push_back({reading, order});
        }
        const auto all_at_once = measured(together);
        REQUIRE(all_at_once);
        REQUIRE(all_at_once->size() == alone.size());
        for (std::size_t i = 0; i < alone.size(); ++i)
            CHECK(same((*all_at_once)[i], alone[i]));
        std::erase_if(together, [](const Asked& each) { return !each.reading->counting; });
        made->pixels = 0;
        REQUIRE(measured(together));
        if (kept.pixels() > 600) // the spots of a chart are looked at once more
            CHECK(made->pixels == kept.pixels());
    }
}

TEST_CASE("readings that differ in pictures, units and settings are told apart when they are made at once",
          "[readings][bands]") {
    const image::Picture first = scene(90, 40), second = scene(301, 97);
    Views views;
    std::vector<Asked> asked;
    const auto add = [&](const char* name, std::vector<double> settings, std::vector<const image::Picture*> pictures) {
        Order order;
        order.pictures = std::move(pictures);
        order.settings = completed(find(name)->settings, settings);
        order.views = &views;
        asked.push_back({find(name), order});
    };
    add("histogram", {}, {&first});
    add("histogram", {2}, {&second, &first});
    add("parade", {3}, {&second});
    add("waveform", {}, {&first, &second});
    add("vectorscope", {}, {&second, &second});
    add("cut", {}, {&first});
    const auto made = measured(asked);
    REQUIRE(made);
    for (std::size_t i = 0; i < asked.size(); ++i) {
        INFO(asked[i].reading->name);
        CHECK(same((*made)[i], *asked[i].reading->measure(asked[i].order)));
    }
    CHECK_FALSE(same((*made)[0], (*made)[1]));
}

TEST_CASE("a line across what is made on demand asks for stretches, not for pixels", "[readings][bands]") {
    const image::Picture kept = scene(2000, 1000);
    const auto made = std::make_shared<const Counted>(kept);
    const image::Picture picture = lazy(made, kept);
    for (const Line& line : {Line{0, 0.5, 1, 0.5}, Line{0.3, 0, 0.3, 1}, Line{0, 0, 1, 1}, Line{1, 0.9, 0, 0.1},
                             Line{0.5, 0.5, 0.5, 0.5}}) {
        made->calls = 0;
        CHECK(image::same(along(picture, line), along(kept, line)));
        CHECK(made->calls <= 70);
    }
}

TEST_CASE("a picture without pixels has no bands", "[readings][bands]") {
    Views views;
    image::Picture nothing;
    for (std::size_t c = 0; c < 3; ++c)
        nothing.planes[c] = image::make_plane({});
    bool shown = false;
    const Onlooker any[] = {{{}, [&](const Band&) { shown = true; }}};
    CHECK(through_bands(nothing, views, any, {}));
    CHECK_FALSE(shown);
}

TEST_CASE("going through bands can be called off in the middle", "[readings][bands]") {
    const image::Picture picture = scene(301, 400);
    Views views;
    CancelToken cancel;
    std::atomic<std::size_t> pixels{0};
    const Onlooker impatient[] = {{{}, [&](const Band& band) {
                                       pixels += band.components[0].size();
                                       cancel.cancel();
                                   }}};
    CHECK_FALSE(through_bands(picture, views, impatient, cancel));
    CHECK(pixels < picture.pixels());
}
