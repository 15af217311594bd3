#include "io/picture_file.hpp"

#include "base/file.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <fmt/format.h>

#if defined(__GNUC__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wshadow"
#pragma GCC diagnostic ignored "-Wpedantic"
#endif
#include <OpenImageIO/imageio.h>
#if defined(__GNUC__)
#pragma GCC diagnostic pop
#endif

namespace kasuri::io {
namespace fs = std::filesystem;
using image::Alpha;
using image::Depth;
using image::Image;

namespace {

/// More than this is refused: no picture of this trade is larger, and a broken header can claim anything.
constexpr std::uint64_t most_values = std::uint64_t{1} << 31;

bool is_alpha_name(std::string_view name) {
    const auto dot = name.rfind('.');
    std::string last(dot == std::string_view::npos ? name : name.substr(dot + 1));
    std::transform(last.begin(), last.end(), last.begin(), [](unsigned char c) { return std::tolower(c); });
    return last == "a" || last == "alpha";
}

Depth depth_of(const OIIO::TypeDesc& type) {
    switch (type.basetype) {
    case OIIO::TypeDesc::UINT8:
    case OIIO::TypeDesc::INT8: return Depth::uint8;
    case OIIO::TypeDesc::HALF: return Depth::half;
    case OIIO::TypeDesc::FLOAT:
    case OIIO::TypeDesc::DOUBLE: return Depth::float32;
    default: return Depth::uint16;
    }
}

bool whole_numbers(Depth depth) { return depth == Depth::uint8 || depth == Depth::uint16; }

std::string lower_ending(const fs::path& path) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
    return ending;
}

std::string first_line(const std::string& text) { return text.substr(0, text.find('\n')); }

struct Ending {
    std::string_view ending;
    std::string_view format;
    bool (*holds)(Depth);
    Depth fallback;
    Alpha alpha; ///< how it stores alpha
};
constexpr Ending endings[] = {
    {".png", "png", [](Depth d) { return whole_numbers(d); }, Depth::uint16, Alpha::straight},
    {".tif", "tiff", [](Depth d) { return d != Depth::half; }, Depth::float32, Alpha::straight},
    {".tiff", "tiff", [](Depth d) { return d != Depth::half; }, Depth::float32, Alpha::straight},
    {".exr", "openexr", [](Depth d) { return !whole_numbers(d); }, Depth::half, Alpha::premultiplied},
};
const Ending* find_ending(const fs::path& path) {
    const std::string wanted = lower_ending(path);
    for (const Ending& ending : endings)
        if (ending.ending == wanted)
            return &ending;
    return nullptr;
}

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
                image::Samples values(image.pixels());
                for (std::size_t p = 0; p < values.size(); ++p) {
                    const float a = (*other.plane)[p], c = (*image.channels[i].plane)[p];
                    values[p] = wanted == Alpha::premultiplied ? (a != 0 ? c * a : c) : (a != 0 ? c / a : c);
                }
                result.channels[i].plane = image::make_plane(std::move(values));
                break;
            }
    }
    return result;
}

} // namespace

Result<Image> load(const fs::path& path) {
    std::error_code code;
    const fs::file_status status = fs::status(path, code);
    if (status.type() == fs::file_type::not_found)
        return Error{"there is no such file", path.string(), "Check the name."};
    if (status.type() == fs::file_type::directory)
        return Error{"this is a folder, not a picture", path.string(), "Name a file in it."};
    OIIO::ImageSpec config;
    config.attribute("oiio:UnassociatedAlpha", 1); // numbers as they are stored
    auto input = OIIO::ImageInput::open(path.string(), &config);
    if (!input)
        return Error{"cannot be read as a picture (" + first_line(OIIO::geterror()) + ")", path.string(),
                     "PNG, TIFF and EXR can be read; is the file whole?"};
    const OIIO::ImageSpec spec = input->spec();
    const auto values = static_cast<std::uint64_t>(std::max(spec.width, 0)) *
                        static_cast<std::uint64_t>(std::max(spec.height, 0)) * static_cast<std::uint64_t>(std::max(spec.nchannels, 0));
    if (values == 0 || spec.depth > 1 || spec.deep)
        return Error{"holds no flat picture", path.string(), "Deep and volume pictures are not read."};
    if (values > most_values)
        return Error{fmt::format("says it is {} x {} with {} channels, more than can be held", spec.width, spec.height,
                                 spec.nchannels), path.string(), "Is the file whole?"};
    Image image;
    image.width = spec.width;
    image.height = spec.height;
    image.depth = depth_of(spec.format);
    const std::string said = spec.get_string_attribute("oiio:ColorSpace");
    image.space = whole_numbers(image.depth) && said != "Linear" && said != "linear" ? "srgb" : "rec709-linear";
    std::vector<float> interleaved;
    try {
        interleaved.resize(values);
    } catch (const std::bad_alloc&) {
        return Error{"does not fit into memory", path.string(), "Close other pictures and try again."};
    }
    if (!input->read_image(0, 0, 0, spec.nchannels, OIIO::TypeDesc::FLOAT, interleaved.data()))
        return Error{"cannot be read to its end (" + first_line(input->geterror()) + ")", path.string(),
                     "The file may be cut short; copy it again."};
    const auto channels = static_cast<std::size_t>(spec.nchannels);
    for (std::size_t c = 0; c < channels; ++c) {
        image::Samples plane(image.pixels());
        for (std::size_t p = 0; p < plane.size(); ++p)
            plane[p] = interleaved[p * channels + c];
        const std::string name = c < spec.channelnames.size() && !spec.channelnames[c].empty() ? spec.channelnames[c]
                                                                                               : fmt::format("channel{}", c);
        image.channels.push_back({name, image::make_plane(std::move(plane))});
        if (is_alpha_name(name))
            image.alpha = spec.get_int_attribute("oiio:UnassociatedAlpha") != 0 ? Alpha::straight : Alpha::premultiplied;
    }
    return image;
}

