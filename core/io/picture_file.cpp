#include "io/picture_file.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "base/memory.hpp"
#include "base/movie_name.hpp"
#include "base/parallel.hpp"
#include "io/declared.hpp"
#include "io/metadata.hpp"
#include "io/movie_file.hpp"
#include "io/picture_kinds.hpp"
#include "io/picture_parts.hpp"
#include "io/picture_process.hpp"
#include "io/png_chunks.hpp"
#include "io/upright.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <fmt/format.h>
#include <unistd.h>

namespace kasuri::io {
namespace fs = std::filesystem;
using image::Alpha;
using image::Depth;
using image::Image;

namespace {

constexpr const char* made_name = "kasuri:made";
constexpr std::string_view made_software = "Kasuri, made ";

bool whole_numbers(Depth depth) { return depth == Depth::uint8 || depth == Depth::uint16; }

/// Alpha as the file wants it, channel by channel within each layer.
Image with_alpha(const Image& image, Alpha wanted) {
    if (image.alpha == Alpha::none || image.alpha == wanted)
        return image;
    Image result = image;
    result.alpha = wanted;
    for (std::size_t i = 0; i < result.channels.size(); ++i) {
        const std::string& name = result.channels[i].name;
        if (is_alpha_name(name))
            continue;
        const auto dot = name.rfind('.');
        const std::string prefix = dot == std::string::npos ? "" : name.substr(0, dot + 1);
        for (const image::Channel& other : image.channels)
            if (other.name.size() > prefix.size() && other.name.starts_with(prefix) && is_alpha_name(other.name) &&
                other.name.rfind('.') == (prefix.empty() ? std::string::npos : prefix.size() - 1)) {
                const image::Plane cover = image::as_floats(other.plane);
                image::Samples values = image.channels[i].plane->copied();
                for (std::size_t p = 0; p < values.size(); ++p) {
                    const float a = (*cover)[p], c = values[p];
                    values[p] = wanted == Alpha::premultiplied ? c * a : (a != 0 ? c / a : c);
                }
                result.channels[i].plane = image::make_plane(std::move(values));
                break;
            }
    }
    return result;
}

} // namespace

namespace {

/// Every layer's r, g, b through `convert`, divided by alpha first where it is multiplied in.
Image converted(const Image& image, const std::function<colour::Triple(const colour::Triple&)>& convert) {
    Image result = image;
    for (const std::string& layer : image::layers(image)) {
        std::optional<image::Picture> picture = image::picture_of(image, layer);
        if (!picture || !result.find(layer.empty() ? "G" : layer + ".G"))
            continue; // a single channel is a plate, not a colour
        *picture = image::as_floats(*picture);
        std::array<image::Samples, 3> planes;
        for (auto& plane : planes)
            plane.resize(image.pixels());
        parallel_ranges(image.pixels(), 4096, {}, [&](std::size_t first, std::size_t last) {
            for (std::size_t i = first; i < last; ++i) {
                const auto c = picture->at(i);
                const colour::Triple made =
                    convert({static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])});
                for (std::size_t k = 0; k < 3; ++k)
                    planes[k][i] = static_cast<float>(made[k]);
            }
        });
        for (std::size_t k = 0; k < 3; ++k)
            picture->planes[k] = image::make_plane(std::move(planes[k]));
        result = image::with_picture(result, layer, *picture);
    }
    return result;
}

/// r, g, b and alpha of the usual layer, for kinds of files that hold no more; what is left out is told. Without a
/// place for alpha it is laid over black.
Image one_layer(const Image& image, const PictureKind& kind, std::vector<std::string>& notes) {
    std::optional<image::Picture> picture = image::picture_of(image, image::usual_layer(image));
    if (!picture)
        return image;
    const std::size_t kept = picture->planes[3] ? 4 : 3;
    if (kind.alpha == Alpha::none && picture->planes[3]) {
        const image::Plane cover = image::as_floats(picture->planes[3]);
        for (std::size_t c = 0; c < 3; ++c) {
            image::Samples over = picture->planes[c]->copied();
            for (std::size_t i = 0; i < over.size(); ++i)
                over[i] *= (*cover)[i];
            picture->planes[c] = image::make_plane(std::move(over));
        }
        picture->planes[3] = nullptr;
        notes.push_back(said("{} has no place for alpha: the picture was laid over black", kind.ending));
    }
    if (const std::size_t all = image.channels.size() + image.ids.size(); all > kept)
        notes.push_back(said("{} has no place for further channels: {} were left out", kind.ending, all - kept));
    Image made = image::image_of(*picture);
    made.depth = image.depth;
    made.attributes = image.attributes;
    made.window = image.window;
    made.made = image.made;
    made.profile = image.profile;
    made.profile_space = image.profile_space;
    return made;
}

/// What a picture may take of this machine's memory, as bytes.
double most_memory() {
    return 0.5 * static_cast<double>(::sysconf(_SC_PHYS_PAGES)) * static_cast<double>(::sysconf(_SC_PAGE_SIZE));
}

