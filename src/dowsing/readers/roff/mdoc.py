"""The mdoc macros: sections, lists, displays and the lines of inline macros (mdoc_inline.py)."""

from __future__ import annotations

from dowsing.model.document import Block, Cell, Indent, Literal, Table
from dowsing.model.markup import BOLD, CODE, ITALIC, ROMAN, plain
from dowsing.readers.roff import preprocessors
from dowsing.readers.roff.machine import Handler, Machine
from dowsing.readers.roff.marks import JOIN
from dowsing.readers.roff.mdoc_inline import CALLABLE, CELL, MacroLine, emit, evaluate, words

_LIST_KINDS = frozenset(
    (
        "-bullet",
        "-dash",
        "-hyphen",
        "-item",
        "-enum",
        "-tag",
        "-diag",
        "-hang",
        "-ohang",
        "-inset",
        "-column",
    )
)
_REFERENCE_ORDER = ["A", "T", "B", "I", "J", "R", "N", "V", "U", "P", "Q", "C", "D", "O"]


class MdocState:
    """What the mdoc macros remember between lines."""

    def __init__(self) -> None:
        self.name = ""
        self.section = ""
        self.spacing = True
        self.unspaced = False  # the last line was put together without blanks
        self.enclosure = ["", ""]
        self.lists: list[_List] = []
        self.displays: list[tuple[list[Block], list[Block], bool]] = []
        self.reference: list[tuple[str, str]] | None = None
        self.arguments: list[str] | None = None  # of the function between .Fo and .Fc


class _List:
    def __init__(self, kind: str, base: list[Block], out: list[Block], target: list[Block]) -> None:
        self.kind = kind
        self.base = base
        self.out = out
        self.target = target
        self.compact = False
        self.count = 0
        self.rows: list[list[Cell] | None] = []
        self.open_row = False


def _state(machine: Machine) -> MdocState:
    if not isinstance(machine.mdoc, MdocState):
        machine.mdoc = MdocState()
    return machine.mdoc


# --- the page
# --------------------------------------------------------------------------------------------


def date(machine: Machine, rest: str) -> None:
    """`.Dd`."""
    machine.date = plain(rest.replace("$Mdocdate:", "").strip(" $"))


def title(machine: Machine, rest: str) -> None:
    """`.Dt NAME section [architecture]`."""
    machine.title = [plain(word) for word in machine.split(rest)]


def section(machine: Machine, rest: str, level: int = 1) -> None:
    """`.Sh`, `.Ss`."""
    state = _state(machine)
    text = plain(machine.builder.settle(evaluate(machine, words(rest)).text))
    _close_all(machine, state)
    machine.builder.section(text, level)
    if level == 1:
        state.section = text.upper()


def subsection(machine: Machine, rest: str) -> None:
    """`.Ss`."""
    section(machine, rest, 2)


def _close_all(machine: Machine, state: MdocState) -> None:
    while state.lists:
        list_end(machine, "")
    state.displays.clear()
    state.spacing = True


def paragraph(machine: Machine, rest: str) -> None:
    """`.Pp`, `.Lp`: a new paragraph where the text goes."""
    machine.builder.blank()
    if machine.builder.waiting is None:
        machine.builder.hanging = False


def description(machine: Machine, rest: str) -> None:
    """`.Nd`: the summary after the names."""
    line = MacroLine()
    line.add("–")
    inner = evaluate(machine, words(rest))
    line.add(inner.text)
    emit(machine, line)


# --- inline
# ----------------------------------------------------------------------------------------------


def _inline(name: str) -> Handler:
    def run(machine: Machine, rest: str) -> None:
        state = _state(machine)
        items = words(rest)
        if state.arguments is not None and name == "Fa":
            state.arguments += [f"{ITALIC}{word}{ROMAN}" for word in items]
            return
        if state.section == "SYNOPSIS" and name in ("Nm", "Ft", "Fn", "Fo", "Vt", "In", "Fd", "Cd"):
            _synopsis_break(machine, state, name)
        line = MacroLine(state.spacing)
        if name == "An" and "AUTHOR" in state.section and items[:1] != ["-split"]:
            machine.builder.line_break()
        if name in CALLABLE:
            line = evaluate(machine, [name, *items])
        else:
            line = evaluate(machine, items)
        emit(machine, line)
        if state.section == "SYNOPSIS" and name in ("In", "Fd", "Ft", "Cd"):
            machine.builder.line_break()

    return run


def _synopsis_break(machine: Machine, state: MdocState, name: str) -> None:
    builder = machine.builder
    if builder.waiting is not None or not builder.fill or state.lists:
        return
    if name == "Nm":
        builder.flush()
        builder.hanging = True
    elif name == "Ft" and builder.buffer:
        builder.flush()
    elif builder.buffer and not builder.buffer[-1].endswith("\x14"):
        builder.line_break()


def function_directive(machine: Machine, rest: str) -> None:
    """`.Fd`: a line as it stands."""
    state = _state(machine)
    if state.section == "SYNOPSIS":
        _synopsis_break(machine, state, "Fd")
    machine.builder.text(f"{BOLD}{' '.join(machine.split(rest))}{ROMAN}")
    machine.builder.line_break()


