"""The process between us and a program that is asked: sets the limits, runs it, and leaves nothing
behind.

Run as a script of its own, `python -I -S confine.py STATUS SECONDS MEMORY PROCESSES FILE_SIZE
CLOSED FOLDER PROGRAM ARGUMENT…`, where CLOSED is 1 or 0 and STATUS is the file descriptor to say on
how it ended. Uses nothing but the standard library. What the system offers is used in layers, and
what it does not offer is left out:

* everywhere: resource limits, a session of its own, everything that was started is ended at the
  end;
* Linux namespaces (user, process, network, mount): no network, no other processes in sight, the
  file system read-only but for FOLDER; the end of the first process ends all;
* root becomes nobody, who may read everything and write nothing, and whose processes are counted;
* Landlock (Linux 5.13): no writing outside FOLDER, later versions also no connections and no
  signals outside;
* seccomp (Linux): no sockets at all. Those of other programs have a path or a port, and whoever
  connects to one can have that program act: a path is reached from within every namespace, and
  read-only mounts do not keep it from that.

With CLOSED the program is not started where the system cannot keep it from writing and from
sockets.
"""

from __future__ import annotations

import ctypes
import os
import resource
import signal
import struct
import sys
import time

CLONE_NEWNS, CLONE_NEWIPC, CLONE_NEWUSER = 0x00020000, 0x08000000, 0x10000000
CLONE_NEWPID, CLONE_NEWNET = 0x20000000, 0x40000000
PR_SET_PDEATHSIG, PR_SET_KEEPCAPS, PR_SET_CHILD_SUBREAPER, PR_SET_NO_NEW_PRIVS, PR_CAP_AMBIENT = (
    1,
    8,
    36,
    38,
    47,
)
AMBIENT_RAISE, AMBIENT_CLEAR = 2, 4
CAPABILITY_VERSION, MAY_READ = 0x20080522, 2
NOBODY = 65534
MS_RDONLY, MS_NOSUID, MS_NODEV, MS_NOEXEC = 1, 2, 4, 8
MS_REC, MS_PRIVATE = 0x4000, 0x40000
SYS_MOUNT_SETATTR = 442
SYS_LANDLOCK_CREATE, SYS_LANDLOCK_ADD, SYS_LANDLOCK_RESTRICT = 444, 445, 446
MOUNT_ATTR_RDONLY = 1
AT_FDCWD, AT_RECURSIVE = -100, 0x8000
#: Landlock's rights that change something, by the version of the interface that has them.
WRITES = {1: 0x1FF2, 2: 0x2000, 3: 0x4000, 5: 0x8000}
WRITE_FILE = 0x2

PR_SET_SECCOMP, SECCOMP_FILTER = 22, 2
#: What the filter has to know of a machine: its mark for audits, the numbers of socket, socketpair
#: and connect.
MACHINES = {
    "x86_64": (0xC000003E, 41, 53, 42),
    "aarch64": (0xC00000B7, 198, 199, 203),
    "riscv64": (0xC00000F3, 198, 199, 203),
    "loongarch64": (0xC0000102, 198, 199, 203),
    "ppc64le": (0xC0000015, 326, 333, 328),
}
IO_URING_SETUP, PIDFD_GETFD, X32 = 425, 438, 0x40000000
SOCK_STREAM = 1
ALLOW, REFUSE = 0x7FFF0000, 0x00050000
EACCES, ENOSYS = 13, 38

STATUS = int(sys.argv[1]) if len(sys.argv) > 1 else -1
TIME_UP, TOO_MANY, NO_START = 121, 122, 123
POLL = 0.02
MARGIN = 5

#: For the tests: `plain`, as on a system without namespaces; `bare`, as on one that keeps nothing
#: from sockets either.
MODE = os.environ.get("DOWSING_CONFINE", "")

libc = ctypes.CDLL(None, use_errno=True)


def prctl(option: int, value: int, more: int = 0) -> None:
    if sys.platform.startswith("linux"):
        libc.prctl(option, value, more, 0, 0)


