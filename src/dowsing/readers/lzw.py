"""What the old `compress` packed, in files that end in `.Z`: codes of growing width for texts that
were seen before.
"""

from __future__ import annotations

_HEADER = 3  # bytes: the magic and the settings
_WIDTHS = range(10, 17)  # bits that codes grow to; with 9 nobody packs
_CLEAR = 256  # the code that begins a new table, if the settings have it
_NARROW = 9


def unpacked(data: bytes, most: int) -> bytes:
    """The unpacked bytes; not much more than `most` of them. Raises ValueError for damaged data."""
    if len(data) < _HEADER:
        raise ValueError("they end too early")
    widest, clears = data[2] & 0x1F, bool(data[2] & 0x80)
    if widest not in _WIDTHS:
        raise ValueError(f"codes of {widest} bits")
    done: list[bytes] = []
    size = 0
    table = _new_table(clears)
    before = b""
    width, at = _NARROW, 0  # bits of a code; bits behind the header
    bits = 8 * (len(data) - _HEADER)
    block = 0  # where codes of this width begin: they come in blocks of eight
    while size <= most:
        if len(table) >= 1 << width and width < widest:
            at = block = _next_block(at, block, width)
            width += 1
        if at + width > bits:
            break
        code = _code(data, at, width)
        at += width
        if code == _CLEAR and clears:
            at = block = _next_block(at, block, width)
            table, before, width = _new_table(clears), b"", _NARROW
            continue
        if code < len(table):
            text = table[code]
        elif before and code == len(table):
            text = before + before[:1]
        else:
            raise ValueError("a code that stands for nothing")
        done.append(text)
        size += len(text)
        if before and len(table) < 1 << widest:
            table.append(before + text[:1])
        before = text
    return b"".join(done)


def _new_table(clears: bool) -> list[bytes]:
    """What codes stand for at the beginning: each byte for itself."""
    table = [bytes([byte]) for byte in range(256)]
    return [*table, b""] if clears else table


def _code(data: bytes, at: int, width: int) -> int:
    start = _HEADER + (at >> 3)
    return int.from_bytes(data[start : start + 4], "little") >> (at & 7) & (1 << width) - 1


def _next_block(at: int, block: int, width: int) -> int:
    """Where the block of eight codes ends in which the place `at` is."""
    whole = 8 * width
    return block + -(-(at - block) // whole) * whole
