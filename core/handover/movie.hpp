#pragma once
#include "handover/batch.hpp"
#include "io/movie_file.hpp"

#include <functional>
#include <optional>
#include <string_view>

namespace kasuri::handover {

/// Frames in so many seconds: "24", "24000/1001", "23.976", "29.97" (the last two as the fractions that they stand
/// for). Nothing if it is not of this form, or not above 0 and up to 1000.
std::optional<FrameRate> read_rate(std::string_view text);

/// What `render_movie` writes from files that have not changed, as made_of.
std::string movie_made_of(const subject::Subject& subject, const RenderJob& job, const BatchItem& item,
                          const BatchOptions& options);

/// Renders an item that is a movie: its frames one after the other, `jobs` at a time, written in order. Rate, timecode,
/// sound and texts are those of the movie that the frames are of, where they are of one and follow each other without a
/// gap; notes say what was left out. `step` is called for each frame that was written.
Result<io::SaveReport> render_movie(const subject::Subject& subject, const RenderJob& job, const BatchItem& item,
                                    const BatchOptions& options, std::size_t jobs, const CancelToken& cancel,
                                    const std::function<void()>& step);

} // namespace kasuri::handover
