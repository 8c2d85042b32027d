"""What a line does that cannot be undone, as those who answer get it."""

from __future__ import annotations

from dowsing.knowledge.effects import EffectKind
from dowsing.model.record import Record

TYPE_CHECKING = False
if TYPE_CHECKING:
    from dowsing.model.told import Told


class Effect(Record):
    """Something that a line does and that cannot be undone: the words that do it, what they do, a
    harmless look before.

    `does` is what a page or our table of effects says, or a saying of our own.
    """

    words: str
    does: str | Told
    look: str = ""
    kind: EffectKind = EffectKind.CHANGES
