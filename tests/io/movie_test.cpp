// Movies: what their numbers mean, which frame is which, and what is written, against FFmpeg's own program and formulas
// of the standards.
#include "base/movie_name.hpp"
#include "io/movie_file.hpp"
#include "io/sequence.hpp"
#include "support/movies.hpp"

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

struct Raw {
    const char* pixels;
    int bits, half_across, half_down; ///< chroma has half the samples (1) or all (0)
};

/// Weights of ITU-T H.273, table 4.
struct Matrix {
    const char* name;
    double red, blue;
};
constexpr Matrix matrices[] = {{"bt709", 0.2126, 0.0722}, {"smpte170m", 0.299, 0.114}, {"bt2020nc", 0.2627, 0.0593}};

/// Where a chroma sample lies among luma samples (ITU-T H.273, 8.7, figure 1), of chroma that is halved both ways.
struct Siting {
    const char* name;
    double x, y;
};
constexpr Siting sitings[] = {{"left", 0, 0.5}, {"center", 0.5, 0.5}, {"topleft", 0, 0}};

constexpr int wide = 32, high = 16;

/// Code values of three planes: anything within the range and beyond it.
std::vector<std::vector<int>> codes_of(const Raw& raw, std::mt19937& random) {
    std::vector<std::vector<int>> planes(3);
    for (std::size_t c = 0; c < 3; ++c) {
        const int w = c == 0 ? wide : wide >> raw.half_across, h = c == 0 ? high : high >> raw.half_down;
        std::uniform_int_distribution<int> any(1 << (raw.bits - 8), (254 << (raw.bits - 8)));
        for (int i = 0; i < w * h; ++i)
            planes[c].push_back(any(random));
    }
    return planes;
}

void write_raw(const std::filesystem::path& path, const Raw& raw, const std::vector<std::vector<int>>& planes) {
    std::ofstream out(path, std::ios::binary);
    for (const auto& plane : planes)
        for (const int code : plane) {
            out.put(static_cast<char>(code & 255));
            if (raw.bits > 8)
                out.put(static_cast<char>(code >> 8));
        }
}

/// A plane between its samples, linearly; `place`: where its first sample lies.
double between(const std::vector<int>& plane, int w, int h, double x, double y) {
    const auto at = [&](int i, int j) {
        return plane[static_cast<std::size_t>(std::clamp(j, 0, h - 1) * w + std::clamp(i, 0, w - 1))];
    };
    const int i = static_cast<int>(std::floor(x)), j = static_cast<int>(std::floor(y));
    const double fx = x - i, fy = y - j;
    return (1 - fy) * ((1 - fx) * at(i, j) + fx * at(i + 1, j)) +
        fy * ((1 - fx) * at(i, j + 1) + fx * at(i + 1, j + 1));
}

/// R', G', B' by the equations of ITU-T H.273, 8.3.
std::array<double, 3> expected(const Raw& raw, const std::vector<std::vector<int>>& planes, const Matrix& matrix,
                               const Siting& siting, bool full, int x, int y) {
    const int w = wide >> raw.half_across, h = high >> raw.half_down;
    const double px = raw.half_across != 0 ? (x - siting.x) / 2 : x, py = raw.half_down != 0 ? (y - siting.y) / 2 : y;
    const double unit = std::ldexp(1.0, raw.bits - 8), most = std::ldexp(1.0, raw.bits) - 1;
    const double luma = planes[0][static_cast<std::size_t>(y * wide + x)];
    const double middle = 128 * unit;
    const double Y = full ? luma / most : (luma - 16 * unit) / (219 * unit);
    const double cb = (between(planes[1], w, h, px, py) - middle) / (full ? most : 224 * unit);
    const double cr = (between(planes[2], w, h, px, py) - middle) / (full ? most : 224 * unit);
    const double r = Y + 2 * (1 - matrix.red) * cr, b = Y + 2 * (1 - matrix.blue) * cb;
    return {r, (Y - matrix.red * r - matrix.blue * b) / (1 - matrix.red - matrix.blue), b};
}

