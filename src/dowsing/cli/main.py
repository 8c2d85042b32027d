"""Entry point: finds the command, parses its arguments, runs it, turns trouble into one line."""

from __future__ import annotations

import argparse
import gc
import os
import sys
from importlib import import_module

from dowsing.model.errors import Failure

#: Every command with its one line of help; the module of that name in `commands` holds the rest.
COMMANDS = {
    "find": "find entries by words, a sentence, a verb and a noun, an option, a pattern",
    "task": "command lines for a task said in plain words",
    "near": "what is related to a name, grouped by why",
    "words": "the verbs, nouns, packages, families and kinds to search by",
    "card": "what a name is, in one screen",
    "read": "read the documentation of a name",
    "options": "the options of a name, or those that a spelling or words are about",
    "examples": "lines for the usual uses of a name",
    "syntax": "every form of a name in words",
    "unpick": "a command line, piece by piece",
    "next": "what may come next in a half-typed line",
    "compose": "a form on the screen that builds the line",
    "take": "act on a line of the last list: print, copy, run, save, take apart, read",
    "save": "keep a command line, with what it is for",
    "saved": "the lines that you kept; as a script, to and from files",
    "note": "your own remark on a name, shown on its card and above its pages",
    "sources": "every documentation of a name, side by side",
    "resolve": "what a name would run, and what belongs to it",
    "browse": "full-screen finder and reader",
    "stroll": "something not yet read, at random; how far you have come",
    "audit": "which documentation many names have, and where it disagrees",
    "index": "build, refresh or look at the index",
    "shell": "completion and keys for bash, zsh and fish",
    "demo": "a guided run on a made-up library",
}

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterable, Sequence
    from types import ModuleType
    from typing import Any, NoReturn

    from dowsing.session.session import Session

TRACE = "DOWSING_TRACE"  # for developers: show where an unexpected error came from
_VALUED = ("--format", "--color", "--pager", "--width")
_SHORT = ("--demo", "--help", "-h", "--version")


# The texts here are English alone: looking for a catalogue of translations would take a tenth of a
# look-up's time.
argparse._ = str  # type: ignore[attr-defined]


class Parser(argparse.ArgumentParser):
    """A parser whose errors are one line that says what to do."""

    def __init__(self, **named: Any) -> None:
        super().__init__(add_help=False, **named)
        self._positionals.title = "what it is about"
        self._optionals.title = "options"
        self.add_argument(
            "-h", "--help", action="help", help="say what the command does and what it takes"
        )

    def error(self, text: str) -> NoReturn:
        from dowsing.cli.wrong_usage import wrong_usage

        raise wrong_usage(self, text)


class HelpLayout(argparse.HelpFormatter):
    """How help is laid out: the form of the command comes first, without a word before it."""

    def __init__(self, prog: str) -> None:
        # a width given here spares argparse from importing what finds it out
        super().__init__(prog, max_help_position=30, width=96)

    def add_usage(
        self,
        usage: str | None,
        actions: Iterable[argparse.Action],
        groups: Any,
        prefix: str | None = None,
    ) -> None:
        """The form of the command."""
        super().add_usage(usage, actions, groups, "")


def add_global_options(
    parser: argparse.ArgumentParser, formats: Sequence[str] = ("text", "json")
) -> None:
    """The options that every command takes; `formats` are those that this one prints."""
    group = parser.add_argument_group("everywhere")
    group.add_argument(
        "--format",
        choices=["text", "json", "html", "markdown", "csv"],
        default="text",
        metavar="|".join(formats),
        help="what to print (text)",
    )
    group.add_argument(
        "--color", choices=["auto", "always", "never"], default=None, help="colours (auto)"
    )
    group.add_argument(
        "--pager", choices=["auto", "always", "never"], default=None, help="pager (auto)"
    )
    group.add_argument("--width", type=_width, metavar="N", help="columns to lay out for")
    group.add_argument(
        "--demo", action="store_true", help="use the demo library instead of this machine's"
    )


def _width(text: str) -> int:
    if not text.isdecimal() or len(text) > 5 or not 1 <= int(text) <= 10_000:
        raise argparse.ArgumentTypeError(f"a width is a number from 1 to 10000, not {text[:20]!r}")
    return int(text)


