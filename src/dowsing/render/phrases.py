"""The words for what the program says of its own accord: a sentence, or a part of one, for each
code.
"""

from __future__ import annotations

import re

from dowsing.model.told import Told

#: The name of a code -> its words; `{0}`, `{1}` are what goes into them. They go by names, so that
#: the modules of codes that a command does not use need not be loaded; a test asks for all codes.
WORDS = {
    "ProblemCode.UNKNOWN_COMMAND": "unknown command: nothing here has that name",
    "ProblemCode.UNKNOWN_OPTION": "unknown option: {0} has no {1}",
    "ProblemCode.AMBIGUOUS_OPTION": "{0} may mean several options",
    "ProblemCode.MISSING_VALUE": "missing value: {0} needs {1}",
    "ProblemCode.MISSING_CLOSER": "missing value: {0} needs \\; or + after the command",
    "ProblemCode.OPTION_AS_VALUE": "missing value: {0} takes this option for its value",
    "ProblemCode.NO_VALUE_WANTED": "value where none is wanted: {0} takes none",
    "ProblemCode.WRONG_VALUE": "value of a wrong kind: {0}",
    "ProblemCode.NOT_ALLOWED": "value of a wrong kind: one of {0} is wanted",
    "ProblemCode.NO_SUBCOMMAND": "wrong subcommand: {0} has no {1}",
    "ProblemCode.UNLISTED_SUBCOMMAND": "wrong subcommand: {0} lists no {1}",
    "ProblemCode.MISSING_OPERAND": "missing operand: {0} needs {1}",
    "ProblemCode.EXTRA_OPERAND": "one word too many: {0} has no place for it",
    "ProblemCode.HISTORY": "typed at a prompt, {0} is replaced by a line run before; "
    "put it in single quotes",
    "ProblemCode.ONLY_WITH": "{0} does nothing without {1}",
    "ProblemCode.UNKNOWN_KEY": "wrong operand: {0} has no {1}",
    "ProblemCode.EXCLUDES": "{0} and {1} rule each other out",
    "ProblemCode.NEEDS_ONE_OF": "{0} needs one of {1} to do anything",
    "ProblemCode.LETTERS_AS_VALUE": "{0} takes the letters after it, “{1}”, as its file; "
    "put it last",
    "ProblemCode.ACTION_BEFORE_TEST": "{0} acts before {1} is looked at, on everything; "
    "put it last",
    "ProblemCode.PATH_AFTER_TEST": "{0} is a path and must stand before {1}",
    "ProblemCode.UNQUOTED_PATTERN": "the shell may replace this by names of files before {0} sees "
    "it; put it in quotes",
    "ProblemCode.OUTPUT_IS_INPUT": "{0} is emptied before it is read; write to another file",
    "ProblemCode.REDIRECTS_IN_TEST": "within [ ] the shell takes {0} for a redirection to {1}; "
    "escape it to compare",
    "ProblemCode.UNQUOTED_EXPANSION": "without quotes the shell makes several words of {0} where "
    "there are blanks in it, or none if it is empty",
    "ProblemCode.EMPTY_IS_ROOT": "if {0} is empty or not set, this is the root folder; "
    "${{{0}:?}} would stop there",
    "ProblemCode.REDIRECTED_AS_USER": "the shell opens {1} with your rights before {0} begins; "
    "put a pipe and “sudo tee {1}” there",
    "ProblemCode.ERRORS_BEFORE_OUTPUT": "errors go where the output went before {0}; put this "
    "behind it",
    "ProblemCode.ADDRESS_CUT": "without quotes the shell ends the command here and runs it in "
    "the background",
    "ProblemCode.VERSION_REDIRECTED": "without quotes the shell writes the output to a file "
    "called {0}",
    "ProblemCode.BLANKS_AROUND_EQUALS": "with blanks around it, “=” is a word of its own",
    "ProblemCode.GOES_ON_ELSEWHERE": "if {0} fails, {1} does its work in this folder",
    "ProblemCode.NAMES_FROM_LISTING": "names with blanks become several words; a pattern such as "
    "*.txt gives them whole",
    "ProblemCode.INPUT_TAKEN": "{0} reads the rest of what the loop is to read; give it < "
    "/dev/null",
    "ProblemCode.NOT_SORTED": "{0} looks only at lines next to each other, and nothing sorts "
    "them before",
    "ProblemCode.UNITS_AS_NUMBERS": "{0} looks only at the number and not at the unit (K, M, G)",
    "ProblemCode.NAMES_WITH_BLANKS": "{0} splits names at blanks; use find -print0 and {0} -0",
    "ProblemCode.FILE_AS_COMMAND": "{0} stands where a command must stand; to be read, it "
    "belongs before the pipe or behind “<”",
    "ProblemCode.OF_ANOTHER": "careful: what runs here is {0} of {1}, whose help lists no {2}",
    "ProblemCode.BEHIND_IMAGE": "{0} stands behind the image: it goes to the container, not to {1}",
    "ProblemCode.LETTERS_FOR_VALUE": "{0} takes “{1}” for its value; write the letters apart",
    "ProblemCode.DOLLAR_IN_QUOTES": "within double quotes the shell replaces {0} before {1} sees "
    "it; use single quotes",
    "ProblemCode.SWAPPED": "{0} is what {1} writes, so that it is overwritten; the names may be "
    "swapped",
    "ProblemCode.PASSWORD_APART": "“{0}” is not the password: that stands in the word of {1}, "
    "or {1} asks for it",
    "ProblemCode.NUMBER_FOR_FILE": "{0} takes no value, so that {1} is taken for a file",
    "ProblemCode.ONLY_THE_LAST": "{0} counts only for what stands behind the last -o; put the "
    "tests in \\( \\)",
    "ProblemCode.PROGRAM_FAULT": "unfinished program: {0}",
    "LanguageFault.NOT_CLOSED": "{0} is not closed",
    "LanguageFault.CLOSES_NOTHING": "{0} closes nothing",
    "LanguageFault.PART_MISSING": "{0} needs three {1}",
    "LanguageFault.UNKNOWN_FLAG": "{1} takes no {0}",
    "LanguageFault.UNKNOWN_COMMAND": "there is no command {0}",
    "LanguageFault.NO_SORT_KEY": "a key is the number of a field, such as 2 or 2,2n",
    "LanguageFault.NO_SUCH_LABEL": "there is no label {0}",
    "LanguageFault.ENDS_IN_BACKSLASH": "nothing follows the last backslash",
    "ProblemCode.COMMAND_MISSING": "a command is missing after {0}",
    "ProblemCode.FILE_MISSING": "a file name is missing after {0}",
    "ProblemCode.NO_TERMINATOR": "the here-document needs a line that is {0} alone",
    "ProblemCode.NOT_CLOSED": "{0} is opened here and not closed",
    "ProblemCode.NEEDS_CLOSER": "{0} needs a {1} after it",
    "ProblemCode.SENSELESS": "the shell cannot make sense of this",
    "ProblemCode.TOO_DEEP": "from here on it is nested too deep to be taken apart",
    "ProblemCode.TOO_LONG": "from here on it is too long to be taken apart",
    "WrongValue.NO_NUMBER": "a number is wanted here",
    "WrongValue.NO_DURATION": "a time is wanted here, such as 10",
    "WrongValue.NO_SIZE": "a size is wanted here, such as 10M",
    "WrongValue.NO_PORT": "a port is wanted here, a number up to 65535",
    "WrongValue.PORT_TOO_HIGH": "a port is a number up to 65535",
    "WrongValue.NO_SIGNAL_NAME": "there is no signal of that name",
    "WrongValue.NO_SIGNAL_NUMBER": "there is no signal of that number",
    "WrongValue.NO_UNIT": "there is no such unit",
    "WrongValue.NO_MODE": "a mode is wanted here, such as 750 or u+rw",
    "Meaning.DYNAMIC_COMMAND": "the command that this stands for",
    "Meaning.OWN_FILE": "a file of your own",
    "Meaning.OWN_FUNCTION": "a function that this text defines",
    "Meaning.UNDOCUMENTED": "it can be run here; nothing here documents it",
    "Meaning.NOT_HERE": "nothing here has that name, and nothing documents it",
    "Meaning.ALIAS": "stands for: {0}",
    "Meaning.EARLIER_LINE": "a line run before, put here by the shell at a prompt",
    "Meaning.ENDS_OPTIONS": "ends the options: what follows is taken as it stands",
    "Meaning.HELP_BY_CUSTOM": "by custom, prints a help text",
    "Meaning.VERSION_BY_CUSTOM": "by custom, prints the version",
    "Meaning.UNDOCUMENTED_OPTION": "not documented here",
    "Meaning.DYNAMIC_OPTION": "an option that the shell puts together",
    "Meaning.ONLY_MENTIONED": "named in the text of its page, without an entry of its own",
    "Meaning.CONTRARY_NOT_TOLD": "by custom the contrary of {1}; {0} does not tell of it",
    "Meaning.NOT_TOLD": "{0} does not tell of it",
    "Meaning.BY_CONVENTION": "{0}",
    "Meaning.STANDARD_STREAM": "the standard input or output in place of a file",
    "Meaning.TOO_DEEP": "commands within commands, too deep to tell",
    "Meaning.BEGINS_GROUP": "begins a group",
    "Meaning.ENDS_GROUP": "ends a group",
    "Meaning.NEGATES": "true if what follows is false",
    "Meaning.EITHER": "or",
    "Meaning.BOTH": "and",
    "Meaning.SECOND_COUNTS": "both are done; the second counts",
    "Meaning.ONCE_EACH": "ends the command: it is run once for each file",
    "Meaning.AS_MANY_AS_FIT": "ends the command: it is run with as many files as fit",
    "Meaning.ENDS_TEST": "ends the test",
    "Meaning.OR_CASE": "or",
    "Meaning.ENDS_PATTERN": "ends the patterns: what follows is done for them",
    "Meaning.BEGINS_PATTERN": "begins the patterns",
    "Meaning.SETS": "sets {0} to {1}",
    "Meaning.EMPTIES": "empties {0}",
    "Meaning.COMMENT": "a remark: the shell passes over it",
    "Meaning.HERE_TEXT": "the text that the command reads",
    "Meaning.HERE_END": "ends the text",
    "Meaning.OUTPUT_OF": "what these commands print",
    "Meaning.FILE_OF_OUTPUT": "a file name that gives what these commands print",
    "Meaning.FILE_FOR_INPUT": "a file name whose contents go to these commands",
    "Manner.KEYWORD": "keyword",
    "Manner.ALIAS": "alias",
    "Manner.BY_ALIAS": "by the alias",
    "Manner.NO_DASH": "without a dash",
    "Manner.SHORT_FOR": "short for {0}",
    "Manner.SAME_AS": "the same as {0} {1}",
    "Manner.UNLISTED": "not listed",
    "Manner.SHELL_LINE": "a line of the shell",
    "Manner.LATER_LINE": "a line that is run later",
    "Manner.SCRIPT": "script",
    "Manner.SCRIPT_ARGUMENT": "argument of the script",
    "Manner.PROGRAM_ARGUMENT": "argument of the program",
    "Manner.LOOP_VARIABLE": "loop variable",
    "Manner.LOOP_VALUE": "loop value",
    "Manner.CASE_VALUE": "case value",
    "Manner.CASE_PATTERN": "case pattern",
    "Manner.FUNCTION_NAME": "function name",
    "Manner.ARITHMETIC": "arithmetic",
    "FileStep.FROM": "begins with the image {0}",
    "FileStep.STAGE": "begins with the image {0}, as {1}",
    "FileStep.COPY": "copies {0} to {1} in the image",
    "FileStep.COPY_FROM": "copies {0} of {2} to {1} in the image",
    "FileStep.FETCH": "fetches {0} to {1} in the image",
    "FileStep.FOLDER": "goes on in the folder {0}",
    "FileStep.USER": "goes on as {0}",
    "FileStep.SETS": "sets {0}",
    "FileStep.TAKES": "takes {0} from whoever builds it",
    "FileStep.PORT": "says that it listens at port {0}",
    "FileStep.KEPT": "keeps {0} outside the container",
    "Where.BUILD_STEP": "{0}",
    "Where.TARGET": "target {0}",
    "Where.UNIT_KEY": "{0}",
    "Where.SCHEDULE": "{0}",
    "Lack.COMMAND": "a command",
    "Lack.REST_OF_COMMAND": "the rest of the command’s name after {0}",
    "Lack.REST_OF_SUBCOMMAND": "the rest of the subcommand after {0}",
    "PartNote.BUNDLE": "letters of options without a dash: one of the first, any of the others",
    "PartNote.KEYS": "a name and its value, NAME=VALUE; the names: {0}",
    "Lack.VARIABLE": "a variable of the shell",
    "Lack.REST_OF_OPTION": "the rest of the option after {0}",
    "Lack.COMMAND_TO_RUN": "the command to run",
    "Lack.VALUE": "a value",
    "Lack.FILE": "a file",
    "Lack.VALUE_FOR": "{0} for {1}",
    "Lack.ELEMENT": "{0}",
    "EffectCode.REPLACES_CONTENTS": "replaces the contents of {0}, if there is such a file",
    "EffectCode.LOSES_DATA": "removes data from the database: {0}",
    "EffectCode.CHANGES_DATA": "changes what the database has: {0}",
    "EffectCode.ADDS_TO": "adds to {0}, which the system reads",
    "EffectCode.RUNS_NAMED": "runs what {0} names",
    "EffectCode.RUNS_UNSEEN": "runs what comes from elsewhere without a look at it",
    "Needless.DEFAULT": "that is the default",
    "Needless.REPEATED": "it stands there already",
    "Needless.IMPLIED": "{0} stands for it too",
    "Kept.NO_LONG": "{0} has no long spelling of it",
    "Kept.NO_SHORT": "{0} has no short spelling of it",
    "Kept.UNKNOWN": "nothing here tells of it",
    "FaultCode.WANTED": "{0} is wanted here",
    "FaultCode.VALUE_WANTED": "a value is wanted here",
    "FaultCode.ON_OR_OFF": "this is on or off: it takes no value",
    "FaultCode.NOT_TYPABLE": "there are characters in it that cannot be typed",
    "FaultCode.NOT_ALLOWED": "“{0}” is none of the allowed values: {1}",
    "FaultCode.DOES_NOT_FIT": "“{0}” does not fit here",
    "FaultCode.OUT_OF_LIMITS": "it must be from {0} to {1}",
    "FaultCode.NO_ADDRESS": "an address of IPv4 or IPv6 is wanted here, such as 192.0.2.7",
    "FaultCode.NO_FILE": "there is no such file here",
    "FaultCode.NO_FOLDER": "there is no such folder here",
    "FaultCode.NOT_A_FOLDER": "this is no folder",
    "FaultCode.NO_SCHEDULE": "a number, *, a range 1-5, a list 1,3 or a step */2 is wanted here",
    "FaultCode.NOT_A_NUMBER": "“{0}” is no number",
    "FaultCode.NOT_A_NAME": "“{0}” is no number: {1}?",
    "FaultCode.NOT_WITHIN": "{0} is not from {1} to {2}",
    "FaultCode.BACKWARDS": "the range {0}-{1} runs backwards",
    "FaultCode.STEP_OF_ZERO": "a step of 0 never comes",
    "FaultCode.STEP_ALONE": "a step goes with * or a range: */{0}",
    "FaultCode.COLON": "a colon would begin the next field",
    "FaultCode.BLANK": "a blank would begin the next field",
    "FaultCode.TOO_MANY": "the line has more fields than there are: {0}",
}

