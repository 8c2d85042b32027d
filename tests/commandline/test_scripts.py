"""Whole scripts, and other files that hold lines for a shell."""

from __future__ import annotations

import pytest

from dowsing.commandline.reading.command_finder import CommandFinder
from dowsing.commandline.scripts.fragments import Fragment, ScriptKind, fragments_of, kind_of
from dowsing.commandline.scripts.script import Script, read_script
from dowsing.commandline.scripts.statements import readable
from dowsing.model.markup import BOLD, CODE, ROMAN
from dowsing.render.phrases import words
from dowsing.render.script_outline import outline
from dowsing.render.script_text import script_lines

DOCKERFILE = """\
FROM debian:12 AS base
RUN apt-get update && \\
    # what it needs
    apt-get install -y curl
COPY a b
HEALTHCHECK --interval=5s CMD curl -f http://localhost/
RUN <<EOF
rm -rf /srv/x
EOF
CMD ["python3", "-m", "http.server", "a b"]
"""
MAKEFILE = """\
CC = cc
all: main.o util.o
\t@$(CC) -o $@ $^ \\
\t  -lm
\t-rm -f $<
# nothing
clean: ; rm -f *.o $$HOME/x
.PHONY: all
"""
UNIT = """\
[Unit]
Description=a
[Service]
ExecStartPre=-/bin/mkdir -p /run/a
ExecStart=/usr/bin/a --b \\
  --c
ExecStop=
"""
CRONTAB = """\
# jobs
MAILTO=ana
30 6 * * 1 backup --all > /dev/null 2>&1
@daily echo a%b
*/5 * * * mon-fri root rm -f /srv/y
"""


@pytest.mark.parametrize(
    ("name", "text", "kind"),
    [
        ("Dockerfile", DOCKERFILE, ScriptKind.DOCKERFILE),
        ("build", DOCKERFILE, ScriptKind.DOCKERFILE),
        ("Makefile", MAKEFILE, ScriptKind.MAKEFILE),
        ("rules.mk", MAKEFILE, ScriptKind.MAKEFILE),
        ("a.service", UNIT, ScriptKind.UNIT),
        ("a", UNIT, ScriptKind.UNIT),
        ("a", CRONTAB, ScriptKind.CRONTAB),
        ("Makefile", "#!/bin/sh\nls\n", ScriptKind.SHELL),
        ("a", "ls\n30 6 * * 1 backup\n", ScriptKind.SHELL),
        ("a", "echo FROM x\n", ScriptKind.SHELL),
    ],
)
def test_what_kind_of_file_it_is(name: str, text: str, kind: ScriptKind) -> None:
    assert kind_of(name, text) is kind


@pytest.mark.parametrize(
    ("kind", "text", "expected"),
    [
        (
            ScriptKind.DOCKERFILE,
            DOCKERFILE,
            [
                (2, "RUN", "apt-get update && \\\n \\\n    apt-get install -y curl"),
                (6, "HEALTHCHECK", "curl -f http://localhost/"),
                (8, "RUN", "rm -rf /srv/x"),
                (10, "CMD", "python3 -m http.server 'a b'"),
            ],
        ),
        (
            ScriptKind.MAKEFILE,
            MAKEFILE,
            [
                (3, "target all", "cc -o all main.o util.o \\\n  -lm"),
                (5, "target all", "rm -f main.o"),
                (7, "target clean", "rm -f *.o $HOME/x"),
            ],
        ),
        (
            ScriptKind.UNIT,
            UNIT,
            [
                (4, "ExecStartPre", "/bin/mkdir -p /run/a"),
                (5, "ExecStart", "/usr/bin/a --b \\\n  --c"),
            ],
        ),
        (
            ScriptKind.CRONTAB,
            "30 6 * * 1 backup --all\n@daily echo a%b\n",
            [(1, "30 6 * * 1", "backup --all"), (2, "@daily", "echo a")],
        ),
        (
            ScriptKind.CRONTAB,
            "*/5 * * * mon-fri root rm -f /srv/y\n0 0 1 * * ana ls\n",
            [(1, "*/5 * * * mon-fri", "rm -f /srv/y"), (2, "0 0 1 * *", "ls")],
        ),
    ],
)
def test_the_lines_for_a_shell(
    kind: ScriptKind, text: str, expected: list[tuple[int, str, str]]
) -> None:
    found = [one for one in fragments_of(kind, text) if one.step is None]
    assert [(one.line, words(one.where), one.text) for one in found] == expected


