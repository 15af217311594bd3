#pragma once
#include "movies/ffmpeg.hpp"

#include <string>

namespace kasuri::helpers {

/// What the numbers of a frame mean: code points of ITU-T H.273, and where chroma samples lie (its figure 1).
struct Tags {
    int primaries = 2, transfer = 2, matrix = 2; ///< 2: it is not said
    bool full = false;                           ///< the whole range of code values, or that of BT.601 and BT.709
    AVChromaLocation siting = AVCHROMA_LOC_UNSPECIFIED;
    bool matrix_said = true, range_said = true; ///< or what is usual was taken
};

/// Of a frame that was decoded; what is not said of the matrix is that of BT.601 up to 576 lines and of BT.709 above,
/// of the range the narrow one (but whole for R, G, B), and of chroma of 4:2:0 and 4:2:2 at the left (common practice,
/// no source).
Tags tags_of(const AVFrame& frame, const AVCodecParameters& stream);

/// How many channels `to_rgb` makes of such a frame: Y, or R G B, and A.
int channels_of(const AVFrame& frame);
/// Whether one of them is alpha, which is the last one then.
bool has_alpha(const AVFrame& frame);
/// Bits of its largest component; 0 for floats.
int bits_of(const AVFrame& frame);

/// The frame as it is meant, pixel by pixel in floats: Y' Cb Cr by the matrix and range of the tags, chroma between its
/// samples linearly, from where they lie; of woven fields each by itself. Code values outside the range are kept. An
/// empty reason, or why it cannot be.
std::string to_rgb(const AVFrame& frame, const Tags& tags, float* to);

/// The other way: into a frame whose format and size are set and whose buffers are there. `channels`: 1 (r = g = b), 3,
/// or 4 with alpha.
std::string from_rgb(const float* from, int channels, const Tags& tags, AVFrame& frame);

/// The largest difference of two frames of one size and layout, in steps of the first one's code values; its depth may
/// be the smaller one.
double largest_difference(const AVFrame& a, const AVFrame& b);

} // namespace kasuri::helpers
