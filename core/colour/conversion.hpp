#pragma once
#include "ir/external.hpp"

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::colour {

/// Three numbers to three numbers by code that is not ours, with a name by which rules call it: it came while the
/// program runs, with a colour config. Never changed and never taken away, for a rule may still be using it.
struct Conversion {
    std::string name; ///< of the function of the language
    std::string doc, source;
    std::unique_ptr<const ir::External> code;
};

/// From now on rules that are checked may call it. Safe across threads.
void add_conversion(Conversion conversion);
/// Rules that are checked from now on may call none of those that there are.
void retire_conversions();

/// One row of all that ever came, in the order of adding.
struct KnownConversion {
    const Conversion* conversion;
    bool listed; ///< may be called
};
std::vector<KnownConversion> known_conversions();
/// Changes whenever they are added or retired.
std::uint64_t conversions_generation();

} // namespace kasuri::colour
