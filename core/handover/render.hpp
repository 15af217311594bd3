#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "io/picture_file.hpp"
#include "subject/subject.hpp"

#include <atomic>
#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::handover {

struct RenderJob {
    std::filesystem::path in, out;
    std::string layer{};    ///< to work on; empty: the unnamed one, or the first
    std::string in_space{}; ///< what the picture's numbers mean; empty: what the file says
    std::optional<image::Depth>
        depth{}; ///< of the numbers that are written; nothing: as they came, as far as the ending holds that
    std::string out_space{}; ///< of the picture that is written; empty: as io::space_of_ending
    int blank_width = 0,
        blank_height =
            0; ///< above 0: there is no file, a black picture of so many pixels comes in, in light of `in_space`
};

/// Applies a subject to the picture in `in` and writes `out` by its ending. Sources that it has no picture for are
/// layers or channels of their names in `in`; pictures of another size are stretched, and a note says so. Every other
/// layer and channel is kept when the spaces of both files agree. What changes nothing gives the same numbers, bit for
/// bit.
Result<io::SaveReport> render(const subject::Subject& subject, const RenderJob& job, const CancelToken& cancel = {},
                              std::atomic<std::size_t>* done = nullptr);

/// What `render` writes, before it is written, and the notes that go with it.
struct Made {
    image::Image image;
    std::vector<std::string> notes;
};
Result<Made> made_image(const subject::Subject& subject, const RenderJob& job, const CancelToken& cancel = {},
                        std::atomic<std::size_t>* done = nullptr);
/// The same of an image that was loaded already.
Result<Made> made_image(const subject::Subject& subject, const RenderJob& job, const image::Image& image,
                        const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr);

/// A name for what `render` writes from a file that has not changed: of the subject, its values and pictures, and of
/// the job. It stands in the file that is written (io::made_by).
std::string made_of(const subject::Subject& subject, const RenderJob& job);

/// What the subject makes of a picture, in the picture's space. `file`: where sources that have no picture are looked
/// for by their names (may be null); what is not there reads as 0, so ask `subject::without_picture` before anything is
/// claimed of the result. Nothing if called off.
std::optional<image::Picture> applied(const subject::Subject& subject, const image::Picture& picture,
                                      const image::Image* file = nullptr, const CancelToken& cancel = {});

/// "target:NAME", where a file could stand, is a generated target (targets/target.hpp).
inline constexpr std::string_view target_prefix = "target:";
bool is_target(const std::string& where);
/// The image of a file, or of a target; `space`: as io::load. Errors: it cannot be read, there is no such target.
Result<image::Image> source_image(const std::string& where, std::string_view space = {});

/// A name for what a part of a file holds now, as long as it is not written again: of path, size and time.
std::string identity_of(const std::filesystem::path& file, const std::string& part);

/// A picture of a file as a subject's source `name` reads it. `where`: FILE, FILE:LAYER or FILE:CHANNEL (a single
/// channel, such as lamp.exr:beauty.R; of a name that is both, the layer), or a target. Errors: it cannot be read,
/// there is no such layer.
Result<subject::Bound> source_from(const std::string& where);

/// The subject with pictures for its sources: NAME=FILE, NAME=FILE:LAYER, NAME=FILE:CHANNEL or NAME=target:NAME
/// each. Errors: no such source, those of `source_from`.
Result<subject::Subject> with_sources(const subject::Subject& subject, const std::vector<std::string>& texts);

} // namespace kasuri::handover
