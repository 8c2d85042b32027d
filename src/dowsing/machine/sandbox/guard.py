"""Runs a program for its output, under limits, and takes what it prints.

The program gets no terminal, no input, an empty temporary folder as working folder and home, and an
environment with nothing of the user's in it but PATH. See confine.py for the limits that the system
enforces.
"""

from __future__ import annotations

import contextlib
import os
import selectors
import shutil
import signal
import subprocess
import sys
import tempfile
import time

from dowsing.machine.sandbox.readable import readable_paths
from dowsing.model.record import Record

SECONDS = 3
MOST_OUTPUT = 1_000_000
MEMORY = 1 << 30
PROCESSES = 48
FILE_SIZE = 1 << 20
# what the names of temporary folders begin with; the number of the process follows
LEFT = "dowsing-asked-"
NOBODY = 65534  # who such a folder belongs to where root asks
GRACE = 1.0  # seconds beyond the limit in which the confining process must have ended everything

_CONFINE = os.path.join(os.path.dirname(os.path.abspath(__file__)), "confine.py")


class Outcome(Record):
    """What a run brought. `ended`: `exit`, `signal`, `time`, `output`, `processes`, or `start` if
    it did not start.

    `code` is the exit status or the signal's number.
    """

    ended: str
    code: int
    out: str
    err: str

    @property
    def trouble(self) -> str:
        """What went wrong in a few words; "" if the program ended by itself."""
        if self.ended == "exit":
            return ""
        return {
            "time": f"it did not end within {SECONDS} seconds",
            "output": f"it printed more than {MOST_OUTPUT // 1_000_000} MB",
            "processes": f"it started more than {PROCESSES} processes",
            "signal": f"it was ended by signal {self.code}",
            "start": f"it could not be started ({self.err.strip().lower() or 'no reason given'})",
        }[self.ended]


def environment(search_path: list[str], folder: str) -> dict[str, str]:
    """What a guarded program sees of the environment."""
    folders = dict.fromkeys(
        [*search_path, "/usr/bin", "/bin"]
    )  # what scripts are made of is there in any case
    return {
        "PATH": os.pathsep.join(folders),
        "HOME": folder,
        "TMPDIR": folder,
        "PWD": folder,
        "LC_ALL": "C.UTF-8",
        "TERM": "dumb",
        "COLUMNS": "100",
        "LINES": "1000",
        "NO_COLOR": "1",
        "PAGER": "cat",
        "XDG_RUNTIME_DIR": folder,
    }


def run_guarded(program: list[str], search_path: list[str], closed: bool = True) -> Outcome:
    """Run `program` (its first part an absolute path) and wait until it and all it started are
    gone.

    `closed`: only where the system keeps it from writing elsewhere, from reading what is not its
    own (readable.py), and from the sockets of others. The user's own shells are asked without that.
    """
    _remove_leftovers()
    try:
        folder = tempfile.mkdtemp(prefix=f"{LEFT}{os.getpid()}-")
    except OSError as error:
        return Outcome("start", 0, "", f"no temporary folder: {error.strerror or error}")
    try:
        outcome = _run(program, search_path, folder, closed)
        # a default that the program makes of its home is one of the user's home
        return outcome.changed(
            out=outcome.out.replace(folder, "~"), err=outcome.err.replace(folder, "~")
        )
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _remove_leftovers() -> None:
    """Remove the folders of runs whose process was ended before it could: our own ones of processes
    that are gone.
    """
    with contextlib.suppress(OSError):
        for entry in os.scandir(tempfile.gettempdir()):
            if not entry.name.startswith(LEFT) or not entry.is_dir(follow_symlinks=False):
                continue
            number = entry.name.removeprefix(LEFT).partition("-")[0]
            own = entry.stat(follow_symlinks=False).st_uid in (
                os.getuid(),
                *([NOBODY] if not os.getuid() else []),
            )
            if number.isdecimal() and own and not _is_running(int(number)):
                shutil.rmtree(entry.path, ignore_errors=True)


def _is_running(process: int) -> bool:
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except (OSError, OverflowError):
        return True
    return True


