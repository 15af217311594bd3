#include "io/movie_file.hpp"

#include "base/file.hpp"
#include "base/memory.hpp"
#include "base/movie_name.hpp"
#include "io/picture_process.hpp"
#include "io/png_chunks.hpp"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <fmt/format.h>

namespace kasuri::io {
using image::Image;
using wire::Message;
using Kind = Message::Kind;

namespace {

constexpr const char *own_space = "kasuri:space", *own_made = "kasuri:made";
constexpr int unsaid = 2; ///< ITU-T H.273: unspecified, in each of its tables

/// Curves that are one function under several names (ITU-T H.273, table 3: 1, 6, 14 and 15).
int one_of_alike(int transfer) { return transfer == 6 || transfer == 14 || transfer == 15 ? 1 : transfer; }

/// SMPTE ST 12-1: two digits each of frames, seconds, minutes and hours, from the lowest bits; the flag of dropped
/// frames above those of frames.
std::optional<std::uint32_t> packed_timecode(const std::string& text) {
    unsigned hours = 0, minutes = 0, seconds = 0, frames = 0;
    char mark = 0;
    if (std::sscanf(text.c_str(), "%2u:%2u:%2u%c%2u", &hours, &minutes, &seconds, &mark, &frames) != 5)
        return std::nullopt;
    const auto digits = [](unsigned n) { return n / 10 << 4 | n % 10; };
    return digits(hours) << 24 | digits(minutes) << 16 | digits(seconds) << 8 | digits(frames) |
        (mark == ';' ? 0x40U : 0U);
}

} // namespace

std::span<const MovieKind> movie_kinds() {
    static constexpr MovieKind rows[] = {
        {"prores422", ".mov", "mov", "prores_ks", "profile=hq", "yuv422p10le", "", "", "", false, false, true,
         "ProRes 422 HQ, 10 bits, half the chroma across"},
        {"prores4444", ".mov", "mov", "prores_ks", "profile=4444", "yuv444p10le", "yuva444p10le", "", "", false, false,
         false, "ProRes 4444, 10 bits, with alpha"},
        {"ffv1", ".mkv", "matroska", "ffv1", "level=3:g=1:slices=4:slicecrc=1", "gbrp16le", "gbrap16le", "bgr0", "bgra",
         true, true, false, "FFV1 (RFC 9043), R, G, B of 16 or 8 bits, without loss"},
    };
    return rows;
}

Result<const MovieKind*> movie_kind(const std::filesystem::path& path, std::string_view name, bool alpha, int width) {
    const std::string ending = lower_ending(path);
    std::vector<std::string> known;
    for (const MovieKind& kind : movie_kinds()) {
        known.push_back(fmt::format("{} ({})", kind.name, kind.ending));
        const bool holds = (!alpha || !kind.alpha_pixels.empty()) && !(kind.half_chroma && width % 2 != 0);
        if (kind.ending == ending && (name.empty() ? holds : kind.name == name))
            return &kind;
    }
    return Error{name.empty() ? said("no movie can be written with this ending")
                              : said("no movie of the kind {} can be written with this ending", name),
                 path.string(), said("There is: {}.", fmt::join(known, ", "))};
}

Declared declared_of_movie(const wire::Header& header) {
    Declared made;
    if (const std::string own = header.text(own_space); !own.empty()) {
        if (colour::find_space(own))
            return {own, "words of the movie"};
        made.notes.push_back(said("the movie names the space {}, which is not known here", own));
    }
    int primaries = header.whole("movie:primaries", unsaid), transfer = header.whole("movie:transfer", unsaid);
    const bool tagged = primaries != unsaid && transfer != unsaid;
    made.how = tagged ? "tags of the movie" : "assumed";
    // What is usual for the lines that there are (common practice, no source).
    constexpr int lines_525 = 486, lines_625 = 576;
    if (primaries == unsaid)
        primaries = header.height <= lines_525 ? 6 : header.height <= lines_625 ? 5 : 1;
    if (transfer == unsaid)
        transfer = 1;
    const auto code = [](int value) { return static_cast<std::uint8_t>(std::clamp(value, 0, 255)); };
    for (const int each : {transfer, one_of_alike(transfer), primaries == 5 || primaries == 6 ? 6 : 1})
        if (const std::string_view space = space_of({code(primaries), code(each)});
            !space.empty() && one_of_alike(each) == one_of_alike(transfer)) {
            made.space = space;
            break;
        }
    if (made.space.empty()) {
        made.notes.push_back(said("its tags name primaries {} and transfer {}, which are not known here; the usual "
                                  "space is assumed",
                                  primaries, transfer));
        made.space = "rec709";
        made.how = "assumed";
    }
    return made;
}

void keep_movie(Image& image, const wire::Header& header) {
    image.movie =
        image::MoviePlace{header.whole("movie:frame", 1), header.whole("movie:frames", 1),
                          header.whole("movie:rate", 0), header.whole("movie:per", 1), header.text("movie:timecode")};
    if (const auto code = packed_timecode(image.movie->timecode)) {
        image::Attribute kept{"smpte:TimeCode", "timecode", {}, std::vector<unsigned char>(8), image.movie->timecode};
        for (std::size_t i = 0; i < 4; ++i)
            kept.data[i] = static_cast<unsigned char>(*code >> (8 * i));
        image.attributes.push_back(std::move(kept));
    }
    if (header.whole("movie:matrix", 0) != 0 && header.whole("movie:matrix-said", 1) == 0)
        image.notes.push_back(said("it does not say which matrix its luma and chroma have: that of {} was taken",
                                   header.whole("movie:matrix", 0) == 1 ? "BT.709" : "BT.601"));
    if (header.whole("movie:matrix", 0) != 0 && header.whole("movie:range-said", 1) == 0)
        image.notes.push_back(said("it does not say the range of its code values: the narrow one was taken"));
    if (header.whole("movie:interlaced", 0) != 0)
        image.notes.push_back(said("it is interlaced: two fields of different times are woven into each frame"));
}

Result<image::MoviePlace> movie_facts(const std::filesystem::path& movie) {
    if (const Status readable = readable_file(file_of(movie)); !readable)
        return readable.error();
    const Result<PictureSource> source = PictureSource::open(movie);
    if (!source)
        return source.error();
    Image image;
    keep_movie(image, source.value().header());
    return *image.movie;
}

namespace {

/// R, G, B (and A) of a frame, pixel by pixel; of R, G, B as they are what does not fit is counted (luma
/// and chroma hold more than 0 .. 1: what is lost there is known when it is read again).
void interleave(const image::Picture& given, std::size_t channels, bool whole, float* to, SaveReport& report) {
    const image::Picture picture = image::as_floats(given);
    for (std::size_t i = 0; i < picture.pixels(); ++i)
        for (std::size_t c = 0; c < channels; ++c) {
            const float value = picture.planes[c] ? (*picture.planes[c])[i] : 1;
            report.not_finite += std::isfinite(value) ? 0 : 1;
            report.clipped += whole && std::isfinite(value) && (value < 0 || value > 1) ? 1 : 0;
            *to++ = value;
        }
}

/// The header for frames like `image`.
wire::Header header_for(const MovieOrder& order, const MovieKind& kind, const Image& image,
                        const image::Picture& picture, SaveReport& report) {
    wire::Header header;
    header.format = "movie";
    header.width = picture.width;
    header.height = header.rows = picture.height;
    const bool alpha = picture.planes[3] && !kind.alpha_pixels.empty(),
               byte = image.depth == image::Depth::uint8 && !kind.byte_pixels.empty();
    header.channels = {"R", "G", "B"};
    if (alpha)
        header.channels.emplace_back("A");
    else if (picture.planes[3])
        report.notes.push_back(said("{} has no place for alpha: it was left out", kind.name));
    const auto set = [&](const char* name, std::string_view text) { header.set(name, std::string(text)); };
    set("movie:container", kind.container);
    set("movie:encoder", kind.encoder);
    set("movie:options", kind.options);
    set("movie:pixels",
        byte ? (alpha ? kind.byte_alpha_pixels : kind.byte_pixels) : (alpha ? kind.alpha_pixels : kind.pixels));
    header.set("movie:exact", kind.exact ? 1 : 0);
    header.set("movie:rate", order.rate);
    header.set("movie:per", order.per);
    header.set("movie:first", order.first - 1);
    header.set("movie:count", order.count);
    if (!order.timecode.empty())
        header.set("movie:timecode", order.timecode);
    const std::optional<CodePoints> points = code_points_of(image.space);
    const int primaries = points ? (*points)[0] : unsaid;
    header.set("movie:primaries", primaries);
    header.set("movie:transfer", points ? (*points)[1] : unsaid);
    // BT.601 and BT.2020 have matrices of their own (ITU-T H.273, table 4); what has none is written with BT.709's.
    header.set("movie:matrix", kind.rgb ? 0 : primaries == 9 || primaries == 5 || primaries == 6 ? primaries : 1);
    set(own_space, image.space);
    if (!order.made.empty())
        header.set(own_made, order.made);
    if (!points)
        report.notes.push_back(said("a movie's tags cannot say that its numbers are of {}: its words do, which others "
                                    "may not read",
                                    image.space));
    return header;
}

/// Frame after frame to the process that writes.
class Sender {
public:
    Sender(const std::filesystem::path& path, const MovieOrder& order, SaveReport& report)
        : path_(path), order_(order), report_(report) {}

