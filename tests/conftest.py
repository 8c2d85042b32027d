"""What the tests share."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

import hypothesis
import pytest
from corpus.pages import write_library

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.index.index_file import index_path
from dowsing.index.store import Store
from dowsing.ingest.build import build as build_index
from dowsing.ingest.prepared import prepared_file
from dowsing.machine.settings import Settings

# how long a try takes is no matter of a test
hypothesis.settings.register_profile("patient", deadline=None)
hypothesis.settings.load_profile("patient")

NO_INFO = Path("/no/such/folder/of/info")  # the same for all tests, for indexes are named by it
LIBRARY = Path(__file__).parent.parent / "src" / "dowsing" / "demo" / "library" / "man"


def pytest_configure() -> None:
    """The files of commands as they are, for tests that read what is made of them."""
    prepared_file()


def shown(source: str, width: int = 60) -> str:
    """A page's source, read and laid out as bare text."""
    from dowsing.model.markup import plain
    from dowsing.readers.roff.page import read_page
    from dowsing.render.layout import section_lines

    return "\n".join(
        plain(line).rstrip() for line in section_lines(read_page(source).sections, width)
    )


def body(source: str, head: str = ".TH T 1\n.SH D\n", width: int = 60) -> str:
    """The text of a page's last section, which is D, without its margin; `head` stands before
    `source`.
    """
    before, heading, text = f"\n{shown(head + source, width)}".partition("\nD\n")
    assert heading, before
    return "\n".join(line.removeprefix("   ") for line in text.split("\n"))


class Program:
    """The installed program, run in a folder of its own with its own settings, cache and manual.

    `seeds`: a cache with indexes of the demo library, made once; a run on that library begins with
    a copy, if the test has no cache yet. `background`: what a look-up finds changed may be taken up
    by a process in the background; else the look-up waits for it.
    """

    background = False

    def __init__(self, folder: Path, seeds: Path | None = None) -> None:
        self.folder = folder
        self.seeds = seeds
        self.man = folder / "man"
        self.bin = folder / "bin"
        self.info = folder / "info"
        self.cache = folder / "cache"

    def seed(self, demo: bool) -> None:
        """Begin with an index of the demo library, if that is what the run is on."""
        if self.seeds and not self.cache.exists() and (demo or self.man == LIBRARY):
            shutil.copytree(self.seeds, self.cache)

    def page(self, name: str, text: str | bytes, folder: str | None = None) -> Path:
        """Write a manual page, `tie.1`, into the test's manual folder."""
        place = self.man / (folder or "man" + name.rsplit(".", 1)[1][:1])
        place.mkdir(parents=True, exist_ok=True)
        path = place / name
        path.write_bytes(text.encode() if isinstance(text, str) else text)
        return path

    def command(self, name: str, text: str, mode: int = 0o755) -> Path:
        """Write a program into the test's only folder of PATH."""
        self.bin.mkdir(exist_ok=True)
        path = self.bin / name
        path.write_text(text)
        path.chmod(mode)
        return path

    def environment(self, **more: str) -> dict[str, str]:
        """The environment the program runs in."""
        kept = {key: os.environ[key] for key in ("TERM",) if key in os.environ}
        passing = self.folder / "passing"
        passing.mkdir(exist_ok=True)
        settings = self.folder / "config" / "config.toml"
        if not self.background and not settings.parent.exists():
            settings.parent.mkdir()
            settings.write_text('background = "never"\n')
        own = {
            "HOME": str(self.folder),
            "PATH": str(self.bin),
            "INFOPATH": str(self.info if self.info.exists() else NO_INFO),
            "MANPATH": str(self.man),
            "DOWSING_CACHE": str(self.cache),
            "DOWSING_CONFIG": str(self.folder / "config"),
            "DOWSING_DATA": str(self.folder / "data"),
            "TMPDIR": str(passing),
            "COLUMNS": "80",
            "LC_ALL": "C.UTF-8",
        }
        return {**kept, **own, **more}

    def run(self, *arguments: str, **more: str) -> subprocess.CompletedProcess[str]:
        """Run `dowsing ARGUMENTS…` and wait for it."""
        self.seed("--demo" in arguments)
        return subprocess.run(
            [os.path.join(os.path.dirname(sys.executable), "dowsing"), *arguments],
            cwd=self.folder,
            env=self.environment(**more),
            stdin=subprocess.DEVNULL,
            capture_output=True,
            text=True,
            timeout=60,
            check=False,
        )

    def out(self, *arguments: str, **more: str) -> str:
        """What a run prints, which must end well and say nothing on stderr but that the index was
        built.
        """
        done = self.run(*arguments, **more)
        said = [
            line
            for line in done.stderr.splitlines()
            if "building the index" not in line
            and not line.endswith((" pages read", " names read", " names"))
        ]
        assert (done.returncode, said) == (0, []), done.stderr
        return done.stdout


