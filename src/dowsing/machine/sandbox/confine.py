"""The process between us and a program that is asked: sets the limits, runs it, and leaves nothing
behind.

Run as a script of its own, `python -I -S confine.py STATUS SECONDS MEMORY PROCESSES FILE_SIZE
CLOSED FOLDER COUNT PATH… PROGRAM ARGUMENT…`, where CLOSED is 1 or 0, STATUS is the file descriptor
to say on how it ended, and the COUNT paths are what the program may read besides FOLDER (none: it
may read everything). Uses nothing but the standard library. What the system offers is used in
layers, and what it does not offer is left out:

* everywhere: resource limits, a session of its own, everything that was started is ended at the
  end;
* Linux namespaces (user, process, network, mount): no network, no other processes in sight, the
  file system read-only but for FOLDER, no devices; the end of the first process ends all;
* root becomes nobody, who may read everything and write nothing, and whose processes are counted;
* Landlock (Linux 5.13): no writing outside FOLDER, no reading but of the paths; later versions also
  no connections and no signals outside;
* seccomp (Linux): no sockets at all. Those of other programs have a path or a port, and whoever
  connects to one can have that program act: a path is reached from within every namespace, and
  read-only mounts do not keep it from that. No change of modes, owners, times and attributes of
  files, no shared memory, queues and keys, and, where no namespace hides them, nothing done to
  other processes.

With CLOSED the program is not started where the system cannot keep it from writing, from reading
elsewhere, and from sockets.
"""

from __future__ import annotations

import ctypes
import os
import resource
import signal
import struct
import sys
import time

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Sequence

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
MS_NOSUID, MS_NODEV, MS_NOEXEC, MS_BIND = 2, 4, 8, 0x1000
MS_REC, MS_PRIVATE = 0x4000, 0x40000
SYS_MOUNT_SETATTR = 442
SYS_LANDLOCK_CREATE, SYS_LANDLOCK_ADD, SYS_LANDLOCK_RESTRICT = 444, 445, 446
MOUNT_ATTR_RDONLY = 1
AT_FDCWD, AT_RECURSIVE = -100, 0x8000
#: Landlock's rights that change something, by the version of the interface that has them.
WRITES = {1: 0x1FF2, 2: 0x2000, 3: 0x4000, 5: 0x8000}
WRITE_FILE, READ_FILE = 0x2, 0x4
#: The version of Landlock from which on it keeps signals within.
SCOPED = 6
#: The devices that a program may open; the first it may also write to.
DEVICES = ("/dev/null", "/dev/zero", "/dev/urandom")
#: What programs read of /proc where that shows the processes of others.
OF_PROC = ("self", "sys", "cpuinfo", "meminfo", "stat", "version", "filesystems", "uptime")

