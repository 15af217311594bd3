#pragma once
#include "base/result.hpp"
#include "colour/triple.hpp"

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::io {

/// A press or printer by its ICC profile (of r, g, b, grey or inks, with tables for both ways). Safe across threads.
class Press {
public:
    /// The error says what it is instead, or what it lacks.
    static Result<std::shared_ptr<const Press>> open(const std::filesystem::path& profile);
    virtual ~Press() = default;

    enum class Way {
        relative,   ///< colours as they are if the paper can hold them, its white and black as those of the picture
        perceptual, ///< by the profile's own way of bringing all colours in
        on_paper,   ///< as `relative`, with the white of the paper and the black of the ink as they look
    };
    /// Linear BT.709 light, diffuse white 1, as the print of it looks.
    virtual colour::Triple printed(const colour::Triple& light, Way way) const = 0;
    /// How far a colour is from what the paper can hold: CIEDE2000 to itself there and back, relative colorimetric.
    virtual double beyond(const colour::Triple& light) const = 0;
    /// What is laid on the paper for it, as a share of each ink (of r, g, b where it has those): `relative`.
    virtual std::vector<double> inks(const colour::Triple& light) const = 0;
    /// The edges of what the paper holds, relative colorimetric, each in so many steps: of the cube of the first three
    /// inks, and where there is black, from each of its corners to full black; of one channel its line.
    virtual std::vector<std::vector<colour::Triple>> edges(std::size_t steps) const = 0;
    virtual const std::string& name() const = 0;
    /// The letters of its colour space: "CMYK", "RGB ", "GRAY".
    virtual const std::string& space() const = 0;
};

/// The ways of seeing a press as views (colour::added_views), whose numbers are those of an sRGB display: "NAME
/// printed", "NAME printed, perceptual", "NAME on its paper", where NAME is the file's. Their names.
Result<std::vector<std::string>> add_prints(const std::filesystem::path& profile);

} // namespace kasuri::io
