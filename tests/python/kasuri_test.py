"""import kasuri: against formulas in NumPy's double precision, with arrays of every kind and stride, with threads, with
what is wrong; and the page docs/python.md as it stands."""

import doctest
import inspect
import os
import pathlib
import signal
import tempfile
import threading
import time
import typing
import unittest

import numpy as np

import kasuri

SOURCE = pathlib.Path(os.environ["KASURI_SOURCE"])
MATRIX = np.array([[0.5, 0.25, 0.125], [0.0, 1.0, -0.25], [0.25, 0.0, 0.5]])
MIXED = kasuri.compile(
    "out.rgb = vec3(0.5 * r + 0.25 * g + 0.125 * b, g - 0.25 * b, 0.25 * r + 0.5 * b)"
)


def picture(kind="float32", shape=(37, 53), channels=3, seed=1):
    values = np.random.default_rng(seed).random(shape + (channels,))
    if kind.startswith("uint"):
        return np.round(values * np.iinfo(kind).max).astype(kind)
    return values.astype(kind)


def wanted(array):
    scale = np.iinfo(array.dtype).max if array.dtype.kind == "u" else 1
    return array[..., :3].astype("float64") / scale @ MATRIX.T


class Arrays(unittest.TestCase):
    def close(self, made, array):
        scale = np.iinfo(made.dtype).max if made.dtype.kind == "u" else 1
        step = {"f4": 1e-6, "f2": 1e-3, "u1": 0.501 / 255, "u2": 0.502 / 65535}[made.dtype.str[1:]]
        expected = wanted(array)
        if scale > 1:
            expected = expected.clip(0, 1)
        self.assertEqual(made.shape, array.shape)
        self.assertLessEqual(np.abs(made[..., :3] / scale - expected).max(), step)
        if array.shape[-1] == 4:
            np.testing.assert_array_equal(made[..., 3], array[..., 3])

    def views(self, array):
        yield "as it is", array
        yield "upside down", array[::-1]
        yield "mirrored", array[:, ::-1]
        yield "a part", array[3:20, 5:40:3]
        yield "turned", array.transpose(1, 0, 2)
        yield "Fortran's order", np.asfortranarray(array)
        yield "planes moved behind", np.moveaxis(np.ascontiguousarray(np.moveaxis(array, 2, 0)), 0, 2)
        yield "b g r", array[..., 2::-1]
        yield "a row", array[0]
        yield "one colour", array[2, 3]
        yield "nothing", array[:0]

    def test_every_kind_and_stride(self):
        for kind in ("float32", "float16", "uint8", "uint16"):
            for channels in (3, 4):
                for name, view in self.views(picture(kind, channels=channels)):
                    with self.subTest(kind=kind, channels=channels, view=name):
                        if view.size == 0:
                            self.assertEqual(MIXED(view).shape, view.shape)
                            continue
                        self.assertIs(kasuri._readable(view), view)  # without a copy
                        made = MIXED(view)
                        self.assertEqual(made.dtype, view.dtype)
                        self.close(made, view)
                        out = np.zeros(tuple(2 * n for n in view.shape[:-1]) + view.shape[-1:], kind)
                        part = out[tuple(slice(None, None, 2) for _ in view.shape[:-1])]
                        self.assertIs(MIXED(view, out=part), part)
                        np.testing.assert_array_equal(part, made)
                        again = view.copy() if view.base is None else view
                        MIXED(again, out=again)
                        np.testing.assert_array_equal(again, made)

    def test_other_kinds_are_converted(self):
        for kind in ("float64", "int32", "bool", ">f4"):
            array = (picture() * (1 if kind.endswith(("64", "4")) else 3)).astype(kind)
            made = MIXED(array)
            self.assertEqual(made.dtype, np.float32)
            np.testing.assert_allclose(made, array.astype("float64") @ MATRIX.T, atol=1e-6)
        broadcast = np.broadcast_to(np.array([0.1, 0.2, 0.3], "float32"), (4, 5, 3))
        np.testing.assert_allclose(MIXED(broadcast), wanted(broadcast), atol=1e-6)
        np.testing.assert_allclose(MIXED([[0.5, 0.25, 1]]), [np.array([0.5, 0.25, 1]) @ MATRIX.T], atol=1e-6)

    def test_many_axes(self):
        frames = picture(shape=(3, 4, 5, 6))
        np.testing.assert_allclose(MIXED(frames), wanted(frames), atol=1e-6)
        out = np.empty_like(frames)
        self.assertIs(MIXED(frames, out=out), out)
        with self.assertRaises(kasuri.ArgumentError):
            MIXED(frames, out=np.empty((4, 3, 6, 5, 3), "float32").transpose(1, 0, 3, 2, 4))

    def test_what_is_no_picture(self):
        for wrong in (np.zeros((4, 2)), np.zeros(()), np.zeros((2, 2, 5))):
            with self.assertRaisesRegex(kasuri.ArgumentError, "the last axis must be"):
                MIXED(wrong)
        good = picture()
        readonly = picture()
        readonly.flags.writeable = False
        for out in (np.zeros((2, 2, 3), "float32"), np.zeros(good.shape), readonly):
            with self.assertRaisesRegex(kasuri.ArgumentError, "out must be"):
                MIXED(good, out=out)
        across = np.zeros(5000, "float32")
        with self.assertRaisesRegex(kasuri.ArgumentError, "lies across"):
            MIXED(across[:3000].reshape(50, 20, 3), out=across[30:3030].reshape(50, 20, 3))


