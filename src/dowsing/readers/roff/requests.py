"""The roff requests that pages use: definitions, conditions, loops, fonts, spacing.

Requests that only concern typesetting (hyphenation, adjustment, page length, sizes) do nothing
here, and those that reach outside the page (run a program, open a file) are not there at all.
"""

from __future__ import annotations

from dowsing.model.markup import ITALIC
from dowsing.readers.roff import escapes
from dowsing.readers.roff.conditionals import condition, skip_block
from dowsing.readers.roff.machine import Handler, LeaveLoop, LeaveMacro, Machine, Macro
from dowsing.readers.roff.marks import PREVIOUS
from dowsing.readers.roff.numbers import columns, evaluate
from dowsing.readers.roff.prepare import FONTS

MOST_TURNS = 2000
MOST_BODY = 20_000

#: Macros that carry the structure of a page. What a page puts in their place only changes how they
#: look.
KEPT = frozenset(
    [
        "SH",
        "SS",
        "TH",
        "TP",
        "PP",
        "LP",
        "P",
        "IP",
        "RS",
        "RE",
        "Sh",
        "Ss",
        "Dd",
        "Dt",
        "Os",
        "Nm",
        "It",
        "Bl",
        "El",
    ]
)


# --- definitions
# -----------------------------------------------------------------------------------------


def _body(machine: Machine, end: str) -> list[str]:
    """The lines up to `end`, as a definition keeps them."""
    lines: list[str] = []
    for line in machine.lines:
        stripped = line.replace(" ", "").replace("\t", "")
        if stripped == ".." if not end else stripped == "." + end:
            break
        if len(lines) < MOST_BODY:
            lines.append(escapes.expand(machine, line, copy=True) if "\\" in line else line)
    return lines


def define(machine: Machine, rest: str, append: bool = False) -> None:
    """`.de`, `.am`: define a macro or add to it."""
    name, _, end = machine.expand(rest).strip().partition(" ")
    lines = _body(machine, end.strip())
    if not name or name in KEPT:
        return
    if name in ("INDENT", "UNINDENT") and any(
        line.lstrip(". ").startswith(("RS", "RE")) for line in lines
    ):
        # what these do, with the bookkeeping around it, is built in under the same names (man.py)
        return
    old = machine.macros.get(name)
    if append and isinstance(old, Macro):
        lines = old.lines + lines
    elif append and (name in machine.plain or name in machine.raw):
        return  # an addition to a built-in: what it adds is decoration
    machine.macros[name] = Macro(lines)
    machine.renamed.pop(name, None)


def ignore(machine: Machine, rest: str) -> None:
    """`.ig`: leave out lines."""
    _body(machine, rest.strip())


def remove(machine: Machine, rest: str) -> None:
    """`.rm`: forget macros and strings."""
    for name in machine.split(rest):
        if name not in KEPT:
            machine.macros[name] = None
            machine.strings.pop(name, None)


def rename(machine: Machine, rest: str) -> None:
    """`.rn old new`."""
    alias(machine, " ".join(reversed(machine.split(rest)[:2])))
    old = rest.split(" ", 1)[0]
    if old not in KEPT and (old in machine.macros or old in machine.plain or old in machine.raw):
        machine.macros[old] = None


def alias(machine: Machine, rest: str) -> None:
    """`.als new old`."""
    names = machine.split(rest)
    if len(names) < 2 or names[0] in KEPT:
        return
    new, old = names[:2]
    if old in machine.strings:
        machine.strings[new] = machine.strings[old]
    if isinstance(machine.macros.get(old), Macro):
        machine.macros[new] = machine.macros[old]
    elif old in machine.plain or old in machine.raw or old in machine.renamed:
        machine.renamed[new] = machine.renamed.get(old, old)
        machine.macros.pop(new, None)