def unshare() -> int:
    """Leave as many of the system's namespaces as the kernel lets us; the flags of those left."""
    if not sys.platform.startswith("linux") or MODE:
        return 0
    uid, gid = os.getuid(), os.getgid()
    rest = CLONE_NEWPID | CLONE_NEWNET | CLONE_NEWNS | CLONE_NEWIPC
    # root needs no user namespace, and would be counted as root in one: without limits
    for flags in (rest, CLONE_NEWUSER | rest) if uid == 0 else (CLONE_NEWUSER | rest,):
        if libc.unshare(flags) != 0:
            continue
        if flags & CLONE_NEWUSER:
            try:
                for file, text in (
                    ("setgroups", "deny"),
                    ("uid_map", f"{uid} {uid} 1"),
                    ("gid_map", f"{gid} {gid} 1"),
                ):
                    with open(f"/proc/self/{file}", "w") as opened:
                        opened.write(text)
            except OSError:
                pass
        return flags
    return 0


def close_file_system(folder: str) -> None:
    """Everything read-only, FOLDER an empty one in memory, and only our own processes in /proc."""
    if libc.mount(b"none", b"/", None, MS_REC | MS_PRIVATE, None) != 0:
        return
    attributes = struct.pack("QQQQ", MOUNT_ATTR_RDONLY, 0, 0, 0)
    libc.syscall(
        SYS_MOUNT_SETATTR,
        AT_FDCWD,
        b"/",
        AT_RECURSIVE,
        attributes,
        ctypes.c_size_t(len(attributes)),
    )
    options = b"size=16m,nr_inodes=1000,mode=0700"
    libc.mount(b"tmpfs", os.fsencode(folder), b"tmpfs", MS_NOSUID | MS_NODEV, options)
    libc.mount(b"proc", b"/proc", b"proc", MS_NOSUID | MS_NODEV | MS_NOEXEC, None)


def landlock(folder: str) -> bool:
    """Writing only in FOLDER and to the null device; whether the system keeps the program to
    that.
    """
    if not sys.platform.startswith("linux"):
        return False
    version = libc.syscall(SYS_LANDLOCK_CREATE, None, ctypes.c_size_t(0), 1)
    if version < 1:
        return False
    rights = sum(bits for since, bits in WRITES.items() if version >= since)
    attributes = struct.pack("QQQ", rights, 3 if version >= 4 else 0, 3 if version >= 6 else 0)
    size = 24 if version >= 6 else 16 if version >= 4 else 8
    ruleset = libc.syscall(SYS_LANDLOCK_CREATE, attributes, ctypes.c_size_t(size), 0)
    if ruleset < 0:
        return False
    for path, allowed in ((folder, rights), ("/dev/null", rights & (WRITE_FILE | 0xC000))):
        try:
            place = os.open(path, getattr(os, "O_PATH", os.O_RDONLY))
        except OSError:
            continue
        rule = struct.pack("=Qi", allowed, place)
        libc.syscall(SYS_LANDLOCK_ADD, ruleset, 1, rule, 0)
        os.close(place)
    return bool(libc.syscall(SYS_LANDLOCK_RESTRICT, ruleset, 0) == 0)


def no_sockets() -> bool:
    """No sockets but pairs for the program's own processes; whether the system keeps the program to
    that.

    The filter is a program for the kernel (man 2 seccomp): what it loads is the number and the
    arguments of a call.
    """
    machine = MACHINES.get(os.uname().machine)
    if machine is None or not sys.platform.startswith("linux") or sys.byteorder != "little":
        return False
    mark, socket, pair, connect = machine
    refused = [
        *compare(socket, EACCES),
        *compare(connect, EACCES),
        *compare(IO_URING_SETUP, ENOSYS),
        *compare(PIDFD_GETFD, EACCES),
    ]
    code = [
        # calls of another machine's kind: none
        (0x20, 0, 0, 4),
        (0x15, 1, 0, mark),
        (0x06, 0, 0, REFUSE | ENOSYS),
        # nor by numbers of a second kind
        (0x20, 0, 0, 0),
        (0x35, 0, 1, X32),
        (0x06, 0, 0, REFUSE | ENOSYS),
        *refused,
        (0x15, 0, 4, pair),
        (0x20, 0, 0, 24),
        (0x54, 0, 0, 0xF),
        (0x15, 1, 0, SOCK_STREAM),
        (0x06, 0, 0, REFUSE | EACCES),
        (0x06, 0, 0, ALLOW),
    ]
    steps = b"".join(struct.pack("HBBI", *step) for step in code)
    kept = ctypes.create_string_buffer(steps, len(steps))
    program = struct.pack("HxxxxxxQ", len(code), ctypes.addressof(kept))
    return bool(libc.prctl(PR_SET_SECCOMP, SECCOMP_FILTER, ctypes.c_char_p(program), 0, 0) == 0)


