#!/usr/bin/env python3
"""Writes data/reference/hsv-colorsys.csv: r, g, b and the h, s, v that Python's colorsys gives (h in degrees)."""
import colorsys
import itertools
import platform

levels = (0.0, 0.1, 0.25, 0.5, 0.8, 1.0)
print(f"# Python {platform.python_version()} module colorsys, rgb_to_hsv; columns r, g, b, h (degrees), s, v")
for r, g, b in itertools.product(levels, repeat=3):
    h, s, v = colorsys.rgb_to_hsv(r, g, b)
    print(",".join(repr(x) for x in (r, g, b, h * 360, s, v)))
