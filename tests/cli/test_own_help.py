"""Tools that are documented by their own help alone: their subcommands, `index --usage`, programs
of many in one, projects.
"""

from __future__ import annotations

import json
import os
from pathlib import Path

import pytest
from conftest import Program

#: A tool with subcommands that have help of their own, one of them below another; what it is asked
#: with is noted.
SPRINKLE = """\
#!/bin/sh
# --help
case "$*" in
"--help") /bin/cat <<'END'
Water the beds of a glasshouse

Usage: sprinkle [OPTIONS] <COMMAND>

Commands:
  start   Start the water [aliases: go]
  log     Show and clear the log
  same    Has no help of its own

Options:
  -C, --house <DIR>  Work in this house
  -h, --help         Print help
END
;;
"start --help") /bin/cat <<'END'
Start the water of some beds

Usage: sprinkle start [OPTIONS] <BED>...

Options:
  -l, --litres <N>   So much for each bed [default: 5]
  -m, --mode <MODE>  How to water [possible values: mist, drip]
  -h, --help         Print help
END
;;
"log --help") /bin/cat <<'END'
Usage: sprinkle log <COMMAND>

Commands:
  clear  Clear the log
  show   Show it
END
;;
"log clear --help") /bin/cat <<'END'
Clear the log for good

Usage: sprinkle log clear [--all]

Options:
  --all  All of it
END
;;
*) exec "$0" --help ;;
esac
"""


@pytest.fixture
def house(program: Program) -> Program:
    """A machine with that tool, and a page of another."""
    program.command("sprinkle", SPRINKLE)
    program.page("rake.1", ".TH RAKE 1\n.SH NAME\nrake \\- rake the leaves\n")
    return program


def test_the_card_of_a_subcommand_is_its_own_help(house: Program) -> None:
    lines = house.out("sprinkle", "start").splitlines()
    assert lines[:2] == [
        "sprinkle start  Start the water of some beds",
        "subcommand · no manual page",
    ]
    assert "   sprinkle start [OPTIONS] <BED>..." in lines
    assert "   -l, --litres <N>   So much for each bed [default: 5]" in lines
    assert lines[-1].startswith("From sprinkle start --help. Next: dowsing read 'sprinkle start'")


def test_another_word_for_a_subcommand_and_one_below_another(house: Program) -> None:
    assert "--litres" in house.out("options", "sprinkle", "go")
    assert house.out("sprinkle", "log", "clear").startswith(
        "sprinkle log clear  Clear the log for good\n"
    )
    listed = json.loads(house.out("sprinkle log", "--format", "json"))["subcommands"]
    assert [(one["name"], one["text"]) for one in listed] == [
        ("clear", "Clear the log"),
        ("show", "Show it"),
    ]


def test_a_word_that_the_help_does_not_list_is_never_handed_on(house: Program) -> None:
    done = house.run("options", "sprinkle", "explode")
    assert done.returncode == 1
    assert "sprinkle --help lists no option for “explode”" in done.stderr
    kept = [path.read_text() for path in (house.cache / "usage").iterdir()]
    assert all("explode" not in one for one in kept)


def test_help_that_is_that_of_the_tool_is_not_the_subcommands(house: Program) -> None:
    done = house.run("syntax", "sprinkle", "same")
    assert (done.returncode, done.stdout) == (1, "")


def test_a_line_is_read_by_the_help_of_its_subcommand(house: Program) -> None:
    found = json.loads(house.out("unpick", "sprinkle -C north start -l 3 a", "--format", "json"))
    pieces = [(one["text"], one["role"], one["page"]) for one in found["pieces"]]
    assert pieces == [
        ("sprinkle", "command", "sprinkle --help"),
        ("-C", "option", "sprinkle --help"),
        ("north", "value", "sprinkle --help"),
        ("start", "subcommand", "sprinkle start --help"),
        ("-l", "option", "sprinkle start --help"),
        ("3", "value", "sprinkle start --help"),
        ("a", "operand", None),
    ]
    assert found["problem"] is None
    following = json.loads(house.out("next", "sprinkle start -m ", "--format", "json"))
    assert following["expects"][0]["values"] == ["mist", "drip"]


def test_what_was_asked_is_found(house: Program) -> None:
    assert "1 of 1 programs tell" in house.run("index", "--usage", str(house.bin / "..")).stdout
    house.out("sprinkle", "start")
    hits = json.loads(house.out("find", "water", "beds", "--format", "json"))["entries"]
    assert [(one["name"], one["kind"]) for one in hits] == [
        ("sprinkle", "command"),
        ("sprinkle start", "subcommand"),
    ]
    by_option = json.loads(house.out("find", "--takes=--litres", "--format", "json"))["entries"]
    assert [one["name"] for one in by_option] == ["sprinkle start"]
    house.run("index", "--rebuild")
    assert "sprinkle start" in house.out("find", "start", "water")