def compare(number: int, error: int) -> list[tuple[int, int, int, int]]:
    """Two steps of the filter: the call of that number fails with that error."""
    return [(0x15, 0, 1, number), (0x06, 0, 0, REFUSE | error)]


def become_nobody(folder: str) -> None:
    """Root gives up everything but reading, as far as the system lets it."""
    try:
        os.chown(folder, NOBODY, NOBODY)
        prctl(PR_SET_KEEPCAPS, 1)
        os.setgroups([])
        os.setresgid(NOBODY, NOBODY, NOBODY)
        os.setresuid(NOBODY, NOBODY, NOBODY)
    except (OSError, AttributeError):
        return
    if sys.platform.startswith("linux"):
        kept = 1 << MAY_READ
        libc.capset(
            struct.pack("Ii", CAPABILITY_VERSION, 0),
            struct.pack("IIIIII", kept, kept, kept, 0, 0, 0),
        )
        prctl(PR_CAP_AMBIENT, AMBIENT_RAISE, MAY_READ)


def limit(kind: str, value: int) -> None:
    """Set a resource limit, as far down as allowed."""
    which = getattr(resource, kind, None)
    if which is None:
        return
    hard = resource.getrlimit(which)[1]
    if hard != resource.RLIM_INFINITY:
        value = min(value, hard)
    try:
        resource.setrlimit(which, (value, value))
    except (ValueError, OSError):
        pass


def become(
    program: list[str], folder: str, limits: tuple[int, int, int, int], closed: bool
) -> None:
    """Turn this process into the program. Does not return.

    `closed`: only where the system keeps it from writing elsewhere and from sockets.
    """
    seconds, memory, processes, file_size = limits
    try:
        os.close(STATUS)
        os.chdir(folder)
        limit("RLIMIT_CPU", seconds + 1)
        limit("RLIMIT_FSIZE", file_size)
        limit("RLIMIT_CORE", 0)
        limit("RLIMIT_NOFILE", 256)
        limit("RLIMIT_DATA" if sys.platform.startswith("linux") else "RLIMIT_AS", memory)
        if not os.getuid() and separate_user(os.getuid()):
            become_nobody(folder)
        # the system counts all processes of the user, also those of programs asked at the same
        # time: this limit only holds off what outruns the counting in watch()
        limit("RLIMIT_NPROC", processes_of(os.getuid()) + MARGIN * processes)
        signal.signal(signal.SIGPIPE, signal.SIG_DFL)
        prctl(PR_SET_NO_NEW_PRIVS, 1)
        prctl(PR_SET_PDEATHSIG, signal.SIGKILL)  # whoever watches it may be ended itself
        open_still = "" if landlock(folder) else "from writing elsewhere"
        open_still = open_still if no_sockets() and MODE != "bare" else "from the sockets of others"
        if open_still and closed:
            os.write(2, f"this system cannot keep it {open_still}\n".encode())
            os._exit(NO_START)
        environment = {key: value for key, value in os.environ.items() if key != "DOWSING_CONFINE"}
        os.execve(program[0], program, environment)
    except OSError as error:
        sys.stderr.write(f"{error.strerror}\n")
        sys.stderr.flush()
    os._exit(NO_START)


def separate_user(uid: int) -> bool:
    """Whether the identity of nobody exists here: in a user namespace only one's own does."""
    try:
        with open("/proc/self/uid_map") as file:
            return any(
                int(start) <= NOBODY < int(start) + int(count)
                for start, _, count in map(str.split, file)
            )
    except (OSError, ValueError):
        return True


