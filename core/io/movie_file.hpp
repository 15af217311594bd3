#pragma once
#include "io/declared.hpp"
#include "io/picture_file.hpp"

#include <functional>
#include <optional>
#include <span>
#include <string_view>

namespace kasuri::io {

/// One row: a kind of movie that is written. Names are those of FFmpeg's libraries.
struct MovieKind {
    std::string_view name;   ///< as a user says it
    std::string_view ending; ///< the first row of an ending is its usual one
    std::string_view container, encoder, options;
    std::string_view pixels;                         ///< of its frames
    std::string_view alpha_pixels;                   ///< with alpha; empty: it has no place for it
    std::string_view byte_pixels, byte_alpha_pixels; ///< of pictures of 8 bits, or empty
    bool rgb;                                        ///< else luma and chroma
    bool exact;             ///< what is read is what was written, bit for bit, but for the rounding to codes
    bool half_chroma;       ///< the width must be even
    std::string_view about; ///< for people
};
std::span<const MovieKind> movie_kinds();
/// By name and ending of the file; without a name the usual one that can hold it. The error says what there is.
Result<const MovieKind*> movie_kind(const std::filesystem::path& path, std::string_view name, bool alpha, int width);

/// What the header of a movie's frame says that its numbers mean: our own word, or code points of ITU-T H.273.
Declared declared_of_movie(const wire::Header& header);
/// What else it says: where the frame stands, and what was assumed (as notes).
void keep_movie(image::Image& image, const wire::Header& header);

/// Where a movie's frames stand. Error: it cannot be read.
Result<image::MoviePlace> movie_facts(const std::filesystem::path& movie);

struct MovieOrder {
    std::filesystem::path out;
    std::string codec{};              ///< of movie_kinds; empty: the usual one
    int rate = 24, per = 1;           ///< frames in so many seconds
    std::string timecode{};           ///< of the first frame, or empty
    std::filesystem::path sound_of{}; ///< a movie whose sound and texts go along, or empty
    int first = 1, count = 0;         ///< from which of its frames, and how many
    std::string made{};               ///< as image::Image::made
};

/// Writes a movie, whole or not at all; every frame is decoded again and the file is read to its end before it appears
/// under its name. `next` gives one frame after the other, nothing after the last. The report's notes say how far what
/// is read is from what was given. Errors: those of `next`, frames of different sizes or spaces, no room.
Result<SaveReport> write_movie(const MovieOrder& order,
                               const std::function<Result<std::optional<image::Image>>()>& next);

} // namespace kasuri::io