def string(machine: Machine, rest: str, append: bool = False) -> None:
    """`.ds`, `.as`: a leading quote protects leading blanks."""
    name, _, value = rest.partition(" ")
    name = machine.expand(name)
    value = value.lstrip(" ")
    if value.startswith('"'):
        value = value[1:]
    value = escapes.expand(machine, value, copy=True)
    if append:
        value = machine.strings.get(name, "") + value
    machine.strings[name] = value[: escapes.MOST_LENGTH]


def register(machine: Machine, rest: str) -> None:
    """`.nr name [+-]value [step]`."""
    name, _, value = rest.partition(" ")
    value = value.strip()
    sign = value[:1] if value[:1] in ("+", "-") else ""
    amount, end = evaluate(value[1:] if sign else value)
    if not name:
        return
    amount = amount or 0
    if sign:
        old = machine.registers.get(name, 0)
        amount = old + amount if sign == "+" else old - amount
    machine.registers[name] = max(-(2**31), min(2**31 - 1, amount))
    step = value[end + len(sign) :].strip()
    if step:
        machine.steps_of[name] = evaluate(step)[0] or 0


def remove_register(machine: Machine, rest: str) -> None:
    """`.rr`."""
    for name in rest.split():
        machine.registers.pop(name, None)


def number_format(machine: Machine, rest: str) -> None:
    """`.af register format`."""
    parts = rest.split()
    if len(parts) > 1:
        machine.formats[parts[0]] = parts[1]


def rename_register(machine: Machine, rest: str) -> None:
    """`.rnn old new` and `.aln new old`: both names hold the value."""
    parts = rest.split()
    if len(parts) > 1:
        value = machine.registers.get(parts[0], machine.registers.get(parts[1], 0))
        machine.registers[parts[0]] = machine.registers[parts[1]] = value


def length(machine: Machine, rest: str) -> None:
    """`.length register text`."""
    name, _, text = rest.partition(" ")
    machine.registers[name] = len(text)


def substring(machine: Machine, rest: str) -> None:
    """`.substring string first [last]`."""
    parts = rest.split()
    value = machine.strings.get(parts[0] if parts else "", "")
    bounds = [evaluate(p)[0] or 0 for p in parts[1:3]]
    if bounds:
        first, last = bounds[0], bounds[1] if len(bounds) > 1 else -1
        first = max(first + len(value), 0) if first < 0 else first
        last = last + len(value) if last < 0 else last
        machine.strings[parts[0]] = value[first : last + 1]


def chop(machine: Machine, rest: str) -> None:
    """`.chop string`: without its last character."""
    name = rest.strip()
    machine.strings[name] = machine.strings.get(name, "")[:-1]


def character(machine: Machine, rest: str) -> None:
    r"""`.char \[name] text`: what a character is drawn as."""
    glyph, _, text = rest.partition(" ")
    if glyph.startswith("\\"):
        name, _ = escapes.read_name(glyph, 1)
        machine.strings["char:" + name] = machine.expand(text.strip().lstrip('"'))


def translate(machine: Machine, rest: str) -> None:
    """`.tr abcd`: print b for a and d for c."""
    chars = machine.expand(rest)
    if len(chars) % 2:
        chars += " "
    for one, other in zip(chars[::2], chars[1::2], strict=True):
        machine.builder.translation[ord(one)] = other


# --- control
# ---------------------------------------------------------------------------------------------


def when(machine: Machine, rest: str) -> None:
    """`.if`."""
    holds, body = condition(machine, rest)
    _branch(machine, holds, body)


def when_or_else(machine: Machine, rest: str) -> None:
    """`.ie`: its `.el` runs if it did not hold."""
    holds, body = condition(machine, rest)
    machine.branches.append(holds)
    _branch(machine, holds, body)


def otherwise(machine: Machine, rest: str) -> None:
    """`.el`."""
    held = machine.branches.pop() if machine.branches else True
    _branch(machine, not held, rest)


