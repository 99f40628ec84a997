"""Whatever bytes come to a reader: it reads them or refuses in words; bench/fuzz.py does it led by coverage."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.sweeping import some

import fuzz
from mutations import leaves

WHOLE = fuzz.wholes()
VALUES: st.SearchStrategy[Any] = st.one_of(
    st.floats(),
    st.integers(),
    st.text(max_size=40),
    st.lists(st.text(max_size=3)),
    st.none(),
    st.booleans(),
)


@pytest.mark.parametrize("name", sorted(fuzz.READERS))
@given(data=st.data())
def test_any_bytes_are_read_or_refused_in_words(name: str, data: st.DataObject) -> None:
    reader = fuzz.READERS[name]
    whole = data.draw(st.sampled_from(WHOLE[name]))
    a, b = sorted(data.draw(st.tuples(*[st.integers(0, len(whole))] * 2)))
    fuzz.refused(reader, whole[:a] + data.draw(st.binary(max_size=20)) + whole[b:])
    fuzz.refused(reader, data.draw(st.binary(max_size=60)))


@pytest.mark.parametrize("name", sorted(fuzz.FRAMES))
@given(data=st.data())
def test_any_value_in_the_place_of_another_is_read_or_refused_in_words(
    name: str, data: st.DataObject
) -> None:
    frame = json.loads(data.draw(st.sampled_from(WHOLE[name])))
    at = data.draw(st.sampled_from(list(leaves(frame))))
    fuzz.refused(fuzz.READERS[name], fuzz.placed(frame, at, data.draw(VALUES)))


@pytest.mark.parametrize("name", sorted(fuzz.FRAMES | {"device", "bar"}))
def test_what_is_whole_is_read(name: str) -> None:
    assert not any(fuzz.refused(fuzz.READERS[name], data) for data in WHOLE[name])


@pytest.mark.parametrize("name", sorted(fuzz.FRAMES))
def test_half_a_sign_anywhere_is_refused(name: str) -> None:
    # JSON can write half a surrogate pair, UTF-8 cannot.
    frame = json.loads(WHOLE[name][0])
    for at in some(list(leaves(frame)), 120):
        assert fuzz.refused(fuzz.READERS[name], fuzz.placed(frame, at, "a\ud800")), at


def test_half_a_sign_names_no_material() -> None:
    # Found by the fuzzer.
    frame = json.loads(WHOLE["shop"][0])
    frame["shop"]["materials"]["\ud800"] = frame["shop"]["materials"]["5052-H32"]
    assert fuzz.refused(fuzz.shop, json.dumps(frame).encode())


def test_a_bar_has_a_size_that_is_sold() -> None:
    for words in (
        "8" * 120 + "5x5",
        "4_0x40x3",
        "nanx5",
        "infx5",
        "1e3x5",
        "-40x40",
        "40x40x20",
        "0.01x5",
        "5",
        "",
    ):
        assert fuzz.refused(fuzz.bar, words.encode()), words
