#include "model/memo.hpp"

#include <algorithm>

namespace kasuri::app {

void MemoClock::trim() {
    std::size_t spare = this->spare();
    while (spare > max_spare_) {
        std::uint64_t least = now_;
        for (const MemoTable* table : tables_)
            least = std::min(least, table->oldest(now_).value_or(now_));
        if (least == now_)
            return;
        // All of that request: what is small keeps the large picture alive that it was made from.
        for (MemoTable* table : tables_)
            while (table->oldest(now_) == least)
                spare -= table->drop(least);
    }
}

std::size_t MemoClock::bytes() const {
    std::size_t sum = 0;
    for (const MemoTable* table : tables_)
        sum += table->bytes();
    return sum;
}

std::size_t MemoClock::spare() const {
    std::size_t sum = 0;
    for (const MemoTable* table : tables_)
        sum += table->spare(now_);
    return sum;
}

bool is_on_demand(const image::Picture& picture) {
    return std::any_of(picture.planes.begin(), picture.planes.end(),
                       [](const image::Plane& plane) { return plane && plane->on_demand(); });
}

std::size_t bytes_of(const image::Picture& picture) {
    std::size_t bytes = sizeof picture;
    for (const image::Plane& plane : picture.planes)
        bytes += plane ? plane->bytes() : 0;
    return bytes;
}

} // namespace kasuri::app
