// A look over many plates: opened once, applied by several threads at once, each to a plate of its own.
#include <kasuri.h>

#include <cstdio>
#include <memory>
#include <thread>
#include <vector>

namespace {

template <auto End>
struct Ended {
    template <class Thing>
    void operator()(Thing* it) const {
        End(it);
    }
};
using Filter = std::unique_ptr<kasuri_filter, Ended<kasuri_filter_free>>;

} // namespace

int main(int count, char** arguments) {
    if (count < 2)
        return 2;
    kasuri_filter* opened = nullptr;
    kasuri_said* said = nullptr;
    const kasuri_status status = kasuri_open(arguments[1], nullptr, &opened, &said);
    const std::unique_ptr<kasuri_said, Ended<kasuri_said_free>> words(said);
    const Filter look(opened);
    std::fputs(kasuri_said_text(said), stderr);
    if (status != KASURI_OK)
        return 1;
    std::printf("%s, in %s, with %zu values\n", kasuri_title(look.get()), kasuri_space(look.get()),
                kasuri_parameter_count(look.get()));

    constexpr std::size_t width = 640, height = 360, plates = 4;
    std::vector<std::vector<unsigned short>> memory(plates, std::vector<unsigned short>(3 * width * height));
    for (std::size_t p = 0; p < plates; ++p)
        for (std::size_t i = 0; i < memory[p].size(); ++i)
            memory[p][i] = static_cast<unsigned short>((i * 97 + p * 1009) % 65536);
    std::vector<std::thread> threads;
    for (std::vector<unsigned short>& plate : memory)
        threads.emplace_back([&] {
            kasuri_picture picture = kasuri_interleaved(plate.data(), width, height, 3, KASURI_UINT16);
            picture.space = "srgb"; // what the numbers are; the look works in its own space
            kasuri_apply(look.get(), &picture, &picture, 1, nullptr, nullptr);
        });
    for (std::thread& each : threads)
        each.join();
    for (const std::vector<unsigned short>& plate : memory)
        std::printf("%d %d %d\n", plate[0], plate[1], plate[2]);
    return 0;
}
