"""What kind of file an executable is."""

from __future__ import annotations

import os

from dowsing.model.plainfile import plain_only

_ELF_MACHINES = {
    3: "x86",
    8: "MIPS",
    20: "PowerPC",
    21: "PowerPC 64",
    22: "S390",
    40: "ARM",
    62: "x86-64",
    183: "ARM 64",
    243: "RISC-V",
    258: "LoongArch",
}
_MAGIC = {
    b"\xcf\xfa\xed\xfe": "binary (Mach-O)",
    b"\xca\xfe\xba\xbe": "binary (Mach-O, several architectures)",
    b"\x00asm": "WebAssembly module",
    b"PK\x03\x04": "archive that is run",
    b"MZ": "binary (Windows)",
}


def file_kind(path: str) -> str:
    """`binary (ELF, x86-64)`, `script (sh)`, `text without an interpreter line`, …; "" if it cannot
    be read.
    """
    try:
        with open(path, "rb", opener=plain_only) as file:
            head = file.read(400)
    except OSError:
        return ""
    if not head:
        return "empty file"
    if head[:4] == b"\x7fELF":
        order = "little" if head[5:6] == b"\x01" else "big"
        machine = _ELF_MACHINES.get(int.from_bytes(head[18:20], order), "")  # type: ignore[arg-type]
        return f"binary (ELF, {machine})" if machine else "binary (ELF)"
    for magic, kind in _MAGIC.items():
        if head.startswith(magic):
            return kind
    if head[:2] == b"#!":
        words = head[2:].split(b"\n")[0].decode("utf-8", "replace").split()
        return f"script ({interpreter(words)})" if words else "script"
    return "binary" if b"\x00" in head else "text without an interpreter line"


def interpreter(words: list[str]) -> str:
    """The program of an interpreter line, where `env` looks it up the one that it looks up."""
    if os.path.basename(words[0]) == "env":
        rest = [word for word in words[1:] if not word.startswith("-") and "=" not in word]
        return rest[0] if rest else "env"
    return os.path.basename(words[0])
