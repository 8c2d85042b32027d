"""Measures the speed targets, each as a ratio to a floor measured in the same run.

    python bench/speed.py [--runs N] [--builds N] [--ten]

F is the wall time of `python -c "import argparse, sqlite3"`. Commands and floor are run in turn,
and the ratio is the median of the ratios of neighbours. Builds are compared with one process that
decompresses and decodes the same files. --ten adds look-ups in an index ten times as large, made of
the machine's pages with altered names. Run it with the program installed, byte-compiled as pip
installs it.
"""

from __future__ import annotations

import argparse
import os
import pty
import shutil
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from array import array

from dowsing.index import schema
from dowsing.index.index_file import index_path
from dowsing.index.store import Store
from dowsing.ingest.changes import changed_folders
from dowsing.machine.settings import read_settings
from dowsing.model.errors import Unreadable
from dowsing.readers.decoding import read_text
from dowsing.sources import manual_folders, page_files

PROGRAM = os.path.join(os.path.dirname(sys.executable), "dowsing")
SENTENCE = "keep a program running after I log out"
FLOOR = [sys.executable, "-c", "import argparse, sqlite3"]
READ_ALL = """
import bz2, gzip, lzma, sys
for path in sys.stdin.read().split("\\n"):
    with open(path, "rb") as file:
        data = file.read()
    unpackers = {"gz": gzip.decompress, "bz2": bz2.decompress, "xz": lzma.decompress}
    unpack = unpackers.get(path.rsplit(".", 1)[-1], bytes)
    data = unpack(data)
    try:
        data.decode()
    except UnicodeDecodeError:
        data.decode("latin-1")
"""


def seconds(command: list[str], terminal: bool = False, **more: object) -> float:
    """Wall time of a command whose output goes to a pipe, or to a terminal."""
    start = time.perf_counter()
    if not terminal:
        subprocess.run(command, capture_output=True, check=False, **more)
        return time.perf_counter() - start
    ours, theirs = pty.openpty()
    run = subprocess.Popen(
        command, stdin=theirs, stdout=theirs, stderr=theirs, close_fds=True, **more
    )
    os.close(theirs)
    while True:
        try:
            if not os.read(ours, 65536):
                break
        except OSError:
            break
    run.wait()
    os.close(ours)
    return time.perf_counter() - start


def ratio(
    command: list[str], runs: int, terminal: bool = False, **more: object
) -> tuple[float, float, float]:
    """Median ratio of a command to the floor run beside it, and both medians."""
    pairs = []
    seconds(command, terminal, **more)
    for _ in range(runs):
        floor = seconds(FLOOR)
        pairs.append((seconds(command, terminal, **more), floor))
    return (
        statistics.median(mine / floor for mine, floor in pairs),
        statistics.median(mine for mine, _ in pairs),
        statistics.median(floor for _, floor in pairs),
    )


class Memory(threading.Thread):
    """Watches the resident memory of a process and its children, in bytes, until told to stop."""

    def __init__(self, process: int) -> None:
        super().__init__(daemon=True)
        self.process, self.peak, self.done = process, 0, threading.Event()

    def run(self) -> None:
        while not self.done.wait(0.4):
            total = 0
            for entry in os.listdir("/proc"):
                if entry.isdecimal():
                    try:
                        with open(f"/proc/{entry}/stat") as file:
                            group = file.read().rsplit(") ", 1)[1].split()[2]
                        if int(group) == self.process:
                            with open(f"/proc/{entry}/statm") as file:
                                total += int(file.read().split()[1])
                    except (OSError, IndexError):
                        continue
            self.peak = max(self.peak, total * os.sysconf("SC_PAGE_SIZE"))


def timed_build(cache: str) -> tuple[float, int]:
    """Wall time of a first build, and the peak memory of all its processes."""
    shutil.rmtree(cache, ignore_errors=True)
    start = time.perf_counter()
    environment = {**os.environ, "DOWSING_CACHE": cache}
    run = subprocess.Popen(
        [PROGRAM, "index"],
        env=environment,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        start_new_session=True,
    )
    memory = Memory(run.pid)
    memory.start()
    run.communicate()
    memory.done.set()
    return time.perf_counter() - start, memory.peak


def page_paths(roots: list[str]) -> list[str]:
    """The page files that are no links."""
    found = {}
    for root in roots:
        for folder in manual_folders.section_folders(root):
            for page in page_files.page_files(folder):
                if not os.path.islink(page.path):
                    found[os.path.realpath(page.path)] = page.path
    return list(found.values())


