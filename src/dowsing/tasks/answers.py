"""A sentence to command lines: what is wanted, with the values that were said, checked against the
pages.
"""

from __future__ import annotations

import re

from dowsing.commandline.line import unpick
from dowsing.commandline.model.tree import words_told
from dowsing.index.schema import Meta
from dowsing.knowledge.command_classes import CommandClass, members_of
from dowsing.knowledge.effects import HARMS
from dowsing.knowledge.recipes import SLOT, Recipe, slot_of, with_values
from dowsing.knowledge.task_choice import QUESTION, sentence_marks
from dowsing.model.record import Record
from dowsing.model.roles import Role
from dowsing.tasks.adding import REPEATED
from dowsing.tasks.completeness import lacking
from dowsing.tasks.confidence import likelihood, read_confidence
from dowsing.tasks.harm_checks import is_meant
from dowsing.tasks.negation import leaves_out_a_negation
from dowsing.tasks.origin import Origin, OriginKind
from dowsing.tasks.patterns import Pattern
from dowsing.tasks.recipe_ranking import OWN, ranked
from dowsing.tasks.retrieval import chosen_corpus, corpus_of, ordinary_of
from dowsing.tasks.revisions import Step, StepKind, steps_of
from dowsing.tasks.sentence import ParsedSentence, understand, understood
from dowsing.tasks.spelling import Misspelled, spelled

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.model.effect import Effect
    from dowsing.commandline.reading.command_finder import CommandFinder
    from dowsing.commandline.unpicked import Unpicked
    from dowsing.index.store import Store
    from dowsing.tasks.choice import Choice
    from dowsing.tasks.filling import FilledRecipe
    from dowsing.tasks.recipe_ranking import Ranked

MOST_ANSWERS = 5
LEAST_SCORE = 2.0  # of an example of a page
SURE = 0.75  # so likely to be right, a line needs no remark
NEAR = 0.5  # what is less likely only comes near what was said
OF_PAGES = 0.4  # below that examples of pages may serve as well
LEAST_NEXT = 0.02  # of what comes next when a line was refused
LEAST = 0.12  # and what is less likely than that is not shown
LEAST_OF_HARM = 0.25  # nor is what destroys or stops something and is less likely than that
CERTAIN = 0.75  # so likely to be right, a line is as good as asked for by its name
ASKED = 0.3  # so likely it must be that harm is asked for
#: What nobody may be led to unasked. What only overwrites a file is told as an effect: most such
#: lines write to a name that was said.
LOOKED_AT = 6
_HOW_TO = re.compile(
    r"(?:how (?:do|can|could|would|should|to)|what do i (?:type|do|say)|is there (?:an?|any|some)"
    r"|what(?:['’]s| is) the (?:\w+ )?(?:command|way|trick|line|option)"
    r"|which (?:command|tool|line))\b",
    re.IGNORECASE,
)
#: Who says so wants nothing destroyed or stopped.
_HARMLESS = Pattern(
    r"\b(?:kill|delete|remove|stop|erase|destroy|change|touch|repair|do|end|drop)"
    r" (?:nothing|none)\b|\b(?:only|just) (?:show|look|list|tell|see)\b|\bdry[- ]run\b"
    r"|\bwithout doing (?:it|anything)"
    r"|\b(?:leave|keep) (?:it|them|that|this|everything|the \w+)"
    r" (?:running|alive|up|on|going|alone|as (?:it|they) (?:is|are))\b",
    "nothing",
    "none",
    "only",
    "just",
    "dry",
    "without",
    "leave",
    "keep",
)
#: Words of a line that a page has to tell of.
_TOLD_BY_PAGES = frozenset((Role.COMMAND, Role.SUBCOMMAND, Role.OPTION))
BEHIND = 2.5  # the best score: what is worse is no answer to the same question


class Filling(Record):
    """A slot of an answer: its name, its value (None if none was said), its kind."""

    name: str
    value: str | None
    kind: str


class Answer(Record):
    """A line for a task. `effects`: what it destroys or overwrites; `look`: the harmless line to
    look first; `checked`: every option of it was found in a page of this machine; `command`: that
    of the recipe, "" where the line is none of a recipe; `lacks`: what is said and it has nothing
    of, `lacks_much`: that is so much that it is another task; `longer`: it has more than what
    `task` tells.
    """

    line: str
    task: str
    slots: list[Filling]
    read: Unpicked
    origin: Origin
    effects: list[Effect]
    look: str
    checked: bool
    score: float = 0.0
    command: str = ""
    lacks: list[str] = []  # noqa: RUF012 - a record is immutable
    lacks_much: bool = False
    longer: bool = False


class Task(Record):
    """The answers to a sentence and what was said again about it, the best first; what of it was
    understood as values, conditions and tools; `likely`: the probability that the first answer is
    right; `near`: it is so small that the answers only come near; `misspelled`: the words that
    were read otherwise than they are spelled.
    """

    task: str
    again: list[str]
    answers: list[Answer]
    understood: list[str] = []  # noqa: RUF012 - a record is immutable
    near: bool = False
    likely: float = 1.0
    misspelled: list[Misspelled] = []  # noqa: RUF012

    @property
    def lacks(self) -> list[str]:
        """What is said and the first answer has nothing of."""
        return self.answers[0].lacks if self.answers else []