def function_open(machine: Machine, rest: str) -> None:
    """`.Fo name`: a function whose arguments follow line by line."""
    state = _state(machine)
    if state.section == "SYNOPSIS":
        _synopsis_break(machine, state, "Fo")
    state.arguments = []
    names = words(rest)
    emit_text(machine, f"{BOLD}{names[0] if names else ''}{ROMAN}({JOIN}")


def function_close(machine: Machine, rest: str) -> None:
    """`.Fc`."""
    state = _state(machine)
    text = ", ".join(state.arguments or []) + ")"
    state.arguments = None
    line = MacroLine()
    line.add(text)
    for word in words(rest):
        line.word(word)
    emit(machine, line)


def emit_text(machine: Machine, text: str) -> None:
    """Hand a piece of text to the builder."""
    machine.builder.text(text)


def exit_status(machine: Machine, rest: str) -> None:
    """`.Ex -std [name …]`."""
    names = [word for word in words(rest) if word != "-std"] or [_state(machine).name]
    names = [name for name in names if name]
    shown = _enumerated([f"{BOLD}{name}{ROMAN}" for name in names])
    plural = "utilities exit" if len(names) > 1 else "utility exits"
    emit_text(
        machine,
        f"The {shown + ' ' if shown else ''}{plural} 0 on success, and >0 if an error occurs.",
    )


def return_value(machine: Machine, rest: str) -> None:
    """`.Rv -std [name …]`."""
    names = [word for word in words(rest) if word != "-std"] or [_state(machine).name]
    names = [name for name in names if name]
    shown = _enumerated([f"{BOLD}{name}{ROMAN}()" for name in names])
    returns = (
        f"The {shown} function{'s return' if len(names) > 1 else ' returns'} the value 0 if "
        "successful"
    )
    if not names:
        returns = "Upon successful completion, the value 0 is returned"
    errno = f"{CODE}errno{ROMAN}"
    emit_text(
        machine,
        f"{returns}; otherwise the value -1 is returned and the global variable {errno} is set to "
        "indicate the error.",
    )


def _enumerated(names: list[str]) -> str:
    if not names:
        return ""
    return names[0] if len(names) == 1 else ", ".join(names[:-1]) + " and " + names[-1]


# --- lists
# -----------------------------------------------------------------------------------------------


def list_begin(machine: Machine, rest: str) -> None:
    """`.Bl -kind [-width w] [-offset o] [-compact]`."""
    state, builder = _state(machine), machine.builder
    _finish_row(machine, state)
    builder.flush()
    options = words(rest)
    kind = next((word for word in options if word in _LIST_KINDS), "-item")
    target = builder.out
    if "-offset" in options and kind != "-column":
        block = Indent()
        target.append(block)
        target = block.body
    new = _List(kind, builder.base, builder.out, target)
    new.compact = "-compact" in options
    state.lists.append(new)
    builder.base = builder.out = target


# the mark of a list's points; empty where they are numbered
_POINTS = {"-bullet": "•", "-dash": "-", "-hyphen": "-", "-enum": ""}


def item(machine: Machine, rest: str) -> None:
    """`.It [head]`."""
    state, builder = _state(machine), machine.builder
    if not state.lists:
        builder.flush()
        emit(machine, evaluate(machine, words(rest)))
        return
    current = state.lists[-1]
    _finish_row(machine, state)
    builder.flush()
    builder.fill = True
    builder.waiting = None
    builder.compact = current.compact
    builder.base = builder.out = current.target
    builder.hanging = False
    current.count += 1
    if current.kind == "-column":
        current.open_row = True
        builder.waiting, builder.tag_parts = "held", []
        rest = rest.replace("\t", f" {CELL} ")
    elif current.kind in _POINTS:
        builder.open_item(_POINTS[current.kind] or f"{current.count}.", bullet=True)
    elif current.kind != "-item":
        _tagged_item(machine, current.kind, words(rest))
        return
    if rest:
        emit(machine, evaluate(machine, words(rest)))


def _tagged_item(machine: Machine, kind: str, items: list[str]) -> None:
    """An item whose head is a tag, on this line or continued on the next ones."""
    builder = machine.builder
    line = evaluate(machine, items)
    if "Xo" in items:
        builder.waiting, builder.tag_parts = "held", [line.text]
        if line.touch:
            builder.tag_parts[-1] += JOIN
        return
    text = builder.settle(line.text)
    if kind == "-diag" and text:
        text = f"{BOLD}{text}{ROMAN}"
    if text:
        builder.open_item(text)
    else:
        builder.indented()


def extended_end(machine: Machine, rest: str) -> None:
    """`.Xc`: the end of an item's head that took several lines."""
    _state(machine)  # it may be the first macro of the page
    builder = machine.builder
    if rest:
        emit(machine, evaluate(machine, words(rest)))
    if builder.waiting == "held":
        builder.waiting = None
        tag = builder.settle("\n".join(builder.tag_parts))
        builder.tag_parts = []
        builder.open_item(tag)


