"""`audit`: matrix, counts, options that are missing, and the chart."""

from __future__ import annotations

import json

import pytest
from conftest import Program


def test_the_builtins_of_a_shell(program: Program) -> None:
    found = json.loads(program.out("--demo", "audit", "--shell", "loam", "--format", "json"))
    assert found["scope"] == {"kind": "shell", "name": "loam"}
    assert [line["name"] for line in found["names"]] == [
        "row",
        "endrow",
        "hollo",
        "mulch",
        "note",
        "walk",
    ]
    assert found["counts"]["builtin"] == {"present": 5, "absent": 1, "not_asked": 0}
    mulch = next(line for line in found["names"] if line["name"] == "mulch")
    assert [source for source, there in mulch["sources"].items() if there] == [
        "builtin", "shell-manual", "builtin-usage", "manual", "usage", "info", "package",
    ]  # fmt: skip
    row = found["names"][0]
    assert (row["sources"]["package"], row["notes"]["package"]) == (
        False,
        "the texts of its package do not name it",
    )
    assert found["only_usage"] == []
    assert found["unanswered"] == {
        "echo": [{"name": "hollo", "says": "hollo --help prints the words it is given"}]
    }
    hollo = next(line for line in found["names"] if line["name"] == "hollo")
    assert hollo["notes"]["usage"] == "hollo --help prints the words it is given"
    assert found["undocumented"] == []
    assert [(one["name"], one["item"], one["not_said_by"]) for one in found["missing_options"]][
        :2
    ] == [
        ("mulch", "-d, --depth", []),
        ("mulch", "-r", ["builtin", "builtin-usage"]),
    ]
    assert found["missing_options"][0]["otherwise"] == {"manual": "6", "usage": "8", "info": "6"}


def test_as_text(program: Program) -> None:
    text = program.out("--demo", "audit", "--shell", "loam", "--width", "100")
    assert text.startswith("Builtins and keywords of loam  6 names\n")
    row = next(line for line in text.split("\n") if line.startswith("   endrow "))
    assert row.split() == ["endrow", "·", "●", "·", "·", "·", "·", "·", "·"]
    assert "Without any documentation (0)\n   none\n" in text
    assert "Print what they are given (1)\n   hollo  --help prints the words it is given\n" in text
    assert "   mulch -d, --depth  two texts contradict each other: manual, usage, info\n" in text
    narrow = program.out("--demo", "audit", "--shell", "loam", "--width", "60")
    assert "name       bltn  shman  b-use  manual  usage  info  std  pkg" in narrow


def test_a_package_and_a_family(program: Program) -> None:
    package = json.loads(program.out("--demo", "audit", "--package", "dibble", "--format", "json"))
    assert [line["name"] for line in package["names"]] == ["dibble"]
    assert package["names"][0]["sources"]["usage"] is True
    family = json.loads(
        program.out("--demo", "audit", "--family", "glasshouse", "--format", "json")
    )
    assert family["counts"]["manual"]["present"] == len(family["names"]) == 6


