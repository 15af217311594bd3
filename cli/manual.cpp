#include "manual.hpp"

#include "arguments.hpp"

#include <fmt/format.h>

namespace kasuri::cli {
namespace {

/// groff: a point or a quote at the beginning of a line is a request, a backslash always is, a minus is a
/// hyphen otherwise.
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

} // namespace

std::string manual_page() {
    std::string text = ".TH KASURI\\-CLI 1 \"\" \"Kasuri\" \"User Commands\"\n.SH NAME\nkasuri\\-cli \\- evaluates, "
                       "applies, bakes and proves per\\-pixel colour rules\n"
                       ".SH SYNOPSIS\n.B kasuri\\-cli\n[\\-\\-config FILE] COMMAND [ARGUMENTS]\n.SH COMMANDS\n";
    for (const DescribedCommand& command : described_commands()) {
        std::string usage;
        for (const DescribedOption& option : command.options)
            if (option.positional)
                usage += " " + option.name;
        text += fmt::format(".SS \"{}{}\"\n{}.{}\n", escaped(command.name), escaped(usage), escaped(command.help),
                            command.also.empty() ? "" : " Also called " + escaped(command.also) + ".");
        for (const DescribedOption& option : command.options)
            text += fmt::format(".TP\n.B {}\n{}\n", escaped(option.name), escaped(option.help));
        if (!command.footer.empty())
            text += fmt::format(".PP\n{}\n", escaped(command.footer));
    }
    return text +
        ".SH EXIT STATUS\n0 good, 1 the rule or a proof failed, 2 usage, 3 input or output, 4 could not be "
        "measured.\n.SH "
        "ENVIRONMENT\n.TP\n.B OCIO\nAn OpenColorIO config whose spaces can be used beside the "
        "built\\-in ones.\n";
}

std::string bash_completion() {
    std::string names, cases;
    for (const DescribedCommand& command : described_commands()) {
        names += (names.empty() ? "" : " ") + command.name + (command.also.empty() ? "" : " " + command.also);
        std::string options;
        for (const DescribedOption& option : command.options)
            for (const std::string& word : option.words)
                options += (options.empty() ? "--" : " --") + word;
        cases += fmt::format("        {}{}) options=\"{}\" ;;\n", command.name,
                             command.also.empty() ? "" : "|" + command.also, options);
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