image::Image made(int width, int height, int number, image::Depth depth, bool alpha = false) {
    image::Image image = image::image_of(image::generated(width, height, [&](int x, int y) {
        return std::array<double, 3>{x / (width - 1.0), y / (height - 1.0), 0.1 * number};
    }));
    image.depth = depth;
    image.space = "rec709";
    if (alpha) {
        image::Samples values(image.pixels());
        for (std::size_t i = 0; i < values.size(); ++i)
            values[i] = static_cast<float>(i % static_cast<std::size_t>(width)) / static_cast<float>(width - 1);
        image.channels.push_back({"A", image::make_plane(std::move(values))});
        image.alpha = image::Alpha::straight;
    }
    return image;
}

Result<io::SaveReport> write_frames(const io::MovieOrder& order, int count,
                                    const std::function<image::Image(int)>& frame) {
    int given = 0;
    return io::write_movie(order, [&]() -> Result<std::optional<image::Image>> {
        return given == count ? std::optional<image::Image>() : std::optional(frame(++given));
    });
}

double farthest(const image::Image& a, const image::Image& b) {
    double most = 0;
    REQUIRE(a.channels.size() == b.channels.size());
    for (const image::Channel& channel : a.channels) {
        const image::Channel* other = b.find(channel.name);
        REQUIRE(other);
        for (std::size_t i = 0; i < a.pixels(); ++i)
            most = std::max(
                most, std::fabs(static_cast<double>((*channel.plane)[i]) - static_cast<double>((*other->plane)[i])));
    }
    return most;
}

} // namespace

TEST_CASE("luma and chroma mean what ITU-T H.273 says: every matrix, range and place of chroma", "[io][movies]") {
    const TemporaryFolder folder;
    std::mt19937 random(20260);
    double worst = 0;
    for (const Raw& raw : {Raw{"yuv420p", 8, 1, 1}, Raw{"yuv422p10le", 10, 1, 0}, Raw{"yuv420p10le", 10, 1, 1},
                           Raw{"yuv444p12le", 12, 0, 0}, Raw{"yuv422p", 8, 1, 0}})
        for (const Matrix& matrix : matrices)
            for (const Siting& siting : sitings)
                for (const bool full : {false, true}) {
                    if (raw.half_down == 0 && &siting != sitings)
                        continue; // chroma of 4:2:2 lies on luma (ITU-R BT.709, item 3.7)
                    const auto planes = codes_of(raw, random);
                    write_raw(folder / "raw", raw, planes);
                    const auto movie = folder / "a.mkv";
                    ffmpeg(fmt::format("-f rawvideo -pix_fmt {} -s {}x{} -i '{}' -vf "
                                       "setparams=colorspace={}:range={} -chroma_sample_location {} -c:v ffv1 '{}'",
                                       raw.pixels, wide, high, (folder / "raw").string(), matrix.name,
                                       full ? "pc" : "tv", siting.name, movie.string()));
                    INFO(raw.pixels << " " << matrix.name << " " << siting.name << (full ? " full" : " narrow"));
                    const auto image = io::load(movie);
                    REQUIRE(image);
                    double off = 0;
                    for (int y = 0; y < high; ++y)
                        for (int x = 0; x < wide; ++x) {
                            const auto want = expected(raw, planes, matrix, siting, full, x, y);
                            for (std::size_t c = 0; c < 3; ++c)
                                off = std::max(off,
                                               std::fabs(want[c] -
                                                         static_cast<double>((
                                                             *image.value().channels[c].plane)[static_cast<std::size_t>(
                                                             y * wide + x)])));
                        }
                    CHECK(off < 1e-6);
                    worst = std::max(worst, off);
                    CHECK(image.value().depth == (raw.bits == 8 ? image::Depth::uint8 : image::Depth::uint16));
                }
    CHECK(worst > 0); // of floats
}

