#pragma once
#include "image/image.hpp"

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::wire {

/// The header of a picture file, as the picture library knows it.
struct Header {
    std::string format;        ///< the library's name of the kind of file: "openexr"
    int width = 0, height = 0; ///< pixels
    int layers = 1;            ///< of a volume; flat pictures have one
    bool deep = false;         ///< several colours in a pixel
    image::Window window{};    ///< as in image::Image
    std::vector<std::string> channels;
    image::Depth depth = image::Depth::float32;
    std::vector<image::Depth> depths;    ///< one for each channel, or empty: all as `depth`
    int tile_width = 0, tile_height = 0; ///< 0: stored in rows
    int alpha = -1;                      ///< which channel is alpha; only for writing
    int rows = 1;                        ///< how many rows are to be read or written at a time
    std::vector<image::Attribute> attributes;

    const image::Attribute* find(std::string_view name) const;
    /// A whole number, or `fallback` if there is none of that name.
    int whole(std::string_view name, int fallback) const;
    /// A text, or nothing.
    std::string text(std::string_view name) const;
    void set(const std::string& name, const std::string& text);
    void set(const std::string& name, int value);
    /// `type` in the library's words: "uint8[300]", "float[8]", "rational2i".
    void set(const std::string& name, const std::string& type, const void* data, std::size_t bytes);
    friend bool operator==(const Header&, const Header&) = default;
};

/// One word from one side to the other. Which members count is said with each kind.
struct Message {
    enum class Kind : std::uint8_t {
        // asked
        open,    ///< text: a picture file; straight numbers as stored -> header | failed
        part,    ///< n[0]: which further picture of the file -> header | none | failed
        pixels,  ///< n: bytes of a slot, slots -> filled ..., done | failed
        freed,   ///< a slot may be filled again (from either side)
        create,  ///< text: a file to write; header, and those of further parts -> done | failed
        finish,  ///< close it and read it again; n[0]: 1 if it must be what was given -> alive ..., done | failed
        stretch, ///< n: bytes of a slot, width and height of slot 0, then of slot 1 -> done | failed
        close,   ///< forget what is open -> done
        lut,     ///< text: content, more: ending -> done, n[0]: 1 if it was refused | failed
        list,    ///< text: a file of colour decisions -> as above
        config,  ///< text: a file, more: values of its variables -> as above
        // answered
        header,
        none,
        filled, ///< n: slot, first row, row after the last, part (from either side)
        alive,  ///< still at work
        done,
        failed, ///< text: the library's reason; n[0]: 1 if it was about memory
    };
    Kind kind = Kind::alive;
    std::string text{}, more{};
    std::array<std::int64_t, 5> n{};
    std::optional<Header> head{};
    std::vector<Header> more_parts{}; ///< of a file that is written, behind `head`
};

/// As bytes (CBOR, RFC 8949); texts and names may hold any bytes.
std::string packed(const Message& message);
/// Nothing if it is none.
std::optional<Message> unpacked(std::string_view bytes);

} // namespace kasuri::wire