def _branch(machine: Machine, holds: bool, body: str) -> None:
    body = body.lstrip(" \t")
    if not holds:
        skip_block(machine, body)
        return
    while body.startswith("\\{"):
        body = body[2:].lstrip(" \t")
    if body.endswith("\\}"):
        body = body[:-2]
    if body.strip():
        machine.step()
        if machine.depth < 200:
            machine.depth += 1
            try:
                machine.run_line(body)
            finally:
                machine.depth -= 1


def loop(machine: Machine, rest: str) -> None:
    """`.while`: bounded."""
    _, first = condition(machine, rest)
    collected = skip_block(machine, first.lstrip(" \t"))
    size = sum(map(len, collected)) + len(collected)
    for _ in range(MOST_TURNS):
        machine.step()
        machine.spend(size)
        holds, _ = condition(machine, rest)
        if not holds:
            return
        try:
            machine.run(collected)
        except LeaveLoop:
            return


def leave_loop(machine: Machine, rest: str) -> None:
    """`.break`: leaves the loop; outside of one it does nothing."""
    if machine.depth or machine.steps:
        raise LeaveLoop


def leave_macro(machine: Machine, rest: str) -> None:
    """`.return`."""
    if machine.depth:
        raise LeaveMacro


def shift(machine: Machine, rest: str) -> None:
    """`.shift [n]`: drop the first arguments."""
    count = int(rest) if rest.strip().isdecimal() else 1
    machine.arguments[1 : 1 + count] = []


def include(machine: Machine, rest: str) -> None:
    """`.so file`: run the file in place, where the caller allows it."""
    machine.step()
    if machine.include is None or machine.depth >= 8:
        return
    source = machine.include(rest.strip())
    if source:
        machine.spend(len(source))
        machine.depth += 1
        try:
            machine.run_source(source)
        finally:
            machine.depth -= 1


def as_line(machine: Machine, rest: str) -> None:
    """`.nop`: the rest is a line of its own."""
    machine.run_line(rest)


def do(machine: Machine, rest: str) -> None:
    """`.do request`."""
    machine.run_line(machine.control + rest)


def escape_character(machine: Machine, rest: str) -> None:
    """`.ec`."""
    machine.escape = rest.strip()[:1] or "\\"


def no_escapes(machine: Machine, rest: str) -> None:
    """`.eo`."""
    machine.escape = ""


def control_character(machine: Machine, rest: str) -> None:
    """`.cc`."""
    machine.control = rest.strip()[:1] or "."


def no_break_character(machine: Machine, rest: str) -> None:
    """`.c2`."""
    machine.no_break = rest.strip()[:1] or "'"


# --- text
# ------------------------------------------------------------------------------------------------


def font(machine: Machine, rest: str) -> None:
    """`.ft`."""
    mark = FONTS.get(rest.strip(), PREVIOUS)
    builder = machine.builder
    if builder.waiting is not None:
        builder.tag_parts.append(mark + "\x13")
    else:
        builder.buffer.append(mark + "\x13")


def no_fill(machine: Machine, rest: str) -> None:
    """`.nf`."""
    machine.builder.set_fill(False)


def fill(machine: Machine, rest: str) -> None:
    """`.fi`."""
    machine.builder.set_fill(True)


def line_break(machine: Machine, rest: str) -> None:
    """`.br`; what stands beside it by mistake is text."""
    machine.builder.line_break()
    if rest:
        machine.builder.text(rest)


def space(machine: Machine, rest: str) -> None:
    """`.sp [n]`: nothing for a negative distance."""
    value = columns(rest, 1.0)
    if value > 0:
        machine.builder.blank()
    elif machine.builder.fill:
        machine.builder.line_break()


def indent(machine: Machine, rest: str) -> None:
    """`.in [+-n]`."""
    amount = rest.strip()
    if amount.startswith("+"):
        machine.builder.indent(manual=True, amount=columns(amount[1:], 4.0))
    else:
        machine.builder.outdent(manual=True)


