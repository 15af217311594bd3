#pragma once
#include <functional>
#include <memory>
#include <string>

namespace kasuri::lsp {

/// A language server: messages of JSON-RPC in, messages out. What comes in is worked on in its order by a thread of
/// its own, so that a request can be called off while it waits; proofs are measured by another one, once nobody
/// has typed for a quarter of a second, and end when their text changes.
class Server {
public:
    /// `send` gets each message that goes out, one at a time, from either thread.
    explicit Server(std::function<void(const std::string& message)> send);
    ~Server();
    Server(const Server&) = delete;
    Server& operator=(const Server&) = delete;

    /// A message, whatever it holds; returns at once. False: it was the last one, the editor says `exit`.
    bool receive(std::string message);
    /// Returns when all that was received has been worked on.
    void settle();
    /// The same, and every open text's proofs have been measured.
    void settle_proofs();
    /// 0 if it said `shutdown` before (LSP 3.17, "Exit Notification").
    int exit_code() const;

private:
    struct Work;
    std::unique_ptr<Work> work_;
};

} // namespace kasuri::lsp