def lines_for(
    sentence: str,
    again: list[str],
    finder: CommandFinder,
    most: int = MOST_ANSWERS,
    own: list[Recipe] | None = None,
) -> Task:
    """The lines for a task said in plain words; `again` are revisions of it, the last one counting
    most.

    `own` are recipes of the user's.
    """
    steps = steps_of(again)
    barred = _barred(sentence, steps, finder, own)
    texts = [step.text for step in steps if step.kind is StepKind.SAYS]
    said, misspelled = _read(sentence, texts, finder.store, own or [])
    corpus, choice = chosen_corpus(finder.store, said, own or [])
    found = [one for one in ranked(said, corpus, finder, choice) if not barred.has(one)]
    likely = likelihood(found, read_confidence()) if found else 0.0
    if found and leaves_out_a_negation(found[0].left):
        likely = min(likely, NEAR - 0.01)
    least = LEAST_NEXT if barred.lines else LEAST
    answers = _answers(found, said, finder, most, choice, likely) if likely >= least else []
    answers = _complete_first(answers)
    if misspelled or (answers and answers[0].lacks):
        likely = min(likely, SURE - 0.01)
    if answers and answers[0].lacks_much and answers[0].effects:
        likely = min(likely, NEAR - 0.01)
    if likely < OF_PAGES and (answers or not corpus.chosen):
        others = [*_from_pages(said, finder), *([] if answers else _built(said, finder))]
        answers = [*answers, *(one for one in others if not harms(one))]
        answers = list({one.line: one for one in reversed(answers)}.values())[::-1][:most]
    first = answers[0].line if answers else ""
    near = bool(answers) and likely < NEAR
    made = next((one for one in found if first.endswith(one.filled.line)), None)
    placed = made.filled.placed if made is not None else []
    added = made.filled.added if made is not None else []
    told = [*understood(said, first, placed, added), *(f"not {line}" for line in barred.lines)]
    return Task(sentence, again, answers, told, near, round(likely, 3), misspelled)


def _read(
    sentence: str, again: list[str], store: Store, own: list[Recipe]
) -> tuple[ParsedSentence, list[Misspelled]]:
    """What is said, words that are spelled wrongly read as they are meant; these words."""
    ordinary = ordinary_of(store, " ".join([sentence, *again]), own)
    parts = [spelled(one, store, ordinary) for one in [sentence, *again]]
    misspelled = [word for one in parts for word in one.misspelled]
    texts = [one.text for one in parts]
    if misspelled:
        ordinary = ordinary_of(store, " ".join(texts), own)
    said = understand(texts[0], texts[1:], ordinary)
    read = {one.read for one in misspelled}  # says what is wanted, and never to what
    values = [one for one in said.values if not read.intersection(one.text.casefold().split())]
    return said.changed(values=values), misspelled


class _Barred(Record):
    """What was refused: recipes by task and command, commands, and the lines that these gave."""

    recipes: list[tuple[str, str]]
    commands: list[str]
    lines: list[str]

    def has(self, one: Ranked) -> bool:
        """Whether a recipe was refused."""
        recipe = one.filled.recipe
        return recipe.command in self.commands or (recipe.task, recipe.command) in self.recipes


def _barred(
    sentence: str, steps: list[Step], finder: CommandFinder, own: list[Recipe] | None
) -> _Barred:
    """What was refused: each time that which came first by what had been said until then."""
    found = _Barred([], [], [])
    for n, step in enumerate(steps):
        if step.kind is StepKind.SAYS:
            continue
        before = lines_for(sentence, [one.text for one in steps[:n]], finder, 1, own)
        for answer in before.answers[:1]:
            command = answer.command
            found.lines.append(answer.line)
            if step.kind is StepKind.OTHER_TOOL:
                found.commands.append(command)
            else:
                found.recipes.append((answer.task, command))
    return found


def _answers(
    found: list[Ranked],
    said: ParsedSentence,
    finder: CommandFinder,
    most: int,
    choice: Choice,
    likely: float,
) -> list[Answer]:
    """The answers of recipes. What destroys or stops something is left out unless it is likely that
    this is asked for, and what changes anything where only a question is asked.
    """
    answers: list[Answer] = []
    only_asks = _only_asks(said)
    for one in found:
        if len(answers) >= most or one.score < found[0].score - BEHIND:
            break
        if only_asks and one.evidence.changes:
            continue  # a question is no request for a change
        filled = as_root(one.filled) if said.as_root else one.filled
        if all(filled.line != answer.line for answer in answers):
            lacks = lacking(said, one)
            answer = answer_of(filled, finder, one.score)
            if answer.effects and not is_meant(said, one.filled, harms(answer)):
                continue
            if harms(answer) and one.evidence.near:
                continue  # it may be an addition that does the harm, which nobody asked for
            if one.filled.added and (answer.read.mistaken or _says_twice(answer.read)):
                continue  # the program here does not take it so
            answers.append(answer.changed(lacks=lacks.told, lacks_much=lacks.much))
    is_asked = choice.asks_harm >= ASKED or likely >= CERTAIN
    if not is_asked or likely < LEAST_OF_HARM or only_asks or _HARMLESS.search(said.text):
        answers = [one for one in answers if not harms(one)]
    return answers


