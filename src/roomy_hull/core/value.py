"""What all parts of a job share: frozen, validated, and never losing a field it does not know."""

import functools
from collections.abc import Iterator
from typing import Annotated, Any, Self, get_origin

import msgspec
from msgspec import Meta

Mm = Annotated[float, Meta(ge=-20000, le=20000, description="mm")]
PositiveMm = Annotated[float, Meta(ge=0.1, le=20000, description="mm, 0.1 or more")]
Thickness = Annotated[float, Meta(ge=0.1, le=100, description="mm, 0.1 or more")]
Sheet = Annotated[float, Meta(ge=0.3, le=30, description="mm, 0.3 to 30")]
"""A sheet of metal or ply that is cut for furniture."""
BentSheet = Annotated[float, Meta(ge=0.3, le=8, description="mm, 0.3 to 8")]
"""A sheet that a canopy, a box or a tank is folded of."""
Gap = Annotated[float, Meta(ge=0, le=2000, description="mm, 0 or more")]
Kg = Annotated[float, Meta(ge=0, le=60000, description="kg")]
PositiveKg = Annotated[float, Meta(ge=0.01, le=60000, description="kg, 0.01 or more")]
Litres = Annotated[float, Meta(ge=0, le=2000, description="l")]
Fraction = Annotated[float, Meta(ge=0, le=1, description="0 to 1")]
Name = Annotated[str, Meta(max_length=120)]
Id = Annotated[str, Meta(min_length=1, max_length=60, pattern=r"^[A-Za-z0-9_.\-]+$")]


LEAST = 1e-6
"""No figure of a job but 0 is smaller than this: a sum's last digits are nothing that anybody measured."""


class Value(msgspec.Struct, frozen=True, kw_only=True):
    """A frozen value of the job. `extra` keeps fields that this version does not know."""

    extra: dict[str, Any] = {}

    def but(self, **changes: Any) -> Self:
        """A copy with some fields changed, validated anew.

        Args:
            **changes: New field values, in the file's own types.
        Returns: The changed copy; everything else is shared.
        Raises:
            msgspec.ValidationError: A value breaks a bound of its field.
        """
        fields = {name: getattr(self, name) for name in self.__struct_fields__}
        fields.update(changes)
        return msgspec.convert(fields, type(self), from_attributes=True)


@functools.cache
def _options(kind: Any) -> tuple[type[Value], ...]:
    """Our structs that a kind allows, through unions and optionals."""
    return tuple(
        k for k in getattr(kind, "__args__", ()) if isinstance(k, type) and issubclass(k, Value)
    )


def _holds(kind: Any) -> bool:
    """Whether a field's type holds any of our structs, at any depth."""
    if isinstance(kind, type) and issubclass(kind, Value):
        return True
    return any(map(_holds, getattr(kind, "__args__", ())))


@functools.cache
def _fields(struct: type[Value]) -> dict[str, Any]:
    """The fields that a struct knows, with the types of those that hold further structs.

    Kept: looking them up costs as much as reading a whole job.
    """
    # As they were written: msgspec's own list of them resolves every type anew.
    written: dict[str, Any] = {}
    for base in reversed(struct.__mro__):
        written |= base.__dict__.get("__annotations__", {})  # ruff: ignore[access-annotations-from-class-dict]  # `inspect` takes longer than all this saves
    if any(isinstance(kind, str) for kind in written.values()):
        written = {f.name: f.type for f in msgspec.structs.fields(struct)}
    names = zip(struct.__struct_fields__, struct.__struct_encode_fields__, strict=True)
    return {key: written[name] if _holds(written[name]) else None for name, key in names}


def struct_of(kind: Any, raw: Any) -> type[Value] | None:
    """Find which of our structs a raw object would become, through unions and optionals."""
    if isinstance(kind, type) and issubclass(kind, Value):
        return kind
    options = _options(kind)
    if len(options) > 1 and isinstance(raw, dict):
        tagged = [k for k in options if k.__struct_config__.tag == raw.get("kind")]
        return tagged[0] if tagged else None
    return options[0] if options and isinstance(raw, dict) else None


def set_aside(raw: Any, kind: Any) -> Any:
    """Move the fields that a struct does not know into its `extra`, all the way down.

    Args:
        kind: The struct, union or tuple type it will be converted to.
    Returns: A copy of `raw`, ready for conversion.
    """
    if get_origin(kind) is Annotated:
        kind = kind.__origin__
    if isinstance(raw, list):
        args = getattr(kind, "__args__", ())
        inner = args[0] if args else Any
        return [set_aside(item, inner) for item in raw]
    struct = struct_of(kind, raw)
    if struct is None or not isinstance(raw, dict):
        return raw
    known = _fields(struct)
    tag = struct.__struct_config__.tag_field
    kept: dict[str, Any] = {}
    extra: dict[str, Any] = {}
    for key, value in raw.items():
        if key == tag:
            kept[key] = value
        elif key in known and key != "extra":
            inner = known[key]
            kept[key] = value if inner is None else set_aside(value, inner)
        else:
            extra[key] = value
    if extra:
        kept["extra"] = extra
    return kept


def put_back(raw: Any) -> Any:
    """Undo `set_aside` on built-in objects before they are written; whole figures lose their ".0"."""
    if isinstance(raw, float) and (raw.is_integer() or abs(raw) < LEAST):
        return round(raw)  # what is next to nothing is nothing
    if isinstance(raw, list | tuple):
        return [put_back(item) for item in raw]
    if not isinstance(raw, dict):
        return raw
    extra = raw.get("extra", {})
    plain = {k: put_back(v) for k, v in raw.items() if k != "extra"}
    return plain | extra


def unknown_fields(value: Any, path: str = "") -> Iterator[str]:
    """Name every field kept in an `extra`, as a path such as ``units[3].colour``.

    Yields: Paths of fields that this version does not know.
    """
    if isinstance(value, tuple):
        for i, item in enumerate(value):
            yield from unknown_fields(item, f"{path}[{i}]")
    elif isinstance(value, Value):
        for key in value.extra:
            yield f"{path}.{key}".lstrip(".")
        inner = _fields(type(value)).values()
        for name, kind in zip(value.__struct_fields__, inner, strict=True):
            if kind is not None:
                yield from unknown_fields(getattr(value, name), f"{path}.{name}")


def refusal(trouble: Exception) -> str:
    """The words of a value that was refused, without the place in the file."""
    words = str(trouble).split(" - at `")[0].replace("Expected `float`", "expected a figure")
    return words.replace("`", "")
