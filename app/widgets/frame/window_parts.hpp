#pragma once
#include <cassert>
#include <typeindex>
#include <unordered_map>

namespace kasuri::app {

/// The parts of one window, each found by its type: what acts on one names it, and nothing relays between them.
class WindowParts {
public:
    template <class Part> void add(Part& part) { parts_[typeid(Part)] = &part; }
    /// The part must have been added.
    template <class Part> Part& get() const {
        const auto found = parts_.find(typeid(Part));
        assert(found != parts_.end());
        return *static_cast<Part*>(found->second);
    }

private:
    std::unordered_map<std::type_index, void*> parts_;
};

} // namespace kasuri::app
