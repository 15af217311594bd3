#include "movies/pixels.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <new>
#include <vector>
#include <zimg.h>

namespace kasuri::helpers {
namespace {

const AVPixFmtDescriptor& form(const AVFrame& frame) {
    static const AVPixFmtDescriptor none{};
    const AVPixFmtDescriptor* const found = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
    return found ? *found : none;
}

bool is(const AVFrame& frame, std::uint64_t flag) { return (form(frame).flags & flag) != 0; }
bool is_rgb(const AVFrame& frame) { return is(frame, AV_PIX_FMT_FLAG_RGB) || is(frame, AV_PIX_FMT_FLAG_PAL); }
/// Components that are colour: 1 or 3.
int colours(const AVFrame& frame) {
    return is(frame, AV_PIX_FMT_FLAG_PAL) ? 3 : form(frame).nb_components - (has_alpha(frame) ? 1 : 0);
}

/// Planes whose lines begin where vector code wants them to.
template <class T>
class Plane {
public:
    Plane() = default;
    Plane(int width, int height)
        : step_((static_cast<std::size_t>(width) * sizeof(T) + line - 1) / line * line),
          bytes_(step_ * static_cast<std::size_t>(height) + line) {}
    T* at(int y) {
        const auto begin = reinterpret_cast<std::uintptr_t>(bytes_.data());
        return reinterpret_cast<T*>(bytes_.data() + (line - begin % line) % line + static_cast<std::size_t>(y) * step_);
    }
    std::ptrdiff_t step() const { return static_cast<std::ptrdiff_t>(step_); }

private:
    static constexpr std::size_t line = 64;
    std::size_t step_ = 0;
    std::vector<unsigned char> bytes_;
};

struct Size {
    int width, height;
};
Size size_of(const AVFrame& frame, int component) {
    const bool chroma = !is_rgb(frame) && (component == 1 || component == 2) && colours(frame) == 3;
    const AVPixFmtDescriptor& f = form(frame);
    return chroma ? Size{AV_CEIL_RSHIFT(frame.width, f.log2_chroma_w), AV_CEIL_RSHIFT(frame.height, f.log2_chroma_h)}
                  : Size{frame.width, frame.height};
}

int depth_of(const AVFrame& frame, int component) {
    return is(frame, AV_PIX_FMT_FLAG_PAL) ? 8 : form(frame).comp[component].depth;
}

/// The code values of one component's line.
void read_line(const AVFrame& frame, int component, int y, int width, std::uint16_t* to) {
    const auto* const* planes = const_cast<const std::uint8_t* const*>(frame.data);
    av_read_image_line2(to, const_cast<const std::uint8_t**>(planes), frame.linesize, &form(frame), 0, y, component,
                        width, is(frame, AV_PIX_FMT_FLAG_PAL) ? 1 : 0, sizeof(std::uint16_t));
}

/// A component that stands for itself, as floats: r, g, b, luma alone, alpha.
void read_plain(const AVFrame& frame, int component, bool whole_range, float* to, int step) {
    const int depth = depth_of(frame, component);
    const bool floats = is(frame, AV_PIX_FMT_FLAG_FLOAT);
    const float unit = static_cast<float>(1 << std::max(depth - 8, 0));
    const float zero = whole_range ? 0 : 16 * unit;
    const float one = whole_range ? static_cast<float>((std::int64_t{1} << std::min(depth, 16)) - 1) : 219 * unit;
    std::vector<std::uint16_t> line(static_cast<std::size_t>(frame.width));
    std::vector<std::uint32_t> wide(static_cast<std::size_t>(frame.width));
    for (int y = 0; y < frame.height; ++y) {
        if (floats) {
            const auto* const* planes = const_cast<const std::uint8_t* const*>(frame.data);
            av_read_image_line2(wide.data(), const_cast<const std::uint8_t**>(planes), frame.linesize, &form(frame), 0,
                                y, component, frame.width, 0, sizeof(std::uint32_t));
            for (int x = 0; x < frame.width; ++x, to += step)
                std::memcpy(to, &wide[static_cast<std::size_t>(x)], sizeof(float));
            continue;
        }
        read_line(frame, component, y, frame.width, line.data());
        for (int x = 0; x < frame.width; ++x, to += step)
            *to = (static_cast<float>(line[static_cast<std::size_t>(x)]) - zero) / one;
    }
}

zimg_chroma_location_e place_of(AVChromaLocation siting) {
    switch (siting) {
    case AVCHROMA_LOC_CENTER: return ZIMG_CHROMA_CENTER;
    case AVCHROMA_LOC_TOPLEFT: return ZIMG_CHROMA_TOP_LEFT;
    case AVCHROMA_LOC_TOP: return ZIMG_CHROMA_TOP;
    case AVCHROMA_LOC_BOTTOMLEFT: return ZIMG_CHROMA_BOTTOM_LEFT;
    case AVCHROMA_LOC_BOTTOM: return ZIMG_CHROMA_BOTTOM;
    default: return ZIMG_CHROMA_LEFT;
    }
}

std::string last_reason() {
    char text[256] = {};
    zimg_get_last_error(text, sizeof text);
    zimg_clear_last_error();
    return text;
}

/// The two sides of a conversion: floats of R, G, B, and code values of Y', Cb, Cr.
struct Sides {
    zimg_image_format rgb{}, codes{};
};
Sides sides_of(const AVFrame& frame, const Tags& tags, int parity, int height) {
    Sides sides;
    zimg_image_format_default(&sides.rgb, ZIMG_API_VERSION);
    sides.rgb.width = static_cast<unsigned>(frame.width);
    sides.rgb.height = static_cast<unsigned>(height);
    sides.rgb.field_parity = parity == 0 ? ZIMG_FIELD_PROGRESSIVE : parity == 1 ? ZIMG_FIELD_TOP : ZIMG_FIELD_BOTTOM;
    sides.codes = sides.rgb;
    sides.rgb.pixel_type = ZIMG_PIXEL_FLOAT;
    sides.rgb.color_family = ZIMG_COLOR_RGB;
    sides.rgb.matrix_coefficients = ZIMG_MATRIX_RGB;
    sides.rgb.pixel_range = ZIMG_RANGE_FULL;
    sides.codes.pixel_type = ZIMG_PIXEL_WORD;
    sides.codes.depth = static_cast<unsigned>(depth_of(frame, 0));
    sides.codes.subsample_w = form(frame).log2_chroma_w;
    sides.codes.subsample_h = form(frame).log2_chroma_h;
    sides.codes.color_family = ZIMG_COLOR_YUV;
    sides.codes.matrix_coefficients = static_cast<zimg_matrix_coefficients_e>(tags.matrix);
    sides.codes.pixel_range = tags.full ? ZIMG_RANGE_FULL : ZIMG_RANGE_LIMITED;
    sides.codes.chroma_location = place_of(tags.siting);
    return sides;
}

struct Graph {
    zimg_filter_graph* made = nullptr;
    Graph(const zimg_image_format& from, const zimg_image_format& to) {
        zimg_graph_builder_params how;
        zimg_graph_builder_params_default(&how, ZIMG_API_VERSION);
        how.resample_filter = how.resample_filter_uv = ZIMG_RESIZE_BILINEAR;
        how.dither_type = ZIMG_DITHER_NONE;
        made = zimg_filter_graph_build(&from, &to, &how);
    }
    ~Graph() { zimg_filter_graph_free(made); }
    Graph(const Graph&) = delete;
    Graph& operator=(const Graph&) = delete;
    bool run(const zimg_image_buffer_const& from, const zimg_image_buffer& to) const {
        std::size_t size = 0;
        if (zimg_filter_graph_get_tmp_size(made, &size) != ZIMG_ERROR_SUCCESS)
            return false;
        Plane<unsigned char> room(static_cast<int>(size), 1);
        return zimg_filter_graph_process(made, &from, &to, room.at(0), nullptr, nullptr, nullptr, nullptr) ==
            ZIMG_ERROR_SUCCESS;
    }
};

/// Fields are converted one by one where lines of chroma belong to one of them.
bool by_fields(const AVFrame& frame) {
    return frame.interlaced_frame != 0 && form(frame).log2_chroma_h > 0 && frame.height % 4 == 0;
}

template <class From, class To>
std::string convert(const AVFrame& frame, const Tags& tags, std::array<Plane<From>, 3>& from,
                    std::array<Plane<To>, 3>& to, bool to_codes) {
    const int fields = by_fields(frame) ? 2 : 1;
    for (int field = 0; field < fields; ++field) {
        const Sides sides = sides_of(frame, tags, fields == 1 ? 0 : field + 1, frame.height / fields);
        const Graph graph(to_codes ? sides.rgb : sides.codes, to_codes ? sides.codes : sides.rgb);
        if (!graph.made)
            return last_reason();
        zimg_image_buffer_const source{};
        zimg_image_buffer target{};
        source.version = target.version = ZIMG_API_VERSION;
        for (std::size_t c = 0; c < 3; ++c) {
            source.plane[c] = {from[c].at(field), from[c].step() * fields, ZIMG_BUFFER_MAX};
            target.plane[c] = {to[c].at(field), to[c].step() * fields, ZIMG_BUFFER_MAX};
        }
        if (!graph.run(source, target))
            return last_reason();
    }
    return {};
}

} // namespace

bool has_alpha(const AVFrame& frame) { return is(frame, AV_PIX_FMT_FLAG_ALPHA); }
int channels_of(const AVFrame& frame) { return colours(frame) + (has_alpha(frame) ? 1 : 0); }
int bits_of(const AVFrame& frame) { return is(frame, AV_PIX_FMT_FLAG_FLOAT) ? 0 : depth_of(frame, 0); }

Tags tags_of(const AVFrame& frame, const AVCodecParameters& stream) {
    Tags tags;
    const auto first = [](int said, int otherwise) { return said != 2 && said != 0 ? said : otherwise; };
    tags.primaries = first(frame.color_primaries, stream.color_primaries);
    tags.transfer = first(frame.color_trc, stream.color_trc);
    tags.matrix = frame.colorspace != AVCOL_SPC_UNSPECIFIED ? frame.colorspace : stream.color_space;
    if (is_rgb(frame) || colours(frame) == 1)
        tags.matrix = 0;
    else if (tags.matrix == AVCOL_SPC_UNSPECIFIED || tags.matrix == AVCOL_SPC_RGB ||
             tags.matrix == AVCOL_SPC_RESERVED) {
        tags.matrix_said = false;
        tags.matrix = frame.height <= 576 ? AVCOL_SPC_SMPTE170M : AVCOL_SPC_BT709;
    }
    const AVColorRange range = frame.color_range != AVCOL_RANGE_UNSPECIFIED ? frame.color_range : stream.color_range;
    tags.range_said = range != AVCOL_RANGE_UNSPECIFIED;
    const std::string_view name = form(frame).name ? form(frame).name : "";
    tags.full = range == AVCOL_RANGE_JPEG || name.starts_with("yuvj") || (!tags.range_said && is_rgb(frame));
    tags.siting = frame.chroma_location != AVCHROMA_LOC_UNSPECIFIED ? frame.chroma_location : stream.chroma_location;
    if (tags.siting == AVCHROMA_LOC_UNSPECIFIED)
        tags.siting = name.starts_with("yuvj") ? AVCHROMA_LOC_CENTER : AVCHROMA_LOC_LEFT;
    return tags;
}

std::string to_rgb(const AVFrame& frame, const Tags& tags, float* to) {
    const int channels = channels_of(frame), colour = colours(frame);
    if (form(frame).nb_components == 0 || is(frame, AV_PIX_FMT_FLAG_HWACCEL | AV_PIX_FMT_FLAG_BAYER) ||
        std::strncmp(form(frame).name, "xyz", 3) == 0 || bits_of(frame) > 16 || (colour != 1 && colour != 3))
        return "its pixels are of a kind that is not read";
    if (has_alpha(frame))
        read_plain(frame, is(frame, AV_PIX_FMT_FLAG_PAL) ? 3 : form(frame).nb_components - 1, true, to + channels - 1,
                   channels);
    if (is_rgb(frame) || colour == 1 || is(frame, AV_PIX_FMT_FLAG_FLOAT)) {
        for (int c = 0; c < colour; ++c)
            read_plain(frame, c, tags.full, to + c, channels);
        return {};
    }
    switch (tags.matrix) {
    case 1:
    case 4:
    case 5:
    case 6:
    case 7:
    case 8:
    case 9: break;
    default: return "its matrix of luma and chroma is not a plain one";
    }
    std::array<Plane<std::uint16_t>, 3> codes;
    std::array<Plane<float>, 3> rgb;
    for (int c = 0; c < 3; ++c) {
        const Size size = size_of(frame, c);
        codes[static_cast<std::size_t>(c)] = Plane<std::uint16_t>(size.width, size.height);
        rgb[static_cast<std::size_t>(c)] = Plane<float>(frame.width, frame.height);
        for (int y = 0; y < size.height; ++y)
            read_line(frame, c, y, size.width, codes[static_cast<std::size_t>(c)].at(y));
    }
    if (std::string reason = convert(frame, tags, codes, rgb, false); !reason.empty())
        return reason;
    for (std::size_t c = 0; c < 3; ++c)
        for (int y = 0; y < frame.height; ++y) {
            const float* const line = rgb[c].at(y);
            float* out = to + static_cast<std::ptrdiff_t>(y) * frame.width * channels + static_cast<std::ptrdiff_t>(c);
            for (int x = 0; x < frame.width; ++x, out += channels)
                *out = line[x];
        }
    return {};
}

namespace {

void write_line(AVFrame& frame, int component, int y, int width, const std::uint16_t* from) {
    av_write_image_line2(from, frame.data, frame.linesize, &form(frame), 0, y, component, width, sizeof(std::uint16_t));
}

void write_plain(const float* from, int step, int component, AVFrame& frame) {
    const float one = static_cast<float>((1 << depth_of(frame, component)) - 1);
    std::vector<std::uint16_t> line(static_cast<std::size_t>(frame.width));
    for (int y = 0; y < frame.height; ++y) {
        for (std::uint16_t& value : line) {
            const float scaled = *from * one; // NaN becomes 0
            value = scaled > 0 ? static_cast<std::uint16_t>(std::lround(std::min(scaled, one))) : 0;
            from += step;
        }
        write_line(frame, component, y, frame.width, line.data());
    }
}

} // namespace

std::string from_rgb(const float* from, int channels, const Tags& tags, AVFrame& frame) {
    const int colour = channels < 3 ? 1 : 3;
    for (AVBufferRef* const buffer : frame.buf) // lines are written by setting bits
        if (buffer)
            std::memset(buffer->data, 0, buffer->size);
    if (has_alpha(frame)) {
        const float opaque = 1;
        const bool there = channels == 2 || channels == 4;
        write_plain(there ? from + channels - 1 : &opaque, there ? channels : 0, form(frame).nb_components - 1, frame);
    }
    const auto component = [&](int c) { return colour == 1 ? 0 : c; };
    if (is_rgb(frame)) {
        for (int c = 0; c < 3; ++c)
            write_plain(from + component(c), channels, c, frame);
        return {};
    }
    std::array<Plane<float>, 3> rgb;
    std::array<Plane<std::uint16_t>, 3> codes;
    for (int c = 0; c < 3; ++c) {
        const Size size = size_of(frame, c);
        codes[static_cast<std::size_t>(c)] = Plane<std::uint16_t>(size.width, size.height);
        rgb[static_cast<std::size_t>(c)] = Plane<float>(frame.width, frame.height);
        for (int y = 0; y < frame.height; ++y) {
            float* const line = rgb[static_cast<std::size_t>(c)].at(y);
            const float* in = from + static_cast<std::ptrdiff_t>(y) * frame.width * channels + component(c);
            for (int x = 0; x < frame.width; ++x, in += channels)
                line[x] = std::isnan(*in) ? 0 : std::clamp(*in, -1.0F, 2.0F); // beyond it there are no codes
        }
    }
    if (std::string reason = convert(frame, tags, rgb, codes, true); !reason.empty())
        return reason;
    for (int c = 0; c < 3; ++c) {
        const Size size = size_of(frame, c);
        for (int y = 0; y < size.height; ++y)
            write_line(frame, c, y, size.width, codes[static_cast<std::size_t>(c)].at(y));
    }
    return {};
}

double largest_difference(const AVFrame& a, const AVFrame& b) {
    double most = 0;
    if (form(a).nb_components != form(b).nb_components)
        return INFINITY;
    std::vector<std::uint16_t> first(static_cast<std::size_t>(a.width)), second(first.size());
    for (int c = 0; c < form(a).nb_components; ++c) {
        const Size size = size_of(a, c), other = size_of(b, c);
        if (size.width != other.width || size.height != other.height)
            return INFINITY;
        const double finer = std::ldexp(1.0, depth_of(b, c) - depth_of(a, c));
        for (int y = 0; y < size.height; ++y) {
            read_line(a, c, y, size.width, first.data());
            read_line(b, c, y, size.width, second.data());
            for (std::size_t x = 0; x < static_cast<std::size_t>(size.width); ++x)
                most = std::max(most, std::fabs(first[x] - second[x] / finer));
        }
    }
    return most;
}

} // namespace kasuri::helpers
