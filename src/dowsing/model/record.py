"""Frozen records for answers.

The standard library's dataclasses cost more to import than a whole look-up may take (see
docs/decisions/records.md), so answer objects derive from this small base instead: fields are the
annotations, class attributes are defaults, instances are immutable, comparable and dumpable. Type
checkers see a dataclass.
"""

from __future__ import annotations

TYPE_CHECKING = False
if TYPE_CHECKING:
    from typing import Any, ClassVar, Self, dataclass_transform
else:

    def dataclass_transform(**_):
        return lambda cls: cls


@dataclass_transform(frozen_default=True, kw_only_default=False)
class Record:
    """Base of immutable records: `class Hit(Record): name: str; score: float = 0.0`."""

    _fields: ClassVar[tuple[str, ...]] = ()
    _defaults: ClassVar[dict[str, Any]] = {}

    def __init_subclass__(cls) -> None:
        own = [name for name in cls.__dict__.get("__annotations__", {}) if not name.startswith("_")]
        cls._fields = (*(f for f in cls._fields if f not in own), *own)
        cls._defaults = {**cls._defaults, **{n: cls.__dict__[n] for n in own if n in cls.__dict__}}

    if not TYPE_CHECKING:

        def __init__(self, *values, **named):
            state = self.__dict__
            state.update(self._defaults)
            state.update(zip(self._fields, values, strict=False))
            state.update(named)
            if len(values) > len(self._fields) or len(state) != len(self._fields):
                wrong = set(state) ^ set(self._fields)
                raise TypeError(
                    f"{type(self).__name__}: missing or unknown: {', '.join(sorted(wrong))}"
                )

    def __setattr__(self, name: str, value: object) -> None:
        raise AttributeError(f"{type(self).__name__} is immutable")

    def changed(self, **values: Any) -> Self:
        """A copy with other values in these fields."""
        return type(self)(**{**self.__dict__, **values})

    def __eq__(self, other: object) -> bool:
        return type(self) is type(other) and self.__dict__ == other.__dict__

    def __hash__(self) -> int:
        return hash((type(self), *(repr(v) for v in self.__dict__.values())))

    def __repr__(self) -> str:
        inside = ", ".join(f"{name}={getattr(self, name)!r}" for name in self._fields)
        return f"{type(self).__name__}({inside})"


_SCALARS = frozenset((str, int, float, bool, type(None)))


def dump(value: object) -> Any:
    """`value` as plain dicts, lists and scalars, ready for JSON."""
    if value.__class__ in _SCALARS:  # most of what there is
        return value
    if isinstance(value, Record):
        return {name: dump(getattr(value, name)) for name in value._fields}
    if isinstance(value, dict):
        return {key: dump(item) for key, item in value.items()}
    if isinstance(value, (list, tuple)):
        return [dump(item) for item in value]
    return value