PR_SET_SECCOMP, SECCOMP_FILTER = 22, 2
#: What the filter has to know of a machine: its mark for audits, and which of the numbers of CALLS
#: are its own.
MACHINES = {
    "x86_64": (0xC000003E, 0),
    "aarch64": (0xC00000B7, 1),
    "riscv64": (0xC00000F3, 1),
    "loongarch64": (0xC0000102, 1),
}
#: Calls that are refused whatever their arguments: their numbers on x86-64, and on the machines
#: that have the newer table (None: it has no such call).
REFUSED = {
    "connect": (42, 203),
    "pidfd_getfd": (438, 438),
    # modes, owners, times and attributes of files, by a path that may only be read
    "chmod": (90, None),
    "fchmod": (91, 52),
    "fchmodat": (268, 53),
    "fchmodat2": (452, 452),
    "chown": (92, None),
    "lchown": (94, None),
    "fchown": (93, 55),
    "fchownat": (260, 54),
    "utime": (132, None),
    "utimes": (235, None),
    "futimesat": (261, None),
    "utimensat": (280, 88),
    "setxattr": (188, 5),
    "lsetxattr": (189, 6),
    "fsetxattr": (190, 7),
    "removexattr": (197, 14),
    "lremovexattr": (198, 15),
    "fremovexattr": (199, 16),
    "setxattrat": (463, 463),
    "removexattrat": (466, 466),
    "file_setattr": (469, 469),
    "truncate": (76, 45),  # which Landlock knows from version 3 on
    "open_by_handle_at": (304, 265),  # opens without a path
    # memory, queues and keys that processes of the user share
    "shmget": (29, 194),
    "shmat": (30, 196),
    "shmctl": (31, 195),
    "semget": (64, 190),
    "semop": (65, 193),
    "semtimedop": (220, 192),
    "semctl": (66, 191),
    "msgget": (68, 186),
    "msgsnd": (69, 189),
    "msgrcv": (70, 188),
    "msgctl": (71, 187),
    "mq_open": (240, 180),
    "mq_unlink": (241, 181),
    "add_key": (248, 217),
    "request_key": (249, 218),
    "keyctl": (250, 219),
}
#: Calls that say that they are not there: programs go another way then.
MISSING = {"io_uring_setup": (425, 425), "openat2": (437, 437)}
#: Calls about a process, by its number in the argument of that place: nought and the program's own
#: are let through. (Landlock would keep signals within from version 6 on.)
ABOUT_PROCESSES = {
    "prlimit64": (302, 261, 0),
    "sched_setaffinity": (203, 122, 0),
    "sched_setscheduler": (144, 119, 0),
    "sched_setparam": (142, 118, 0),
    "sched_setattr": (314, 274, 0),
    "migrate_pages": (256, 238, 0),
    "move_pages": (279, 239, 0),
    "setpriority": (141, 140, 1),
    "ioprio_set": (251, 30, 1),
    "kill": (62, 129, 0),
    "tkill": (200, 130, 0),
    "tgkill": (234, 131, 0),
    "rt_sigqueueinfo": (129, 138, 0),
    "rt_tgsigqueueinfo": (297, 240, 0),
}
#: Calls that act on somebody else's process in another way.
SIGNALLING_OTHERWISE = {"pidfd_send_signal": (424, 424)}
#: Of these calls an argument (its place) must be none of some values.
FCNTL, SETTING_OWNERS = (72, 25, 1), (8, 15)  # F_SETOWN, F_SETOWN_EX
SETPRIORITY, OF_A_USER = (141, 140, 0), (1, 2)  # a group of processes, all of a user
IOPRIO_SET, IO_OF_A_USER = (251, 30, 0), (2, 3)
#: Attributes of a file, what a terminal is given to read, whom a file's signals go to.
IOCTL, ACTING = (16, 29, 1), (0x40086602, 0x401C5820, 0x40087602, 0x5412, 0x8901, 0x8902)
#: Opening for reading may empty a file all the same, which Landlock knows from version 3 on.
OPEN, OPENAT = (2, None, 1), (257, 56, 2)
ACCESS, EMPTIES = 0x203, 0x200
SOCKET, SOCKETPAIR = (41, 198), (53, 199)
X32 = 0x40000000
SOCK_STREAM = 1
ALLOW, REFUSE = 0x7FFF0000, 0x00050000
EPERM, EACCES, ENOSYS = 1, 13, 38

STATUS = int(sys.argv[1]) if len(sys.argv) > 1 else -1
TIME_UP, TOO_MANY, NO_START = 121, 122, 123
POLL = 0.02
MARGIN = 5

#: For the tests, any of these with commas between: `plain`, as on a system without namespaces;
#: `bare`, as on one without the filter of calls; `landlock=N`, as on one with that version, 0 for
#: none.
MODE = os.environ.get("DOWSING_CONFINE", "").split(",")
MOST_LANDLOCK = min(
    (int(one.removeprefix("landlock=")) for one in MODE if one.startswith("landlock=")), default=99
)

libc = ctypes.CDLL(None, use_errno=True)


def prctl(option: int, value: int, more: int = 0) -> None:
    if sys.platform.startswith("linux"):
        libc.prctl(option, value, more, 0, 0)


def unshare() -> int:
    """Leave as many of the system's namespaces as the kernel lets us; the flags of those left."""
    if not sys.platform.startswith("linux") or "plain" in MODE:
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
    """Everything read-only, no devices but a few, FOLDER an empty one in memory, and only our own
    processes in /proc.
    """
    if libc.mount(b"none", b"/", None, MS_REC | MS_PRIVATE, None) != 0:
        return
    close_devices()
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