TEST_CASE("every frame is the one of its number, its time and its timecode, in any order", "[io][movies]") {
    const TemporaryFolder folder;
    constexpr int frames = 60;
    for (const char* name : {"a.mov", "a.mkv", "a.mp4"}) {
        const auto movie = folder / name;
        counting_movie(movie, frames, "25", std::string(name) == "a.mp4" ? "-c:a aac" : "");
        const auto luma = [&](const std::string& at) {
            const auto image = io::load(movie.string() + at);
            INFO(movie.string() + at);
            REQUIRE(image);
            REQUIRE(image.value().movie);
            return std::lround(static_cast<double>((*image.value().channels[1].plane)[100]) * 219 / 3);
        };
        std::mt19937 random(7);
        for (int i = 0; i < 40; ++i) {
            const int number = std::uniform_int_distribution<int>(1, frames)(random);
            CHECK(luma(fmt::format("@{}", number)) == number);
        }
        for (int number = 1; number <= frames; ++number) // and one after the other
            CHECK(luma(fmt::format("@{}", number)) == number);
        CHECK(luma("") == 1);
        CHECK(luma("@0.0s") == 1);
        CHECK(luma("@1.0s") == 26);
        CHECK(luma("@1.03s") == 26);
        CHECK(luma("@01:00:00:00") == 1);
        CHECK(luma("@01:00:01:05") == 31);
        const auto facts = io::movie_facts(movie);
        REQUIRE(facts);
        CHECK(facts.value() == image::MoviePlace{1, frames, 25, 1, "01:00:00:00"});
        CHECK(io::load(movie.string() + "@12").value().movie->timecode == "01:00:00:11");
        for (const char* none : {"@0", "@61", "@99.5s", "@02:00:00:00", "@00:59:59:24"})
            CHECK_THAT(io::load(movie.string() + none).error().text(), Contains("it has no frame"));
    }
}

TEST_CASE("a frame's name is told from that of a file", "[io][movies]") {
    CHECK(movie_frame("a/b.mov@12").at == "12");
    CHECK(movie_frame("a/b.MOV@4.5s").movie == "a/b.MOV");
    CHECK(movie_frame("b.mkv@01:00:00;02").at == "01:00:00;02");
    CHECK(movie_frame("b.mov").at.empty());
    CHECK(movie_frame("b.mov").movie == "b.mov");
    for (const char* none : {"b.exr", "b.exr@12", "b@12.mov.png", "mov@12", "b.mov@", "b.mov@x", "b.mov@1:2"})
        CHECK(movie_frame(none).movie.empty());
    CHECK(file_of("b.mov@7") == "b.mov");
    CHECK(file_of("b.png") == "b.png");
    CHECK(frame_path("b.mov", 7) == "b.mov@7");
    CHECK(frame_path("b.mov", 1) == "b.mov");
    const TemporaryFolder folder; // a file of the whole name is meant first
    write(folder / "b.mov@7", "");
    CHECK(movie_frame(folder / "b.mov@7").movie.empty());
    const io::Sequence sequence = io::sequence_of_movie("b.mov", 5, 3);
    REQUIRE(sequence.frames.size() == 5);
    CHECK((sequence.at == 2 && sequence.frames[2].path == "b.mov@3" && sequence.frames[0].path == "b.mov"));
    CHECK(io::sequence_of_movie("b.mov", 1, 1).frames.empty());
}

