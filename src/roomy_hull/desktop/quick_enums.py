"""Qt's enumerations made quickly.

PyQt6 makes a Python enumeration of every enumeration of every class that is touched, some two hundred
before the first picture. Python 3.11 builds each by way of a class body and each member by some fifty
steps, most of which ask what a class written by hand might have wished otherwise. Those of PyQt6 wish
nothing: they are names with whole numbers. For them alone a shorter way leads to an equal class, which
`tests/desktop/test_quick_enums.py` holds against Python's own, entry by entry. Other versions of Python
keep their own way.
"""

import enum
import sys
from collections.abc import Callable, Mapping
from typing import Any

_APPLIES = sys.version_info[:2] == (3, 11)
_MODULES = "PyQt6."
_TAKEN = frozenset({"name", "value", "mro", ""})
"""Names that enumerations treat in a way of their own."""
_OF_ITS_OWN = {
    "_member_names_": list, "_member_map_": dict, "_value2member_map_": dict, "_unhashable_values_": list,
}  # fmt: skip
"""What every enumeration has for itself alone."""
_LEFT_TO_TYPE = ("__dict__", "__weakref__")

python: Callable[..., Any] = enum.EnumType._create_  # type: ignore[attr-defined]  # what Enum("Name", members) calls
_patterns: dict[type, dict[str, Any]] = {}


def _pattern(base: Any) -> dict[str, Any]:
    """What the body of an enumeration without members holds, as Python makes it."""
    found = _patterns.get(base)
    if found is None:
        empty = python(base, "Empty", {}, module="")
        found = {k: v for k, v in vars(empty).items() if k not in _LEFT_TO_TYPE}
        _patterns[base] = found
    return found


def create(
    base: Any, class_name: str, names: Any, *, module: str | None = None, **rest: Any
) -> Any:
    """Make an enumeration from names and values, as `Enum("Name", members)` does.

    Args:
        base: `Enum`, `IntEnum`, `Flag` or `IntFlag`.
        names: Members by name. What is not whole numbers by name is left to Python's own way.
        module: The module it belongs to; only those of PyQt6 take the shorter way.
        **rest: `qualname`, `type`, `start`, `boundary`, as Python knows them.
    """
    if module is None:
        # Python asks its caller's caller; that is looked up here, since there is one step more.
        module = sys._getframe(2).f_globals.get("__name__")  # as `enum` does
        return python(base, class_name, names, module=module, **rest)
    if (
        not module.startswith(_MODULES)
        or rest.get("type") is not None
        or rest.get("boundary") is not None
        or not isinstance(names, Mapping)
    ):
        return python(base, class_name, names, module=module, **rest)
    for name, value in names.items():
        if type(value) is not int or name[:1] == "_" or name in _TAKEN:
            return python(base, class_name, names, module=module, **rest)
    body = {**_pattern(base), "__module__": module}
    body.update({key: kind() for key, kind in _OF_ITS_OWN.items()})
    qualname = rest.get("qualname")
    if qualname is not None:
        body["__qualname__"] = qualname
    made: Any = type.__new__(enum.EnumType, class_name, (base,), body)
    _fill(made, names)
    return made


def _fill(made: Any, names: Mapping[str, int]) -> None:
    """Put the members into an enumeration that has none."""
    flags = issubclass(made, enum.Flag)
    new = int.__new__ if made._member_type_ is int else lambda kind, _: object.__new__(kind)
    by_name, by_value, order = made._member_map_, made._value2member_map_, made._member_names_
    put = type.__setattr__
    mask = singles = 0
    for name, value in names.items():
        member = by_value.get(value)
        if member is None:
            member = by_value[value] = new(made, value)
            member.__dict__.update(
                _value_=value, _name_=name, __objclass__=made, _sort_order_=len(order)
            )
            single = value > 0 and not value & (value - 1)
            mask |= value
            if single:
                singles |= value
            if single or not flags:
                order.append(name)
        by_name[name] = member
        put(made, name, member)
    if flags:
        made._flag_mask_, made._singles_mask_ = mask, singles
        made._all_bits_ = 2 ** mask.bit_length() - 1
        values = [by_name[name]._value_ for name in order]
        if values != sorted(values):
            made._iter_member_ = made._iter_member_by_def_


def quicken() -> None:
    """Make the enumerations of PyQt6 by the shorter way from now on."""
    if _APPLIES:
        enum.EnumType._create_ = create  # type: ignore[attr-defined]
