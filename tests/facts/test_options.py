"""Options as pages of many makers write them."""

from __future__ import annotations

import pytest

from dowsing.facts.option_table import make_option
from dowsing.facts.option_tags import read_tag
from dowsing.facts.option_texts import assumed_of, default_of, is_repeatable, values_of
from dowsing.model.document import Document, Option
from dowsing.sources.page_files import document


@pytest.mark.parametrize(
    ("tag", "flags", "argument", "optional"),
    [
        ("-a", ["-a"], None, False),
        ("-a, --all", ["-a", "--all"], None, False),
        ("-a --all", ["-a", "--all"], None, False),
        ("-a | --all", ["-a", "--all"], None, False),
        ("-a or --all", ["-a", "--all"], None, False),
        ("-a/--all", ["-a", "--all"], None, False),
        ("-a\n--all", ["-a", "--all"], None, False),
        ("--size=N", ["--size"], "N", False),
        ("--size N", ["--size"], "N", False),
        ("--size <n>", ["--size"], "n", False),
        ("--color[=WHEN]", ["--color"], "WHEN", True),
        ("--color [WHEN]", ["--color"], "WHEN", True),
        ("-o file, --output=file", ["-o", "--output"], "file", False),
        ("-o, --output FILE", ["-o", "--output"], "FILE", False),
        ("--[no-]wash", ["--wash", "--no-wash"], None, False),
        ("-NUM", ["-NUM"], None, False),
        ("-name pattern", ["-name"], "pattern", False),
        ("-x:", ["-x"], None, False),
        ("+x", ["+x"], None, False),
        ("-L [host:]port", ["-L"], "[host:]port", False),
        ("--proxy [scheme://]host[:port]", ["--proxy"], "[scheme://]host[:port]", False),
        ("--state=", ["--state"], "", False),
        ("--format={a|b}", ["--format"], "{a|b}", False),
        ("-W opt1,opt2", ["-W"], "opt1,opt2", False),
        ("-0 ... -3", ["-0", "-1", "-2", "-3"], None, False),
        ("-<signal>, -s <signal>", ["-<signal>", "-s"], "signal", False),
        ("--reference[-if-able] <folder>", ["--reference", "--reference-if-able"], "folder", False),
        ("--colo[u]r", ["--color", "--colour"], None, False),
        ("-V[ersion]", ["-V", "-Version"], None, False),
        ("-i[SUFFIX], --in-place[=SUFFIX]", ["-i", "--in-place"], "SUFFIX", True),
        ("-B[<n>][/<m>]", ["-B"], "[<n>][/<m>]", True),
        ("--verbose (-v)", ["--verbose", "-v"], None, False),
        ("--slurp / -s:", ["--slurp", "-s"], None, False),
        ("-Lfolder / -L folder", ["-L"], "folder", False),
        ("--ints-or-bools", ["--ints-or-bools"], None, False),
        ("-b#", ["-b"], "#", False),
        ("--[no-]lease, --lease=<ref>", ["--lease", "--no-lease"], "ref", True),
        ("--wash=false", ["--wash"], "false", True),
        ("-sS (deep rows)", ["-sS"], None, False),
        ("-y (everywhere)", ["-y"], None, False),
        ("--by rows (as they are)", ["--by"], "rows", False),
        ("--in (rows|beds)", ["--in"], "(rows|beds)", False),
        ("[!] -p, --plot plot", ["-p", "--plot"], "plot", False),
        ("-f|--force ...", ["-f", "--force"], None, False),
        ("-b | -c", ["-b", "-c"], None, False),
    ],
)
def test_tags(tag: str, flags: list[str], argument: str | None, optional: bool) -> None:
    option = make_option(tag, [], "OPTIONS")
    assert option is not None
    assert (option.flags, option.argument, option.argument_optional) == (flags, argument, optional)


@pytest.mark.parametrize(
    ("tag", "written"),
    [
        ("-d, --depth <cm>", ["-d", "--depth <cm>"]),
        ("--color[=WHEN]", ["--color[=WHEN]"]),
        ("-i[SUFFIX], --in-place[=SUFFIX]", ["-i[SUFFIX]", "--in-place[=SUFFIX]"]),
        ("-o file, --output=file (new)", ["-o file", "--output=file"]),
        ("-a, --all", []),
    ],
)
def test_how_a_tag_prints_what_its_spellings_take(tag: str, written: list[str]) -> None:
    option = make_option(tag, [], "")
    assert option is not None
    assert option.written == written