def test_statements_that_cannot_be_read_are_left_out() -> None:
    text = "ls\nif [ -f a ]; then\n  cat a\nfi\nfor ((\npwd\n"
    statements, left_out = readable(Fragment(text))
    assert [(one.line, one.text) for one in statements] == [
        (1, "ls"),
        (2, "if [ -f a ]; then\n  cat a\nfi"),
        (6, "pwd"),
    ]
    assert left_out == [5]


SCRIPT = """\
#!/bin/bash
dir=/srv/x
greet() { echo "hi $1"; }
greet ana
for f in *.txt; do
  crate -p "$f" >> log
done
rm -rf $dir/*
while read -r l; do greet "$l"; done < names
if ! crate --verbsoe a; then exit 1; fi
nosuchtool a > out.txt
case $1 in
  a|b) echo one ;;
  *) echo two ;;
esac
[ $x = y ] && mv a $b
"""


@pytest.fixture(scope="module")
def script(finder: CommandFinder) -> Script:
    """The script above, read."""
    return read_script("x.sh", SCRIPT, finder)


def test_what_a_script_does(script: Script) -> None:
    assert (script.kind, script.lines, script.commands) == (ScriptKind.SHELL, 16, 13)
    assert [(one.line, one.effect.words) for one in script.effects] == [
        (8, "rm"),
        (11, "> out.txt"),
        (16, "mv"),
    ]
    named = {
        name: [(one.name, one.lines) for one in getattr(script, name)]
        for name in ("reads", "writes", "missing", "unknown")
    }
    assert named["reads"] == [("names", [9]), ("a", [16])]
    assert named["writes"] == [("log", [6]), ("out.txt", [11]), ("$b", [16])]
    assert ("nosuchtool", [11]) in named["missing"]
    assert ("greet", [4]) not in named["missing"]
    assert named["unknown"] == [("crate --verbsoe", [10])]


def test_what_is_wrong_in_a_script(script: Script) -> None:
    assert [(one.line, one.text, one.problem.nearest) for one in script.problems] == [
        (8, "$dir/*", []),
        (10, "--verbsoe", ["--verbose"]),
        (16, "$x", ['"$x"']),
        (16, "$b", ['"$b"']),
    ]
    assert [one.text for one in script.unsafe] == ["$dir/*", "$x", "$b"]
    assert script.mistaken


def test_the_outline_of_a_script(script: Script) -> None:
    rows = [(row.line, row.depth, row.says) for row in outline(script)]
    assert rows == [
        (2, 0, "Sets dir to /srv/x"),
        (3, 0, "Defines the function greet:"),
        (3, 1, "Prints hi $1"),
        (4, 0, "Runs greet: ana"),
        (5, 0, "For each f of *.txt:"),
        (6, 1, "Packs files into a crate (crate): $f, and adds that to log"),
        (8, 0, "Removes $dir/*, with all that is in it, without asking"),
        (9, 0, "For each line of names, read into l:"),
        (9, 1, "Runs greet: $l"),
        (10, 0, "If this fails (runs crate (a storage utility): a):"),
        (10, 1, "Ends the shell with status 1"),
        (11, 0, "Runs nosuchtool: a, and writes that to out.txt"),
        (12, 0, "By what $1 is:"),
        (13, 1, "a or b:"),
        (13, 2, "Prints one"),
        (14, 1, "Anything else:"),
        (14, 2, "Prints two"),
        (16, 0, "If $x is y, moves a to $b"),
    ]


def _bare(line: str) -> str:
    """A line without its styles."""
    return line.replace(BOLD, "").replace(CODE, "").replace(ROMAN, "")


def test_only_problems_or_effects(script: Script) -> None:
    effects = [_bare(line) for line in script_lines(script, 80, "effects")]
    assert effects == [
        "    8  rm: removes $dir/*; they do not come back (to look first: ls -d)",
        "   11  > out.txt: replaces the contents of out.txt, if there is such a file",
        "   16  mv: replaces files of the same name at $b",
    ]
    problems = [_bare(line) for line in script_lines(script, 200, "problems")]
    assert problems[1] == (
        "   10  --verbsoe  unknown option: crate(1) has no --verbsoe; nearest: --verbose"
    )
    assert len(problems) == 4


def test_nothing_is_wrong(finder: CommandFinder) -> None:
    found = read_script("x", "echo a\n", finder)
    assert script_lines(found, 80, "problems") == [
        "   Nothing is wrong with it, as far as is known here."
    ]
    assert script_lines(found, 80, "effects") == [
        "   Nothing in it is known to destroy, change or send anything."
    ]


