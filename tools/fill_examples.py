#!/usr/bin/env python3
"""Writes the true output below every `$ command` of the console blocks of a page. Read the difference before you keep it.

usage: tools/fill_examples.py PAGE FOLDER_OF_KASURI_CLI
"""
import os
import pathlib
import re
import subprocess
import sys

page, programs = pathlib.Path(sys.argv[1]), sys.argv[2]
root = pathlib.Path(__file__).resolve().parent.parent
environment = dict(os.environ, PATH=os.path.abspath(programs) + ":" + os.environ["PATH"])


def filled(match):
    lines = ["```console"]
    for line in match.group(1).splitlines():
        if line.startswith("$ "):
            ran = subprocess.run(line[2:], shell=True, cwd=root / "data/filters", env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
            lines += [line] + ran.stdout.splitlines()
    return "\n".join(lines + ["```"])


page.write_text(re.sub(r"```console\n(.*?)```", filled, page.read_text(), flags=re.S))