TEST_CASE("what a movie does not say of its numbers is usual, and said to be assumed", "[io][movies]") {
    const TemporaryFolder folder;
    const auto tagged = [&](int height, const std::string& tags) {
        const auto movie = folder / "t.mkv";
        ffmpeg(fmt::format("-f lavfi -i color=gray:s=64x{}:r=25:d=0.04 -vf format=yuv422p{} -c:v ffv1 '{}'", height,
                           tags, movie.string()));
        return io::load(movie).value();
    };
    const auto none = tagged(720, ""), small = tagged(480, "");
    CHECK((none.space == "rec709" && none.space_from == "assumed"));
    CHECK(small.space == "rec601-525");
    CHECK(std::any_of(none.notes.begin(), none.notes.end(),
                      [](const std::string& n) { return n.find("that of BT.709 was taken") != std::string::npos; }));
    CHECK(std::any_of(small.notes.begin(), small.notes.end(),
                      [](const std::string& n) { return n.find("that of BT.601 was taken") != std::string::npos; }));
    struct Row {
        const char *primaries, *transfer, *space;
    };
    for (const Row& row : {Row{"bt2020", "smpte2084", "rec2100-pq"}, Row{"bt2020", "arib-std-b67", "rec2100-hlg"},
                           Row{"bt709", "iec61966-2-1", "srgb"}, Row{"bt709", "smpte170m", "rec709"},
                           Row{"bt2020", "bt2020-12", "rec2020"}, Row{"smpte432", "iec61966-2-1", "p3-d65-srgb"}}) {
        const auto image = tagged(720,
                                  fmt::format(",setparams=color_primaries={}:color_trc={}:range=tv:colorspace=bt709",
                                              row.primaries, row.transfer));
        CHECK(image.space == row.space);
        CHECK(image.space_from == "tags of the movie");
        CHECK(image.notes.empty());
    }
    CHECK_FALSE(tagged(720, ",setparams=color_primaries=film:color_trc=log316").notes.empty());
}

TEST_CASE("every kind of movie that is written reads as it was given, by itself and by FFmpeg's program",
          "[io][movies]") {
    const TemporaryFolder folder;
    constexpr int frames = 6;
    for (const io::MovieKind& kind : io::movie_kinds())
        for (const bool alpha : {false, true})
            for (const auto depth : {image::Depth::uint8, image::Depth::uint16}) {
                INFO(kind.name << (alpha ? " alpha" : "") << (depth == image::Depth::uint8 ? " 8" : " 16"));
                const auto movie = folder / ("w" + std::string(kind.ending));
                io::MovieOrder order;
                order.out = movie;
                order.codec = kind.name;
                order.rate = 24000;
                order.per = 1001;
                order.timecode = "10:20:30:05";
                order.made = "abc";
                const auto report = write_frames(order, frames, [&](int n) { return made(64, 48, n, depth, alpha); });
                REQUIRE(report);
                const auto facts = io::movie_facts(movie);
                REQUIRE(facts);
                CHECK(facts.value() == image::MoviePlace{1, frames, 24000, 1001, "10:20:30:05"});
                CHECK(io::made_by(movie) == "abc");
                const bool keeps = alpha && !kind.alpha_pixels.empty();
                double off = 0;
                for (int n = 1; n <= frames; ++n) {
                    const auto read = io::load(frame_path(movie, n)).value();
                    CHECK(read.space == "rec709");
                    off = std::max(off, farthest(made(64, 48, n, depth, keeps), read));
                }
                const double step = kind.exact ? (depth == image::Depth::uint8 ? 1 / 255.0 : 1 / 65535.0) : 0;
                CHECK(off <= (kind.exact ? 0.5001 * step : 0.03));
                // What is said of it is what is measured: of the colours, that is, not of alpha.
                const std::string said = report.value().notes.back();
                double told = -1;
                REQUIRE(std::sscanf(said.c_str(), "read again: off by %lf", &told) == 1);
                if (!keeps)
                    CHECK(std::fabs(told - off) <= 0.06 * off + 1e-9); // two digits are told
                CHECK(report.value().notes.size() == (alpha && !keeps ? 2 : 1));
                // Another reader: FFmpeg's program finds the tags, and the numbers by its own conversion.
                CHECK(probed(movie, "stream=color_primaries") == "bt709");
                CHECK(probed(movie, "stream=color_transfer") == "bt709");
                CHECK(probed(movie, "stream=color_space") == (kind.rgb ? "gbr" : "bt709"));
                CHECK(probed(movie, "stream=r_frame_rate") == "24000/1001");
                CHECK(words_of("ffprobe -v error -count_frames -show_entries stream=nb_read_frames -of csv=p=0 '" +
                               movie.string() + "'")
                          .starts_with(std::to_string(frames)));
                const std::size_t bytes = kind.exact && depth == image::Depth::uint8 ? 1 : 2;
                ffmpeg(fmt::format(
                    "-i '{}' -vf scale=out_range=pc:flags=accurate_rnd+full_chroma_int+bilinear -frames:v 1 "
                    "-pix_fmt {} -f rawvideo '{}'",
                    movie.string(), bytes == 1 ? "rgb24" : "rgb48le", (folder / "rgb").string()));
                const std::string raw = content_of(folder / "rgb");
                REQUIRE(raw.size() == 64 * 48 * 3 * bytes);
                double apart = 0;
                const auto own = io::load(movie).value();
                for (std::size_t i = 0; i < 64 * 48; ++i)
                    for (std::size_t c = 0; c < 3; ++c) {
                        const auto byte = [&](std::size_t k) {
                            return static_cast<unsigned char>(raw[(i * 3 + c) * bytes + k]);
                        };
                        const double theirs = bytes == 1 ? byte(0) / 255.0 : (byte(0) + 256 * byte(1)) / 65535.0;
                        apart = std::max(apart, std::fabs(theirs - static_cast<double>((*own.channels[c].plane)[i])));
                    }
                CHECK(apart < (kind.exact ? 1e-6 : 0.015)); // its own luma and chroma are of fewer bits
            }
}

