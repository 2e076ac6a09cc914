"""Sentences on what is wrong with a document, and JSON Schema, derived from the core's own declarations by pydantic."""

from __future__ import annotations

import types
from collections.abc import Callable
from dataclasses import MISSING, fields, is_dataclass
from dataclasses import Field as DataField
from functools import cache
from typing import Any, Literal, TypeVar, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel, ConfigDict, Field, ValidationError, create_model

from ..core.base.quantity import NAME_LENGTH, NAME_PATTERN, Quantity
from .document import FORMAT, VERSION, Job, LogEntry
from .language import tr
from .plain import DocumentError, dumped, names_of

T = TypeVar("T")


@cache
def model_of(cls: type) -> type[BaseModel]:
    """The pydantic model of a frozen dataclass: same fields, same bounds, unknown fields allowed."""
    hints = get_type_hints(cls)
    members: dict[str, Any] = {f.name: (_member_type(f, hints[f.name]), _member_field(f)) for f in fields(cls)}
    # Only the whole is ever validated, so only it is built, with its parts inside.
    config = ConfigDict(extra="allow", strict=True, defer_build=cls is not Job)
    return create_model(cls.__name__, __config__=config, __doc__=cls.__doc__, **members)


def _member_type(item: DataField[Any], hint: Any) -> Any:
    if (options := item.metadata.get("choice")) is not None:
        return Literal[tuple(options)]
    return _translated(hint)


def _translated(hint: Any) -> Any:
    if is_dataclass(hint):
        return model_of(hint)  # type: ignore[arg-type]
    if get_origin(hint) is tuple:
        return list[_translated(get_args(hint)[0])]  # type: ignore[misc]
    if get_origin(hint) in (Union, types.UnionType):
        return Union[tuple(_translated(a) for a in get_args(hint))]  # noqa: UP007
    return hint


def _member_field(item: DataField[Any]) -> Any:
    default = item.default_factory() if item.default_factory is not MISSING else item.default
    quantity: Quantity | None = item.metadata.get("quantity")
    told: dict[str, Any] = {"default": dumped(default)}
    if quantity is not None:
        told |= {"ge": quantity.low, "le": quantity.high, "description": quantity.help}
        if item.type != "int":
            told["allow_inf_nan"] = False
    elif item.metadata.get("name"):
        told |= {"max_length": NAME_LENGTH, "pattern": f"^{NAME_PATTERN}$", "description": "A name of one line."}
    elif item.metadata.get("help"):
        told["description"] = item.metadata["help"]
    return Field(**told, validate_default=True)


def built_by_pydantic(cls: type[T], raw: dict[str, Any]) -> T:
    """One of a class from plain data, its ranges checked; DocumentError names the first field that is wrong."""
    try:
        # A class can always be hashed; the type checker wants to be told.
        model = model_of(cls)  # type: ignore[arg-type]
        return _built(cls, model.model_validate(raw))
    except ValidationError as error:
        raise DocumentError(_sentence(error, cls)) from None


def _built(cls: type[T], model: BaseModel) -> T:
    return cls(**{name: of(getattr(model, name)) for name, of in _makers(cls)})  # type: ignore[arg-type]


@cache
def _makers(cls: type) -> tuple[tuple[str, Callable[[Any], Any]], ...]:
    """(field, how its value is made) of a dataclass: hints are read once a class, not once a value."""
    hints = get_type_hints(cls)
    return tuple((name, _maker(hints[name])) for name in names_of(cls))


def _maker(hint: Any) -> Callable[[Any], Any]:
    kinds = get_args(hint) if get_origin(hint) in (Union, types.UnionType) else (hint,)
    cls = next((kind for kind in kinds if is_dataclass(kind)), None)
    if cls is not None:
        return lambda value: _built(cls, value) if isinstance(value, BaseModel) else value  # type: ignore[arg-type]
    if get_origin(hint) is tuple:
        of_each = _maker(get_args(hint)[0])
        return lambda value: tuple(of_each(each) for each in value)
    if float in kinds:
        return lambda value: float(value) if isinstance(value, int) else value
    return lambda value: value


def _sentence(error: ValidationError, root: type = Job) -> str:
    first = error.errors()[0]
    path = ""
    for step in first["loc"]:
        path += f"[{step}]" if isinstance(step, int) else f".{step}" if path else str(step)
    bounds = first.get("ctx", {})
    wanted = first["msg"]
    if "ge" in bounds or "le" in bounds:
        wanted = _range_of(path, root) or wanted
    more = tr(" ({error_count} more like it)", error_count=error.error_count() - 1) if error.error_count() > 1 else ""
    given = "missing" if first["type"] == "missing" else f"{_brief(first['input'])}"
    return tr(
        "{path} is {given}; accepted: {wanted}{wanted2}{more}.",
        path=path,
        given=given,
        wanted=wanted[:1].lower(),
        wanted2=wanted[1:],
        more=more,
    )


def _brief(value: Any) -> str:
    text = repr(value)
    return text if len(text) <= 60 else text[:57] + "..."


def _range_of(path: str, root: type) -> str:
    """Both bounds of the field at a document path."""
    cls: Any = root
    item: DataField[Any] | None = None
    for name in [step.split("[")[0] for step in path.split(".")]:
        item = next((f for f in fields(cls) if f.name == name), None)
        if item is None:
            return ""
        hint = get_type_hints(cls)[name]
        cls = get_args(hint)[0] if get_origin(hint) is tuple else hint
    quantity = item.metadata.get("quantity") if item else None
    return f"{quantity.low:g} to {quantity.high:g} {quantity.unit}".strip() if quantity else ""


def entry_schema() -> dict[str, Any]:
    """The published JSON Schema of one line of an exported stump log."""
    schema = model_of(LogEntry).model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Plain Compass stump"
    return schema


def json_schema() -> dict[str, Any]:
    """The published JSON Schema of a job file."""
    schema = model_of(Job).model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Plain Compass job"
    schema["properties"] = {
        "format": {"const": FORMAT, "description": "Says what kind of file this is."},
        "version": {"const": VERSION, "description": "Version of the format."},
        **schema["properties"],
    }
    schema["required"] = ["format", "version"]
    return schema
