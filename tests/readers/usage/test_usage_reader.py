"""Usage texts in the styles of the usual option parsers."""

from __future__ import annotations

import pytest

from dowsing.facts import with_facts
from dowsing.model.document import Document
from dowsing.readers.usage.cleaning import clean_lines
from dowsing.readers.usage.usage_text import read_usage


def options(document: Document) -> list[tuple[str, str | None, str]]:
    return [(" ".join(option.flags), option.argument, option.text) for option in document.options]


def names(document: Document) -> list[tuple[str, str]]:
    return [(command.name, command.text) for command in document.subcommands]


GNU = """\
Usage: tine [OPTION]... BED...
  or:  tine --list
Rake the leaves off each BED.

What a long option must be given, its letter must be given too.
  -d, --deep=CM          tine CM deep;
                         3 is usual
      --color[=WHEN]     colour the heap
  -q, --quiet, --silent  say nothing
      --very-long-option-name=VALUE
                         what it does
  -v                     --verbose turns it on

Exit status:
 0  if all went well.
"""


def test_gnu_programs() -> None:
    document = with_facts(read_usage(GNU, "tine"))
    assert document.synopsis == ["tine [OPTION]... BED...", "tine --list"]
    assert document.summary == "Rake the leaves off each BED"
    assert options(document) == [
        ("-d --deep", "CM", "tine CM deep; 3 is usual"),
        ("--color", "WHEN", "colour the heap"),
        ("-q --quiet --silent", None, "say nothing"),
        ("--very-long-option-name", "VALUE", "what it does"),
        ("-v", None, "--verbose turns it on"),
        ("--list", None, ""),
    ]
    assert [o.argument_optional for o in document.options][:3] == [False, True, False]
    assert document.sections[-1].title == "Exit status"


ARGPARSE = """\
usage: dib [-h] [--deep CM] [-v | -q] {hole,trench} ...

Dig in the garden.

positional arguments:
  {hole,trench}  what to dig
    hole         a round one
    trench       a long one

options:
  -h, --help     say how it is called
  --deep CM      how deep (default: 30)
"""


def test_argparse() -> None:
    document = with_facts(read_usage(ARGPARSE, "dib"))
    assert document.synopsis == ["dib [-h] [--deep CM] [-v | -q] {hole,trench} ..."]
    assert options(document) == [
        ("-h --help", None, "say how it is called"),
        ("--deep", "CM", "how deep (default: 30)"),
        ("-v", None, ""),
        ("-q", None, ""),
    ]
    assert document.options[1].default == "30"


CLICK = """\
Usage: sow [OPTIONS] COMMAND [ARGS]...

  Sow seeds, in rows or broadcast.

Options:
  --seed NAME       what to sow  [default: cress]
  -n, --dry-run     do nothing
  --help            Say how it is called.

Commands:
  rows  Sow in rows.
  wide  Sow broadcast.
"""


def test_click() -> None:
    document = with_facts(read_usage(CLICK, "sow"))
    assert names(document) == [("rows", "Sow in rows."), ("wide", "Sow broadcast.")]
    assert options(document)[0] == ("--seed", "NAME", "what to sow  [default: cress]")
    assert document.summary == "Sow seeds, in rows or broadcast"


GO_FLAG = (
    "Usage of mow:\n  -height int\n    \tcut to this height (default 4)\n  -n\tdo nothing\n "
    " -pattern string\n    \tstripes or squares\n"
)


def test_go_flag() -> None:
    document = with_facts(read_usage(GO_FLAG, "mow"))
    assert options(document) == [
        ("-height", "int", "cut to this height (default 4)"),
        ("-n", None, "do nothing"),
        ("-pattern", "string", "stripes or squares"),
    ]


COBRA = """\
Water the beds from one place.

Usage:
  pump [command]

Available Commands:
  completion  Generate the autocompletion script
  start       Start the pump

Flags:
  -h, --help             help for pump
      --pressure float   bars (default 2.5)

Use "pump [command] --help" for more information about a command.
"""


def test_cobra() -> None:
    document = with_facts(read_usage(COBRA, "pump"))
    assert document.synopsis == ["pump [command]"]
    assert document.summary == "Water the beds from one place"
    assert names(document) == [
        ("completion", "Generate the autocompletion script"),
        ("start", "Start the pump"),
    ]
    assert options(document) == [
        ("-h --help", None, "help for pump"),
        ("--pressure", "float", "bars (default 2.5)"),
    ]


def test_lists_before_the_forms() -> None:
    text = (
        "Runs pumps.\n\nBasic Commands (Beginner):\n  start   Start it\n  stop    Stop "
        "it\n\nUsage:\n  pump [flags]\n"
    )
    document = with_facts(read_usage(text, "pump"))
    assert [section.title for section in document.sections] == [
        "SYNOPSIS",
        "DESCRIPTION",
        "Basic Commands (Beginner)",
    ]
    assert names(document) == [("start", "Start it"), ("stop", "Stop it")]


