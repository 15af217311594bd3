#include "fit/families.hpp"

#include <algorithm>

namespace kasuri::fit {

std::span<const Family> families() {
    static const std::vector<Family> table = [] {
        std::vector<Family> made;
        for (const auto add : {add_simple, add_matrices, add_curves, add_models, add_tones, add_root_polynomials})
            add(made);
        return made;
    }();
    return table;
}

const Family* find_family(std::string_view name) {
    const auto all = families();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Family& f) { return f.name == name; });
    return found == all.end() ? nullptr : &*found;
}

} // namespace kasuri::fit
