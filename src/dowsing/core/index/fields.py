"""The fields that a term of an entry may stand in, as bits of one byte, in two parts: heads and text."""

from __future__ import annotations

#: Parts. The texts of a term that very many entries have in their heads are a part of their own: ranking does without.
HEADS, TEXT, COMMON_TEXT = 0, 1, 2

# Fields of the heads.
WHOLE_NAME, IN_NAME, IN_ALIAS, IN_SUMMARY, IS_MEANING, IN_TASK = 1, 2, 4, 8, 16, 32
# Fields of the text.
IN_LEAD, IS_FLAG, IN_OPTION, IN_HEADING = 1, 2, 4, 8
