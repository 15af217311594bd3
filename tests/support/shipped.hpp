#pragma once
#include <algorithm>
#include <filesystem>
#include <vector>

namespace kasuri::test {

/// The shipped filters in the order of their names. What the program keeps beside a filter that was tried, such as its
/// pins, is none of them.
inline std::vector<std::filesystem::path> shipped_filters() {
    std::vector<std::filesystem::path> all;
    for (const auto& entry : std::filesystem::directory_iterator(KASURI_SOURCE_DIR "/data/filters"))
        if (entry.path().extension() == ".kasuri")
            all.push_back(entry.path());
    std::sort(all.begin(), all.end());
    return all;
}

} // namespace kasuri::test
