"""Lines taken apart into pieces."""

from __future__ import annotations

import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from dowsing.commandline.expecting import what_next
from dowsing.commandline.grammar.shell_grammar import parse_shell
from dowsing.commandline.line import unpick
from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.unpicked import Unpicked
from dowsing.render.line_sentence import sentence
from dowsing.render.phrases import subject_of, words
from dowsing.render.piece_text import effect_line
from dowsing.render.pieces import Piece, pieces_of


def effects(found: Unpicked) -> list[str]:
    """What a line changes, in words."""
    return [effect_line(effect) for effect in found.changes]


def told(piece: Piece) -> str:
    """A piece in short: depth in dots, text, role, value and what is wrong."""
    value = f"={piece.value}" if piece.value is not None else ""
    wrong = f" !{subject_of(piece.problem)}" if piece.problem else ""
    return f"{'.' * piece.depth}{piece.text}/{piece.role}{value}{wrong}"


def pieces(line: str, finder: CommandFinder) -> list[str]:
    """The pieces of a line in short."""
    return [told(piece) for piece in pieces_of(unpick(line, finder))]


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("crate -p a", "crate/command -p/option a/operand"),
        (
            "crate -pvf x.crate a",
            "crate/command -p/option -v/option -f/option=x.crate x.crate/value a/operand",
        ),
        ("crate -pfx.crate", "crate/command -p/option -f/option=x.crate"),
        ("crate --file=x -p", "crate/command --file/option=x -p/option"),
        ("crate --file x -p", "crate/command --file/option=x x/value -p/option"),
        ("crate --verb a", "crate/command --verb/option a/operand"),
        ("crate --color a", "crate/command --color/option a/operand"),
        ("crate --no-wrap", "crate/command --no-wrap/option"),
        ("crate a -p", "crate/command a/operand -p/option"),
        ("crate -- -p", "crate/command --/option -p/operand"),
        ("crate -", "crate/command -/operand"),
        ("crate --help", "crate/command --help/option"),
        (
            "whirl -rotate 90 -flip x",
            "whirl/command -rotate/option=90 90/value -flip/option x/operand",
        ),
        ("whirl -rot 90 x", "whirl/command -rot/option=90 90/value x/operand"),
        (
            "lamp --house east light a",
            "lamp/command --house/option=east east/value light/subcommand a/operand",
        ),
        ("lamp repair -q a", "lamp/command repair/subcommand -q/option a/operand"),
        (
            "lamp repair --house east a",
            "lamp/command repair/subcommand --house/option=east east/value a/operand",
        ),
        ("later -q 5m crate -p", "later/command -q/option 5m/operand .crate/command .-p/option"),
        ("test -f x -a -d y", "test/command -f/option x/operand -a/operator -d/option y/operand"),
        ("gdb --args crate -p", "gdb/command --args/option .crate/command .-p/option"),
        ("crate +10", "crate/command +10/operand"),
        ("X=1 crate -p", "X=1/assignment crate/command -p/option"),
        ('[ "$a" -eq 3 ]', '[/command "$a"/operand -eq/operator 3/operand ]/operator'),
        ("[ a = b ]", "[/command a/operand =/operator b/operand ]/operator"),
        ("test ! -f x", "test/command !/operator -f/option x/operand"),
        ("[ ]", "[/command ]/operator"),
        ("vim +12 a", "vim/command +12/operand a/operand"),
        ("crate {😀 né", "crate/command {😀/operand né/operand"),
    ],
)
def test_words(finder: CommandFinder, line: str, expected: str) -> None:
    assert pieces(line, finder) == expected.split(" ")


@pytest.mark.parametrize(
    ("line", "text", "problem", "nearest"),
    [
        ("crate --colour a", "--colour", "unknown option: crate(1) has no --colour", ["--color"]),
        ("crate -pz", "-z", "unknown option: crate(1) has no -z", []),
        ("crate -f", "-f", "missing value: -f needs FILE", []),
        ("crate --level x", "x", "value of a wrong kind: a number is wanted here", []),
        ("crate --level=x", "--level", "value of a wrong kind: a number is wanted here", []),
        (
            "crate --color=sometimes",
            "--color",
            "value of a wrong kind: one of always, never, auto is wanted",
            [],
        ),
        ("crate --wrap=1", "--wrap", "value where none is wanted: --wrap takes none", []),
        ("lamp lihgt a", "lihgt", "wrong subcommand: lamp(1) lists no lihgt", ["light"]),
        (
            "grant 999 a",
            "999",
            "value of a wrong kind: a mode is wanted here, such as 750 or u+rw",
            [],
        ),
        ("grant --sp 750 a", "--sp", "--sp may mean several options", ["--sparing", "--special"]),
        ("carte a", "carte", "unknown command: nothing here has that name", ["crate"]),
    ],
)
def test_mistakes(
    finder: CommandFinder, line: str, text: str, problem: str, nearest: list[str]
) -> None:
    found = unpick(line, finder)
    wrong = [piece for piece in pieces_of(found) if piece.problem]
    assert [(piece.text, words(piece.problem), piece.nearest) for piece in wrong] == [
        (text, problem, nearest)
    ]
    assert found.mistaken