CLAP = """\
Sorts seeds by size

Usage: sieve [OPTIONS] <TRAY> [COMMAND]

Arguments:
  <TRAY>  Where the seeds are

Options:
  -m, --mesh <MM>
          Width of the mesh

          Smaller seeds fall through
  -v, --verbose...  Say more
  -h, --help        Print help
"""


def test_clap() -> None:
    document = with_facts(read_usage(CLAP, "sieve"))
    assert [o.flags for o in document.options] == [
        ["-m", "--mesh"],
        ["-v", "--verbose"],
        ["-h", "--help"],
    ]
    assert document.options[0].argument == "MM"
    assert [o.repeatable for o in document.options] == [False, True, False]
    assert document.options[0].text.split("\n")[0] == "Width of the mesh"


DOCOPT = """\
Garden paths.

Usage:
  paths lay <from> <to> [--width=<m>]
  paths (-h | --help)

Options:
  -h --help     Show this screen.
  --width=<m>   Width [default: 1.2].
"""


def test_docopt() -> None:
    document = with_facts(read_usage(DOCOPT, "paths"))
    assert document.synopsis == ["paths lay <from> <to> [--width=<m>]", "paths (-h | --help)"]
    assert options(document) == [
        ("-h --help", None, "Show this screen."),
        ("--width", "m", "Width [default: 1.2]."),
    ]


BUSY = (
    "Usage: hoe [-rv] [-d CM] BED...\n\nHoe beds\n\n\t-r\tBoth ways\n\t-d CM\tHow "
    "deep\n\t-v\tSay so\n"
)


def test_one_program_for_many() -> None:
    document = with_facts(read_usage(BUSY, "hoe"))
    assert document.synopsis == ["hoe [-rv] [-d CM] BED..."]
    assert options(document) == [
        ("-r", None, "Both ways"),
        ("-d", "CM", "How deep"),
        ("-v", None, "Say so"),
    ]


@pytest.mark.parametrize(
    ("form", "flags"),
    [
        ("usage: pick [-abcDE] [-o file] fruit", ["-a", "-b", "-c", "-D", "-E", "-o"]),
        ("usage: pick [-version] [--all]", ["-version", "--all"]),
        (
            "usage: pick [-C <path>] [--size=<n>] [-p | --paginate]",
            ["-C", "--size", "-p", "--paginate"],
        ),
        ("pick: usage: pick [-WIDTH] fruit", ["-WIDTH"]),
        ("Usage: pick [-V[ersion]] [-Olevel]", ["-V", "-Version", "-O"]),
    ],
)
def test_options_of_a_bare_form(form: str, flags: list[str]) -> None:
    document = with_facts(read_usage(form + "\n", "pick"))
    assert [flag for option in document.options for flag in option.flags] == flags


def test_definitions_below_a_form() -> None:
    text = (
        "Usage: link [ OPTIONS ] COMMAND\nwhere  COMMAND := { up | down }\n       OPTIONS := { "
        "-s[hort] | -4 |\n                    -6 }\n"
    )
    document = with_facts(read_usage(text, "link"))
    assert document.synopsis == [
        "link [ OPTIONS ] COMMAND",
        "COMMAND := { up | down }",
        "OPTIONS := { -s[hort] | -4 | -6 }",
    ]
    assert [o.flags for o in document.options] == [["-s", "-short"], ["-4"], ["-6"]]


def test_columns_side_by_side_and_long_terms() -> None:
    text = """\
Usage: till [OPTIONS...] COMMAND
  -p  to a pipe            -l  list only
  -f  freshen              -t  test

Bed Commands:
  list [PATTERN...]        List beds
  set-property BED NAME=VALUE... Sets one or more properties
"""
    document = with_facts(read_usage(text, "till"))
    assert options(document) == [
        ("-p", None, "to a pipe"),
        ("-l", None, "list only"),
        ("-f", None, "freshen"),
        ("-t", None, "test"),
    ]
    assert names(document) == [
        ("list", "List beds"),
        ("set-property", "Sets one or more properties"),
    ]


def test_sequences_overstriking_and_tabs_are_taken_away() -> None:
    assert clean_lines(
        "\x1b[1mUsage:\x1b[0m x\r\n\x1b]0;title\x07  N\x08NA\x08A  \x1b[31mred\x1b[m\n\n"
    ) == [
        "Usage: x",
        "  NA  red",
    ]
    assert clean_lines("-a\tone\n10%\r50%\rdone\n") == ["-a      one", "done"]
    assert clean_lines("\x07\x00\u202e") == []


@pytest.mark.parametrize(
    "text", ["", "\n\n", "usage:", "Usage:\n", "-", "--", "  -\n  -", "a:\n\n\n", "\x1b["]
)
def test_odd_texts_do_no_harm(text: str) -> None:
    document = with_facts(read_usage(text, "x"))
    assert isinstance(document.synopsis, list) and isinstance(document.options, list)


def test_a_complaint_about_the_question_is_no_summary() -> None:
    text = "unknown option -- -\nusage: hoe [-dq] [-r rows] bed\n"
    assert read_usage(text, "hoe").summary == ""
    assert read_usage("Hoe the beds.\nusage: hoe bed\n", "hoe").summary == "Hoe the beds"
