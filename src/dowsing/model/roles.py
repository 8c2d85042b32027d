"""What a piece of a command line is."""

from __future__ import annotations

from enum import StrEnum


class Role(StrEnum):
    """The role of a piece, or of what may come next in a line; the values are those of the JSON
    contract.
    """

    COMMAND = "command"
    SUBCOMMAND = "subcommand"
    OPTION = "option"
    VALUE = "value"
    OPERAND = "operand"
    OPERATOR = "operator"
    REDIRECTION = "redirection"
    ASSIGNMENT = "assignment"
    SUBSTITUTION = "substitution"
    KEYWORD = "keyword"
    COMMENT = "comment"