class Filters(unittest.TestCase):
    def test_spaces_and_models(self):
        linear = picture(shape=(100,))
        encoded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear.astype("float64") ** (1 / 2.4) - 0.055)
        np.testing.assert_allclose(kasuri.to("srgb", linear), encoded, atol=2e-6)  # IEC 61966-2-1
        xyz = kasuri.to("xyz", linear)  # IEC 61966-2-1, its matrix of four digits
        matrix = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]])
        np.testing.assert_allclose(xyz, linear.astype("float64") @ matrix.T, atol=3e-4)
        for model in kasuri.models():
            np.testing.assert_allclose(kasuri.from_model(model, kasuri.to(model, linear)), linear, atol=3e-4)
        with self.assertRaisesRegex(kasuri.ArgumentError, "no space or model"):
            kasuri.to("oklhc", linear)

    def test_values(self):
        dyed = kasuri.compile("param dye = vec3(1, 1, 1)\nparam on = true\nparam n = 2 in 1 .. 4 whole\nout.rgb = on ? rgb * dye * n : rgb")
        np.testing.assert_allclose(dyed.set(dye=(0.5, 1, 0))([1, 1, 1]), [1, 2, 0])
        np.testing.assert_allclose(dyed.set(on=False)([1, 1, 1]), [1, 1, 1])
        np.testing.assert_allclose(dyed.copy(on="true", n=3)([1, 1, 1]), [1.5, 3, 0])
        self.assertEqual(dyed.parameters["on"].value, 0)
        for wrong in ({"n": 2.5}, {"n": 9}, {"n": float("nan")}, {"dye": (1, 2)}, {"none": 1}):
            with self.assertRaises(kasuri.ArgumentError):
                dyed.set(**wrong)
        self.assertNotEqual(dyed.identity, dyed.copy(n=4).identity)

    def test_sources(self):
        lit = kasuri.compile('source lamp "Its light"\nsource plate : float\nout.rgb = rgb * plate + lamp.rgb')
        base, lamp, plate = picture(), picture("uint8", seed=2), picture(seed=3)[..., 0]
        self.assertEqual([s.given for s in lit.sources.values()], [False, False])
        with self.assertRaisesRegex(kasuri.ArgumentError, "no picture was given for the source lamp"):
            lit(base)
        lit.give("lamp", lamp).give("plate", plate)
        np.testing.assert_allclose(lit(base), base * plate[..., None] + lamp / 255.0, atol=1e-6)
        with self.assertRaisesRegex(kasuri.ArgumentError, "53 x 37 pixels"):
            lit(base[:10])
        with self.assertRaises(kasuri.ArgumentError):
            lit.give("lump", lamp)

    def test_files(self):
        for path in sorted((SOURCE / "data/filters").glob("*.kasuri"))[:12]:
            with self.subTest(path=path.name):
                made = kasuri.Filter(path)
                self.assertTrue(made.title)
                if not made.sources:
                    self.assertTrue(np.isfinite(made(picture())).all())
        with self.assertRaises(kasuri.FileError):
            kasuri.Filter("none.kasuri")
        with self.assertRaises(OSError):  # as Python's own are caught
            kasuri.Filter("none.cube")

    def test_luts(self):
        squared = kasuri.compile("out.rgb = vec3(r * r, g, 0.5 * b + 0.25 * g)")
        table, error = squared.bake(9)
        axis = np.linspace(0, 1, 9)
        b, g, r = np.meshgrid(axis, axis, axis, indexing="ij")
        np.testing.assert_allclose(table, np.stack([r * r, g, 0.5 * b + 0.25 * g], -1), atol=1e-6)
        self.assertAlmostEqual(error.largest, 1 / 256, delta=1e-4)  # the middle of a parabola's piece of 1/8
        with tempfile.TemporaryDirectory() as folder:
            path = pathlib.Path(folder) / "a.cube"
            squared.bake_file(path, 9)
            rows = [line.split() for line in path.read_text().splitlines()]
            numbers = np.array([row for row in rows if len(row) == 3 and row[0][0] in "-0123456789"], float)
            np.testing.assert_allclose(numbers.reshape(9, 9, 9, 3), table, atol=1e-6)
            np.testing.assert_allclose(kasuri.Filter(path, space="rec709-linear")(table[4, 4, 4]), table[4, 4, 4].astype("float64") @ np.diag([table[4, 4, 4, 0], 1, 0.5]) + [0, 0, 0.25 * 0.5], atol=0.005)
            self.assertEqual(os.listdir(folder), ["a.cube"])
            with self.assertRaises(kasuri.ArgumentError):
                squared.bake_file(pathlib.Path(folder) / "a.png")
            with self.assertRaises(kasuri.NotPossible):
                kasuri.compile("out.r = pos.x").bake()

    def test_readings(self):
        plate = picture(shape=(64, 64))
        found = kasuri.readings.waveform(plate)
        density = found.layers[0]
        self.assertEqual(density.kind, "density")
        parade = kasuri.readings.parade(plate, MIXED)
        self.assertEqual([layer.numbers.sum() for layer in parade.layers], [64 * 64] * 3)  # every pixel once
        for name in kasuri.readings.names():
            with self.subTest(name=name):
                function = getattr(kasuri.readings, name)
                self.assertIn("Settings:", function.__doc__)
                of_pictures = "picture" in inspect.signature(function).parameters
                made = function(plate, MIXED) if of_pictures else function(MIXED)
                self.assertTrue(made.layers)
        with self.assertRaisesRegex(kasuri.ArgumentError, "no setting of that name"):
            kasuri.readings.response(MIXED, nothing=1)
        with self.assertRaises(kasuri.ArgumentError):
            kasuri.readings.parade(MIXED)

    def test_words_and_types(self):
        public = [kasuri.Filter, kasuri.compile, kasuri.to, kasuri.from_model, kasuri.spaces, kasuri.models, kasuri.rest,
                  kasuri.readings.measure, kasuri.Proof, kasuri.Parameter, kasuri.Diagnostic, kasuri.Fix]  # fmt: skip
        members = [m for _, m in inspect.getmembers(kasuri.Filter, inspect.isfunction) if not m.__name__.startswith("_")]
        for each in public + members:
            self.assertTrue(each.__doc__, each)
        for function in members + [kasuri.compile, kasuri.to]:
            self.assertIn("return", typing.get_type_hints(function), function)
        self.assertEqual(list(typing.get_args(kasuri.Space)), kasuri.spaces())
        self.assertEqual(list(typing.get_args(kasuri.Model)), list(kasuri.models()))


