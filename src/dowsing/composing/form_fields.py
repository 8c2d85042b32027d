"""The fields that a form of a command asks for, and the places that they have in the line."""

from __future__ import annotations

import re

from dowsing.commandline.judging.certainty import ABOUT_ITSELF
from dowsing.commandline.model.command import Command, Spelling
from dowsing.commandline.model.exclusion import flag_of, lacking
from dowsing.commandline.model.form_facts import is_command_place
from dowsing.composing.existence import must_exist
from dowsing.composing.field import Field, FieldKind
from dowsing.facts.forms import Element, ElementKind, Form
from dowsing.model.document import Option
from dowsing.model.record import Record
from dowsing.model.value_kinds import FILE_KINDS, ValueKind, value_kind, value_range

OPTIONS = "options"  # the place of all options that the form does not show
_OPTIONS = re.compile(r"\W*(?:[\w-]*options?|flags|switches|global-opts?|opts?)\b", re.IGNORECASE)
_EXPRESSION = re.compile(r"\W*expression\b", re.IGNORECASE)
#: Options that are told everywhere alike and build no line.


class FieldPlace(Record):
    """A place in the line: of a word as it stands (`word`), of a field (`key`), or of all other
    options.
    """

    word: str = ""
    key: str = ""


class Plan(Record):
    """The fields of a form in the order of its places. `one_of`: groups of keys of which one must
    be filled in.
    """

    fields: list[Field]
    places: list[FieldPlace]
    one_of: list[list[str]]


#: What the keys of options' fields begin with.
_OPTION = "option "


def option_key(option: Option) -> str:
    """The key of an option's field."""
    return _OPTION + option.flags[0]


def is_option_key(key: str) -> bool:
    """Whether a key is that of an option's field."""
    return key.startswith(_OPTION)


def option_field(
    spelling: Spelling, required: bool = False, usual: bool = False, repeats: bool = False
) -> Field:
    """The field of an option."""
    option, fact = spelling.option, spelling.fact
    # a list that may be empty is given as the words after it
    takes = option.argument is not None and (spelling.needs or not option.argument.endswith("..."))
    kind = spelling.kind if takes else ""
    placeholder = spelling.placeholder.strip("[]=") if takes else ""
    return Field(
        option_key(option),
        FieldKind.OPTION,
        ", ".join(option.flags),
        placeholder,
        kind,
        option.text,
        spelling.page,
        list(option.flags),
        (spelling.choices or None) if takes else None,
        fact.closed if fact is not None else is_strict(option),
        value_range(option.text) if takes else [],
        option.default,
        required,
        option.repeatable or repeats,
        takes,
        takes and not spelling.needs,
        must_exist(kind, placeholder, option.text),
        usual,
        option.section,
        separator=fact.separator if fact is not None else "",
    )


def is_strict(option: Option) -> bool:
    """Whether no value but the listed ones can be right: the placeholder lists them itself."""
    values = option.values or []
    shown = set(re.findall(r"[\w-]+", option.argument or ""))
    return len(values) > 1 and set(values) <= shown


_ANY_WORDS = Field(
    "operand 1 argument",
    FieldKind.OPERAND,
    "argument",
    "argument",
    ValueKind.TEXT,
    repeats=True,
    usual=True,
)


