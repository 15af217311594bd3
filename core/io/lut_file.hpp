#pragma once
#include "base/result.hpp"
#include "ir/external.hpp"

#include <array>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::io {

/// What a LUT file does to a colour, in the order of these members; what is not there is not done.
struct LutSteps {
    /// Rows of out = matrix * rgb + offset: r, g, b, offset.
    std::optional<std::array<std::array<double, 4>, 3>> matrix{};
    /// out = a * log2(b * x + c) + d
    struct Log {
        double a = 1, b = 1, c = 0, d = 0;
    };
    std::optional<Log> log{};
    std::vector<std::array<float, 3>>
        curves{}; ///< over 0 .. 1, evenly, each channel its own; what lies outside is brought inside
    int size = 0; ///< of a table of size^3 colours over 0 .. 1
    std::vector<std::array<float, 3>> table{}; ///< red fastest
};

/// What a file says of itself.
struct LutText {
    std::string title;
    std::string input, output;      ///< what the numbers mean
    std::vector<std::string> lines; ///< further descriptions
};

/// A Common LUT Format file (SMPTE ST 2136-1, the Academy's S-2014-006), or with the ending .ctf the same in
/// OpenColorIO's own dialect, by OpenColorIO. Its identifier is that of its content.
Result<std::string> clf_text(const std::string& ending, const LutSteps& steps, const LutText& text);

/// Endings of the further formats that OpenColorIO bakes tables into, with their dots, sorted.
std::vector<std::string> baked_endings();
/// One of those, as text; of `steps` the table (or curves, or matrix) for numbers from `low` to `high`, which brings
/// them to 0 .. 1 itself. Errors: there is no such ending, or it has no place for another domain than 0 to 1.
Result<std::string> baked_text(const std::string& ending, const LutSteps& steps, double low = 0, double high = 1);

/// How a reader finds what lies between the points of a table.
enum class Interpolation { tetrahedral, trilinear };

/// What a LUT file does, as code. Interpolates tables tetrahedrally, unless it is asked otherwise or the file itself
/// says so (.clf and .ctf can). A file that cannot be understood is an error. Errors too: it refers to another file, or
/// ends too early for a reader that would wait for ever. It is tried in a process of its own first (io/helper.hpp),
/// unless the same text has been before.
Result<std::shared_ptr<const ir::External>> read_lut(const std::filesystem::path& path);
/// The same of a text; `ending` with its dot, `where` is what errors name as its place.
Result<std::shared_ptr<const ir::External>> read_lut(std::string_view text, const std::string& ending,
                                                     const std::string& where,
                                                     Interpolation interpolation = Interpolation::tetrahedral);

/// Where the points of a table stand along its axes.
struct LutAxis {
    int points = 0; ///< of a 3D table whose points are evenly apart; 0: there is none
    double low = 0, high = 1;
};
/// Of the first table of a LUT file; steps before it are followed back. What has no table has the usual axis. Errors:
/// as read_lut.
Result<LutAxis> lut_axis(const std::filesystem::path& path);
Result<LutAxis> lut_axis(std::string_view text, const std::string& ending, const std::string& where);

/// What read_lut does, in this process, which the library may end or keep for ever.
Result<std::shared_ptr<const ir::External>> read_lut_here(std::string_view text, const std::string& ending,
                                                          const std::string& where,
                                                          Interpolation interpolation = Interpolation::tetrahedral);

/// A colour decision list: out = (in * slope + offset) ^ power, then saturation about BT.709 luma (ASC CDL 1.2),
/// without its clamps.
struct Cdl {
    std::array<double, 3> slope{1, 1, 1}, offset{0, 0, 0}, power{1, 1, 1};
    double saturation = 1;
    std::string id{}, description{};
    friend bool operator==(const Cdl&, const Cdl&) = default;
};

/// All corrections of a .cc, .ccc or .cdl file; tried like a LUT.
Result<std::vector<Cdl>> read_cdl(const std::filesystem::path& path);
Result<std::vector<Cdl>> read_cdl_here(const std::filesystem::path& path);
/// By its ending: .cc, .ccc or .cdl.
Status write_cdl(const std::filesystem::path& path, const Cdl& cdl);

} // namespace kasuri::io
