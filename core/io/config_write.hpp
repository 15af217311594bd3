#pragma once
#include "base/result.hpp"
#include "colour/triple.hpp"

#include <filesystem>
#include <span>
#include <string>
#include <vector>

namespace kasuri::io {

/// A look of ours for a config: a CLF beside it.
struct ConfigLook {
    std::string name;  ///< in the config
    std::string file;  ///< of its LUT, as the config finds it
    std::string space; ///< what the LUT's numbers are, in and out: one of ours, or of the config
    std::string note{};
};

/// The text of the config `base` with these looks, and with a view for each on the config's own display, which is that
/// display's usual view through the look; with no base, of a new config (ACES2065-1, ACEScg as scene_linear, one sRGB
/// display). A space that the config does not know, by name, alias or role, is added to it, if its curve is one that
/// OpenColorIO has (linear, sRGB, BT.709, powers, ACEScc, ACEScct). `out`: where it will be written, to which the
/// base's own folders of LUTs are brought; `search_path`: a folder beside it, for ours. What was added is told in
/// `notes`. Errors: the base cannot be read or has no display; a name is taken; no such curve; the config does not say
/// how its light relates to other light.
Result<std::string> config_with(const std::filesystem::path& base, const std::filesystem::path& out,
                                const std::string& search_path, std::span<const ConfigLook> looks,
                                std::vector<std::string>& notes);

/// What OpenColorIO makes of colours by a look of a config file, in and out in `space`, which is one of ours: from and
/// to the config's ACES2065-1, so that what the config takes that space for is in it (where it does not say that, in
/// the look's own space). The error: the config or the look cannot be used.
Result<std::vector<colour::Triple>> through_look(const std::filesystem::path& config, const std::string& look,
                                                 const std::string& space, std::span<const colour::Triple> colours);

} // namespace kasuri::io
