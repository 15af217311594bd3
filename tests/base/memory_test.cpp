// Work that runs out of memory is told as an error of what it was about.
#include "base/memory.hpp"
#include "support/support.hpp"

using namespace kasuri;

TEST_CASE("work for which there is not enough memory is an error of what it was about", "[base]") {
    const auto hungry = []() -> Result<std::vector<float>> {
#ifdef __SANITIZE_ADDRESS__ // it ends the program instead of throwing
        throw std::bad_alloc();
#endif
        const volatile std::size_t count = std::size_t{1} << 55; // more than any machine has addresses for
        return std::vector<float>(count);
    };
    const auto made = within_memory("a.exr", hungry);
    REQUIRE_FALSE(made);
    CHECK(made.error().text() == "a.exr: does not fit into memory. Close other pictures and try again.");
    CHECK_FALSE(within_memory("b", []() -> Status { throw std::bad_alloc(); }));
    const auto modest = within_memory("c", []() -> Result<int> { return 7; });
    REQUIRE(modest);
    CHECK(modest.value() == 7);
    CHECK(within_memory("d", []() -> Status { return Error{"is broken", "d", ""}; }).error().what == "is broken");
}
