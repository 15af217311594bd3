// rule_fuzz without the fuzzer: `rule_sweep COUNT [FIRST]` runs that many random rules at full speed.
#include <cstdint>
#include <cstdio>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

int main(int argc, char** argv) {
    const long count = argc > 1 ? std::atol(argv[1]) : 1000, first = argc > 2 ? std::atol(argv[2]) : 0;
    for (long seed = first; seed < first + count; ++seed) {
        const auto bytes = static_cast<std::uint64_t>(seed);
        LLVMFuzzerTestOneInput(reinterpret_cast<const std::uint8_t*>(&bytes), sizeof bytes);
        if ((seed - first + 1) % 10000 == 0) {
            std::printf("%ld rules\n", seed - first + 1);
            std::fflush(stdout);
        }
    }
    return 0;
}
