"""Recipe files, and the recipes that come with the program."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.index.index_file import index_path
from dowsing.index.store import Store
from dowsing.ingest.build import build
from dowsing.knowledge.recipes import (
    PART,
    Recipe,
    Slot,
    own_recipes,
    read_recipes,
    recipes_of_folder,
)
from dowsing.machine.settings import DEMO_LIBRARY, read_settings
from dowsing.render.pieces import pieces_of
from dowsing.sources.manual_folders import roots, section_folders
from dowsing.tasks.answers import is_checked


def test_a_recipe_with_its_slots(tmp_path: Path) -> None:
    (tmp_path / "a.toml").write_text(
        '[[recipe]]\ntask = "pack a bed"\nalso = ["bundle"]\nline = "crate -p <bed> {?-n '
        '<number>?} <folder>"\n'
        'slots.bed = { kind = "text", like = "*.bed", default = "x" }\nchanges = "files"\n'
    )
    [recipe], faults = read_recipes(str(tmp_path / "a.toml"))
    assert faults == []
    assert (recipe.task, recipe.also, recipe.command, recipe.changes) == (
        "pack a bed",
        ["bundle"],
        "crate",
        "files",
    )
    assert recipe.slots == [
        Slot("bed", "text", "*.bed", "x"),
        Slot("number", "number"),
        Slot("folder", "folder"),
    ]


@pytest.mark.parametrize(
    ("text", "line", "says"),
    [
        ('[[recipe]]\nline = "x"\n', 1, "a recipe needs a task, in words"),
        ('[[recipe]]\ntask = "x"\n', 1, "a recipe needs a line"),
        ('[[recipe]]\ntask = "x"\nline = "y"\nkind = "z"\n', 1, "unknown key kind"),
        (
            '[[recipe]]\ntask = "x"\nline = "y"\nchanges = "all"\n',
            1,
            "changes is one of nothing, files, system, network",
        ),
        (
            '[[recipe]]\ntask = "x"\nline = "y"\nslots.a = {kind = "file"}\n',
            1,
            "the slot a is not in the line",
        ),
        (
            '[[recipe]]\ntask = "x"\nline = "y <a>"\nslots.a = {kind = "tree"}\n',
            1,
            "the slot a is of an unknown kind tree",
        ),
        ('[[recipe]]\ntask = "x"\nline = "y \'<file>\'"\n', 1, "the slot file stands in quotes"),
        ("what = 1\n", 1, "has no [[recipe]]"),
    ],
)
def test_what_is_wrong_is_said_with_its_line(
    tmp_path: Path, text: str, line: int, says: str
) -> None:
    good = '[[recipe]]\ntask = "good"\nline = "true"\n'
    (tmp_path / "a.toml").write_text(text + (good if "[[recipe]]" in text else ""))
    recipes, faults = read_recipes(str(tmp_path / "a.toml"))
    assert [recipe.task for recipe in recipes] == (["good"] if "[[recipe]]" in text else [])
    assert [(fault.line, fault.says.startswith(says)) for fault in faults] == [(line, True)]


def test_a_broken_block_does_not_keep_the_others_from_being_read(tmp_path: Path) -> None:
    (tmp_path / "a.toml").write_text(
        '[[recipe]]\ntask = "one"\nline = "a"\n\n[[recipe]]\ntask = "two\nline = '
        '"b"\n\n[[recipe]]\ntask = "three"\nline = "c"\n'
    )
    recipes, [fault] = read_recipes(str(tmp_path / "a.toml"))
    assert [recipe.task for recipe in recipes] == ["one", "three"]
    assert fault.line == 6
    assert (
        read_recipes(str(tmp_path / "none.toml"))[1][0].says
        == "cannot be read: no such file or directory"
    )


def test_our_own_files_have_no_fault_and_no_line_twice() -> None:
    for recipes in (own_recipes(), recipes_of_folder(f"{DEMO_LIBRARY}/recipes")):
        keys = [(recipe.task, recipe.line) for recipe in recipes]
        assert len(keys) == len(set(keys))
        assert all(recipe.task == recipe.task.strip() for recipe in recipes)
    assert len(own_recipes()) >= 1200


#: Lines that are right though the pages do not list what is in them: only the program's own help
#: has it; the page has a family with a letter in place (find's -newerXY, pr's -COLUMN) or takes it
#: over from another page; or a slot stands where the shell's grammar wants a value.
RIGHT_WITHOUT_A_PAGE = (
    "pip list --outdated",
    "pip download <package>",
    "pip cache purge",
    "apt list --upgradable",
    "find <folder> -type f -newermt <date>",
    "find <folder> -type f -newermt <date> ! -newermt <end>",
    "pr -2 <file>",
    "git bundle create <file> --all",
    "echo $((<expression>))",
    'echo "${#<name>}"',
)


@pytest.fixture
def machine_tables(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> CommandFinder:
    """What this machine's pages say of the commands that our recipes name: an index of its own, of
    those pages alone, without the usage texts that the user's cache may hold.
    """
    monkeypatch.setenv("DOWSING_CACHE", str(tmp_path))
    settings = read_settings()
    lines = " ".join(recipe.line for recipe in own_recipes())
    names = {*re.findall(r"[\w.+-]+", lines), *lines.split()}
    root = tmp_path / "man"
    for folder in (one for root in roots(settings) for one in section_folders(root)):
        for page in Path(folder).iterdir():
            name = page.name.partition(".")[0]
            if {name, name.partition("-")[0], page.name.rpartition(".")[0]} & names:
                place = root / Path(folder).name / page.name
                place.parent.mkdir(parents=True, exist_ok=True)
                if not place.is_symlink():
                    place.symlink_to(page)
    if not (root / "man1").is_dir() or not list((root / "man1").glob("tar.1*")):
        pytest.skip("this machine has no manual pages")
    path = index_path(str(tmp_path))
    build(path, settings.changed(man_path=str(root)), [str(root)])
    return CommandFinder(Store(path), settings)


def test_every_option_of_our_recipes_is_documented_on_this_machine(
    machine_tables: CommandFinder,
) -> None:
    wrong = []
    for recipe in own_recipes():
        for line in variants(recipe):
            found = unpick(line, machine_tables)
            pieces = pieces_of(found)
            known = all(p.page or p.text.startswith("<") for p in pieces if p.role == "command")
            if known and not is_checked(found) and recipe.line not in RIGHT_WITHOUT_A_PAGE:
                undocumented = [p.text for p in pieces if p.role == "option" and not p.page]
                wrong.append((line, [p.problem for p in pieces if p.problem], undocumented))
    assert not wrong, "\n".join(map(str, wrong))


def variants(recipe: Recipe) -> list[str]:
    """The line with what its slots call for, and with each of its named parts."""
    names = [match[1] for match in PART.finditer(recipe.line) if match[1]]
    return [
        PART.sub(lambda match: match[2] if match[1] in (None, name) else "", recipe.line)  # noqa: B023
        for name in ["", *names]
    ]
