#pragma once

// What kasuri-registration.so offers. OpenCV brings some thirty libraries along, which every command would wait for: it
// is opened when two pictures are to be brought over each other, and not before.
namespace kasuri::pairing {

/// r, g, b of a picture, row by row; planes may be the same one.
struct RawPicture {
    const float* planes[3];
    int width, height;
};

/// Whether they match: then `map`, the correlation of their edges, and the same as they came (see Registration).
/// `cancelled` is asked now and then.
using RegisterPictures = bool (*)(const RawPicture& first, const RawPicture& second, bool (*cancelled)(const void*),
                                  const void* token, double (&map)[6], double& correlation, double& before);
/// Writes `picture` softened by so many pixels, where another of the size width x height lies whose (x, y) is `map` of
/// it; no number outside. False: there was no memory for it.
using WarpPicture = bool (*)(const RawPicture& picture, const double (&map)[6], int width, int height, double soften,
                             float* const (&into)[3]);

} // namespace kasuri::pairing
