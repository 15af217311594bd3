#pragma once
#include "base/cancel.hpp"
#include "handover/render.hpp"

#include <cstddef>
#include <filesystem>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::handover {

/// A range of frame numbers, both ends included; `step` from the first.
struct Frames {
    int first = 0, last = 0, step = 1;
    bool contains(int number) const { return number >= first && number <= last && (number - first) % step == 0; }
};
/// "12", "1-240", "1-240x2", several with commas. Nothing if it is not of this form.
std::optional<std::vector<Frames>> read_frames(std::string_view text);

/// "3/8": the third of eight parts. Every item belongs to exactly one part, neighbours to different ones.
struct BatchPart {
    std::size_t part = 1, of = 1;
};
std::optional<BatchPart> read_part(std::string_view text);

/// Frames in `per` seconds.
struct FrameRate {
    int rate = 24, per = 1;
    friend bool operator==(const FrameRate&, const FrameRate&) = default;
};

/// A picture of a movie that is to be written.
struct BatchFrame {
    std::filesystem::path path;
    std::optional<int> number{};
    friend bool operator==(const BatchFrame&, const BatchFrame&) = default;
};

struct BatchItem {
    std::filesystem::path in, out;
    std::optional<int> frame{};       ///< the number in the place of the #, or else of its name (io::frame_name)
    std::vector<BatchFrame> frames{}; ///< of a movie that is written; `in` is the first one, or the movie of them all
    std::size_t steps() const { return frames.empty() ? 1 : frames.size(); }
    friend bool operator==(const BatchItem&, const BatchItem&) = default;
};

struct BatchOrder {
    /// Files; movies, whose frames are meant; folders, whose pictures are meant; names with * and ? ; or with a run of
    /// # for the digits of a frame.
    std::vector<std::string> inputs;
    /// A file for one input; a movie for any number of them; else a folder, or a name with a run of # that the frame
    /// numbers take the place of. Into a folder, a movie goes as a movie unless `ending` is that of a picture. Missing
    /// folders are made.
    std::string output;
    std::string ending{};         ///< of what is written into a folder, such as ".exr"; empty: as it came
    std::vector<Frames> frames{}; ///< empty: all
    BatchPart part{};
};

/// What is to be done, in order, each output once. Errors: nothing is found; two inputs would go into one file; an
/// output is an input.
Result<std::vector<BatchItem>> batch_items(const BatchOrder& order);

struct BatchOptions {
    RenderJob job{};                                          ///< layer, sources and spaces; its files are the items'
    std::map<std::filesystem::path, std::string> in_spaces{}; ///< of single pictures, before job.in_space
    std::size_t jobs = 0;                                     ///< pictures at a time; 0: as many as there are cores
    /// Leave what is there, was made by the same subject and job (made_of), and is younger than its picture.
    bool resume = false;
    std::string codec{};             ///< of movies that are written (io::movie_kinds); empty: the usual one
    std::optional<FrameRate> rate{}; ///< of movies that are written; nothing: as it came, or 24
};

struct BatchEvent {
    const BatchItem& item;
    enum class What { written, left, failed, frame } what; ///< frame: of a movie, which goes on
    std::optional<Error> error{};
    std::vector<std::string> notes{};
    std::size_t clipped = 0, not_finite = 0;
    std::size_t done = 0, all = 0; ///< pictures and frames of movies, with this one
    double seconds = 0;            ///< since the beginning
    double seconds_left = 0;       ///< as things go
};

struct BatchReport {
    std::size_t written = 0, left = 0, failed = 0, called_off = 0;
    double seconds = 0;
};

/// Renders all items, some at a time; memory is that of `jobs` pictures, whatever their number. Each file appears whole
/// or not at all. A picture that fails does not stop the others. `tell` is called for each, one at a time, from any
/// thread.
BatchReport render_all(const subject::Subject& subject, const std::vector<BatchItem>& items,
                       const BatchOptions& options, const CancelToken& cancel,
                       const std::function<void(const BatchEvent&)>& tell);

} // namespace kasuri::handover
