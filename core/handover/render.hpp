#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "io/picture_file.hpp"
#include "lang/rule.hpp"

#include <atomic>
#include <filesystem>
#include <span>
#include <string>

namespace kasuri::handover {

/// Applies a rule to the picture in `in` and writes `out` by its ending. Every other layer and channel is kept
/// when the spaces of both files agree. A rule that changes nothing gives the same numbers, bit for bit.
/// `layer` names the layer to work on; empty: the unnamed one, or the first.
Result<io::SaveReport> render(const lang::Rule& rule, std::span<const double> values, const std::filesystem::path& in,
                              const std::filesystem::path& out, std::string layer = {}, const CancelToken& cancel = {},
                              std::atomic<std::size_t>* done = nullptr);

} // namespace kasuri::handover