def test_dots_alone_say_that_it_may_be_given_again() -> None:
    option = make_option("-v|--verbose ...", [], "")
    assert option is not None
    assert (option.argument, option.repeatable) == (None, True)


@pytest.mark.parametrize("tag", ["-", "--", "word", "", "-1m:forever", "+52w1d"])
def test_what_is_no_option(tag: str) -> None:
    assert make_option(tag, [], "") is None


def options_of(body: str) -> list[Option]:
    """The options of a page with that body."""
    page: Document = document(f".TH HOE 1\n.SH NAME\nhoe \\- hoe beds\n{body}", "hoe.1", "hoe", "1")
    return page.options


def spelled(body: str) -> list[tuple[list[str], str | None, str]]:
    """Spellings, argument and text of each option."""
    return [(o.flags, o.argument, o.text) for o in options_of(body)]


def test_an_optional_argument_belongs_to_the_spelling_that_shows_it() -> None:
    [option] = options_of(".SH OPTIONS\n.TP\n-r, --relative[=PRECISION]\nTimes.\n")
    assert (option.argument, option.argument_optional, option.bare) == ("PRECISION", True, ["-r"])
    [option] = options_of(".SH OPTIONS\n.TP\n-n, --lines=NUM\nLines.\n")
    assert option.bare == []
    [option] = options_of(".SH OPTIONS\n.TP\n-u, -U NUM, --unified[=NUM]\nLines around.\n")
    assert (option.argument, option.argument_optional, option.bare) == (
        "NUM",
        False,
        ["-u", "--unified"],
    )


def test_tag_and_text_in_one_paragraph() -> None:
    assert spelled(
        ".SH OPTIONS\n.PP\n--stamp Put the time on it.\n.PP\n-q, --quiet: say nothing\n"
    ) == [
        (["--stamp"], None, "Put the time on it."),
        (["-q", "--quiet"], None, "say nothing"),
    ]
    assert spelled(".SH NOTES\n.PP\n--stamp Put the time on it.\n") == []


def test_a_placeholder_close_to_its_letter_is_told_by_type() -> None:
    assert spelled(".SH OPTIONS\n.TP\n\\fB-p\\fInum\\fR or \\fB--strip=\\fInum\\fR\nStrip.\n") == [
        (["-p", "--strip"], "num", "Strip."),
    ]  # fmt: skip


def test_points_of_a_list() -> None:
    body = (
        '.SH OPTIONS\n.IP "\\[ci]" 4\n\\fB--deep\\fR:\n.IP\nHoe deep.\n.IP "\\(bu" 4\n\\fB--by '
        "n\\fR: so far\n"
    )
    assert spelled(body) == [(["--deep"], None, "Hoe deep."), (["--by"], "n", "so far")]


def test_options_without_a_dash() -> None:
    letters = (
        ".SH OPTIONS\n.TP\n.B a\nAll.\n.TP\n.B x\nMore.\n.TP\n.B -a\nSome.\n.TP\n.B -e\nEvery.\n"
    )
    assert [flags for flags, _, _ in spelled(letters)] == [["-a"], ["-e"], ["a"], ["x"]]
    keyed = ".SH DESCRIPTION\n.TP\nbs=BYTES\nBlocks.\n.TP\nif=FILE\nInput.\n.TP\nof=FILE\nOutput.\n"
    assert spelled(keyed) == [
        (["bs"], "BYTES", "Blocks."),
        (["if"], "FILE", "Input."),
        (["of"], "FILE", "Output."),
    ]
    words = (
        '.SH SYNOPSIS\nhoe BED [ depth CM ] [ with TOOL ]\n.SH OPTIONS\n.TP\n.BI depth " '
        'CM"\nSo deep.\n'
    )
    assert spelled(words) == [(["depth"], "CM", "So deep.")]


def test_values_told_elsewhere_in_the_page() -> None:
    body = (
        ".SH OPTIONS\n.TP\n--color[=WHEN]\nColor it.\n.PP\nThe WHEN argument defaults to "
        "'always' and can also be 'auto' or 'never'.\n"
    )
    assert options_of(body)[0].values == ["always", "auto", "never"]


