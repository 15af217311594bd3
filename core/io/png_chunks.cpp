#include "io/png_chunks.hpp"

#include "base/said.hpp"

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fstream>
#include <string>
#include <unistd.h>
#include <vector>

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

namespace {

struct Row {
    std::uint8_t primaries, transfer;
    std::string_view space;
};
/// Of rows with the same space the first is written.
constexpr Row rows[] = {{1, 13, "srgb"},         {1, 1, "rec709"},         {1, 8, "rec709-linear"},
                        {9, 16, "rec2100-pq"},   {9, 18, "rec2100-hlg"},   {9, 14, "rec2020"},
                        {9, 15, "rec2020"},      {9, 1, "rec2020"},        {9, 8, "rec2020-linear"},
                        {12, 13, "p3-d65-srgb"}, {12, 8, "p3-d65-linear"}, {11, 17, "dci-p3"},
                        {5, 6, "rec601-625"},    {6, 6, "rec601-525"}};

constexpr off_t behind_header = 8 + 25; ///< signature and IHDR, which is always as long

} // namespace

std::string_view space_of(CodePoints code_points) {
    for (const Row& row : rows)
        if (row.primaries == code_points[0] && row.transfer == code_points[1])
            return row.space;
    return {};
}

std::optional<CodePoints> code_points_of(std::string_view space) {
    for (const Row& row : rows)
        if (row.space == space)
            return CodePoints{row.primaries, row.transfer};
    return std::nullopt;
}

std::uint32_t crc32(std::span<const unsigned char> bytes) {
    std::uint32_t crc = 0xffffffff;
    for (const unsigned char byte : bytes) {
        crc ^= byte;
        for (int bit = 0; bit < 8; ++bit)
            crc = (crc >> 1) ^ ((crc & 1) != 0 ? 0xedb88320U : 0U);
    }
    return ~crc;
}

Status add_code_points(const std::filesystem::path& path, CodePoints code_points) {
    const int file = ::open(path.c_str(), O_RDWR | O_CLOEXEC);
    const auto failed = [&] {
        const Error error{said("cannot be written ({})", std::strerror(errno)), path.string(), ""};
        if (file >= 0)
            ::close(file);
        return error;
    };
    if (file < 0)
        return failed();
    std::array<unsigned char, 16> chunk = {0, 0, 0, 4, 'c', 'I', 'C', 'P', code_points[0], code_points[1], 0, 1};
    const std::uint32_t crc = crc32(std::span(chunk).subspan(4, 8));
    for (std::size_t i = 0; i < 4; ++i)
        chunk[12 + i] = static_cast<unsigned char>(crc >> (24 - 8 * i));
    // What follows is moved back from its end, block by block.
    std::vector<unsigned char> block(std::size_t{1} << 20);
    constexpr auto by = static_cast<off_t>(chunk.size());
    for (off_t end = ::lseek(file, 0, SEEK_END); end > behind_header;) {
        const off_t count = std::min<off_t>(static_cast<off_t>(block.size()), end - behind_header);
        const auto bytes = static_cast<std::size_t>(count);
        if (::pread(file, block.data(), bytes, end - count) != count ||
            ::pwrite(file, block.data(), bytes, end - count + by) != count)
            return failed();
        end -= count;
    }
    if (::pwrite(file, chunk.data(), chunk.size(), behind_header) != by)
        return failed();
    ::close(file);
    const auto read = png_colour(path);
    if (!read || read->code_points != code_points)
        return Error{said("was not written whole"), path.string(), "Free some space and try again."};
    return {};
}

} // namespace kasuri::io
