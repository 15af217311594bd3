// Reads and writes movies for Kasuri. What is asked and answered: core/wire/message.hpp.
#include "movies/reader.hpp"
#include "movies/writer.hpp"
#include "serve.hpp"

#include <algorithm>
#include <cstdlib>
#include <memory>

using namespace kasuri;
using helpers::Caller;
using wire::Message;
using Kind = Message::Kind;

namespace {

/// The movie that is read or written. One that was read stays open until another one is wanted: the next frame of it is
/// near then.
struct Desk {
    std::unique_ptr<helpers::Movie> movie;
    std::unique_ptr<helpers::MovieOutput> output;
    const AVFrame* frame = nullptr;
    helpers::Tags tags;
    int number = 0;
    bool failed = false; ///< what was still under way when it did is passed over
};

void set_number(wire::Header& header, const char* name, const char* type, int first, int second) {
    const std::int32_t both[2] = {first, second};
    header.set(name, type, both, sizeof both);
    header.attributes.back().shown = std::to_string(first) + "/" + std::to_string(second);
}

wire::Header header_of(Desk& desk) {
    helpers::Movie& movie = *desk.movie;
    const AVFrame& frame = *desk.frame;
    wire::Header header;
    header.format = "movie";
    header.width = frame.width;
    header.height = header.rows = frame.height;
    const int channels = helpers::channels_of(frame), bits = helpers::bits_of(frame);
    if (channels < 3)
        header.channels = {"Y"};
    else
        header.channels = {"R", "G", "B"};
    if (helpers::has_alpha(frame))
        header.channels.emplace_back("A");
    header.depth = bits == 0 ? image::Depth::float32 : bits <= 8 ? image::Depth::uint8 : image::Depth::uint16;
    desk.tags = helpers::tags_of(frame, *movie.stream().codecpar);
    header.set("movie:frame", desk.number + 1);
    header.set("movie:frames", movie.frames());
    header.set("movie:rate", movie.rate().num);
    header.set("movie:per", movie.rate().den);
    header.set("movie:primaries", desk.tags.primaries);
    header.set("movie:transfer", desk.tags.transfer);
    header.set("movie:matrix", desk.tags.matrix);
    header.set("movie:matrix-said", desk.tags.matrix_said ? 1 : 0);
    header.set("movie:range-said", desk.tags.range_said ? 1 : 0);
    header.set("movie:full", desk.tags.full ? 1 : 0);
    header.set("movie:interlaced", frame.interlaced_frame);
    header.set("movie:codec", std::string(avcodec_get_name(movie.stream().codecpar->codec_id)));
    if (const char* const pixels = av_get_pix_fmt_name(static_cast<AVPixelFormat>(frame.format)))
        header.set("movie:pixels", std::string(pixels));
    header.set("Orientation", movie.orientation());
    header.set("oiio:UnassociatedAlpha", 1);
    if (frame.sample_aspect_ratio.num > 0 && frame.sample_aspect_ratio.num != frame.sample_aspect_ratio.den) {
        const auto aspect = static_cast<float>(av_q2d(frame.sample_aspect_ratio));
        header.set("PixelAspectRatio", "float", &aspect, sizeof aspect);
        header.attributes.back().shown = std::to_string(aspect);
    }
    if (const std::string code = movie.timecode(desk.number); !code.empty())
        header.set("movie:timecode", code);
    if (movie.rate().num > 0)
        set_number(header, "FramesPerSecond", "rational2i", movie.rate().num, movie.rate().den);
    for (const char* own : {"kasuri:made", "kasuri:space", "KASURI:MADE", "KASURI:SPACE"}) // Matroska writes capitals
        if (const AVDictionaryEntry* const said =
                av_dict_get(movie.file().metadata, own, nullptr, AV_DICT_MATCH_CASE)) {
            std::string name = own;
            std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
            header.set(name, std::string(said->value));
        }
    return header;
}

void send_frame(int number, Desk& desk, Caller& caller) {
    std::string reason;
    desk.number = number;
    desk.frame = desk.movie->frame(number, reason);
    if (!desk.frame) {
        desk.movie.reset();
        return caller.failed(reason);
    }
    Message answer{Kind::header};
    answer.head = header_of(desk);
    (void)caller.link.send(answer);
}

void open(const Message& asked, Desk& desk, Caller& caller) {
    std::string reason;
    if (!desk.movie || !desk.movie->is_still(asked.text))
        desk.movie = helpers::Movie::open(asked.text, reason, [&] { caller.say(Kind::alive); });
    if (!desk.movie)
        return caller.failed(reason);
    const int number = desk.movie->find(asked.more);
    if (number < 0)
        return caller.failed("it has no frame " + asked.more + ": there are " + std::to_string(desk.movie->frames()));
    send_frame(number, desk, caller);
}

void pixels(const Message& asked, Desk& desk, Caller& caller) {
    if (!desk.frame || !caller.slots.arrange(static_cast<std::size_t>(asked.n[0]), static_cast<int>(asked.n[1]), false))
        return caller.failed("", true);
    if (const std::string reason = helpers::to_rgb(*desk.frame, desk.tags, caller.slots.at(0)); !reason.empty())
        return caller.failed(reason);
    Message filled{Kind::filled};
    filled.n = {0, 0, desk.frame->height};
    (void)caller.link.send(filled);
    caller.say(Kind::done);
}

void create(const Message& asked, Desk& desk, Caller& caller) {
    if (!asked.head || !caller.slots.arrange(static_cast<std::size_t>(asked.n[0]), static_cast<int>(asked.n[1]), false))
        return caller.failed("", true);
    std::string reason;
    desk.output =
        helpers::MovieOutput::create(asked.text, *asked.head, asked.more, reason, [&] { caller.say(Kind::alive); });
    return desk.output ? caller.say(Kind::done) : caller.failed(reason);
}

void write_frame(const Message& filled, Desk& desk, Caller& caller) {
    if (desk.failed || !desk.output)
        return;
    const std::string reason = desk.output->add(caller.slots.at(static_cast<int>(filled.n[0])));
    desk.failed = !reason.empty();
    return desk.failed ? caller.failed(reason) : caller.say(Kind::freed);
}

/// How it reads again, in billionths.
void finish(Desk& desk, Caller& caller) {
    if (desk.failed || !desk.output)
        return;
    const std::string reason = desk.output->finish();
    if (!reason.empty())
        return caller.failed(reason);
    const helpers::MovieOutput::Read& read = desk.output->read();
    Message done{Kind::done, read.left_out};
    const double mean = read.numbers > 0 ? read.sum / static_cast<double>(read.numbers) : 0;
    done.n = {static_cast<std::int64_t>(read.worst * 1e9), static_cast<std::int64_t>(mean * 1e9), read.worst_frame,
              static_cast<std::int64_t>(read.steps * 1000), read.sound ? 1 : 0};
    (void)caller.link.send(done);
}

} // namespace

int main(int argc, char** argv) {
    av_log_set_level(AV_LOG_QUIET);
    Desk desk;
    return helpers::serve(argc, argv, [&desk](const Message& asked, Caller& caller) {
        switch (asked.kind) {
        case Kind::open: return open(asked, desk, caller);
        case Kind::part:
            if (!desk.movie || asked.n[0] < 0 || asked.n[0] >= desk.movie->frames())
                return caller.say(Kind::none);
            return send_frame(static_cast<int>(asked.n[0]), desk, caller);
        case Kind::pixels: return pixels(asked, desk, caller);
        case Kind::create: return create(asked, desk, caller);
        case Kind::filled: return write_frame(asked, desk, caller);
        case Kind::finish: return finish(desk, caller);
        case Kind::close:
            desk.frame = nullptr;
            desk.output.reset();
            desk.failed = false;
            return caller.say(Kind::done);
        default: return; // a slot that was given back
        }
    });
}
