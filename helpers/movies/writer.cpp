#include "movies/writer.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::helpers {
namespace {

std::string failed_with(const char* what, int error) { return std::string(what) + ": " + reason_of(error); }

AVRational rate_in(const wire::Header& header) {
    return {std::max(header.whole("movie:rate", 24), 1), std::max(header.whole("movie:per", 1), 1)};
}

} // namespace

void MovieOutput::Sum::add(const AVPacket& packet) {
    for (int i = 0; i < packet.size; ++i)
        value = (value ^ packet.data[i]) * 1099511628211U;
}

std::unique_ptr<MovieOutput> MovieOutput::create(const std::string& path, const wire::Header& header,
                                                 const std::string& sound_of, std::string& reason,
                                                 const std::function<void()>& alive) {
    std::unique_ptr<MovieOutput> made(new MovieOutput);
    made->alive_ = alive;
    reason = made->begin(path, header, sound_of);
    return reason.empty() ? std::move(made) : nullptr;
}

MovieOutput::~MovieOutput() {
    if (out_ && out_->pb)
        avio_closep(&out_->pb);
    avformat_free_context(out_);
}

std::string MovieOutput::begin(const std::string& path, const wire::Header& header, const std::string& sound_of) {
    path_ = path;
    channels_ = static_cast<int>(header.channels.size());
    exact_ = header.whole("movie:exact", 0) != 0;
    tags_.primaries = header.whole("movie:primaries", 2);
    tags_.transfer = header.whole("movie:transfer", 2);
    tags_.matrix = header.whole("movie:matrix", 1);
    tags_.full = tags_.matrix == 0;
    tags_.siting = AVCHROMA_LOC_LEFT;
    const AVCodec* const codec = avcodec_find_encoder_by_name(header.text("movie:encoder").c_str());
    const AVPixelFormat pixels = av_get_pix_fmt(header.text("movie:pixels").c_str());
    if (!codec || pixels == AV_PIX_FMT_NONE)
        return "there is no encoder " + header.text("movie:encoder");
    int error = avformat_alloc_output_context2(&out_, nullptr, header.text("movie:container").c_str(), path.c_str());
    if (error < 0)
        return reason_of(error);
    encoder_.reset(avcodec_alloc_context3(codec));
    AVCodecContext& coder = *encoder_;
    coder.width = header.width;
    coder.height = header.height;
    coder.pix_fmt = pixels;
    coder.framerate = rate_in(header);
    coder.time_base = av_inv_q(coder.framerate);
    coder.color_primaries = static_cast<AVColorPrimaries>(tags_.primaries);
    coder.color_trc = static_cast<AVColorTransferCharacteristic>(tags_.transfer);
    coder.colorspace = static_cast<AVColorSpace>(tags_.matrix);
    coder.color_range = tags_.full ? AVCOL_RANGE_JPEG : AVCOL_RANGE_MPEG;
    coder.chroma_sample_location = tags_.matrix == 0 ? AVCHROMA_LOC_UNSPECIFIED : tags_.siting;
    coder.thread_count = 0;
    coder.thread_type = FF_THREAD_SLICE;
    if ((out_->oformat->flags & AVFMT_GLOBALHEADER) != 0)
        coder.flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
    AVDictionary* options = nullptr;
    av_dict_parse_string(&options, header.text("movie:options").c_str(), "=", ":", 0);
    error = avcodec_open2(&coder, codec, &options);
    av_dict_free(&options);
    if (error < 0)
        return failed_with("the encoder does not take it", error);
    video_ = avformat_new_stream(out_, nullptr);
    avcodec_parameters_from_context(video_->codecpar, &coder);
    video_->time_base = coder.time_base;
    video_->avg_frame_rate = coder.framerate;
    const AVCodec* const back = avcodec_find_decoder(codec->id);
    if (!back)
        return "there is no decoder to read it again";
    decoder_.reset(avcodec_alloc_context3(back));
    avcodec_parameters_to_context(decoder_.get(), video_->codecpar);
    decoder_->thread_count = 0;
    decoder_->thread_type = FF_THREAD_SLICE;
    if (error = avcodec_open2(decoder_.get(), back, nullptr); error < 0)
        return reason_of(error);
    if (!sound_of.empty()) {
        std::string reason;
        source_ = Movie::open(sound_of, reason, alive_);
        if (!source_)
            return reason;
        first_ = header.whole("movie:first", 0);
        count_ = header.whole("movie:count", source_->frames());
        choose_sound();
    }
    return copy_words(header);
}