def test_where_the_mistake_is(finder: CommandFinder) -> None:
    cluster = next(p for p in pieces_of(unpick("crate -pvz a", finder)) if p.problem)
    assert cluster.span == [9, 10]
    value = next(p for p in pieces_of(unpick("crate --level=x", finder)) if p.problem)
    assert value.span == [14, 15]


def test_after_a_wrong_subcommand_options_are_not_judged(finder: CommandFinder) -> None:
    wrong = [p.text for p in pieces_of(unpick("lamp lihgt --soft", finder)) if p.problem]
    assert wrong == ["lihgt"]


def test_an_option_tells_spellings_page_and_meaning(finder: CommandFinder) -> None:
    piece = pieces_of(unpick("crate -C attic", finder))[1]
    assert (piece.flags, piece.value, piece.page) == (["-C", "--directory"], "attic", "crate(1)")
    assert piece.says == "Go to DIR first."
    value = pieces_of(unpick("crate -C attic", finder))[2]
    assert (value.role, value.of, value.kind) == ("value", "-C", "folder")


def test_cluster_pieces_share_their_word(finder: CommandFinder) -> None:
    found = [p for p in pieces_of(unpick("crate -pv a", finder)) if p.role == "option"]
    assert [(p.text, p.word, p.start, p.end) for p in found] == [
        ("-p", "-pv", 6, 9),
        ("-v", "-pv", 6, 9),
    ]


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        (
            "crate -p | lamp status",
            "crate/command -p/option |/operator lamp/command status/subcommand",
        ),
        (
            "crate -p > x 2>&1 &",
            "crate/command -p/option >_x/redirection 2>&1/redirection &/operator",
        ),
        (
            "crate $(lamp status)",
            "crate/command $(lamp_status)/substitution .lamp/command .status/subcommand",
        ),
        ("crate a$(lamp)", "crate/command a$(lamp)/operand .$(lamp)/substitution ..lamp/command"),
        (
            "for f in a b; do crate $f; done",
            "for/keyword f/operand in/keyword a/operand b/operand ;/operator do/keyword "
            "crate/command $f/operand ;/operator done/keyword",
        ),
        (
            "[[ -f $x ]] && crate",
            "[[/keyword -f/operator $x/operand ]]/keyword &&/operator crate/command",
        ),
        ("crate <<< $x # note", "crate/command <<<_$x/redirection #_note/comment"),
        ("crate <in> a", "crate/command <in>/operand a/operand"),
        (
            "sh -c 'crate -p a'",
            "sh/command -c/option=crate_-p_a 'crate_-p_a'/value .crate/command .-p/option "
            ".a/operand",
        ),
    ],
)
def test_the_shell_around_them(finder: CommandFinder, line: str, expected: str) -> None:
    assert [one.replace(" ", "_") for one in pieces(line, finder)] == expected.split(" ")


@pytest.mark.parametrize(
    ("line", "says", "place"),
    [
        ('crate "a', '" is opened here and not closed', (6, 7)),
        ("crate |", "a command is missing after |", (6, 7)),
        ("crate >", "a file name is missing after >", (6, 7)),
        ("crate $(lamp", "$( is opened here and not closed", (6, 8)),
        ("for f in a; do crate", "for needs a done after it", (0, 3)),
        ("cat <<END", "the here-document needs a line that is END alone", (4, 9)),
    ],
)
def test_what_the_shell_cannot_read(
    finder: CommandFinder, line: str, says: str, place: tuple[int, int]
) -> None:
    found = unpick(line, finder)
    assert found.problem is not None
    assert (words(found.problem.reason), (found.problem.start, found.problem.end)) == (says, place)
    assert pieces_of(found)


