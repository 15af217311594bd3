#pragma once
#include "movies/ffmpeg.hpp"

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

namespace kasuri::helpers {

/// A movie file, frame by frame.
class Movie {
public:
    /// Opens it and finds all its frames: from its index, or by a walk through the file, in which `alive` is called
    /// every now and then. Null: `reason` says why.
    static std::unique_ptr<Movie> open(const std::string& path, std::string& reason,
                                       const std::function<void()>& alive);

    int frames() const { return static_cast<int>(times_.size()); }
    AVRational rate() const { return rate_; }
    /// Of a frame, from 0; empty: the movie has none.
    std::string timecode(int frame) const;
    /// The frame, from 0, that a text means: "" and "1" the first, "4.5s", "01:00:04:12". -1: none is there.
    int find(const std::string& at) const;
    /// Goes to a frame, from 0, and decodes it; valid until the next call. Null: `reason` says why.
    const AVFrame* frame(int wanted, std::string& reason);

    const AVStream& stream() const { return *input_->streams[stream_]; }
    const AVFormatContext& file() const { return *input_; }
    AVFormatContext& file() { return *input_; }
    int stream_number() const { return stream_; }
    /// How it is turned to be seen: the numbers of TIFF's Orientation.
    int orientation() const;
    /// When a frame, from 0, is seen, in the stream's units; of one behind the last, when that one ends.
    std::int64_t time(int frame) const;
    /// Whether `path` is this file, and nobody has written it anew since.
    bool is_still(const std::string& path) const;

private:
    Movie() = default;
    bool index(const std::function<void()>& alive);
    bool index_of_even_frames();
    bool seek(int frame);
    int nearest(std::int64_t time) const; ///< the frame of this time
    /// The next frame that comes out; 1, 0 at the end, or an error of the library.
    int decode();

    std::string path_;
    std::int64_t identity_[4] = {};
    InputPtr input_;
    CoderPtr coder_;
    PacketPtr packet_{av_packet_alloc()};
    FramePtr now_{av_frame_alloc()};
    std::vector<std::int64_t> times_; ///< of each frame as it is shown, rising, in the stream's units
    AVRational rate_{0, 1};
    std::string first_timecode_;
    int stream_ = -1;
    int at_ = -1; ///< which frame `now_` is; -1: none
    bool drained_ = false;
};

/// The options that every input is opened with: a file on this disk, of a kind that holds movies and refers to no
/// other.
AVDictionary* careful_options();

} // namespace kasuri::helpers
