"""`read` and `card`, through the program."""

from __future__ import annotations

import json

import pytest
from conftest import LIBRARY, Program

COMPOST = """\
compost(8)  turn heaps, and throw things on them
manual · 2026-03-03 · {path}

SYNOPSIS
   compost [-v] heap [thing...]
   compost --turn [heap...]

DESCRIPTION
   compost puts each thing on the heap. It is not brought back: what is on a
   heap cannot be taken off it.

OPTIONS
   -t
   --turn
        Turn the heaps.
   --heat=degrees
        Do not turn a heap that is hotter than degrees.
   -v, --verbose
        Say what is done. Give it twice to hear about worms:

        • how many,
        • how long.

FILES
   /var/lib/compost/heaps
        One heap a line:

        north   62C     turned 12 days ago
        south   41C     —

NOTES
   A heap “breathes”: see the leaflet <https://fernhollow.example/heap>. Mail to
   heap@fernhollow.example.

SEE ALSO
   prune(1), weed(1)
"""


def below_head(text: str) -> list[str]:
    """The lines below the head, whose own number of lines depends on how long the page's path
    is.
    """
    return text.split("\n\n", 1)[1].splitlines()


def test_a_whole_page(garden: Program) -> None:
    text = garden.out("read", "compost", "--width", "80")
    lines = text.split("\n")
    assert lines[0] == "compost(8)  turn heaps, and throw things on them"
    head = " ".join(line.strip() for line in lines[1 : lines.index("")])
    assert head.startswith("manual · 2026-03-03 ") and head.endswith("/man8/compost.8")
    assert text.split("\n\n", 1)[1] == COMPOST.split("\n\n", 1)[1]


@pytest.mark.parametrize(
    ("words", "label"),
    [
        (["seedbank(5)"], "seedbank(5)"),
        (["seedbank.5"], "seedbank(5)"),
        (["5", "seedbank"], "seedbank(5)"),
        (["glasshouse", "shade"], "glasshouse-shade(1)"),
        (["glasshouse-shade"], "glasshouse-shade(1)"),
        (["shade"], "glasshouse-shade(1)"),
        (["fog"], "mist(1)"),
        (["HYGRO"], "thermo(1)"),
        (["sprout_all(3)"], "sprout(3)"),
        (["--", "vent"], "vent(1)"),
    ],
)
def test_names_in_all_their_ways(garden: Program, words: list[str], label: str) -> None:
    assert garden.out("read", *words).split()[0] == label


def test_parts(garden: Program) -> None:
    assert garden.out("read", "vent", "--part", "summary").splitlines()[-1].strip() == (
        "vent - open and close the roof vents of a glasshouse"
    )
    assert garden.out("read", "vent", "--part", "syn").splitlines()[-2:] == [
        "SYNOPSIS",
        "   vent [OPTION]... HOUSE...",
    ]
    assert below_head(garden.out("read", "mist", "--part", "diag"))[0] == "DIAGNOSTICS"
    assert below_head(garden.out("read", "mist", "--part", "OPTIONS"))[:3] == [
        "OPTIONS",
        "   -d seconds, --duration=seconds",
        "        How long to spray. The default is 8.",
    ]
    examples = garden.out("read", "vent", "--part", "examples")
    assert "       $ vent --all --close --wait=60" in examples.splitlines()


def test_a_part_takes_its_subsections_along(garden: Program) -> None:
    lines = below_head(garden.out("read", "boiler", "--part", "description"))
    assert [line for line in lines if line and line[:3] != "   "] == [
        "DESCRIPTION",
        " Commands",
        " Temperatures",
    ]


def test_an_unknown_part_names_those_there_are(garden: Program) -> None:
    done = garden.run("read", "moth", "--part", "history")
    assert (done.returncode, done.stdout) == (1, "")
    assert (
        done.stderr.splitlines()[-1]
        == "dowsing: moth(6) has no part “history”; its sections are: NAME, SYNOPSIS, DESCRIPTION"
    )


