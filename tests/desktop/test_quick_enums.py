"""Enumerations made by the shorter way, held against Python's own, entry by entry."""

import enum
import pickle
import subprocess
import sys
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.desktop import quick_enums

pytestmark = pytest.mark.skipif(
    sys.version_info[:2] != (3, 11), reason="other versions keep Python's own way"
)
BASES = (enum.Enum, enum.IntEnum, enum.Flag, enum.IntFlag)
EVERY = """
import enum, json
from roomy_hull.desktop import quick_enums
asked = []
def remember(base, name, members, **rest):
    asked.append((base.__name__, name, members))
    return quick_enums.create(base, name, members, **rest)
enum.EnumType._create_ = remember
from PyQt6 import QtCore, QtGui, QtWidgets
for module in (QtCore, QtGui, QtWidgets):
    for name in dir(module):
        dir(getattr(module, name))
print(json.dumps(asked))
"""


def entries(made: Any) -> dict[str, Any]:
    """What a class holds, its members as names and values."""

    def plain(value: Any) -> Any:
        if isinstance(value, enum.Enum):
            return value._name_, value._value_, value._sort_order_, sorted(vars(value))  # type: ignore[attr-defined]
        if isinstance(value, enum.property):
            return "property", plain(getattr(value, "member", None))
        if isinstance(value, dict):
            return [(key, plain(one)) for key, one in value.items()]
        return getattr(value, "__func__", value)

    return {key: plain(value) for key, value in vars(made).items()}


def same(base: Any, members: dict[str, int]) -> None:
    own = quick_enums.python(base, "E", members, module="PyQt6.Any")
    quick = quick_enums.create(base, "E", members, module="PyQt6.Any")
    assert entries(quick) == entries(own)
    assert quick.__mro__[1:] == own.__mro__[1:]
    assert [m._value_ for m in quick] == [m._value_ for m in own]
    assert len(quick) == len(own)
    assert list(quick.__members__) == list(own.__members__)
    for name, value in members.items():
        assert quick[name] is quick(value)
        assert repr(quick(value)) == repr(own(value))
    if issubclass(base, enum.Flag):
        for a in quick:
            for b in quick:
                ours, theirs = a | b, own(a._value_) | own(b._value_)
                assert (ours._value_, str(ours)) == (theirs._value_, str(theirs))
                assert (~a)._value_ == (~own(a._value_))._value_


def test_every_enumeration_of_qt_is_the_same_by_both_ways() -> None:
    import json

    done = subprocess.run([sys.executable, "-c", EVERY], capture_output=True, text=True, check=True)
    asked = json.loads(done.stdout)
    assert len(asked) > 400
    for base, _name, members in asked:
        same(getattr(enum, base), members)


names = st.text("abcXYZ019", min_size=1, max_size=6).filter(str.isidentifier)


@given(st.sampled_from(BASES[:2]), st.dictionaries(names, st.integers(-9, 9), max_size=8))
def test_any_enumeration_is_the_same(base: Any, members: dict[str, int]) -> None:
    same(base, members)


@given(st.sampled_from(BASES[2:]), st.dictionaries(names, st.integers(0, 40), max_size=8))
def test_any_flags_are_the_same(base: Any, members: dict[str, int]) -> None:
    same(base, members)


@pytest.mark.parametrize("members", [{"_x": 1}, {"name": 1}, {"a": "text"}, ["a", "b"], "a b"])
def test_what_is_not_names_and_whole_numbers_goes_pythons_way(members: Any) -> None:
    try:
        own: Any = quick_enums.python(enum.Enum, "E", members, module="PyQt6.Any")
    except ValueError as trouble:
        with pytest.raises(type(trouble)):
            quick_enums.create(enum.Enum, "E", members, module="PyQt6.Any")
    else:
        assert entries(quick_enums.create(enum.Enum, "E", members, module="PyQt6.Any")) == entries(
            own
        )


def test_others_enumerations_are_left_alone_and_ours_can_be_pickled(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(enum.EnumType, "_create_", enum.EnumType._create_)  # type: ignore[attr-defined]  # put back afterwards
    quick_enums.quicken()
    assert enum.EnumType._create_ is quick_enums.create  # type: ignore[attr-defined]
    assert list(enum.Enum("Other", "a b"))  # type: ignore[call-overload]
    assert enum.Enum("Other", {"a": 1}).__module__ == __name__
    from PyQt6.QtCore import Qt

    assert pickle.loads(pickle.dumps(Qt.Key.Key_A)) is Qt.Key.Key_A