/// Light below 0 cannot come from a display-encoded picture.
void look_for_contradictions(Image& image) {
    const colour::Space& space = *colour::find_space(image.space);
    if (whole_numbers(image.depth) || is_linear(space) || space.to_light || transfer_of(space).decode(0) != 0)
        return; // where 0 is not black, as with logarithms, what is below is a code as well
    std::size_t below = 0;
    for (const image::Channel& channel : image.channels)
        if (!is_alpha_name(channel.name))
            below += static_cast<std::size_t>(
                std::count_if(channel.plane->begin(), channel.plane->end(), [](float x) { return x < -1e-4f; }));
    if (below > 0)
        image.notes.push_back(
            said("{} numbers are below 0, which {} does not have: is it meant to be linear?", below, image.space));
}

} // namespace

Result<Image> load(const fs::path& path, const std::string& space) {
    if (std::error_code code; fs::is_directory(path, code))
        return Error{"this is a folder, not a picture", path.string(), "Name a file in it."};
    if (const Status readable = readable_file(file_of(path)); !readable)
        return readable.error();
    Result<PictureSource> source = PictureSource::open(path);
    if (!source)
        return source.error();
    const wire::Header header = source.value().header();
    const std::size_t channels = header.channels.size();
    const auto values = static_cast<std::uint64_t>(std::max(header.width, 0)) *
        static_cast<std::uint64_t>(std::max(header.height, 0)) * static_cast<std::uint64_t>(channels);
    if (values == 0 || header.layers > 1 || header.deep)
        return Error{"holds no flat picture", path.string(), "Deep and volume pictures are not read."};
    for (const char* name : {"tiff:ColorSpace", "jpeg:ColorSpace"})
        if (const std::string made_of = header.text(name); made_of == "CMYK" || made_of == "YCbCrK")
            return Error{"is made of printing inks (CMYK), which are not read", path.string(),
                         "Convert it to RGB through its profile first."};
    if (values > max_values)
        return Error{
            said("says it is {} x {} with {} channels, more than can be held", header.width, header.height, channels),
            path.string(), "Is the file whole?"};
    if (const double bytes = 4 * static_cast<double>(values); bytes + source.value().memory() > most_memory())
        return Error{said("is {} x {} with {} channels, {:.1f} GB; half of this machine's memory is {:.1f} GB",
                          header.width, header.height, channels, bytes / 1e9, most_memory() / 1e9),
                     path.string(), "Make it smaller, or open it on a larger machine."};
    Image image;
    image.width = header.width;
    image.height = header.height;
    image.depth = picture_depth(header);
    if (!space.empty() && !colour::find_space(space))
        return Error{said("there is no space {}", space), path.string(), "See docs/colour.md for the list."};
    const Declared declared =
        space.empty() ? declared_space(path, header, whole_numbers(image.depth)) : Declared{space, "said by you"};
    image.space = declared.space;
    image.space_from = declared.how;
    image.notes = declared.notes;
    if (const image::Attribute* icc = header.find("ICCProfile");
        icc && !declared.convert && declared.how.starts_with("ICC profile")) {
        image.profile = icc->data;
        image.profile_space = declared.space;
    }
    Status read = read_channels(source.value(), image);
    keep_metadata(image, header);
    if (header.format == "movie")
        keep_movie(image, header);
    else if (read)
        read = read_further_parts(source.value(), image);
    if (!read)
        return Error{read.error().what, path.string(), read.error().remedy};
    if (declared.convert) {
        image = converted(image, declared.convert);
        if (whole_numbers(image.depth))
            image.depth = Depth::float32; // its light does not fit into whole numbers any more
    }
    look_for_contradictions(image);
    make_upright(image);
    return image;
}

const std::vector<std::string>& writable_endings() {
    static const std::vector<std::string> list = [] {
        std::vector<std::string> all;
        for (const PictureKind& ending : picture_kinds())
            all.emplace_back(ending.ending);
        return all;
    }();
    return list;
}

std::string space_of_ending(const fs::path& path, Depth depth, const std::string& space, std::optional<Depth> wanted) {
    if (is_kind(path, FileKind::movie))
        return whole_numbers(depth) ? space : "rec709";
    const PictureKind* ending = picture_kind(path);
    const Depth written = wanted ? *wanted : ending && !ending->holds(depth) ? ending->fallback : depth;
    if (whole_numbers(written) == whole_numbers(depth))
        return space;
    return whole_numbers(written) ? "srgb" : "rec709-linear";
}

std::optional<Error> refused_depth(const fs::path& path, Depth depth) {
    if (is_kind(path, FileKind::movie) && !whole_numbers(depth))
        return Error{"cannot hold numbers of that depth", path.string(), "Movies hold 8 and 16 bits."};
    const PictureKind* ending = picture_kind(path);
    if (!ending || ending->holds(depth))
        return std::nullopt;
    return Error{
        "cannot hold numbers of that depth", path.string(),
        "PNG, DPX, PPM and JPEG 2000 hold 8 and 16 bits, TIFF 8, 16 and float, EXR half and float, HDR and PFM "
        "floats, the others 8 bits."};
}