def test_a_part_with_a_slip_gets_the_nearest(garden: Program) -> None:
    garden.run("index")
    done = garden.run("read", "vent", "--part", "exmaples")
    assert (done.returncode, done.stderr) == (
        1,
        "dowsing: vent(1) has no part “exmaples”; nearest parts: EXAMPLES\n",
    )
    none = garden.run("read", "moth", "--part", "examples")
    assert (
        none.stderr
        == "dowsing: moth(6) gives no examples; its sections are: NAME, SYNOPSIS, DESCRIPTION\n"
    )


def test_brief(garden: Program) -> None:
    text = garden.out("read", "prune", "--brief")
    assert "FORMS\n   prune [--hard | --soft] [-k buds] {plant...}\n" in text
    assert "\n   --hard                Cut down to the old wood.\n" in text
    assert "   DESCRIPTION  (" in text


def test_around(garden: Program) -> None:
    text = garden.out("read", "nightwatch", "--around", "STOP")
    assert text.split("\n\n", 1)[1] == (
        "DESCRIPTION\n   Runs until it is stopped. It looks at thermo(1), boiler(8) and the "
        "doors.\n\nSIGNALS\n   SIGTERM\n        Finish the walk, then stop.\n"
    )
    done = garden.run("read", "nightwatch", "--around", "zeppelin")
    assert (done.returncode, done.stderr) == (
        1,
        "dowsing: “zeppelin” does not occur in nightwatch(8)\n",
    )


def test_translations_only_when_asked_for(garden: Program) -> None:
    assert "what to do in the garden today" in garden.out("read", "almanac")
    assert "was heute im Garten zu tun ist" in garden.out("read", "almanac", "--lang", "de")
    assert "was heute im Garten zu tun ist" in garden.out("read", "almanac", LC_ALL="de_AT.UTF-8")
    done = garden.run("read", "almanac", "--lang", "fr")
    assert done.returncode == 0
    assert "almanac(1) is not translated to fr" in done.stderr


def test_latin_1_is_read(garden: Program) -> None:
    assert "potting café’s notes" in garden.out("read", "almanac")


def test_json(garden: Program) -> None:
    page = json.loads(garden.out("read", "harvest", "--format", "json"))
    assert list(page) == [
        "name",
        "section",
        "names",
        "source",
        "path",
        "package",
        "language",
        "summary",
        "synopsis",
        "sections",
        "options",
        "examples",
        "subcommands",
        "see_also",
    ]
    assert page["synopsis"] == ["harvest [options] [--] <bed>..."]
    assert page["options"][0] == {
        "flags": ["-m", "--min-weight"],
        "argument": "grams",
        "argument_optional": False,
        "text": "leave fruit lighter than this on the plant [default: 40]",
        "section": "OPTIONS",
        "default": "40",
        "values": None,
        "repeatable": False,
        "written": ["-m", "--min-weight <grams>"],
        "bare": [],
        "assumed": None,
    }
    assert page["examples"] == [
        {"task": "", "line": "harvest -m 60 tomato1 tomato2"},
        {
            "task": "Gather unwashed carrots as JSON",
            "line": "harvest --no-wash --format json carrot3",
        },
    ]
    assert page["see_also"] == [{"name": "sow", "section": "1"}]
    assert page["sections"][0] == {
        "title": "NAME",
        "level": 1,
        "text": "harvest - gather what is ripe and weigh it",
    }


def test_html_and_markdown(garden: Program) -> None:
    html = garden.out("read", "seedbank", "--format", "html")
    assert html.startswith("<!DOCTYPE html>") and html.endswith("</html>\n")
    assert '<h2 id="s1">DESCRIPTION</h2>' in html and '<a href="#s1">DESCRIPTION</a>' in html
    assert "<td>what it is, in lower case</td>" in html
    assert "<script" not in html
    markdown = garden.out("read", "vent", "--format", "markdown")
    assert markdown.startswith("# vent(1)\n\nopen and close the roof vents")
    assert "- **-a**, **--all**\n\n  act on all houses; no HOUSE may be given" in markdown


def test_html_escapes_what_pages_hold(program: Program) -> None:
    program.page(
        "bad.1",
        '.TH B 1\n.SH NAME\nbad \\- <script>alert(1)</script> & "x"\n.SH D\n.UR '
        "javascript:alert(1)\nx\n.UE",
    )
    html = program.out("read", "bad", "--format", "html")
    assert "<script>" not in html
    assert "javascript:alert(1)" in html and 'href="javascript' not in html