_OPERATORS = {
    "|": "what the command before prints goes to the one after",
    "|&": "what the command before prints, errors too, goes to the one after",
    "&&": "goes on only if the command before succeeded",
    "||": "goes on only if the command before failed",
    ";": "then",
    ";;": "ends this case",
    "&": "runs it in the background",
    "(": "begins a group that runs in a shell of its own",
    ")": "ends the group",
    "{": "begins a group",
    "}": "ends the group",
}
_KEYWORDS = {
    "if": "if what follows succeeds",
    "then": "what is done then",
    "else": "what is done otherwise",
    "elif": "otherwise, if what follows succeeds",
    "fi": "ends the if",
    "for": "once for each of the words",
    "in": "the words",
    "do": "what is done each time",
    "done": "ends the loop",
    "while": "as long as what follows succeeds",
    "until": "as long as what follows fails",
    "case": "by what a word looks like",
    "esac": "ends the case",
    "select": "lets one be chosen from a menu",
    "function": "a function of this name",
    "[[": "begins a test",
    "]]": "ends the test",
    "!": "turns success into failure and the other way round",
    "{": "begins a group",
    "}": "ends the group",
    "((": "begins a sum",
    "))": "ends the sum",
}
#: Operators within [[ ]].
_TESTS = {
    "-e": "it exists",
    "-f": "it is a file",
    "-d": "it is a folder",
    "-r": "it can be read",
    "-w": "it can be written",
    "-x": "it can be run",
    "-s": "it is not empty",
    "-L": "it is a link",
    "-h": "it is a link",
    "-n": "it is not empty text",
    "-z": "it is empty text",
    "-v": "the variable is set",
    "-eq": "equal as numbers",
    "-ne": "not equal as numbers",
    "-lt": "less",
    "-le": "less or equal",
    "-gt": "more",
    "-ge": "more or equal",
    "-nt": "newer",
    "-ot": "older",
    "-ef": "the same file",
    "=~": "matches the pattern",
    "==": "matches",
    "=": "matches",
    "!=": "does not match",
    "&&": "and",
    "||": "or",
    "!": "not",
}
_BRACKET_TESTS = {
    "=": "equal",
    "==": "equal",
    "!=": "not equal",
    "!": "not",
    "<": "sorts before",
    ">": "sorts after",
}
_BY_TEXT = {
    "Meaning.OPERATOR": _OPERATORS,
    "Meaning.KEYWORD": _KEYWORDS,
    "Meaning.TEST": _TESTS,
    "Meaning.BRACKET_TEST": _BRACKET_TESTS,
}
_STREAMS = {
    "": "what it prints",
    "1": "what it prints",
    "2": "its errors",
    "&": "what it prints and its errors",
}
_PLURAL = ("2", "&")
_STREAM_PLACES = {"1": "where its output goes", "2": "where its errors go"}
#: Targets of a redirection that are no files, with what is said where one thing goes there, and
#: where several do.
_TARGETS = {
    "/dev/null": ("is thrown away", "are thrown away"),
    "/dev/stderr": ("goes to the errors", "go to the errors"),
    "/dev/tty": ("goes to the terminal", "go to the terminal"),
}


