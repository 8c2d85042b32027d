"""What a guarded program can do, try by try, with each layer taken away, as an ordinary user and as
root: nothing of what it must not.
"""

from __future__ import annotations

import ctypes
import json
import os
import pty
import shutil
import socket
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

pytestmark = pytest.mark.skipif(
    not sys.platform.startswith("linux"), reason="these layers are Linux's"
)
HERE = Path(__file__).parent
SOURCES = HERE.parents[2] / "src" / "dowsing"
#: What the guard needs, to be run by a user who may not look into this folder.
NEEDED = ("model", "machine")
LAYERS = ["", "landlock=4", "landlock=3", "landlock=1"]
LAYERS += ["plain", *(f"plain,{one}" for one in LAYERS[1:])]
ORDINARY = 54_321  # the number of a user that no machine has
RUN = (
    "import json, sys\n"
    "from dowsing.machine.sandbox import guard\n"
    "guard.SECONDS = 20\n"
    "done = guard.run_guarded([sys.argv[1], '--help'], ['/usr/bin', '/bin'])\n"
    "json.dump([done.ended, done.code, done.out, done.err], sys.stdout)\n"
)
KEEPER = (
    "import ctypes, sys, time\n"
    "kept = ctypes.create_string_buffer(b'a secret')\n"
    "print(ctypes.addressof(kept), flush=True)\n"
    "time.sleep(600)\n"
)


def interpreter(user: int) -> str:
    """A Python that the user may run, "" for none."""
    for one in (sys.executable, "/usr/bin/python3"):
        done = (
            subprocess.run(
                [one, "-c", "import ctypes"], check=False, capture_output=True, **as_user(user)
            )
            if shutil.which(one) and may_run(one, user)
            else None
        )
        if done is not None and done.returncode == 0:
            return one
    return ""


def may_run(path: str, user: int) -> bool:
    if user == os.getuid():
        return True
    folders = [Path(path), *Path(path).parents, *Path(os.path.realpath(path)).parents]
    return all(one.stat().st_mode & 0o001 for one in folders)


def as_user(user: int) -> dict[str, object]:
    """Arguments of subprocess by which a process is that user's."""
    return {} if user == os.getuid() else {"user": user, "group": user, "extra_groups": []}


class Place:
    """A home folder with things to act on, a process, a terminal and sockets of a user."""

    def __init__(self, folder: Path, user: int) -> None:
        self.folder, self.user = folder, user
        self.home = folder / "home"
        self.python = interpreter(user)
        self.closing: list[object] = []

    def make(self) -> None:
        """Make it all."""
        self.home.mkdir()
        (self.home / "kept").write_text("kept")
        os.mkfifo(self.home / "pipe")
        bin_folder = self.folder / "programs"
        bin_folder.mkdir()
        (self.folder / "code" / "dowsing").mkdir(parents=True)
        (self.folder / "code" / "dowsing" / "__init__.py").write_text("")
        for name in NEEDED:
            shutil.copytree(SOURCES / name, self.folder / "code" / "dowsing" / name)
        (self.folder / "passing").mkdir()
        ours, theirs = pty.openpty()
        terminal = os.ttyname(theirs)
        path, name, port = (socket.socket(one) for one in (
            socket.AF_UNIX, socket.AF_UNIX, socket.AF_INET
        ))  # fmt: skip
        path.bind(str(self.home / "socket"))
        name.bind(f"\0dowsing-{os.getpid()}-{self.user}")
        port.bind(("127.0.0.1", 0))
        for one in (path, name, port):
            one.listen()
        self.closing = [path, name, port, os.fdopen(ours, "rb"), os.fdopen(theirs, "rb")]
        for one in [self.folder, *self.folder.rglob("*")]:
            os.chown(one, self.user, self.user)
        os.chown(terminal, self.user, self.user)
        self.victim = subprocess.Popen(
            [self.python, "-c", KEEPER], stdout=subprocess.PIPE, text=True, **as_user(self.user)
        )
        assert self.victim.stdout is not None
        self.key = 0x0D057000 + self.user % 4096
        self.segment = ctypes.CDLL(None).shmget(self.key, 16, 0o1666)
        aims = {
            "home": str(self.home),
            "victim": self.victim.pid,
            "address": int(self.victim.stdout.readline()),
            "terminal": terminal,
            "passing": str(self.folder / "passing" / "new"),
            "user": self.user,
            "core": min(os.sched_getaffinity(0)),
            "key": self.key,
            "name": f"dowsing-{os.getpid()}-{self.user}",
            "port": port.getsockname()[1],
        }
        text = (HERE / "probe.py").read_text().replace("AIMS", json.dumps(aims), 2)
        program = bin_folder / "probe"
        program.write_text(f"#!{self.python}\n{text}")
        program.chmod(0o755)
        os.chown(program, self.user, self.user)

    def remove(self) -> None:
        """End and close it all."""
        self.victim.kill()
        self.victim.wait()
        ctypes.CDLL(None).shmctl(self.segment, 0, None)
        for one in self.closing:
            one.close()  # type: ignore[attr-defined]

    def run(self, layers: str) -> tuple[str, int, str, str]:
        """The probe under the guard: how it ended, with what status, what it printed."""
        done = subprocess.run(
            [self.python, "-c", RUN, str(self.folder / "programs" / "probe")],
            env={
                "PATH": "/usr/bin:/bin",
                "HOME": str(self.home),
                "PYTHONPATH": str(self.folder / "code"),
                "PYTHONDONTWRITEBYTECODE": "1",
                "TMPDIR": str(self.folder / "passing"),
                "DOWSING_CONFINE": layers,
            },
            capture_output=True,
            text=True,
            timeout=120,
            check=False,
            **as_user(self.user),  # type: ignore[call-overload]
        )
        assert done.returncode == 0, done.stderr
        ended, code, out, err = json.loads(done.stdout)
        return ended, code, out, err