/// Sound and texts of the source that this kind of file can hold.
void MovieOutput::choose_sound() {
    for (unsigned i = 0; i < source_->file().nb_streams; ++i) {
        AVStream& stream = *source_->file().streams[i];
        const AVMediaType type = stream.codecpar->codec_type;
        if (static_cast<int>(i) == source_->stream_number() ||
            (type == AVMEDIA_TYPE_DATA && stream.codecpar->codec_tag == MKTAG('t', 'm', 'c', 'd')))
            continue; // the timecode is written anew
        if ((type != AVMEDIA_TYPE_AUDIO && type != AVMEDIA_TYPE_SUBTITLE) ||
            avformat_query_codec(out_->oformat, stream.codecpar->codec_id, FF_COMPLIANCE_NORMAL) == 0) {
            const char* const what = av_get_media_type_string(type);
            read_.left_out += std::string(read_.left_out.empty() ? "" : ", ") + (what ? what : "data") + " (" +
                avcodec_get_name(stream.codecpar->codec_id) + ")";
            continue;
        }
        AVStream* const copy = avformat_new_stream(out_, nullptr);
        avcodec_parameters_copy(copy->codecpar, stream.codecpar);
        copy->codecpar->codec_tag = 0;
        copy->time_base = stream.time_base;
        copy->disposition = stream.disposition;
        av_dict_copy(&copy->metadata, stream.metadata, 0);
        copied_[static_cast<int>(i)] = copy;
        read_.sound |= type == AVMEDIA_TYPE_AUDIO;
        stream.discard = AVDISCARD_DEFAULT;
    }
    source_->file().streams[source_->stream_number()]->discard = AVDISCARD_ALL;
    if (!copied_.empty() && first_ > 0) // some way before, for packets reach across
        av_seek_frame(&source_->file(), source_->stream_number(), source_->time(first_), AVSEEK_FLAG_BACKWARD);
}

/// What the file says of itself, and its beginning.
std::string MovieOutput::copy_words(const wire::Header& header) {
    if (source_) {
        av_dict_copy(&out_->metadata, source_->file().metadata, 0);
        av_dict_copy(&video_->metadata, source_->stream().metadata, 0);
        for (const char* own : {"timecode", "encoder", "major_brand", "minor_version", "compatible_brands"}) {
            av_dict_set(&out_->metadata, own, nullptr, 0);
            av_dict_set(&video_->metadata, own, nullptr, 0);
        }
    }
    if (const std::string code = header.text("movie:timecode"); !code.empty()) {
        av_dict_set(&video_->metadata, "timecode", code.c_str(), 0);
        av_dict_set(&out_->metadata, "timecode", code.c_str(), 0);
    }
    for (const char* own : {"kasuri:made", "kasuri:space"})
        if (const std::string text = header.text(own); !text.empty())
            av_dict_set(&out_->metadata, own, text.c_str(), 0);
    out_->flags |= AVFMT_FLAG_BITEXACT; // the same movie is the same file
    if (const int error = avio_open(&out_->pb, ("file:" + path_).c_str(), AVIO_FLAG_WRITE); error < 0)
        return reason_of(error);
    AVDictionary* options = nullptr;
    av_dict_set(&options, "movflags", "use_metadata_tags+write_colr", 0);
    const int error = avformat_write_header(out_, &options);
    av_dict_free(&options);
    return error < 0 ? reason_of(error) : std::string();
}