const std::vector<std::string>& writable_endings() {
    static const std::vector<std::string> list = [] {
        std::vector<std::string> all;
        for (const Ending& ending : endings)
            all.emplace_back(ending.ending);
        return all;
    }();
    return list;
}

std::string space_of_ending(const fs::path& path, Depth depth) {
    const Ending* ending = find_ending(path);
    if (ending && !ending->holds(depth))
        depth = ending->fallback;
    return whole_numbers(depth) ? "srgb" : "rec709-linear";
}

Result<SaveReport> save(const fs::path& path, const Image& given) {
    const Ending* ending = find_ending(path);
    if (!ending)
        return Error{"no picture can be written with this ending", path.string(),
                     fmt::format("Use {}.", fmt::join(writable_endings(), ", "))};
    const Image image = with_alpha(given, ending->alpha);
    const Depth depth = ending->holds(image.depth) ? image.depth : ending->fallback;
    OIIO::TypeDesc::BASETYPE type = OIIO::TypeDesc::FLOAT;
    switch (depth) {
    case Depth::uint8: type = OIIO::TypeDesc::UINT8; break;
    case Depth::uint16: type = OIIO::TypeDesc::UINT16; break;
    case Depth::half: type = OIIO::TypeDesc::HALF; break;
    case Depth::float32: break;
    }
    const std::size_t channels = image.channels.size();
    OIIO::ImageSpec spec(image.width, image.height, static_cast<int>(channels), type);
    spec.channelnames.clear();
    spec.alpha_channel = -1;
    for (std::size_t c = 0; c < channels; ++c) {
        spec.channelnames.push_back(image.channels[c].name);
        if (spec.alpha_channel < 0 && is_alpha_name(image.channels[c].name))
            spec.alpha_channel = static_cast<int>(c);
    }
    if (ending->alpha == Alpha::straight)
        spec.attribute("oiio:UnassociatedAlpha", 1);
    spec.attribute("oiio:ColorSpace", image.space == "srgb" ? "sRGB" : "Linear");
    spec.attribute("compression", "zip");
    SaveReport report;
    std::vector<float> interleaved(image.pixels() * channels);
    for (std::size_t c = 0; c < channels; ++c)
        for (std::size_t p = 0; p < image.pixels(); ++p) {
            float value = (*image.channels[c].plane)[p];
            if (whole_numbers(depth)) {
                if (!std::isfinite(value))
                    ++report.not_finite;
                else if (value < 0 || value > 1)
                    ++report.clipped;
                if (std::isnan(value))
                    value = 0;
            }
            interleaved[p * channels + c] = value;
        }
    const Status written = write_atomically(path, [&](const fs::path& temporary) -> Status {
        auto output = OIIO::ImageOutput::create(std::string(ending->format));
        if (!output)
            return Error{"this kind of picture cannot be written here", path.string(), OIIO::geterror()};
        const auto failed = [&] {
            return Error{"cannot be written (" + first_line(output->geterror()) + ")", path.string(),
                         "Is the folder writable, and is there space?"};
        };
        if (!output->open(temporary.string(), spec) || !output->write_image(OIIO::TypeDesc::FLOAT, interleaved.data()) ||
            !output->close())
            return failed();
        // Some writers do not notice a disk that fills up; what cannot be read back was not written.
        std::vector<float>& again = interleaved;
        auto input = OIIO::ImageInput::open(temporary.string());
        if (!input || !input->read_image(0, 0, 0, static_cast<int>(channels), OIIO::TypeDesc::FLOAT, again.data()))
            return Error{"was not written whole", path.string(), "Free some space and try again."};
        return {};
    });
    if (!written)
        return written.error();
    return report;
}

} // namespace kasuri::io