def _finish_row(machine: Machine, state: MdocState) -> None:
    current = state.lists[-1] if state.lists else None
    builder = machine.builder
    if current is None or not current.open_row:
        return
    current.open_row = False
    builder.waiting = None
    parts = "\n".join(builder.tag_parts).replace("\t", CELL).split(CELL)
    builder.tag_parts = []
    current.rows.append([Cell(builder.settle(part)) for part in parts])


def list_end(machine: Machine, rest: str) -> None:
    """`.El`."""
    state, builder = _state(machine), machine.builder
    if not state.lists:
        return
    if builder.waiting == "held" and not state.lists[-1].open_row:
        extended_end(machine, "")
    _finish_row(machine, state)
    builder.flush()
    current = state.lists.pop()
    if current.rows:
        current.target.append(Table(current.rows))
    builder.base, builder.out = current.base, current.out
    builder.compact = False


# --- displays
# --------------------------------------------------------------------------------------------


def display_begin(machine: Machine, rest: str) -> None:
    """`.Bd -kind [-offset o] [-compact]`."""
    state, builder = _state(machine), machine.builder
    builder.flush()
    options = words(rest)
    state.displays.append((builder.base, builder.out, builder.fill))
    if "-offset" in options:
        block = Indent()
        builder.out.append(block)
        builder.base = builder.out = block.body
    builder.fill = not ("-literal" in options or "-unfilled" in options)
    builder.hanging = False


def display_end(machine: Machine, rest: str) -> None:
    """`.Ed`."""
    state, builder = _state(machine), machine.builder
    builder.flush()
    if state.displays:
        builder.base, builder.out, builder.fill = state.displays.pop()
    else:
        builder.fill = True


def one_line(machine: Machine, rest: str) -> None:
    """`.D1`, `.Dl`: one line set in."""
    builder = machine.builder
    builder.flush()
    block = Indent()
    text = builder.settle(evaluate(machine, words(rest)).text)
    if text:
        block.body.append(Literal(text))
        builder.out.append(block)


def font_begin(machine: Machine, rest: str) -> None:
    """`.Bf -emphasis|-literal|-symbolic` or `.Bf Em|Li|Sy`."""
    mark = {"-emphasis": ITALIC, "Em": ITALIC, "-symbolic": BOLD, "Sy": BOLD}.get(
        rest.strip(), CODE
    )
    machine.builder.flush()
    machine.builder.font = mark


def font_end(machine: Machine, rest: str) -> None:
    """`.Ef`."""
    machine.builder.flush()
    machine.builder.font = machine.builder.last_font = ROMAN


# --- references
# ------------------------------------------------------------------------------------------


def reference_begin(machine: Machine, rest: str) -> None:
    """`.Rs`: a work referred to."""
    state = _state(machine)
    if state.section.startswith("SEE ALSO"):
        machine.builder.blank()
    state.reference = []


def _reference_part(letter: str) -> Handler:
    def run(machine: Machine, rest: str) -> None:
        state = _state(machine)
        text = evaluate(machine, words(rest)).text
        if letter in "BIJ":
            text = f"{ITALIC}{text}{ROMAN}"
        elif letter == "T":
            text = f"“{text}”"
        if state.reference is None:
            emit_text(machine, text)
        else:
            state.reference.append((letter, text))

    return run


def reference_end(machine: Machine, rest: str) -> None:
    """`.Re`."""
    state = _state(machine)
    parts, state.reference = state.reference or [], None
    authors = [text for letter, text in parts if letter == "A"]
    shown = [_enumerated(authors)] if authors else []
    shown += [text for key in _REFERENCE_ORDER[1:] for letter, text in parts if letter == key]
    if shown:
        emit_text(machine, ", ".join(shown) + ".")


def nothing(machine: Machine, rest: str) -> None:
    """A macro without text of its own."""


def no_space_line(machine: Machine, rest: str) -> None:
    """`.Ns` at the beginning of a line."""
    emit(machine, evaluate(machine, ["Ns", *words(rest)]))


PLAIN: dict[str, Handler] = {
    **{name: _inline(name) for name in CALLABLE},
    **{"%" + letter: _reference_part(letter) for letter in _REFERENCE_ORDER},
    **dict.fromkeys(("Bk", "Ek", "Os", "Tg", "Db"), nothing),
    "Dd": date,
    "Dt": title,
    "Sh": section,
    "Ss": subsection,
    "Pp": paragraph,
    "Lp": paragraph,
    "Nd": description,
    "Fd": function_directive,
    "Fo": function_open,
    "Fc": function_close,
    "Ex": exit_status,
    "Rv": return_value,
    "Bl": list_begin,
    "It": item,
    "El": list_end,
    "Xc": extended_end,
    "Bd": display_begin,
    "Ed": display_end,
    "D1": one_line,
    "Dl": one_line,
    "Bf": font_begin,
    "Ef": font_end,
    "Rs": reference_begin,
    "Re": reference_end,
    "Fr": _inline("Fr"),
    "Ns": no_space_line,
}

RAW: dict[str, Handler] = dict(preprocessors.RAW)
