"""Reads pages in several processes.

Each worker takes the next portion from a shared counter and sends what it read down a pipe of its
own. The parent reads the pipes without threads: with two cores, threads that hand results on would
take from the workers what they are there to save.
"""

from __future__ import annotations

import contextlib
import gc
import multiprocessing
import os
import signal
from multiprocessing.connection import Connection, wait

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Generator
    from multiprocessing.sharedctypes import Synchronized

    from dowsing.ingest.page_reading import Read, Reading, Task

MOST_MEMORY = 3 << 30  # bytes of address space of a worker; reading takes 0.2 GB
PIPE_BYTES = 1 << 20  # room for a portion's readings, so that a worker need not wait for the parent


class Workers:
    """Processes that read `portions` with `read`; as many as this process may use cores."""

    def __init__(self, portions: list[list[Task]], read: Read) -> None:
        methods = multiprocessing.get_all_start_methods()
        context = multiprocessing.get_context(
            "fork" if "fork" in methods and os.name == "posix" else None
        )
        cores = (
            len(os.sched_getaffinity(0))
            if hasattr(os, "sched_getaffinity")
            else os.cpu_count() or 1
        )
        taken = context.Value("i", 0)
        self.pipes: list[Connection] = []
        self.processes = []
        for _ in range(min(max(cores, 1), len(portions))):
            ours, theirs = context.Pipe(duplex=False)
            _enlarge(theirs)
            process = context.Process(
                target=_work,
                args=(portions, read, taken, theirs, [*self.pipes, ours]),
                daemon=True,
            )
            process.start()
            theirs.close()
            self.pipes.append(ours)
            self.processes.append(process)

    def results(self) -> Generator[list[Reading], None, None]:
        """The readings of one portion after another. Leaving early ends the workers."""
        open_pipes = list(self.pipes)
        try:
            while open_pipes:
                for pipe in wait(open_pipes):
                    assert isinstance(pipe, Connection)
                    try:
                        yield pipe.recv()
                    except EOFError:  # this worker is done, or is no more
                        open_pipes.remove(pipe)
        finally:
            for process in self.processes:
                process.terminate()
            for process in self.processes:
                process.join()
            for pipe in self.pipes:
                pipe.close()


def _enlarge(pipe: Connection) -> None:
    try:
        import fcntl

        fcntl.fcntl(pipe.fileno(), fcntl.F_SETPIPE_SZ, PIPE_BYTES)
    except (ImportError, AttributeError, OSError):
        pass  # only a matter of speed


def _limit_memory() -> None:
    """Have a page that takes too much memory fail as a page, not bring the machine down."""
    try:
        import resource

        _, hard = resource.getrlimit(resource.RLIMIT_AS)
        most = MOST_MEMORY if hard == resource.RLIM_INFINITY else min(MOST_MEMORY, hard)
        resource.setrlimit(resource.RLIMIT_AS, (most, hard))
    except (ImportError, AttributeError, OSError, ValueError):
        pass  # systems without such limits: the bounds on what is read must do


def _work(
    portions: list[list[Task]],
    read: Read,
    taken: Synchronized[int],
    pipe: Connection,
    parents: list[Connection],
) -> None:
    """A worker: it leaves Ctrl-C to the parent, and collects no garbage, for documents hold no
    cycles.
    """
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    gc.disable()
    _limit_memory()
    for other in parents:  # inherited; kept open they would hide the parent's end
        with contextlib.suppress(OSError):
            other.close()
    while True:
        with taken.get_lock():
            number = taken.value
            taken.value += 1
        if number >= len(portions):
            break
        try:
            pipe.send(read(portions[number]))
        except (BrokenPipeError, OSError):
            break  # the parent is gone
    pipe.close()
