"""Want files: what has to go in, read whole or refused with the place."""

import json
from pathlib import Path

import pytest

from roomy_hull.core.errors import JobFileError, UserError
from roomy_hull.formats import wantfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.arranging import BayWish, Weights
from roomy_hull.kit import catalogue

JOB = demo_job("tarn")


def want(**fields: object) -> bytes:
    return json.dumps({"format": "roomy-hull-want", "version": 1, "want": fields}).encode()


def job_with(**fields: object):  # type: ignore[no-untyped-def]  # a job
    return wantfile.with_want(JOB, wantfile.loads(want(**fields), "a.json"), "a.json")


def test_things_of_the_stores_come_with_their_number_and_size() -> None:
    job = job_with(
        things=[
            {"stores": "drawer", "count": 2, "width": 497, "name": "Tools"},
            {"stores": "battery"},
        ]
    )
    drawers = [u for u in job.arrange.wanted if u.name == "Tools"]
    assert [u.width for u in drawers] == [497, 497]
    assert len({u.id for u in job.arrange.wanted}) == 3


def test_a_thing_may_be_written_out_and_have_its_bays() -> None:
    unit = {
        "kind": "shelf",
        "id": "books",
        "name": "Books",
        "bay": "-",
        "width": 600,
        "depth": 300,
        "height": 300,
    }
    job = job_with(things=[{"unit": unit, "bays": ["B"]}])
    assert job.arrange.wanted[0].id == "books"
    assert job.arrange.bays == (BayWish(thing="books", bays=("B",)),)


def test_wishes_are_taken_over() -> None:
    job = job_with(pinned=["cold"], apart=[{"a": "water", "b": "battery", "gap": 150}],
                   near=[{"a": "press", "b": "packets"}],
                   weights={"low": 2}, axle="front", gas=False)  # fmt: skip
    here = job.arrange
    assert here.pinned == ("cold",)
    assert (here.axle, here.gas, here.own_weights) == ("front", False, True)
    assert here.weights == Weights(low=2.0)
    assert job_with(pin_all=True).arrange.pinned == tuple(u.id for u in JOB.units)


@pytest.mark.parametrize(("fields", "words"), [
    ({"things": [{"stores": "drawr"}]}, "the stores have no 'drawr'"),
    ({"things": [{"stores": "drawer-huge"}]}, "Near it: drawer-low"),
    ({"things": [{}]}, "neither 'stores' nor 'unit'"),
    ({"things": [{"stores": "tent"}]}, "goes into no bay"),
    ({"things": [{"stores": "drawer", "id": "cold"}]}, "the id 'cold' stands twice"),
    ({"pinned": ["ghost"]}, "no unit 'ghost' to pin"),
    ({"things": [{"stores": "drawer", "count": 0}]}, "count"),
    ({"weights": {"low": 9}}, "low"),
    ({"axle": "middle"}, "axle"),
    ({"apart": [{"a": "x", "b": "x"}]}, "itself"),
    ({"near": [{"a": "cold", "b": "ghost"}]}, "names 'ghost', which is not there"),
    ({"bays": [{"thing": "ghost", "bays": ["B"]}]}, "names 'ghost', which is not there"),
])  # fmt: skip
def test_what_cannot_be_used_is_said_with_its_place(fields: dict[str, object], words: str) -> None:
    with pytest.raises(UserError) as trouble:
        job_with(**fields)
    assert words in str(trouble.value)
    assert "a.json" in str(trouble.value)


@pytest.mark.parametrize("data", [b"", b"{", b"[]", b'{"format": "other"}', b'{"format": "roomy-hull-want", "version": 2}',
                                  b'{"format": "roomy-hull-want", "version": 1}', b"\xff\xfe"])  # fmt: skip
def test_a_damaged_file_is_told_as_such(data: bytes) -> None:
    with pytest.raises(JobFileError, match=r"a\.json"):
        wantfile.loads(data, "a.json")


def test_a_file_that_is_not_there(tmp_path: Path) -> None:
    with pytest.raises(JobFileError):
        wantfile.load(tmp_path / "none.json")


def test_every_entry_of_the_stores_can_be_named() -> None:
    for entry in catalogue.entries():
        if entry.use not in ("Outside", "Vehicle"):
            job = job_with(things=[{"stores": entry.key}])
            assert job.arrange.wanted[0].name == entry.make.name
