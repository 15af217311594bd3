#pragma once
#include "movies/pixels.hpp"
#include "movies/reader.hpp"
#include "wire/message.hpp"

#include <deque>
#include <map>
#include <vector>

namespace kasuri::helpers {

/// A movie that is written. Every packet is decoded again before it is believed, and the file is read again at the end.
class MovieOutput {
public:
    /// `header`: size, channels (Y, or R G B, and A) and, as attributes, what core/io/movie_file.cpp says of the movie.
    /// `sound_of`: a movie whose sound and texts go along, or empty. Null: `reason` says why.
    static std::unique_ptr<MovieOutput> create(const std::string& path, const wire::Header& header,
                                               const std::string& sound_of, std::string& reason,
                                               const std::function<void()>& alive);
    ~MovieOutput();

    /// The next frame, pixel by pixel. An empty reason, or why it cannot be.
    std::string add(const float* pixels);
    /// Ends the file and reads it again.
    std::string finish();

    struct Read {
        double worst = 0, sum = 0; ///< differences of what was given, within 0..1, and what is read: largest, and all
        std::int64_t numbers = 0;
        int worst_frame = 0;  ///< from 1
        double steps = 0;     ///< the largest difference of code values
        bool sound = false;   ///< some was copied
        std::string left_out; ///< what could not go along
    };
    const Read& read() const { return read_; }

private:
    MovieOutput() = default;
    std::string begin(const std::string& path, const wire::Header& header, const std::string& sound_of);
    std::function<void()> alive_;
    std::string copy_words(const wire::Header& header);
    void choose_sound();
    std::string send(const AVFrame* frame);
    std::string take_back(const AVPacket* packet);
    std::string copy_sound_until(std::int64_t time); ///< in units of the video that is written
    std::string compare_file();

    struct Sum {
        std::uint64_t value = 14695981039346656037U; // FNV-1a (Fowler, Noll, Vo)
        void add(const AVPacket& packet);
    };
    struct Original {
        FramePtr codes;
        std::vector<float> pixels;
        int number;
    };

    std::string path_;
    int channels_ = 3;
    Tags tags_;
    bool exact_ = false;
    AVFormatContext* out_ = nullptr;
    AVStream* video_ = nullptr;
    CoderPtr encoder_, decoder_;
    PacketPtr packet_{av_packet_alloc()}, sound_{av_packet_alloc()};
    FramePtr decoded_{av_frame_alloc()};
    std::unique_ptr<Movie> source_;
    std::map<int, AVStream*> copied_; ///< by its number in the source
    std::map<int, Sum> sums_;         ///< by the number in the file that is written
    int first_ = 0, count_ = 0;       ///< which frames of the source
    bool sound_waits_ = false;        ///< a packet was read whose time has not come
    std::deque<Original> originals_;  ///< that have not come back yet
    std::vector<float> again_;
    int frames_ = 0;
    Read read_;
};

} // namespace kasuri::helpers
