"""Frozen dataclasses that are quick to declare and quick to make.

The standard ``dataclass`` writes and compiles six functions for a frozen class: a third of a second for the two hundred
classes of a start. Here only ``__init__`` is compiled; the others, that are the same for every class but for the names
of its fields, are shared. What it writes sets every field by way of ``object.__setattr__``, which took a ninth of an
assessment; here the fields of a class without slots go straight into the value's own dictionary.

The fields are those of ``dataclasses``: ``fields``, ``replace``, ``asdict`` and whoever reads them see no difference.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from dataclasses import MISSING, FrozenInstanceError, fields
from operator import attrgetter
from typing import TYPE_CHECKING, Any, TypeVar

T = TypeVar("T")

if TYPE_CHECKING:
    from dataclasses import dataclass as dataclass
else:

    def dataclass(*, frozen: bool, slots: bool = False, eq: bool = True) -> Callable[[type[T]], type[T]]:
        """What ``dataclasses.dataclass`` of the same arguments makes. Raises TypeError for one that is not frozen."""
        if not frozen:
            raise TypeError("only frozen classes are made here")
        return lambda cls: _made(cls, slots=slots, eq=eq)


def changed(value: T, /, **changes: Any) -> T:
    """A value of a class without slots with some fields changed: what ``dataclasses.replace`` does, much quicker.

    Raises TypeError for what is no field.
    """
    held = value.__dict__
    found: T = object.__new__(value.__class__)
    names = value.__dataclass_fields__  # type: ignore[attr-defined]
    if not changes.keys() <= names.keys():
        raise TypeError(f"{value.__class__.__name__} has no field {min(changes.keys() - names.keys())}")
    # What was worked out from the fields and kept beside them is not taken along.
    found.__dict__.update((name, held[name]) for name in names)
    found.__dict__.update(changes)
    return found


def _made(cls: type[T], *, slots: bool, eq: bool) -> type[T]:
    """The class with its fields, and the methods of a frozen one it does not have of its own."""
    dataclasses.dataclass(init=False, repr=False, eq=False, match_args=False)(cls)
    told = fields(cls)  # type: ignore[arg-type]
    names = tuple(item.name for item in told)
    made: dict[str, Any] = {"__match_args__": tuple(item.name for item in told if item.init)}
    made |= {"__init__": _init_of(cls, told, slots=slots), "__setattr__": _refuse_set, "__delattr__": _refuse_delete}
    own = vars(cls)
    if "__repr__" not in own:
        made["__repr__"] = _repr
    if eq:
        made |= {name: method for name, method in _equality(told).items() if name not in own}
    if not slots:
        for name, method in made.items():
            setattr(cls, name, method)
        return cls
    return _slotted(cls, names, made)


def _slotted(cls: type[T], names: tuple[str, ...], made: dict[str, Any]) -> type[T]:
    """The class anew, with a slot for each of its fields: slots cannot be given to a class that is there."""
    taken = _slots_above(cls)
    held = {name: value for name, value in vars(cls).items() if name not in (*names, "__dict__", "__weakref__")}
    held |= made | {"__slots__": tuple(name for name in names if name not in taken)}
    held |= {"__getstate__": _state, "__setstate__": _restore}
    metaclass: Any = type(cls)
    found: type[T] = metaclass(cls.__name__, cls.__bases__, held)
    found.__qualname__ = cls.__qualname__
    return found


def _slots_above(cls: type) -> set[str]:
    return {name for base in cls.__mro__[1:] for name in vars(base).get("__slots__", ())}


def _init_of(cls: type, told: tuple[dataclasses.Field[Any], ...], *, slots: bool) -> Callable[..., None]:
    """``__init__`` written out, as ``dataclasses`` writes its own: from names of fields, nothing from outside."""
    # What a base has a slot for does not lie in the dictionary of a class without slots.
    slotted = {item.name for item in told} if slots else _slots_above(cls)
    scope: dict[str, Any] = {"_set": object.__setattr__, "_new": MISSING}
    asked, filled = [], [] if slots else ["_held = self.__dict__"]
    for item in told:
        value = item.name
        if item.default is not MISSING:
            scope[f"_{item.name}_default"] = item.default
            asked.append(f"{item.name}=_{item.name}_default")
        elif item.default_factory is not MISSING:
            scope[f"_{item.name}_made"] = item.default_factory
            asked.append(f"{item.name}=_new")
            value = f"_{item.name}_made() if {item.name} is _new else {item.name}"
        else:
            asked.append(item.name)
        in_slot = item.name in slotted
        filled.append(f"_set(self, {item.name!r}, {value})" if in_slot else f"_held[{item.name!r}] = {value}")
    if hasattr(cls, "__post_init__"):
        filled.append("self.__post_init__()")
    source = "\n    ".join([f"def __init__(self, {', '.join(asked)}):", *(filled or ["pass"])])
    exec(source, scope)
    init: Callable[..., None] = scope["__init__"]
    init.__qualname__ = f"{cls.__qualname__}.__init__"
    return init


def _equality(told: tuple[dataclasses.Field[Any], ...]) -> dict[str, Callable[..., Any]]:
    """``__eq__`` and ``__hash__`` by the values of the fields that take part in them."""
    compared = _values(tuple(item.name for item in told if item.compare))
    hashed = _values(tuple(item.name for item in told if (item.compare if item.hash is None else item.hash)))

    def is_equal(self: Any, other: Any) -> bool:
        return compared(self) == compared(other) if other.__class__ is self.__class__ else NotImplemented

    def hash_of(self: Any) -> int:
        return hash(hashed(self))

    return {"__eq__": is_equal, "__hash__": hash_of}


def _values(names: tuple[str, ...]) -> Callable[[Any], tuple[Any, ...]]:
    if len(names) > 1:
        return attrgetter(*names)
    return lambda value: tuple(getattr(value, name) for name in names)


def _repr(self: Any) -> str:
    told = ", ".join(f"{item.name}={getattr(self, item.name)!r}" for item in fields(self) if item.repr)
    return f"{self.__class__.__qualname__}({told})"


def _refuse_set(_: Any, name: str, __: Any) -> None:
    raise FrozenInstanceError(f"cannot assign to field {name!r}")


def _refuse_delete(_: Any, name: str) -> None:
    raise FrozenInstanceError(f"cannot delete field {name!r}")


def _state(self: Any) -> list[Any]:
    return [getattr(self, item.name) for item in fields(self)]


def _restore(self: Any, state: list[Any]) -> None:
    for item, value in zip(fields(self), state, strict=True):
        object.__setattr__(self, item.name, value)
