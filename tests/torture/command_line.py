"""Kills, failing disks and broken files for kasuri-cli."""
import os
import random
import shutil
import signal
import struct
import subprocess
import time

from common import hidden, limits, read, run


def jobs(place, folder):
    """(name, arguments, the file that is written); every one also writes over what is there."""
    rule = place.source + '/data/filters/held-madder.kasuri'
    look = next(os.path.join(place.source, 'data/looks', each)
                for each in sorted(os.listdir(place.source + '/data/looks')) if each.endswith('.kasurilook'))
    small = folder + '/small.exr'
    return [
        ('render', ['render', rule, small, folder + '/out.exr'], folder + '/out.exr'),
        ('render 16', ['render', rule, small, folder + '/out.tif'], folder + '/out.tif'),
        ('look', ['render', look, small, folder + '/look.png'], folder + '/look.png'),
        ('bake', ['bake', rule, folder + '/out.cube', '--size', '17'], folder + '/out.cube'),
        ('bake clf', ['bake', rule, folder + '/out.clf', '--size', '9'], folder + '/out.clf'),
        ('report', ['report', rule, '-o', folder + '/out.html'], folder + '/out.html'),
        ('glsl', ['glsl', rule, '-o', folder + '/out.glsl'], folder + '/out.glsl'),
        ('format', ['format', folder + '/untidy.kasuri'], folder + '/untidy.kasuri'),
    ]


UNTIDY = b'param  a=0.25\nout.r=r*a\nout.g =g\n' + b'// kept\n' * 3000


def prepare(place, name):
    folder = place.fresh(name)
    code, _, err = run([place.cli, 'target', 'dye_chart', '-o', folder + '/small.exr', '--width', '640'])
    if code != 0:
        raise SystemExit('the picture to work on cannot be made: ' + err.decode())
    with open(folder + '/untidy.kasuri', 'wb') as file:
        file.write(UNTIDY)
    return folder


def finished(place, folder):
    """What each job writes when nothing happens."""
    results = {}
    for name, arguments, target in jobs(place, folder):
        code, _, err = run([place.cli] + arguments)
        if code != 0:
            raise SystemExit(f'{name} fails by itself: {err.decode()}')
        results[name] = read(target)
    with open(folder + '/untidy.kasuri', 'wb') as file:
        file.write(UNTIDY)
    return results


def same(place, name, target, data, good, folder):
    """Pictures hold the time of their making: compared by their numbers, all others by their bytes."""
    if data == good:
        return True
    if name == 'report':
        return data.rstrip().endswith(b'</html>')
    if name.startswith(('render', 'look')):
        other = folder + '/reference' + os.path.splitext(target)[1]
        with open(other, 'wb') as file:
            file.write(good)
        return run([place.cli, 'diff', target, other])[0] == 0
    return False


def kills(place, seconds, seed):
    dice, folder = random.Random(seed), prepare(place, 'kills')
    good = finished(place, folder)
    end = time.monotonic() + seconds
    spans = {}
    while time.monotonic() < end:
        name, arguments, target = dice.choice(jobs(place, folder))
        old = UNTIDY if name == 'format' else (b'old' if dice.random() < 0.5 else None)
        if old is None:
            if os.path.exists(target):
                os.remove(target)
        else:
            with open(target, 'wb') as file:
                file.write(old)
        process = subprocess.Popen([place.cli] + arguments, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
                                   preexec_fn=limits)
        begun = time.monotonic()
        span = spans.get(name, 0.3)
        which = dice.choice([signal.SIGKILL, signal.SIGKILL, signal.SIGTERM, signal.SIGINT])
        try:
            process.wait(timeout=dice.uniform(0, span * 1.1))
            spans[name] = 0.5 * span + 0.5 * (time.monotonic() - begun)
        except subprocess.TimeoutExpired:
            process.send_signal(which)
            process.wait()
            place.count('kills of the command line')
        data = read(target)
        if data == old:
            place.count('  the old file stood')
        elif data is not None and same(place, name, target, data, good[name], folder):
            place.count('  the new file stood')
        else:
            place.fault('kills', seed, f'{name}: after signal {which} the file is neither old nor new', folder)
            return
        if any(not each.startswith('.kasuri-') for each in hidden(folder)):
            place.fault('kills', seed, f'{name}: left {hidden(folder)}', folder)
            return
        if name == 'format':
            with open(target, 'wb') as file:
                file.write(UNTIDY)
        for each in hidden(folder):
            os.remove(os.path.join(folder, each))
            place.count('  temporaries left by them')


