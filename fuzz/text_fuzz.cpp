// Any text keeps what is promised (promises.hpp): no crash, no hang, no leak. Bytes come from libFuzzer, words from
// mutate.hpp.
#include "mutate.hpp"
#include "promises.hpp"

#include <algorithm>
#include <cstdint>
#include <cstring>

using namespace kasuri::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);
extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);
extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed);

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string text(reinterpret_cast<const char*>(data), size);
    const unsigned dice = size == 0 ? 0 : data[0] * 257u + data[size / 2] * 31u + data[size - 1];
    Random random(dice);
    keep_text_promises(text, with_words_changed(text, random), dice);
    return 0;
}

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    Random random(seed);
    if (seed % 3 == 0)
        return LLVMFuzzerMutate(data, size, most);
    const std::string text(reinterpret_cast<const char*>(data), size);
    const std::string made = text.empty() ? rule_text({}, random) : with_words_changed(text, random);
    const std::size_t length = std::min(made.size(), most);
    std::memcpy(data, made.data(), length);
    return length;
}
