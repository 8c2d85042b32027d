"""Paths are bytes: what is no UTF-8 comes back from the index as it was."""

from __future__ import annotations

import os

from hypothesis import given
from hypothesis import strategies as st

from dowsing.model.paths import as_text, restored, stored

BYTES = st.one_of(
    st.binary(max_size=12),
    st.lists(st.sampled_from([0xF4, 0x8F, 0xBC, 0xBE, 0xBF, 0x80, 65])).map(bytes),
)


@given(BYTES)
def test_any_bytes_come_back(data: bytes) -> None:
    path = os.fsdecode(data)
    kept = stored(path)
    kept.encode()  # valid text
    assert os.fsencode(restored(kept)) == data


def test_plain_paths_stay_as_they_are() -> None:
    assert stored("/usr/share/man/man1/ls.1.gz") == "/usr/share/man/man1/ls.1.gz"
    assert stored("/gärten/beet") == "/gärten/beet"
    assert as_text(os.fsdecode(b"b\xffd")) == "b\ufffdd"