def temporary_indent(machine: Machine, rest: str) -> None:
    """`.ti`: a line break; the indent of one line is not kept."""
    machine.builder.line_break()


def tab_stops(machine: Machine, rest: str) -> None:
    """`.ta`: stops in columns; `+n` is relative to the stop before, `T` begins a repeating part."""
    stops: list[int] = []
    for part in rest.replace("T", " ").split():
        value = round(columns(part.lstrip("+").rstrip("LRC"), 0))
        last = stops[-1] if stops else 0
        stops.append(last + value if part.startswith("+") else value)
    machine.builder.tabs = [stop for stop in stops if 0 < stop < 1000]


def center(machine: Machine, rest: str) -> None:
    """`.ce [n]`: the next lines stand alone."""
    machine.builder.line_break()
    count = rest.strip()
    machine.builder.centered = min(int(count), 1000) if count.isdecimal() else 1 if not count else 0


def underline(machine: Machine, rest: str) -> None:
    """`.ul`, `.cu`: the next line in italics."""
    machine.builder.tag_font = ITALIC


def nothing(machine: Machine, rest: str) -> None:
    """A request that concerns typesetting alone."""


def title_parts(machine: Machine, rest: str) -> None:
    """A title line (`.tl`): its parts are text."""
    delimiter = rest[:1]
    if delimiter:
        machine.builder.line_break()
        machine.builder.text(" ".join(part for part in rest[1:].split(delimiter) if part))
        machine.builder.line_break()


_NOTHING = """
    ad na hy nh hw ne ss ps vs ll lt pl po ls fam fp cs lg kern hla hlm hcode hpf hpfa hym hys
    cflags class ns rs bp pn mk rt os sv wh ch dt em ev evc di da box boxa tm tm1 tmc ab ex nx rd
    pm ptr pc nn nm mc tc lc lf color gcolor fcolor defcolor warn warnscale spreadwarn special
    fspecial rchar fchar fschar schar style fzoom uf tkf blm lsm itc it nroff troff cp ftr hc ds1
    pi sy open opena write writec writem close cf trf psbb pso mso device output shc rfschar
    sizes pev pnr phw fdeferlig trin trnt trf bd as1 dei1 lg sty stringup stringdown asciify
    unformat vpt pvs brp eo1 backtrace
""".split()

PLAIN: dict[str, Handler] = {
    **dict.fromkeys(_NOTHING, nothing),
    "ft": font,
    "nf": no_fill,
    "fi": fill,
    "br": line_break,
    "sp": space,
    "in": indent,
    "ti": temporary_indent,
    "ta": tab_stops,
    "ce": center,
    "rj": center,
    "ul": underline,
    "cu": underline,
    "nr": register,
    "rr": remove_register,
    "af": number_format,
    "rnn": rename_register,
    "aln": rename_register,
    "length": length,
    "substring": substring,
    "chop": chop,
    "rm": remove,
    "rn": rename,
    "als": alias,
    "break": leave_loop,
    "return": leave_macro,
    "shift": shift,
    "so": include,
    "tl": title_parts,
    "brp": line_break,
}

RAW: dict[str, Handler] = {
    **dict.fromkeys(("de", "de1", "dei", "dei1"), define),
    **dict.fromkeys(("am", "am1", "ami"), lambda machine, rest: define(machine, rest, True)),
    **dict.fromkeys(("ds", "ds1"), string),
    **dict.fromkeys(("as", "as1"), lambda machine, rest: string(machine, rest, True)),
    "ig": ignore, "if": when, "ie": when_or_else, "el": otherwise, "while": loop, "tr": translate,
    "char": character, "nop": as_line, "do": do, "ec": escape_character, "eo": no_escapes,
    "cc": control_character, "c2": no_break_character, "\\}": nothing,
}  # fmt: skip
