"""Texts of one name set against each other."""

from __future__ import annotations

from dowsing.comparing.differences import Difference, between, differences, within
from dowsing.comparing.said import Said
from dowsing.comparing.source_table import SourceRow
from dowsing.comparing.things import Part, Text, Thing, ThingKind, Things
from dowsing.comparing.wordings import wordings
from dowsing.facts import with_facts
from dowsing.model.document import Document
from dowsing.readers.roff.page import read_page
from dowsing.readers.usage.usage_text import read_usage

PAGE = r"""
.TH DIB 1
.SH NAME
dib \- dig holes
.SH SYNOPSIS
dib [\fIoption\fP]...
.SH OPTIONS
.TP
.BR \-d ", " \-\-deep =\fIcm\fP
How deep.
The default is 30.
.TP
.B \-\-old
Old.
.TP
.BR \-s ", " \-\-straight
Straight down.
.TP
.BR \-\-help
Help.
.PP
Earlier versions had
.BR \-\-slant .
.SH "EXIT STATUS"
.TP
0
Done.
.TP
3
Rock.
.SH ENVIRONMENT
.TP
SPADE
Read from /etc/spade.conf.
"""

USAGE = """\
Usage: dib [OPTION]...
Make holes.

  -d, --deep         how deep (default: 20)
  -n, --new=WHAT     new
  -s, --sow          throw seeds in afterwards
      --slant=ANGLE  not straight
"""

INFO = r"""
.TH DIB 1
.SH TEXT
.TP
.B \-d \fIcm\fP
How deep.
.TP
.BR \-o ", " \-\-old
Old.
.TP
.B \-n \fIwhat\fP
New.
.SH "EXIT STATUS"
.TP
0
Done.
"""

Rows = list[tuple[str, str, list[str], list[str]]]


def make_text(source: str, document: Document, parts: list[Part] | None = None) -> Text:
    document.source = source
    row = SourceRow(source, True, f"{source} of dib", 1, 1, None, "")
    return Text(row, document, lambda: parts or [])


def page(text: str, source: str, parts: list[Part] | None = None) -> Text:
    return make_text(source, with_facts(read_page(text, "dib", "1")), parts)


def usage(text: str = USAGE) -> Text:
    return make_text("usage", with_facts(read_usage(text, "dib")))


def thing(*texts: Text) -> Thing:
    return Thing(ThingKind.PROGRAM, "/usr/bin/dib", list(texts))


def told(found: list[Difference]) -> Rows:
    return [(one.what, one.item, one.said_by, one.not_said_by) for one in found]


def test_what_not_all_texts_say() -> None:
    found = differences(Things([thing(page(PAGE, "manual"), usage(), page(INFO, "info"))], []))
    assert told(found) == [
        ("meaning", "-s, --straight", ["manual", "usage"], []),
        ("default", "-d, --deep", ["manual", "usage"], []),
        ("argument", "-d, --deep cm", ["manual", "info"], ["usage"]),
        ("option", "--old", ["manual", "info"], ["usage"]),
        ("option", "-s, --straight", ["manual", "usage"], ["info"]),
        ("option", "-n, --new", ["usage", "info"], ["manual"]),
        ("option", "--slant", ["usage"], ["info"]),
        ("spelling", "--deep", ["manual", "usage"], ["info"]),
        ("spelling", "--straight", ["manual"], ["usage"]),
        ("spelling", "--new", ["usage"], ["info"]),
        ("spelling", "--sow", ["usage"], ["manual"]),
        ("spelling", "-o", ["info"], ["manual"]),
        ("variable", "SPADE", ["manual"], ["usage", "info"]),
        ("file", "/etc/spade.conf", ["manual"], ["info"]),
        ("exit status", "3", ["manual"], ["info"]),
    ]


def test_a_contradiction_says_what_each_text_says() -> None:
    by_kind = {one.what: one for one in within(thing(page(PAGE, "manual"), usage()))}
    assert by_kind["meaning"].otherwise == {
        "manual": "Straight down.",
        "usage": "throw seeds in afterwards",
    }
    assert by_kind["default"].otherwise == {"manual": "30", "usage": "20"}


def test_a_former_name_is_a_spelling() -> None:
    renamed = PAGE.replace("Old.\n", "Old. It was renamed from \\-\\-aged.\n")
    found = [one for one in within(thing(page(renamed, "manual"), usage())) if "--old" in one.item]
    assert [one.item for one in found] == ["--old, --aged"]


def test_the_same_meaning_in_other_words_is_none() -> None:
    other = USAGE.replace("--sow          throw seeds in afterwards", "--upright      go straight")
    assert "meaning" not in {one.what for one in within(thing(page(PAGE, "manual"), usage(other)))}
    same = USAGE.replace("default: 20", "default: 30.0")
    assert "default" not in {one.what for one in within(thing(page(PAGE, "manual"), usage(same)))}


