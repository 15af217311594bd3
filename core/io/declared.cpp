#include "io/declared.hpp"

#include "base/said.hpp"
#include "colour/adaptation.hpp"
#include "io/config.hpp"
#include "io/movie_file.hpp"
#include "io/png_chunks.hpp"
#include "io/profile.hpp"

#include <cmath>
#include <cstring>
#include <fmt/format.h>

namespace kasuri::io {
namespace {

using colour::Chromaticity;
using colour::Space;
using colour::Triple;
using colour::operator*;
using colour::times;

/// Our own word for what a format has none for: an encoded space in an EXR.
constexpr const char* own_attribute = "kasuri:space";

const Space& default_space() { return *colour::find_space(colour::default_space); }

/// A linear space of these primaries and white: one of ours if they are the same to the digits that are printed, else
/// converted.
Declared of_chromaticities(const std::array<Chromaticity, 3>& primaries, Chromaticity white, const std::string& how) {
    const auto near = [](Chromaticity a, Chromaticity b) {
        return std::fabs(a.x - b.x) < 2e-4 && std::fabs(a.y - b.y) < 2e-4;
    };
    for (const Space& space : colour::spaces())
        if (space.transfer == "linear" && near(space.white, white) && near(space.primaries[0], primaries[0]) &&
            near(space.primaries[1], primaries[1]) && near(space.primaries[2], primaries[2]))
            return {std::string(space.name), how};
    Declared made{std::string(colour::default_space), how};
    const colour::Matrix3 across =
        times(from_xyz(default_space()),
              times(adaptation(colour::bradford, white, colour::d65), rgb_to_xyz(primaries, white)));
    made.convert = [across](const Triple& rgb) { return across * rgb; };
    made.notes.push_back(said("its chromaticities (red {:.4g} {:.4g}, green {:.4g} {:.4g}, blue {:.4g} {:.4g}, "
                              "white {:.4g} {:.4g}) are those of no known space: the "
                              "pixels were converted to {} once",
                              primaries[0].x, primaries[0].y, primaries[1].x, primaries[1].y, primaries[2].x,
                              primaries[2].y, white.x, white.y, colour::default_space));
    return made;
}

std::optional<Declared> of_profile(std::span<const std::uint8_t> bytes, std::string& reason) {
    const std::optional<Profile> profile = read_profile(bytes, reason);
    if (!profile)
        return std::nullopt;
    Declared made;
    made.how = "ICC profile \"" + profile->name + "\"";
    made.space = profile->space;
    if (made.space.empty()) {
        made.space = colour::default_space;
        made.convert = profile->to_light;
        made.notes.push_back(
            !profile->note.empty()
                ? profile->note
                : said("its colour profile \"{}\" is of no known space: the pixels were converted to {} once",
                       profile->name, made.space));
    }
    return made;
}

std::optional<Declared> of_png(const PngColour& png, std::vector<std::string>& notes) {
    if (png.code_points) {
        const auto [primaries, transfer] = *png.code_points;
        if (const std::string_view space = space_of(*png.code_points); !space.empty())
            return Declared{std::string(space), "cICP chunk"};
        notes.push_back(
            said("its cICP chunk names primaries {} and transfer {}, which are not known here", primaries, transfer));
    }
    if (png.profile)
        return std::nullopt; // comes with the picture
    if (png.srgb)
        return Declared{"srgb", "sRGB chunk"};
    if (!png.gamma)
        return std::nullopt;
    const auto& c = png.chromaticities;
    const auto near = [](double a, double b) { return std::fabs(a - b) < 1e-3; };
    const bool rec709 = !c ||
        (near((*c)[0], 0.3127) && near((*c)[1], 0.3290) && near((*c)[2], 0.64) && near((*c)[3], 0.33) &&
         near((*c)[4], 0.30) && near((*c)[5], 0.60) && near((*c)[6], 0.15) && near((*c)[7], 0.06));
    struct Row {
        double gamma;
        std::string_view space;
    };
    if (rec709)
        for (const Row& row : {Row{1, "rec709-linear"}, Row{1 / 2.2, "rec709-gamma22"}, Row{1 / 1.8, "rec709-gamma18"},
                               Row{1 / 2.4, "rec709-gamma24"}, Row{1 / 2.6, "rec709-gamma26"}})
            if (near(*png.gamma, row.gamma))
                return Declared{std::string(row.space), fmt::format("gAMA chunk, {:.5g}", *png.gamma)};
    Declared made{std::string(colour::default_space),
                  fmt::format("gAMA chunk, {:.5g}{}", *png.gamma, rec709 ? "" : ", and cHRM chunk")};
    colour::Matrix3 across = {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};
    if (!rec709) {
        const Chromaticity white{(*c)[0], (*c)[1]};
        across = times(from_xyz(default_space()),
                       times(adaptation(colour::bradford, white, colour::d65),
                             rgb_to_xyz({{{(*c)[2], (*c)[3]}, {(*c)[4], (*c)[5]}, {(*c)[6], (*c)[7]}}}, white)));
    }
    made.convert = [across, power = 1 / *png.gamma](const Triple& rgb) {
        return across * Triple{std::pow(rgb[0], power), std::pow(rgb[1], power), std::pow(rgb[2], power)};
    };
    made.notes.push_back(
        said("its {} are of no known space: the pixels were converted to {} once", made.how, made.space));
    return made;
}

} // namespace

Declared declared_space(const std::filesystem::path& path, const wire::Header& header, bool whole_numbers) {
    std::vector<std::string> notes;
    const auto declared_as = [&](Declared made) {
        made.notes.insert(made.notes.begin(), notes.begin(), notes.end());
        return made;
    };
    if (header.format == "movie")
        return declared_of_movie(header);
    if (const std::string own = header.text(own_attribute); !own.empty()) {
        if (colour::find_space(own))
            return {own, "attribute of the file"};
        notes.push_back(said("its attribute names the space {}, which is not known here", own));
    }
    if (const auto png = png_colour(path))
        if (auto made = of_png(*png, notes))
            return declared_as(*std::move(made));
    if (const image::Attribute* icc = header.find("ICCProfile")) {
        std::string reason;
        if (auto made = of_profile(icc->data, reason))
            return declared_as(*std::move(made));
        notes.push_back(said("{}; the usual space is assumed", reason));
    }
    if (header.format == "openexr") { // a name that other programs write, where a colour config knows it
        const std::string named = header.text("oiio:ColorSpace");
        if (const colour::Space* space = colour::find_space(named); space && space->to_light && !space->is_view)
            return declared_as({std::string(space->name), "attribute of the file, of the colour config"});
    }
    float c[8];
    if (const image::Attribute* said_by_file = header.find("chromaticities");
        said_by_file && said_by_file->type == "float[8]" && said_by_file->data.size() == sizeof c) {
        std::memcpy(c, said_by_file->data.data(), sizeof c);
        const auto at = [&](int i) {
            return Chromaticity{static_cast<double>(c[2 * i]), static_cast<double>(c[2 * i + 1])};
        };
        const double size = at(0).y * at(1).y * at(2).y * at(3).y;
        if (size != 0 && std::isfinite(size))
            return declared_as(of_chromaticities({at(0), at(1), at(2)}, at(3), "EXR chromaticities"));
        notes.push_back(said("its chromaticities make no sense; the usual space is assumed"));
    }
    const std::string hint = header.text("oiio:ColorSpace");
    if (const std::string ruled = space_by_file_rule(path); !ruled.empty() && colour::find_space(ruled))
        return declared_as({ruled, "file rule of the colour config"});
    const bool linear = !whole_numbers || hint == "Linear" || hint == "linear";
    return declared_as({linear ? std::string(colour::default_space) : "srgb",
                        whole_numbers && linear ? "attribute of the file" : "assumed"});
}

bool declare_space(wire::Header& header, const std::string& name) {
    const std::string& format = header.format;
    const Space* space = colour::find_space(name);
    if (!space)
        return false;
    if (space->beyond) // a print, as an sRGB display shows it
        return declare_space(header, "srgb");
    if (space->to_light) { // of a colour config: only its name can be said
        if (format == "openexr")
            header.set(own_attribute, name);
        return format == "openexr";
    }
    if (format != "openexr" && format != "png" && format != "tiff" && format != "jpeg") // what is usual, or nothing
        return name ==
            (format == "hdr" || (format == "portable" && header.depth == image::Depth::float32) ? "rec709-linear"
                                                                                                : "srgb");
    if (format == "openexr") {
        float c[8];
        for (std::size_t i = 0; i < 4; ++i) {
            const Chromaticity& from = i < 3 ? space->primaries[i] : space->white;
            c[2 * i] = static_cast<float>(from.x);
            c[2 * i + 1] = static_cast<float>(from.y);
        }
        header.set("chromaticities", "float[8]", c, sizeof c);
        if (space->transfer != "linear")
            header.set(own_attribute, name);
        header.set("oiio:ColorSpace", space->transfer == "linear" ? std::string("Linear") : name);
        return true;
    }
    if (name == "srgb")
        header.set("oiio:ColorSpace", std::string("sRGB"));
    else
        header.set("oiio:ColorSpace", name);
    if ((name == "srgb" && format == "png") || header.channels.size() < 3)
        return name == "srgb"; // it has a chunk of its own; and a profile of r, g and b is none of a single channel
    const std::vector<std::uint8_t> profile = made_profile(*space);
    if (!profile.empty())
        header.set("ICCProfile", fmt::format("uint8[{}]", profile.size()), profile.data(), profile.size());
    return !profile.empty();
}

} // namespace kasuri::io
