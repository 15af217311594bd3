// The page that is written about a look: read back by a small reader of its own, its pictures by a PNG reader.
#include "baking/bake.hpp"
#include "base/file.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "io/picture_file.hpp"
#include "report/picture.hpp"
#include "report/report.hpp"
#include "support/support.hpp"

#include <regex>
#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

document::Look filter(const std::string& text, std::map<std::string, double> values = {}) {
    document::Look look;
    look.steps.resize(1);
    look.steps[0].text = text;
    look.steps[0].values = std::move(values);
    return look;
}

std::string page_of(const report::Order& order) {
    const Result<std::string> page = report::html(order);
    INFO((page ? "" : page.error().text()));
    REQUIRE(page);
    return page.value();
}

/// RFC 4648, chapter 4, by the definition: six bits a letter.
std::string decoded(std::string_view text) {
    std::string made;
    unsigned bits = 0;
    int held = 0;
    for (const char c : text) {
        const int six = c >= 'A' && c <= 'Z' ? c - 'A'
            : c >= 'a' && c <= 'z'           ? c - 'a' + 26
            : c >= '0' && c <= '9'           ? c - '0' + 52
            : c == '+'                       ? 62
            : c == '/'                       ? 63
                                             : -1;
        if (six < 0)
            break;
        bits = bits << 6 | static_cast<unsigned>(six);
        if ((held += 6) >= 8) {
            held -= 8;
            made += static_cast<char>(bits >> held & 255);
        }
    }
    return made;
}

/// The pictures of a page, in their order.
std::vector<image::Picture> pictures_of(const std::string& page, const TemporaryFolder& folder) {
    std::vector<image::Picture> all;
    const std::string mark = "data:image/png;base64,";
    for (std::size_t at = page.find(mark); at != std::string::npos; at = page.find(mark, at)) {
        at += mark.size();
        const std::string file = folder / "read.png";
        REQUIRE(write_file(file, decoded(std::string_view(page).substr(at, page.find('"', at) - at))));
        const auto loaded = io::load(file);
        REQUIRE(loaded);
        all.push_back(*image::picture_of(loaded.value(), image::usual_layer(loaded.value())));
    }
    return all;
}

/// Tags that are opened and never closed, or closed and never opened; HTML's empty ones are neither.
std::vector<std::string> unbalanced(const std::string& page) {
    static const std::set<std::string> empty = {"meta", "img", "br", "hr", "line", "path", "polyline", "rect"};
    std::vector<std::string> open, wrong;
    for (std::size_t at = page.find('<'); at != std::string::npos; at = page.find('<', at + 1)) {
        const std::size_t end = page.find('>', at);
        const bool closes = page.compare(at + 1, 1, "/") == 0;
        const std::size_t begin = at + (closes ? 2 : 1);
        const std::size_t after =
            page.find_first_not_of("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789", begin);
        const std::string name = page.substr(begin, after - begin);
        if (name.empty() || end == std::string::npos || empty.contains(name) || page[end - 1] == '/')
            continue; // "<!doctype" too
        if (!closes)
            open.push_back(name);
        else if (!open.empty() && open.back() == name)
            open.pop_back();
        else
            wrong.push_back("/" + name);
    }
    wrong.insert(wrong.end(), open.begin(), open.end());
    return wrong;
}

/// The text between two marks, from the first place of the first one.
std::string between(const std::string& page, const std::string& from, const std::string& to) {
    const std::size_t begin = page.find(from);
    REQUIRE(begin != std::string::npos);
    const std::size_t end = page.find(to, begin + from.size());
    REQUIRE(end != std::string::npos);
    return page.substr(begin + from.size(), end - begin - from.size());
}

/// The numbers of a table's row that begins with a cell of this text.
std::vector<double> row(const std::string& page, const std::string& head) {
    const std::string cells = between(page, "<tr><td>" + head + "</td>", "</tr>");
    std::vector<double> numbers;
    const std::regex cell("<td class=\"n\">([^<]*)</td>");
    for (std::sregex_iterator found(cells.begin(), cells.end(), cell), end; found != end; ++found)
        numbers.push_back(std::stod((*found)[1]));
    return numbers;
}

std::size_t count_of(const std::string& page, const std::string& what) {
    std::size_t count = 0;
    for (std::size_t at = page.find(what); at != std::string::npos; at = page.find(what, at + 1))
        ++count;
    return count;
}

} // namespace

