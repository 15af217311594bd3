#include "io/picture_kinds.hpp"

#include "base/file.hpp"

namespace kasuri::io {
namespace {

using image::Alpha;
using image::Depth;

bool whole(Depth d) { return d == Depth::uint8 || d == Depth::uint16; }
bool byte(Depth d) { return d == Depth::uint8; }
bool no_half(Depth d) { return d != Depth::half; }
bool floats(Depth d) { return !whole(d); }
bool single(Depth d) { return d == Depth::float32; }

} // namespace

std::span<const PictureKind> picture_kinds() {
    static constexpr PictureKind rows[] = {
        {".png", "png", whole, Depth::uint16, Alpha::straight, true},
        {".tif", "tiff", no_half, Depth::float32, Alpha::straight, true},
        {".tiff", "tiff", no_half, Depth::float32, Alpha::straight, true},
        {".exr", "openexr", floats, Depth::half, Alpha::premultiplied, true},
        {".dpx", "dpx", whole, Depth::uint16, Alpha::straight},
        {".jpg", "jpeg", byte, Depth::uint8, Alpha::none, false, false},
        {".jpeg", "jpeg", byte, Depth::uint8, Alpha::none, false, false},
        {".tga", "targa", byte, Depth::uint8, Alpha::straight},
        {".webp", "webp", byte, Depth::uint8, Alpha::straight, false, false},
        {".jp2", "jpeg2000", whole, Depth::uint16, Alpha::straight},
        {".hdr", "hdr", single, Depth::float32, Alpha::none, false, false, false},
        {".ppm", "portable", whole, Depth::uint16, Alpha::none},
        {".pfm", "portable", single, Depth::float32, Alpha::none},
        {".avif", "heif", byte, Depth::uint8, Alpha::straight, false, false},
    };
    return rows;
}

const PictureKind* picture_kind(const std::filesystem::path& path) {
    const std::string wanted = lower_ending(path);
    for (const PictureKind& kind : picture_kinds())
        if (kind.ending == wanted)
            return &kind;
    return nullptr;
}

} // namespace kasuri::io