TEST_CASE("what cannot be a movie is refused, and leaves nothing", "[io][movies]") {
    const TemporaryFolder folder;
    const auto text = [&](const std::filesystem::path& path) { return io::load(path).error().text(); };
    write(folder / "words.mov", "these are words");
    CHECK_THAT(text(folder / "words.mov"), Contains("cannot be read as a movie"));
    CHECK_THAT(text(folder / "none.mov@3"), Contains("there is no such file"));
    counting_movie(folder / "whole.mkv", 30);
    const std::string whole = content_of(folder / "whole.mkv");
    std::mt19937 random(5);
    for (int i = 0; i < 30; ++i) { // cut and altered: an error or some picture, never the end of us
        std::string bytes = whole.substr(0, std::uniform_int_distribution<std::size_t>(1, whole.size())(random));
        for (int k = 0; k < 5; ++k)
            bytes[std::uniform_int_distribution<std::size_t>(0, bytes.size() - 1)(random)] =
                static_cast<char>(random());
        write(folder / "cut.mkv", bytes);
        const auto image = io::load((folder / "cut.mkv").string() + fmt::format("@{}", i % 5 + 1));
        if (image)
            CHECK(image.value().width == 64);
        else
            CHECK_FALSE(image.error().text().empty());
    }
    ffmpeg("-f lavfi -i sine=d=1 '" + (folder / "sound.mov").string() + "'");
    CHECK_THAT(text(folder / "sound.mov"), Contains("no moving pictures"));
    io::MovieOrder order;
    order.out = folder / "out.mp4";
    const auto frame = [&](int n) { return made(64, 48, n, image::Depth::uint16); };
    CHECK_THAT(write_frames(order, 2, frame).error().text(), Contains("no movie can be written with this ending"));
    order.out = folder / "out.mov";
    order.codec = "ffv1";
    CHECK_THAT(write_frames(order, 2, frame).error().text(), Contains("no movie of the kind ffv1"));
    order.codec = "prores422";
    CHECK_THAT(write_frames(order, 1, [](int n) { return made(63, 48, n, image::Depth::uint16); }).error().text(),
               Contains("even width"));
    order.codec.clear();
    CHECK_THAT(
        write_frames(order, 3, [](int n) { return made(62 + 2 * n, 48, n, image::Depth::uint16); }).error().text(),
        Contains("not of one size"));
    CHECK_THAT(write_frames(order, 0, frame).error().text(), Contains("no frame to write"));
    CHECK_FALSE(std::filesystem::exists(folder / "out.mov"));
    for (const auto& entry : std::filesystem::directory_iterator(folder.path))
        CHECK_FALSE(entry.path().filename().string().find("out") != std::string::npos);
    // An odd width goes into what can hold it.
    REQUIRE(write_frames(order, 1, [](int n) { return made(63, 48, n, image::Depth::uint16); }));
    CHECK(probed(order.out, "stream=pix_fmt").starts_with("yuv444p"));
}

