#pragma once
#include <array>
#include <cstddef>
#include <cstdint>
#include <initializer_list>
#include <memory>
#include <span>
#include <vector>

namespace kasuri::lang {

/// The ids of a node's operands, in their order. Nearly all nodes have at most three: those stand in the node itself,
/// since asking for memory for each of them was a third of what checking a long text took. More are on the heap.
class Operands {
public:
    using Id = std::uint32_t;

    Operands() = default;
    Operands(std::initializer_list<Id> ids) : Operands(std::span<const Id>(ids.begin(), ids.size())) {}
    Operands(const std::vector<Id>& ids) : Operands(std::span<const Id>(ids)) {}
    Operands(const Operands& other) : Operands(std::span<const Id>(other)) {}
    Operands(Operands&&) noexcept = default;
    Operands& operator=(const Operands& other) { return *this = Operands(other); }
    Operands& operator=(Operands&&) noexcept = default;
    ~Operands() = default;

    void push_back(Id id) {
        if (!many_ && size_ < few_.size()) {
            few_[size_++] = id;
            return;
        }
        if (!many_)
            many_ = std::make_unique<std::vector<Id>>(begin(), end());
        many_->push_back(id);
    }
    std::size_t size() const { return many_ ? many_->size() : size_; }
    bool empty() const { return size() == 0; }
    const Id* begin() const { return many_ ? many_->data() : few_.data(); }
    const Id* end() const { return begin() + size(); }
    Id operator[](std::size_t i) const { return begin()[i]; }
    Id front() const { return *begin(); }
    Id back() const { return end()[-1]; }
    operator std::span<const Id>() const { return {begin(), size()}; }

private:
    explicit Operands(std::span<const Id> ids) {
        if (ids.size() > few_.size()) {
            many_ = std::make_unique<std::vector<Id>>(ids.begin(), ids.end());
            return;
        }
        for (const Id id : ids)
            few_[size_++] = id;
    }

    std::array<Id, 3> few_{};
    std::uint32_t size_ = 0;
    std::unique_ptr<std::vector<Id>> many_;
};

} // namespace kasuri::lang
