#include "base/file_kind.hpp"

#include "base/file.hpp"

namespace kasuri {

std::span<const FileEnding> file_endings() {
    static constexpr FileEnding rows[] = {
        {".kasuri", FileKind::filter},  {".kasurilook", FileKind::look}, {".cube", FileKind::lut},
        {".clf", FileKind::lut},        {".ctf", FileKind::lut},         {".csp", FileKind::lut},
        {".3dl", FileKind::lut},        {".itx", FileKind::lut},         {".lut", FileKind::lut},
        {".cub", FileKind::lut},        {".spi1d", FileKind::lut},       {".spi3d", FileKind::lut},
        {".spimtx", FileKind::lut},     {".cc", FileKind::correction},   {".ccc", FileKind::correction},
        {".cdl", FileKind::correction}, {".ocio", FileKind::config},     {".png", FileKind::picture},
        {".tif", FileKind::picture},    {".tiff", FileKind::picture},    {".exr", FileKind::picture},
        {".dpx", FileKind::picture},    {".jpg", FileKind::picture},     {".jpeg", FileKind::picture},
        {".tga", FileKind::picture},    {".webp", FileKind::picture},    {".jp2", FileKind::picture},
        {".hdr", FileKind::picture},    {".ppm", FileKind::picture},     {".pfm", FileKind::picture},
        {".avif", FileKind::picture},   {".icc", FileKind::print},       {".icm", FileKind::print},
        {".mov", FileKind::movie},      {".mp4", FileKind::movie},       {".mkv", FileKind::movie},
        {".m4v", FileKind::movie},      {".mxf", FileKind::movie},       {".webm", FileKind::movie},
        {".avi", FileKind::movie},      {".mpg", FileKind::movie},       {".mts", FileKind::movie},
    };
    return rows;
}

std::optional<FileKind> file_kind(const std::filesystem::path& path) {
    const std::string wanted = lower_ending(path);
    for (const FileEnding& row : file_endings())
        if (row.ending == wanted)
            return row.kind;
    return std::nullopt;
}

std::vector<std::string_view> endings_of(FileKind kind) {
    std::vector<std::string_view> endings;
    for (const FileEnding& row : file_endings())
        if (row.kind == kind)
            endings.push_back(row.ending);
    return endings;
}

std::string with_ending(std::string file, FileKind kind) {
    return is_kind(file, kind) ? file : file + std::string(endings_of(kind).front());
}

} // namespace kasuri