    Status add(const Image& image) {
        const auto picture = image::picture_of(image, image::usual_layer(image));
        if (!picture)
            return Error{"has no channel to write", order_.out.string(), ""};
        if (!lease_)
            if (const Status begun = begin(image, *picture); !begun)
                return begun;
        if (picture->width != width_ || picture->height != height_)
            return Error{said("its frames are not of one size: {} x {} after {} x {}", picture->width, picture->height,
                              width_, height_),
                         order_.out.string(), "Write them into movies of their own."};
        if (image.space != space_)
            return Error{said("its frames are not of one space: {} after {}", image.space, space_), order_.out.string(),
                         "Say which space to write (--out-space)."};
        for (; out_ == (*lease_)->slots().count(); --out_)
            if (const Status freed = answered((*lease_)->answer()); !freed)
                return freed;
        interleave(*picture, channels_, whole_, (*lease_)->slots().at(slot_), report_);
        Message filled{Kind::filled};
        filled.n = {slot_, 0, height_};
        slot_ = (slot_ + 1) % (*lease_)->slots().count();
        ++out_;
        return (*lease_)->tell(filled);
    }

    Status finish() {
        if (!lease_)
            return Error{"there is no frame to write", order_.out.string(), ""};
        for (; out_ > 0; --out_)
            if (const Status freed = answered((*lease_)->answer()); !freed)
                return freed;
        const Result<Message> answer = (*lease_)->ask({Kind::finish});
        if (const Status done = answered(answer); !done)
            return done;
        const Message& done = answer.value();
        const auto part = [&](std::size_t i) { return static_cast<double>(done.n[i]) * 1e-9; };
        report_.notes.push_back(
            said("read again: off by {:.2g} at most (frame {}), by {:.2g} on average", part(0), done.n[2], part(1)));
        if (!done.text.empty())
            report_.notes.push_back(
                said("what could not go along from {}: {}", order_.sound_of.filename().string(), done.text));
        if (const Result<Message> closed = (*lease_)->ask({Kind::close}); closed && closed.value().kind == Kind::done)
            (*lease_)->rest();
        return {};
    }

private:
    Status begin(const Image& image, const image::Picture& picture) {
        const Result<const MovieKind*> kind =
            movie_kind(order_.out, order_.codec, picture.planes[3] != nullptr, picture.width);
        if (!kind)
            return kind.error();
        if (kind.value()->half_chroma && picture.width % 2 != 0)
            return Error{said("{} holds pictures of an even width only, and these are {} wide", kind.value()->name,
                              picture.width),
                         order_.out.string(), "Use prores4444."};
        Result<HelperLease> lease = HelperLease::of(Task::movies, order_.out.string());
        if (!lease)
            return lease.error();
        lease_.emplace(std::move(lease.value()));
        Message asked{Kind::create, path_.string(), order_.sound_of.string()};
        asked.head = header_for(order_, *kind.value(), image, picture, report_);
        width_ = picture.width;
        height_ = picture.height;
        space_ = image.space;
        whole_ = kind.value()->rgb;
        channels_ = asked.head->channels.size();
        const std::size_t bytes = sizeof(float) * picture.pixels() * channels_;
        asked.n = {static_cast<std::int64_t>(bytes), 2};
        if (!(*lease_)->slots().arrange(bytes, 2, true))
            return no_memory(order_.out.string());
        return answered((*lease_)->ask(asked));
    }

