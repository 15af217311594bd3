#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace kasuri::io {

/// What came of an OpenColorIO config.
struct LoadedConfig {
    std::vector<std::string> spaces;      ///< now known by these names
    std::vector<std::string> views{};     ///< ways to see, as "VIEW on DISPLAY", with the looks that belong to them
    std::vector<std::string> functions{}; ///< of rules: its named transforms, there and back
    std::vector<std::string> notes;       ///< what was left out or had to be assumed
};

/// Reads a config and adds its colour spaces (colour::add_space), in place of those of the config before, known by
/// their aliases and by the config's roles too, and what its displays and views show. Its named transforms become
/// functions of rules, config_NAME( ) and config_NAME_inverse( ). A space of
/// the name of a built-in one is left out, and so is what holds data. How the config's light relates to other light is
/// taken from its role aces_interchange, or cie_xyz_d65_interchange; without either its scene_linear is taken as linear
/// BT.709, with a note.
/// It is tried in a process of its own first (io/helper.hpp).
/// `context`: values of the config's variables, such as SHOT, before those of the environment and of the config. One
/// that the config does not have is told.
using ConfigContext = std::map<std::string, std::string>;
Result<LoadedConfig> load_config(const std::filesystem::path& path, const ConfigContext& context = {});
/// The same in this process, which the library may end or keep for ever.
Result<LoadedConfig> load_config_here(const std::filesystem::path& path, const ConfigContext& context = {});

/// "SHOT=sh010": a variable of a config and its value; nothing if it is not of this form.
std::optional<std::pair<std::string, std::string>> read_context(std::string_view text);
/// Several of them as one text, and back.
std::string context_text(const ConfigContext& context);
ConfigContext context_of(std::string_view text);

/// The space that the file rules of the config that was read last give a file of this name; empty: there is no config,
/// or no rule but the one for all other files. Rules are by * and ?; those by regular expressions are left out, with a
/// note.
std::string space_by_file_rule(const std::filesystem::path& path);

/// The file that the environment variable OCIO names; empty if it names none.
std::filesystem::path config_of_environment();

} // namespace kasuri::io
