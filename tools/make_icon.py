#!/usr/bin/env python3
"""Writes packaging/kasuri.svg: the sign of a well's curb, dyed into the yarn before weaving, with the edges that such cloth has."""

size, step = 128, 8
curb = ["..##..##..", "..##..##..", "##########", "##########", "..##..##..", "..##..##..", "##########", "##########", "..##..##..", "..##..##.."]
lines = [f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {size} {size}" width="{size}" height="{size}">',
         f'<rect width="{size}" height="{size}" rx="22" fill="#2f4a86"/>']
path = ""
for column in range(len(curb[0])):
    shift = (0, 2, -1, 1, 0, -2, 1, -1, 2, 0)[column]  # no thread lies quite where it should
    begin = None
    for row in range(len(curb) + 1):
        marked = row < len(curb) and curb[row][column] == "#"
        if marked and begin is None:
            begin = row
        if not marked and begin is not None:
            path += f"M{24 + column * step} {24 + begin * step + shift}h{step}v{(row - begin) * step}h-{step}z"
            begin = None
lines += [f'<path d="{path}" fill="#efece2"/>', "</svg>"]
with open("packaging/kasuri.svg", "w", encoding="utf-8") as file:
    file.write("\n".join(lines) + "\n")
