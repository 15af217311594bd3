#pragma once
#include "image/plane.hpp"

#include <array>
#include <cstddef>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::image {

struct Channel {
    std::string name; ///< "R", "A", or with a layer: "cloth.R"
    Plane plane;
    std::optional<Depth> depth{}; ///< where it is another than the picture's
    int part = 0;                 ///< which one of Image::parts it is of
};

/// Something that a file said besides its numbers, for the file that is made of it. What type and data mean is known by
/// io/metadata.
struct Attribute {
    std::string name, type;
    std::vector<std::string> texts;
    std::vector<unsigned char> data;
    std::string shown{}; ///< its value for people, in a line; of long ones the beginning
    friend bool operator==(const Attribute&, const Attribute&) = default;
};

/// Where the picture lies, and the frame that it is a part of (the data window and the display window of EXR). No size:
/// it is all of it.
struct Window {
    int x = 0, y = 0, full_x = 0, full_y = 0, full_width = 0, full_height = 0;
    friend bool operator==(const Window&, const Window&) = default;
};

/// A part of a file of several pictures, or its only one: how it is stored, for the file that is made of it.
struct Part {
    std::string name = {};                  ///< empty: it has none
    bool prefixed = false;                  ///< Image calls its channels NAME.channel, the file does not
    std::string compression = {};           ///< empty: what is usual
    int tile_width = 0, tile_height = 0;    ///< 0: in rows
    std::vector<Attribute> attributes = {}; ///< of parts behind the first
    Window window = {};
    int width = 0, height = 0;          ///< of a part of another size than the picture, which is kept as it came
    std::vector<Channel> channels = {}; ///< of such a part
};

/// Where a picture stands in the movie that it is a frame of.
struct MoviePlace {
    int frame = 0, frames = 0; ///< the first is 1; how many there are
    int rate = 0, per = 1;     ///< frames in so many seconds; a rate of 0: none is known
    std::string timecode = {}; ///< of this frame, if the movie has one
    friend bool operator==(const MoviePlace&, const MoviePlace&) = default;
};

enum class Alpha { none, straight, premultiplied };

/// A picture as planes with named channels. `space` names what r, g and b mean (colour::spaces()).
struct Image {
    int width = 0;
    int height = 0;
    std::vector<Channel> channels;
    Alpha alpha = Alpha::none;
    Depth depth = Depth::float32;
    std::string space = "rec709-linear";
    std::string space_from = {};         ///< how the space is known: "sRGB chunk", "assumed" ...
    std::vector<std::string> notes = {}; ///< what a user should know about the file
    std::vector<Attribute> attributes = {};
    Window window = {};
    std::optional<MoviePlace> movie = {};
    std::vector<unsigned char> profile = {}; ///< the file's own ICC profile, as long as its numbers are of...
    std::string profile_space = {};          ///< ...this space
    std::vector<Part> parts = {};            ///< of kinds of files that have them; empty: nothing is known
    std::vector<Channel> ids = {};           ///< of Depth::uint32: kept, and never a colour
    std::string made = {}; ///< what the file that is written says of how it was made (io::made_by); not kept from files

    std::size_t pixels() const { return static_cast<std::size_t>(width) * static_cast<std::size_t>(height); }
    const Channel* find(std::string_view name) const;
};

/// Names before the last dot, in order of appearance; "" for channels without one.
std::vector<std::string> layers(const Image& image);

/// The layer that is meant where none is named: the unnamed one if it is more than alpha, else the first that is a
/// colour, else the first with a channel that is not alpha, else the first. "" if there are no channels.
std::string usual_layer(const Image& image);

/// What a rule reads: r, g, b and alpha of one layer, straight (not premultiplied). A single channel
/// stands for all three. Alpha is the layer's own; a layer that is a colour and has none is covered by the file's
/// (the channel A without a layer), as renderers write it; otherwise it is null and means 1.
struct Picture {
    int width = 0;
    int height = 0;
    std::array<Plane, 4> planes{}; ///< r g b a; a may be null
    std::string space = "rec709-linear";

    std::size_t pixels() const { return static_cast<std::size_t>(width) * static_cast<std::size_t>(height); }
    std::array<float, 4> at(int x, int y) const {
        return at(static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x));
    }
    std::array<float, 4> at(std::size_t index) const {
        const float* const all[] = {planes[0]->values(), planes[1]->values(), planes[2]->values(),
                                    planes[3] ? planes[3]->values() : &opaque};
        if (all[0] && all[1] && all[2] && all[3]) [[likely]]
            return {all[0][index], all[1][index], all[2][index], all[3][planes[3] ? index : 0]};
        return kept_at(index);
    }

private:
    static constexpr float opaque = 1;
    /// Of planes that are not all floats.
    std::array<float, 4> kept_at(std::size_t index) const;
};

/// The same picture, all of its planes in memory: what is made on demand is made, on all cores.
Picture in_memory(const Picture& picture, const PlanePool* pool = nullptr);

/// The same picture, all of its planes kept as floats.
Picture as_floats(const Picture& picture);

/// Whether two pictures are the same, sample by sample, bit by bit: a NaN is equal to itself.
bool same(const Picture& a, const Picture& b);

/// The picture that a layer holds, divided by its alpha if it is premultiplied (pixels with alpha 0 stay as
/// they are). Nothing if the layer has no channel that could be seen.
std::optional<Picture> picture_of(const Image& image, std::string_view layer);

/// `image` with the r, g, b (and a) of `layer` replaced by `picture`, multiplied by alpha again where the
/// image is premultiplied (light that had alpha 0 before and has it still stays as it is). In the place of a single
/// channel stand the picture's r, g, b as three channels; no other channel is lost. A layer whose alpha was the file's
/// gets one of its own if the picture has another.
Image with_picture(const Image& image, std::string_view layer, const Picture& picture);

/// An image of the channels R, G, B and, if the picture has one, A.
Image image_of(const Picture& picture);

/// A picture of width * height from a function of column and row.
template <class Function>
Picture generated(int width, int height, Function&& pixel) {
    std::array<Samples, 3> rgb;
    for (auto& channel : rgb)
        channel.reserve(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const auto colour = pixel(x, y);
            for (std::size_t i = 0; i < 3; ++i)
                rgb[i].push_back(static_cast<float>(colour[i]));
        }
    Picture picture;
    picture.width = width;
    picture.height = height;
    for (std::size_t i = 0; i < 3; ++i)
        picture.planes[i] = make_plane(std::move(rgb[i]));
    return picture;
}

} // namespace kasuri::image