def split_command(arguments: list[str]) -> tuple[str, list[str]]:
    """The command and its arguments. Global options may stand before it; without a command it is
    `card`.
    """
    at = 0
    while at < len(arguments):
        word = arguments[at]
        if word == "--":
            return "", arguments
        if word in _VALUED:
            at += 2
        elif word.startswith("-") and word != "-":
            at += 1
        elif word in COMMANDS:
            return word, arguments[:at] + arguments[at + 1 :]
        else:
            return "", arguments
    return "", arguments


def with_values(
    parser: argparse.ArgumentParser, arguments: list[str], takes_options: tuple[str, ...]
) -> list[str]:
    """The arguments with the options of `takes_options` joined to a value that looks like an option
    and is none of ours: `--takes --dry-run`.
    """
    actions = parser._option_string_actions
    joined: list[str] = []
    for word in arguments:
        before = joined[-1] if joined else ""
        if before in takes_options and word.startswith("-") and word not in (*actions, "--"):
            joined[-1] = f"{before}={word}"
        else:
            joined.append(word)
    return joined


def options_first(
    parser: argparse.ArgumentParser,
    arguments: list[str],
    others_are_words: bool = False,
    others_behind_words: bool = False,
) -> list[str]:
    """The arguments with the options before the words, so that words may stand on both sides of an
    option.

    `others_are_words`: what begins with a dash and is no option of ours is a word of the line that
    is asked about; with `others_behind_words` only where a word stands before it.
    """
    actions = parser._option_string_actions
    options: list[str] = []
    words: list[str] = []
    at = 0
    while at < len(arguments):
        word = arguments[at]
        at += 1
        if word == "--":
            words += arguments[at:]
            break
        if not word.startswith("-") or word == "-":
            words.append(word)
            continue
        action = actions.get(word)
        may_be_word = others_are_words or (others_behind_words and bool(words))
        if may_be_word and not _is_ours(actions, word, words, arguments[at : at + 1]):
            words.append(word)
            continue
        options.append(word)
        if action is not None and action.nargs is None and at < len(arguments):
            options.append(arguments[at])
            at += 1
        elif action is not None and action.nargs == "*":  # takes only the words that it knows
            while at < len(arguments) and arguments[at] in (action.choices or ()):
                options.append(arguments[at])
                at += 1
    return [*options, *(["--", *words] if words else [])]


def _is_ours(
    actions: dict[str, argparse.Action], word: str, before: list[str], after: list[str]
) -> bool:
    """Whether what begins with a dash is an option of ours, and not a word of what is asked about:
    behind a name, one of ours counts only as it must be written, `--color never`.
    """
    flag, equals, value = word.partition("=")
    action = actions.get(flag)
    if action is None:
        return False
    if not before or (action.nargs == 0 and flag != "-h"):
        return True
    if flag == "-h":
        return False
    value = value if equals else "".join(after)
    if action.type is not None:  # a number; a wrong one is a mistake of whoever meant ours
        return value.lstrip("-").isdecimal()
    return action.choices is None or value in action.choices


def overview() -> str:
    """The help of the program itself."""
    lines = [
        "dowsing finds, shows and explains the documentation of the commands on this machine.",
        "",
        "  dowsing NAME            a card: what it is, its form, its options, examples",
        "  dowsing WORDS           a search, when the words are no name",
    ]
    lines += [f"  dowsing {name:<16}{says}" for name, says in COMMANDS.items()]
    lines += [
        "",
        "Everywhere: --format text|json, --color auto|always|never, --pager auto|always|never, "
        "--width N,",
        "--demo (a made-up library to try things on). dowsing COMMAND --help says more.",
        "A name that is also a command: dowsing -- find, or dowsing card find.",
    ]
    return "\n".join(lines) + "\n"


