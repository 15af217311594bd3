#include "model/memo.hpp"

namespace kasuri::app {

void MemoClock::trim() {
    std::size_t spare = this->spare();
    while (spare > max_spare_) {
        MemoTable* from = nullptr;
        std::uint64_t least = now_;
        for (MemoTable* table : tables_)
            if (const auto used = table->oldest(now_); used && *used < least) {
                least = *used;
                from = table;
            }
        if (!from)
            return;
        spare -= from->drop(least);
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

std::size_t bytes_of(const image::Picture& picture) {
    std::size_t bytes = sizeof picture;
    for (const image::Plane& plane : picture.planes)
        bytes += plane ? plane->size() * sizeof(float) : 0;
    return bytes;
}

} // namespace kasuri::app