class Threads(unittest.TestCase):
    def test_others_run_meanwhile(self):
        slow = kasuri.compile("out.rgb = blur(blur(blur(rgb, 20), 30), 40)")
        counted, done = [0], threading.Event()

        def count():
            while not done.is_set():
                counted[0] += 1
                time.sleep(0.001)

        thread = threading.Thread(target=count)
        thread.start()
        before = counted[0]
        slow(picture(shape=(700, 700)), threads=1)
        self.assertGreater(counted[0] - before, 5)
        done.set()
        thread.join()

    def test_values_set_while_it_works(self):
        gain = kasuri.compile("param gain = 1 in 0 .. 8\nout.rgb = rgb * gain")
        ones = np.ones((300, 300, 3), "float32")
        wrong = []

        def work():
            for _ in range(30):
                made = gain(ones)
                if made.min() != made.max():  # of one value, whichever
                    wrong.append(made)

        threads = [threading.Thread(target=work) for _ in range(4)]
        for thread in threads:
            thread.start()
        for i in range(300):
            gain.set(gain=i % 9)
        for thread in threads:
            thread.join()
        self.assertFalse(wrong)

    def test_called_off_by_the_keyboard(self):
        slow = kasuri.compile("out.rgb = " + "blur(" * 6 + "rgb" + ", 60)" * 6)
        plate = np.zeros((4000, 4000, 3), "float32")
        signal.signal(signal.SIGINT, signal.default_int_handler)
        timer = threading.Timer(0.3, os.kill, (os.getpid(), signal.SIGINT))
        timer.start()
        with self.assertRaises(KeyboardInterrupt):
            for _ in range(20):
                slow(plate)
        timer.join()

    def test_nothing_stays(self):
        MIXED(picture(shape=(500, 500)))
        self.assertTrue(kasuri.rest())


class Page(unittest.TestCase):
    def test_the_page(self):
        os.chdir(SOURCE)
        found = doctest.testfile(str(SOURCE / "docs/python.md"), module_relative=False, optionflags=doctest.ELLIPSIS)
        self.assertEqual(found.failed, 0)
        self.assertGreater(found.attempted, 30)


if __name__ == "__main__":
    unittest.main(verbosity=1)
