#pragma once
#include "document/look_file.hpp"

#include <memory>

namespace kasuri::app {

/// The look around the active rule. Paths of filters are absolute.
struct Around {
    document::Look look;
    std::size_t active = 0;  ///< which of its steps the rule on the bench is
    bool up_to_here = false; ///< what comes after it is not shown
    std::filesystem::path
        folder{}; ///< of the look's file, as far as it has one: where its proofs look for other filters
    friend bool operator==(const Around&, const Around&) = default;
};
using AroundPtr = std::shared_ptr<const Around>; ///< null: the rule stands alone

/// Which steps of a look are meant.
enum class Part {
    shown,  ///< all, or those up to the active rule
    before, ///< those that come before it
};

} // namespace kasuri::app