def words(saying: Told | None) -> str:
    """A saying in words, "" for none."""
    if saying is None:
        return ""
    inside = [words(one) if isinstance(one, Told) else one for one in saying.arguments]
    name = str(saying.code)
    if name == "Meaning.REDIRECTION":
        return redirection_words(*inside)
    if name == "FaultCode.NEEDED":
        return f"needs {' or '.join(inside)}"
    by_text = _BY_TEXT.get(name)
    if by_text is not None:
        return by_text.get(inside[0], "")
    return WORDS[name].format(*inside)


def subject_of(problem: Told) -> str:
    """What a problem is, without its particulars: `unknown option`."""
    return words(problem).partition(":")[0]


def redirection_words(operator: str, target: str) -> str:
    """What a redirection does, by its operator with the number before it, and its target."""
    match = re.fullmatch(r"(\d*|&)(<<<|<<-?|<>|<&|<|>\||>>|>&|>)(.*)", operator)
    if not match:
        return ""
    number, sign, rest = match.groups()
    if sign in ("<<", "<<-"):
        return f"input is the lines that follow, up to {rest}"
    if sign == "<<<":
        return "input is this text"
    if sign == "<":
        return f"input comes from {target}"
    if sign == "<>":
        return f"opens {target} for reading and writing"
    if sign in (">&", "<&"):
        return _to_stream(number, target)
    what = _STREAMS.get(number, f"stream {number}")
    several = number in _PLURAL
    if target in _TARGETS:
        return f"{what} {_TARGETS[target][several]}"
    goes = "go" if several else "goes"
    if sign == ">>":
        return f"{what} {goes} to the end of {target}"
    return f"{what} {goes} to {target}, whose contents are replaced"


def _to_stream(number: str, target: str) -> str:
    """`2>&1`, `>&-`, `>&file`."""
    what = _STREAMS.get(number, f"stream {number}")
    if target == "-":
        return f"closes {what}"
    if not number and not target.isdecimal():
        return f"what it prints and its errors go to {target}"
    where = _STREAM_PLACES.get(target, f"stream {target}")
    return f"its errors go {where}" if number == "2" else f"{what} goes {where}"
