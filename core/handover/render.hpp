#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "io/picture_file.hpp"
#include "lang/rule.hpp"

#include <atomic>
#include <filesystem>
#include <span>
#include <string>
#include <vector>

namespace kasuri::handover {

/// A picture file for one of the rule's sources; `layer` as in RenderJob. One of another size is stretched to the
/// picture's, and a note says so.
struct SourceFile {
    std::string name;
    std::filesystem::path file;
    std::string layer{};
};

struct RenderJob {
    std::filesystem::path in, out;
    std::string layer{}; ///< to work on; empty: the unnamed one, or the first
    /// A source that is not named here is the layer or the channel of its name in `in`.
    std::vector<SourceFile> sources{};
    std::string in_space{}; ///< what the picture's numbers mean; empty: what the file says
    std::optional<image::Depth>
        depth{}; ///< of the numbers that are written; nothing: as they came, as far as the ending holds that
    std::string out_space{}; ///< of the picture that is written; empty: as io::space_of_ending
};

/// Applies a rule to the picture in `in` and writes `out` by its ending. Every other layer and channel is kept
/// when the spaces of both files agree. A rule that changes nothing gives the same numbers, bit for bit.
Result<io::SaveReport> render(const lang::Rule& rule, std::span<const double> values, const RenderJob& job,
                              const CancelToken& cancel = {}, std::atomic<std::size_t>* done = nullptr);

} // namespace kasuri::handover