@pytest.fixture(scope="session")
def seeds(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A cache with two indexes of the demo library: that of `--demo`, and as a manual folder."""
    program = Program(tmp_path_factory.mktemp("seeds"))
    program.man = LIBRARY
    program.run("--demo", "index")
    program.run("index")
    return program.cache


@pytest.fixture
def program(tmp_path: Path, seeds: Path) -> Program:
    """The program with an empty manual folder."""
    (tmp_path / "man").mkdir()
    return Program(tmp_path, seeds)


@pytest.fixture
def garden(program: Program) -> Program:
    """The program on the demo library."""
    program.man = LIBRARY
    return program


Make = Callable[[dict[str, str]], Store]


@pytest.fixture
def make_store(tmp_path: Path) -> Make:
    """A function that builds an index: file name -> source of the page, or the summary alone."""

    def make(pages: dict[str, str]) -> Store:
        root = tmp_path / "man"
        for file, text in pages.items():
            name, _, section = file.rpartition(".")
            folder = root / f"man{section[0]}"
            folder.mkdir(parents=True, exist_ok=True)
            source = (
                text
                if text.startswith(".TH")
                else f".TH X {section}\n.SH NAME\n{name} \\- {text}\n.SH D\nx\n"
            )
            (folder / file).write_text(source)
        path = index_path(str(tmp_path / "cache"))
        build_index(
            path, Settings("", "", "", str(root), [], info_path=str(root / "none")), [str(root)]
        )
        return Store(path)

    return make


@pytest.fixture(scope="session")
def finder(tmp_path_factory: pytest.TempPathFactory) -> CommandFinder:
    """What is known of a few commands made up for the tests, in `pages/commands`."""
    folder = tmp_path_factory.mktemp("commands")
    root = folder / "man"
    shutil.copytree(Path(__file__).parent / "pages" / "commands", root / "man1")
    settings = Settings("", "", "", str(root), [], info_path=str(root / "none"))
    path = str(folder / "index.sqlite")
    build_index(path, settings, [str(root)])
    return CommandFinder(Store(path), settings)


@pytest.fixture(scope="session")
def corpus_settings(tmp_path_factory: pytest.TempPathFactory) -> Settings:
    """Settings that know the frozen library of `corpus` and nothing of this machine."""
    root = tmp_path_factory.mktemp("corpus") / "man"
    write_library(root)
    return Settings("", "", "", str(root), [], info_path=str(root / "none"))


@pytest.fixture(scope="session")
def corpus(corpus_settings: Settings) -> Store:
    """The frozen library, indexed."""
    assert corpus_settings.man_path
    path = f"{corpus_settings.man_path}-index.sqlite"
    build_index(path, corpus_settings, [corpus_settings.man_path])
    return Store(path)


#: Options of commands that our facts tell of, with what they take: a page of each is made.
TAKEN_APART = {
    "bash": "-c STRING",
    "cp": "-t DIR, -r",
    "curl": "-X METHOD, -s",
    "cut": "-b LIST, -c LIST, -d DELIM, -f LIST, --complement",
    "date": "-d STRING, -u",
    "find": "-delete, -name PATTERN, -o, -type C, -size N, -exec COMMAND, -print",
    "git": "-C PATH",
    "git-checkout": "-b BRANCH, -f --force",
    "git-push": "-f --force, -n --dry-run",
    "grep": "-e PATTERN, -E --extended-regexp, -F --fixed-strings",
    "kill": "-s SIGNAL, -l, -<signal>",
    "psql": "-c COMMAND",
    "sed": "-e SCRIPT, -i --in-place, -n --quiet",
    "sort": "-k KEY, -o FILE, -r --reverse",
    "ssh": "-p PORT",
    "tar": "-T LIST, -c --create, -f FILE, -t --list, -x --extract, -z --gzip, --version",
    "tr": "-d, -s",
    "xargs": "-n NUMBER, -0",
}


@pytest.fixture(scope="session")
def facts_finder(tmp_path_factory: pytest.TempPathFactory) -> CommandFinder:
    """What our facts tell of commands, beside pages made up for those of TAKEN_APART."""
    root = tmp_path_factory.mktemp("taken-apart") / "man"
    (root / "man1").mkdir(parents=True)
    for name, options in TAKEN_APART.items():
        items = "".join(f".TP\n{one.replace(' -', ', -')}\nWords.\n" for one in options.split(", "))
        source = f".TH X 1\n.SH NAME\n{name} \\- words of a page\n.SH OPTIONS\n{items}"
        (root / "man1" / f"{name}.1").write_text(source.replace("-", "\\-"))
    settings = Settings("", "", "", str(root), [], info_path=str(root / "none"))
    path = f"{root}-index.sqlite"
    build_index(path, settings, [str(root)])
    return CommandFinder(Store(path), settings)


@pytest.fixture(scope="session")
def bare_finder(tmp_path_factory: pytest.TempPathFactory) -> CommandFinder:
    """What our facts tell of commands, where no page is."""
    root = tmp_path_factory.mktemp("bare") / "man"
    root.mkdir()
    settings = Settings("", "", "", str(root), [], info_path=str(root / "none"))
    path = f"{root}-index.sqlite"
    build_index(path, settings, [str(root)])
    return CommandFinder(Store(path), settings)


@pytest.fixture(autouse=True)
def _patience(request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> None:
    """Programs that tests of this computer ask get more time on a busy machine than a user would
    wait; tests of the limit set their own.
    """
    if "machine" in request.path.parts:
        monkeypatch.setattr("dowsing.machine.sandbox.guard.SECONDS", 20)
