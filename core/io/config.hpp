#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::io {

/// What came of an OpenColorIO config.
struct LoadedConfig {
    std::vector<std::string> spaces; ///< now known by these names
    std::vector<std::string> notes;  ///< what was left out or had to be assumed
};

/// Reads a config and adds its colour spaces (colour::add_space), in place of those of the config before. A space of
/// the name of a built-in one is left out, and so is what holds data. How the config's light relates to other light is
/// taken from its role aces_interchange, or cie_xyz_d65_interchange; without either its scene_linear is taken as linear
/// BT.709, with a note.
/// It is tried in a process of its own first (io/helper.hpp).
Result<LoadedConfig> load_config(const std::filesystem::path& path);
/// The same in this process, which the library may end or keep for ever.
Result<LoadedConfig> load_config_here(const std::filesystem::path& path);

/// The file that the environment variable OCIO names; empty if it names none.
std::filesystem::path config_of_environment();

} // namespace kasuri::io