def _run(program: list[str], search_path: list[str], folder: str, closed: bool) -> Outcome:
    status_end, status_given = os.pipe()
    limits = [str(value) for value in (SECONDS, MEMORY, PROCESSES, FILE_SIZE)]
    readable = readable_paths(program[0], search_path) if closed else []
    command = [
        sys.executable,
        "-I",
        "-S",
        _CONFINE,
        str(status_given),
        *limits,
        str(int(closed)),
        folder,
        str(len(readable)),
        *readable,
        *program,
    ]
    confine = os.environ.get(
        "DOWSING_CONFINE"
    )  # `plain`: as on a system without namespaces; for the tests
    try:
        process = subprocess.Popen(
            command,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            cwd=folder,
            env={
                **environment(search_path, folder),
                **({"DOWSING_CONFINE": confine} if confine else {}),
            },
            start_new_session=True,
            pass_fds=(status_given,),
        )
    except OSError as error:
        os.close(status_end)
        os.close(status_given)
        return Outcome("start", 0, "", error.strerror or "")
    os.close(status_given)
    parts: dict[str, bytes] = {"out": b"", "err": b"", "status": b""}
    try:
        flooded = _collect(process, status_end, parts)
    finally:
        _end(process)
        if not parts["status"]:
            _end_strays(folder)
        os.close(status_end)
        for stream in (process.stdout, process.stderr):
            if stream:
                stream.close()
    return _outcome(parts, flooded)


def _collect(process: subprocess.Popen[bytes], status: int, parts: dict[str, bytes]) -> bool:
    """Put what comes on stdout, stderr and the status descriptor into `parts`; whether it was too
    much.
    """
    assert process.stdout is not None and process.stderr is not None
    deadline = time.monotonic() + SECONDS + GRACE
    with selectors.DefaultSelector() as selector:
        selector.register(process.stdout, selectors.EVENT_READ, "out")
        selector.register(process.stderr, selectors.EVENT_READ, "err")
        selector.register(status, selectors.EVENT_READ, "status")
        while selector.get_map():
            left = deadline - time.monotonic()
            if left <= 0:
                break
            for key, _ in selector.select(left):
                data = os.read(key.fd, 65536)
                if not data:
                    selector.unregister(key.fileobj)
                    continue
                parts[key.data] += data
                if len(parts["out"]) + len(parts["err"]) > MOST_OUTPUT:
                    return True
    return False


def _end(process: subprocess.Popen[bytes]) -> None:
    """The confining process and what is left of its session are ended."""
    if process.poll() is None:
        with contextlib.suppress(OSError):
            process.send_signal(signal.SIGTERM)
        try:
            process.wait(GRACE)
        except subprocess.TimeoutExpired:
            process.kill()
    with contextlib.suppress(OSError):
        os.killpg(process.pid, signal.SIGKILL)
    process.wait()


def _end_strays(folder: str) -> None:
    """End processes that outlived a confining process which was itself ended by what it ran.

    They are known by the home folder that nobody else has.
    """
    mark = f"HOME={folder}".encode()
    for _ in range(5):
        found = False
        try:
            names = [
                name
                for name in os.listdir("/proc")
                if name.isdecimal() and int(name) != os.getpid()
            ]
        except OSError:
            return
        for name in names:
            try:
                if os.getuid() and os.stat(f"/proc/{name}").st_uid != os.getuid():
                    continue
                with open(f"/proc/{name}/environ", "rb") as file:
                    if mark in file.read().split(b"\x00"):
                        os.kill(int(name), signal.SIGKILL)
                        found = True
            except OSError:
                continue
        if not found:
            return
        time.sleep(0.02)


def _outcome(parts: dict[str, bytes], flooded: bool) -> Outcome:
    out = parts["out"].decode("utf-8", "replace")
    err = parts["err"].decode("utf-8", "replace")
    kind, _, code = parts["status"].decode("ascii", "replace").partition(" ")
    if flooded:
        return Outcome("output", 0, out[:MOST_OUTPUT], err[:MOST_OUTPUT])
    if kind == "exit" and code == "123":
        return Outcome("start", 0, out, err)
    if kind in ("exit", "signal", "time", "processes"):
        return Outcome(kind, int(code or 0), out, err)
    return Outcome("time", 0, out, err) if not parts["status"] else Outcome("signal", 0, out, err)
