#include "movies/reader.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <sys/stat.h>

namespace kasuri::helpers {
namespace {

std::string text_of(const AVDictionary* words, const char* name) {
    const AVDictionaryEntry* const found = av_dict_get(words, name, nullptr, 0);
    return found && found->value ? found->value : "";
}

bool identity_of(const std::string& path, std::int64_t* id) {
    struct stat facts {};
    if (::stat(path.c_str(), &facts) != 0)
        return false;
    id[0] = static_cast<std::int64_t>(facts.st_ino);
    id[1] = facts.st_size;
    id[2] = facts.st_mtim.tv_sec;
    id[3] = facts.st_mtim.tv_nsec;
    return true;
}

} // namespace

AVDictionary* careful_options() {
    AVDictionary* options = nullptr;
    av_dict_set(&options, "protocol_whitelist", "file", 0);
    av_dict_set(&options, "format_whitelist",
                "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mxf,mxf_opatom,mpegts,mpeg,nut,ogg,asf,flv,gxf", 0);
    return options;
}

std::unique_ptr<Movie> Movie::open(const std::string& path, std::string& reason, const std::function<void()>& alive) {
    std::unique_ptr<Movie> movie(new Movie);
    movie->path_ = path;
    AVFormatContext* opened = nullptr;
    AVDictionary* options = careful_options();
    identity_of(path, movie->identity_);
    int error = avformat_open_input(&opened, ("file:" + path).c_str(), nullptr, &options);
    av_dict_free(&options);
    if (error < 0) {
        reason = reason_of(error);
        return nullptr;
    }
    movie->input_.reset(opened);
    opened->flags |= AVFMT_FLAG_GENPTS;
    if (error = avformat_find_stream_info(opened, nullptr); error < 0) {
        reason = reason_of(error);
        return nullptr;
    }
    const AVCodec* codec = nullptr;
    movie->stream_ = av_find_best_stream(opened, AVMEDIA_TYPE_VIDEO, -1, -1, &codec, 0);
    if (movie->stream_ < 0 || !codec) {
        reason = movie->stream_ == AVERROR_DECODER_NOT_FOUND ? "there is no decoder for its pictures"
                                                             : "there are no moving pictures in it";
        return nullptr;
    }
    AVStream* const stream = opened->streams[movie->stream_];
    for (unsigned i = 0; i < opened->nb_streams; ++i)
        opened->streams[i]->discard = static_cast<int>(i) == movie->stream_ ? AVDISCARD_DEFAULT : AVDISCARD_ALL;
    movie->coder_.reset(avcodec_alloc_context3(codec));
    AVCodecContext* const coder = movie->coder_.get();
    avcodec_parameters_to_context(coder, stream->codecpar);
    coder->pkt_timebase = stream->time_base;
    coder->thread_count = 0;
    coder->max_pixels = std::int64_t{1} << 28;
    if (error = avcodec_open2(coder, codec, nullptr); error < 0) {
        reason = reason_of(error);
        return nullptr;
    }
    movie->rate_ = stream->avg_frame_rate.num > 0 && stream->avg_frame_rate.den > 0 ? stream->avg_frame_rate
                                                                                    : stream->r_frame_rate;
    if (!movie->index(alive)) {
        reason = "it has no frames";
        return nullptr;
    }
    movie->first_timecode_ = text_of(stream->metadata, "timecode");
    for (unsigned i = 0; i < opened->nb_streams && movie->first_timecode_.empty(); ++i)
        movie->first_timecode_ = text_of(opened->streams[i]->metadata, "timecode");
    if (movie->first_timecode_.empty())
        movie->first_timecode_ = text_of(opened->metadata, "timecode");
    return movie;
}

bool Movie::is_still(const std::string& path) const {
    std::int64_t now[4] = {};
    return path == path_ && identity_of(path, now) && std::equal(now, now + 4, identity_);
}

/// Where the file's own index says of each frame when it is decoded, all at even distances, and when the first one is
/// seen: then they are seen at those distances, in whatever order they are decoded.
bool Movie::index_of_even_frames() {
    AVStream* const stream = input_->streams[stream_];
    const int entries = avformat_index_get_entries_count(stream);
    const std::string_view kind = input_->iformat && input_->iformat->name ? input_->iformat->name : "";
    if (kind.find("mp4") == std::string_view::npos || entries < 2 || stream->nb_frames != entries ||
        stream->start_time == AV_NOPTS_VALUE)
        return false;
    std::int64_t last = 0, step = 0;
    for (int i = 0; i < entries; ++i) {
        const AVIndexEntry* const entry = avformat_index_get_entry(stream, i);
        if (!entry || (entry->flags & AVINDEX_DISCARD_FRAME) != 0 ||
            (i > 0 && (entry->timestamp <= last || (i > 1 && entry->timestamp - last != step))))
            return false;
        step = i > 0 ? entry->timestamp - last : 0;
        last = entry->timestamp;
    }
    for (int i = 0; i < entries; ++i)
        times_.push_back(stream->start_time + i * step);
    return true;
}

bool Movie::index(const std::function<void()>& alive) {
    if (index_of_even_frames())
        return true;
    AVStream* const stream = input_->streams[stream_];
    const AVCodecDescriptor* const kind = avcodec_descriptor_get(stream->codecpar->codec_id);
    const int entries = avformat_index_get_entries_count(stream);
    if (kind && (kind->props & AV_CODEC_PROP_INTRA_ONLY) != 0 && entries > 0 && stream->nb_frames == entries) {
        // Frames stand in the order in which they are shown, and the file says where.
        for (int i = 0; i < entries; ++i)
            if (const AVIndexEntry* const entry = avformat_index_get_entry(stream, i);
                entry && (entry->flags & AVINDEX_DISCARD_FRAME) == 0)
                times_.push_back(entry->timestamp);
    } else {
        constexpr int often = 1000;
        for (int i = 1; av_read_frame(input_.get(), packet_.get()) >= 0; ++i) {
            if (i % often == 0)
                alive();
            if (packet_->stream_index == stream_ && (packet_->flags & AV_PKT_FLAG_DISCARD) == 0)
                if (const std::int64_t time = packet_->pts != AV_NOPTS_VALUE ? packet_->pts : packet_->dts;
                    time != AV_NOPTS_VALUE)
                    times_.push_back(time);
            av_packet_unref(packet_.get());
        }
        // From the beginning again.
        if (avformat_seek_file(input_.get(), stream_, INT64_MIN, INT64_MIN, INT64_MAX, 0) < 0)
            av_seek_frame(input_.get(), -1, 0, AVSEEK_FLAG_BYTE);
        avcodec_flush_buffers(coder_.get());
    }
    std::sort(times_.begin(), times_.end());
    times_.erase(std::unique(times_.begin(), times_.end()), times_.end());
    return !times_.empty();
}

std::int64_t Movie::time(int frame) const {
    const auto count = times_.size();
    if (frame < static_cast<int>(count))
        return times_[static_cast<std::size_t>(std::max(frame, 0))];
    if (rate_.num > 0)
        return times_.back() + av_rescale_q(1, av_inv_q(rate_), stream().time_base);
    return times_.back() + (count > 1 ? times_.back() - times_[count - 2] : 1);
}

std::string Movie::timecode(int frame) const {
    AVTimecode code{};
    if (first_timecode_.empty() || rate_.num <= 0 ||
        av_timecode_init_from_string(&code, rate_, first_timecode_.c_str(), nullptr) < 0)
        return {};
    char text[AV_TIMECODE_STR_SIZE] = {};
    return av_timecode_make_string(&code, text, frame);
}

int Movie::find(const std::string& at) const {
    if (at.empty())
        return 0;
    if (at.back() == 's') {
        const double units = std::strtod(at.c_str(), nullptr) / av_q2d(stream().time_base);
        const auto time = times_.front() + static_cast<std::int64_t>(std::floor(units + 1e-6));
        const auto next = std::upper_bound(times_.begin(), times_.end(), time);
        return time >= this->time(frames()) ? -1 : static_cast<int>(next - times_.begin()) - 1;
    }
    if (at.find(':') != std::string::npos) {
        AVTimecode first{}, wanted{};
        if (first_timecode_.empty() || rate_.num <= 0 ||
            av_timecode_init_from_string(&first, rate_, first_timecode_.c_str(), nullptr) < 0 ||
            av_timecode_init_from_string(&wanted, rate_, at.c_str(), nullptr) < 0)
            return -1;
        const int frame = wanted.start - first.start;
        return frame >= 0 && frame < frames() ? frame : -1;
    }
    const long number = std::strtol(at.c_str(), nullptr, 10);
    return number >= 1 && number <= frames() ? static_cast<int>(number) - 1 : -1;
}

int Movie::decode() {
    for (;;) {
        int error = avcodec_receive_frame(coder_.get(), now_.get());
        if (error >= 0)
            return 1;
        if (error == AVERROR_EOF)
            return 0;
        if (error != AVERROR(EAGAIN))
            return error;
        if (drained_)
            return 0;
        error = av_read_frame(input_.get(), packet_.get());
        if (error < 0) {
            drained_ = true;
            avcodec_send_packet(coder_.get(), nullptr);
            continue;
        }
        if (packet_->stream_index == stream_)
            error = avcodec_send_packet(coder_.get(), packet_.get());
        av_packet_unref(packet_.get());
        if (error < 0 && error != AVERROR_INVALIDDATA && error != AVERROR(EAGAIN))
            return error;
        // A packet that is damaged is left out; what is missing then is told by the times.
    }
}

bool Movie::seek(int frame) {
    avcodec_flush_buffers(coder_.get());
    drained_ = false;
    at_ = -1;
    if (frame > 0 &&
        av_seek_frame(input_.get(), stream_, times_[static_cast<std::size_t>(frame)], AVSEEK_FLAG_BACKWARD) >= 0)
        return true;
    return avformat_seek_file(input_.get(), stream_, INT64_MIN, times_.front(), times_.front(), 0) >= 0 ||
        av_seek_frame(input_.get(), stream_, times_.front(), AVSEEK_FLAG_BACKWARD) >= 0;
}

int Movie::nearest(std::int64_t time) const {
    const auto next = std::lower_bound(times_.begin(), times_.end(), time);
    if (next == times_.end())
        return frames() - 1;
    const auto at = static_cast<int>(next - times_.begin());
    return next != times_.begin() && time - *(next - 1) < *next - time ? at - 1 : at;
}

const AVFrame* Movie::frame(int wanted, std::string& reason) {
    if (wanted == at_)
        return now_.get();
    const std::int64_t time = times_[static_cast<std::size_t>(wanted)];
    // What is a little ahead is reached by decoding on; for the rest it goes back to where decoding can begin.
    constexpr int ahead = 12;
    if ((at_ < 0 && wanted > 0) || wanted < at_ || wanted > at_ + ahead)
        seek(wanted);
    for (int tries = 0; tries < 2;) {
        const int got = decode();
        if (got < 0) {
            reason = reason_of(got);
            at_ = -1;
            return nullptr;
        }
        const std::int64_t here = got == 0 ? INT64_MAX : now_->best_effort_timestamp;
        if (got > 0 && (here == AV_NOPTS_VALUE || nearest(here) == wanted)) {
            at_ = wanted;
            return now_.get();
        }
        if (here > time) { // it began too late, or this one cannot be decoded
            if (++tries == 1)
                seek(0);
        }
    }
    reason = "this frame is damaged";
    at_ = -1;
    return nullptr;
}

int Movie::orientation() const {
    const auto* const turn =
        reinterpret_cast<const std::int32_t*>(av_stream_get_side_data(&stream(), AV_PKT_DATA_DISPLAYMATRIX, nullptr));
    if (!turn)
        return 1;
    // Where a column and a row go: x' = a x + c y, y' = b x + d y.
    const std::int32_t a = turn[0], b = turn[1], c = turn[3], d = turn[4];
    if (a == 0 && d == 0)
        return b > 0 ? (c < 0 ? 6 : 5) : (c > 0 ? 8 : 7);
    return a >= 0 ? (d >= 0 ? 1 : 4) : (d >= 0 ? 2 : 3);
}

} // namespace kasuri::helpers
