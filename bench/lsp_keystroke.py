"""How long an editor waits for kasuri-cli lsp, in a rule of so many lines: lsp_keystroke.py KASURI_CLI [LINES...].
A keystroke is a change of one letter; then an answer that depends on it, and the faults that are told."""

import json
import statistics
import subprocess
import sys
import time

URI = {"uri": "file:///village/long.kasuri"}


class Server:
    def __init__(self, program):
        self.process = subprocess.Popen([program, "lsp"], stdin=subprocess.PIPE, stdout=subprocess.PIPE)
        self.last = 0
        self.told = {}

    def send(self, **message):
        content = json.dumps({"jsonrpc": "2.0", **message}).encode()
        self.process.stdin.write(b"Content-Length: %d\r\n\r\n" % len(content) + content)
        self.process.stdin.flush()

    def receive(self):
        length = 0
        while line := self.process.stdout.readline().strip():
            length = int(line.split(b":")[1])
        message = json.loads(self.process.stdout.read(length))
        if message.get("method") == "textDocument/publishDiagnostics":
            self.told[message["params"].get("version")] = True
        return message

    def ask(self, method, params):
        self.last += 1
        self.send(id=self.last, method=method, params=params)
        while (message := self.receive()).get("id") != self.last or "method" in message:
            pass
        return message["result"]

    def faults(self, version):
        while version not in self.told:
            self.receive()


def rule(lines):
    text = ["param gain = 1 in 0 .. 4", "param meet = 0.5"]
    for i in range(lines - 4):
        text.append(f"let c{i} = mix({'rgb' if i == 0 else f'c{i - 1}'}, rgb.gbr * gain, 0.1 * meet) + vec3(0.00{i % 9 + 1}, 0, 0)")
    return "\n".join(text + ["out.rgb = c%d" % (lines - 5), 'proof "no NaN" : finite']) + "\n"


for lines in map(int, sys.argv[2:] or ["100", "500", "5000"]):
    server = Server(sys.argv[1])
    server.ask("initialize", {"capabilities": {"textDocument": {"completion": {"completionList": {"itemDefaults": ["editRange"]}}}}})
    server.send(method="initialized", params={})
    server.send(method="textDocument/didOpen", params={"textDocument": {**URI, "version": 0, "text": rule(lines)}})
    server.faults(0)
    took = {name: [] for name in ("completion", "hover", "semantic tokens", "faults")}
    where = {"line": lines // 2, "character": 21}
    for version in range(1, 41):
        def change(letter):
            server.send(method="textDocument/didChange", params={"textDocument": {**URI, "version": version}, "contentChanges": [
                {"range": {"start": where, "end": {**where, "character": 21 + (letter == "")}}, "text": letter}]})  # fmt: skip

        name = list(took)[version // 2 % 4]
        start = time.perf_counter()
        change("" if version % 2 else " ")
        if name == "completion":
            server.ask("textDocument/completion", {"textDocument": URI, "position": {**where, "character": 15}})
        elif name == "hover":
            server.ask("textDocument/hover", {"textDocument": URI, "position": {**where, "character": 12}})
        elif name == "semantic tokens":
            server.ask("textDocument/semanticTokens/full", {"textDocument": URI})
        else:
            server.faults(version)
        took[name].append(1000 * (time.perf_counter() - start))
        if name != "faults":
            server.faults(version)
    print(f"{lines} lines: " + ", ".join(f"{name} {statistics.median(all_):.1f} ms (at most {max(all_):.1f})" for name, all_ in took.items()))
    server.process.kill()