    Status answered(const Result<Message>& answer) const {
        if (!answer)
            return answer.error();
        const Message& got = answer.value();
        if (got.kind == Kind::done || got.kind == Kind::freed)
            return {};
        if (got.n[0] == 1)
            return no_memory(order_.out.string());
        return Error{said("cannot be written ({})", got.text), order_.out.string(),
                     "Is the folder writable, and is there space?"};
    }

    const std::filesystem::path& path_;
    const MovieOrder& order_;
    SaveReport& report_;
    std::optional<HelperLease> lease_;
    int width_ = 0, height_ = 0, slot_ = 0, out_ = 0;
    std::size_t channels_ = 3;
    bool whole_ = false;
    std::string space_;
};

} // namespace

Result<SaveReport> write_movie(const MovieOrder& order, const std::function<Result<std::optional<Image>>()>& next) {
    SaveReport report;
    const Status written = write_atomically(order.out, [&](const std::filesystem::path& temporary) -> Status {
        Sender sender(temporary, order, report);
        for (;;) {
            const Result<std::optional<Image>> frame = next();
            if (!frame)
                return frame.error();
            if (!frame.value())
                return sender.finish();
            if (const Status added = sender.add(*frame.value()); !added)
                return added;
        }
    });
    if (!written)
        return written.error();
    return report;
}

} // namespace kasuri::io
