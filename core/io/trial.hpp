#pragma once
#include "base/result.hpp"
#include "wire/message.hpp"

#include <filesystem>
#include <string>
#include <string_view>

namespace kasuri::io {

/// Has a file or a text read by a process that may fail at it (kasuri-tables). An error means that it did: then it is
/// not to be read here. What is merely wrong with it is found when it is read here.
/// `more`: of a config, the values of its variables (io::context_text).
Status try_file(wire::Message::Kind kind, const std::filesystem::path& path, const std::string& more = {});
/// Not again what has been tried before.
Status try_lut(std::string_view text, const std::string& ending, const std::string& where);

} // namespace kasuri::io
