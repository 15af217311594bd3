"""A farm on one machine: Slurm with a controller and two nodes, an array job of eight parts over 64 frames, a node that
dies in the middle, a frame that is destroyed. What comes out is what one machine makes, byte for byte.

farm.py KASURI_CLI SOURCE. Everything lives in a folder of its own and ends with the script; where Slurm cannot start,
the script says why and ends with 77."""

import os
import pathlib
import re
import shutil
import signal
import subprocess
import sys
import tempfile
import time

FRAMES, PARTS = 64, 8
cli, source = os.path.abspath(sys.argv[1]), pathlib.Path(sys.argv[2]).resolve()
running: list[subprocess.Popen] = []


class Skipped(Exception):
    pass


def say(*words):
    print(*words, flush=True)


def run(*command, **more):
    return subprocess.run([str(part) for part in command], check=True, capture_output=True, text=True, **more).stdout


def start(name, *command, env=None):
    log = open(folder / f"{name}.log", "ab")
    process = subprocess.Popen([str(part) for part in command], stdout=log, stderr=log, env=env, start_new_session=True)
    running.append(process)
    return process


def until(what, condition, seconds=60):
    end = time.monotonic() + seconds
    while not condition():
        if time.monotonic() > end:
            raise TimeoutError(what)
        time.sleep(0.2)


def ours(what, condition, seconds=90):
    """What Slurm has to do by itself, before there is anything of ours to be judged."""
    try:
        until(what, condition, seconds)
    except TimeoutError as no:
        raise Skipped(f"Slurm did not come so far that {what}: {slurm('squeue', check=False)}") from no


def configured(port):
    user = run("id", "-un").strip()
    host = run("hostname").strip()
    cpus = os.cpu_count()
    text = f"""ClusterName=ford
SlurmctldHost={host}(127.0.0.1)
SlurmUser={user}
SlurmdUser={user}
AuthType=auth/munge
AuthInfo=socket={folder}/munge.socket
CryptoType=crypto/munge
StateSaveLocation={folder}/state
SlurmdSpoolDir={folder}/spool-%n
SlurmctldPidFile={folder}/controller.pid
SlurmdPidFile={folder}/%n.pid
SlurmctldLogFile={folder}/controller.log
SlurmdLogFile={folder}/%n.log
SlurmctldPort={port}
ProctrackType=proctrack/pgid
TaskPlugin=task/none
JobAcctGatherType=jobacct_gather/none
AccountingStorageType=accounting_storage/none
SwitchType=switch/none
MpiDefault=none
SchedulerType=sched/builtin
SelectType=select/linear
ReturnToService=2
SlurmdTimeout=5
SlurmctldTimeout=30
InactiveLimit=0
KillWait=2
JobRequeue=1
SlurmdParameters=config_overrides
NodeName=loom1 NodeHostname={host} NodeAddr=127.0.0.1 Port={port + 1} CPUs={cpus} State=UNKNOWN
NodeName=loom2 NodeHostname={host} NodeAddr=127.0.0.1 Port={port + 2} CPUs={cpus} State=UNKNOWN
PartitionName=weavers Nodes=loom1,loom2 Default=YES MaxTime=INFINITE State=UP
"""
    (folder / "slurm.conf").write_text(text)
    (folder / "state").mkdir()
    for node in ("loom1", "loom2"):
        (folder / f"spool-{node}").mkdir()


