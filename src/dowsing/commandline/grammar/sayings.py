"""What is said of the pieces of a line, as codes; render/phrases.py has the words."""

from __future__ import annotations

from enum import StrEnum

from dowsing.model.told import Code


class Grade(StrEnum):
    """How sure it is that something is wrong."""

    ERROR = "error"  # certain
    WARNING = "warning"  # it can be run, and surely does not what was meant


class ProblemCode(Code):
    """What is wrong with a piece, or with the line as the shell reads it."""

    UNKNOWN_COMMAND = "unknown command"
    UNKNOWN_OPTION = "unknown option"  # page, option
    AMBIGUOUS_OPTION = "ambiguous option"  # option
    MISSING_VALUE = "missing value"  # option, what it needs
    MISSING_CLOSER = "missing closer"  # option that a command follows
    OPTION_AS_VALUE = "option as value"  # option
    NO_VALUE_WANTED = "no value wanted"  # option
    WRONG_VALUE = "wrong value"  # a WrongValue
    NOT_ALLOWED = "not allowed"  # the allowed ones
    NO_SUBCOMMAND = "no subcommand"  # command, word
    UNLISTED_SUBCOMMAND = "unlisted subcommand"  # page, word
    MISSING_OPERAND = "missing operand"  # command, what is missing
    EXTRA_OPERAND = "extra operand"  # command
    HISTORY = "history"  # what would be looked for among the lines run before
    ONLY_WITH = "only with"  # option, those of which it needs one
    UNKNOWN_KEY = "unknown key"  # command, key
    EXCLUDES = "excludes"  # option, the one before it
    NEEDS_ONE_OF = "needs one of"  # command, options
    LETTERS_AS_VALUE = "letters as value"  # option, the letters
    ACTION_BEFORE_TEST = "action before test"  # action, test
    PATH_AFTER_TEST = "path after test"  # path, test
    UNQUOTED_PATTERN = "unquoted pattern"  # command
    OUTPUT_IS_INPUT = "output is input"  # file
    REDIRECTS_IN_TEST = "redirects in test"  # operator, file
    UNQUOTED_EXPANSION = "unquoted expansion"  # the word
    EMPTY_IS_ROOT = "empty is root"  # the variable
    REDIRECTED_AS_USER = "redirected as user"  # command, file
    ERRORS_BEFORE_OUTPUT = "errors before output"  # the redirection of the output
    ADDRESS_CUT = "address cut"
    VERSION_REDIRECTED = "version redirected"  # file
    BLANKS_AROUND_EQUALS = "blanks around equals"  # before, behind
    GOES_ON_ELSEWHERE = "goes on elsewhere"  # both commands
    NAMES_FROM_LISTING = "names from listing"
    INPUT_TAKEN = "input taken"  # command
    NOT_SORTED = "not sorted"  # command
    UNITS_AS_NUMBERS = "units as numbers"  # option
    NAMES_WITH_BLANKS = "names with blanks"  # command
    FILE_AS_COMMAND = "file as command"  # file
    BEHIND_IMAGE = "behind image"  # option, command
    OF_ANOTHER = "of another"  # command, the program that it is a part of, option
    LETTERS_FOR_VALUE = "letters for value"  # option, letters
    DOLLAR_IN_QUOTES = "dollar in quotes"  # variable, command
    SWAPPED = "swapped"  # file, option
    PASSWORD_APART = "password apart"  # word, option
    NUMBER_FOR_FILE = "number for file"  # option, number
    ONLY_THE_LAST = "only the last"  # action
    PROGRAM_FAULT = "program fault"  # a LanguageFault
    # of the shell's grammar
    COMMAND_MISSING = "command missing"  # operator
    FILE_MISSING = "file missing"  # operator
    NO_TERMINATOR = "no terminator"  # of a here-document
    NOT_CLOSED = "not closed"  # what was opened
    NEEDS_CLOSER = "needs closer"  # keyword, what it needs
    SENSELESS = "senseless"
    TOO_DEEP = "too deep"
    TOO_LONG = "too long"


