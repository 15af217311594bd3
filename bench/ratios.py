#!/usr/bin/env python3
"""Ratios of one run, of the shortest of its repetitions: what a neighbour's load adds is no property of the code.

bench_engine --benchmark_repetitions=9 --benchmark_enable_random_interleaving --benchmark_format=json | bench/ratios.py"""
import json
import sys

times = {}
for b in json.load(sys.stdin)["benchmarks"]:
    name = b["run_name"].replace("/real_time", "")
    if b["run_type"] == "iteration" and (name not in times or b["real_time"] < times[name]["real_time"]):
        times[name] = b
t = lambda name: times[name]["real_time"]
has = lambda name: name in times
copy = t("memcpy")
print(f"memcpy of the picture: {copy:.2f} ms")
print(f"{'':3}{'x memcpy':>10}{'by hand':>10}{'x by hand':>11}{'2 threads':>11}{'ops':>6}{'text us':>9}{'tree x':>8}{'ocio x':>8}{'opencv x':>9}")
for w in "abcdefghik":
    if not has(w + "/engine"):
        continue
    e = t(w + "/engine")
    row = f"{w:3}{e / copy:10.2f}"
    row += f"{t(w + '/by_hand') / copy:10.2f}{e / t(w + '/by_hand'):11.2f}" if has(w + "/by_hand") else " " * 21
    row += f"{e / t(w + '/two_threads'):11.2f}" if has(w + "/two_threads") else " " * 11
    row += f"{times[w + '/engine']['operations']:6.0f}"
    row += f"{t(w + '/text_to_runnable'):9.0f}" if has(w + "/text_to_runnable") else " " * 9
    row += f"{t(w + '/tree_walker') * times[w + '/tree_walker']['x_of_picture'] / e:8.0f}" if has(w + "/tree_walker") else " " * 8
    for other, width in (("/ocio", 8), ("/opencv", 9)):
        row += f"{t(w + other) / e:{width}.1f}" if has(w + other) else " " * width
    print(row)
for name in sorted((n for n in times if n.startswith(("blur/", "opencv_blur/", "bake/"))), key=lambda n: (n.split("/")[0], int(n.split("/")[1]))):
    print(f"{name:16} {t(name):8.2f} ms  {t(name) / copy:6.2f} x memcpy")
for name in sorted((n for n in times if n.startswith(("pixels/", "operations/"))), key=lambda n: (n.split("/")[0], int(n.split("/")[1]))):
    b = times[name]
    print(f"{name:16} {t(name):8.2f} ms  " + ", ".join(f"{k} {b[k]:.3g}" for k in ("Mpixel", "operations", "ns_per_pixel", "ms_per_operation") if k in b))