def test_what_make_puts_in_is_not_judged_as_unquoted(finder: CommandFinder) -> None:
    found = read_script("Makefile", "clean:\n\trm -f $(OBJECTS) x\n", finder)
    assert [(one.line, one.effect.words) for one in found.effects] == [(2, "rm")]
    assert not found.problems


def test_lines_behind_another_interpreter_are_not_read(finder: CommandFinder) -> None:
    text = "#!/bin/sh\nexec perl -x $0\n#!/usr/bin/perl\nprint foo(;\n"
    found = read_script("x", text, finder)
    assert [row.line for row in outline(found)] == [2]
    assert not found.problems


@pytest.mark.parametrize(
    "text",
    [
        "",
        "\n\n",
        "#!/bin/sh\n",
        "if\n",
        "((((",
        "fi\ndone\n",
        "a" * 10_000,
        "x=1\n" * 3000,
        "$(" * 300,
    ],
)
def test_any_text_is_read(finder: CommandFinder, text: str) -> None:
    found = read_script("x", text, finder)
    assert script_lines(found, 80)


def test_the_steps_of_a_dockerfile_that_no_shell_runs(finder: CommandFinder) -> None:
    text = """\
FROM node:20 AS build
ARG VERSION=1
WORKDIR /app
COPY a b ./
RUN rm -r x
COPY --from=build /app/dist /srv
ADD https://seeds.example/x.tgz /tmp/
ENV A=b
EXPOSE 80
VOLUME ["/data"]
USER nobody
"""
    found = read_script("Dockerfile", text, finder)
    assert [(row.line, row.says) for row in outline(found)] == [
        (1, "Begins with the image node:20, as build"),
        (2, "Takes VERSION=1 from whoever builds it"),
        (3, "Goes on in the folder /app"),
        (4, "Copies a and b to ./ in the image"),
        (5, "Removes x, with all that is in it"),
        (6, "Copies /app/dist of build to /srv in the image"),
        (7, "Fetches https://seeds.example/x.tgz to /tmp/ in the image"),
        (8, "Sets A=b"),
        (9, "Says that it listens at port 80"),
        (10, "Keeps /data outside the container"),
        (11, "Goes on as nobody"),
    ]


def test_variables_of_make_are_put_in_where_they_are_known() -> None:
    text = """\
DIR = out
NAME := $(DIR)/crate # of glass
TWICE = a
TWICE = b
FLAGS = -p
FLAGS += -v
ifndef SHELL_PATH
\tSHELL_PATH = /bin/sh
endif
all:
\tcrate $(FLAGS) $(NAME) ${TWICE} $(OTHER)
\t$(RM) $(DIR)
X = 1
\tcrate lost
"""
    found = [(one.line, one.text) for one in fragments_of(ScriptKind.MAKEFILE, text)]
    assert found == [
        (11, "crate -p -v out/crate ${TWICE} ${OTHER}"),
        (12, "rm -f out"),
    ]


def test_what_only_a_variable_names_is_told_to_be_run(finder: CommandFinder) -> None:
    text = '#!/bin/sh\n"$HOOK" first\nfor f in parts/*; do . "$f"; done\n. ./fixed\n'
    found = read_script("x", text, finder)
    told = [(one.line, one.effect.words) for one in found.effects]
    assert told == [(2, "$HOOK"), (3, "$f")]
    assert words(found.effects[0].effect.does) == "runs what $HOOK names"  # type: ignore[arg-type]


def test_what_a_sign_or_a_pipe_joins_to_a_block_stands_before_it(finder: CommandFinder) -> None:
    text = """\
rm a || { rm b; rm c; }
[ -f d ] && { rm d; }
[ -f e ] || { rm e; }
rm f | while read x; do rm "$x"; done
(rm g; rm h) | sort
"""
    rows = [(row.line, row.depth, row.says) for row in outline(read_script("x.sh", text, finder))]
    assert rows == [
        (1, 0, "Removes a; if that fails:"),
        (1, 1, "Removes b"),
        (1, 1, "Removes c"),
        (2, 0, "If d is a file:"),
        (2, 1, "Removes d"),
        (3, 0, "Unless e is a file:"),
        (3, 1, "Removes e"),
        (4, 0, "Removes f, then, for each line, read into x:"),
        (4, 1, "Removes $x"),
        (5, 0, "In a shell of its own:"),
        (5, 1, "Removes g"),
        (5, 1, "Removes h"),
        (5, 0, "Then, with what that prints, sorts the lines"),
    ]
