#pragma once
#include <string>

namespace kasuri::test {

/// A colour config of the demo world: its light is ACES2065-1; a logarithmic film of its own, a loom's display, data, a
/// name that is taken, and a space that cannot be undone.
inline std::string
village_config(const std::string& roles = "  aces_interchange: village light\n  scene_linear: village light\n") {
    return "ocio_profile_version: 2\n"
           "search_path: \"\"\n"
           "strictparsing: true\n"
           "roles:\n" +
        roles +
        "  default: village light\n"
        "file_rules:\n"
        "  - !<Rule> {name: film, colorspace: vat film, pattern: \"*film*\", extension: exr}\n"
        "  - !<Rule> {name: Default, colorspace: default}\n"
        "displays:\n"
        "  loom:\n"
        "    - !<View> {name: plain, colorspace: Loom & screen}\n"
        "    - !<View> {name: dusk, colorspace: Loom & screen, looks: dusk}\n"
        "    - !<View> {name: raw, colorspace: plates}\n"
        "looks:\n"
        "  - !<Look> {name: dusk, process_space: village light, transform: !<CDLTransform> {slope: [1.2, 1, 0.7]}}\n"
        "colorspaces:\n"
        "  - !<ColorSpace>\n"
        "    name: village light\n"
        "    description: Light of the village\n"
        "    isdata: false\n"
        "  - !<ColorSpace>\n"
        "    name: vat film\n"
        "    aliases: [vf]\n"
        "    description: A logarithm over AP1\n"
        "    isdata: false\n"
        "    to_scene_reference: !<GroupTransform>\n"
        "      children:\n"
        "        - !<LogAffineTransform> {base: 2, log_side_slope: 0.1, log_side_offset: 0.6, lin_side_slope: 1, "
        "lin_side_offset: 0.01, direction: inverse}\n"
        "        - !<BuiltinTransform> {style: ACEScg_to_ACES2065-1}\n"
        "  - !<ColorSpace>\n"
        "    name: Loom & screen\n"
        "    isdata: false\n"
        "    from_scene_reference: !<GroupTransform>\n"
        "      children:\n"
        "        - !<BuiltinTransform> {style: UTILITY - ACES-AP0_to_CIE-XYZ-D65_BFD}\n"
        "        - !<BuiltinTransform> {style: DISPLAY - CIE-XYZ-D65_to_sRGB}\n"
        "  - !<ColorSpace>\n"
        "    name: srgb\n"
        "    isdata: false\n"
        "  - !<ColorSpace>\n"
        "    name: plates\n"
        "    isdata: true\n"
        "  - !<ColorSpace>\n"
        "    name: one way\n"
        "    isdata: false\n"
        "    to_scene_reference: !<MatrixTransform> {matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1]}\n";
}

} // namespace kasuri::test
