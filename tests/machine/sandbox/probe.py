"""A program that tries what a guarded one must not do: it prints a JSON object with what became of
each try, `did` or the name of the error.

Run by test_layers.py, which makes a copy of it that begins with `#!` and has what it acts on in the
place of AIMS.
"""

import ctypes
import errno
import fcntl
import json
import os
import platform
import resource
import signal
import socket
import struct
import sys

libc = ctypes.CDLL(None, use_errno=True)
libc.syscall.restype = ctypes.c_long
NEW_TABLE = platform.machine() != "x86_64"
aims = json.loads("""AIMS""")
home, victim, terminal = aims["home"], aims["victim"], aims["terminal"]
own_file = os.path.abspath(__file__)  # may be read, and is the user's


def call(x86: int, new: int, *arguments: object) -> int:
    """A system call by its number; raises OSError."""
    result = libc.syscall(new if NEW_TABLE else x86, *arguments)
    if result < 0:
        raise OSError(ctypes.get_errno(), "")
    return result


def in_home(name: str) -> str:
    return os.path.join(home, name)


def read(path: str) -> None:
    descriptor = os.open(path, os.O_RDONLY | os.O_NONBLOCK)
    try:
        os.read(descriptor, 1)
    except BlockingIOError:
        pass
    os.close(descriptor)


def write(path: str, flags: int = os.O_WRONLY) -> None:
    os.close(os.open(path, flags, 0o600))


def own(act) -> None:  # type: ignore[no-untyped-def]
    descriptor = os.open(own_file, os.O_RDONLY)
    try:
        act(descriptor)
    finally:
        os.close(descriptor)


def connect(family: int, address: object) -> None:
    with socket.socket(family, socket.SOCK_STREAM) as made:
        made.settimeout(1)
        made.connect(address)


def owner_of_signals() -> None:
    ours, _ = os.pipe()
    fcntl.fcntl(ours, fcntl.F_SETOWN, victim)


def traced() -> None:
    call(101, 117, 16, victim, None, None)  # attach
    call(101, 117, 17, victim, None, None)


def looked_into() -> None:
    kept = ctypes.create_string_buffer(8)
    ours = struct.pack("QQ", ctypes.addressof(kept), 8)
    theirs = struct.pack("QQ", aims["address"], 8)
    call(310, 270, victim, ours, 1, theirs, 1, 0)


def shared_memory() -> None:
    call(30, 196, call(29, 194, aims["key"], 16, 0), None, 0)


def by_handle() -> None:
    handle = struct.pack("Ii", 128, 0) + bytes(128)
    buffer, mount = ctypes.create_string_buffer(handle, len(handle)), ctypes.c_int()
    call(303, 264, -100, in_home("kept").encode(), buffer, ctypes.byref(mount), 0)
    folder = os.open("/", os.O_RDONLY)
    os.close(call(304, 265, folder, buffer, os.O_RDONLY))


