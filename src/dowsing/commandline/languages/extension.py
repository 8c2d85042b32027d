"""Extensions of a certificate: `subjectAltName=DNS:host,IP:address` (x509v3_config)."""

from __future__ import annotations

import re

from dowsing.commandline.languages.reading import NOTHING, Cutter, Reading, listed

_NAMES = {
    "subjectAltName": "the other names that it is for",
    "basicConstraints": "whether it may sign others",
    "keyUsage": "what the key may be used for",
    "extendedKeyUsage": "what the key may be used for",
}
_KINDS = {"DNS": "the host", "IP": "the address", "email": "the mail address", "URI": "the page"}
_VALUES = {
    "CA:TRUE": "it may sign others",
    "CA:FALSE": "it may not sign others",
    "critical": "a program that does not know this must refuse it",
    "serverAuth": "for servers",
    "clientAuth": "for clients",
    "codeSigning": "for signing programs",
    "digitalSignature": "for signing",
    "keyEncipherment": "for encrypting keys",
    "keyCertSign": "for signing certificates",
    "cRLSign": "for signing lists of those called back",
}


def read(value: str, dialect: str = "") -> Reading:
    """The extension and each of its values."""
    match = re.fullmatch(r"(\w+)\s*=\s*(.+)", value)
    if not match:
        return NOTHING
    cutter = Cutter(value)
    cutter.cut(len(match[1]), _NAMES.get(match[1], ""))
    cutter.cut(match.start(2))
    said = []
    for text in match[2].split(","):
        says = _value(text.strip())
        said += [says] if says and text.strip() != "critical" else []
        cutter.cut(cutter.at + len(text), says)
        cutter.cut(min(cutter.at + 1, len(value)))
    return cutter.finish(listed(said))


def _value(text: str) -> str:
    kind, colon, name = text.partition(":")
    if colon and kind in _KINDS:
        return f"{_KINDS[kind]} {name}"
    return _VALUES.get(text, "")
