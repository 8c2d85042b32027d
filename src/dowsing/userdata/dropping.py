"""What is kept no longer goes to a file of its own, so that it is not lost."""

from __future__ import annotations

import os

from dowsing.userdata import DROPPED
from dowsing.userdata.user_files import change

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.knowledge.toml_blocks import Block


def take_out(folder: str, text: str, block: Block) -> str:
    """The text without the block, which is put at the end of the file of what was dropped. Raises
    CannotKeep.
    """
    taken = text[block.start : block.end].strip("\n") + "\n"
    change(os.path.join(folder, DROPPED), lambda rest: f"{rest}{chr(10) if rest else ''}{taken}")
    return text[: block.start] + text[block.end :]
