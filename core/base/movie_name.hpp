#pragma once
#include <filesystem>
#include <string>
#include <utility>

namespace kasuri {

/// A frame of a movie stands where the path of a picture may stand: "river.mov@120" is its frame 120 (the first is 1),
/// "river.mov@4.5s" the one that is seen after 4.5 seconds, "river.mov@01:00:04:12" the one of that timecode, and
/// "river.mov" the first one. A file that is there under the whole name is meant before that.
struct MovieFrame {
    std::filesystem::path movie; ///< empty: the path is of no movie
    std::string at;              ///< what stands behind the @, or empty
};
MovieFrame movie_frame(const std::filesystem::path& path);

/// The path of one frame; of the first that of the movie.
std::filesystem::path frame_path(const std::filesystem::path& movie, int number);

/// The file on the disk that holds the picture: the movie of a frame, or the path itself.
std::filesystem::path file_of(const std::filesystem::path& path);

} // namespace kasuri
