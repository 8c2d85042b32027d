"""A library whose every text tries to act on the terminal: what is said of it must be text and
nothing else.
"""

from __future__ import annotations

import re
import sys

from conftest import Program

#: A window title, a text for the clipboard, a colour, the same in 8-bit controls, directions that
#: reorder, a bell.
PAYLOAD = (
    "\x1b]0;title\x07\x1b]52;c;eA==\x07\x1b[31m\x9b31m\x9d0;t\x9c\u202e\u2066\u061c\u200f\x07\x7f"
)
UNSAFE = re.compile(
    "[\x00-\x08\x0b-\x1f\x7f-\x9f\u061c\u200e\u200f\u2028\u2029\u202a-\u202e\u2066-\u206f\ufeff"
    "\U000e0000-\U000e007f\ud800-\udfff]"
)
#: What the program itself writes where colours are wanted.
OWN = re.compile(r"\x1b\[(?:0|1|2|3|7|27|36|33|1;36|3;33|1;3;33|4)?m")


def unsafe_in(text: str, coloured: bool = False) -> list[str]:
    """The characters of an output that may not be in it."""
    return UNSAFE.findall(OWN.sub("", text) if coloured else text)


MAN = f""".TH EVIL 1 \x08\r{PAYLOAD} "{PAYLOAD}"
.SH NAME
evil, bad \\- wreck {PAYLOAD}terminals \\[u1B]\\[u9B]\\N'27'\\[u202E]
.SH SYNOPSIS
.B evil
[\\-a{PAYLOAD}] [\\fIFILE{PAYLOAD}\\fR]
.SH OPTIONS{PAYLOAD}
.TP
\\-a, \\-\\-all={PAYLOAD}X
does{PAYLOAD} all a\\c
.TP
\\-q
quiet
.TS
l l.
a\\c	{PAYLOAD}b
.TE
.Ta x
.SH EXAMPLES
Wreck{PAYLOAD} it:
.PP
.nf
evil -a {PAYLOAD} file
.fi
.SH "SEE ALSO"
good{PAYLOAD}(1), \\fBbad\\fR(1)
"""
MDOC = f""".Dd {PAYLOAD}
.Dt WORSE 1
.Os {PAYLOAD}
.Sh NAME
.Nm worse
.Nd wreck {PAYLOAD} more
.Sh SYNOPSIS
.Nm
.Op Fl a{PAYLOAD}
.Sh DESCRIPTION
.Bl -tag
.It Fl a{PAYLOAD} Ar x
{PAYLOAD}
.El
.Bl -column a b
.It a Ta {PAYLOAD} Ta c
.El
.Lk http://x/{PAYLOAD} {PAYLOAD}
"""
FORMATTED = (
    f"N\bNA\bAM\bM\nE\bE\n     typed - wreck {PAYLOAD} typed pages\n\nO\bOP\bP{PAYLOAD}\n "
    f"    -a  {PAYLOAD}all\n"
)
INFO = f"""This is plague.info, produced by hand {PAYLOAD}.

INFO-DIR-SECTION Evil
START-INFO-DIR-ENTRY
* evil: (plague)Invoking evil{PAYLOAD}.    Wreck {PAYLOAD}.
END-INFO-DIR-ENTRY

\x1f
File: plague.info,  Node: Top,  Next: Invoking evil{PAYLOAD},  Up: (dir)

Plague {PAYLOAD}
******

* Menu:

* Invoking evil{PAYLOAD}::  How {PAYLOAD} to.
* Other{PAYLOAD}: Else{PAYLOAD}.  More.

\x1f
File: plague.info,  Node: Invoking evil{PAYLOAD},  Prev: Top,  Up: Top

1 Evil {PAYLOAD}
********

Text with ‘code{PAYLOAD}’ and *note Else{PAYLOAD}:: and \x00\x08[image src="{PAYLOAD}"\x00\x08].

‘-a{PAYLOAD}’
     Does {PAYLOAD}.

\x1f
File: plague.info,  Node: Else{PAYLOAD},  Prev: Top,  Up: Invoking evil{PAYLOAD}

2 Else{PAYLOAD}
*******

   {PAYLOAD}

\x1f
Tag Table:
Node: Lost{PAYLOAD}\x7f999999999
Ref: Anchor{PAYLOAD}\x7f100
\x1f
End Tag Table
"""
_PRINTED = (
    f"usage: evil [-a] {PAYLOAD} FILE\n\nOptions:\n  -a, --all{PAYLOAD}   does {PAYLOAD} all\n"
)
USAGE = f"#!{sys.executable} -IS\n'--help'\nprint({_PRINTED!r})\n"
_NAMES = f"furrow{PAYLOAD}\tbuiltin\tDig {PAYLOAD} holes\nfill\tbuiltin\tFill {PAYLOAD} holes"
_HELP = f"fill: fill [-d{PAYLOAD}] {PAYLOAD}\n    Fill holes."
SHELL = f"""#!{sys.executable} -IS
import sys
if sys.argv[1:] == ["--names"]:
    print({_NAMES!r})
elif sys.argv[1:2] == ["--explain"]:
    print({_HELP!r})
"""
KEPT = """[[recipe]]
task = "wreck {0} terminals"
line = "evil -a '{0}' <file>"

[[recipe]]
task = "{0}"
line = "printf '{0}'"
"""