def test_index_usage_says_what_has_none_and_where_it_looks(house: Program) -> None:
    house.command("mute", "#!/bin/sh\nexit 0\n")
    text = house.run("index", "--usage", str(house.bin)).stdout
    assert "   mute: not asked: mute does not know --help (its file does not hold it)" in text
    for arguments, says in (
        (["index", "--usage"], "--usage wants places to ask in"),
        (["index", "elsewhere"], "places are for --usage"),
        (["index", "--usage", "/etc"], "/etc is no folder of PATH"),
        (["index", "--usage", "nosuch"], "nosuch is neither a folder nor a package"),
    ):
        done = house.run(*arguments)
        assert done.returncode in (1, 2)
        assert says in done.stderr


def test_one_of_many_in_one_is_read_by_its_own_help(program: Program) -> None:
    program.bin.mkdir()
    box = program.folder / "toybox"
    box.write_text(
        '#!/bin/sh\n[ "$1" = --help ] || exit 1\n'
        "printf 'Usage: rake [-q] [-d CM] BED\\n\\nRake BED, simply\\n\\n'\n"
        "printf '\\t-d CM\\tSo deep\\n\\t-q\\tSay nothing\\n'\n"
    )
    box.chmod(0o755)
    os.symlink(box, program.bin / "toybox")
    os.symlink("toybox", program.bin / "rake")
    program.page(
        "rake.1",
        ".TH RAKE 1\n.SH NAME\nrake \\- rake the leaves\n"
        ".SH OPTIONS\n.TP\n.B \\-\\-wind\nMind it.\n",
    )
    lines = program.out("rake").splitlines()
    assert lines[:4] == [
        "rake  Rake BED, simply",
        "command · part of toybox",
        "from: usage · also in: manual",
        "The page rake(1) is that of another rake.",
    ]
    assert "--wind" not in program.out("options", "rake")
    assert "--wind" in program.out("options", "rake(1)")
    found = json.loads(program.run("unpick", "rake --wind x", "--format", "json").stdout)
    assert found["pieces"][1]["says"] == "rake --help does not tell of it"


@pytest.mark.parametrize(
    ("file", "text", "line", "expects"),
    [
        (
            "Makefile",
            "# Waters it all\nall: beds\nclean: ## Clears up\n\trm x\n"
            "X := 1\n%.o: %.c\n.PHONY: all\n",
            "make ",
            [("all", "Waters it all"), ("clean", "Clears up")],
        ),
        (
            "package.json",
            '{"scripts": {"build": "bundle src", "test": "check"}}',
            "npm run t",
            [("test", "check")],
        ),
        (
            "pyproject.toml",
            '[tool.poe.tasks]\nlint = {cmd = "check", help = "Look at it"}\n'
            '[project.scripts]\nhose = "a:b"\n',
            "yarn run ",
            [("hose", "a:b"), ("lint", "Look at it")],
        ),
    ],
)
def test_names_of_the_project_are_offered(
    program: Program, file: str, text: str, line: str, expects: list[tuple[str, str]]
) -> None:
    Path(program.folder / file).write_text(text)
    program.page("make.1", ".TH MAKE 1\n.SH NAME\nmake \\- make it\n")
    found = json.loads(program.run("next", line, "--format", "json").stdout)["expects"]
    assert [(one["text"], one["says"]) for one in found if one["what"] == "operand"] == expects


def test_a_project_without_names_offers_none(program: Program) -> None:
    (program.folder / "package.json").write_text("[1, 2")
    found = json.loads(program.run("next", "npm run ", "--format", "json").stdout)["expects"]
    assert [one["text"] for one in found if one["what"] == "operand"] == [""]


def test_a_page_of_another_installation_is_told_as_such(program: Program) -> None:
    elsewhere = program.folder / "own" / "bin"
    elsewhere.mkdir(parents=True)
    rake = elsewhere / "rake"
    rake.write_text("#!/bin/sh\n")
    rake.chmod(0o755)
    program.page("rake.1", ".TH RAKE 1\n.SH NAME\nrake \\- rake the leaves\n")
    lines = program.out("rake", PATH=str(elsewhere)).splitlines()
    assert lines[3].startswith("What would run is")
    told = "".join(line.strip() for line in lines[3:7] if line)
    assert told.replace(" ", "").endswith("/own/bin/rake;thispagecamewithanotherinstallation.")
    program.command("rake", "#!/bin/sh\n")
    assert "installation" not in program.out("rake")
