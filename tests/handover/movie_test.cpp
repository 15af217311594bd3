// Movies through looks: the same numbers as frame by frame, sound and timecode, parts of them, and from pictures.
#include "base/movie_name.hpp"
#include "document/look_file.hpp"
#include "handover/movie.hpp"
#include "io/picture_file.hpp"
#include "look/make.hpp"
#include "support/movies.hpp"

using namespace kasuri;
using namespace kasuri::handover;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

subject::Subject rule(const char* text) { return good_rule(text); }

BatchReport go(const subject::Subject& subject, const BatchOrder& order, BatchOptions options,
               std::vector<std::string>& said) {
    const auto items = batch_items(order);
    INFO((items ? std::string() : items.error().text()));
    REQUIRE(items);
    return render_all(subject, items.value(), options, {}, [&](const BatchEvent& event) {
        if (event.error)
            said.push_back(event.error->text());
        said.insert(said.end(), event.notes.begin(), event.notes.end());
    });
}

bool told(const std::vector<std::string>& said, const std::string& what) {
    return std::any_of(said.begin(), said.end(),
                       [&](const std::string& s) { return s.find(what) != std::string::npos; });
}

double farthest(const std::filesystem::path& a, const std::filesystem::path& b) {
    const auto first = io::load(a), second = io::load(b);
    REQUIRE(first);
    REQUIRE(second);
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < first.value().pixels(); ++i)
            most = std::max(most,
                            std::fabs(static_cast<double>((*first.value().channels[c].plane)[i]) -
                                      static_cast<double>((*second.value().channels[c].plane)[i])));
    return most;
}

/// The bytes of a movie's sound, as FFmpeg's program takes them out.
std::string sound_of(const std::filesystem::path& movie) {
    return words_of("ffmpeg -v error -i '" + movie.string() + "' -map 0:a -c copy -f md5 -");
}

} // namespace

TEST_CASE("a movie through a rule is its frames through the rule, with sound and timecode", "[movies]") {
    const TemporaryFolder folder;
    const auto in = folder / "in.mov";
    ffmpeg(
        "-f lavfi -i testsrc2=s=96x64:r=24:d=1 -f lavfi -i sine=f=440:d=1 -c:v prores_ks -vf "
        "format=yuv422p10le,setparams=color_primaries=bt709:color_trc=bt709:colorspace=bt709:range=tv -c:a pcm_s16le "
        "-timecode 01:00:00:00 -metadata title='Mill race' '" +
        in.string() + "'");
    const auto subject =
        rule("working rec709-linear\nlet l = luma(rgb)\nout.rgb = mix(rgb, vec3(l), 0.4) * vec3(1.1, 0.9, 0.8)");
    std::vector<std::string> said;
    BatchOptions options;
    options.job.depth = image::Depth::uint16;
    REQUIRE(go(subject, {{in.string()}, (folder / "frames.####.tif").string()}, options, said).written == 24);
    for (const char* name : {"out.mkv", "out.mov"}) {
        const auto out = folder / name;
        REQUIRE(go(subject, {{in.string()}, out.string()}, options, said).written == 1);
        double off = 0;
        for (int n = 1; n <= 24; ++n)
            off = std::max(off, farthest(folder / fmt::format("frames.{:04}.tif", n), frame_path(out, n)));
        // FFV1 holds the same 16 bits; ProRes rounds as it does, and keeps what 0 .. 1 does not.
        CHECK(off <= (std::string(name) == "out.mkv" ? 1e-6 : 1.0));
        CHECK(sound_of(out) == sound_of(in));
        CHECK(io::movie_facts(out).value() == io::movie_facts(in).value());
        CHECK(probed(out, "format_tags=title") == "Mill race");
        CHECK(probed(out, "stream=color_primaries") == "bt709");
        CHECK(told(said, "read again: off by"));
    }
    // The same once more is the same file, and is left where that is wished.
    const std::string before = content_of(folder / "out.mkv");
    options.resume = true;
    CHECK(go(subject, {{in.string()}, (folder / "out.mkv").string()}, options, said).left == 1);
    options.resume = false;
    REQUIRE(go(subject, {{in.string()}, (folder / "out.mkv").string()}, options, said).written == 1);
    CHECK(content_of(folder / "out.mkv") == before);
    options.resume = true;
    CHECK(go(rule("out.rgb = rgb * 0.5"), {{in.string()}, (folder / "out.mkv").string()}, options, said).written == 1);
}