QUEUED = struct.pack("iii", 18, 0, -1) + bytes(116)
NAMED = (b"dowsing", os.O_CREAT | os.O_RDWR, 0o600, None)
TRIES = {
    "read a file of the home folder": lambda: read(in_home("kept")),
    "read a FIFO": lambda: read(in_home("pipe")),
    "read a terminal": lambda: read(terminal),
    "read its own terminal": lambda: read("/dev/tty"),
    "read another device": lambda: read("/dev/full"),
    "read the passwords": lambda: read("/etc/shadow"),
    "read the environment of a process": lambda: read(f"/proc/{victim}/environ"),
    "read the line of a process": lambda: read(f"/proc/{victim}/cmdline"),
    "open a file without a path": by_handle,
    "write to a terminal": lambda: write(terminal),
    "write to a file": lambda: write(in_home("kept")),
    "empty a file": lambda: write(in_home("kept"), os.O_WRONLY | os.O_TRUNC),
    "empty a file that is read": lambda: write(in_home("kept"), os.O_RDONLY | os.O_TRUNC),
    "empty its own file": lambda: write(own_file, os.O_RDONLY | os.O_TRUNC),
    "cut a file": lambda: os.truncate(in_home("kept"), 1),
    "make a file": lambda: write(in_home("new"), os.O_WRONLY | os.O_CREAT),
    "make a file in the temporary folder": lambda: write(aims["passing"], os.O_WRONLY | os.O_CREAT),
    "make a folder": lambda: os.mkdir(in_home("folder")),
    "make a link": lambda: os.symlink("kept", in_home("link")),
    "make a hard link": lambda: os.link(in_home("kept"), in_home("twin")),
    "make a FIFO": lambda: os.mkfifo(in_home("another")),
    "rename a file": lambda: os.rename(in_home("kept"), in_home("moved")),
    "remove a file": lambda: os.unlink(in_home("kept")),
    "write into the memory of a process": lambda: write(f"/proc/{victim}/mem"),
    "change a mode": lambda: os.chmod(in_home("kept"), 0o777),
    "change the mode of an open file": lambda: own(lambda one: os.fchmod(one, 0o777)),
    "change an owner": lambda: os.chown(in_home("kept"), os.getuid(), -1),
    "change a time": lambda: os.utime(in_home("kept"), (1, 1)),
    "set an attribute": lambda: os.setxattr(in_home("kept"), "user.x", b"1"),
    "set a flag of a file": lambda: own(
        lambda one: fcntl.ioctl(one, 0x40086602, struct.pack("l", 0x80))
    ),
    "signal a process": lambda: os.kill(victim, signal.SIGCONT),
    "signal all processes": lambda: os.kill(-1, signal.SIGCONT),
    "signal a thread": lambda: call(234, 131, victim, victim, 18),
    "queue a signal": lambda: call(129, 138, victim, 18, QUEUED),
    "signal by a descriptor": lambda: call(424, 424, call(434, 434, victim, 0), 18, None, 0),
    "have a process signalled": owner_of_signals,
    "limit a process": lambda: resource.prlimit(victim, resource.RLIMIT_CORE, (0, 0)),
    "slow a process down": lambda: os.setpriority(os.PRIO_PROCESS, victim, 19),
    "slow all processes down": lambda: os.setpriority(os.PRIO_USER, aims["user"], 19),
    "bind a process to a core": lambda: os.sched_setaffinity(victim, {aims["core"]}),
    "schedule a process": lambda: os.sched_setscheduler(
        victim, os.SCHED_BATCH, os.sched_param(0)
    ),
    "slow the disk down": lambda: call(251, 30, 1, victim, 3 << 13),
    "trace a process": traced,
    "read the memory of a process": looked_into,
    "use shared memory": shared_memory,
    "use a queue": lambda: call(68, 186, aims["key"], 0o1600),
    "use semaphores": lambda: call(64, 190, aims["key"], 1, 0o1600),
    "use a queue with a name": lambda: call(240, 180, *NAMED),
    "add a key": lambda: call(248, 217, b"user", b"dowsing", b"x", 1, -4),
    "connect by a path": lambda: connect(socket.AF_UNIX, in_home("socket")),
    "connect by a name": lambda: connect(socket.AF_UNIX, "\0" + aims["name"]),
    "connect by a port": lambda: connect(socket.AF_INET, ("127.0.0.1", aims["port"])),
    "make a ring": lambda: call(425, 425, 1, ctypes.create_string_buffer(120)),
}  # fmt: skip
#: What programs do and must be able to.
ALLOWED = {
    "write into its folder": lambda: write("own", os.O_WRONLY | os.O_CREAT),
    "write to the null device": lambda: write("/dev/null"),
    "read random numbers": lambda: read("/dev/urandom"),
    "read a library": lambda: read(os.__file__),
    "signal itself": lambda: os.kill(os.getpid(), signal.SIGCONT),
    "talk with its own processes": lambda: socket.socketpair(),
    "start a program": lambda: os.waitpid(os.posix_spawn("/bin/true", ["true"], {}), 0),
}


def tried(act) -> str:  # type: ignore[no-untyped-def]
    try:
        act()
        return "did"
    except OSError as error:
        return errno.errorcode.get(error.errno or 0, str(error))


def main() -> None:
    """Try everything."""
    allowed = {what: tried(act) for what, act in ALLOWED.items()}
    tries = {what: tried(act) for what, act in TRIES.items()}
    json.dump({"tries": tries, "allowed": allowed}, sys.stdout)


main()