def run(arguments: list[str]) -> int:
    """Run one command line; the exit status. Raises Failure."""
    name, rest = split_command(arguments)
    if not name:
        plain_words = [word for word in rest if not word.startswith("-")]
        if not plain_words or rest[0] in ("-h", "--help"):
            if "--version" in rest:
                from dowsing import __version__
                from dowsing.terminal.screen import write

                write(f"dowsing {__version__}\n")
                return 0
            if "--" not in rest or rest == ["--"]:
                unknown = [w for w in rest if w not in _SHORT and w != "--"]
                if unknown:
                    raise Failure(
                        f"{unknown[0]} needs a name or words after it; see dowsing --help", status=2
                    )
                from dowsing.terminal.screen import write

                write(overview())
                return 0
    module = import_module(f"dowsing.cli.commands.{name or 'front'}")
    parser = Parser(
        prog=f"dowsing {name}".strip(),
        description=getattr(module, "DESCRIPTION", COMMANDS.get(name, "")),
        allow_abbrev=False,
        formatter_class=HelpLayout,
    )
    module.add_arguments(parser)
    add_global_options(parser, getattr(module, "FORMATS", ("text", "json")))
    options = parser.parse_args(
        options_first(
            parser,
            with_values(parser, rest, getattr(module, "TAKES_OPTIONS", ())),
            getattr(module, "OTHERS_ARE_WORDS", False),
            getattr(module, "OTHERS_BEHIND_WORDS", False),
        )
    )
    from dowsing.model.errors import Unusable
    from dowsing.session.session import Session

    session = Session(options)
    try:
        status = _answered(session, module, options)
    except Unusable as damage:  # found while reading: it is made anew, once
        session.build(str(damage))
        try:
            status = _answered(session, module, options)
        except Unusable as error:
            raise Failure(
                f"{error}, though it was just made: {session.program} index --remove takes away "
                "all that can be made anew",
                status=3,
            ) from None
    if name != "index":  # which says it itself
        session.tell_unfinished()
    return status


def _answered(session: Session, module: ModuleType, options: argparse.Namespace) -> int:
    """What the command returns. Raises Unusable if it fell over what a damaged index holds: only a
    check of the file says that it is damaged, any other fault is ours.
    """
    from dowsing.model.errors import Unusable

    try:
        status: int = module.run(session, options)
        return status
    except (Failure, Unusable, OSError, MemoryError, RecursionError):
        raise
    except Exception as error:
        if os.environ.get(TRACE) or not session.is_index_damaged():
            raise
        raise Unusable(f"the index is damaged ({type(error).__name__}: {error})") from error


def program() -> None:
    """The program as it is installed: ends the process at once, without taking it apart piece by
    piece.
    """
    status = main()
    try:
        sys.stdout.flush()
        sys.stderr.flush()
    except (OSError, ValueError, AttributeError):
        pass
    os._exit(status)


def main(arguments: list[str] | None = None) -> int:
    """Run a command line: returns the exit status."""
    given = sys.argv[1:] if arguments is None else arguments
    as_json = ("json" in given and "--format" in given) or "--format=json" in given
    gc.disable()  # a look-up is over before a collection could pay
    try:
        return run(given)
    except Failure as failure:
        return _told(failure, as_json)
    except KeyboardInterrupt:
        from dowsing.terminal.screen import message

        message("interrupted")
        return 130
    except BrokenPipeError:
        from dowsing.terminal.screen import quiet_exit

        quiet_exit()
        return 0
    except Exception as error:
        if os.environ.get(TRACE):
            raise
        return _told(Failure(_reason(error), status=3), as_json)


def _told(failure: Failure, as_json: bool) -> int:
    from dowsing.terminal.telling import tell

    return tell(failure, as_json)


def _reason(error: Exception) -> str:
    """One line for what no command expected."""
    if isinstance(error, MemoryError):
        return "there is too little memory for this"
    if isinstance(error, OSError):
        where = f": {error.filename}" if isinstance(error.filename, str) else ""
        return (
            f"this system does not let it be done ({(error.strerror or str(error)).lower()}{where})"
        )
    if isinstance(error, RecursionError):
        return "what was given is nested too deep"
    return (
        f"a fault of dowsing's own ({type(error).__name__}: {error}); please report it with what "
        f"{TRACE}=1 shows when this is set before the same line"
    )
