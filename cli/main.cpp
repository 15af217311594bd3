#include "command.hpp"

/// Every command once, in the order of the help: NAME is in commands/NAME.cpp as NAME_command.
#define KASURI_COMMANDS(each)                                                                                          \
    each(eval) each(render) each(bake) each(check) each(explain) each(diff) each(glsl) each(c) each(cdl) each(report)  \
        each(format) each(picture) each(target) each(measure) each(solve) each(fit) each(invert) each(simplify)        \
            each(carry) each(print) each(config) each(lsp) each(docs) each(complete) each(demo)

namespace kasuri::cli {

#define KASURI_DECLARED(name) extern const Command name##_command;
KASURI_COMMANDS(KASURI_DECLARED)

std::span<const Command* const> commands() {
#define KASURI_ROW(name) &name##_command,
    static const Command* const table[] = {KASURI_COMMANDS(KASURI_ROW)};
    return table;
}

} // namespace kasuri::cli

int main(int argc, char** argv) { return kasuri::cli::run_command_line(argc, argv); }