def close_devices() -> None:
    """A /dev with a few devices: no terminals, from which what the user types could be read."""
    kept = []
    for device in DEVICES:
        try:
            kept.append((device, os.open(device, os.O_PATH)))
        except OSError:
            continue
    options = b"size=64k,nr_inodes=16,mode=0755"
    if libc.mount(b"tmpfs", b"/dev", b"tmpfs", MS_NOSUID | MS_NOEXEC, options) != 0:
        return
    for device, descriptor in kept:
        try:
            os.close(os.open(device, os.O_CREAT | os.O_EXCL, 0o666))
        except OSError:
            continue
        place = f"/proc/self/fd/{descriptor}".encode()
        libc.mount(place, device.encode(), None, MS_BIND, None)
        os.close(descriptor)
    for name, number in (("fd", ""), ("stdin", "/0"), ("stdout", "/1"), ("stderr", "/2")):
        try:
            os.symlink(f"/proc/self/fd{number}", f"/dev/{name}")
        except OSError:
            continue


def landlock(folder: str, readable: list[str], alone: bool) -> bool:
    """Writing only in FOLDER and to the null device, reading only that, a few devices and the
    `readable` paths, if there are any; whether the system keeps the program to that.
    `alone`: /proc shows no processes but its own.
    """
    if not sys.platform.startswith("linux"):
        return False
    version = min(libc.syscall(SYS_LANDLOCK_CREATE, None, ctypes.c_size_t(0), 1), MOST_LANDLOCK)
    if version < 1:
        return False
    writes = sum(bits for since, bits in WRITES.items() if version >= since)
    rights = writes | (READ_FILE if readable else 0)
    attributes = struct.pack("QQQ", rights, 3 if version >= 4 else 0, 3 if version >= SCOPED else 0)
    size = 24 if version >= SCOPED else 16 if version >= 4 else 8
    ruleset = libc.syscall(SYS_LANDLOCK_CREATE, attributes, ctypes.c_size_t(size), 0)
    if ruleset < 0:
        return False
    proc = ["/proc"] if alone else [f"/proc/{name}" for name in OF_PROC]
    allowed = [(folder, rights), (DEVICES[0], rights & (WRITE_FILE | READ_FILE | 0xC000))]
    if readable:
        allowed += [(path, READ_FILE) for path in (*DEVICES[1:], *proc, *readable)]
    for path, bits in allowed:
        try:
            place = os.open(path, getattr(os, "O_PATH", os.O_RDONLY))
        except OSError:
            continue
        rule = struct.pack("=Qi", bits, place)
        libc.syscall(SYS_LANDLOCK_ADD, ruleset, 1, rule, 0)
        os.close(place)
    return bool(libc.syscall(SYS_LANDLOCK_RESTRICT, ruleset, 0) == 0)


#: A step of the filter, as the kernel has it (man 2 seccomp): what to do, how far to go on if it is
#: so and if not, and a value.
Step = tuple[int, int, int, int]
LOAD, IS, IS_LEAST, AND, RETURN = 0x20, 0x15, 0x35, 0x54, 0x06
NUMBER, MACHINE, ARGUMENTS = 0, 4, 16  # where the filter finds them; an argument has eight bytes


def filter_calls(alone: bool) -> bool:
    """No sockets but pairs for the program's own processes, and nothing that changes what is not
    the program's; whether the system keeps the program to that.

    `alone`: no other processes are in sight.
    """
    machine = MACHINES.get(os.uname().machine)
    if machine is None or not sys.platform.startswith("linux") or sys.byteorder != "little":
        return False
    mark, table = machine
    code: list[Step] = [
        # calls of another machine's kind: none
        (LOAD, 0, 0, MACHINE),
        (IS, 1, 0, mark),
        (RETURN, 0, 0, REFUSE | ENOSYS),
        # nor by numbers of a second kind
        (LOAD, 0, 0, NUMBER),
        (IS_LEAST, 0, 1, X32),
        (RETURN, 0, 0, REFUSE | ENOSYS),
        *refuse(SOCKET[table], EACCES),
        *unless(SOCKETPAIR[table], 1, [SOCK_STREAM], EACCES, bits=0xF),
    ]
    for call in REFUSED.values():
        code += refuse(call[table], EPERM)
    for call in MISSING.values():
        code += refuse(call[table], ENOSYS)
    for opening in (OPEN, OPENAT):
        code += if_any(opening[table], opening[2], [EMPTIES], EACCES, bits=ACCESS)
    code += if_any(IOCTL[table], IOCTL[2], ACTING, EPERM)
    code += if_any(SETPRIORITY[table], SETPRIORITY[2], OF_A_USER, EPERM)
    code += if_any(IOPRIO_SET[table], IOPRIO_SET[2], IO_OF_A_USER, EPERM)
    if not alone:
        code += of_other_processes(table)
    code.append((RETURN, 0, 0, ALLOW))
    steps = b"".join(struct.pack("HBBI", *step) for step in code)
    kept = ctypes.create_string_buffer(steps, len(steps))
    program = struct.pack("HxxxxxxQ", len(code), ctypes.addressof(kept))
    return bool(libc.prctl(PR_SET_SECCOMP, SECCOMP_FILTER, ctypes.c_char_p(program), 0, 0) == 0)