class _Planner:
    def __init__(self, known: Command, subcommands: dict[str, str], expression: bool) -> None:
        self.known = known
        self.subcommands = subcommands
        self.expression = expression
        self.fields: dict[str, Field] = {}
        self.places: list[FieldPlace] = []
        self.one_of: list[list[str]] = []
        self.operands = 0
        words = {option.section for table in known.tables for option in table.options}
        self.titles = [
            title
            for title in words
            if re.search(r"\b(?:actions?|operations?|commands?)\b", title, re.IGNORECASE)
        ]
        #: options that are written as name=value, which the form calls operands
        self.by_name = any(flag[0] not in "-+" and len(flag) > 1 for flag in known.spellings)

    def walk(self, elements: list[Element], required: bool, repeats: bool = False) -> None:
        for n, element in enumerate(elements):
            needed = required and element.required
            again = repeats or element.repeats
            if element.what == ElementKind.OPERAND and n and self.takes_next(elements[n - 1]):
                continue  # it is the value of the options before it
            if element.what == ElementKind.OPTION:
                self.option(element, needed, again)
            elif element.what == ElementKind.OPERAND:
                self.operand(element, needed, again)
            elif element.what == ElementKind.LITERAL:
                self.literal(element, needed)
            elif element.what == ElementKind.CHOICE:
                self.choice(element, needed, again)
            elif element.what == ElementKind.GROUP:
                self.walk(element.elements, needed, again)

    def takes_next(self, element: Element) -> bool:
        """Whether it is a choice of options that all take a value."""
        if element.what != ElementKind.CHOICE or not all(
            one.what == ElementKind.OPTION for one in element.elements
        ):
            return False
        spellings = [self.known.spelling(one.text) for one in element.elements]
        return all(one is not None and one.needs for one in spellings)

    def add(self, field: Field) -> None:
        known = self.fields.get(field.key)
        if known is None or (field.required and not known.required):
            self.fields[field.key] = field
        if known is None:
            self.places.append(FieldPlace(key=field.key))

    def option(self, element: Element, required: bool, repeats: bool) -> str:
        """The field of an option that the form shows; its key, "" if the option is not told of."""
        if element.text.strip("-") == "":
            return ""  # put in where a value asks for it
        flag = flag_of(element)
        spelling = self.known.spelling(flag)
        if spelling is None:
            letters = [self.known.spelling(f"-{letter}") for letter in flag[1:]]
            for one in letters if re.fullmatch(r"-\w{2,}", flag) and all(letters) else []:
                if one is not None:
                    self.add(option_field(one))
            return ""
        self.add(option_field(spelling, required, usual=False, repeats=repeats))
        return option_key(spelling.option)

    def need_groups(self, groups: list[list[str]]) -> None:
        """Fields of options of which one must be there, as our facts tell."""
        for group in groups:
            keys: dict[str, None] = {}
            for flag in group:
                spelling = self.known.spelling(flag)
                if spelling is not None and option_key(spelling.option) not in keys:
                    self.add(option_field(spelling))
                    keys[option_key(spelling.option)] = None
            self.one_of.append(list(keys))

    def literal(self, element: Element, required: bool) -> None:
        text = element.text
        if text == self.known.only or text in self.known.words.split()[1:]:
            return
        if _OPTIONS.match(text):
            self.places.append(FieldPlace(key=OPTIONS))
            return
        if required:
            self.places.append(FieldPlace(word=text))
        else:
            self.add(
                Field(
                    f"word {text}",
                    FieldKind.WORD,
                    text,
                    takes=False,
                    usual=True,
                    page=self.known.page,
                )
            )

    def operand(self, element: Element, required: bool, repeats: bool) -> None:
        name = operand_name(element.text)
        if any(name.casefold() in title.casefold().split() for title in self.titles):
            self.places.append(FieldPlace(key=OPTIONS))  # one of the options below such a title
            return
        named = self.by_name and re.match(r"\W*operands?\b", element.text, re.IGNORECASE)
        if (
            _OPTIONS.match(element.text)
            or named
            or (self.expression and _EXPRESSION.match(element.text))
        ):
            self.places.append(FieldPlace(key=OPTIONS))
            return
        if self.subcommands and is_command_place(name):
            self.add(self.subcommand(required))
            return
        if self.subcommands and re.fullmatch(r"arg(?:ument)?s?|\.\.\.", name, re.IGNORECASE):
            return  # those of the subcommand, which are known when it is
        self.operands += 1
        listed = "[," in element.text  # further ones stand in the same word
        fact = self.known.facts.operands.get(name)
        kind = value_kind(name, "file mode" if name.isupper() else "")
        self.add(
            Field(
                f"operand {self.operands} {name}",
                FieldKind.OPERAND,
                name,
                name,
                fact.value.kind if fact is not None else kind,
                page=self.known.page,
                values=(fact.value.choices or None) if fact is not None else None,
                strict=fact.value.closed if fact is not None else False,
                required=required,
                repeats=repeats and not listed,
                usual=True,
                separator="," if listed else "",
            )
        )

    def subcommand(self, required: bool) -> Field:
        return Field(
            "subcommand",
            FieldKind.SUBCOMMAND,
            "subcommand",
            "COMMAND",
            ValueKind.CHOICE,
            "",
            self.known.page,
            values=sorted(self.subcommands),
            strict=True,
            required=required,
            usual=True,
        )

    def choice(self, element: Element, required: bool, repeats: bool) -> None:
        """Alternatives: words become one field of them, options a group of fields, of others the
        first counts.
        """
        alternatives = element.elements
        if all(one.what == ElementKind.LITERAL for one in alternatives):
            self.word_choice(element, [one.text for one in alternatives], required, repeats)
            return
        keys: list[str] = []
        has_operand = False
        for one in alternatives:
            if one.what == ElementKind.OPTION:
                keys.append(self.option(one, False, repeats))
            elif (
                one.what == ElementKind.GROUP
                and one.elements
                and one.elements[0].what == ElementKind.OPTION
            ):
                keys.append(self.option(one.elements[0], False, repeats))
                self.walk(one.elements[1:], False, repeats)
            elif not has_operand:
                has_operand = True
                self.walk([one], required and len(alternatives) == 1, repeats or element.repeats)
        found = [key for key in keys if key]
        if required and len(found) > 1 and not has_operand:
            self.one_of.append(found)

    def word_choice(
        self, element: Element, words: list[str], required: bool, repeats: bool
    ) -> None:
        if self.known.only in words and self.known.only:
            return
        values = list(dict.fromkeys(words))
        if self.subcommands and set(values) & set(self.subcommands):
            self.add(self.subcommand(required))
            return
        self.operands += 1
        label = " | ".join(values) if len(values) < 5 else " | ".join(values[:4]) + " | …"
        self.add(
            Field(
                f"operand {self.operands} choice",
                FieldKind.OPERAND,
                label,
                "one of these",
                ValueKind.CHOICE,
                page=self.known.page,
                values=values,
                strict=True,
                required=required,
                repeats=repeats or element.repeats,
                usual=True,
            )
        )