std::string MovieOutput::add(const float* pixels) {
    Original original{FramePtr(av_frame_alloc()), {}, frames_ + 1};
    AVFrame& frame = *original.codes;
    frame.format = encoder_->pix_fmt;
    frame.width = encoder_->width;
    frame.height = encoder_->height;
    frame.color_primaries = encoder_->color_primaries;
    frame.color_trc = encoder_->color_trc;
    frame.colorspace = encoder_->colorspace;
    frame.color_range = encoder_->color_range;
    frame.pts = frames_;
    if (const int error = av_frame_get_buffer(&frame, 0); error < 0)
        return reason_of(error);
    if (std::string reason = from_rgb(pixels, channels_, tags_, frame); !reason.empty())
        return reason;
    original.pixels.assign(pixels,
                           pixels +
                               static_cast<std::size_t>(frame.width) * static_cast<std::size_t>(frame.height) *
                                   static_cast<std::size_t>(channels_));
    originals_.push_back(std::move(original));
    ++frames_;
    return send(originals_.back().codes.get());
}

std::string MovieOutput::send(const AVFrame* frame) {
    int error = avcodec_send_frame(encoder_.get(), frame);
    while (error >= 0) {
        error = avcodec_receive_packet(encoder_.get(), packet_.get());
        if (error == AVERROR(EAGAIN) || error == AVERROR_EOF)
            return frame ? std::string() : take_back(nullptr);
        if (error < 0)
            break;
        if (std::string reason = take_back(packet_.get()); !reason.empty())
            return reason;
        packet_->duration = 1;
        av_packet_rescale_ts(packet_.get(), encoder_->time_base, video_->time_base);
        packet_->stream_index = video_->index;
        if (std::string reason = copy_sound_until(packet_->pts); !reason.empty())
            return reason;
        sums_[video_->index].add(*packet_);
        error = av_interleaved_write_frame(out_, packet_.get());
    }
    return reason_of(error);
}

/// Decodes what was encoded and compares it with what was given.
std::string MovieOutput::take_back(const AVPacket* packet) {
    int error = avcodec_send_packet(decoder_.get(), packet);
    while (error >= 0) {
        error = avcodec_receive_frame(decoder_.get(), decoded_.get());
        if (error == AVERROR(EAGAIN) || error == AVERROR_EOF)
            return packet || originals_.empty() ? std::string() : "a frame cannot be read again";
        if (error < 0)
            break;
        if (originals_.empty() || decoded_->width != encoder_->width || decoded_->height != encoder_->height)
            return "what is encoded reads as something else";
        const Original& given = originals_.front();
        const double steps = largest_difference(*given.codes, *decoded_);
        read_.steps = std::max(read_.steps, steps);
        if (exact_ && steps != 0)
            return "what is encoded does not read as what was given";
        const auto channels = static_cast<std::size_t>(channels_of(*decoded_));
        const std::size_t own = static_cast<std::size_t>(channels_), pixels = given.pixels.size() / own;
        again_.resize(pixels * channels);
        if (std::string reason = to_rgb(*decoded_, tags_, again_.data()); !reason.empty())
            return reason;
        const std::size_t grey = own < 3 ? 1 : 0;
        for (std::size_t i = 0; i < pixels; ++i)
            for (std::size_t c = 0; c < 3; ++c) {
                const float asked = given.pixels[i * own + (grey != 0 ? 0 : c)];
                if (std::isnan(asked))
                    continue;
                const float possible = tags_.matrix == 0 ? std::clamp(asked, 0.0F, 1.0F) : asked;
                const double off = std::fabs(static_cast<double>(possible) -
                                             static_cast<double>(again_[i * channels + (channels < 3 ? 0 : c)]));
                read_.sum += off;
                if (off > read_.worst) {
                    read_.worst = off;
                    read_.worst_frame = given.number;
                }
            }
        read_.numbers += static_cast<std::int64_t>(pixels * 3);
        originals_.pop_front();
    }
    return reason_of(error);
}