def escaped(text: str) -> str:
    """The payload as a file of TOML may have it."""
    return "".join(f"\\u{ord(char):04x}" if UNSAFE.match(char) else char for char in text)


def make_library(program: Program) -> None:
    """Pages, Info files, programs, a shell, package texts and kept lines, all of them hostile."""
    program.page("evil.1", MAN)
    program.page("worse.1", MDOC)
    program.page("typed.1", FORMATTED, "cat1")
    program.page("markdown.1", MAN.replace("EVIL", "MARKDOWN").replace("evil", "markdown"))
    program.page(f"odd{PAYLOAD.replace('/', '')}name.1", MAN.replace("evil, bad", "odd"))
    program.page("broken.1", f".so nowhere{PAYLOAD}\n")
    program.info.mkdir()
    (program.info / "plague.info").write_text(INFO)
    program.command("evil", USAGE)
    program.command("bare", USAGE.replace("evil", "bare"))
    program.command("loam", SHELL)
    config = program.folder / "config"
    config.mkdir()
    loam = program.bin / "loam"
    (config / "config.toml").write_text(
        f'[shell.loam]\npath = "{loam}"\nlist = ["--names"]\nhelp = ["--explain", "{{name}}"]\n'
    )
    data = program.folder / "data"
    data.mkdir()
    (data / "saved.toml").write_text(KEPT.replace("{0}", escaped(PAYLOAD)))
    note = (
        f'[[note]]\nname = "evil(1)"\ntext = "note {escaped(PAYLOAD)}"\nday = '
        f'"{escaped(PAYLOAD)}"\n'
    )
    (data / "notes.toml").write_text(note)
    for name in (f"file{PAYLOAD.replace('/', '')}", "plain.txt"):
        (program.folder / name).write_text("x")


CALLS = [
    "find wreck",
    "find wreck --why",
    "find odd",
    "find *odd*",
    "find holes",
    "near evil",
    "words verbs",
    "words packages",
    "evil",
    "card worse",
    "card typed",
    "card fill",
    "card bare",
    "read evil",
    "read worse",
    "read typed",
    "read fill",
    "read bare",
    "read evil --from info",
    "read evil --from usage",
    "read evil --from all",
    "read evil --brief",
    "read evil --part options",
    "read evil --around wreck",
    "options evil",
    "options evil -a",
    "options evil --from info",
    "examples evil",
    "syntax evil",
    "syntax worse",
    "sources evil",
    "sources evil --differences",
    "sources evil --stale",
    "sources evil --passage=-a",
    "sources evil --passage wreck",
    "audit --shell loam --stale",
    "resolve evil",
    "task wreck terminals",
    "saved",
    "saved --script",
    "note",
    "note evil",
    "audit --shell loam",
    "index --status",
    "compose evil --plain",
    "shell complete -- read ev",
    "shell complete -- read odd",
    "read broken",
    "stroll --progress",
]
WITH_PAYLOAD = [
    ("unpick", f"evil -a {PAYLOAD}"),
    ("unpick", f"evil --{PAYLOAD}=x | nosuch{PAYLOAD}"),
    ("next", f"evil {PAYLOAD}"),
    ("find", f"wreck{PAYLOAD}"),
    ("read", f"evil{PAYLOAD}"),
    ("task", f"wreck '{PAYLOAD}' terminals"),
    ("save", f"evil '{PAYLOAD}'"),
    ("options", "evil", f"-{PAYLOAD}"),
    ("resolve", f"x{PAYLOAD}"),
    (f"evil{PAYLOAD}",),
    ("words", f"{PAYLOAD}"),
    ("compose", "--format", "json", f"evil -a {PAYLOAD}"),
    ("read", "evil", "--part", PAYLOAD),
    ("find", "--package", PAYLOAD, "x"),
    ("--width", PAYLOAD, "evil"),
    ("take", "1"),
]
EXPORTS = [
    "read evil --from manual",
    "read evil --from info",
    "read evil --from usage",
    "read worse",
    "read fill",
]