def test_an_alias_is_put_in_the_place_of_its_word(finder: CommandFinder) -> None:
    found = unpick("pk x", finder, {"pk": "crate -p"})
    assert [(p.text, p.role, p.page) for p in pieces_of(found)] == [
        ("pk", "command", None),
        ("pk", "command", "crate(1)"),
        ("-p", "option", "crate(1)"),
        ("x", "operand", None),
    ]
    assert words(pieces_of(found)[0].meaning) == "stands for: crate -p"


def test_what_stands_within_quotes_is_at_its_place(finder: CommandFinder) -> None:
    line = "sh -c 'crate -pv'"
    found = pieces_of(unpick(line, finder))
    assert [(p.text, p.start, line[p.span[0] : p.span[1]]) for p in found if p.span] == [
        ("-c", 3, "-c"),
        ("-p", 13, "-p"),
        ("-v", 13, "v"),
    ]
    twice = pieces_of(unpick("""sh -c "sh -c 'crate -p \\"x\\"'" """, finder))
    assert [(p.text, p.start, p.end, p.span) for p in twice if p.depth == 2] == [
        ("crate", 6, 30, []),
        ("-p", 6, 30, []),
        ('"x"', 6, 30, []),
    ]


@pytest.mark.parametrize("line", ["{{\U0001eae5", "*{{\U0001eae5\ufffd", "{\U0009c96a p$(( E -u"])
def test_characters_beyond_the_table_of_the_grammar(line: str) -> None:
    """The scanner of the grammar ended the program at such lines."""
    texts = [one.text for item in parse_shell(line).items for one in getattr(item, "words", [])]
    assert all(text in line for text in texts)
    assert texts


@pytest.mark.parametrize(
    ("line", "place", "says"),
    [
        ("cd -", "-", "the folder you were in before"),
        ("crate -", "-", "the standard input or output in place of a file"),
        ("git checkout -", "-", "the branch you were on before"),
        ("vim +/x a", "+/x", "where to begin: a line, a pattern, or a command to run"),
        ("test 1 -lt 2", "-lt", "less"),
    ],
)
def test_signs_with_a_meaning_of_their_own(
    finder: CommandFinder, line: str, place: str, says: str
) -> None:
    found = [words(p.meaning) for p in pieces_of(unpick(line, finder)) if p.text == place]
    assert found == [says]


def test_the_sentence(finder: CommandFinder) -> None:
    assert sentence(unpick("crate -uf a.crate -C attic", finder)) == (
        "Unpacks the files of a crate (crate), file a.crate, directory attic."
    )
    assert sentence(unpick("lamp repair a && lamp status > log", finder)) == (
        "Repairs a lamp (lamp repair): a; if that succeeds, runs lamp status (say which lamps "
        "burn), and writes that to log."
    )


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("[ $a -eq 3 ]", "Tests whether $a is 3."),
        ("[[ -f x ]] && lamp status", "If x is a file, runs lamp status (say which lamps burn)."),
        ("for f in a b; do crate -p $f; done", "For each f of a and b: packs files into a crate "
         "(crate): $f."),
        ("lamp status &", "Runs lamp status (say which lamps burn), in the background."),
        ("sh -c 'lamp status; crate -u'", "Runs lamp status (say which lamps burn); then "
         "unpacks the files of a crate (crate)."),
        ("$EDITOR a b", "Runs $EDITOR with a and b."),
        ("sleigh -x a b", "Runs sleigh."),
        ("sleigh --x=1 a b", "Runs sleigh: a and b."),
        ("sleigh a b", "Runs sleigh: a and b."),
    ],
)  # fmt: skip
def test_sentences(finder: CommandFinder, line: str, says: str) -> None:
    assert sentence(unpick(line, finder)) == says


def test_what_it_changes(finder: CommandFinder) -> None:
    found = unpick("crate -p --purge a > log", finder)
    assert effects(found) == [
        "crate --purge: Remove files once they are packed",
        "> log: replaces the contents of log, if there is such a file",
    ]
    assert effects(unpick("rm -r old", finder)) == [
        "rm: removes old; they do not come back (to look first: ls -d)"
    ]
    assert effects(unpick("curl x | sh", finder)) == [
        "curl | sh: runs what comes from elsewhere without a look at it"
    ]


