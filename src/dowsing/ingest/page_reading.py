"""What the index keeps of a page, read in the worker processes of a build."""

from __future__ import annotations

import os
import re
from collections.abc import Callable
from typing import NamedTuple

from dowsing.facts.command_table import make_table, pack
from dowsing.facts.page_facts import page_facts
from dowsing.ingest.defined_terms import DefinedTerm, defined_terms
from dowsing.ingest.terms import flag_terms, lead_of, option_lines, text_terms
from dowsing.knowledge.conventions import usual_of_commands
from dowsing.knowledge.verbs_and_nouns import VerbsAndNouns, meaning
from dowsing.model.document import Document, Example, block_texts, document_text
from dowsing.model.errors import Unreadable
from dowsing.model.markup import clean_line, plain
from dowsing.model.names import spoken
from dowsing.model.page_facts import PageFacts
from dowsing.model.page_facts import pack as pack_facts
from dowsing.readers.decoding import read_text
from dowsing.sources import page_files

MOST_TEXT = 2_000_000
MOST_TASK = 24  # words

#: (number, path, name, section, whether only its heads and flags are to be searched)
Task = tuple[int, str, str, str, bool]

MOST_LEAD_TEXT = 240  # characters
#: What stands for the command at the beginning of a text, before what it does.
_SUBJECT = re.compile(
    r"^(?:the |this )?(?:this program|command|program|utility|tool|function|script|module)s?"
    r"(?: (?:is used to|can be used to|may be used to|is a (?:tool|program|utility|command)"
    r"(?: that| which| to)?|will|allows (?:you |one |users )?to|lets you))? ",
    re.IGNORECASE,
)
#: Beginnings of the sections whose cards are kept: others are asked for seldom, and their options
#: and examples are read for nothing else.
_HAVING_CARDS = ("1", "4", "5", "6", "8")
_ITSELF = ("program", "tool", "command", "utility", "script")
_SPACED = str.maketrans("-_", "  ")
_UNQUOTED = str.maketrans("\"'", "  ")


class Reading(NamedTuple):
    """What was read of the page of that number.

    `terms`: in which fields of its text a term stands (see terms.py); `options`: a line for each,
    its flags, a tab and what is said of it; `command`: the table of how it is written (see
    commandline/table.py), packed, b"" for what is no command; `examples`: tasks and lines that it
    gives; `references`: the pages it sends to, as labels; `verbs` and `nouns`: what its summary
    says that it does, to what, `lead_verbs` and `lead_nouns` what the beginning of its text says.
    `card`: what its card shows of it, packed (model/page_facts.py); `defined`: the variables and
    files that it defines. `problem` says why it could not be read; `target` is the file of a page
    that only refers to another; `subcommand`: it is the page of a subcommand, whose form writes the
    name as several words.
    """

    number: int
    names: list[str]
    summary: str
    subcommand: bool
    text: str
    problem: str = ""
    target: str = ""
    terms: dict[str, int] = {}  # noqa: RUF012 - never written to
    options: str = ""
    references: list[str] = []  # noqa: RUF012
    verbs: str = ""
    nouns: str = ""
    lead_verbs: str = ""
    lead_nouns: str = ""
    command: bytes = b""
    card: bytes = b""
    defined: list[DefinedTerm] = []  # noqa: RUF012
    examples: list[tuple[str, str]] = []  # noqa: RUF012


#: Reads the pages of one portion of the work.
Read = Callable[[list[Task]], list[Reading]]


def read_for_index(task: Task) -> Reading:
    """Read one page. Never raises: what goes wrong is the reading's problem."""
    return read_safely(_read_page, task)


def read_safely(read: Callable[[Task], Reading], task: Task) -> Reading:
    """What `read` makes of a page: a page must never end a build."""
    number = task[0]
    try:
        return read(task)
    except Unreadable as error:
        return _problem(number, str(error))
    except (MemoryError, RecursionError):
        return _problem(number, "it is too large for the reader")
    except Exception as error:
        return _problem(number, f"the reader failed on it: {type(error).__name__}: {error}")


def redirected(text: str, task: Task) -> Reading | None:
    """What is read of a page that only refers to another; None if this one does more."""
    number, path, *_ = task
    target = page_files.redirect(text)
    if target is None:
        return None
    found = page_files.locate(target, path)
    if found is None:
        says = f"it refers to {clean_line(target)}, which is not in its manual folder"
        return _problem(number, says)
    if found == os.path.realpath(path):
        return _problem(number, "it refers to itself")
    return Reading(number, [], "", False, "", target=found)


