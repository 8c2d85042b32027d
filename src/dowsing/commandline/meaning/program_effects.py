"""What the programs and statements do that stand in a line: awk's `system(…)`, perl's `unlink`,
sed's `w`, SQL's DROP. What is looked for is data (knowledge/commands/programs.toml).
"""

from __future__ import annotations

import os
import re

from dowsing.commandline.grammar.sayings import EffectCode
from dowsing.commandline.languages.value_language import LanguageValue, language_values
from dowsing.commandline.model.effect import Effect
from dowsing.knowledge.command_classes import CommandClass
from dowsing.knowledge.effects import EffectKind, ProgramEffect, program_effects
from dowsing.model.told import told

TYPE_CHECKING = False
if TYPE_CHECKING:
    from collections.abc import Iterator

    from dowsing.commandline.model.tree import CommandNode

_QUOTED = r"(?s)'(?:\\.|[^'\\])*'|\"(?:\\.|[^\"\\])*\""
_GIVEN = "program-"  # begins the names of languages of which only little is read
_SQL = "sql"


def effects_of_programs(node: CommandNode) -> list[Effect]:
    """What the programs in the words of a command do, the worst of each."""
    found = []
    for language, text in _texts(node):
        worst = next((one for one in program_effects(language) if _is_there(one, text)), None)
        if worst is None:
            continue
        words = os.path.basename(node.name.value)
        if language == _SQL:
            is_lost = worst.does is EffectKind.DESTROYS
            code = EffectCode.LOSES_DATA if is_lost else EffectCode.CHANGES_DATA
            found.append(Effect(words, told(code, " ".join(text.split())), kind=worst.does))
        else:
            found.append(Effect(words, worst.says, kind=worst.does))
    return found


def _texts(node: CommandNode) -> Iterator[tuple[str, str]]:
    """The texts of a command that are written in a language, each with the language."""
    for value in language_values(node):
        yield _language(value), value.value
    if node.is_of(CommandClass.SQL_CLIENT):
        told_already = {id(value.word) for value in language_values(node)}
        for use in node.operands:
            if " " in use.word.value and id(use.word) not in told_already:
                yield _SQL, use.word.value


def _language(value: LanguageValue) -> str:
    return value.language.removeprefix(_GIVEN).partition("-")[0]


def _is_there(one: ProgramEffect, text: str) -> bool:
    looked_at = re.sub(_QUOTED, "''", text) if one.outside_quotes else text
    return re.search(one.pattern, looked_at, re.IGNORECASE) is not None