def _says_twice(found: Unpicked) -> bool:
    """Whether an option with a value stands twice in a command, in whatever spelling."""
    for command in found.commands:
        given = [
            one.spelling.option.flags[0]
            for one in command.used
            if one.value is not None and not REPEATED.search(f"{one.flag} ")
        ]
        if len(given) != len(set(given)):
            return True
    return False


def _complete_first(answers: list[Answer]) -> list[Answer]:
    """The answers, none first that would change anything and lacks much of what is said: another
    goes before it. Where there is none, nothing is shown that destroys or stops something.
    """
    first = next((one for one in answers if not (one.lacks_much and one.effects)), None)
    if first is None:
        return [one for one in answers if not harms(one)]
    return [first, *(one for one in answers if one is not first)]


def _only_asks(said: ParsedSentence) -> bool:
    """Whether a sentence is a question, and not one for how to do something."""
    first = said.tokens[0].text if said.tokens else ""  # a value may stand before: `a.txt is old`
    *_, last = said.text.split(",")
    if last != said.text and sentence_marks(last)[-1:] != [QUESTION]:
        return False  # `how long until then, stop it`
    return QUESTION in said.marks and f"^{first}" in said.marks and not _HOW_TO.match(said.text)


def harms(answer: Answer) -> bool:
    """Whether a line destroys or stops something."""
    return any(effect.kind in HARMS for effect in answer.effects)


def as_root(filled: FilledRecipe) -> FilledRecipe:
    """The line run by sudo, where that is enough: a command of its own, without a file that the
    user's shell would write.
    """
    first = filled.line.split(" ")[0]
    plain = re.fullmatch(r"[\w./+-]+", first) and not re.search(
        r"[;&|]|[<>](?![a-z])(?<![a-z]>)", filled.line
    )
    if not plain or first in members_of(CommandClass.OF_THIS_SHELL):
        return filled
    return filled.changed(line=f"sudo {filled.line}")


def _from_pages(said: ParsedSentence, finder: CommandFinder) -> list[Answer]:
    """Examples of pages that answer, if every option of them is documented here."""
    found = ranked(said, corpus_of(finder.store, Meta.EXAMPLES), finder)[:LOOKED_AT]
    answers = [
        answer_of(one.filled, finder, one.score) for one in found if one.score >= LEAST_SCORE
    ]
    return [
        one.changed(origin=Origin(OriginKind.MANUAL, one.origin.page, one.origin.where))
        for one in answers
        if one.checked
    ]


def _built(said: ParsedSentence, finder: CommandFinder) -> list[Answer]:
    """Lines put together from the forms of commands."""
    from dowsing.tasks.building import built_lines

    answers = [(answer_of(one.filled, finder, 0.0), one.page) for one in built_lines(said, finder)]
    return [one.changed(origin=Origin(OriginKind.OPTION, page, page)) for one, page in answers]


def answer_of(filled: FilledRecipe, finder: CommandFinder, score: float) -> Answer:
    """A filled recipe as an answer, checked."""
    recipe = filled.recipe
    found = unpick(filled.line, finder)
    slots = [
        Filling(slot.name, filled.values[slot.name], slot.kind)
        for slot in recipe.slots
        if filled.values[slot.name] is not None or f"<{slot.name}>" in filled.line
    ]
    return Answer(
        filled.line,
        recipe.task,
        slots,
        found,
        Origin(
            OriginKind.SAVED if recipe.where == "saved" else OriginKind.RECIPE,
            _page_of(found),
            recipe.where,
        ),
        found.changes,
        with_values(recipe.look, filled.values),
        is_checked(found) or recipe.command == OWN,
        round(score, 3),
        recipe.command,
        longer=bool(filled.added),
    )


def shown_line(task: str, line: str, origin: Origin, finder: CommandFinder) -> Answer:
    """A line that is shown as it is, checked; its places without a value are slots."""
    found = unpick(line, finder)
    slots = [Filling(name, None, slot_of(name).kind) for name in dict.fromkeys(SLOT.findall(line))]
    return Answer(
        line,
        task,
        slots,
        found,
        origin.changed(page=_page_of(found)),
        found.changes,
        "",
        is_checked(found),
    )


def _page_of(found: Unpicked) -> str | None:
    """The page that documents the first command of a line."""
    return next((use.page for use in words_told(found.commands) if use.page), None)


def is_checked(found: Unpicked) -> bool:
    """Whether every command of a line is documented here and every option of it stands in a page,
    without a mistake.

    A place for a command is none yet.
    """
    told = [use for use in words_told(found.commands) if use.role in _TOLD_BY_PAGES]
    names = [*found.unnamed, *(use.word.text for use in told if not use.page)]
    return not found.mistaken and all(name.startswith("<") for name in names)
