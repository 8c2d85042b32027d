"""The guard against small hostile programs: what they may do, how they end, what they leave
behind.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest

from dowsing.machine.sandbox.guard import MOST_OUTPUT, Outcome, run_guarded

pytestmark = pytest.mark.skipif(not os.path.exists("/bin/sh"), reason="these are shell scripts")
NAP = f"sleep 4711{os.getpid()}"  # no other process of the tests sleeps as long
MODES = ["", "plain"] if sys.platform.startswith("linux") else ["plain"]


@pytest.fixture(params=MODES, ids=lambda mode: mode or "all layers")
def run(request: pytest.FixtureRequest, tmp_path: Path, monkeypatch: pytest.MonkeyPatch):  # type: ignore[no-untyped-def]
    """Runs a script under the guard: with all that the system offers, and as on one that offers no
    namespaces.
    """
    monkeypatch.setenv("TMPDIR", str(tmp_path / "tmp"))
    monkeypatch.setattr(tempfile, "tempdir", None)
    (tmp_path / "tmp").mkdir()
    if request.param:
        monkeypatch.setenv("DOWSING_CONFINE", request.param)

    def guarded(script: str, shell: str = "/bin/sh") -> Outcome:
        program = tmp_path / "program"
        program.write_text(f"#!{shell}\n{script}\n")
        program.chmod(0o755)
        outcome = run_guarded([str(program), "--help"], ["/usr/bin", "/bin"])
        assert os.listdir(tmp_path / "tmp") == []  # nothing is left of the folder it ran in
        return outcome

    return guarded


def processes(mark: str) -> list[str]:
    """The command lines of running processes that have the mark in them."""
    if os.path.isdir("/proc/self"):
        found = []
        for name in filter(str.isdecimal, os.listdir("/proc")):
            try:
                found.append(
                    Path(f"/proc/{name}/cmdline")
                    .read_bytes()
                    .replace(b"\x00", b" ")
                    .decode(errors="replace")
                )
            except OSError:
                continue
    else:
        found = subprocess.run(
            ["ps", "-eo", "args"], capture_output=True, text=True, check=False
        ).stdout.split("\n")
    return [line for line in found if mark in line and "ps -eo" not in line]


def short(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("dowsing.machine.sandbox.guard.SECONDS", 1)


def test_output_status_and_streams(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run('echo "out $1"; echo err >&2; exit 64')
    assert outcome == Outcome("exit", 64, "out --help\n", "err\n")
    assert outcome.trouble == ""


def test_a_program_that_hangs_is_ended(run, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    short(monkeypatch)
    outcome = run(f"echo before; exec {NAP}")
    assert (outcome.ended, outcome.out) == ("time", "before\n")
    assert processes(NAP) == []


def test_a_flood_is_cut(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run(
        "while :; do echo aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa; done"
    )
    assert outcome.ended == "output"
    assert len(outcome.out) <= MOST_OUTPUT
    assert outcome.trouble == "it printed more than 1 MB"


def test_what_it_starts_ends_with_it(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run(f"{NAP} & (setsid {NAP} >/dev/null 2>&1 &) ; echo done")
    assert outcome.out == "done\n"
    assert processes(NAP) == []


def test_too_many_processes(run, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    short(monkeypatch)
    outcome = run(f"i=0; while [ $i -lt 200 ]; do {NAP} & i=$((i+1)); done; wait")
    assert outcome.ended in ("processes", "time", "exit")
    assert processes(NAP) == []


def test_it_cannot_kill_who_runs_it(run, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    short(monkeypatch)
    outcome = run(f"kill -9 $PPID; {NAP}")
    assert outcome.ended in ("time", "signal", "exit")
    assert processes(NAP) == []


def test_there_is_no_input_and_no_terminal(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run(
        'if read line; then echo "read $line"; else echo nothing; fi; (: </dev/tty) 2>/dev/null || '
        "echo no tty"
    )
    assert outcome.out == "nothing\nno tty\n"


def test_folder_and_environment_are_empty(run, monkeypatch: pytest.MonkeyPatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setenv("GARDEN_SECRET", "rose")
    outcome = run(
        'ls -A; [ "$HOME" = "$(pwd)" ] && echo home; env | grep -c GARDEN; echo x > here && ls'
    )
    assert outcome.out == "home\n0\nhere\n"


def test_files_are_small(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run("head -c 5000000 /dev/zero > big 2>/dev/null; wc -c < big | tr -d ' '")
    assert outcome.out == "1048576\n"


@pytest.mark.skipif(not sys.platform.startswith("linux"), reason="Linux closes the file system")
def test_nothing_is_written_elsewhere(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    target = tmp_path / "target"
    target.write_text("as it was")
    tmp_path.chmod(0o777)
    outcome = run(f"echo x > {tmp_path}/new; echo x > {target}; rm -f {target}; echo done")
    assert outcome.out == "done\n"
    if not any(
        word in outcome.err.lower()
        for word in ("read-only", "denied", "not permitted", "can't", "cannot")
    ):
        pytest.skip("this kernel has neither namespaces for users nor Landlock")
    assert target.read_text() == "as it was"
    assert not (tmp_path / "new").exists()


def test_a_program_that_cannot_start(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run("echo hello", shell="/no/such/interpreter")
    assert outcome.ended == "start"
    assert outcome.trouble == "it could not be started (no such file or directory)"


def test_no_temporary_folder(monkeypatch: pytest.MonkeyPatch) -> None:
    def full(**_: object) -> str:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(tempfile, "mkdtemp", full)
    outcome = run_guarded(["/bin/sh", "-c", "echo x"], [])
    assert (
        outcome.trouble == "it could not be started (no temporary folder: no space left on device)"
    )


def test_a_crash_is_told(run) -> None:  # type: ignore[no-untyped-def]
    outcome = run("kill -SEGV $$")
    assert outcome.ended == "signal"
    assert outcome.trouble == "it was ended by signal 11"


CONNECT = """
import socket, sys
where = WHERE
tries = {
    "stream": lambda: socket.socket(socket.AF_UNIX).connect(where),
    "letters": lambda: socket.socketpair(socket.AF_UNIX, socket.SOCK_DGRAM)[0].sendto(b"x", where),
    "internet": lambda: socket.create_connection(("127.0.0.1", 9)),
    "pair": socket.socketpair,
}
for name, attempt in tries.items():
    try:
        attempt()
        print(name, "went through")
    except OSError as error:
        print(name, error.strerror)
