#include "command.hpp"
#include "lsp/framing.hpp"
#include "lsp/server.hpp"

#include <array>
#include <cstdio>
#include <unistd.h>

namespace kasuri::cli {
namespace {

int run() {
    lsp::Server server([](const std::string& message) {
        const std::string framed = lsp::Framing::framed(message);
        std::fwrite(framed.data(), 1, framed.size(), stdout);
        std::fflush(stdout);
    });
    lsp::Framing framing;
    std::array<char, 1 << 16> block{};
    for (bool more = true; more;) {
        const ssize_t count = ::read(STDIN_FILENO, block.data(), block.size());
        if (count <= 0)
            break; // the editor is gone
        framing.feed({block.data(), static_cast<std::size_t>(count)});
        while (auto message = framing.next())
            more = server.receive(std::move(*message)) && more;
    }
    server.settle();
    return server.exit_code();
}

} // namespace

extern const Command lsp_command;
const Command lsp_command = {
    "lsp", "Serve editors that speak the Language Server Protocol, on standard input and output",
    [](Arguments& arguments) -> std::function<int()> {
        arguments.footer(
            "For the settings of an editor: kasuri-cli lsp, for files that end in .kasuri. See docs/editors.md.");
        return [] { return run(); };
    }};

} // namespace kasuri::cli
