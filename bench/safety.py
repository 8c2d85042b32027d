"""Tries to break the program, in numbers: hostile values, kills, damage, mutated documents, random
lines.

    python bench/safety.py [PART ...] [--seed N] [--share F]

PART is values, kills, users, keeping, guard, saves, damage, pages, packed, info, usage, kept, lines
or escapes.

Each part prints one line: how many tries, and how many of them went wrong in which way. `--share
0.1` makes a tenth of the tries. Pages and Info files are those of this machine and of the demo
library; everything is written below a temporary folder. A part that finds something wrong prints
the first few cases and makes the exit status 1.
"""

from __future__ import annotations

import argparse
import functools
import json
import os
import random
import re
import shlex
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

HERE = Path(__file__).parent
sys.path.insert(0, str(HERE.parent / "tests"))
sys.path.insert(0, str(HERE.parent / "tests" / "machine" / "sandbox"))

from conftest import Program  # noqa: E402
from hostile import CALLS, EXPORTS, PAYLOAD, UNSAFE, WITH_PAYLOAD, make_library, unsafe_in  # noqa: E402
from kills import DOWSING, SIGNALS, Library, killed, used_by_many  # noqa: E402
from test_layers import LAYERS, ORDINARY, Place  # noqa: E402

SLOW = 100  # what one try may take, in floors: the processor's time for a loop of a million steps
MOST_SHOWN = 5


class Count:
    """The tries of a part and what went wrong in them."""

    def __init__(self, name: str) -> None:
        self.name, self.tries, self.wrong = name, 0, list[str]()

    def told(self, note: str = "") -> bool:
        """Print the line; whether all went well."""
        print(
            f"{self.name:<8} {self.tries:>6} tries, {len(self.wrong)} "
            f"wrong{f'; {note}' if note else ''}",
            flush=True,
        )
        for one in self.wrong[:MOST_SHOWN]:
            print(f"         {one[:200]!r}")
        return not self.wrong


