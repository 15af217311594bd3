#include "colour/conversion.hpp"

#include <atomic>
#include <deque>
#include <mutex>

namespace kasuri::colour {
namespace {

struct Row {
    Conversion conversion;
    bool listed = true;
};
std::mutex mutex;
std::deque<Row> rows; // never moved
std::atomic<std::uint64_t> generation{0};

} // namespace

void add_conversion(Conversion conversion) {
    const std::lock_guard lock(mutex);
    rows.push_back({std::move(conversion)});
    ++generation;
}

void retire_conversions() {
    const std::lock_guard lock(mutex);
    bool any = false;
    for (Row& row : rows) {
        any = any || row.listed;
        row.listed = false;
    }
    if (any)
        ++generation;
}

std::vector<KnownConversion> known_conversions() {
    const std::lock_guard lock(mutex);
    std::vector<KnownConversion> all;
    for (const Row& row : rows)
        all.push_back({&row.conversion, row.listed});
    return all;
}

std::uint64_t conversions_generation() { return generation; }

} // namespace kasuri::colour