def test_everything_on_path_is_not_asked(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", "#!/bin/sh\n: --help\necho 'Usage: tine [-x]'\n")
    program.command("mute", "#!/bin/sh\n: nothing\n")
    found = json.loads(program.out("audit", "--format", "json"))
    assert [(line["name"], line["sources"]["usage"]) for line in found["names"]] == [
        ("mute", None),
        ("tine", None),
    ]
    assert found["undocumented"] == ["mute", "tine"]
    asked = json.loads(program.out("audit", "--usage", "--format", "json"))
    assert [(line["name"], line["sources"]["usage"]) for line in asked["names"]] == [
        ("mute", False),
        ("tine", True),
    ]
    assert asked["undocumented"] == ["mute"]


def test_what_only_a_usage_text_documents_and_what_does_not_answer(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", "#!/bin/sh\n: --help\necho 'Usage: tine [-x]'\n")
    program.command("mum", "#!/bin/sh\n: --help\nexit 0\n")
    program.command("cross", "#!/bin/sh\n: --help\necho 'cross: unknown option' >&2; exit 2\n")
    found = json.loads(program.out("audit", "--usage", "--format", "json"))
    assert found["only_usage"] == ["tine"]
    assert {kind: [row["name"] for row in rows] for kind, rows in found["unanswered"].items()} == {
        "error": ["cross"],
        "nothing": ["mum"],
    }
    text = program.out("audit", "--usage")
    assert "Only what the program prints when asked (1)\n   tine\n" in text
    assert "Printed nothing (1)\n   mum  --help prints nothing\n" in text


def test_pages_that_are_not_of_the_installed_programs(program: Program) -> None:
    text = program.out("--demo", "audit", "--package", "fernhollow-glasshouse", "--stale")
    assert "Pages that lack what the program has (" in text
    assert "\n   mulch (fernhollow-glasshouse 4.2)  --fleece\n" in text
    assert "Usage texts that leave out what the page has (" in text
    found = json.loads(
        program.out("--demo", "audit", "--shell", "loam", "--stale", "--format", "json")
    )
    assert [(one["name"], [d["item"] for d in one["lacking"]]) for one in found["stale"]] == [
        ("mulch", ["--fleece"])
    ]
    assert found["missing_options"] == []


def test_many_names_are_looked_at_in_their_order(program: Program) -> None:
    for n in range(40):
        flag = "--new" if n == 33 else "--old"
        program.command(f"tool{n:02}", f"#!/bin/sh\n: --help\necho 'Usage: tool [OPTION]'\n"
                        f"echo '  {flag}  do it'\n")  # fmt: skip
        program.page(
            f"tool{n:02}.1",
            f".TH TOOL 1\n.SH NAME\ntool{n:02} \\- do it\n.SH OPTIONS\n.TP\n.B \\-\\-old\nDo it.\n",
        )
    found = json.loads(program.out("audit", "--usage", "--stale", "--format", "json"))
    assert [line["name"] for line in found["names"]] == [f"tool{n:02}" for n in range(40)]
    assert found["counts"]["usage"] == {"present": 40, "absent": 0, "not_asked": 0}
    (stale,) = found["stale"]
    assert (stale["name"], [one["item"] for one in stale["lacking"]]) == ("tool33", ["--new"])
    assert [one["item"] for one in stale["surplus"]] == ["--old"]


def test_a_package_has_programs_without_a_page(program: Program) -> None:
    program.man.joinpath("man1").mkdir()
    program.command("tine", "#!/bin/sh\n: nothing\n")
    done = program.run("audit", "--package", "tines")
    assert (done.returncode, "the package tines is not known here" in done.stderr) == (1, True)


def test_a_report_is_one_page_of_its_own(program: Program) -> None:
    program.out("--demo", "audit", "--shell", "loam", "--report", "audit.html")
    page = (program.folder / "audit.html").read_text()
    assert page.startswith("<!DOCTYPE html>\n")
    assert "<title>Builtins and keywords of loam: documentation</title>" in page
    assert '<i style="width:83.3%"></i>' in page and "<td>5 of 6</td>" in page
    assert "<td><code>mulch</code></td><td>fernhollow-glasshouse 4.2</td><td><code>--fleece" in page
    assert 'title="the texts of its package do not name it"' in page
    assert "http" not in page and "<script" not in page
    done = program.run("--demo", "audit", "--shell", "loam", "--report", "audit.pdf")
    assert (done.returncode, done.stderr) == (
        2,
        "dowsing: a report is an .html page, not audit.pdf\n",
    )


def test_comma_separated_values(program: Program) -> None:
    lines = program.out("--demo", "audit", "--shell", "loam", "--format", "csv").split("\n")
    assert (
        lines[0]
        == "name,kind,builtin,shell-manual,builtin-usage,manual,usage,info,standard,package"
    )
    assert lines[1] == "row,keyword,yes,yes,no,no,no,no,no,no"
    assert program.run("--demo", "find", "mulch", "--format", "csv").returncode == 2


@pytest.mark.parametrize(
    ("name", "magic"), [("coverage.png", b"\x89PNG"), ("coverage.svg", b"<?xml")]
)
def test_charts(program: Program, name: str, magic: bytes) -> None:
    pytest.importorskip("matplotlib")
    program.out("--demo", "audit", "--shell", "loam", "--chart", name)
    data = (program.folder / name).read_bytes()
    assert data.startswith(magic)
    if name.endswith("svg"):
        assert (
            b"Documentation of the builtins and keywords of loam: 6 names" in data
            or b"<path" in data
        )


@pytest.mark.parametrize(
    ("arguments", "status", "says"),
    [
        (
            ["--shell", "zzsh"],
            1,
            "the shell zzsh is not here or could not be asked; shells here: loam",
        ),
        (
            ["--package", "nothing"],
            1,
            "the package nothing is not known here; find one with: dowsing find nothing",
        ),
        (["--family", "sprout"], 1, "the family sprout is not known here"),
        (["--shell", "loam", "--package", "x"], 2, "--package does not go together with --shell"),
        (["--shell", "loam", "--chart", "x.pdf"], 2, "a chart is a .png or an .svg, not x.pdf"),
        (
            ["--shell", "loam", "--chart", "/no/such/x.png"],
            3,
            "cannot write /no/such/x.png: no such file or directory",
        ),
        (["--format", "html"], 2, "this command prints text or json or csv, not html"),
    ],
)
def test_bad_input(program: Program, arguments: list[str], status: int, says: str) -> None:
    done = program.run("--demo", "audit", *arguments)
    assert done.returncode == status
    assert says in done.stderr
    assert "Traceback" not in done.stderr