class Bench:
    """What the parts share: a source of chance, how many tries, and a folder that goes away."""

    def __init__(self, seed: int, share: float, folder: Path) -> None:
        self.chance = random.Random(seed)
        self.share = share
        self.folder = folder

    def tries(self, whole: int) -> range:
        return range(max(int(whole * self.share), 1))

    def program(self, name: str) -> Program:
        """The program in a folder of its own with an empty manual."""
        folder = self.folder / name
        (folder / "man").mkdir(parents=True)
        return Program(folder)

    def text(self, most: int) -> str:
        """Odd text: what shells, terminals and parsers take for themselves among letters."""
        odd = [
            "'",
            '"',
            "\\",
            "$(touch x)",
            "`id`",
            ";",
            "\n",
            "\t",
            "*",
            "~",
            "-",
            "--",
            "é",
            "\x1b",
            "\u202e",
            "#",
            "!",
            "&",
            "|",
            "{a,b}",
            "<x>",
            " ",
        ]
        return "".join(
            self.chance.choice([*odd, "a", "b7"]) for _ in range(self.chance.randrange(1, most))
        )

    # --- values and lines
    # --------------------------------------------------------------------------------

    def values(self) -> bool:
        """Values into slots of every kind, names of files into fields: each is one argument, and
        nothing of it is run.
        """
        from dowsing.knowledge.recipes import KINDS, make_recipe
        from dowsing.model.quoting import file_word, value_word
        from dowsing.tasks.filling import fill
        from dowsing.tasks.values import Value

        count = Count("values")
        kinds = sorted(KINDS - {"command", "conditions"})
        said = (
            "file path name glob text extension host url remote number size date time separator"
        ).split()
        words: list[tuple[str, str]] = []
        for _ in self.tries(10_000):
            value = self.text(8)
            kind = self.chance.choice(kinds)
            recipe = make_recipe(
                {"task": "t", "line": "printf <slot>", "slots": {"slot": {"kind": kind}}}, "", ""
            )
            filled = fill(recipe, [Value(value, self.chance.choice(said), 0, 1)]).values["slot"]
            if filled is not None:
                words.append((value, filled))
            words.append((value, file_word(value)))
            words.append((value, value_word(f"'{value.replace(chr(39), '')}'")))
        place = self.folder / "values"
        place.mkdir()
        for start in range(0, len(words), 200):
            part = words[start : start + 200]
            script = "set -f\n" + "\n".join(
                f"printf '%s\\0' {word}; printf '\\1'" for _, word in part
            )
            done = subprocess.run(
                ["bash", "-c", script], cwd=place, capture_output=True, check=False
            )
            groups = done.stdout.split(b"\x01")
            for (value, word), group in zip(part, groups, strict=False):
                count.tries += 1
                if group.count(b"\0") != 1:
                    count.wrong.append(f"{value} -> {word}")
            if len(groups) != len(part) + 1:
                count.wrong.append(f"a script ended early: {done.stderr[:100]!r}")
        count.wrong += [f"made: {name}" for name in os.listdir(place)]
        return count.told("each one argument in a real bash, nothing run")

    def lines(self) -> bool:
        """Random lines through unpick and next: no exception, pieces within the line, within two
        seconds.
        """
        from dowsing.commandline.expecting import what_next
        from dowsing.commandline.line import unpick
        from dowsing.commandline.reading.command_finder import CommandFinder

        program = self.program("lines")
        shutil.rmtree(program.man)
        store, settings = _store_of(program)
        finder = CommandFinder(store, settings)
        names = [
            "vent",
            "glasshouse water",
            "sow",
            "mulch",
            "sudo",
            "xargs",
            "find . -exec",
            "sh -c",
            "nosuch",
        ]
        joints = [
            " ",
            "; ",
            " | ",
            " && ",
            " $(",
            ") ",
            " `",
            '"',
            "'",
            " > ",
            " <<A\n",
            "{ ",
            "}",
            "\n",
            " \\\n",
            " & ",
        ]
        count = Count("lines")
        for _ in self.tries(2000):
            parts = [
                self.chance.choice([*names, self.text(5)]) + self.chance.choice(joints)
                for _ in range(self.chance.randrange(1, 30))
            ]
            line = "".join(parts)
            _tried(count, line, lambda line=line: [unpick(line, finder), what_next(line, finder)])  # type: ignore[misc]
        store.close()
        return count.told()

    # --- documents
    # ---------------------------------------------------------------------------------------

    def pages(self) -> bool:
        """Mutated manual pages: no exception, not over two seconds, no control character in what
        was read.
        """
        from dowsing.facts.command_table import make_table
        from dowsing.model.document import document_text
        from dowsing.model.errors import Unreadable
        from dowsing.readers.decoding import decode, read_bytes
        from dowsing.sources import page_files

        sources = _files(
            (HERE.parent / "src/dowsing/demo/library/man", "**/*.[1-9]*"),
            ("/usr/share/man", "man[1-9]/*"),
        )
        count = Count("pages")
        for _ in self.tries(3000):
            data = self.mutated(read_bytes(self.chance.choice(sources)))

            def read(data: bytes = data) -> None:
                try:
                    page = page_files.document(decode(data), "/page", "page", "1")
                except Unreadable:
                    return
                texts = [document_text(page.sections), page.summary, *page.names]
                texts += [str(vars(one)) for one in (*page.options, *page.examples, *page.see_also)]
                make_table(page)
                _no_controls("".join(texts))

            _tried(count, repr(data[:80]), read)
        return count.told()

    def packed(self) -> bool:
        """Mutated packed pages: bytes, or one line that says why not; never too many."""
        import bz2
        import gzip
        import lzma

        import zstandard

        from dowsing.model.errors import Unreadable
        from dowsing.readers.decoding import MOST_BYTES, decode, read_bytes

        text = (
            b".TH RILL 1\n.SH NAME\nrill \\- water a bed\n.SH DESCRIPTION\n" + b"Waters it. " * 999
        )
        packers = [gzip.compress, bz2.compress, lzma.compress, zstandard.compress, _as_codes]
        wholes = [pack(text) for pack in packers]
        place = self.folder / "rill.1"
        count = Count("packed")
        for _ in self.tries(3000):
            data = self.chance.choice(wholes)
            place.write_bytes(data[:3] + self.mutated(data[3:]))

            def read() -> None:
                try:
                    unpacked = read_bytes(str(place))
                    assert len(unpacked) <= MOST_BYTES
                    decode(unpacked)
                except Unreadable as error:
                    assert str(error) and "\n" not in str(error)

            _tried(count, repr(place.read_bytes()[:60]), read)
        return count.told()

    def kept(self) -> bool:
        """Mutated files of the user's own: what can be read is, nothing that was there is lost when
        a line, a note or a label is added.
        """
        from dowsing.knowledge.recipes import Recipe
        from dowsing.model.errors import CannotKeep
        from dowsing.userdata import reading_progress, remarks, saved_lines
        from dowsing.userdata.kept_lines import KeptLines

        day = "2026-01-31"
        folder = self.folder / "own"
        folder.mkdir()
        line = Recipe("water the first bed", [], "rill --bed 1", [], "rill")
        for n in range(12):
            saved_lines.save(str(folder), line.changed(line=f"rill --bed {n}"), day)
            remarks.add_note(str(folder), remarks.Remark("rill(1)", f"leaks at {n}", day))
            reading_progress.mark_read(str(folder), f"rill{n}(1)", day)
        wholes = {path.name: path.read_bytes() for path in folder.iterdir() if path.is_file()}
        count = Count("kept")
        for n in self.tries(2000):
            for name, data in wholes.items():
                (folder / name).write_bytes(self.mutated(data))

            def use(n: int = n) -> None:
                new = line.changed(line=f"rill --new {n}")
                try:
                    saved_lines.save(str(folder), new, day)
                    remarks.add_note(str(folder), remarks.Remark("rill(1)", f"new {n}", day))
                    reading_progress.mark_read(str(folder), f"new{n}(1)", day)
                except CannotKeep as error:
                    assert str(error)
                    return
                lines = KeptLines(str(folder), str(folder)).all()
                assert new.line in [one.line for one in lines], "the new line is not there"
                notes = [one.text for one in remarks.read_notes(str(folder))[0]]
                assert f"new {n}" in notes, "the new note is not there"
                assert f"new{n}(1)" in reading_progress.read_labels(str(folder))

            _tried(count, f"seed {n}", use)
        return count.told()

    def info(self) -> bool:
        """Mutated Info files, read as a whole."""
        from dowsing.model.errors import Unreadable
        from dowsing.readers.decoding import read_bytes
        from dowsing.readers.info.info_file import read_info_file
        from dowsing.readers.info.node_document import node_document
        from dowsing.readers.info.node_names import names_of

        sources = _files(
            (HERE.parent / "src/dowsing/demo/library/info", "*.info*"),
            ("/usr/share/info", "*.info*"),
        )
        count = Count("info")
        place = self.folder / "mutated.info"
        for _ in self.tries(400):
            data = self.mutated(read_bytes(self.chance.choice(sources))[:300_000])
            place.write_bytes(data)

            def read() -> None:
                from dowsing.model.document import document_text

                try:
                    info = read_info_file(str(place))
                    nodes = list(info.nodes)[:40]
                    texts = [
                        document_text(node_document(info, node, "x").sections) for node in nodes
                    ]
                except Unreadable:
                    return
                texts += [f"{name} {node}" for name, node, _ in names_of(info, "x")] + info.problems
                _no_controls("".join([*texts, *nodes]))

            _tried(count, repr(data[:80]), read)
        return count.told()

    def usage(self) -> bool:
        """Mutated usage texts: those of the demo library's programs and of pages' options written
        like one.
        """
        from dowsing.model.document import document_text
        from dowsing.readers.usage.usage_text import read_usage
        from dowsing.readers.usage.verdict import judge

        seeds = [
            "usage: vent [-a] [--open=N] HOUSE...\n\nOptions:\n  -a, --all   all of them\n      "
            "--open=N\tso far\n",
            "Usage:\n  glasshouse [command]\n\nAvailable Commands:\n  water   water the beds\n  "
            "open    open it\n",
            "sow 1.2\nSow seeds.\n\nsow [OPTION]... BED\n\n-n NUM  so many\n-h --help   "
            "this\n\nExamples:\n  sow -n 3 north\n",
        ]
        count = Count("usage")
        for _ in self.tries(1500):
            data = self.mutated(
                "".join(self.chance.choices(seeds, k=self.chance.randrange(1, 20))).encode()
            )
            text = data.decode("utf-8", "replace")

            def read(text: str = text) -> None:
                judge(text, "--help", "vent", 0)
                page = read_usage(text, "vent", "usage", source="usage")
                _no_controls(
                    document_text(page.sections)
                    + page.summary
                    + "".join(page.synopsis)
                    + str(page.options)
                )

            _tried(count, text[:80], read)
        return count.told()

    def mutated(self, data: bytes) -> bytes:
        """The data with a few changes: bytes flipped, parts cut, doubled, moved, odd text put
        in.
        """
        changed = bytearray(data)
        for _ in range(self.chance.randrange(1, 12)):
            at = self.chance.randrange(len(changed) + 1)
            to = min(at + self.chance.randrange(1, 200), len(changed))
            way = self.chance.randrange(5)
            if way == 0:
                del changed[at:to]
            elif way == 1:
                changed[at:at] = changed[at:to] * self.chance.choice([1, 2, 50])
            elif way == 2:
                changed[at:to] = bytes(self.chance.randrange(256) for _ in range(to - at))
            elif way == 3:
                changed[at:at] = self.chance.choice(
                    [
                        PAYLOAD.encode(),
                        b"\\",
                        b"\n.",
                        b"[" * 300,
                        b'"',
                        b"\x1f\n",
                        b"\\*[",
                        b"\t" * 50,
                    ]
                )
            else:
                changed[at:at] = changed[: self.chance.randrange(1, 400)]
        return bytes(changed)

    # --- kills, damage, at once
    # --------------------------------------------------------------------------

    def kills(self) -> bool:
        """The program ended at any moment while it makes or takes up an index: the next look-up is
        right, and nothing is left behind (bench/kills.py).
        """
        count = Count("kills")
        library = Library(self.folder / "kills", self.chance)
        count.tries = killed(library, len(self.tries(200)))
        count.wrong = library.wrong
        return count.told("each followed by two look-ups")

    def users(self) -> bool:
        """Eight users at once, and a kill a second."""
        count = Count("users")
        library = Library(self.folder / "users", self.chance)
        library.add_pages(1)
        library.program.run("index")
        count.tries = used_by_many(library, 60 * self.share)
        count.wrong = library.wrong
        return count.told("calls of eight users at once")

    def keeping(self) -> bool:
        """Lines that are kept by a process that is killed: none that was kept is lost or cut."""
        program = self.program("keeping")
        program.page("rill7.1", ".TH R 1\n.SH NAME\nrill7 \\- waters bed 7\n.SH D\nword\n")
        program.run("index")
        count = Count("keeping")
        kept: list[str] = []
        for n in self.tries(90):
            process = subprocess.Popen(
                [DOWSING, "save", f"rill{n} -x"],
                env=program.environment(),
                stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
            )
            time.sleep(self.chance.random() * 0.25)
            process.send_signal(self.chance.choice(SIGNALS))
            process.wait()
            count.tries += 1
            done = program.run("saved", "--format", "json")
            now = re.findall(r'"line": "(rill\d+ -x)"', done.stdout)
            lost = [line for line in kept if line not in now]
            if lost or "is not TOML" in done.stderr:
                count.wrong.append(f"lost {lost}: {done.stderr}")
            kept = now
        return count.told(f"{len(kept)} were kept before the kill")

    def guard(self) -> bool:
        """What a program that is asked must not do, with each layer taken away, as each user that
        this one can be.
        """
        count = Count("guard")
        for user in dict.fromkeys((os.getuid(), *([ORDINARY] if not os.getuid() else []))):
            place = Place(self.folder / f"guard{user}", user)
            place.folder.mkdir(mode=0o755)
            self.folder.chmod(0o755)
            place.make()
            try:
                for layers in LAYERS:
                    ended, _, out, err = place.run(layers)
                    found = json.loads(out)["tries"] if ended == "exit" and out else {}
                    count.tries += len(found)
                    who = f"{layers or 'all layers'} as {user}"
                    count.wrong += [f"{who}: {what}" for what, was in found.items() if was == "did"]
                    if not found:
                        count.wrong.append(f"{who}: {ended} {err}")
            finally:
                place.remove()
        return count.told("tries with each layer taken away; wrong is what succeeds")

    def saves(self) -> bool:
        """Lines kept at once: all are there, each once."""
        program = self.program("saves")
        program.page("rill.1", ".TH R 1\n.SH NAME\nrill \\- waters beds\n.SH D\nx\n")
        program.run("index")
        count = Count("saves")
        lines = [f"rill --bed {n}" for n in self.tries(140)]
        with ThreadPoolExecutor(16) as pool:
            done = list(pool.map(lambda line: program.run("save", line).returncode, lines))
        text = (program.folder / "data" / "saved.toml").read_text()
        for line, status in zip(lines, done, strict=True):
            count.tries += 1
            if status or text.count(f'line = "{line}"\n') != 1:
                count.wrong.append(f"{line}: status {status}, {text.count(line)} times")
        return count.told("at once, 16 at a time")

    def damage(self) -> bool:
        """Indexes with flipped bytes and cut ends: an answer or a new index, never a trace of
        code.
        """
        program = self.program("damage")
        for n in range(20):
            program.page(
                f"rill{n}.1",
                f".TH R 1\n.SH NAME\nrill{n} \\- waters bed {n}\n.SH OPTIONS\n.TP\n\\-a\nall\n",
            )
        program.run("index")
        (index,) = program.cache.glob("index*.sqlite")
        whole = index.read_bytes()
        count = Count("damage")
        calls = [
            ["rill3"],
            ["find", "waters"],
            ["unpick", "rill3 -a"],
            ["options", "rill3"],
            ["near", "rill3"],
        ]
        for _ in self.tries(300):
            damaged = bytearray(whole)
            for _ in range(self.chance.choice([1, 10, 100, 1000])):
                damaged[self.chance.randrange(len(damaged))] = self.chance.randrange(256)
            if self.chance.random() < 0.2:
                del damaged[self.chance.randrange(len(damaged)) :]
            index.write_bytes(damaged)
            done = program.run(*self.chance.choice(calls))
            count.tries += 1
            if "Traceback" in done.stderr or done.returncode not in (0, 1):
                count.wrong.append(f"{done.returncode}: {done.stderr[-300:]}")
        return count.told()

    def escapes(self) -> bool:
        """The hostile library of the tests through every output."""
        program = self.program("escapes")
        make_library(program)
        program.run("index")
        count = Count("escapes")
        calls: list[list[str]] = [
            call.split() + more
            for call in CALLS
            for more in ([], ["--color", "always"], ["--format", "json"])
        ]
        calls += [list(call) for call in WITH_PAYLOAD]
        calls += [
            [*call.split(), "--format", form] for call in EXPORTS for form in ("html", "markdown")
        ]
        for call in calls:
            done = program.run(*call)
            count.tries += 1
            if (
                unsafe_in(done.stdout, "always" in call)
                or unsafe_in(done.stderr)
                or "Traceback" in done.stderr
            ):
                count.wrong.append(shlex.join(call))
        return count.told("calls on a library whose every text tries to act")


