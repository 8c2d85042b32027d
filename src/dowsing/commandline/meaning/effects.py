"""What a line destroys, overwrites, changes, stops, sends or runs: by the acts of commands
(knowledge/commands), else by what the pages say of it.
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.grammar.sayings import EffectCode
from dowsing.commandline.grammar.shell_words import Mark
from dowsing.commandline.judging.certainty import adds_operands, tells_only
from dowsing.commandline.meaning.conditions import holds
from dowsing.commandline.meaning.fetched_code import fetched_and_run
from dowsing.commandline.meaning.program_effects import effects_of_programs
from dowsing.commandline.model.effect import Effect
from dowsing.knowledge.effects import EffectKind
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.commandline.meaning.meaning import Meaning
    from dowsing.commandline.meaning.nodes import Doing
    from dowsing.commandline.model.tree import CommandNode, Line, OperandUse
    from dowsing.knowledge.command_facts import Act
    from dowsing.knowledge.conventions import Conventions
    from dowsing.knowledge.effects import EffectFact

#: First words of a text that say that something is lost.
_DESTROYS = (
    r"(?:forcibly |permanently |recursively )?(?:remove|delete|erase|destroy|overwrite|purge|wipe"
    r"|discard|truncate|kill|drop)s?"
    r"\b(?!.*\beach line\b)(?:\W+\w+){0,6}?\W+(?:files?|director(?:y|ies)|folders?|entr(?:y|ies)"
    r"|packages?|users?|groups?|"
    r"databases?|tables?|partitions?|disks?|devices?|data|branch(?:es)?|keys?|modules?|containers?"
    r"|images?|volumes?|"
    r"accounts?|history|process(?:es)?|contents?|archives?|members?|repositor(?:y|ies)|commits?"
    r"|changes|snapshots?|machines?|domains?|pools?|networks?)\b"
)
_VERBS_OF_LOSS = ("remov delet eras destroy overwrit purg wip discard truncat kill drop").split()
#: Targets of a redirection that hold nothing.
SAFE_TARGETS = frozenset(("/dev/null", "/dev/stderr", "/dev/stdout", "/dev/tty"))
#: Files that the system reads.
_OF_SYSTEM = r"/(?:etc|boot|proc|sys|usr|lib|var/spool)/"
_MADE = r"(\w+)=\"?(?:\$\(|`)\s*mktemp\b"
_PUT_IN = "{}"
MOST_NAMED = 3  # objects that a message names


def effects(
    commands: list[CommandNode], lines: list[Line], meaning: Meaning, conventions: Conventions
) -> list[Effect]:
    """What a line does that cannot be undone; [] if nothing is known of. `commands`: all of the
    line, the carried ones too; `lines`: it and those within its words.
    """
    own = _made_here(lines)
    found = [
        one
        for command in commands
        if not _is_of_own(command, own)
        for one in effects_of_command(meaning.of(command), conventions)
    ]
    found += [one for line in lines for _, one in effects_of_line(line)]
    order = list(EffectKind)
    once = {(one.words, one.does, one.look): one for one in found}
    return sorted(once.values(), key=lambda one: order.index(one.kind))


def _made_here(lines: list[Line]) -> set[str]:
    """The variables that are set on the line to a new temporary file, as they are written."""
    marks = (part for line in lines for part in line.parts if isinstance(part, Mark))
    names = (match[1] for mark in marks if (match := re.match(_MADE, mark.text)))
    return {form for name in names for form in (f"${name}", f'"${name}"', f"${{{name}}}")}


def _is_of_own(node: CommandNode, own: set[str]) -> bool:
    """Whether all that it works on was made on the same line."""
    return bool(own and node.operands) and all(use.word.text in own for use in node.operands)


def effects_of_command(doing: Doing, conventions: Conventions) -> list[Effect]:
    """What one command does."""
    if doing.looks or tells_only(doing.node):
        return []
    return _of_command(doing, conventions) + effects_of_programs(doing.node)


def effects_of_line(line: Line) -> list[tuple[int, Effect]]:
    """What the redirections between the commands of one line do, and what the whole does, with the
    places.
    """
    found = [
        (mark.start, one)
        for pipeline in line.pipelines
        for mark in pipeline.redirections
        if (one := _of_redirection(mark))
    ]
    for run in fetched_and_run(line):
        does = told(EffectCode.RUNS_UNSEEN)
        found.append((run.place, Effect(run.words, does, kind=EffectKind.RUNS)))
    return found


def _of_redirection(mark: Mark) -> Effect | None:
    """What is lost where a redirection empties a file, or changed where it adds to one of the
    system.
    """
    if mark.operator == ">>" and mark.word is not None and re.match(_OF_SYSTEM, mark.word.value):
        does = told(EffectCode.ADDS_TO, mark.word.value)
        return Effect(mark.text, does, kind=EffectKind.CHANGES)
    target = mark.emptied
    if not target or target in SAFE_TARGETS:
        return None
    does = told(EffectCode.REPLACES_CONTENTS, target)
    return Effect(mark.text, does, kind=EffectKind.OVERWRITES)


def _of_command(doing: Doing, conventions: Conventions) -> list[Effect]:
    node = doing.node
    rows, words, rest = _rows(doing, conventions)
    below = node.known.words.split(" ")[len(words.split(" ")) :]  # subcommands behind those words
    found = []
    for row in rows or ():
        operands = _operands(row, rest, below)
        if operands is None or not _holds(row, node, words):
            continue
        is_below = row.operand != "" and any(re.search(row.operand, word) for word in below)
        is_fed = adds_operands(node) and row.least == 1
        if len(operands) < row.least and not is_below and not is_fed:
            continue
        option = node.use_of(row.value) if row.value else None
        if option is not None and option.value in (*SAFE_TARGETS, "-"):
            continue
        if option is None and row.value and row.value not in row.when:
            continue  # what it makes goes to its output
        found.append(_effect(row, node, words, operands))
    if rows is None:
        found += _told_otherwise(node)
    return found


def _rows(
    doing: Doing, conventions: Conventions
) -> tuple[list[EffectFact] | None, str, list[OperandUse]]:
    """The effects of a command, None if none are known of it, the words by which they were found,
    and the operands behind these. Where its subcommands are not known here, its first operands are
    tried as such.
    """
    node = doing.node
    name = os.path.basename(node.known.words.split(" ")[0])
    words = " ".join([name, *node.known.words.split(" ")[1:]])
    spoken = [use.word.value for use in node.operands[:2]]
    for count in (2, 1):
        if len(spoken) >= count:
            longer = " ".join([words, *spoken[:count]])
            if acts := conventions.acts(longer):
                return _effects_now(acts, doing), longer, node.operands[count:]
    while not (acts := conventions.acts(words)) and " " in words:
        words = words.rpartition(" ")[0]
    return (_effects_now(acts, doing) if acts else None), words, node.operands


def _effects_now(acts: list[Act], doing: Doing) -> list[EffectFact]:
    """The effects of the act that is done, and of the rows without words. Where those acts are not
    the command's own, that is the first that holds.
    """
    done = doing.act
    if done not in acts:
        carries = doing.given.carries
        clauses = (act for act in acts if act.says)
        done = next((act for act in clauses if holds(act.when, doing.node, False, carries)), None)
    return [act.effect for act in acts if act.effect is not None and (act is done or not act.says)]


def _operands(row: EffectFact, uses: list[OperandUse], below: list[str]) -> list[OperandUse] | None:
    """The operands that it happens to; None if the row asks for one that is not there, nor among
    the subcommands `below`.
    """
    if row.does is EffectKind.OVERWRITES and uses:
        uses = [use for use in uses if use.word.value not in SAFE_TARGETS]
        if not uses:
            return None
    if row.operand and any(re.search(row.operand, word) for word in below):
        return uses
    if row.operand:
        found = [use for use in uses if re.search(row.operand, use.word.value)]
        return found or None
    if row.role:
        told_roles = [use for use in uses if use.slot is not None and use.slot.role == row.role]
        return told_roles or (uses if len(uses) > 1 else [])
    return uses


def _holds(row: EffectFact, node: CommandNode, words: str) -> bool:
    """Whether one of the conditions of the row holds, and none that makes it harmless; words are
    subcommands, or options without a dash.
    """
    subcommands = words.split(" ")[1:]

    def is_so(condition: str) -> bool:
        if condition[:1] == "-":
            return holds(condition, node)
        return condition in subcommands or node.use_of(condition) is not None

    return not any(map(is_so, row.unless)) and (not row.when or any(map(is_so, row.when)))


def _effect(row: EffectFact, node: CommandNode, words: str, uses: list[OperandUse]) -> Effect:
    option = node.use_of(row.value) if row.value else None
    if option is not None and option.value:
        named = [option.value]
    else:
        named = [use.word.value.lstrip("+:") if row.operand else use.word.text for use in uses]
    if row.role == "target" and not any(
        use.slot is not None and use.slot.role == "target" for use in uses
    ):
        named = named[-1:]
    # what another command puts into the line has no name there
    is_named = len(named) <= MOST_NAMED and not any(_PUT_IN in one for one in named)
    given = " and ".join(named) if is_named else ""
    says = re.sub(r"\{(.*?)\}", lambda match: given or _else(match[1]), row.says)
    flags = [
        use.flag for use in node.used if any(one.partition("=")[0] == use.flag for one in row.when)
    ]
    return Effect(" ".join([words, *flags[:1]]), says, row.look, row.does)


def _else(words: str) -> str:
    """What is said where the line names nothing: `{given}` has no words for that."""
    return "" if words == "given" else words


def _told_otherwise(node: CommandNode) -> list[Effect]:
    """What the texts of pages begin with."""
    known = node.known
    found = []
    if _says_lost(known.summary) and (node.operands or known.parent):
        found.append(Effect(known.words, _first(known.summary), kind=EffectKind.DESTROYS))
    for use in node.used:
        says = use.spelling.option.text
        if _says_lost(says):
            words = f"{known.words} {use.flag}"
            found.append(Effect(words, _first(says), kind=EffectKind.DESTROYS))
    return found


def _says_lost(text: str) -> bool:
    """Whether a text begins with words that say that something is lost."""
    begin = text[:40].lower()
    # most begin otherwise, and need no pattern
    if not any(verb in begin for verb in _VERBS_OF_LOSS):
        return False
    return re.match(_DESTROYS, text, re.IGNORECASE) is not None


def _first(text: str) -> str:
    return re.split(r"(?<=[a-z)])[.;:](?:\s|\Z)", text, maxsplit=1)[0]
