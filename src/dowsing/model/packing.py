"""Values as bytes for the index, and back."""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any


def packed(value: object) -> bytes:
    """A value of plain lists and scalars as bytes."""
    import json
    import zlib

    text = json.dumps(value, ensure_ascii=False, separators=(",", ":"))
    return zlib.compress(text.encode("utf-8", "replace"), 6)


def unpacked(data: bytes) -> Any:
    """The value that `packed` made bytes of."""
    import json
    import zlib

    return json.loads(zlib.decompress(data))