std::string made_by(const std::filesystem::path& path) {
    if (!readable_file(file_of(path)))
        return {};
    const Result<PictureSource> source = PictureSource::open(path);
    if (!source)
        return {};
    const wire::Header& header = source.value().header();
    if (const std::string made = header.text(made_name); !made.empty())
        return made;
    const std::string software = header.text("Software");
    return software.starts_with(made_software) ? software.substr(made_software.size()) : std::string();
}

Result<SaveReport> save(const fs::path& path, const Image& given) {
    const PictureKind* ending = picture_kind(path);
    if (!ending)
        return Error{"no picture can be written with this ending", path.string(),
                     said("Use {}.", fmt::join(writable_endings(), ", "))};
    SaveReport report;
    const Image image = with_alpha(ending->layers ? given : one_layer(given, *ending, report.notes), ending->alpha);
    const Depth depth = ending->holds(image.depth) ? image.depth : ending->fallback;
    wire::Header header;
    header.format = ending->format;
    header.width = image.width;
    header.height = image.height;
    header.depth = depth;
    header.channels.resize(image.channels.size()); // how many there are says how a space is declared
    if (ending->alpha == Alpha::straight)
        header.set("oiio:UnassociatedAlpha", 1);
    const bool declared =
        declare_space(header, image.space) || (ending->format == "png" && code_points_of(image.space).has_value());
    if (!image.profile.empty() && image.profile_space == image.space && header.channels.size() >= 3 &&
        (ending->format == "png" || ending->format == "tiff" || ending->format == "jpeg")) {
        header.set("oiio:ColorSpace", std::string("its profile")); // and so no further chunk of a PNG
        header.set("ICCProfile", fmt::format("uint8[{}]", image.profile.size()), image.profile.data(),
                   image.profile.size());
    }
    header.set("compression", std::string(ending->exact ? "zip" : "jpeg:95"));
    if (ending->format == "jpeg")
        header.set("jpeg:subsampling", std::string("4:4:4"));
    write_metadata(header, image, ending->format == "openexr");
    if (!image.made.empty()) { // TIFF has no place for texts of one's own
        header.set(made_name, image.made);
        if (ending->format == "tiff")
            header.set("Software", std::string(made_software) + image.made);
    }
    if (!declared)
        report.notes.push_back(said("the file cannot say that its numbers are of {}", image.space));
    bool exact = ending->exact;
    const std::vector<PartToWrite> parts = parts_to_write(image, header, exact);
    if (parts.empty())
        return Error{"has no channel to write", path.string(), ""};
    if (ending->exact && !exact)
        report.notes.push_back(said("compressed with loss, as it came"));
    if (ending->layers && ending->format != "openexr" && !image.ids.empty())
        report.notes.push_back(
            said("{} has no place for further channels: {} were left out", ending->ending, image.ids.size()));
    std::size_t below = 0;
    image::Samples room;
    const auto fill = [&](std::size_t part, int begin, int end, float* band) {
        const std::size_t wide = static_cast<std::size_t>(parts[part].header.width),
                          channels = parts[part].channels.size(), count = static_cast<std::size_t>(end - begin) * wide,
                          first = static_cast<std::size_t>(begin) * wide;
        room.resize(count);
        for (std::size_t c = 0; c < channels; ++c) {
            const float* const plane = parts[part].channels[c]->plane->numbers(first, count, room.data());
            if (parts[part].channels[c]->depth == Depth::uint32) { // as bits: not every one is a number
                for (std::size_t p = 0; p < count; ++p)
                    std::memcpy(band + p * channels + c, plane + p, sizeof(float));
                continue;
            }
            for (std::size_t p = 0; p < count; ++p) {
                float value = plane[p];
                below += !ending->negative && value < 0 ? 1 : 0;
                if (whole_numbers(depth)) {
                    if (!std::isfinite(value))
                        ++report.not_finite;
                    else if (value < 0 || value > 1)
                        ++report.clipped;
                    if (std::isnan(value))
                        value = 0;
                }
                band[p * channels + c] = value;
            }
        }
    };
    const auto code_points =
        ending->format == "png" && image.channels.size() >= 3 ? code_points_of(image.space) : std::nullopt;
    const Status written = write_atomically(path, [&](const fs::path& temporary) -> Status {
        std::vector<wire::Header> headers;
        for (const PartToWrite& part : parts)
            headers.push_back(part.header);
        const Status done = write_picture(temporary, std::move(headers), path.string(), exact, fill);
        if (!done || !code_points)
            return done;
        const Status added = add_code_points(temporary, *code_points);
        return added ? added : Error{added.error().what, path.string(), added.error().remedy};
    });
    if (!written)
        return written.error();
    if (below > 0)
        report.notes.push_back(said("{} has no numbers below 0: {} became 0", ending->ending, below));
    return report;
}

} // namespace kasuri::io
