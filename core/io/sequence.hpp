#pragma once
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::io {

/// A file's name around the number of its frame.
struct FrameName {
    std::string before, digits, after;
};
/// That number is the longest run of digits in the name, without its ending; of runs of one length the last. So it is
/// 0012 of shot7.0012.v2.exr. Nothing if there are no digits.
std::optional<FrameName> frame_name(const std::filesystem::path& path);

/// Numbered pictures that belong together: river.0001.exr, river.0002.exr ..., or the frames of a movie.
struct Sequence {
    struct Frame {
        int number = 0;
        std::filesystem::path path;
    };
    std::vector<Frame> frames; ///< by number, rising; there may be gaps
    std::size_t at = 0;        ///< which of them was asked about
};

/// The files beside `path` that have its name but for the number of the frame (`frame_name`). Empty if it has none, or
/// is alone, or if the folder cannot be read. Numbers may be padded with zeros or not (of two files of one number the
/// padded one like `path` is taken).
Sequence sequence_of(const std::filesystem::path& path);

/// The frames of a movie, which has so many; `at`: the number of one, from 1. Empty if there are fewer than two.
Sequence sequence_of_movie(const std::filesystem::path& movie, int frames, int at);

} // namespace kasuri::io
