"""What is wrong with the arguments of a command of ours, in words of ours: what the argument
library says, told anew.
"""

from __future__ import annotations

import argparse
import re

from dowsing.model.errors import Failure
from dowsing.model.nearness import nearest_words

MOST_CHOICES = 12  # that are told; of more the nearest are
#: What the library says, and what we say: `{0}` is the argument, `{1}` what it was given.
_TOLD = (
    (r"argument (.+?): expected (?:at least )?one argument", "{0} wants a value after it"),
    (r"argument (.+?): ignored explicit argument '?(.*?)'?", "{0} takes no value"),
    (r"argument (.+?): not allowed with argument (.+)", "{0} does not go together with {1}"),
    (r"argument (.+?): invalid int value: '(.*)'", "{0} is a number, not “{1}”"),
    (r"the following arguments are required: (.+)", "{0} is missing"),
    (r"one of the arguments (.+) is required", "one of these is needed: {0}"),
)
_CHOICE = r"argument (.+?): invalid choice: '?(.*?)'? \(choose from .*\)"
_UNKNOWN = r"unrecognized arguments: (.+)"


def wrong_usage(parser: argparse.ArgumentParser, text: str) -> Failure:
    """The failure for what the library says of a command line."""
    hint = f"see {parser.prog} --help"
    unknown = re.fullmatch(_UNKNOWN, text, re.DOTALL)
    if unknown:
        return _unknown(parser, unknown[1])
    choice = re.fullmatch(_CHOICE, text, re.DOTALL)
    if choice:
        return _no_choice(parser, choice[1].split("/")[-1], choice[2])
    for pattern, says in _TOLD:
        match = re.fullmatch(pattern, text, re.DOTALL)
        if match:
            given = [
                group.split("/")[-1] if n == 0 else group for n, group in enumerate(match.groups())
            ]
            return Failure(f"{says.format(*given, '')}; {hint}", status=2)
    plain = re.sub(r"^argument \S+: ", "", text)
    return Failure(f"{plain}; {hint}", status=2)


def _unknown(parser: argparse.ArgumentParser, words: str) -> Failure:
    """A word that is no option, or one too many; with the options that are spelled like it."""
    word = words.split(" ")[0]
    if not word.startswith("-"):
        return Failure(f"“{word[:60]}” is a word too many; see {parser.prog} --help", status=2)
    flag = word.partition("=")[0]
    near = nearest_words(
        flag, [known for known in parser._option_string_actions if known.startswith("--")]
    )
    hint = (
        f"see {parser.prog} --help; a name that begins with a dash goes after --: "
        f"{parser.prog} -- -x"
    )
    return Failure(
        f"{parser.prog} has no option {flag[:60]}; {'nearest' if near else hint}",
        status=2,
        nearest=near,
    )


def _no_choice(parser: argparse.ArgumentParser, name: str, given: str) -> Failure:
    """A value that is none of those there are."""
    actions = [
        one for one in parser._actions if name in (*one.option_strings, one.dest, one.metavar)
    ]
    choices = [str(choice) for choice in (actions[0].choices or ())] if actions else []
    if choices and all(choice.isdecimal() for choice in choices):
        return Failure(
            f"{name} is a number from {choices[0]} to {choices[-1]}, not {given[:40]}", status=2
        )
    near = nearest_words(given, choices)
    listed = ", ".join(choices[:MOST_CHOICES])
    says = f"{name} is one of {listed}, not “{given[:40]}”"
    return Failure(f"{says}; nearest" if near else says, status=2, nearest=near)
