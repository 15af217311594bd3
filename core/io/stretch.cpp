#include "io/stretch.hpp"

#include "io/helper.hpp"

#include <algorithm>
#include <new>

namespace kasuri::io {
using wire::Message;

image::Picture stretched(const image::Picture& picture, int width, int height) {
    if (picture.width == width && picture.height == height)
        return picture;
    image::Picture made = picture;
    made.width = width;
    made.height = height;
    const std::size_t pixels = made.pixels(), bytes = sizeof(float) * std::max(picture.pixels(), pixels);
    const Result<HelperLease> helper = HelperLease::of(Task::pictures, "");
    if (!helper || !helper.value()->slots().arrange(bytes, 2, true))
        throw std::bad_alloc();
    for (std::size_t c = 0; c < 4; ++c) {
        if (!picture.planes[c])
            continue;
        for (std::size_t other = 0; other < c; ++other) // a single channel may stand for all three
            if (picture.planes[other] == picture.planes[c])
                made.planes[c] = made.planes[other];
        if (made.planes[c] != picture.planes[c])
            continue;
        wire::Slots& slots = helper.value()->slots();
        picture.planes[c]->copy(0, picture.planes[c]->size(), slots.at(0));
        Message asked{Message::Kind::stretch};
        asked.n = {static_cast<std::int64_t>(bytes), picture.width, picture.height, width, height};
        const Result<Message> answer = helper.value()->ask(asked);
        if (!answer || answer.value().kind != Message::Kind::done)
            throw std::bad_alloc();
        made.planes[c] = image::make_plane(image::Samples(slots.at(1), slots.at(1) + pixels));
    }
    helper.value()->rest();
    return made;
}

} // namespace kasuri::io
