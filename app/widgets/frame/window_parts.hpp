#pragma once
#include <typeindex>
#include <unordered_map>

namespace kasuri::app {

/// The parts of one window, each found by its type: what acts on one names it, and nothing relays between them.
class WindowParts {
public:
    template <class Part>
    void add(Part& part) {
        parts_[typeid(Part)] = &part;
    }
    template <class Part>
    bool has() const {
        return parts_.contains(typeid(Part));
    }
    /// Throws std::out_of_range for a part that has not been added.
    template <class Part>
    Part& get() const {
        return *static_cast<Part*>(parts_.at(typeid(Part)));
    }

private:
    std::unordered_map<std::type_index, void*> parts_;
};

} // namespace kasuri::app
