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
    return R"(# Completion of kasuri-cli for bash, made by `kasuri-cli docs completion`: the program itself tells what fits.
_kasuri_cli() {
    local token before= line file words=() IFS=$'\n'
    # bash takes words apart at = and : too.
    for token in "${COMP_WORDS[@]:1:COMP_CWORD}"; do
        if [[ ${#words[@]} -gt 0 && ( $token == [=:]* || $before == *[=:] ) ]]; then
            words[${#words[@]}-1]+=$token
        else
            words+=("$token")
        fi
        before=${words[${#words[@]}-1]}
    done
    local word=${words[${#words[@]}-1]} kept=
    [[ $word == *[=:]* ]] && kept=${word%"${word##*[=:]}"}
    COMPREPLY=()
    compopt -o filenames
    while read -r line; do
        if [[ $line == :files ]]; then
            while read -r file; do COMPREPLY+=("$file"); done < <(compgen -f -- "${word##*=}")
        else
            line=${line%%$'\t'*}
            COMPREPLY+=("${line#"$kept"}")
        fi
    done < <(kasuri-cli complete -- "${words[@]}" 2>/dev/null)
    [[ ${#COMPREPLY[@]} -eq 1 && ${COMPREPLY[0]} == *= ]] && compopt -o nospace
}
complete -F _kasuri_cli kasuri-cli
)";
}

std::string zsh_completion() {
    return R"(#compdef kasuri-cli
# Completion of kasuri-cli for zsh, made by `kasuri-cli docs zsh-completion`: the program itself tells what fits.
_kasuri-cli() {
    local line value files=0
    local -a values docs begun begun_docs
    for line in "${(@f)$(kasuri-cli complete -- "${(@Q)words[2,CURRENT]}" 2>/dev/null)}"; do
        [[ -z $line ]] && continue
        if [[ $line == :files ]]; then
            files=1
            continue
        fi
        value=${line%%$'\t'*}
        if [[ $value == *= ]]; then
            begun+=("$value")
            begun_docs+=("$value  ${line#*$'\t'}")
        else
            values+=("$value")
            docs+=("$value  ${line#*$'\t'}")
        fi
    done
    (( ${#values} )) && compadd -l -d docs -- "${values[@]}"
    (( ${#begun} )) && compadd -S '' -l -d begun_docs -- "${begun[@]}"
    if (( files )); then
        compset -P '*='
        _files
    fi
}
_kasuri-cli "$@"
)";
}

std::string fish_completion() {
    return R"(# Completion of kasuri-cli for fish, made by `kasuri-cli docs fish-completion`: the program itself tells what fits.
function __kasuri_cli
    set -l words (commandline -opc)[2..-1] (commandline -ct)
    for line in (kasuri-cli complete -- $words 2>/dev/null)
        if test "$line" = ":files"
            __fish_complete_path (commandline -ct)
        else
            echo $line
        end
    end
end
complete -c kasuri-cli -f -a '(__kasuri_cli)'
)";
}

} // namespace kasuri::cli