def tenfold(source: str, target: str, paths: list[str]) -> None:
    """An index like `source` with ten entries for each of its, under altered names."""
    shutil.copy(source, target)
    db = sqlite3.connect(target)
    db.executescript(schema.FAST)
    numbers = dict(db.execute("SELECT path, id FROM entries"))
    size = max(numbers.values()) + 1
    for copy in range(1, 10):
        db.execute(
            "INSERT INTO entries SELECT id+?, name||?, section, aliases, kind, summary, package, "
            "family||?, path, place, hidden, verbs, nouns, referred FROM entries WHERE id<?",
            (copy * size, f"x{copy}", f"x{copy}", size),
        )
        db.execute(
            "INSERT INTO names SELECT key||?, name||?, section, entry+?, alias FROM names WHERE "
            "entry<?",
            (f"x{copy}", f"x{copy}", copy * size, size),
        )
        db.execute(
            "INSERT INTO pieces(rowid, key) SELECT rowid, key FROM names WHERE entry>=? AND "
            "entry<?",
            (copy * size, (copy + 1) * size),
        )
        db.execute(
            "INSERT INTO said SELECT entry+?, terms, tasks, task_terms FROM said WHERE entry<?",
            (copy * size, size),
        )
        db.execute(
            "INSERT INTO options SELECT entry+?, lines FROM options WHERE entry<?",
            (copy * size, size),
        )
    tenfold_terms(db, size)
    for path in paths:
        try:
            text = read_text(path)
        except Unreadable:
            continue
        number = numbers.get(path)
        if number is not None:
            db.executemany(
                "INSERT INTO bodies(rowid, text) VALUES(?,?)",
                ((number + c * size, text) for c in range(1, 10)),
            )
    db.commit()
    db.close()