#: Problems that a line which is still being typed may yet lose: what is missing may come.
UNFINISHED = frozenset(
    (ProblemCode.MISSING_VALUE, ProblemCode.MISSING_CLOSER, ProblemCode.OPTION_AS_VALUE)
)


class Meaning(Code):
    """What a piece means, where that is no text of a page."""

    # commands
    DYNAMIC_COMMAND = "dynamic command"
    OWN_FILE = "own file"
    OWN_FUNCTION = "own function"
    UNDOCUMENTED = "undocumented"
    NOT_HERE = "not here"
    ALIAS = "alias"  # the line it stands for
    EARLIER_LINE = "earlier line"
    # options
    ENDS_OPTIONS = "ends options"
    HELP_BY_CUSTOM = "help by custom"
    VERSION_BY_CUSTOM = "version by custom"
    UNDOCUMENTED_OPTION = "undocumented option"
    DYNAMIC_OPTION = "dynamic option"
    ONLY_MENTIONED = "only mentioned"
    CONTRARY_NOT_TOLD = "contrary not told"  # page, the option that it is the contrary of
    NOT_TOLD = "not told"  # page
    # operands
    BY_CONVENTION = "by convention"  # what it stands for there
    STANDARD_STREAM = "standard stream"
    TOO_DEEP = "too deep"
    # expressions
    BEGINS_GROUP = "begins group"
    ENDS_GROUP = "ends group"
    NEGATES = "negates"
    EITHER = "either"
    BOTH = "both"
    SECOND_COUNTS = "second counts"
    ONCE_EACH = "once each"
    AS_MANY_AS_FIT = "as many as fit"
    # the shell
    OPERATOR = "operator"  # the operator
    KEYWORD = "keyword"  # the keyword
    TEST = "test"  # the operator within [[ ]]
    BRACKET_TEST = "bracket test"  # the operator within [ ]
    ENDS_TEST = "ends test"
    OR_CASE = "or case"
    ENDS_PATTERN = "ends pattern"
    BEGINS_PATTERN = "begins pattern"
    SETS = "sets"  # name, value
    EMPTIES = "empties"  # name
    COMMENT = "comment"
    HERE_TEXT = "here text"
    HERE_END = "here end"
    OUTPUT_OF = "output of"
    FILE_OF_OUTPUT = "file of output"
    FILE_FOR_INPUT = "file for input"
    REDIRECTION = "redirection"  # operator with the number before it, target


class Manner(Code):
    """How a word came to be what it is, where its own text does not show it."""

    KEYWORD = "keyword"
    ALIAS = "alias"
    BY_ALIAS = "by alias"
    NO_DASH = "no dash"
    SHORT_FOR = "short for"  # the whole word
    SAME_AS = "same as"  # option, value
    UNLISTED = "unlisted"
    SHELL_LINE = "shell line"
    LATER_LINE = "later line"
    SCRIPT = "script"
    SCRIPT_ARGUMENT = "script argument"
    PROGRAM_ARGUMENT = "program argument"
    LOOP_VARIABLE = "loop variable"
    LOOP_VALUE = "loop value"
    CASE_VALUE = "case value"
    CASE_PATTERN = "case pattern"
    FUNCTION_NAME = "function name"
    ARITHMETIC = "arithmetic"


class Lack(Code):
    """What a line needs before it can be run."""

    COMMAND = "command"
    REST_OF_COMMAND = "rest of command"  # what is typed of it
    REST_OF_SUBCOMMAND = "rest of subcommand"  # what is typed of it
    REST_OF_OPTION = "rest of option"  # what is typed of it
    COMMAND_TO_RUN = "command to run"
    VALUE_FOR = "value for"  # option, placeholder
    VALUE = "value"
    FILE = "file"
    VARIABLE = "variable"
    ELEMENT = "element"  # of a form, as it is written there


class EffectCode(Code):
    """What a line does that cannot be undone, where no text says it."""

    REPLACES_CONTENTS = "replaces contents"  # file
    ADDS_TO = "adds to"  # file
    RUNS_UNSEEN = "runs unseen"
    RUNS_NAMED = "runs named"  # the variable
    LOSES_DATA = "loses data"  # statement
    CHANGES_DATA = "changes data"  # statement