USERS = [pytest.param(os.getuid(), id="root" if os.getuid() == 0 else "ordinary user")]
if os.getuid() == 0:
    USERS.append(pytest.param(ORDINARY, id="ordinary user"))


@pytest.fixture(params=USERS, scope="module")
def place(
    request: pytest.FixtureRequest, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Place]:
    folder = Path("/tmp") / f"dowsing-layers-{os.getpid()}-{request.param}"
    folder.mkdir(mode=0o755)
    found = Place(folder, request.param)
    if not found.python:
        folder.rmdir()
        pytest.skip("no Python that such a user may run")
    found.make()
    yield found
    found.remove()
    shutil.rmtree(folder)


@pytest.mark.parametrize("layers", LAYERS, ids=lambda one: one or "all layers")
def test_nothing_succeeds_that_must_not(place: Place, layers: str) -> None:
    ended, code, out, err = place.run(layers)
    assert (ended, code) == ("exit", 0), err
    found = json.loads(out)
    assert len(found["tries"]) == 53
    assert [what for what, became in found["tries"].items() if became == "did"] == []
    assert {what for what, became in found["allowed"].items() if became != "did"} == set()
    assert sorted(one.name for one in place.home.iterdir()) == ["kept", "pipe", "socket"]
    assert (place.home / "kept").read_text() == "kept"
    assert place.victim.poll() is None


@pytest.mark.parametrize("layers", ["landlock=0", "plain,landlock=0", "bare", "plain,bare"])
def test_without_a_layer_it_is_not_started(place: Place, layers: str) -> None:
    ended, _, out, err = place.run(layers)
    assert (ended, out) == ("start", "")
    says = "from writing elsewhere" if "landlock" in layers else "from the sockets of others"
    assert err == f"this system cannot keep it {says}\n"


def test_all_of_it_succeeds_without_the_guard(place: Place) -> None:
    """The tries themselves are sound: without the guard most of them do what they try."""
    if place.user != ORDINARY:
        pytest.skip("they would act on all processes of whoever runs this")
    done = subprocess.run(
        [str(place.folder / "programs" / "probe")],
        cwd=place.folder / "passing",
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
        **as_user(place.user),  # type: ignore[call-overload]
    )
    found = json.loads(done.stdout)
    failed = {what for what, became in found["tries"].items() if became != "did"}
    place.remove()
    shutil.rmtree(place.folder)
    place.folder.mkdir(mode=0o755)
    place.make()
    assert failed <= {
        "read its own terminal", "read the passwords", "open a file without a path", "make a ring",
        "queue a signal", "set a flag of a file", "set an attribute", "use a queue with a name",
        "trace a process", "read the memory of a process", "write into the memory of a process",
        "remove a file", "change a mode", "change an owner", "change a time",
        # the file has been renamed by then
    }, failed  # fmt: skip
