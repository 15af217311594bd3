#include "io/stretch.hpp"

#include <OpenImageIO/imagebuf.h>
#include <OpenImageIO/imagebufalgo.h>

namespace kasuri::io {

image::Picture stretched(const image::Picture& picture, int width, int height) {
    if (picture.width == width && picture.height == height)
        return picture;
    image::Picture made = picture;
    made.width = width;
    made.height = height;
    for (std::size_t c = 0; c < 4; ++c) {
        if (!picture.planes[c])
            continue;
        for (std::size_t other = 0; other < c; ++other) // a single channel may stand for all three
            if (picture.planes[other] == picture.planes[c])
                made.planes[c] = made.planes[other];
        if (made.planes[c] != picture.planes[c])
            continue;
        // The buffer is only read through this wrapper.
        const OIIO::ImageBuf from(OIIO::ImageSpec(picture.width, picture.height, 1, OIIO::TypeDesc::FLOAT),
                                  const_cast<float*>(picture.planes[c]->data()));
        image::Samples samples(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
        OIIO::ImageBuf to(OIIO::ImageSpec(width, height, 1, OIIO::TypeDesc::FLOAT), samples.data());
        OIIO::ImageBufAlgo::resize(to, from, "triangle");
        made.planes[c] = image::make_plane(std::move(samples));
    }
    return made;
}

} // namespace kasuri::io
