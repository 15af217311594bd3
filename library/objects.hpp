#pragma once
// What stands behind the handles of kasuri.h.
#include "kasuri.h"

#include "base/cancel.hpp"
#include "base/result.hpp"
#include "lang/diagnostic.hpp"
#include "opening/open.hpp"

#include <atomic>
#include <exception>
#include <new>
#include <string>
#include <utility>
#include <vector>

struct kasuri_said {
    struct Fault {
        kasuri::lang::Diagnostic diagnostic;
        std::string code, message, help;
    };
    std::string text;   ///< for people
    std::string source; ///< that the faults' places are in
    std::vector<Fault> faults;

    void line(const std::string& words) { text += words + "\n"; }
    void take(const std::vector<kasuri::lang::Diagnostic>& diagnostics, const std::string& of);
};

struct kasuri_filter {
    /// What copies share.
    std::shared_ptr<const kasuri::opening::Opened> opened;
    kasuri::subject::Subject subject; ///< at the values and with the pictures of this one
    std::string identity;
};

struct kasuri_call {
    kasuri::CancelToken cancel;
    mutable std::atomic<std::size_t> done{0};
};

namespace kasuri::library {

/// Notes an error, and what it is as a status.
inline kasuri_status failed(kasuri_said& said, kasuri_status status, const std::string& words) {
    said.line(words);
    return status;
}
inline kasuri_status failed(kasuri_said& said, kasuri_status status, const Error& error) {
    return failed(said, status, error.text());
}

/// Runs `body`, which says what there is to say into what it is given; nothing is thrown.
template <class Body>
kasuri_status guarded(kasuri_said** out, Body&& body) noexcept {
    if (out)
        *out = nullptr;
    try {
        kasuri_said made;
        kasuri_status status = KASURI_INTERNAL;
        try {
            status = body(made);
        } catch (const std::bad_alloc&) {
            throw;
        } catch (const std::exception& fault) {
            made.line(std::string("a fault of the library: ") + fault.what());
        } catch (...) {
            made.line("a fault of the library");
        }
        if (out && (!made.text.empty() || !made.faults.empty()))
            *out = new kasuri_said(std::move(made));
        return status;
    } catch (...) { // there is no memory, not even for words
        return KASURI_NO_MEMORY;
    }
}

/// The same of what cannot fail but for memory, with what it returns then.
template <class Value, class Body>
Value guarded_value(Value otherwise, Body&& body) noexcept {
    try {
        return body();
    } catch (...) {
        return otherwise;
    }
}

inline CancelToken token_of(const kasuri_call* call) { return call ? call->cancel : CancelToken(); }

/// The name of a space, empty for none; says so if there is no such space.
bool known_space(const char* name, std::string& to, kasuri_said& said);

/// The picture's numbers as planes of floats; its space is empty where it says none. Nothing, and it says why, if it
/// cannot be read.
std::optional<image::Picture> copied(const kasuri_picture* picture, const char* which, kasuri_said& said);

} // namespace kasuri::library
