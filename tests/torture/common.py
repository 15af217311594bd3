"""What the parts of the torture share: where things are, running programs, counting, and what becomes of a fault."""
import os
import random
import resource
import shutil
import signal
import subprocess
import sys
import tempfile
import time


class Fault(Exception):
    """Something is not as it should be."""


class Place:
    """The programs, a folder to work in, counts and faults of one run."""

    def __init__(self, build, source, seed):
        self.bin = os.path.join(build, 'bin')
        self.cli = os.path.join(self.bin, 'kasuri-cli')
        self.window = os.path.join(self.bin, 'torture_window')
        self.disk = os.path.join(self.bin, 'libtorture_disk.so')
        self.source, self.demo, self.seed = source, os.path.join(build, 'demo'), seed
        self.root = tempfile.mkdtemp(prefix='kasuri-torture-')
        self.counts, self.faults, self.largest = {}, [], {}
        self.strict = True  # whether what takes too long is a fault

    def count(self, what, by=1):
        self.counts[what] = self.counts.get(what, 0) + by

    def most(self, what, value):
        self.largest[what] = max(self.largest.get(what, 0), value)

    def fault(self, part, seed, what, folder=None):
        """Keeps the folder and says how to see it again."""
        self.faults.append((part, seed, what))
        kept = ''
        if folder and os.path.isdir(folder):
            kept = f' (kept: {folder}.fault)'
            shutil.copytree(folder, folder + '.fault', symlinks=True, dirs_exist_ok=True)
        print(f'FAULT in {part}, seed {seed}: {what}{kept}', flush=True)

    def fresh(self, name):
        folder = os.path.join(self.root, name)
        shutil.rmtree(folder, ignore_errors=True)
        os.makedirs(folder)
        return folder

    def environment(self, home, **more):
        return {**os.environ, 'HOME': home, 'XDG_DATA_HOME': home + '/data', 'XDG_CONFIG_HOME': home + '/config',
                'XDG_CACHE_HOME': home + '/cache', 'XDG_RUNTIME_DIR': home, 'QT_QPA_PLATFORM': 'offscreen', **more}


def limits():
    """No core files, and no more memory for data than 3 GB: beyond that something is wrong."""
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    resource.setrlimit(resource.RLIMIT_DATA, (3 << 30, 3 << 30))


def run(arguments, seconds=60, **more):
    """Ends the whole group if it takes too long. (exit code or None, output, errors)"""
    process = subprocess.Popen(arguments, stdout=subprocess.PIPE, stderr=subprocess.PIPE, stdin=subprocess.DEVNULL,
                               preexec_fn=limits, start_new_session=True, **more)
    try:
        out, err = process.communicate(timeout=seconds)
        return process.returncode, out, err
    except subprocess.TimeoutExpired:
        os.killpg(process.pid, signal.SIGKILL)
        out, err = process.communicate()
        return None, out, err


def read(path):
    try:
        with open(path, 'rb') as file:
            return file.read()
    except FileNotFoundError:
        return None


def hidden(folder):
    return [name for name in os.listdir(folder) if name.startswith('.')]