def of_other_processes(table: int) -> list[Step]:
    """Steps that refuse what is done to other processes: signals, their limits, their share of the
    processor.
    """
    own = [0, os.getpid()]
    code: list[Step] = []
    for *numbers, place in ABOUT_PROCESSES.values():
        code += unless(numbers[table], place, own, EPERM)
    for call in SIGNALLING_OTHERWISE.values():
        code += refuse(call[table], ENOSYS)
    return code + if_any(FCNTL[table], FCNTL[2], SETTING_OWNERS, EPERM)


def refuse(number: int | None, error: int) -> list[Step]:
    """Steps by which the call of that number fails with that error."""
    if number is None:
        return []
    return [(IS, 0, 1, number), (RETURN, 0, 0, REFUSE | error)]


def unless(
    number: int | None, place: int, values: list[int], error: int, bits: int = 0
) -> list[Step]:
    """Steps by which the call fails unless its argument of that place is one of the values."""
    found = [(IS, len(values) - n, 0, value) for n, value in enumerate(values)]
    return on_argument(number, place, bits, [*found, (RETURN, 0, 0, REFUSE | error)])


def if_any(
    number: int | None, place: int, values: Sequence[int], error: int, bits: int = 0
) -> list[Step]:
    """Steps by which the call fails if its argument of that place is one of the values."""
    code: list[Step] = []
    for value in values:
        code += [(IS, 0, 1, value), (RETURN, 0, 0, REFUSE | error)]
    return on_argument(number, place, bits, code)


def on_argument(number: int | None, place: int, bits: int, code: list[Step]) -> list[Step]:
    """Steps on the lower half of an argument of a call, of which only some bits count."""
    if number is None:
        return []
    loaded: list[Step] = [(LOAD, 0, 0, ARGUMENTS + 8 * place)]
    if bits:
        loaded.append((AND, 0, 0, bits))
    # the number of the call is loaded again for what follows
    whole = [*loaded, *code, (LOAD, 0, 0, NUMBER)]
    return [(IS, 0, len(whole), number), *whole]


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


class Asked:
    """What is to be run. `limits`: seconds, bytes of memory, processes, bytes of a file; `closed`:
    only where the system keeps it from reading and writing elsewhere and from sockets; `readable`:
    what it may read, nothing for everything.
    """

    def __init__(self, arguments: list[str]) -> None:
        self.limits = tuple(int(value) for value in arguments[:4])
        self.closed = arguments[4] == "1"
        self.folder = arguments[5]
        last = 7 + int(arguments[6])
        self.readable = arguments[7:last]
        self.program = arguments[last:]


def become(asked: Asked, alone: bool) -> None:
    """Turn this process into the program. Does not return. `alone`: in namespaces of its own."""
    seconds, memory, processes, file_size = asked.limits
    folder, program = asked.folder, asked.program
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
        kept_within = landlock(folder, asked.readable, alone)
        filtered = "bare" not in MODE and filter_calls(alone)
        if asked.closed and not (kept_within and filtered):
            still = "from writing elsewhere" if filtered else "from the sockets of others"
            os.write(2, f"this system cannot keep it {still}\n".encode())
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


def start(asked: Asked, alone: bool) -> int:
    """Start the program in a process group of its own."""
    pid = os.fork()
    if pid == 0:
        os.setpgid(0, 0)
        become(asked, alone)
    return pid


def main() -> None:
    asked = Asked(sys.argv[2:])
    processes = asked.limits[2]
    deadline = time.monotonic() + asked.limits[0]
    prctl(PR_SET_CHILD_SUBREAPER, 1)
    flags = unshare()
    if flags & CLONE_NEWPID:
        prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
        inner = os.fork()
        if inner == 0:
            prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
            close_file_system(asked.folder)
            alone = os.readlink("/proc/self") == "1"
            report(watch(start(asked, alone), deadline, processes, alone))
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
    first = start(asked, False)
    status = watch(first, deadline, processes, False)
    end_all(first)
    report(status)


if __name__ == "__main__":
    main()
