#!/usr/bin/env python3
"""Half EXR through Kasuri beside the picture library's own copying tool (oiiotool, Debian's openimageio-tools): the same frames, cores
and compression, in turn, and the median seconds of each.

    bench/exr_beside.py BUILD [--frames 40] [--rounds 5] [--cores 2]

Frames of 1920x1080 with grain are made by the tool in a folder that is removed again. What a look makes of them may be
harder to deflate than they are: so its frames are copied, too, and the look is compared with half of reading and writing
the one and half of the other.
"""
import argparse
import os
import pathlib
import shutil
import statistics
import subprocess
import tempfile
import time

parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
parser.add_argument("build", type=pathlib.Path)
parser.add_argument("--frames", type=int, default=40)
parser.add_argument("--rounds", type=int, default=5)
parser.add_argument("--cores", type=int, default=2)
wanted = parser.parse_args()
source = pathlib.Path(__file__).resolve().parent.parent
program = wanted.build.resolve() / "bin" / "kasuri-cli"
os.sched_setaffinity(0, set(sorted(os.sched_getaffinity(0))[: wanted.cores]))  # of all that is started, too

with tempfile.TemporaryDirectory() as folder:
    base = pathlib.Path(folder)
    (base / "in").mkdir()
    rule = base / "same.kasuri"
    rule.write_text("out.rgb = rgb\n")
    frames = f"1-{wanted.frames}"
    corners = "topleft=0.02,0.03,0.05:topright=0.9,0.4,0.2:bottomleft=0.1,0.6,0.3:bottomright=1.5,1.2,0.8"
    subprocess.run(["oiiotool", "--frames", frames, "--create", "1920x1080", "3", f"--fill:{corners}", "1920x1080",
                    "--noise:type=gaussian:mean=0:stddev=0.01", "-d", "half", "--compression", "zip",
                    "-o", str(base / "in" / "f.#.exr")], check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    jobs = ["--jobs", str(wanted.cores), "--quiet"]
    ways = {
        "the library's copying tool": ["oiiotool", "--threads", str(wanted.cores), "--frames", frames,
                                       str(base / "in" / "f.#.exr"), "-o", str(base / "out" / "f.#.exr")],
        "kasuri-cli, nothing changed": [program, "render", rule, base / "in", base / "out", *jobs],
        "kasuri-cli, river-cloth": [program, "render", source / "data" / "looks" / "river-cloth.kasurilook", base / "in",
                                    base / "out", *jobs],
    }
    of_look = base / "of the look"
    again = "the same of the look's frames"
    subprocess.run([str(part) for part in [program, "render", source / "data" / "looks" / "river-cloth.kasurilook",
                                           base / "in", of_look, *jobs]], check=True, stdout=subprocess.DEVNULL)
    ways[again] = [program, "render", rule, of_look, base / "out", *jobs]
    took = {name: [] for name in ways}
    sizes = {}
    for _ in range(wanted.rounds):
        for name, command in ways.items():
            shutil.rmtree(base / "out", ignore_errors=True)
            (base / "out").mkdir()
            began = time.monotonic()
            subprocess.run([str(part) for part in command], check=True, stdout=subprocess.DEVNULL)
            took[name].append(time.monotonic() - began)
            written = list((base / "out").iterdir())
            assert len(written) == wanted.frames, (name, len(written))
            sizes[name] = sum(file.stat().st_size for file in written) / 1e6
    tool = took["the library's copying tool"]
    for name, seconds in took.items():
        ratios = sorted(a / b for a, b in zip(tool, seconds))
        print(f"{name:30} {statistics.median(seconds):7.2f} s  {wanted.frames / statistics.median(seconds):5.2f} frames/s"
              f"  {statistics.median(ratios):4.2f} x the tool ({ratios[0]:.2f} to {ratios[-1]:.2f})  {sizes[name]:.0f} MB")
    copied, look = took["kasuri-cli, nothing changed"], took["kasuri-cli, river-cloth"]

    def say(what, ratios):
        ratios = sorted(ratios)
        print(f"{what:60} {statistics.median(ratios):4.2f} ({ratios[0]:.2f} to {ratios[-1]:.2f})")
    say("the look x reading and writing alone", [a / b for a, b in zip(copied, look)])
    say("the look x reading its input and writing its output", [(a + c) / 2 / b for a, b, c in zip(copied, look, took[again])])
