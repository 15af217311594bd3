#pragma once
#include "base/result.hpp"

#include <new>
#include <string>

namespace kasuri {

/// That there is not enough memory for what `where` names.
inline Error no_memory(const std::string& where) {
    return Error{"does not fit into memory", where, "Close other pictures and try again."};
}

/// What `work` returns, a Result or a Status; an error about `where` if there is not enough memory for it. For work on
/// threads where nobody else would catch that.
template <class Work>
auto within_memory(const std::string& where, Work&& work) -> decltype(work()) {
    try {
        return work();
    } catch (const std::bad_alloc&) {
        return no_memory(where);
    }
}

} // namespace kasuri