def operand_name(text: str) -> str:
    """The name of an operand without its brackets: `bed` of `<bed>...`."""
    match = re.match(r"[\[<{(]*([^\[\]<>{}()]*)", text)
    return (match[1].strip("' ,.") if match else "") or text


def plan_of(
    form: Form | None, known: Command, subcommands: dict[str, str], expression: bool = False
) -> Plan:
    """The fields and places of a form; without a form, options and any number of operands.

    `subcommands` are those that one must still be chosen of; `expression`: the options of the
    command make up the operand that is called an expression.
    """
    planner = _Planner(known, subcommands, expression)
    if form is not None:
        planner.walk(form.elements, True)
    elif subcommands:
        planner.add(planner.subcommand(True))
    else:
        planner.places.append(FieldPlace(key=OPTIONS))
    if (
        subcommands
        and "subcommand" not in planner.fields
        and known.parent is None
        and not planner.operands
    ):
        planner.add(planner.subcommand(False))
    listing = any((one.option.argument or "").endswith("...") for one in known.spellings.values())
    if not planner.operands and not subcommands and (listing or form is None):
        planner.add(_ANY_WORDS)
    planner.need_groups(known.facts.needs)
    fields = list(planner.fields.values())
    last = next((field for field in reversed(fields) if field.what == FieldKind.OPERAND), None)
    for n, field in enumerate(fields):
        if field.what == FieldKind.OPERAND and field.kind in FILE_KINDS:
            files = [
                one for one in fields if one.what == FieldKind.OPERAND and one.kind in FILE_KINDS
            ]
            alone = field is last and len(files) == 1
            fields[n] = field.changed(
                exists=must_exist(field.kind, field.label, known.summary, alone)
            )
    places = planner.places
    if not any(place.key == OPTIONS for place in places):
        places = [FieldPlace(key=OPTIONS), *places]
    return Plan(fields, places, planner.one_of)


def best_form(known: Command, forms: list[Form], used: set[str], words: list[str]) -> Form | None:
    """The form that fits best to the options that are there and to the words that are none: it has
    the options, lacks least, and takes as many operands.
    """
    fitting = [
        form for form in forms if not form.defines and not form.problem and len(form.elements) > 1
    ]
    if fitting and not used and not words:
        return fitting[0]
    if not fitting:
        return next((form for form in forms if not form.defines and not form.problem), None)

    def distance(form: Form) -> tuple[int, int]:
        flat = _flat(form.elements)
        demanded = {flag_of(e) for e in flat if e.what == ElementKind.OPTION and e.required}
        shown = {flag_of(e) for e in flat if e.what == ElementKind.OPTION}
        literals = {e.text for e in form.elements if e.what == ElementKind.LITERAL and e.required}
        operands = [e for e in flat if e.what == ElementKind.OPERAND and not _OPTIONS.match(e.text)]
        many = any(e.repeats for e in [*flat, *form.elements] if e.what != ElementKind.OPTION)
        is_open = any(
            _OPTIONS.match(e.text) or re.match(r"\W*OPERANDS?\b", e.text)
            for e in flat
            if e.what == ElementKind.OPERAND
        )
        strange = 0 if is_open else len(used - shown)
        surplus = 0 if many else max(0, len(words) - len(operands) - len(literals & set(words)))
        misses = len(lacking(known, form, used, len(words)))
        return 2 * strange + 2 * surplus + len(literals - set(words)) + misses - 2 * len(
            demanded & used
        ), misses

    return min(fitting, key=distance)


def _flat(elements: list[Element]) -> list[Element]:
    found: list[Element] = []
    for element in elements:
        found.append(element)
        if element.what in (ElementKind.CHOICE, ElementKind.GROUP):
            found += _flat(element.elements)
    return found


def tells_only(option: Option) -> bool:
    """Whether an option only tells of the program: its help, its version."""
    return not ABOUT_ITSELF.keys().isdisjoint(option.flags)
