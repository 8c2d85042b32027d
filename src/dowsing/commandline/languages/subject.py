"""The subject of a certificate: `/C=DE/O=Name/CN=host` (openssl-req)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading

_FIELDS = {
    "C": "country",
    "ST": "state",
    "L": "place",
    "O": "organisation",
    "OU": "department",
    "CN": "name: the host or the person",
    "emailAddress": "mail address",
    "serialNumber": "serial number",
}


def read(value: str, dialect: str = "") -> Reading:
    """Each field."""
    if value == "/":
        return Reading([], "an empty subject")
    fields = list(re.finditer(r"/(\w+)=((?:\\.|[^/\\])*)", value))
    if not fields or "".join(field[0] for field in fields) != value:
        return NOTHING
    cutter = Cutter(value)
    for field in fields:
        cutter.cut(field.end(), _FIELDS.get(field[1], field[1]))
    named = next((field[2] for field in fields if field[1] == "CN"), "")
    return cutter.finish(f"for {named}" if named else "")
