#pragma once
#include <string>

namespace kasuri::cli {

/// The texts of the core's tables as C++ source that Qt's lupdate reads: what the window shows of them, in
/// the context "Tables".
std::string words_to_translate();

} // namespace kasuri::cli
