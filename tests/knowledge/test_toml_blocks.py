"""The user's own files, edited in place: what is not ours stays to the byte, what is damaged is
named, nothing is lost.
"""

from __future__ import annotations

import os
import random
from pathlib import Path

import pytest

from dowsing.knowledge.recipes import make_recipe, parse_recipes
from dowsing.knowledge.toml_blocks import blocks_of, parsed
from dowsing.model.errors import CannotKeep
from dowsing.userdata.reading_progress import forget, read_labels
from dowsing.userdata.remarks import Remark, add_note, drop_note, read_notes
from dowsing.userdata.saved_lines import drop, save

NOTES = """# my own head

# about the vents
[[note]]
name = "vent(1)"
text = "jams"   # since May
mine = [ "kept" ]

[[note]]
name = "vent(1)"
text = '''two
[[note]]
lines'''

[settings]
colour = "green"
# at the end
"""


def test_dropping_a_remark_leaves_all_else_to_the_byte(tmp_path: Path) -> None:
    (tmp_path / "notes.toml").write_text(NOTES)
    notes, faults = read_notes(str(tmp_path))
    assert faults == []
    assert [note.text for note in notes] == ["jams", "two\n[[note]]\nlines"]
    drop_note(str(tmp_path), notes[0])
    block = NOTES[NOTES.index("# about") : NOTES.index("[[note]]\nname = \"vent(1)\"\ntext = '''")]
    assert (tmp_path / "notes.toml").read_text() == NOTES.replace(block, "")
    assert (tmp_path / "dropped.toml").read_text() == block.rstrip("\n") + "\n"
    drop_note(str(tmp_path), notes[1])
    assert (
        tmp_path / "notes.toml"
    ).read_text() == '# my own head\n\n[settings]\ncolour = "green"\n# at the end\n'
    assert [note.text for note in read_notes(str(tmp_path))[0]] == []


def test_a_damaged_remark_hides_no_other_and_stays(tmp_path: Path) -> None:
    text = (
        '[[note]]\nname = "a(1)"\ntext = "one"\n\n[[note]]\nname = "b(1)\ntext = '
        'oops\n\n[[note]]\nname = "c(1)"\ntext = "three"\n'
    )
    (tmp_path / "notes.toml").write_text(text)
    notes, faults = read_notes(str(tmp_path))
    assert [note.name for note in notes] == ["a(1)", "c(1)"]
    assert [(fault.line, fault.says) for fault in faults] == [
        (6, "is not TOML: illegal character '\\n'")
    ]
    add_note(str(tmp_path), Remark("d(1)", "four", "2026-01-01"))
    drop_note(str(tmp_path), notes[0])
    left = (tmp_path / "notes.toml").read_text()
    assert left.startswith('[[note]]\nname = "b(1)\ntext = oops\n\n[[note]]\nname = "c(1)"')
    assert left.endswith('[[note]]\nname = "d(1)"\ntext = "four"\nday = "2026-01-01"\n')


def test_bytes_that_are_no_text_stay_where_they_are(tmp_path: Path) -> None:
    data = b'[[note]]\nname = "a(1)"\ntext = "\xff"\n\n[[note]]\nname = "b(1)"\ntext = "two"\n'
    (tmp_path / "notes.toml").write_bytes(data)
    notes, faults = read_notes(str(tmp_path))
    assert [note.name for note in notes] == ["b(1)"]
    assert faults[0].says == "is not TOML: it holds bytes that are no utf-8"
    drop_note(str(tmp_path), notes[0])
    assert (tmp_path / "notes.toml").read_bytes() == data[: data.index(b'[[note]]\nname = "b')]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("x = " + "[" * 100_000, "it is nested too deep"),
        (
            "x = " + "9" * 5000,
            "a value cannot be read: Exceeds the limit (4300 digits) for integer string conversion",
        ),
        ("x = {", "Invalid initial character for a key part"),
    ],
)
def test_what_no_parser_can_read_is_one_line(text: str, says: str) -> None:
    with pytest.raises(ValueError) as caught:
        parsed(text)
    assert str(caught.value).startswith(says[:50])


def test_recipes_of_a_file_with_numbers_and_nesting_without_end() -> None:
    good = '[[recipe]]\ntask = "open"\nline = "vent"\n\n'
    for bad in ("x = " + "9" * 5000, "y = " + "[" * 50_000, "slots = 5", "also = 7"):
        recipes, faults = parse_recipes(
            "f", f'{good}[[recipe]]\ntask = "t"\nline = "l"\n{bad}\n\n{good}'
        )
        assert [one.task for one in recipes] == ["open", "open"], bad[:10]
        assert len(faults) == 1 and 5 <= faults[0].line <= 8


def test_a_kept_line_gets_a_new_task_and_keeps_its_comments(tmp_path: Path) -> None:
    text = (
        "# mine\n[[recipe]]  # the first\ntask = 'one' # why\nline = '''vent \"a\"'''\nsaved = "
        '"2026-01-01"\nextra = 1\n\n[[recipe]]\ntask = "two"\nline = "vent b"\n'
    )
    (tmp_path / "saved.toml").write_text(text)
    recipe = make_recipe({"task": "uno \u202e", "line": 'vent "a"'}, "", "")
    assert save(str(tmp_path), recipe, "2026-02-02").known is False, (
        "a key that we do not know: not ours to change"
    )
    text = text.replace("extra = 1\n", "")
    (tmp_path / "saved.toml").write_text(text)
    done = save(str(tmp_path), recipe, "2026-02-02")
    assert (done.known, done.renamed) == (True, True)
    assert (tmp_path / "saved.toml").read_text() == text.replace("'one'", '"uno \u202e"')
    assert drop(str(tmp_path), 'vent "a"')
    assert (tmp_path / "saved.toml").read_text() == '[[recipe]]\ntask = "two"\nline = "vent b"\n'
    assert (tmp_path / "dropped.toml").read_text().startswith("# mine\n[[recipe]]  # the first\n")


def test_blocks_cover_what_they_are_made_of() -> None:
    """Whatever stands between them: taking a block out and putting it back gives the file again."""
    chance = random.Random(5)
    parts = [
        "[[note]]\n",
        'name = "a"\n',
        "# remark\n",
        "\n",
        "[table]\n",
        "x = [\n[1],\n]\n",
        'text = """\n[[note]]\n"""\n',
        "junk\n",
    ]
    for _ in range(400):
        text = "".join(chance.choice(parts) for _ in range(chance.randrange(1, 14)))
        at = 0
        for block in blocks_of(text, "note"):
            assert at <= block.start < block.end <= len(text)
            assert "[[note]]" in text[block.start : block.end]
            at = block.end


def test_what_was_read_keeps_lines_that_make_no_sense(tmp_path: Path) -> None:
    (tmp_path / "read.jsonl").write_text(
        '{"name": "a(1)", "day": "d"}\nnot ours\n[1]\n{"name": "b(1)"}\n'
    )
    assert read_labels(str(tmp_path)) == {"a(1)": "d", "b(1)": ""}
    assert forget(str(tmp_path), {"a(1)", "c(1)"}) == 1
    assert (tmp_path / "read.jsonl").read_text() == 'not ours\n[1]\n{"name": "b(1)"}\n'


def test_a_file_that_cannot_be_read_is_told(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "notes.toml")
    with pytest.raises(CannotKeep, match="it is no plain file"):
        read_notes(str(tmp_path))