def start_slurm():
    for program in ("munged", "slurmctld", "slurmd", "sbatch", "scontrol"):
        if not shutil.which(program, path=os.environ["PATH"]):
            raise Skipped(f"{program} is not installed")
    key = folder / "munge.key"
    key.write_bytes(os.urandom(1024))
    key.chmod(0o600)
    start("munge", "munged", "--foreground", "--force", f"--key-file={key}", f"--socket={folder}/munge.socket",
          f"--pid-file={folder}/munge.pid", f"--log-file={folder}/munged.log", f"--seed-file={folder}/munge.seed")  # fmt: skip
    try:
        until("munge answers", lambda: (folder / "munge.socket").exists(), 10)
    except TimeoutError as no:
        raise Skipped(f"munge does not start: {(folder / 'munge.log').read_text()[-300:]}") from no
    configured(20000 + os.getpid() % 20000)
    start("controller-said", "slurmctld", "-D", "-c", "-f", folder / "slurm.conf")
    for node in ("loom1", "loom2"):
        nodes[node] = start(f"{node}-said", "slurmd", "-D", "-N", node, "-f", folder / "slurm.conf")
    try:
        until("both nodes are idle", lambda: slurm("sinfo", "-h", "-o", "%T %D", check=False).split() == ["idle", "2"], 40)
    except TimeoutError as no:
        words = "".join((folder / f"{name}.log").read_text()[-600:] for name in ("controller", "loom1") if (folder / f"{name}.log").exists())
        raise Skipped(f"Slurm does not start here: {words}") from no


def slurm(*command, check=True):
    env = {**os.environ, "SLURM_CONF": str(folder / "slurm.conf")}
    done = subprocess.run([str(part) for part in command], capture_output=True, text=True, env=env)
    if check and done.returncode:
        raise RuntimeError(f"{command}: {done.stderr}")
    return done.stdout


def children_of(pid):
    all_ = []
    for entry in pathlib.Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                fields = (entry / "stat").read_text().rpartition(")")[2].split()
            except OSError:
                continue
            if int(fields[1]) == pid:
                all_ += [int(entry.name), *children_of(int(entry.name))]
    return all_


def steps_of(node):
    """The processes of jobs on a node, their keepers (slurmstepd) first: a keeper that outlives its job reports how it
    ended, and a machine without power reports nothing."""
    keepers, jobs = [], []
    for entry in pathlib.Path("/proc").iterdir():
        if not entry.name.isdigit():
            continue
        try:
            name = (entry / "comm").read_text().strip()
            environment = (entry / "environ").read_bytes().decode(errors="replace")
            open_ = [os.readlink(link) for link in (entry / "fd").iterdir()] + [os.readlink(entry / "cwd")]
        except OSError:
            continue
        if name.startswith("slurmstepd") and any(str(folder) in path and node in path for path in open_):
            keepers.append(int(entry.name))
        elif f"SLURMD_NODENAME={node}" in environment and str(folder) in environment:
            jobs.append(int(entry.name))
    return keepers + jobs


def kill_node(node):
    """As if its plug was pulled: the daemon, and whatever it had started, at once."""
    for pid in [nodes[node].pid, *children_of(nodes[node].pid), *steps_of(node)]:
        try:
            os.kill(pid, signal.SIGKILL)
        except ProcessLookupError:
            pass
    nodes[node].wait()


def frames_in(where):
    return sorted(path for path in where.iterdir())