def _read_page(task: Task) -> Reading:
    """Read one page. Raises Unreadable, and whatever a page may bring about."""
    number, path, name, section, brief = task
    text = read_text(path)
    elsewhere = redirected(text, task)
    if elsewhere is not None:
        return elsewhere
    page = page_files.document(text, path, name, section)
    # marks may stay: to the full-text index they are separators like any other control
    # character
    whole = document_text(page.sections, marked=True)[:MOST_TEXT]
    options = option_lines(page)
    is_command = not brief and section[:1] in ("1", "6", "8")
    is_part = _is_subcommand(page)
    lead = lead_of(page) if not (brief and page.summary) else ""
    summary = (page.summary or lead_sentence(lead))[:400]
    command = pack(make_table(page)) if is_command else b""
    has_card = not brief and section[:1] in _HAVING_CARDS
    does = meaning(summary, name, section)
    led = VerbsAndNouns([], []) if brief else lead_meaning(page, lead)
    return Reading(
        number,
        page.names,
        summary,
        is_part,
        whole,
        terms=flag_terms(options) if brief else text_terms(page, lead, options),
        options="\n".join(options),
        references=[] if brief else [f"{one.name}({one.section})" for one in page.see_also],
        verbs=" ".join(does.verbs),
        nouns=" ".join(does.nouns),
        lead_verbs=" ".join(led.verbs),
        lead_nouns=" ".join(led.nouns),
        card=pack_facts(_facts(page, is_part)) if has_card else b"",
        defined=[] if brief else defined_terms(page),
        command=command,
        examples=[(one.task, one.line) for one in page.examples if _is_telling(one)]
        if is_command
        else [],
    )


def _facts(page: Document, is_part: bool) -> PageFacts:
    """What a card shows of the page; for a name as it is, and as the words of a subcommand."""
    known = usual_of_commands() if page.section[:1] in ("1", "6", "8") else {}
    names = [page.name, *page.names]
    tries = [words for name in names for words in (name, spoken(name))]
    usual = next((known[one] for one in tries if one in known), [])
    return page_facts(page, usual, spoken(page.name) if is_part else page.name)


def lead_meaning(page: Document, lead: str) -> VerbsAndNouns:
    """What the first sentence of the text says, `This program removes …` or `tar saves …`: behind
    the name, or what stands for it.
    """
    sentence = lead_sentence(lead)
    told = _SUBJECT.sub("", sentence.replace(page.name, "this program", 1), count=1)
    said = meaning(told, section=page.section)
    # what it is itself is nothing that it acts on
    return VerbsAndNouns(said.verbs, [noun for noun in said.nouns if noun not in _ITSELF])


def lead_sentence(lead: str) -> str:
    """The first sentence of the beginning of a text."""
    return re.split(r"(?<=[a-z)])[.;:](?: |\Z)", lead[:MOST_LEAD_TEXT])[0]


def read_many(tasks: list[Task]) -> list[Reading]:
    """Read the pages of one portion of the work."""
    return [read_for_index(task) for task in tasks]


def _is_telling(example: Example) -> bool:
    """Whether an example can answer a task: one line, and said in a sentence what it is for."""
    return (
        "\n" not in example.line
        and len(example.line) <= 200
        and 2 <= len(example.task.split()) <= MOST_TASK
    )


def _problem(number: int, says: str) -> Reading:
    return Reading(number, [], "", False, "", problem=says)


_BRACKETS = re.compile(r" \[[^\[\]]*\]")


def _is_subcommand(page: Document) -> bool:
    """A page such as `git-commit` whose synopsis says `git commit`, or `git [options] commit`."""
    return is_form_of_subcommand(page.name, page.section, _form(page))


def is_form_of_subcommand(name: str, section: str, form: str) -> bool:
    """Whether the form of a page of that name writes it as several words."""
    if section[:1] not in ("1", "8", "6") or ("-" not in name and "_" not in name):
        return False
    said = " ".join(form.translate(_UNQUOTED).split())
    if said.startswith(name):
        return False
    spaced = name.translate(_SPACED)
    plainly = _BRACKETS.sub("", said)  # options may stand before the subcommand
    return any(one.translate(_SPACED).startswith(spaced) for one in (said, plainly))


def _form(page: Document) -> str:
    for section in page.sections:
        if section.title.upper().startswith("SYNOPSIS"):
            texts: list[str] = []
            block_texts(section.blocks[:1], texts)
            return plain(" ".join(texts)[:400])[:200]
    return ""
