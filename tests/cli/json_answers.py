"""What kasuri-cli writes with --json, read by another reader (python3-jsonschema) against the program's own schema, made
strict: no field that is not documented, and every documented field seen at least once. Also where commands fail.

usage: json_answers.py KASURI_CLI SOURCE_FOLDER
"""

import json
import os
import pathlib
import struct
import subprocess
import sys
import tempfile

import jsonschema

cli, source = sys.argv[1], pathlib.Path(sys.argv[2])
filters = source / "data" / "filters"
looks = source / "data" / "looks"
faults = []


def fail(words):
    faults.append(words)


def run(arguments, given="", where=None):
    words = [cli, *map(str, arguments)]
    ran = subprocess.run(words, input=given, capture_output=True, text=True, timeout=300, cwd=where)
    return ran.returncode, ran.stdout, ran.stderr


schema = json.loads(run(["docs", "json-schema"])[1])
jsonschema.Draft7Validator.check_schema(schema)


def strict(node):
    if isinstance(node, dict):
        if "properties" in node and node.get("type") == "object":
            node["additionalProperties"] = False
        for value in node.values():
            strict(value)
    elif isinstance(node, list):
        for value in node:
            strict(value)


strict(schema)
by_title = {each["title"]: each for each in schema["anyOf"]}
validators = {
    title: jsonschema.Draft7Validator({**each, "definitions": schema["definitions"]}) for title, each in by_title.items()
}


def paths(node, before=""):
    """Every field of a schema, as a path."""
    for each in [node] + node.get("anyOf", []):
        for name, value in each.get("properties", {}).items():
            yield before + name
            yield from paths(value, before + name + "/")
            if "items" in value:
                yield from paths(value["items"], before + name + "/")


def seen_in(value, before=""):
    if isinstance(value, dict):
        for name, inner in value.items():
            yield before + name
            yield from seen_in(inner, before + name + "/")
    elif isinstance(value, list):
        for inner in value:
            yield from seen_in(inner, before)


seen = {title: set() for title in by_title}


def check(line, title, what):
    for fault in list(validators[title].iter_errors(line))[:3]:
        fail(f"{what}: {'/'.join(map(str, fault.absolute_path))}: {fault.message[:300]}")
    seen[title].update(seen_in(line))


def ask(arguments, exit=0, given="", where=None):
    """Runs a command; every line of its output has to be as the schema says. Returns the answer. `exit`: the
    code that is expected, or several of which one is."""
    what = " ".join(map(str, arguments))
    code, out, said = run([*arguments, "--json"], given, where)
    lines = out.split("\n")
    if lines[-1] != "":
        fail(f"{what}: the last line has no end")
    try:
        values = [json.loads(line) for line in lines[:-1]]
    except ValueError as error:
        fail(f"{what}: not JSON: {error}: {out[:300]!r}")
        return {}
    if not values:
        fail(f"{what}: nothing was written; {said[:300]}")
        return {}
    answer = values[-1]
    if code not in (exit if isinstance(exit, tuple) else (exit,)) or answer.get("exit") != code:
        fail(f"{what}: exit code {code}, {exit} was expected, {answer.get('exit')} was told; {said[:300]}")
    name = answer.get("command")
    title = f"the answer of {name}" if name else "an answer where there is no such command"
    check(answer, title, what)
    for line in values[:-1]:
        check(line, f"a line of {name}", what)
    errors = [message for message in answer["messages"] if message["severity"] == "error"]
    if code in (2, 3, 4) and not errors:
        fail(f"{what}: exit code {code}, and no message says why")
    if code == 0 and errors:
        fail(f"{what}: exit code 0, and an error: {errors}")
    for found in answer["diagnostics"]:
        if f"{found['file']}:{found['line']}:{found['column']}: " not in said:
            fail(f"{what}: another place than on standard error: {found}")
    return answer


def profile(path):
    """An RGB display profile by ICC.1:2010: three primaries of BT.709 under D50 and gamma 2.2."""
    s15 = lambda x: struct.pack(">i", round(x * 65536))
    xyz = lambda *x: b"XYZ \0\0\0\0" + b"".join(map(s15, x))
    curve = b"curv\0\0\0\0" + struct.pack(">IH", 1, round(2.2 * 256)) + b"\0\0"
    words = b"desc\0\0\0\0" + struct.pack(">I", 6) + b"Frame\0" + bytes(12 + 67)
    words += bytes(-len(words) % 4)
    tags = {
        b"desc": words,
        b"cprt": b"text\0\0\0\0none\0\0\0\0",
        b"wtpt": xyz(0.9642, 1, 0.8249),
        b"rXYZ": xyz(0.4361, 0.2225, 0.0139),
        b"gXYZ": xyz(0.3851, 0.7169, 0.0971),
        b"bXYZ": xyz(0.1431, 0.0606, 0.7141),
        b"rTRC": curve,
        b"gTRC": curve,
        b"bTRC": curve,
    }
    table, body = struct.pack(">I", len(tags)), b""
    start = 128 + 4 + 12 * len(tags)
    for name, content in tags.items():
        table += struct.pack(">4sII", name, start + len(body), len(content))
        body += content
    size = start + len(body)
    head = struct.pack(">I4sI4s4s4s", size, b"none", 0x02400000, b"mntr", b"RGB ", b"XYZ ")
    head += struct.pack(">6H4s", 2026, 1, 1, 0, 0, 0, b"acsp") + bytes(28) + s15(0.9642) + s15(1) + s15(0.8249)
    path.write_bytes(head.ljust(128, b"\0") + table + body)


