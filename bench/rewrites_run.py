"""Whether lines that `unpick --long` and `--short` write do the same: each is run in a copy of a
folder, as it stands and rewritten, and what is printed and left there is compared.

    python bench/rewrites_run.py [FILE] [--folder FOLDER] [--misses]

FILE has a line a row (`queries/rewrites-run.txt` beside this file). FOLDER is what they work on; a
few made-up files by default. Lines are run: give it none that leave the folder.
"""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.rewriting.rewrite import long_form, short_form
from dowsing.ingest.upkeep import open_index
from dowsing.machine.settings import read_settings

LINES = Path(__file__).parent / "queries" / "rewrites-run.txt"
WAIT = 20  # seconds


def make_folder(folder: Path) -> None:
    """A few files to work on."""
    (folder / "docs" / "old").mkdir(parents=True)
    (folder / "src").mkdir()
    (folder / "notes.txt").write_text("bed one\nfern two\nfern two\nheather ten\nmoss a b\n")
    (folder / "data.csv").write_text("fern,12,a\nmoss,3,b\nheather,7,e\n")
    (folder / "docs" / "plan.txt").write_text("plan e\n")
    (folder / "src" / "plan.txt").write_text("plan f\n")
    subprocess.run(["tar", "-czf", "site.tgz", "docs"], cwd=folder, check=True)


def outcome(line: str, folder: Path) -> tuple[int, bytes, bytes, dict[str, bytes | int]]:
    """What a line ends with, prints and leaves: the contents of files, the modes of folders."""
    with tempfile.TemporaryDirectory() as parent:
        place = Path(parent) / "place"
        shutil.copytree(folder, place, symlinks=True)
        environment = {**os.environ, "HOME": parent, "LC_ALL": "C.UTF-8", "TZ": "UTC"}
        done = subprocess.run(
            ["bash", "-c", line],
            cwd=place,
            capture_output=True,
            timeout=WAIT,
            check=False,
            env=environment,
            stdin=subprocess.DEVNULL,
        )
        left: dict[str, bytes | int] = {}
        for one in sorted(place.rglob("*")):
            name = str(one.relative_to(place))
            if ".git/" in name or one.suffix in (".tgz", ".gz"):
                left[name] = b""  # has a time within
            else:
                left[name] = one.read_bytes() if one.is_file() else one.lstat().st_mode
        return done.returncode, done.stdout, done.stderr, left


def main() -> int:
    """Print how many are the same."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("file", nargs="?", type=Path, default=LINES)
    parser.add_argument("--folder", type=Path)
    parser.add_argument("--misses", action="store_true")
    options = parser.parse_args()
    settings = read_settings()
    finder = CommandFinder(open_index(settings)[0], settings)
    with tempfile.TemporaryDirectory() as made:
        folder = options.folder or Path(made) / "made"
        if options.folder is None:
            folder.mkdir()
            make_folder(folder)
        wrong = changed = 0
        for line in filter(None, options.file.read_text().splitlines()):
            found = unpick(line, finder)
            before = None
            for name, written in (("long", long_form(found)), ("short", short_form(found))):
                if written == line:
                    continue
                changed += 1
                before = before or outcome(line, folder)
                if outcome(written, folder) != before:
                    wrong += 1
                    if options.misses:
                        print(f"{name}: {line}\n   -> {written}")
    print(f"rewritten {changed}, not the same {wrong}")
    return int(wrong > 0)


if __name__ == "__main__":
    sys.exit(main())