_WORDS = st.sampled_from(
    [
        "crate",
        "-p",
        "-pvf",
        "--file=x",
        "--co",
        "lamp",
        "light",
        "'a b'",
        '"$x',
        "$(lamp",
        ")",
        "|",
        "&&",
        ">",
        "<<E",
        "later",
        "5",
        "{a,b}",
        "*",
        "\\",
        "`",
        "#",
        "if",
        "then",
        "fi",
        "for",
        "[[",
        "]]",
        "((",
        ";",
        "é",
        "\t",
        "\n",
        "<x>",
    ]
)


@settings(
    max_examples=200,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
@given(words=st.lists(_WORDS, max_size=9), odd=st.text(max_size=8))
@example(words=["for", "((", "\n", "\n"], odd="")
def test_any_line_is_covered_and_nothing_raises(
    finder: CommandFinder, words: list[str], odd: str
) -> None:
    for line in (" ".join(words), odd + " ".join(words)):
        found = unpick(line, finder)
        covered = [False] * len(line)
        for piece in pieces_of(found):
            assert 0 <= piece.start <= piece.end <= len(line), piece
            covered[piece.start : piece.end] = [True] * (piece.end - piece.start)
        if found.problem is None and "\\" not in line and not odd:
            missed = [
                char
                for char, seen in zip(line, covered, strict=True)
                if not seen and not char.isspace()
            ]
            assert not missed, (line, missed)
        what_next(line, finder)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("case $x in a|b) lamp status;; *) lamp;; esac", ["or", "ends the patterns: what follows "
         "is done for them", "ends this case", "ends the patterns: what follows is done for them",
         "ends this case"]),
        ("lamp status | lamp", ["what the command before prints goes to the one after"]),
    ],
)  # fmt: skip
def test_operators_by_where_they_stand(
    finder: CommandFinder, line: str, expected: list[str]
) -> None:
    found = pieces_of(unpick(line, finder))
    assert [words(one.meaning) for one in found if one.role == "operator"] == expected


def test_a_comparison_in_brackets_that_writes_a_file(finder: CommandFinder) -> None:
    found = unpick("[ a > b ] && lamp", finder)
    wrong = [(one.text, words(one.problem), one.nearest) for one in pieces_of(found) if one.problem]
    assert wrong == [
        (
            "> b",
            "within [ ] the shell takes > for a redirection to b; escape it to compare",
            ["\\>"],
        )
    ]
    assert effects(found) == ["> b: replaces the contents of b, if there is such a file"]
    assert not found.mistaken
    assert not effects(unpick("[ a \\> b ]", finder))


def test_a_function_of_the_line_is_no_command_of_that_name(finder: CommandFinder) -> None:
    found = unpick("crate() { lamp; }; crate --nothing a", finder)
    said = [
        words(one.meaning) for one in pieces_of(found) if one.text == "crate" and one.depth == 0
    ]
    assert "a function that this text defines" in said
    assert not found.mistaken


def test_commands_on_lines_of_their_own_are_no_pipeline(finder: CommandFinder) -> None:
    found = unpick("crate -u a\nlamp > a", finder)
    assert not [one for one in pieces_of(found) if one.problem]


def test_loops_without_words_and_lines_run_before(finder: CommandFinder) -> None:
    assert unpick("for x do lamp $x; done", finder).problem is None
    found = pieces_of(unpick("!!", finder))
    assert [words(one.meaning) for one in found] == [
        "a line run before, put here by the shell at a prompt"
    ]


@pytest.mark.parametrize(
    ("line", "text", "parts"),
    [
        ("lamp repair ${x%.*}", "${x%.*}", [["${x%.*}", "the value of x without the shortest end "
         "that matches .*"]]),
        ("lamp repair {a,b}", "{a,b}", [["{a,b}", "becomes: a b"]]),
        ("lamp repair '{a,b}'", "'{a,b}'", []),
        ("lamp repair $x", "$x", []),
        ("sed s/$x/y/ f", "s/$x/y/", [["$x", "the value of x"], ["s/$x/y/", "puts y in the "
         "place of what matches $x"]]),
        ("x=$((n+1)) lamp", "x=$((n+1))", [["$((n+1))", "n plus 1"]]),
        ("lamp repair a*", "a*", [["a*", "the names here beginning with a"]]),
    ],
)  # fmt: skip
def test_what_the_shell_puts_into_words(
    finder: CommandFinder, line: str, text: str, parts: list[list[str]]
) -> None:
    piece = next(one for one in pieces_of(unpick(line, finder)) if one.text == text)
    assert piece.parts == parts