@pytest.mark.parametrize(
    ("argument", "text", "values"),
    [
        ("{on|off}", "", ["on", "off"]),
        ("DER|PEM", "", ["DER", "PEM"]),
        ("file|uri", "", None),
        ("WHEN", "WHEN can be 'always', 'never', or 'auto'.", ["always", "never", "auto"]),
        ("WHEN", "WHEN is never, always, or auto.", ["never", "always", "auto"]),
        ("mode", "The mode is one of short, long, or none.", ["short", "long", "none"]),
        ("WORD", "Sort by WORD: none (-U), size (-S), time.", ["none", "size", "time"]),
        ("FILE", "It can be read or written by others later.", None),
        ("FILE", "Write to FILE.", None),
    ],
)
def test_values(argument: str, text: str, values: list[str] | None) -> None:
    assert values_of(argument, text, []) == values


@pytest.mark.parametrize(
    ("text", "default", "assumed", "again"),
    [
        ("How deep [default: 40].", "40", None, False),
        ("The default is 6.", "6", None, False),
        ("The default is to say nothing.", None, None, False),
        ("WHEN is 'always' (default if omitted), 'never'.", None, "always", False),
        ("May be given more than once.", None, None, True),
        ("This option can be used multiple times.", None, None, True),
        ("Nothing of the kind.", None, None, False),
    ],
)
def test_what_the_text_says_of_a_value(
    text: str, default: str | None, assumed: str | None, again: bool
) -> None:
    assert (default_of(text), assumed_of(text), is_repeatable(text)) == (default, assumed, again)


def test_a_tag_of_very_many_blanks() -> None:
    """Runs of blanks between spellings mean as little as one; trying them in every way would take
    minutes.
    """
    tag = read_tag("-a" + "\t \xa0" * 3000 + "," + " " * 5000 + "--all" + "\n" * 3000 + "  -A")
    assert tag is not None and tag.flags == ["-a", "--all", "-A"]


def test_headings_that_are_options() -> None:
    body = (
        ".SH OPTIONS\n.SS --depth=cm, -d\nSo deep.\n.SS --wash\nWash it.\n.SS Notes\n"
        ".TP\n-x\nMore.\n"
    )
    assert spelled(body) == [
        (["--depth", "-d"], "cm", "So deep."),
        (["--wash"], None, "Wash it."),
        (["-x"], None, "More."),
    ]


def test_paragraphs_that_are_tags() -> None:
    below = "".join(
        f".PP\n\\fB--{name}\\fR\n.PP\nText of {name}.\n" for name in ("one", "two", "three")
    )
    assert spelled(f".SH DESCRIPTION\n{below}") == [
        (["--one"], None, "Text of one."),
        (["--two"], None, "Text of two."),
        (["--three"], None, "Text of three."),
    ]
    next_line = ".SH NOTES\n.PP\n\\fB-d\\fR|\\fB--deep\\fR ...\n.br\nDig deep.\n"
    assert spelled(next_line) == [(["-d", "--deep"], None, "Dig deep.")]
    bold = ".SH OPTIONS\n.PP\n\\fB-p, --keep\\fR keeps the rows.\n"
    assert spelled(bold) == [(["-p", "--keep"], None, "keeps the rows.")]
    assert spelled(bold.replace("OPTIONS", "NOTES")) == []


def test_columns_keep_their_gaps() -> None:
    body = (
        ".SH DESCRIPTION\nSettings:\n  \\-deep             dig deep\n"
        "  \\-rows number      so many rows\n  \\-wash             wash it\n"
    )
    assert spelled(body) == [
        (["-deep"], None, "dig deep"),
        (["-rows"], "number", "so many rows"),
        (["-wash"], None, "wash it"),
    ]


def test_an_argument_that_only_the_form_shows() -> None:
    body = (
        ".SH SYNOPSIS\n.B hoe\n[-i INVENTORY] [-q] [-r file]\n"
        ".SH OPTIONS\n.TP\n-i\nWhere.\n.TP\n-q\nQuiet.\n.TP\n-r\nRows.\n"
    )
    assert [one[:2] for one in spelled(body)] == [
        (["-i"], "INVENTORY"),
        (["-q"], None),
        (["-r"], None),
    ]
