#pragma once
#include "document/bench_file.hpp"

#include <map>
#include <string>
#include <string_view>

namespace kasuri::document {

inline constexpr int recovery_version = 1;

/// Work that is not saved, as it is kept for the case that the program is gone before it is.
struct Recovery {
    std::string path; ///< of the filter or the look; empty: it had no file yet
    std::string text;
    std::map<std::string, double> values; ///< that were chosen
    BenchFile bench;                      ///< takes and pins
    std::string look{}; ///< of which it is a step, as text with absolute paths; empty: it is a filter by itself
    int active = 0;     ///< which
    friend bool operator==(const Recovery&, const Recovery&) = default;
};

/// As JSON, to be read by recovery_of.
std::string recovery_text(const Recovery& recovery);
/// What cannot be understood is an error that says so; nothing is half understood.
Result<Recovery> recovery_of(std::string_view text, const std::string& where);

} // namespace kasuri::document
