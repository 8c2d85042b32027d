"""What may be wrong in the acts of a command: places that are not there, and words of loss without
an effect.
"""

from __future__ import annotations

import re

from dowsing.knowledge.command_facts import PLACE

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.command_facts import Act, CommandFacts
    from dowsing.knowledge.effects import EffectFact

#: How words begin that say that something is lost, replaced or no longer goes on.
_LOSS = re.compile(
    r"(?:removes|deletes|erases|empties|clears|drops|overwrites|replaces|writes|edits|moves|renames"
    r"|stops|ends|kills|unmounts|installs|locks)\b"
)
#: Names of what a line gives any command: see commandline/meaning/binding.py.
_GIVEN = frozenset("in adds names settings inner line * -1".split())


def faults_of_acts(facts: CommandFacts) -> list[str]:
    """What is wrong in the acts of a command, a text each."""
    faults = [fault for act in facts.clauses for fault in _missing_places(act, facts)]
    beside = [act.effect for act in facts.acts if act.effect is not None and not act.says]
    return faults + [
        f"“{act.says}” has no effect and is not harmless"
        for act in facts.clauses
        if _LOSS.match(act.says) and not act.harmless and not _has_effect(act, beside)
    ]


def _has_effect(act: Act, beside: list[EffectFact]) -> bool:
    """Whether an act has an effect, or one of the rows beside it holds where the act does."""
    options = set(re.split(r"[ |]", act.when))
    return act.effect is not None or any(
        not one.when or options & {flag.partition("=")[0] for flag in one.when} for one in beside
    )


def _missing_places(act: Act, facts: CommandFacts) -> list[str]:
    """The places of a clause that the forms of its command do not have."""
    if not facts.forms:  # those of its page, which may name anything
        return []
    named = " ".join(facts.forms)
    faults = []
    for _, name, _ in re.findall(PLACE, act.says):
        is_counted = re.fullmatch(r"\d-?", name) is not None
        if name in _GIVEN or is_counted or name[:1] == "-" or name in named:
            continue
        if not any(name in spelling for one in facts.options for spelling in one.flags):
            faults.append(f"“{act.says}” names {name}, which no form has")
    return faults
