#pragma once
// What is used of FFmpeg's libraries, with owners for what they hand out.
extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/display.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libavutil/pixdesc.h>
#include <libavutil/timecode.h>
}

#include <memory>
#include <string>

namespace kasuri::helpers {

struct Freed {
    void operator()(AVFrame* it) const { av_frame_free(&it); }
    void operator()(AVPacket* it) const { av_packet_free(&it); }
    void operator()(AVCodecContext* it) const { avcodec_free_context(&it); }
    void operator()(AVFormatContext* it) const { avformat_close_input(&it); }
};
using FramePtr = std::unique_ptr<AVFrame, Freed>;
using PacketPtr = std::unique_ptr<AVPacket, Freed>;
using CoderPtr = std::unique_ptr<AVCodecContext, Freed>;
using InputPtr = std::unique_ptr<AVFormatContext, Freed>;

/// What the library says of an error of its own.
inline std::string reason_of(int error) {
    char text[AV_ERROR_MAX_STRING_SIZE] = {};
    av_strerror(error, text, sizeof text);
    return text;
}

} // namespace kasuri::helpers
