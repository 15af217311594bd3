#!/usr/bin/env python3
"""Draws the small triangle of choices, dark and light: data/icons/open-*.png, 18 x 12 pixels, by coverage of 8 x 8 samples."""
import os
import struct
import zlib

WIDTH, HEIGHT, SAMPLES = 18, 12, 8
here = os.path.join(os.path.dirname(__file__), "..", "data", "icons")


def inside(x, y):
    return y <= HEIGHT - 1 and y >= 1 and abs(x - WIDTH / 2) <= (HEIGHT - 1 - y) * (WIDTH / 2 - 2) / (HEIGHT - 2)


def chunk(kind, data):
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))


for name, grey in (("dark", 0x16), ("light", 0xE4)):
    rows = b""
    for y in range(HEIGHT):
        rows += b"\0"
        for x in range(WIDTH):
            hits = sum(inside(x + (i + 0.5) / SAMPLES, y + (j + 0.5) / SAMPLES) for i in range(SAMPLES) for j in range(SAMPLES))
            rows += bytes((grey, grey, grey, hits * 255 // SAMPLES**2))
    os.makedirs(here, exist_ok=True)
    with open(os.path.join(here, f"open-{name}.png"), "wb") as file:
        file.write(b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", struct.pack(">IIBBBBB", WIDTH, HEIGHT, 8, 6, 0, 0, 0)) + chunk(b"IDAT", zlib.compress(rows, 9)) + chunk(b"IEND", b""))
