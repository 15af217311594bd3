#include "lang/operands.hpp"
#include "support/support.hpp"

#include <numeric>
#include <utility>

using namespace kasuri::lang;

TEST_CASE("operands are a list, whether they stand in the node or on the heap", "[lang][operands]") {
    for (std::uint32_t count = 0; count <= 9; ++count) {
        std::vector<std::uint32_t> truth(count);
        std::iota(truth.begin(), truth.end(), 7u);
        const auto same = [&truth](const Operands& ids) {
            return ids.size() == truth.size() && ids.empty() == truth.empty() &&
                std::equal(ids.begin(), ids.end(), truth.begin(), truth.end());
        };
        Operands grown;
        for (const std::uint32_t id : truth)
            grown.push_back(id);
        CHECK(same(grown));
        CHECK(same(truth));
        Operands copy = grown;
        CHECK(same(copy));
        if (count > 0) {
            CHECK(copy.front() == 7);
            CHECK(copy.back() == 6 + count);
            CHECK(copy[count - 1] == 6 + count);
        }
        copy.push_back(99); // the other one stays
        CHECK(copy.size() == count + 1);
        CHECK(copy.back() == 99);
        CHECK(same(grown));
        Operands other{1, 2, 3, 4, 5};
        other = grown;
        CHECK(same(other));
        const Operands& itself = other;
        other = itself;
        CHECK(same(other));
        const Operands moved = std::move(other);
        CHECK(same(moved));
        other = {4};
        CHECK(other.size() == 1);
        CHECK(other[0] == 4);
    }
}
