"""Completion as somebody types it: bash and zsh on a terminal of their own, and fish by its own word for it.

usage: shells.py KASURI_CLI SOURCE_FOLDER
"""

import os
import pathlib
import pty
import select
import shutil
import subprocess
import sys
import tempfile
import time

cli, source = pathlib.Path(sys.argv[1]).resolve(), pathlib.Path(sys.argv[2]).resolve()
faults = []
environment = {
    "PATH": f"{cli.parent}:/usr/bin:/bin",
    "TERM": "dumb",
    "LANG": "C.UTF-8",
    "PS1": "",
    "HOME": tempfile.mkdtemp(),
}
# What is typed until the tab, what is typed behind it, and the words that the command gets.
TYPED = [
    ("explain --sta", "known", ["explain", "--stage", "known"]),
    ("chec", "", ["check"]),
    ("bake --in-space acescc", " x", None),  # acescc or acescct: nothing that could be chosen
    ("bake --in-space rec709-li", "x", ["bake", "--in-space", "rec709-linear", "x"]),
    ("eval held-mad", "--set", ["eval", "held-madder.kasuri", "--set"]),
    ("eval held-madder.kasuri --set mee", "0.5", ["eval", "held-madder.kasuri", "--set", "meet=0.5"]),
    ("eval held-madder.kasuri --preset Two", ", r", None),  # both begin so
    ("measure solid --with model=OK", "x", ["measure", "solid", "--with", "model=OKLab", "x"]),
    ("target hue_sw", "--print", ["target", "hue_sweep", "--print"]),
    ("eval crossed-by-lantern-light.kasuri --preset ", "", None),
    ("fit --family matrix-den", "x", ["fit", "--family", "matrix-density", "x"]),
]
START = {
    "bash": ["bash", "--norc", "--noprofile", "-i"],
    "zsh": ["zsh", "-f", "-i"],
}


class Terminal:
    def __init__(self, words):
        self.process, self.end = pty.fork()
        if self.process == 0:
            os.chdir(source / "data" / "filters")
            os.execvpe(words[0], words, environment)

    def read(self, until, seconds=20):
        text, stop = "", time.monotonic() + seconds
        while until not in text and time.monotonic() < stop:
            if select.select([self.end], [], [], 0.2)[0]:
                try:
                    text += os.read(self.end, 65536).decode(errors="replace")
                except OSError:
                    break
        return text

    def type(self, text):
        os.write(self.end, text.encode())

    def close(self):
        os.close(self.end)
        os.waitpid(self.process, 0)


def shell(name, script):
    terminal = Terminal(START[name])
    # The command that is completed prints its words; the completion itself asks the real one.
    terminal.type("show() { printf '<%s>' \"$@\"; printf '[en''d]\\n'; }\n")
    if name == "zsh":
        terminal.type(f"autoload -U compinit; compinit -u -D; fpath=({script.parent} $fpath)\n")
        terminal.type("autoload -U _kasuri-cli; compdef _kasuri-cli show; unsetopt beep; PROMPT=''\n")
    else:
        terminal.type(f". {script}; complete -F _kasuri_cli show; bind 'set bell-style none'\n")
    terminal.type("show ready\n")
    if "<ready>[end]" not in terminal.read("<ready>[end]"):
        faults.append(f"{name} does not start")
        return
    for before, behind, wanted in TYPED:
        if wanted is None:
            continue
        terminal.type(f"show {before}\t")
        time.sleep(0.3)
        terminal.type(f"{behind}\n")
        shown = terminal.read("[end]")
        if "".join(f"<{word}>" for word in wanted) + "[end]" not in shown:
            faults.append(f"{name}: show {before}<tab>{behind}: {shown!r}")
    terminal.close()


with tempfile.TemporaryDirectory() as name:
    for shell_name, page, file in (
        ("bash", "completion", "kasuri-cli.bash"),
        ("zsh", "zsh-completion", "_kasuri-cli"),
        ("fish", "fish-completion", "kasuri-cli.fish"),
    ):
        script = pathlib.Path(name) / file
        script.write_bytes(subprocess.run([cli, "docs", page], capture_output=True, check=True).stdout)
        if not shutil.which(shell_name):
            print(f"{shell_name} is not there")
            continue
        if shell_name != "fish":
            shell(shell_name, script)
            continue
        for before, behind, wanted in TYPED:
            asked = subprocess.run(
                ["fish", "--no-config", "-c", f"source {script}; complete -C 'kasuri-cli {before}'"],
                capture_output=True,
                text=True,
                env=environment,
                cwd=source / "data" / "filters",
            ).stdout
            offered = [line.split("\t")[0] for line in asked.splitlines()]
            if wanted is None:
                good = len(offered) > 1
            else:
                word = before.split(" ")[-1]
                completed = [each for each in wanted if each.startswith(word) and each != word or "=" in each]
                good = any(each in offered or any(each.startswith(o) for o in offered if o) for each in completed)
            if not good:
                faults.append(f"fish: kasuri-cli {before}: {offered}")
print("\n".join(faults) if faults else "completes as it should")
sys.exit(1 if faults else 0)
