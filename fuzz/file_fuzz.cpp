// Any bytes as a file of one of our kinds (promises.hpp): an error or something that can be written again, never a
// crash. The first byte says which.
#include "promises.hpp"

#include <cstdint>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 0)
        kasuri::fuzz::keep_file_promises(data[0] % kasuri::fuzz::file_kinds,
                                         {reinterpret_cast<const char*>(data) + 1, size - 1});
    return 0;
}