TEST_CASE("a movie through a look of five steps is its frames through that look", "[movies]") {
    const TemporaryFolder folder;
    const auto in = folder / "in.mov";
    ffmpeg("-f lavfi -i testsrc2=s=96x64:r=24:d=0.5 -c:v prores_ks -vf "
           "format=yuv422p10le,setparams=color_primaries=bt709:color_trc=bt709:colorspace=bt709:range=tv '" +
           in.string() + "'");
    const std::filesystem::path file = KASURI_SOURCE_DIR "/data/looks/river-cloth.kasurilook";
    const auto look = document::load_look(file);
    REQUIRE(look);
    REQUIRE(look.value().steps.size() == 5);
    const auto made = look::make(look.value(), file.parent_path());
    REQUIRE(made);
    const subject::Subject& subject = made.value().subject;
    std::vector<std::string> said;
    BatchOptions options;
    options.job.depth = image::Depth::uint16;
    REQUIRE(go(subject, {{in.string()}, (folder / "frames.####.tif").string()}, options, said).written == 12);
    REQUIRE(go(subject, {{in.string()}, (folder / "out.mkv").string()}, options, said).written == 1);
    REQUIRE(go(subject, {{in.string()}, (folder / "out.mov").string()}, {}, said).written == 1);
    double told = 0;
    REQUIRE(std::sscanf(said.back().c_str(), "read again: off by %lf", &told) == 1);
    for (int n = 1; n <= 12; ++n) {
        const auto frame = folder / fmt::format("frames.{:04}.tif", n);
        CHECK(farthest(frame, frame_path(folder / "out.mkv", n)) <= 1e-6); // the same 16 bits
        // ProRes keeps what lies outside of 0 .. 1, which the extracted frames have not.
        const auto whole = io::load(frame_path(folder / "out.mov", n)), cut = io::load(frame);
        for (std::size_t c = 0; c < 3; ++c)
            for (std::size_t i = 0; i < cut.value().pixels(); ++i)
                REQUIRE(std::fabs(std::clamp(static_cast<double>((*whole.value().channels[c].plane)[i]), 0.0, 1.0) -
                                  static_cast<double>((*cut.value().channels[c].plane)[i])) <= 1.06 * told);
    }
}

TEST_CASE("some frames of a movie take their own sound along", "[movies]") {
    const TemporaryFolder folder;
    const auto in = folder / "in.mov";
    counting_movie(in, 50);
    const auto subject = rule("out.rgb = rgb");
    std::vector<std::string> said;
    BatchOrder order{{in.string()}, (folder / "out.mov").string()};
    order.frames = {{11, 35, 1}};
    REQUIRE(go(subject, order, {}, said).written == 1);
    const auto facts = io::movie_facts(folder / "out.mov").value();
    CHECK((facts.frames == 25 && facts.timecode == "01:00:00:10"));
    CHECK(std::fabs(std::atof(probed(folder / "out.mov", "stream=duration", "a:0").c_str()) - 1) < 0.05);
    CHECK(farthest(frame_path(in, 11), frame_path(folder / "out.mov", 1)) < 0.01);
    said.clear();
    order.frames = {{1, 49, 2}};
    REQUIRE(go(subject, order, {}, said).written == 1);
    CHECK(told(said, "sound was left out"));
    CHECK(sound_of(folder / "out.mov").find("MD5=") == std::string::npos);
}