with tempfile.TemporaryDirectory() as name:
    folder = pathlib.Path(name)
    wrong = folder / "wrong.kasuri"
    wrong.write_text("// twó\nout.r = luminanse(rgb)\nout.g = nothing\n")
    unread = folder / "unread.kasuri"
    unread.write_text("out.r = (r\n")
    good = folder / "good.kasuri"
    good.write_text(
        'param lift = 0.25 in 0 .. 1\npreset "High" lift = 0.75\nout.rgb = rgb + lift\nproof "greys" : neutral\n'
    )
    matrix = folder / "matrix.kasuri"
    matrix.write_text("out.rgb = rgb.gbr\n")
    curved = folder / "curved.kasuri"
    curved.write_text("out.rgb = pow(rgb, vec3(1.3, 1.1, 0.9))\n")
    mixed = folder / "mixed.kasuri"
    mixed.write_text("out.rgb = pow(rgb, vec3(1.3, 1.1, 0.9)) * vec3(0.9, 1, 1) + vec3(0.1 * g, 0, 0)\n")
    needing = folder / "needing.kasuri"
    needing.write_text('source cloth : vec3\nout.rgb = mix(rgb, cloth, 0.5)\n')
    picture, other, small = folder / "a.exr", folder / "b.exr", folder / "c.exr"
    # What fails says so as JSON, whatever it is.
    ask(["bake"], 2)
    ask(["nothing"], 2)
    ask(["bake", good, folder / "x.cube", "--size", "11"], 2)
    found = ask(["eval", wrong], 1, "0,0,0\n")["diagnostics"]
    if [(each["code"], each["line"], each["column"]) for each in found][:1] != [("K202", 2, 9)]:
        fail(f"wrong.kasuri: {found}")
    fix = found[0]["fixes"][0]
    lines = wrong.read_text().split("\n")
    line = lines[fix["line"] - 1]
    lines[fix["line"] - 1] = line[: fix["column"] - 1] + fix["text"] + line[fix["end-column"] - 1 :]
    if "luminance(rgb)" not in lines[1]:
        fail(f"the fix of wrong.kasuri makes {lines[1]}")
    for command in (["check", wrong], ["bake", wrong, folder / "x.cube"], ["glsl", wrong], ["c", wrong], ["explain", wrong]):
        if len(ask(command, 1)["diagnostics"]) != 2:
            fail(f"{command}: two diagnostics were expected")
    for command in (
        ["format", unread],
        ["report", wrong],
        ["cdl", wrong],
        ["invert", wrong],
        ["carry", wrong, "--to", "acescg"],
        ["simplify", wrong],
        ["diff", wrong, good],
        ["measure", "response", wrong],
        ["render", wrong, picture, other],
        ["config", wrong, "-o", folder / "x.ocio"],
    ):
        answer = ask(command, 1)
        if not answer["diagnostics"] and not answer["messages"]:
            fail(f"{command}: nothing is said of what is wrong")
    for command in ("eval", "bake", "check", "explain", "glsl", "c", "cdl", "report", "format", "invert", "simplify"):
        gone = ask([command, folder / "gone.kasuri", *([folder / "x.cube"] if command == "bake" else [])], 3, "0,0,0\n")
        if "gone.kasuri" not in gone["messages"][0]["where"]:
            fail(f"{command}: {gone['messages']}")
    ask(["eval", "--rule", "out.r = g"], 3, "0,0,zero\n")
    ask(["eval", good, "--set", "left=1"], 2, "0,0,0\n")
    ask(["invert", good, "-o", "-"], 2)
    ask(["bake", good, "-", "--ending", "cube"], 2)
    ask(["picture", folder / "gone.exr"], 3)
    ask(["target", "grey_rampe"], 2)
    ask(["measure", "waveforme"], 2)
    ask(["--config", folder / "gone.ocio", "eval", good], 3, "0,0,0\n")
    # What comes to a result.
    ask(["target"])
    ask(["target", "hue_sweep", "-o", picture])
    ask(["target", "grey_ramp", "-o", small, "--width", "3"])
    ask(["eval", good], 0, "0,0.5,nan\n1,2,3\n")
    ask(["render", good, picture, folder / "float.exr"])
    ask(["render", good, picture, folder / "clipped.png", "--depth", "8"])
    ask(["render", good, small, folder / "gone.exr", folder / "to"], 3)
    ask(["render", "--size", "8x8", matrix, folder / "blank.exr"])
    run(["target", "grey_ramp", "-o", folder / "s.0001.exr", "--width", "8"])
    run(["target", "grey_ramp", "-o", folder / "s.0002.exr", "--width", "8"])
    ask(["render", matrix, folder / "s.####.exr", folder / "t.####.exr"])
    ask(["render", matrix, folder / "s.####.exr", folder / "t.####.exr", "--resume"])
    ask(["render", matrix, folder / "s.####.exr", folder / "t.mov"])
    endless = folder / "endless.kasuri"
    endless.write_text("out.r = r / 0\n")
    ask(["render", endless, picture, folder / "endless.png"])
    ask(["picture", picture, folder / "clipped.png", f"{folder / 't.mov'}@1"])
    ask(["bake", mixed, folder / "m.cube", "--delta-e", "--size", "9"])
    ask(["bake", matrix, folder / "m.clf", "--delta-e"])
    ask(["bake", curved, folder / "c.clf", "--delta-e"])
    ask(["bake", mixed, folder / "m.cube", "--size", "9", "--within", "1e-9"], 1)
    ask(["check", filters, looks])
    ask(["check", good, wrong, needing, "--junit", folder / "junit.xml"], 1)
    ask(["explain", matrix])
    ask(["explain", looks / "river-cloth.kasurilook"])
    ask(["diff", good, matrix], 1)
    ask(["diff", needing, needing])
    ask(["diff", folder / "m.cube", mixed], 1)
    ask(["diff", picture, folder / "float.exr"], 1)
    ask(["diff", picture, small], 1)
    ask(["diff", folder / "clipped.png", folder / "float.exr"], 1)
    ask(["glsl", good])
    ask(["c", good])
    ask(["c", good, "-o", folder / "good.h"])
    ask(["glsl", good, "-o", folder / "good.glsl"])
    ask(["glsl", "--rule", "out.rgb = blur(rgb, 2)"], 1)
    ask(["glsl", "--rule", "out.rgb = blur(rgb, 2)", "--passes", folder / "blurred"])
    ask(["glsl", folder / "m.cube", "--passes", folder / "cube"])
    ask(["cdl", filters / "lift-and-pull.kasuri", "-o", folder / "l.cc"])
    ask(["cdl", folder / "l.cc"])
    ask(["cdl", folder / "l.cc", "-o", folder / "l.kasuri"])
    ask(["report", matrix])
    ask(["report", matrix, "-o", folder / "r.html"])
    ask(["format", matrix, folder / "l.kasuri"])
    ask(["measure"])
    ask(["measure", "response", good])
    ask(["measure", "vectorscope", good, "--target", "hue_sweep"])
    ask(["measure", "response", good, "-o", folder / "response.csv"])
    ask(["measure", "solid", "--target", "hue_sweep"])
    ask(["solve", "1,0,0=0.8,0.1,0"])
    table = folder / "pairs.csv"
    table.write_text("".join(f"{r / 4},{g / 4},{b / 4},{g / 4},{b / 4},{r / 4}\n" for r in range(5) for g in range(5) for b in range(5)))
    ask(["fit", table, "--rest", "5"])
    ask(["invert", good])
    ask(["invert", "--rule", "out.rgb = clamp(rgb, 0, 1)"])
    step = {"label": "", "filter": "", "values": {}, "on": True, "opacity": 1, "blend": "normal", "mask": "", "mask-inverted": False}
    step["text"] = "out.rgb = 2 * clamp(rgb, 0, 1)"
    look = folder / "lifted.kasurilook"
    look.write_text(json.dumps({"kasuri-look": 1, "title": "Lifted", "note": "", "steps": [step]}))
    ask(["invert", look])
    ask(["invert", looks / "river-cloth.kasurilook", "--tables", "--points", "5"])
    ask(["invert", folder / "m.cube", "-o", folder / "back.cube", "--points", "5"])
    ask(["invert", folder / "m.cube", "--nearest"])
    ask(["invert", "--rule", "out.rgb = vec3(r, r, r)"], 1)
    ask(["simplify", "--rule", "out.rgb = rgb.gbr\nout.rgb = rgb.gbr"])
    ask(["simplify", looks / "river-cloth.kasurilook"])
    ask(["carry", matrix, "--to", "acescg"])
    profile(folder / "frame.icc")
    ask(["print", folder / "frame.icc", good, "target:hue_sweep", "--outside", "100"])
    ask(["config", matrix, "-o", folder / "x.ocio", "--size", "9"])
    for look in sorted(looks.iterdir()):
        ask(["invert", look], (0, 1))
    for filter in sorted(filters.iterdir()):
        ask(["invert", filter], (0, 1))

for title, each in by_title.items():
    missing = [path for path in paths(each) if path not in seen[title] and not path.startswith(("messages/", "diagnostics/"))]
    # The ways to them are in the tests of pictures and movies: no such file is made here.
    elsewhere = {
        "result/pictures/frame", "result/patches", "result/pictures/ink", "result/steps/fault",
    }
    missing = [path for path in missing if not any(path == known or path.startswith(known + "/") for known in elsewhere)]
    if missing:
        fail(f"{title}: documented and never seen: {', '.join(missing)}")
print("\n".join(faults) if faults else f"{sum(map(len, seen.values()))} fields as documented")
sys.exit(1 if faults else 0)