def main():
    look = source / "data/looks/three-times-of-day.kasurilook"
    frames, alone, farm = folder / "frames", folder / "alone", folder / "farm"
    for each in (frames, alone, farm):
        each.mkdir()
    start_slurm()
    say("Slurm runs: a controller and two nodes")
    for i in range(1, FRAMES + 1):
        run(cli, "target", "hue_lightness", "-o", frames / f"f.{i:04}.exr", "--width", 700 + i)
    began = time.monotonic()
    run(cli, "render", look, frames / "f.####.exr", alone / "f.####.exr", "--quiet")
    say(f"one machine: {FRAMES} frames in {time.monotonic() - began:.1f} s")

    job = folder / "job.sh"
    job.write_text(f"""#!/bin/sh
#SBATCH --array=1-{PARTS}
#SBATCH --nodes=1 --exclusive --requeue
#SBATCH --output={folder}/part-%a.out --open-mode=append
exec "{cli}" render "{look}" "{frames}/f.####.exr" "{farm}/f.####.exr" --part $SLURM_ARRAY_TASK_ID/{PARTS} --resume --jobs 1
""")
    began = time.monotonic()
    slurm("sbatch", job)
    ours("both nodes work", lambda: len(frames_in(farm)) > 4 and slurm("squeue", "-h", "-t", "R", "-o", "%N").split().count("loom1"))
    on_it = slurm("squeue", "-h", "-t", "R", "-w", "loom1", "-o", "%K").split()
    kill_node("loom1")
    say(f"loom1 is killed while it renders part {', '.join(on_it)}, with {len(frames_in(farm))} of {FRAMES} frames there")
    ours("its part waits again", lambda: "loom1" not in slurm("squeue", "-h", "-t", "R", "-o", "%N"), 180)
    say(f"its part waits again after {time.monotonic() - began:.1f} s")
    for line in slurm("squeue", "-h", "-t", "PD", "-o", "%A").split():
        slurm("scontrol", "update", f"JobId={line}", "StartTime=now", check=False)  # Slurm lets what lost its node wait for two minutes
    nodes["loom1"] = start("loom1-said", "slurmd", "-D", "-N", "loom1", "-f", folder / "slurm.conf")
    until("the job ends", lambda: not slurm("squeue", "-h").strip(), 480)
    say(f"the job ends after {time.monotonic() - began:.1f} s")

    told = "".join((folder / f"part-{part}.out").read_text() for part in range(1, PARTS + 1))
    written = [pathlib.Path(name).name for name in re.findall(r"^\d+/\d+  (\S+)  \d", told, re.M)]
    twice = sorted({name for name in written if written.count(name) > 1})
    lost = frames_in(farm)[FRAMES // 2]
    lost.write_bytes(lost.read_bytes()[:100])  # half of it is gone
    again = run(cli, "render", look, frames / "f.####.exr", farm / "f.####.exr", "--resume")
    mended = re.findall(r"^\d+/\d+  (\S+)  \d", again, re.M)

    same = [a.name for a, b in zip(frames_in(alone), frames_in(farm)) if a.name == b.name and a.read_bytes() == b.read_bytes()]
    faults = []
    if [a.name for a in frames_in(farm)] != [a.name for a in frames_in(alone)]:
        faults.append(f"other files: {[a.name for a in frames_in(farm)]}")
    if len(same) != FRAMES:
        faults.append(f"{FRAMES - len(same)} frames differ")
    if len(set(written)) < FRAMES - 1 or len(twice) > 1:  # the one that was being written when its node died may be told twice, or by nobody
        faults.append(f"{len(set(written))} frames were told as written, twice {twice}")
    if [pathlib.Path(name).name for name in mended] != [lost.name]:
        faults.append(f"of one destroyed frame {mended} were rendered again")
    say(f"{len(same)} of {FRAMES} frames are the same, byte for byte; rendered twice: {len(twice)}; of one destroyed frame {len(mended)} was rendered again")
    for fault in faults:
        say("not so:", fault)
    return 1 if faults else 0


folder = pathlib.Path(tempfile.mkdtemp(prefix="kasuri-farm-"))
nodes: dict[str, subprocess.Popen] = {}
outcome = 1
try:
    outcome = main()
except Skipped as why:
    say("skipped:", why)
    outcome = 77
finally:
    for process in reversed(running):
        for pid in [*children_of(process.pid), process.pid]:
            try:
                os.kill(pid, signal.SIGKILL)
            except ProcessLookupError:
                pass
        process.wait()
    for node in ("loom1", "loom2"):
        for pid in steps_of(node):
            os.kill(pid, signal.SIGKILL)
    if outcome in (0, 77):
        shutil.rmtree(folder, ignore_errors=True)
    else:
        say("kept:", folder)
say("good" if outcome == 0 else "")
sys.exit(outcome)