def _store_of(program: Program):  # type: ignore[no-untyped-def]
    """The index of the demo library, and the settings."""
    from dowsing.index.index_file import index_path
    from dowsing.index.store import Store
    from dowsing.ingest.build import build
    from dowsing.machine.settings import read_settings
    from dowsing.sources import manual_folders

    settings = read_settings(program.environment(), demo=True)
    path = index_path(str(program.folder))
    build(path, settings, manual_folders.roots(settings))
    return Store(path), settings


def _as_codes(data: bytes) -> bytes:
    """Packed as the old `compress` does, each byte by a code of its own: in a program that packs,
    codes for longer texts would follow. The table is cleared before codes grow.
    """
    codes: list[int] = []
    for at in range(0, len(data), 200):
        codes += [*data[at : at + 200], 256]
        codes += [0] * (-len(codes) % 8)  # to the end of a block
    bits = sum(code << 9 * n for n, code in enumerate(codes))
    return b"\x1f\x9d\x90" + bits.to_bytes((9 * len(codes) + 7) // 8, "little")


def _files(*places: tuple[str | Path, str]) -> list[str]:
    return [
        str(path)
        for folder, pattern in places
        for path in sorted(Path(folder).glob(pattern))
        if path.is_file()
    ]


def _no_controls(text: str) -> None:
    found = UNSAFE.findall(text)
    if found:
        raise AssertionError(f"control characters: {sorted(set(found))!r}")


@functools.cache
def _floor() -> float:
    """Seconds of the processor that a fixed loop takes in this run."""
    began = time.process_time()
    for _ in range(1_000_000):
        pass
    return time.process_time() - began


def _tried(count: Count, what: str, attempt: Callable[[], object]) -> None:
    """Count one try. Waiting for a disk is not held against it, the processor's time is."""
    floor = _floor()
    began = time.process_time()
    count.tries += 1
    try:
        attempt()
    except Exception as error:
        count.wrong.append(f"{type(error).__name__}: {error} in {what}")
    taken = (time.process_time() - began) / floor
    if taken > SLOW:
        count.wrong.append(f"{taken:.0f} floors: {what}")


PARTS = [
    "values", "kills", "users", "keeping", "guard", "saves", "damage", "pages", "packed", "info",
    "usage", "kept", "lines", "escapes",
]  # fmt: skip


def main() -> int:
    """Run the parts."""
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    parser.add_argument("parts", nargs="*", metavar="PART")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--share", type=float, default=1.0)
    asked = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        bench = Bench(asked.seed, asked.share, Path(folder))
        well = [getattr(bench, part)() for part in asked.parts or PARTS]
    return 0 if all(well) else 1


if __name__ == "__main__":
    raise SystemExit(main())
