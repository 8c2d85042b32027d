"""What is in a node: lists, displays, references, quotes, pictures; a command's nodes as one
document.
"""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dowsing.facts import with_facts
from dowsing.model.errors import Unreadable
from dowsing.model.markup import plain, spans
from dowsing.readers.info.content import node_sections
from dowsing.readers.info.info_file import read_info_file
from dowsing.readers.info.inline import inline
from dowsing.readers.info.node_document import node_document
from dowsing.render.layout import section_lines
from dowsing.search.parts import choose_part

DEMO = Path(__file__).parents[3] / "src/dowsing/demo/library/info/fernhollow.info"


def shown(text: str) -> str:
    return "\n".join(
        plain(line).rstrip() for line in section_lines(node_sections(text, "Node", 0), 60)
    )


NODE = """\
1 Knots
*******

A knot is _not_ a bend.  Take a rope
of ‘hemp’:

     tie   a
     tie   b

   • one bullet
     goes on
   • another

  1. first

  2. second

‘-t’
‘--tight’
     Tie it tight.

          $ tie --tight

‘-l N’

     Loops.

 -- Command: slip ROPE
     Slips.

     This is quoted text that is filled to the margin and goes on for
     some more lines, so that it is plain that it is no program text.

Part
====

More.
"""

LAID_OUT = """\
1 Knots
   A knot is not a bend.  Take a rope of ‘hemp’:

       tie   a
       tie   b

   • one bullet goes on
   • another

   1. first

   2. second

   -t
   --tight
        Tie it tight.

            $ tie --tight

   -l N Loops.

   Command: slip ROPE
        Slips.

        This is quoted text that is filled to the margin and
        goes on for some more lines, so that it is plain
        that it is no program text.

 Part
   More."""


def test_a_node_laid_out() -> None:
    assert shown(NODE) == LAID_OUT


def test_options_are_read_from_info_as_from_pages(tmp_path: Path) -> None:
    file = tmp_path / "knots.info"
    file.write_text(f"\x1f\nFile: knots.info,  Node: Top,  Up: (dir)\n\n{NODE}")
    document = with_facts(node_document(read_info_file(str(file)), "Top", "tie"))
    assert [(o.flags, o.argument, o.text.split("\n")[0]) for o in document.options] == [
        (["-t", "--tight"], None, "Tie it tight."),
        (["-l"], "N", "Loops."),
    ]


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("*Note Bends::, for more.", "See Bends, for more."),
        ("(*note Bends::)", "(see Bends)"),
        ("see *note Bends: Joining two.", "see Bends (Joining two)."),
        ("*note The bends: (knots)Bends, and", "see The bends (knots)Bends, and"),
        ("*note\nBends::", "see Bends"),
        ("a * b * c and *.c and _x and a_b_c", "a * b * c and *.c and _x and a_b_c"),
        ("take *great* care, _now_", "take great care, now"),
    ],
)
def test_inline(text: str, wanted: str) -> None:
    assert plain(inline(text)) == wanted


def test_styles_and_links() -> None:
    assert list(spans(inline("‘a *b* c’ *Note Top::. *x*"))) == [
        ("‘", "plain", None),
        ("a *b* c", "code", None),
        ("’ See ", "plain", None),
        ("Top", "plain", "Top"),
        (". ", "plain", None),
        ("x", "bold", None),
    ]


def test_pictures() -> None:
    assert plain(inline('\x02[image src="a.png" alt="a \\"map\\""\x03]')) == '[picture: a "map"]'
    assert plain(inline('\x02[image src="a.png" text="+--+"\x03]')) == "+--+"


def test_menus_and_what_follows_them() -> None:
    text = (
        "* Menu:\n\n* One::   the first\n\nHeading:\n\n* Two: x.  the\n           "
        "second\n\nText after the menu."
    )
    assert (
        shown(text)
        == "Node\n   One     the first\n\n   Heading:\n\n   Two: x  the second\n\n   Text after "
        "the menu."
    )


def test_control_characters_do_not_get_through() -> None:
    assert "\x1b" not in shown(
        "1 A\x1b[31m\n*****\n\nText \x1b]0;x\x07 here\n\n     code \x1b[2J\n"
    )


def test_the_demo_manual() -> None:
    document = with_facts(node_document(read_info_file(str(DEMO)), "mulch invocation", "mulch"))
    assert [(s.title, s.anchor, s.level) for s in document.sections] == [
        ("2 ‘mulch’: Cover beds", "mulch invocation", 1),
        ("2.1 Options", "mulch options", 2),
        ("2.2 ‘mulch’ and the shell", "mulch and the shell", 2),
    ]
    assert document.summary == "Cover beds with mulch"
    assert document.synopsis == ["mulch [OPTION]... BED..."]
    assert document.options[0].default == "6"
    assert [s.title for s in choose_part(document, "mulch options").sections] == ["2.1 Options"]
    with pytest.raises(Unreadable, match="it has no node “nothing”"):
        with_facts(node_document(read_info_file(str(DEMO)), "nothing", "mulch"))


@settings(max_examples=150, deadline=None)
@given(st.text(alphabet="ab *_‘’`'•-=:.\n\t ()1", max_size=300))
def test_no_text_makes_the_reader_fail(text: str) -> None:
    for section in node_sections(text, "Node", 0):
        assert isinstance(section.title, str)