TEST_CASE("turned and woven movies are seen upright, and said to be woven", "[io][movies]") {
    const TemporaryFolder folder;
    ffmpeg("-f lavfi -i color=gray:s=64x32:r=25:d=0.2 -vf format=yuv420p -c:v libx264 '" +
           (folder / "flat.mp4").string() + "'");
    ffmpeg("-i '" + (folder / "flat.mp4").string() + "' -c copy -metadata:s:v rotate=90 '" +
           (folder / "turned.mp4").string() + "'");
    const auto turned = io::load(folder / "turned.mp4").value();
    CHECK((turned.width == 32 && turned.height == 64));
    ffmpeg(
        "-f lavfi -i testsrc2=s=64x64:r=50:d=0.2 -vf format=yuv422p10le,interlace -c:v prores_ks -flags +ildct+ilme '" +
        (folder / "woven.mov").string() + "'");
    // Chroma of 4:2:0 belongs to its field: a quarter of a field's line below the first one of the upper field, three
    // quarters of the lower (ISO/IEC 13818-2, figure 6-3).
    std::mt19937 random(3);
    const Raw raw{"yuv420p", 8, 1, 1};
    const auto planes = codes_of(raw, random);
    write_raw(folder / "raw", raw, planes);
    ffmpeg(fmt::format("-f rawvideo -pix_fmt yuv420p -s {}x{} -i '{}' -vf "
                       "setparams=colorspace=bt709:range=tv:field_mode=tff -c:v ffv1 '{}'",
                       wide, high, (folder / "raw").string(), (folder / "fields.mkv").string()));
    const auto fields = io::load(folder / "fields.mkv").value();
    double off = 0;
    for (int field = 0; field < 2; ++field) {
        const auto lines = [&](const std::vector<int>& plane, int w) {
            std::vector<int> own;
            for (std::size_t y = static_cast<std::size_t>(field); y * static_cast<std::size_t>(w) < plane.size();
                 y += 2)
                own.insert(own.end(), plane.begin() + static_cast<std::ptrdiff_t>(y) * w,
                           plane.begin() + (static_cast<std::ptrdiff_t>(y) + 1) * w);
            return own;
        };
        const std::vector<int> cr = lines(planes[2], wide / 2);
        for (int y = 0; y < high / 2; ++y)
            for (int x = 0; x < wide; ++x) {
                const auto at = static_cast<std::size_t>((2 * y + field) * wide + x);
                const double red = (planes[0][at] - 16) / 219.0 +
                    2 * (1 - 0.2126) *
                        (between(cr, wide / 2, high / 4, x / 2.0, (y - (field == 0 ? 0.25 : 0.75)) / 2) - 128) / 224.0;
                off = std::max(off, std::fabs(red - static_cast<double>((*fields.channels[0].plane)[at])));
            }
    }
    CHECK(off < 1e-6);
    const auto woven = io::load(folder / "woven.mov").value();
    CHECK(std::any_of(woven.notes.begin(), woven.notes.end(),
                      [](const std::string& n) { return n.find("interlaced") != std::string::npos; }));
}
