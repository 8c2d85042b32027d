"""Names of files that a field is completed to: whatever they are called, the line has just that
file.
"""

from __future__ import annotations

import os
import subprocess
from pathlib import Path

import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from dowsing.composing.completing import completed, completions
from dowsing.composing.field import Field, wrong
from dowsing.model.quoting import bare, file_word, fish_quoted, is_quoted_word, items, value_word
from dowsing.render.phrases import words

FILE = Field("f", "operand", "FILE", "FILE", "file")
FILES = Field("f", "operand", "FILE", "FILE", "file", repeats=True, exists=True)
NAMES = st.text(
    alphabet=st.characters(codec="utf-8", exclude_characters="\x00/"), min_size=1, max_size=12
).filter(lambda name: name not in (".", "..") and len(name.encode()) < 200)


def arguments_of(line: str, folder: Path) -> list[bytes]:
    """What a real bash makes of the words of a line."""
    done = subprocess.run(
        ["bash", "-c", f"printf '%s\\0' {line}"], cwd=folder, capture_output=True, check=True
    )
    return done.stdout.split(b"\0")[:-1]


@settings(
    max_examples=150, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(NAMES, st.sampled_from([FILE, FILES]))
@example("~", FILE)
@example("*", FILES)
@example("-rf", FILE)
@example("$(touch x)", FILES)
@example("a b", FILES)
@example("'", FILE)
@example("~root", FILE)
@example("+x", FILE)
@example("[ab]", FILES)
def test_a_completed_name_is_one_argument_that_is_that_file(
    tmp_path: Path, name: str, field: Field
) -> None:
    folder = tmp_path / "files"
    folder.mkdir()
    try:
        (folder / name).write_text("x")
    except OSError:
        return
    finally:
        before = os.getcwd()
        os.chdir(folder)
    try:
        offered = completions(field, name[:1] if name.startswith(".") else "")
        if not name.isprintable():
            assert offered == [], "what cannot be seen is not offered"
            return
        assert len(offered) == 1
        text = completed(field, name[:1] if name.startswith(".") else "")
        assert text == offered[0], "one name is completed whole"
        assert wrong(field, text, str(folder)) is None
        typed = [word for _, word in items(text)] if field.repeats else [text]
        written = " ".join(value_word(word, with_patterns=True) for word in typed)
        (argument,) = arguments_of(written, folder)
        assert os.path.samefile(os.path.join(os.fsencode(folder), argument), folder / name)
        assert argument[:1] not in (b"-", b"+", b"~")
    finally:
        os.chdir(before)
        for one in folder.iterdir():
            one.unlink()
        folder.rmdir()


def test_a_beginning_that_needs_quotes_is_not_typed_half(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """`~` is what two names have in common, and would be the home folder."""
    for name in ("~", "~x", "a b 1", "a b 2"):
        (tmp_path / name).write_text("")
    monkeypatch.chdir(tmp_path)
    assert completed(FILE, "~") == completions(FILE, "~")[0]
    assert completions(FILE, "'~") == ["'./~'", "'./~x'"]
    assert completed(FILE, "a") == "'a b 1'"
    assert completed(FILES, "first 'a b") == "first 'a b 1'"
    assert completed(FILES, "'a b 1' 'a b 2") == "'a b 1' 'a b 2'"
    assert completed(FILE, "'a b 1'") == "'a b 1'"


def test_a_folder_goes_on_behind_its_quotes(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "my beds").mkdir()
    (tmp_path / "my beds" / "north one").write_text("")
    monkeypatch.chdir(tmp_path)
    assert completed(FILE, "my") == "'my beds/'"
    assert completed(FILE, "'my beds/'no") == "'my beds/north one'"


def test_the_home_folder_stays_outside_of_the_quotes(tmp_path: Path) -> None:
    (tmp_path / "a b").write_text("")
    (tmp_path / "plain").write_text("")
    assert completions(FILE, "~/", str(tmp_path)) == ["~/'a b'", "~/plain"]
    assert value_word("~/'a b'", with_patterns=True) == "~/'a b'"


def test_what_a_list_or_a_file_of_lines_cannot_hold_is_not_offered(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for name in ("a,b", "c d", "e"):
        (tmp_path / name).write_text("")
    monkeypatch.chdir(tmp_path)
    listed = Field("f", "operand", "FILES", "FILES", "file", separator=",")
    assert completions(listed, "") == ["'c d'", "e"]
    assert completions(listed, "e,") == ["'c d'", "e"]
    assert completions(Field("f", "column", "device", "device", "path"), "") == ["a,b", "e"], (
        "fstab has no quotes"
    )


def test_that_a_quoted_file_is_missing_is_told_of_the_file(tmp_path: Path) -> None:
    (tmp_path / "a b").write_text("")
    assert words(wrong(FILES, "'a b'", str(tmp_path))) == ""
    assert words(wrong(FILES, "'a c'", str(tmp_path))) == "there is no such file here"


@pytest.mark.parametrize(
    ("path", "word"),
    [
        ("bed.txt", "bed.txt"),
        ("a b", "'a b'"),
        ("it's", r"'it'\''s'"),
        ("-x", "./-x"),
        ("- x", "'./- x'"),
        ("~", "'./~'"),
        ("~/a", "~/a"),
        ("~/a*", "~/'a*'"),
        ("~/", "~/"),
        ("beet/é", "'beet/é'"),
        ("+1", "./+1"),
    ],
)
def test_a_path_as_a_word(path: str, word: str) -> None:
    assert file_word(path) == word


@pytest.mark.parametrize(
    ("word", "text"),
    [
        ("a", "a"),
        ("'a b'", "a b"),
        ("'a b", "a b"),
        ('"a b', "a b"),
        ("'a 'b", "a b"),
        (r"'it'\''s'", "it's"),
        ('"\\$x"', "$x"),
    ],
)
def test_a_typed_word_without_its_quotes(word: str, text: str) -> None:
    assert bare(word) == text


def test_words_and_their_quotes() -> None:
    assert items("a 'b c' \"d") == [(0, "a"), (2, "'b c'"), (8, '"d')]
    assert [
        is_quoted_word(one) for one in ("'a b'", "a'b'", "'a' b", "'a", "a b", "'a'*", "~/'a b'")
    ] == [
        True,
        True,
        False,
        False,
        False,
        False,
        True,
    ]
    assert fish_quoted("a\\'b") == "'a\\\\\\'b'"