TEST_CASE("a page about a filter: its name, note, text, values, proofs, and what is certain", "[report]") {
    report::Order order;
    order.look = filter("filter \"Madder & <indigo>\"\nnote \"Less red < before.\"\n"
                        "param depth = 0.25 in 0 .. 1 \"How far it goes\"\n"
                        "out.r = r * (1 - depth)\nproof \"no accidents\" : finite\n",
                        {{"depth", 0.5}});
    order.made_at = "2031-05-06 07:08";
    const std::string page = page_of(order);
    CHECK(unbalanced(page).empty());
    CHECK(count_of(page, "<h2>Step") == 0);
    CHECK(page.find("A filter, numbers are ") != std::string::npos);
    CHECK(page.find("2031-05-06 07:08") != std::string::npos);
    // What the user wrote means itself.
    CHECK(page.find("<h1>Madder &amp; &lt;indigo&gt;</h1>") != std::string::npos);
    CHECK(page.find("<p>Less red &lt; before.</p>") != std::string::npos);
    CHECK(page.find("red < before") == std::string::npos);
    CHECK(page.find("<pre>filter &quot;Madder &amp;") != std::string::npos);
    // Values as they are now, not as the text has them.
    const std::vector<double> depth = row(page, "depth");
    REQUIRE(depth.size() == 1);
    CHECK(depth[0] == 0.5);
    // out.r = 0.5 r: the matrix of the rule at these values.
    CHECK(between(page, "<h2>Certain</h2><pre>", "</pre>").find("0.5") != std::string::npos);
    CHECK(page.find("<h2>Proofs, at these values</h2>") != std::string::npos);
    CHECK(page.find("&#10003; passes") != std::string::npos);
}

TEST_CASE("a proof that fails is told as failing, with its figure", "[report]") {
    report::Order order;
    order.look = filter("out.rgb = rgb * 2\nproof \"same\" : identity\n");
    const std::string page = page_of(order);
    CHECK(page.find("&#10007; fails") != std::string::npos);
    CHECK(page.find("&#10003; passes") == std::string::npos);
}

TEST_CASE("a page about steps: each with its opacity, mask and blend, and what they make together", "[report]") {
    report::Order order;
    order.look = filter("out.rgb = rgb.gbr\n");
    order.look.title = "There and back";
    order.look.note = "Turned twice.";
    document::LookStep second;
    second.text = "out.rgb = rgb.brg\n";
    second.label = "back <again>";
    order.look.steps.push_back(second);
    document::LookStep third;
    third.text = "out.rgb = rgb * 0.5\n";
    third.opacity = 0.25;
    third.on = false;
    third.mask = "r > 0.5 ? 1 : 0";
    third.mask_inverted = true;
    order.look.steps.push_back(third);
    const std::string page = page_of(order);
    CHECK(unbalanced(page).empty());
    CHECK(count_of(page, "<h2>Step") == 3);
    CHECK(page.find("<h1>There and back</h1>") != std::string::npos);
    CHECK(page.find("<p>Turned twice.</p>") != std::string::npos);
    CHECK(page.find("A look, numbers are ") != std::string::npos);
    CHECK(page.find("Step 2: back &lt;again&gt;") != std::string::npos);
    CHECK(page.find("opacity 25 %, normal, mask r &gt; 0.5 ? 1 : 0, inverted") != std::string::npos);
    CHECK(page.find("(off)") != std::string::npos);
    CHECK(page.find("all steps together change nothing") != std::string::npos);
}

TEST_CASE("a look that says no more than a filter can is one, and nothing else is", "[report][look]") {
    const document::Look alone = filter("out.r = g\n", {{"depth", 1}});
    CHECK(document::is_one_filter(alone));
    const auto with = [&](auto change) {
        document::Look look = alone;
        change(look);
        return document::is_one_filter(look);
    };
    using document::Look;
    CHECK(with([](Look& l) { l.steps[0].filter = "there.kasuri"; }));
    CHECK_FALSE(with([](Look& l) { l.steps.push_back(l.steps[0]); }));
    CHECK_FALSE(with([](Look& l) { l.steps.clear(); }));
    CHECK_FALSE(with([](Look& l) { l.title = "Dusk"; }));
    CHECK_FALSE(with([](Look& l) { l.note = "Late."; }));
    CHECK_FALSE(with([](Look& l) { l.proofs = "proof \"same\" : identity\n"; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].on = false; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].opacity = 0.999; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].blend = "screen"; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].mask = "r"; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].label = "first"; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].is_look = true; }));
    CHECK_FALSE(with([](Look& l) { l.steps[0].lut = "LUT_3D_SIZE 2\n"; }));
}