def processes_of(uid: int) -> int:
    """How many processes the user has now, where /proc tells; the limit counts them all."""
    count = 0
    try:
        for name in os.listdir("/proc"):
            if name.isdecimal():
                try:
                    count += os.stat(f"/proc/{name}").st_uid == uid
                except OSError:
                    pass
    except OSError:
        return 500
    return count


def children_of(parents: set[int]) -> set[int]:
    """The processes below `parents`."""
    below: dict[int, list[int]] = {}
    try:
        names = [name for name in os.listdir("/proc") if name.isdecimal()]
    except OSError:
        return set()
    for name in names:
        try:
            with open(f"/proc/{name}/stat") as file:
                parent = int(file.read().rpartition(")")[2].split()[1])
        except (OSError, ValueError, IndexError):
            continue
        below.setdefault(parent, []).append(int(name))
    found: set[int] = set()
    waiting = list(parents)
    while waiting:
        for child in below.get(waiting.pop(), []):
            if child not in found:
                found.add(child)
                waiting.append(child)
    return found


def end_all(group: int) -> None:
    """End every process that came of the program."""
    for _ in range(50):
        try:
            os.killpg(group, signal.SIGKILL)
        except OSError:
            pass
        left = children_of({os.getpid()})
        for pid in left:
            try:
                os.kill(pid, signal.SIGKILL)
            except OSError:
                pass
        try:
            while os.waitpid(-1, os.WNOHANG)[0]:
                pass
        except ChildProcessError:
            return
        time.sleep(POLL)


def watch(first: int, deadline: float, most: int, alone: bool) -> int:
    """Wait for process `first`; its wait status, or TIME_UP or TOO_MANY shifted like an exit
    status.
    """
    while True:
        try:
            pid, status = os.waitpid(-1, os.WNOHANG)
        except ChildProcessError:
            return 0
        if pid == first:
            return status
        if pid:
            continue
        if time.monotonic() > deadline:
            return TIME_UP << 8
        count = (
            sum(name.isdecimal() for name in os.listdir("/proc")) - 1
            if alone
            else len(children_of({os.getpid()}))
        )
        if count > most:
            return TOO_MANY << 8
        time.sleep(POLL if time.monotonic() > deadline - 2.7 else POLL / 10)


def report(status: int) -> None:
    """Say how it ended: `exit N` or `signal N`."""
    code = os.waitstatus_to_exitcode(status)
    kind = {TIME_UP << 8: "time", TOO_MANY << 8: "processes"}.get(status) or (
        "exit" if code >= 0 else "signal"
    )
    try:
        os.write(STATUS, f"{kind} {abs(code)}".encode())
    except OSError:
        pass


def start(program: list[str], folder: str, limits: tuple[int, int, int, int], closed: bool) -> int:
    """Start the program in a process group of its own."""
    pid = os.fork()
    if pid == 0:
        os.setpgid(0, 0)
        become(program, folder, limits, closed)
    return pid


def main() -> None:
    seconds, memory, processes, file_size = (int(value) for value in sys.argv[2:6])
    closed, folder, program = sys.argv[6] == "1", sys.argv[7], sys.argv[8:]
    limits = (seconds, memory, processes, file_size)
    deadline = time.monotonic() + seconds
    prctl(PR_SET_CHILD_SUBREAPER, 1)
    flags = unshare()
    if flags & CLONE_NEWPID:
        prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
        inner = os.fork()
        if inner == 0:
            prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
            close_file_system(folder)
            alone = os.readlink("/proc/self") == "1"
            report(watch(start(program, folder, limits, closed), deadline, processes, alone))
            os._exit(0)  # which ends whatever else is left in the namespace
        os.waitpid(inner, 0)
        return
    first = 0

    def stop(*_: object) -> None:
        if first:
            end_all(first)
        os._exit(1)

    # without a namespace that ends with its first process, what was started is ended here, also
    # when whoever waits for it is ended: that is told by a signal
    signal.signal(signal.SIGTERM, stop)
    prctl(PR_SET_PDEATHSIG, signal.SIGTERM)
    if os.getppid() == 1:
        return
    first = start(program, folder, limits, closed)
    status = watch(first, deadline, processes, False)
    end_all(first)
    report(status)


if __name__ == "__main__":
    main()
