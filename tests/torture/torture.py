#!/usr/bin/env python3
"""Kills, failing disks, broken files, random hands: everything that must not break Kasuri. Prints counts, and for each fault its seed.

usage: torture.py BUILD SOURCE [SECONDS] [SEED] [--only PART]   (exit 0: nothing found, 1: faults)
"""
import argparse
import os
import shutil
import sys
import time

import command_line
import window
from common import Place

# Part, share of the time.
PARTS = {
    'kills': (command_line.kills, 0.15),
    'disks': (command_line.disks, 0.15),
    'broken': (command_line.broken, 0.2),
    'window kills': (window.kills, 0.25),
    'together': (window.together, 0.1),
    'monkey': (window.monkey, 0.15),
}


def main():
    parser = argparse.ArgumentParser()
    parser.add_argument('build')
    parser.add_argument('source')
    parser.add_argument('seconds', nargs='?', type=float, default=600)
    parser.add_argument('seed', nargs='?', type=int, default=int(time.time()))
    parser.add_argument('--only', choices=PARTS)
    options = parser.parse_args()
    place = Place(os.path.abspath(options.build), os.path.abspath(options.source), options.seed)
    place.strict = options.seconds >= 300
    begun = time.monotonic()
    for name, (part, share) in PARTS.items():
        if options.only in (None, name):
            part(place, options.seconds * (1 if options.only else share), options.seed)
    print(f'seed {options.seed}, {time.monotonic() - begun:.0f} s')
    for what, count in place.counts.items():
        print(f'{count:8d}  {what}')
    for what, value in place.largest.items():
        print(f'{value:8.2f}  {what}')
    if place.faults:
        print(f'{len(place.faults)} faults; what was there is in {place.root}')
        return 1
    shutil.rmtree(place.root, ignore_errors=True)
    print('no fault')
    return 0


sys.exit(main())
