#pragma once
#include <filesystem>
#include <vector>

namespace kasuri::io {

/// Numbered pictures that belong together: river.0001.exr, river.0002.exr ...
struct Sequence {
    struct Frame {
        int number = 0;
        std::filesystem::path path;
    };
    std::vector<Frame> frames; ///< by number, rising; there may be gaps
    std::size_t at = 0;        ///< which of them was asked about
};

/// The files beside `path` that have its name but for the last run of digits in it. Empty if it has none, or is alone,
/// or if the folder cannot be read. Numbers may be padded with zeros or not (of two files of one number the padded one
/// like `path` is taken).
Sequence sequence_of(const std::filesystem::path& path);

} // namespace kasuri::io