"""


@pytest.mark.skipif(not sys.platform.startswith("linux"), reason="elsewhere no program is asked")
def test_sockets_of_others_cannot_be_reached(run, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """A socket in the file system may be anybody's server, which would act for the program outside
    of the guard.
    """
    import socket

    place = tmp_path / "server"
    tmp_path.chmod(0o755)
    with socket.socket(socket.AF_UNIX) as server:
        server.bind(str(place))
        server.listen()
        server.setblocking(False)
        place.chmod(0o777)
        outcome = run(CONNECT.replace("WHERE", repr(str(place))), shell=f"{sys.executable} -IS")
        assert outcome.out.split("\n") == [
            "stream Permission denied",
            "letters Permission denied",
            "internet Permission denied",
            "pair went through",
            "",
        ]
        with pytest.raises(BlockingIOError):
            server.accept()


@pytest.mark.skipif(not sys.platform.startswith("linux"), reason="it is of Linux")
def test_where_sockets_cannot_be_closed_nothing_is_run(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("DOWSING_CONFINE", "bare")
    program = tmp_path / "program"
    program.write_text("#!/bin/sh\necho ran\n")
    program.chmod(0o755)
    outcome = run_guarded([str(program)], ["/bin"])
    assert (outcome.out, outcome.trouble) == (
        "",
        "it could not be started (this system cannot keep it from the sockets of others)",
    )
    assert run_guarded([str(program)], ["/bin"], closed=False).out == "ran\n", (
        "so the user's own shells are asked"
    )


@pytest.mark.skipif(
    not sys.platform.startswith("linux"), reason="the signal of a parent's death is Linux's"
)
@pytest.mark.parametrize("mode", MODES)
@pytest.mark.parametrize("name", ["SIGTERM", "SIGHUP", "SIGKILL"])
def test_what_is_asked_ends_with_us(tmp_path: Path, mode: str, name: str) -> None:
    """However we are ended, the program and what it started are ended too, and the next run tidies
    up after us.
    """
    import signal
    import time

    nap = f"sleep 4712{os.getpid()}"
    program = tmp_path / "program"
    program.write_text(f"#!/bin/sh\n(setsid {nap} >/dev/null 2>&1 &)\n{nap}\n")
    program.chmod(0o755)
    (tmp_path / "tmp").mkdir()
    environment = {**os.environ, "TMPDIR": str(tmp_path / "tmp"), "DOWSING_CONFINE": mode}
    code = (
        f"from dowsing.machine.sandbox.guard import run_guarded; run_guarded(['{program}'], "
        "['/usr/bin', '/bin'])"
    )
    asking = subprocess.Popen([sys.executable, "-c", code], env=environment)
    until = time.monotonic() + 20
    while len(processes(nap)) < 2 and time.monotonic() < until:
        time.sleep(0.02)
    assert processes(nap), "it runs"
    asking.send_signal(getattr(signal, name))
    asking.wait()
    while processes(nap) and time.monotonic() < until:
        time.sleep(0.02)
    assert processes(nap) == []
    left = os.listdir(tmp_path / "tmp")
    assert len(left) == 1 and left[0].startswith(f"dowsing-asked-{asking.pid}-")
    again = (
        "from dowsing.machine.sandbox.guard import run_guarded; "
        f"run_guarded(['{sys.executable}', '-V'], ['/bin'])"
    )
    subprocess.run([sys.executable, "-c", again], env=environment, check=True)
    assert os.listdir(tmp_path / "tmp") == []
