"""Writes kasuri/_tables.py from the tables of the library, which the binding in FOLDER tells: tables.py FOLDER OUT."""

import importlib.util
import pathlib
import sys

folder, out = pathlib.Path(sys.argv[1]), pathlib.Path(sys.argv[2])
binary = next(folder.glob("_kasuri*.so"))
spec = importlib.util.spec_from_file_location("_kasuri", binary)
module = importlib.util.module_from_spec(spec)
spec.loader.exec_module(module)


def names(title: str, doc: str, values: list) -> str:
    lines = "".join(f'    "{value}",\n' for value in values)
    return f"#: {doc}\n{title} = Literal[\n{lines}]\n"


text = '"""Names for type checkers, written by the build (python/tables.py)."""\n\nfrom typing import Literal\n\n'
text += names("Space", "Spaces, docs/colour.md.", module.spaces())
text += names("Model", "Colour models, docs/builtins.md.", [row[0] for row in module.models()])
text += names("ReadingName", "Readings, docs/sheet.md.", [row[0] for row in module.readings()])
if not out.exists() or out.read_text() != text:
    out.write_text(text)
