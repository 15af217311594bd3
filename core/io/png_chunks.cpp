#include "io/png_chunks.hpp"

#include <fstream>
#include <string>

namespace kasuri::io {
namespace {

std::uint32_t number(const unsigned char* bytes) {
    return (std::uint32_t{bytes[0]} << 24) | (std::uint32_t{bytes[1]} << 16) | (std::uint32_t{bytes[2]} << 8) |
        bytes[3];
}

/// The longest chunk whose content is looked at.
constexpr std::uint32_t most = 64;

} // namespace

std::optional<PngColour> png_colour(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    unsigned char head[8] = {};
    constexpr unsigned char signature[8] = {0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    if (!in.read(reinterpret_cast<char*>(head), 8) || !std::equal(head, head + 8, signature))
        return std::nullopt;
    PngColour found;
    while (in.read(reinterpret_cast<char*>(head), 8)) {
        const std::uint32_t length = number(head);
        const std::string type(reinterpret_cast<const char*>(head + 4), 4);
        if (type == "IDAT" || type == "IEND")
            break;
        unsigned char data[most] = {};
        const std::uint32_t kept = std::min(length, most);
        if (!in.read(reinterpret_cast<char*>(data), kept) ||
            !in.seekg(static_cast<std::streamoff>(length - kept) + 4, std::ios::cur))
            break;
        if (type == "sRGB")
            found.srgb = true;
        else if (type == "iCCP")
            found.profile = true;
        else if (type == "gAMA" && length == 4 && number(data) > 0)
            found.gamma = number(data) / 100'000.0;
        else if (type == "cICP" && length == 4)
            found.code_points = {data[0], data[1]};
        else if (type == "cHRM" && length == 32) {
            found.chromaticities.emplace();
            for (std::size_t i = 0; i < 8; ++i)
                (*found.chromaticities)[i] = number(data + 4 * i) / 100'000.0;
        }
    }
    return found;
}

} // namespace kasuri::io
