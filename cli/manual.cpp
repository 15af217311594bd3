#include "manual.hpp"

#include "command.hpp"

#include <fmt/format.h>
#include <memory>
#include <vector>

namespace kasuri::cli {
namespace {

/// The commands with their options, as the program itself defines them.
struct All {
    CLI::App app{"", "kasuri-cli"};
    std::vector<CLI::App*> commands;
    std::vector<std::string> also;          ///< another name of each, or none
    std::vector<std::function<int()>> kept; ///< they hold what the options are bound to

    All() {
        for (const Command* command : cli::commands()) {
            commands.push_back(app.add_subcommand(std::string(command->name), std::string(command->help)));
            kept.push_back(command->define(*commands.back()));
            also.emplace_back(command->also);
        }
    }
};

/// groff: a point or a quote at the beginning of a line is a request, a backslash always is, a minus is a hyphen
/// otherwise.
std::string escaped(const std::string& text) {
    std::string made;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool begins = i == 0 || text[i - 1] == '\n';
        if (begins && (text[i] == '.' || text[i] == '\''))
            made += "\\&";
        made += text[i] == '\\' ? std::string("\\e") : text[i] == '-' ? std::string("\\-") : std::string(1, text[i]);
    }
    return made;
}

bool is_positional(const CLI::Option& option) { return option.get_positional(); }

} // namespace

std::string manual_page() {
    const All all;
    std::string text = ".TH KASURI\\-CLI 1 \"\" \"Kasuri\" \"User Commands\"\n.SH NAME\nkasuri\\-cli \\- evaluates, "
                       "applies, bakes and proves per\\-pixel colour rules\n"
                       ".SH SYNOPSIS\n.B kasuri\\-cli\n[\\-\\-config FILE] COMMAND [ARGUMENTS]\n.SH COMMANDS\n";
    for (std::size_t i = 0; i < all.commands.size(); ++i) {
        const CLI::App* command = all.commands[i];
        std::string usage;
        for (const CLI::Option* option : command->get_options())
            if (is_positional(*option))
                usage += " " + option->get_name(true);
        text += fmt::format(".SS \"{}{}\"\n{}.{}\n", escaped(command->get_name()), escaped(usage),
                            escaped(command->get_description()),
                            all.also[i].empty() ? "" : " Also called " + escaped(all.also[i]) + ".");
        for (const CLI::Option* option : command->get_options())
            text += fmt::format(".TP\n.B {}\n{}\n", escaped(option->get_name(is_positional(*option), true)),
                                escaped(option->get_description()));
        if (const std::string more = command->get_footer(); !more.empty())
            text += fmt::format(".PP\n{}\n", escaped(more));
    }
    return text +
        ".SH EXIT STATUS\n0 good, 1 the rule or a proof failed, 2 usage, 3 input or output.\n.SH ENVIRONMENT\n.TP\n.B "
        "OCIO\nAn OpenColorIO config whose spaces can be used beside the built\\-in ones.\n";
}

std::string bash_completion() {
    const All all;
    std::string names, cases;
    for (std::size_t i = 0; i < all.commands.size(); ++i) {
        const CLI::App* command = all.commands[i];
        names += (names.empty() ? "" : " ") + command->get_name() + (all.also[i].empty() ? "" : " " + all.also[i]);
        std::string options;
        for (const CLI::Option* option : command->get_options())
            for (const std::string& name : option->get_lnames())
                options += (options.empty() ? "--" : " --") + name;
        cases += fmt::format("        {}{}) options=\"{}\" ;;\n", command->get_name(),
                             all.also[i].empty() ? "" : "|" + all.also[i], options);
    }
    return "# Completion of kasuri-cli for bash, made by `kasuri-cli docs completion`.\n"
           "_kasuri_cli() {\n"
           "    local word=${COMP_WORDS[COMP_CWORD]} options=\"--help --version --config\" command\n"
           "    for command in \"${COMP_WORDS[@]:1:COMP_CWORD-1}\"; do\n"
           "        [[ $command != -* ]] && break\n"
           "        command=\n"
           "    done\n"
           "    if [[ -z $command ]]; then\n"
           "        COMPREPLY=($(compgen -W \"$options " +
        names +
        "\" -- \"$word\"))\n"
        "        return\n"
        "    fi\n"
        "    case $command in\n" +
        cases +
        "    esac\n"
        "    if [[ $word == -* ]]; then\n"
        "        COMPREPLY=($(compgen -W \"$options\" -- \"$word\"))\n"
        "    else\n"
        "        COMPREPLY=($(compgen -f -- \"$word\"))\n"
        "    fi\n"
        "}\n"
        "complete -o filenames -F _kasuri_cli kasuri-cli\n";
}

} // namespace kasuri::cli
