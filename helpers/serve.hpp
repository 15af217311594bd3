#pragma once
#include "wire/link.hpp"

#include <functional>

namespace kasuri::helpers {

/// What a helper has of the program that started it.
struct Caller {
    wire::Link link{wire::socket_place};
    wire::Slots slots{wire::memory_place};

    void say(wire::Message::Kind kind) { (void)link.send({kind}); }
    void failed(const std::string& reason, bool memory = false);
};

/// Takes messages one after the other until the other side is gone, which ends this program at once, whatever a
/// library is doing. Exceptions of `answer` are answers, too. Sets the limits: half of the machine's memory, no core
/// files; signals that are meant for the caller are left to it.
int serve(int argc, char** argv, const std::function<void(const wire::Message&, Caller&)>& answer);

} // namespace kasuri::helpers
