"""Measures the first minute on a machine, each figure against a floor measured in the same run.

    python bench/first_minute.py [--folder PAGES]

The floor of builds is one process that decompresses and decodes the same files. The pages are those
of this machine; what is built goes into a temporary folder. `first answer`: a look-up without an
index; `whole index`: until the process in the background is done; `eight at once`: eight look-ups
without an index, against one; `one more folder`: so many copies of pages in another manual folder,
against reading them whole in this process: the look-up that finds them, those while they are taken
up, and until they are. What becomes of processes that are killed is measured by bench/kills.py.
"""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from speed import PROGRAM, READ_ALL, page_paths, seconds

from dowsing.index.index_file import index_path
from dowsing.index.store import Store
from dowsing.ingest.changes import changed_folders
from dowsing.ingest.locks import is_at_work
from dowsing.ingest.page_reading import read_for_index
from dowsing.machine.settings import read_settings
from dowsing.sources import manual_folders, page_files

QUESTION = ["find", "list", "archive"]


class Bench:
    """A temporary folder, and the environment of runs in it."""

    def __init__(self, work: Path) -> None:
        self.work = work
        self.number = 0

    def environment(self, **more: str) -> dict[str, str]:
        """Of runs that begin without an index."""
        self.number += 1
        cache = self.work / f"cache{self.number}"
        own = {"DOWSING_CACHE": str(cache), "DOWSING_DATA": str(self.work), "PAGER": "cat"}
        return {**os.environ, **own, **more}


def told(what: str, value: float, target: float | None, detail: str) -> None:
    """One line."""
    wanted = f"target {target:g}" if target is not None else ""
    print(f"{what:<34} {value:8.2f}  {wanted:<12} {detail}", flush=True)


def wait_until_whole(cache: str) -> None:
    """Wait for the process in the background."""
    while True:
        store = Store(index_path(cache))
        whole = store.is_whole
        store.close()
        if whole:
            return
        time.sleep(0.1)


def first_and_whole(bench: Bench, floor: float) -> str:
    """The first answer, and the whole index after it; the cache folder."""
    environment = bench.environment()
    began = time.perf_counter()
    first = seconds([PROGRAM, *QUESTION], env=environment)
    told("first answer / reading the files", first / floor, 3, f"{first:.2f} s / {floor:.2f} s")
    wait_until_whole(environment["DOWSING_CACHE"])
    whole = time.perf_counter() - began
    told("whole index, in the background", whole / floor, 7, f"{whole:.1f} s / {floor:.2f} s")
    environment = bench.environment()
    at_once = seconds([PROGRAM, "index"], env=environment)
    told("whole index, waited for", at_once / floor, 7, f"{at_once:.1f} s / {floor:.2f} s")
    return environment["DOWSING_CACHE"]


def eight_at_once(bench: Bench) -> None:
    """Eight first look-ups against one."""
    one = seconds([PROGRAM, *QUESTION], env=bench.environment())
    environment = bench.environment()
    began = time.perf_counter()
    runs = [
        subprocess.Popen([PROGRAM, *QUESTION], env=environment, stdout=-3, stderr=-3)
        for _ in range(8)
    ]
    good = sum(run.wait() == 0 for run in runs)
    eight = time.perf_counter() - began
    told("eight at once / one", eight / one, 1.5, f"{eight:.1f} s / {one:.1f} s; {good} answered")
    for number in (bench.number - 1, bench.number):
        wait_until_whole(str(bench.work / f"cache{number}"))


def one_more_folder(bench: Bench, cache: str, paths: list[str], pages: int) -> None:
    """Another manual folder in use, against reading its pages."""
    other = bench.work / "other" / "man" / "man1"
    other.mkdir(parents=True)
    chosen = [one for one in paths if "/man1/" in one][:: max(len(paths) // pages, 1)][:pages]
    for n, path in enumerate(chosen):
        shutil.copy(path, other / f"other{n}-{os.path.basename(path)}")
    read = time.perf_counter()
    for path in other.iterdir():
        found = page_files.page_at(str(path))
        if found is not None:
            read_for_index((0, found.path, found.name, found.section, False))
    read = time.perf_counter() - read
    environment = {**os.environ, "DOWSING_CACHE": cache, "MANPATH": f"{other.parent}:"}
    before = sorted(
        seconds([PROGRAM, *QUESTION], env=os.environ | {"DOWSING_CACHE": cache}) for _ in range(5)
    )[2]
    began = time.perf_counter()
    finding = seconds([PROGRAM, *QUESTION], env=environment)
    meanwhile = []
    index = index_path(cache)
    while is_at_work(index) or not meanwhile:
        meanwhile.append(seconds([PROGRAM, *QUESTION], env=environment))
    whole = time.perf_counter() - began
    told(
        f"{len(chosen)} new pages, the look-up that finds them",
        finding / before,
        1.3,
        f"{finding:.3f} s / {before:.3f} s",
    )
    middle = sorted(meanwhile)[len(meanwhile) // 2]
    told("look-ups meanwhile", middle / before, 1.3, f"{len(meanwhile)} of {middle:.3f} s")
    told("until they are taken up / reading", whole / read, 3, f"{whole:.2f} s / {read:.2f} s")


def nothing_changed(cache: str) -> None:
    """What a look-up spends to see that nothing changed."""
    settings = read_settings()
    roots = manual_folders.roots(settings)
    store = Store(index_path(cache))
    began = time.perf_counter()
    for _ in range(200):
        changed_folders(store, settings, roots)
    each = (time.perf_counter() - began) / 200
    floor = seconds([sys.executable, "-c", "import argparse, sqlite3"])
    store.close()
    told("nothing changed / F", each / floor, 0.1, f"{each * 1e3:.2f} ms / {floor * 1e3:.0f} ms")


def main() -> int:
    """Run the parts."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("--folder", type=int, default=100)
    asked = parser.parse_args()
    paths = page_paths(manual_folders.roots(read_settings()))
    listed = "\n".join(paths).encode("utf-8", "surrogateescape")
    floor = sorted(seconds([sys.executable, "-c", READ_ALL], input=listed) for _ in range(3))[1]
    with tempfile.TemporaryDirectory(prefix="dowsing-bench-") as folder:
        bench = Bench(Path(folder))
        cache = first_and_whole(bench, floor)
        nothing_changed(cache)
        one_more_folder(bench, cache, paths, asked.folder)
        eight_at_once(bench)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
