#pragma once
#include "image/image.hpp"

#include <cstddef>
#include <cstdint>
#include <map>
#include <optional>
#include <utility>
#include <vector>

namespace kasuri::app {

/// Whether a channel of it is made when it is looked at.
bool is_on_demand(const image::Picture& picture);

/// What tables of remembered results have in common: a clock of requests, and bytes that are to spare.
class MemoTable {
public:
    virtual ~MemoTable() = default;
    /// When the entry that was used longest ago was used; nothing if all were used since `since`.
    virtual std::optional<std::uint64_t> oldest(std::uint64_t since) const = 0;
    /// Bytes of those that were not used since.
    virtual std::size_t spare(std::uint64_t since) const = 0;
    /// Forgets it; returns its bytes.
    virtual std::size_t drop(std::uint64_t used) = 0;
    virtual std::size_t bytes() const = 0;
};

/// Counts requests and bounds what all tables remember: what the latest request used stays, what was used before goes,
/// request by request, until it takes no more than `max_spare` bytes.
class MemoClock {
public:
    explicit MemoClock(std::size_t max_spare) : max_spare_(max_spare) {}

    void add(MemoTable& table) { tables_.push_back(&table); }
    std::uint64_t now() const { return now_; }
    void next_request() { ++now_; }
    void trim();
    std::size_t bytes() const;
    std::size_t spare() const;

private:
    std::vector<MemoTable*> tables_;
    std::uint64_t now_ = 1;
    std::size_t max_spare_;
};

/// Results by what they were made from. A key names everything that a result depends on; nothing else makes an entry
/// invalid, so there is nothing to forget but by age. Keys may hold addresses of things that the values keep alive.
template <class Key, class Value>
class Memo : public MemoTable {
public:
    explicit Memo(MemoClock& clock) : clock_(clock) { clock.add(*this); }

    /// What is kept; null if nothing is. It stays until something is dropped.
    const Value* find(const Key& key) {
        const auto found = entries_.find(key);
        if (found == entries_.end())
            return nullptr;
        found->second.used = clock_.now();
        return &found->second.value;
    }
    void keep(const Key& key, const Value& value) {
        entries_.insert_or_assign(key, Entry{value, clock_.now(), bytes_of(value)});
    }
    /// What `make` gives, which is a Value or nothing (it was called off: then nothing is remembered).
    template <class Make>
    std::optional<Value> get(const Key& key, Make make) {
        if (const Value* const found = find(key))
            return *found;
        std::optional<Value> made = make();
        if (made)
            keep(key, *made);
        return made;
    }
    std::size_t size() const { return entries_.size(); }

    std::optional<std::uint64_t> oldest(std::uint64_t since) const override {
        std::optional<std::uint64_t> least;
        for (const auto& [key, entry] : entries_)
            if (entry.used < since && (!least || entry.used < *least))
                least = entry.used;
        return least;
    }
    std::size_t spare(std::uint64_t since) const override {
        std::size_t sum = 0;
        for (const auto& [key, entry] : entries_)
            sum += entry.used < since ? entry.bytes : 0;
        return sum;
    }
    std::size_t drop(std::uint64_t used) override {
        for (auto entry = entries_.begin(); entry != entries_.end(); ++entry)
            if (entry->second.used == used) {
                const std::size_t bytes = entry->second.bytes;
                entries_.erase(entry);
                return bytes;
            }
        return 0;
    }
    std::size_t bytes() const override {
        std::size_t sum = 0;
        for (const auto& [key, entry] : entries_)
            sum += entry.bytes;
        return sum;
    }

private:
    struct Entry {
        Value value;
        std::uint64_t used;
        std::size_t bytes;
    };
    MemoClock& clock_;
    std::map<Key, Entry> entries_;
};

/// About as much memory as a picture's own planes take, shared ones included.
std::size_t bytes_of(const image::Picture& picture);

} // namespace kasuri::app
