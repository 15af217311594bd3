"""How much `filter(array, out=out)` costs beside the same call of kasuri_apply in C, in one run: python_call.py, with
PYTHONPATH as for the tests. Medians of ratios of calls that alternate."""

import ctypes
import statistics
import sys
import time

import numpy as np

import kasuri

library = ctypes.CDLL(f"{sys.argv[1]}/libkasuri.so")


class Picture(ctypes.Structure):
    _fields_ = [("width", ctypes.c_size_t), ("height", ctypes.c_size_t), ("numbers", ctypes.c_int),
                ("planes", ctypes.c_void_p * 4), ("pixel_stride", ctypes.c_ssize_t), ("row_stride", ctypes.c_ssize_t),
                ("space", ctypes.c_char_p)]  # fmt: skip


def picture_of(array):
    size = array.itemsize
    planes = (ctypes.c_void_p * 4)(*[array.ctypes.data + size * c for c in range(3)])
    return Picture(array.shape[1], array.shape[0], 0, planes, array.strides[1], array.strides[0], None)


for text in ("out.rgb = rgb.gbr", "out.rgb = oklch(rgb).l * rgb", "out.rgb = mat3(0.5, 0.25, 0.25, 0, 1, 0, 0.2, 0.3, 0.5) * pow(rgb, vec3(2.2))"):
    made = ctypes.c_void_p()
    assert library.kasuri_compile(text.encode(), None, ctypes.byref(made), None) == 0
    filter = kasuri.compile(text)
    array = np.random.default_rng(1).random((1080, 1920, 3), "float32")
    out = np.empty_like(array)
    source, target = picture_of(array), picture_of(out)
    # What comes after what has a say (memory that was just given back, warm caches): each follows each as often.
    ways = {
        "C": lambda: library.kasuri_apply(made, ctypes.byref(source), ctypes.byref(target), 0, None, None),
        "out": lambda: filter(array, out=out),
    }
    ratios, plain = [], []
    for i in range(200):
        took = {}
        for name in ("C", "out") if i % 2 else ("out", "C"):
            start = time.perf_counter()
            ways[name]()
            took[name] = time.perf_counter() - start
        plain.append(took["C"])
        ratios.append(took["out"] / took["C"])
    fresh = []
    for _ in range(40):
        start = time.perf_counter()
        filter(array)
        fresh.append((time.perf_counter() - start) / statistics.median(plain))
    quartiles = statistics.quantiles(ratios, n=4)
    print(f"{text}: {1000 * statistics.median(plain):.2f} ms in C; with out= {quartiles[1]:.3f} times that "
          f"(quartiles {quartiles[0]:.3f} to {quartiles[2]:.3f}); into a new array {statistics.median(fresh):.3f}")