def test_told_in_passing_is_not_missing() -> None:
    found = within(thing(page(PAGE, "manual"), usage()))
    (slant,) = [one for one in found if one.item == "--slant"]
    assert (slant.not_said_by, slant.in_prose) == ([], {"manual": "OPTIONS"})


def test_told_in_another_part_is_not_missing() -> None:
    parts = [
        Part("Common options", Said("All take --old."), ""),
        Part("dab invocation", Said("dab -s and $SPADE and dab --straight"), "dab"),
    ]
    found = within(
        thing(page(PAGE, "manual"), page(INFO.replace(r'", " \-\-old', ""), "info", parts))
    )
    by_item = {one.item: one for one in found if one.what != "spelling"}
    assert (by_item["--old"].not_said_by, by_item["--old"].elsewhere) == (
        [],
        {"info": "Common options"},
    )
    # a word in a part about another command is enough not to call it missing
    assert by_item["-s, --straight"].elsewhere == {"info": "dab invocation"}
    assert by_item["SPADE"].elsewhere == {"info": "dab invocation"}


def test_a_letter_of_another_command_says_nothing() -> None:
    parts = [Part("dab invocation", Said("dab -s"), "dab")]
    found = within(
        thing(page(PAGE.replace(', " \\-\\-straight', ""), "manual"), page(INFO, "info", parts))
    )
    assert not [one for one in found if one.item.startswith("-s")]


def test_help_and_version_only_if_asked_for() -> None:
    texts = thing(page(PAGE, "manual"), usage())
    assert "--help" not in {one.item for one in within(texts)}
    assert ("option", "--help", ["manual"], ["usage"]) in told(within(texts, general=True))


def test_without_facts() -> None:
    found = within(thing(page(PAGE, "manual"), page(INFO, "info")), facts=False)
    assert not {"variable", "file", "exit status"} & {one.what for one in found}


def test_one_text_has_nothing_to_be_compared_with() -> None:
    assert within(thing(usage())) == []


def test_where_it_is_said() -> None:
    (old,) = [one for one in within(thing(page(PAGE, "manual"), usage())) if one.item == "--old"]
    assert (old.where, old.says) == ({"manual": "OPTIONS"}, "Old.")


def test_an_argument_is_told_of_a_spelling_that_both_have() -> None:
    with_other = PAGE.replace(r"\-\-old", r"\-\-old \-\-age =\fIyears\fP")
    found = within(thing(page(with_other, "manual"), usage(USAGE + "  --old  not new\n")))
    assert not [one for one in found if one.what == "argument" and "old" in one.item]


BUILTIN = r"""
.TH DIB 1
.SH SYNOPSIS
dib [\-d] [\-v name]
.SH OPTIONS
.TP
.B \-d
How deep.
.TP
.BI \-v " name"
Keep it in the variable.
.SH ESCAPES
.TP
.B \ea
bell
.TP
.B \euHHHH
a letter
"""
WITH_ESCAPES = (
    PAGE
    + r"""
.SH ESCAPES
.TP
.B \ea
bell
.TP
.B \en
new line
"""
)


def test_the_builtin_and_the_program() -> None:
    builtin = Thing(ThingKind.BUILTIN, "loam", [page(BUILTIN, "builtin")], asked=True)
    found = between(builtin, thing(page(WITH_ESCAPES, "manual"), usage()))
    assert [(one.what, one.item, one.not_said_by, one.between) for one in found] == [
        ("option", "-v", ["manual", "usage"], "program"),
        ("escape", "\\uHHHH", ["manual", "usage"], "program"),
        ("spelling", "--deep", ["builtin"], "builtin"),
        ("option", "--old", ["builtin"], "builtin"),
        ("option", "-s, --straight", ["builtin"], "builtin"),
        ("option", "-n, --new", ["builtin"], "builtin"),
        ("spelling", "--sow", ["builtin"], "builtin"),
        ("option", "--slant", ["builtin"], "builtin"),
        ("escape", "\\n", ["builtin"], "builtin"),
    ]
    mute = Thing(ThingKind.BUILTIN, "loam", builtin.texts)
    assert "--help" in {one.item for one in between(mute, thing(page(PAGE, "manual")))}


def test_wording_side_by_side() -> None:
    one, other = page(PAGE, "manual").document, usage().document
    assert [(w.item, w.one, w.other) for w in wordings(one, other)] == [
        ("summary", "dig holes", "Make holes"),
        ("-d, --deep", "How deep. The default is 30.", "how deep (default: 20)"),
        ("--old", "Old.", ""),
        ("-s, --straight, --sow", "Straight down.", "throw seeds in afterwards"),
        ("--help", "Help.", ""),
        ("-n, --new", "", "new"),
        ("--slant", "", "not straight"),
    ]
