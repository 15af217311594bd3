#pragma once
#include "base/said.hpp"

#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace kasuri {

/// What went wrong outside a rule's text: what, where, and what to do about it.
struct Error {
    std::string what;   ///< one sentence without a full stop
    std::string where;  ///< a file, a place in it, an option; may be empty
    std::string remedy; ///< what the user can do; may be empty

    /// In the language of whoever reads it.
    std::string text() const {
        std::string all = where.empty() ? translated(what) : translated(where) + ": " + translated(what);
        return remedy.empty() ? all : all + ". " + translated(remedy);
    }
};

/// A value or an Error. Callers ask `ok()` before they take `value()`.
template <class T>
class [[nodiscard]] Result {
public:
    Result(T value) : held_(std::move(value)) {}
    Result(Error error) : held_(std::move(error)) {}

    bool ok() const { return std::holds_alternative<T>(held_); }
    explicit operator bool() const { return ok(); }
    T& value() { return std::get<T>(held_); }
    const T& value() const { return std::get<T>(held_); }
    const Error& error() const { return std::get<Error>(held_); }

private:
    std::variant<T, Error> held_;
};

/// Success without a value, or an Error.
class [[nodiscard]] Status {
public:
    Status() = default;
    Status(Error error) : error_(std::move(error)) {}

    bool ok() const { return !error_; }
    explicit operator bool() const { return ok(); }
    const Error& error() const { return *error_; }

private:
    std::optional<Error> error_;
};

} // namespace kasuri