def tenfold_terms(db: sqlite3.Connection, size: int) -> None:
    """Ten times the postings and static ranks; `size` is how far the numbers of one copy are from
    those of the next.
    """
    for row, numbers, fields in db.execute(
        "SELECT rowid, entries, fields FROM postings"
    ).fetchall():
        ours = array("I", numbers)
        every = array("I", (number + copy * size for copy in range(10) for number in ours))
        db.execute(
            "UPDATE postings SET spread=spread*10, entries=?, fields=? WHERE rowid=?",
            (every.tobytes(), fields * 10, row),
        )
    marks, families = bytearray(size), array("I", bytes(4 * size))
    for first, some, codes in db.execute(
        "SELECT first, marks, families FROM static_ranks"
    ).fetchall():
        marks[first : first + len(some)] = some
        families[first : first + len(some)] = array("I", codes)
    weight = db.execute("SELECT sum(weight) FROM static_ranks").fetchone()[0] * 10
    every = array("I", (code and code ^ copy for copy in range(10) for code in families))
    db.execute("DELETE FROM static_ranks")
    db.execute(
        "INSERT INTO static_ranks VALUES(0,?,?,?)", (bytes(marks * 10), every.tobytes(), weight)
    )
    db.execute("UPDATE words SET count=count*10")


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__.split("\n")[0])
    parser.add_argument("--runs", type=int, default=15)
    parser.add_argument("--builds", type=int, default=3)
    parser.add_argument("--ten", action="store_true")
    options = parser.parse_args()
    settings = read_settings()
    roots = manual_folders.roots(settings)
    paths = page_paths(roots)
    compressed = sum(os.path.getsize(path) for path in paths)
    work = tempfile.mkdtemp(prefix="dowsing-bench-")
    cache = os.path.join(work, "cache")
    rows: list[tuple[str, str, str, str, bool]] = []

    def add(what: str, value: float, target: float, detail: str, unit: str = "") -> None:
        rows.append((what, f"{value:.2f}{unit}", f"{target}{unit}", detail, value <= target))
        print(f"{what:<46} {value:8.2f}{unit:<4} target {target}{unit}  {detail}", flush=True)

    try:
        found = []
        for _ in range(options.builds):
            listed = "\n".join(paths).encode("utf-8", "surrogateescape")
            floor = seconds([sys.executable, "-c", READ_ALL], input=listed)
            wall, peak = timed_build(cache)
            found.append((wall / floor, wall, floor, peak))
        middle = sorted(found)[len(found) // 2]
        add(
            "first index / reading the same files",
            middle[0],
            7,
            f"{middle[1]:.1f} s / {middle[2]:.2f} s",
        )
        add(
            "first index, peak memory of all processes",
            max(f[3] for f in found) / 1e6,
            600,
            "",
            " MB",
        )
        index = index_path(cache)
        add(
            "index size / compressed pages",
            os.path.getsize(index) / compressed,
            3,
            f"{os.path.getsize(index) / 1e6:.1f} MB / {compressed / 1e6:.1f} MB",
        )
        store = Store(index)
        times = []
        for _ in range(200):
            start = time.perf_counter()
            changed_folders(store, settings, manual_folders.roots(settings))
            times.append(time.perf_counter() - start)
        floor = statistics.median(seconds(FLOOR) for _ in range(options.runs))
        add(
            "seeing that nothing changed / F",
            statistics.median(times) / floor,
            0.1,
            f"{statistics.median(times) * 1e3:.2f} ms / {floor * 1e3:.0f} ms",
        )

        environment = {**os.environ, "DOWSING_CACHE": cache, "DOWSING_DATA": work, "PAGER": "cat"}
        small = min(paths, key=lambda p: abs(len(read_text(p)) - 60_000))
        page = page_files.split_file_name(os.path.basename(small)) or ("ls", "1")
        label = f"{page[0]}({page[1]})"
        commands = [
            ("find delete file", ["find", "delete", "file"], 1.5, 2.5),
            ("find '*zip*'", ["find", "*zip*"], 1.5, 2.5),
            ("find compress", ["find", "compress"], 1.5, 2.5),
            ("find, a sentence of eight words", ["find", *SENTENCE.split()], 1.5, 2.5),
            (f"read {label}, {len(read_text(small)) // 1000} KB", ["read", label], 2.5, None),
            ("read bash, 353 KB", ["read", "bash"], 6, None),
            ("card tar", ["card", "tar"], 2.5, None),
            ("card git commit", ["git", "commit"], 2.5, None),
            ("unpick, one command", ["unpick", "tar -xzf a.tgz -C attic"], 2.5, None),
            (
                "unpick, four commands",
                ["unpick", "ps aux | grep -E '^a+' | sort -k2n | head -5 > x"],
                2.5,
                None,
            ),
            ("unpick, a mistake", ["unpick", "ls --colour=auto"], 2.5, None),
            ("next, options", ["next", "tar -"], 2.5, None),
            ("next, a command's name", ["next", "ta"], 2.5, None),
            (
                "task, a folder and an archive",
                ["task", *"pack the notes folder into notes.tgz".split()],
                3,
                None,
            ),
            (
                "task, two conditions",
                ["task", *"pack every picture older than a month under the attic folder".split()],
                3,
                None,
            ),
            ("examples tar", ["examples", "tar"], 3, None),
        ]
        for what, arguments, piped, terminal in commands:
            value, mine, floor = ratio([PROGRAM, *arguments], options.runs, env=environment)
            add(f"{what}, piped / F", value, piped, f"{mine * 1e3:.0f} ms / {floor * 1e3:.0f} ms")
            if terminal:
                value, mine, floor = ratio(
                    [PROGRAM, *arguments], options.runs, terminal=True, env=environment
                )
                add(
                    f"{what}, on a terminal / F",
                    value,
                    terminal,
                    f"{mine * 1e3:.0f} ms / {floor * 1e3:.0f} ms",
                )
        if options.ten:
            large = os.path.join(work, "large")
            os.makedirs(large)
            tenfold(index, index_path(large), paths)
            environment["DOWSING_CACHE"] = large
            for what, arguments, *_ in commands[:4]:
                for terminal, target in ((False, 2.5), (True, 3.5)):
                    value, mine, floor = ratio(
                        [PROGRAM, *arguments], options.runs, terminal, env=environment
                    )
                    where = "on a terminal" if terminal else "piped"
                    add(
                        f"{what}, ten times the pages, {where} / F",
                        value,
                        target,
                        f"{mine * 1e3:.0f} ms / {floor * 1e3:.0f} ms",
                    )
    finally:
        shutil.rmtree(work, ignore_errors=True)
    print("\n| what | measured | target | | figures |\n|---|---|---|---|---|")
    for what, value, target, detail, met in rows:
        print(f"| {what} | {value} | {target} | {'met' if met else 'missed'} | {detail} |")
    return 0


if __name__ == "__main__":
    sys.exit(main())