def test_output_goes_to_a_file(garden: Program) -> None:
    assert garden.out("read", "vent", "-o", "vent.txt") == ""
    assert (garden.folder / "vent.txt").read_text().startswith("vent(1)  open and close")
    done = garden.run("read", "vent", "-o", "no/such/folder.txt")
    assert (done.returncode, done.stderr) == (
        3,
        "dowsing: cannot write no/such/folder.txt: no such file or directory\n",
    )


def test_colour_only_where_it_is_wanted(garden: Program) -> None:
    assert "\x1b[" not in garden.out("read", "vent")
    assert "\x1b[1;36mSYNOPSIS\x1b[0m" in garden.out("read", "vent", "--color", "always")
    assert "\x1b[" not in garden.out("read", "vent", "--color", "auto", NO_COLOR="1")


def test_card(garden: Program) -> None:
    text = garden.out("card", "vent")
    assert text.startswith(
        "vent(1)  open and close the roof vents of a glasshouse\ncommand\n\n   vent [OPTION]... "
        "HOUSE...\n"
    )
    assert "OPTIONS (6 of 8)\n   -a, --all " in text
    assert "     vent --all --close --wait=60\n" in text
    assert "Next: dowsing read vent" in text
    card = json.loads(garden.out("card", "vent", "--format", "json"))
    assert (card["page"], card["form"], card["options_in_all"]) == (
        "vent(1)",
        "vent [OPTION]... HOUSE...",
        8,
    )


def test_a_card_shows_what_is_used_most(program: Program) -> None:
    items = "".join(f".TP\n.B {word}\nDo {word}.\n" for word in ("clean", "update", "install"))
    flags = "".join(f".TP\n.B \\-{one}\nThe {one}.\n" for one in "abcdefghy")
    program.page(
        "apt.8",
        ".TH APT 8\n.SH NAME\napt \\- fetch packages\n.SH SYNOPSIS\n.B apt\n[options] command\n"
        f".SH COMMANDS\n{items}.SH OPTIONS\n{flags}",
    )
    card = json.loads(program.out("card", "apt", "--format", "json"))
    assert [one["name"] for one in card["subcommands"]] == ["install", "update"]
    assert [one["flags"][0] for one in card["options"]][:1] == ["-y"]
    assert "SUBCOMMANDS (used most)\n   install  Do install.\n   update   Do update.\n" in (
        program.out("card", "apt")
    )


def test_a_card_for_a_name_in_two_sections(program: Program) -> None:
    program.page("tie.1", ".TH T 1\n.SH NAME\ntie \\- fasten\n.SH D\nx")
    program.page("tie.3", ".TH T 3\n.SH NAME\ntie \\- fasten from C\n.SH D\nx")
    text = program.out("tie")
    assert text.startswith("tie(1)  fasten\n")
    assert "ALSO NAMED tie\n   tie(3)  fasten from C" in text
    assert program.out("tie.3").startswith("tie(3)  fasten from C")


def test_a_command_name_is_a_name_too(program: Program) -> None:
    program.page("find.1", ".TH F 1\n.SH NAME\nfind \\- look for things\n.SH D\nx")
    assert program.out("--", "find").startswith("find(1)  look for things")
    assert program.out("card", "find").startswith("find(1)  look for things")


def test_every_demo_page_is_read(garden: Program) -> None:
    found = json.loads(garden.out("index", "--status", "--format", "json"))
    assert (found["pages"], found["problems"]) == (
        sum(1 for p in LIBRARY.glob("*[0-9]/*") if not p.is_symlink()),
        [],
    )


def test_parts_with_the_same_title_in_other_case(program: Program) -> None:
    program.page(
        "tie.1",
        ".TH TIE 1\n.SH NAME\ntie \\- fasten\n.SH KNOTS\nLarge ones.\n.SH Knots\nSmall ones.\n"
        ".SH NOTES\nNone.\n",
    )
    text = program.out("read", "tie", "--part", "knots")
    assert text.split("\n")[-6:] == ["KNOTS", "   Large ones.", "", "Knots", "   Small ones.", ""]