def disks(place, seconds, seed):
    dice, folder = random.Random(seed), prepare(place, 'disks')
    good = finished(place, folder)
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        name, arguments, target = dice.choice(jobs(place, folder))
        old = UNTIDY if name == 'format' else b'old'
        with open(target, 'wb') as file:
            file.write(old)
        kind = dice.choice(['full', 'broken', 'read-only', 'short', 'mixed', 'slow'])
        percent = dice.choice([1, 5, 20, 60, 100]) if kind != 'slow' else 5
        environment = {**os.environ, 'LD_PRELOAD': place.disk, 'KASURI_DISK_FOLDER': folder,
                       'KASURI_DISK': f'{kind} {percent} {dice.randrange(1 << 30)}'}
        code, out, err = run([place.cli] + arguments, 60, env=environment)
        data, about = read(target), f'{name} on a disk that is {kind} at {percent} %'
        place.count('commands on a failing disk')
        if code == 0 and not same(place, name, target, data, good[name], folder):
            place.fault('disks', seed, f'{about}: says it was written, and it was not', folder)
        elif code == 3 and data != old:
            place.fault('disks', seed, f'{about}: exit 3, and the old file is gone', folder)
        elif code not in (0, 3):
            place.fault('disks', seed, f'{about}: exit {code}: {err[-300:]!r}', folder)
        elif code == 3 and (len(err) > 1000 or err.count(b'\n') > 2 or not err.strip()):
            place.fault('disks', seed, f'{about}: not said in a line: {err[:400]!r}', folder)
        else:
            place.count('  said as errors' if code == 3 else '  written whole nevertheless')
        if name == 'format':
            with open(target, 'wb') as file:
                file.write(UNTIDY)
        for each in hidden(folder):  # removing is not made to fail
            place.fault('disks', seed, f'{about}: left {each}', folder)
            os.remove(os.path.join(folder, each))
        if place.faults:
            return


def mutated(data, dice):
    """One to a few changes: bits, bytes, lengths, pieces taken out, doubled or cut off."""
    data = bytearray(data)
    for _ in range(dice.choice([1, 1, 2, 5, 20])):
        if not data:
            break
        at = dice.randrange(min(len(data), dice.choice([64, 512, 1 << 30])))
        kind = dice.randrange(8)
        if kind == 0:
            data[at] ^= 1 << dice.randrange(8)
        elif kind == 1:
            data[at] = dice.choice([0, 1, 0x7f, 0x80, 0xff, 0x22, 0x0a, 0x1b])
        elif kind == 2:
            value = dice.choice([0, 1, 0x7fffffff, 0x80000000, 0xffffffff, 0x10000, 30000])
            data[at:at + 4] = struct.pack(dice.choice('<>') + 'I', value)
        elif kind == 3:
            del data[at:]
        elif kind == 4:
            del data[at:at + dice.choice([1, 2, 8, 100])]
        elif kind == 5:
            piece = data[at:at + dice.choice([1, 4, 16, 200])]
            data[at:at] = piece * dice.choice([1, 2, 50])
        elif kind == 6:
            data[at:at] = dice.choice([b'-1', b'1e999', b'nan', b'"', b'[', b'{', b'\\u0000', b'\xff\xfe', b'../', b'<'])
        else:
            other = dice.randrange(len(data))
            data[at:at + 8], data[other:other + 8] = data[other:other + 8], data[at:at + 8]
    return bytes(data)


def sources(place, folder):
    """Good files of every kind that is read, with what is asked of them."""
    rule = place.source + '/data/filters/held-madder.kasuri'
    small = folder + '/small.exr'
    made = []
    for ending in ('.exr', '.png', '.tif'):
        target = folder + '/good' + ending
        run([place.cli, 'target', 'dye_chart', '-o', target])
        if os.path.exists(target):
            made.append((target, lambda f: [['picture', f], ['measure', 'parade', '--picture', f]]))
    for ending in ('.cube', '.clf', '.csp', '.3dl', '.spi3d', '.ctf'):
        target = folder + '/good' + ending
        if run([place.cli, 'bake', rule, target, '--size', '9'])[0] == 0:
            made.append((target, lambda f: [['eval', f], ['explain', f]]))
    cdl = folder + '/good.kasuri'
    with open(cdl, 'w') as file:
        file.write('out.rgb = rgb * 1.25 + 0.01\n')
    if run([place.cli, 'cdl', cdl, '-o', folder + '/good.cc'])[0] == 0 and os.path.exists(folder + '/good.cc'):
        made.append((folder + '/good.cc', lambda f: [['cdl', f]]))
    for each in sorted(os.listdir(place.source + '/data/filters')):
        if each.endswith('.kasuri'):
            made.append((place.source + '/data/filters/' + each, lambda f: [['check', '--quiet', f], ['explain', f]]))
    for each in sorted(os.listdir(place.source + '/data/looks')):
        if each.endswith('.kasurilook'):
            made.append((place.source + '/data/looks/' + each, lambda f: [['check', '--quiet', f], ['eval', f]]))
    return made


def broken(place, seconds, seed):
    dice, folder = random.Random(seed), prepare(place, 'broken')
    good = sources(place, folder)
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        path, asks = dice.choice(good)
        ending = os.path.splitext(path)[1]
        target = folder + '/broken' + ending
        with open(target, 'wb') as file:
            file.write(mutated(read(path), dice))
        arguments = dice.choice(asks(target))
        code, out, err = run([place.cli] + arguments, 30)
        place.count('broken files')
        place.count(f'  exit {code}')
        about = f'{arguments[0]} of a broken {os.path.basename(path)}'
        if code not in (0, 1, 2, 3):
            place.fault('broken', seed, f'{about}: exit {code}: {err[-300:]!r}', folder)
        elif code == 2:
            place.fault('broken', seed, f'{about}: told as a wrong command: {err[-300:]!r}', folder)
        elif any(byte < 32 and byte not in (9, 10) for byte in err):
            place.fault('broken', seed, f'{about}: control characters reach the terminal: {err[:300]!r}', folder)
        elif code == 3 and len(err) > 1500:
            place.fault('broken', seed, f'{about}: {len(err)} letters of error: {err[:300]!r}', folder)
        elif code == 3 and b'could not cope' in err:
            place.count('  of which a library failed')