TEST_CASE("the pictures of a page are the picture and what the rule makes of it", "[report]") {
    const TemporaryFolder folder;
    image::Image stored = image::image_of(image::generated(64, 36, [](int x, int y) {
        return std::array<double, 3>{x / 63.0, y / 35.0, 0.25};
    }));
    stored.depth = image::Depth::float32;
    REQUIRE(io::save(folder / "cloth.exr", stored));
    report::Order order;
    order.look = filter("out.rgb = rgb.bgr\n");
    order.pictures = {folder / "cloth.exr"};
    const std::string page = page_of(order);
    CHECK(page.find("cloth.exr <span class=\"q\">64 x 36") != std::string::npos);
    const std::vector<image::Picture> pictures = pictures_of(page, folder);
    // The picture in pairs, three strips in pairs, the chart in a pair.
    REQUIRE(pictures.size() == 2 + 3 * 2 + 2);
    const image::Picture &before = pictures[0], &after = pictures[1];
    REQUIRE((before.width == 64 && before.height == 36 && after.width == 64));
    for (const auto& [x, y] : {std::pair{0, 0}, {63, 0}, {31, 20}, {10, 35}}) {
        const auto b = before.at(x, y), a = after.at(x, y);
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(a[c] == Approx(b[2 - c]).margin(1.5 / 255)); // red and blue have changed places
        // The file has no space of its own: read as the usual one, by the same definition as everywhere (IEC
        // 61966-2-1).
        const colour::Triple srgb = colour::converted(
            {x / 63.0, y / 35.0, 0.25}, *colour::find_space(colour::default_space), *colour::find_space("srgb"));
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(static_cast<double>(b[c]) == Approx(std::clamp(srgb[c], 0.0, 1.0)).margin(1.5 / 255));
    }
}

TEST_CASE("the page's errors of tables are those that are measured by baking", "[report]") {
    report::Order order;
    order.look = filter("out.rgb = pow(clamp(rgb, 0, 1), 0.4)\n");
    const std::string page = page_of(order);
    for (const int size : {17, 33, 65}) {
        baking::BakeOptions options;
        options.size = size;
        options.delta_e = true;
        const auto baked = baking::bake(subject::Subject(good_rule(order.look.steps[0].text)), options);
        REQUIRE(baked);
        const std::vector<double> numbers = row(page, std::to_string(size));
        REQUIRE(numbers.size() == 5);
        CHECK(numbers[0] == Approx(baked.value().tetrahedral.mean).epsilon(0.01));
        CHECK(numbers[2] == Approx(baked.value().tetrahedral.largest).epsilon(0.01));
        CHECK(numbers[4] == Approx(baked.value().tetrahedral.delta_e_largest).epsilon(0.01));
    }
    // A finer table is a better one.
    CHECK(row(page, "65")[2] < row(page, "33")[2]);
    CHECK(row(page, "33")[2] < row(page, "17")[2]);
}

TEST_CASE("what cannot be shown is said: no such picture, a rule that does not compile, called off", "[report]") {
    const TemporaryFolder folder;
    report::Order order;
    order.look = filter("out.r = g\n");
    order.pictures = {folder / "gone.exr"};
    const auto gone = report::html(order);
    REQUIRE_FALSE(gone);
    CHECK(gone.error().text().find("gone.exr") != std::string::npos);
    order.pictures.clear();
    order.look.steps[0].text = "out.r = nothing_of_that_name\n";
    const auto faulty = report::html(order);
    REQUIRE_FALSE(faulty);
    CHECK(faulty.error().text().find("nothing_of_that_name") != std::string::npos);
    order.look.steps[0].text = "out.r = g\n";
    const CancelToken off;
    off.cancel();
    const auto called_off = report::html(order, off);
    REQUIRE_FALSE(called_off);
    CHECK(called_off.error().what == "called off");
}

TEST_CASE("numbers that no screen can show do not upset a page's pictures", "[report]") {
    const TemporaryFolder folder;
    image::Picture picture = image::generated(8, 2, [](int x, int) {
        const double values[] = {
            -1, 0, 0.5, 1, 2, 1e30, std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::infinity()};
        return std::array<double, 3>{values[x], 0.5, 0.5};
    });
    picture.space = "srgb";
    const std::string address = report::png_address(picture, 8);
    const std::vector<image::Picture> read = pictures_of("<img src=\"" + address + "\">", folder);
    REQUIRE(read.size() == 1);
    const double wanted[] = {0, 0, 0.5, 1, 1, 1, 0, 0}; // cut off at the limits; what is no number is black
    for (int x = 0; x < 8; ++x) {
        INFO(x);
        CHECK(static_cast<double>(read[0].at(x, 0)[0]) == Approx(wanted[x]).margin(1.0 / 255));
    }
    // Larger ones are made smaller by averaging blocks.
    image::Picture stripes = image::generated(64, 4, [](int x, int) {
        const double v = x % 2;
        return std::array<double, 3>{v, v, v};
    });
    stripes.space = "srgb";
    const auto smaller = pictures_of("<img src=\"" + report::png_address(stripes, 32) + "\">", folder);
    REQUIRE((smaller.size() == 1 && smaller[0].width == 32 && smaller[0].height == 2));
    CHECK(static_cast<double>(smaller[0].at(5, 1)[1]) == Approx(0.5).margin(1.0 / 255));
    const std::string threads = report::threads_svg(stripes, picture, 64, 20, 0, 1, targets::Scale::linear);
    CHECK(threads.find("nan") == std::string::npos);
    CHECK(threads.find("inf") == std::string::npos);
    CHECK(unbalanced(threads).empty());
}