TEST_CASE("numbered pictures become a movie, and movies go into folders", "[movies]") {
    const TemporaryFolder folder;
    std::filesystem::create_directories(folder / "in");
    for (int n = 1; n <= 8; ++n) {
        image::Image image = image::image_of(image::generated(32, 16, [&](int, int) {
            return std::array<double, 3>{0.1 * n, 0.5, 0.25};
        }));
        image.depth = image::Depth::half;
        REQUIRE(io::save(folder / fmt::format("in/river_{:04}.exr", n), image));
    }
    const auto subject = rule("out.rgb = rgb");
    std::vector<std::string> said;
    BatchOptions options;
    options.rate = read_rate("23.976");
    REQUIRE(go(subject, {{(folder / "in").string()}, (folder / "a.mov").string()}, options, said).written == 1);
    CHECK(io::movie_facts(folder / "a.mov").value() == image::MoviePlace{1, 8, 24000, 1001, ""});
    REQUIRE(go(subject, {{(folder / "in").string()}, (folder / "out/").string(), ".mkv"}, options, said).written == 1);
    CHECK(io::movie_facts(folder / "out/river.mkv").value().frames == 8);
    // As usual for its kind: linear light is encoded.
    CHECK(io::load(folder / "a.mov").value().space == "rec709");
    // A movie in a folder goes as a movie, or as numbered pictures.
    counting_movie(folder / "c.mp4", 5, "25", "-c:a aac");
    REQUIRE(go(subject, {{(folder / "c.mp4").string()}, (folder / "out/").string()}, {}, said).written == 1);
    CHECK(io::movie_facts(folder / "out/c.mov").value().frames == 5);
    REQUIRE(go(subject, {{(folder / "c.mp4").string()}, (folder / "out/").string(), ".png"}, {}, said).written == 5);
    CHECK(std::filesystem::exists(folder / "out/c.0005.png"));
    REQUIRE(go(subject, {{(folder / "c.mp4").string() + "@3"}, (folder / "three.png").string()}, {}, said).written ==
            1);
    CHECK(farthest(folder / "three.png", folder / "out/c.0003.png") == 0);
    CHECK_THAT(batch_items({{(folder / "c.mp4").string()}, (folder / "c.mp4").string()}).error().text(),
               Contains("written over"));
    CHECK_THAT(batch_items({{(folder / "c.mp4").string() + "@9"}, (folder / "x.png").string()}).error().text(),
               Contains("no frame 9"));
}

TEST_CASE("a movie that is called off, or a frame that fails, leaves what was there", "[movies]") {
    const TemporaryFolder folder;
    const auto in = folder / "in.mov";
    counting_movie(in, 40);
    write(folder / "out.mov", "what was there");
    const auto items = batch_items({{in.string()}, (folder / "out.mov").string()});
    REQUIRE(items);
    const CancelToken cancel;
    std::size_t most = 0;
    const BatchReport report =
        render_all(rule("out.rgb = 1 - rgb"), items.value(), {}, cancel, [&](const BatchEvent& event) {
            most = std::max(most, event.done);
            CHECK(event.all == 40);
            if (event.done == 10)
                cancel.cancel();
        });
    CHECK((report.called_off == 1 && report.written == 0 && most >= 10 && most < 40));
    CHECK(content_of(folder / "out.mov") == "what was there");
    std::vector<std::string> said; // a source that is not there
    CHECK(go(rule("source other\nout.rgb = other.rgb"), {{in.string()}, (folder / "out.mov").string()}, {}, said)
              .failed == 1);
    CHECK(content_of(folder / "out.mov") == "what was there");
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 2);
}

TEST_CASE("rates are read as they are written", "[movies]") {
    CHECK((read_rate("24") == FrameRate{24, 1} && read_rate("23.976") == FrameRate{24000, 1001}));
    CHECK((read_rate("29.97") == FrameRate{30000, 1001} && read_rate("59.94") == FrameRate{60000, 1001}));
    CHECK((read_rate("24000/1001") == FrameRate{24000, 1001} && read_rate("12.5") == FrameRate{25, 2}));
    for (const char* wrong : {"", "0", "-24", "24/0", "a", "24/", "1e9", "24 ", "24.5/2", "nan", "inf"})
        CHECK_FALSE(read_rate(wrong));
}