std::string MovieOutput::copy_sound_until(std::int64_t time) {
    if (copied_.empty())
        return {};
    const AVRational units = source_->stream().time_base;
    const std::int64_t from = source_->time(first_), to = source_->time(first_ + count_);
    const auto next = [&] { return sound_waits_ || av_read_frame(&source_->file(), sound_.get()) >= 0; };
    while (next()) {
        const auto copy = copied_.find(sound_->stream_index);
        if (copy == copied_.end()) {
            sound_waits_ = false;
            av_packet_unref(sound_.get());
            continue;
        }
        AVStream& target = *copy->second;
        const AVRational own = source_->file().streams[sound_->stream_index]->time_base;
        const std::int64_t at = sound_->pts != AV_NOPTS_VALUE ? sound_->pts : sound_->dts;
        // Its middle says whether it belongs to these frames.
        const std::int64_t middle = av_rescale_q(at + sound_->duration / 2, own, units);
        sound_waits_ = at != AV_NOPTS_VALUE && time != INT64_MAX &&
            av_compare_ts(at - av_rescale_q(from, units, own), own, time, video_->time_base) > 0;
        if (sound_waits_)
            return {};
        if (at == AV_NOPTS_VALUE || middle < from || middle >= to) {
            av_packet_unref(sound_.get());
            continue;
        }
        const std::int64_t shift = av_rescale_q(from, units, own);
        if (sound_->pts != AV_NOPTS_VALUE)
            sound_->pts -= shift;
        if (sound_->dts != AV_NOPTS_VALUE)
            sound_->dts -= shift;
        av_packet_rescale_ts(sound_.get(), own, target.time_base);
        sound_->stream_index = target.index;
        sound_->pos = -1;
        sums_[target.index].add(*sound_);
        if (const int error = av_interleaved_write_frame(out_, sound_.get()); error < 0)
            return failed_with("sound cannot be copied", error);
    }
    return {};
}

std::string MovieOutput::finish() {
    if (frames_ == 0)
        return "it has no frames";
    if (std::string reason = send(nullptr); !reason.empty())
        return reason;
    if (std::string reason = copy_sound_until(INT64_MAX); !reason.empty())
        return reason;
    if (const int error = av_write_trailer(out_); error < 0)
        return reason_of(error);
    if (const int error = avio_closep(&out_->pb); error < 0)
        return reason_of(error);
    return compare_file();
}

/// The file against the packets that were to be in it.
std::string MovieOutput::compare_file() {
    std::string reason;
    const std::unique_ptr<Movie> written = Movie::open(path_, reason, alive_);
    if (!written || written->frames() != frames_)
        return "what was written does not read as it was given";
    AVFormatContext* opened = nullptr;
    AVDictionary* options = careful_options();
    const int error = avformat_open_input(&opened, ("file:" + path_).c_str(), nullptr, &options);
    av_dict_free(&options);
    if (error < 0)
        return reason_of(error);
    const InputPtr input(opened);
    std::map<int, Sum> read;
    constexpr int often = 100;
    for (int i = 1; av_read_frame(opened, packet_.get()) >= 0; ++i) {
        if (i % often == 0)
            alive_();
        read[packet_->stream_index].add(*packet_);
        av_packet_unref(packet_.get());
    }
    for (const auto& [stream, sum] : sums_)
        if (const auto found = read.find(stream); found == read.end() || found->second.value != sum.value) {
            if (stream == video_->index)
                return "what was written does not read as it was given";
            read_.left_out += std::string(read_.left_out.empty() ? "" : ", ") + "packets of sound as they were";
        }
    return {};
}

} // namespace kasuri::helpers
