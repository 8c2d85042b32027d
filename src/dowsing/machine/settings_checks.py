"""What is wrong with the keys and values of the settings file: what is not of the kind that a key
takes is left out, and told.
"""

from __future__ import annotations

from dowsing.model.record import Record


class KeyRule(Record):
    """What a key of the settings takes. `values`: just these words; [] for any text; `number`: a
    whole number from 1 to 10,000; `several`: a list of texts will do as well.
    """

    values: list[str] = []  # noqa: RUF012 - a record is immutable
    number: bool = False
    several: bool = False


_WHEN = ["auto", "always", "never"]
KEYS = {
    "color": KeyRule(_WHEN),
    "pager": KeyRule(_WHEN),
    "width": KeyRule(number=True),
    "terminal": KeyRule(["light", "dark"]),
    "language": KeyRule(),
    "man_path": KeyRule(several=True),
    "shell": KeyRule(),
    "usage": KeyRule(["never", "ask"]),
    "background": KeyRule(["never", "always"]),
}
#: Keys that hold tables; their keys are checked where they are used.
TABLES = ("shell", "keys")
WIDEST = 10_000
MOST_SHOWN = 40  # characters of a wrong value


def faults_of(found: dict[str, object]) -> tuple[dict[str, object], list[str]]:
    """The keys with values that they take, and a line for each of the others."""
    good: dict[str, object] = {}
    faults: list[str] = []
    for key, value in found.items():
        if key in TABLES and isinstance(value, dict):
            good[key] = value
            continue
        fault = _fault(key, value)
        if fault:
            faults.append(fault)
        else:
            good[key] = value
    return good, faults


def _fault(key: str, value: object) -> str:
    """What is wrong with a key or its value, "" for nothing."""
    rule = KEYS.get(key)
    if rule is None:
        from dowsing.model.nearness import nearest_words

        near = nearest_words(key, [*KEYS, *TABLES], 1)
        hint = f"; nearest: {near[0]}" if near else f"; there are: {', '.join(KEYS)}"
        return f"there is no key {key!r}{hint}"
    shown = str(value)[:MOST_SHOWN]
    if rule.number:
        is_number = isinstance(value, int) or (isinstance(value, str) and value.isdecimal())
        digits = str(value)
        if is_number and len(digits) <= len(str(WIDEST)) and 1 <= int(digits) <= WIDEST:
            return ""
        return f"{key} is a number from 1 to {WIDEST}, not {shown!r}"
    if rule.values:
        return "" if value in rule.values else f"{key} is {_either(rule.values)}, not {shown!r}"
    texts = value if rule.several and isinstance(value, list) else [value]
    if all(isinstance(one, str) and "\x00" not in one for one in texts):
        return ""
    kind = "a text or a list of texts" if rule.several else "a text"
    return f"{key} is {kind} without NUL, not {shown!r}"


def _either(values: list[str]) -> str:
    return " or ".join([", ".join(values[:-1]), values[-1]])
