"""Whatever stands in a job file: it is judged, or refused in words that name the place."""

import copy
import json
import random
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.sweeping import examples

import mutations
from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.verdict_json import survey_json, verdict_json
from roomy_hull.studies.fit import closed
from roomy_hull.verdict.verdict import judge

Place = tuple[str | int, ...]

WRONG: tuple[Any, ...] = (
    0, -1, 0.001, 37.0, 9999, 1e5, 1e9, -500, "", "x", None, True, [], {}, "265/75R16", "left",
)  # fmt: skip


def leaves(value: Any, at: Place = ()) -> Iterator[Place]:
    """The path of every single value."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from leaves(inner, (*at, key))
    elif isinstance(value, list):
        for n, inner in enumerate(value):
            yield from leaves(inner, (*at, n))
    else:
        yield at


@pytest.fixture(scope="module")
def frames(tmp_path_factory: pytest.TempPathFactory) -> list[Any]:
    """The demo jobs as their files hold them."""
    folder = tmp_path_factory.mktemp("jobs")
    found = []
    for name in ("brackwater", "lowfold", "tarn"):
        path = folder / f"{name}.hull.json"
        jobfile.save(demo_job(name), path)
        found.append(json.loads(path.read_text()))
    return found


def put(frame: Any, at: Place, value: Any) -> None:
    """Put a value in its place."""
    for step in at[:-1]:
        frame = frame[step]
    frame[at[-1]] = value


@given(st.data())
def test_a_damaged_value_is_judged_or_refused_in_words(
    frames: list[Any], tmp_path: Path, data: st.DataObject
) -> None:
    frame = copy.deepcopy(data.draw(st.sampled_from(frames)))
    places = list(leaves(frame))
    for at in data.draw(st.lists(st.sampled_from(places), min_size=1, max_size=3, unique=True)):
        put(frame, at, data.draw(st.sampled_from(WRONG)))
    path = tmp_path / "damaged.hull.json"
    path.write_text(json.dumps(frame))
    try:
        verdict = judge(jobfile.load(path))
    except UserError as trouble:
        words = str(trouble)
    else:
        words = json.dumps(
            verdict_json(verdict) | {"survey": survey_json(verdict)}, allow_nan=False
        )
    assert len(words) > 10
    assert "Traceback" not in words


@given(st.data())
def test_a_number_made_larger_or_smaller_never_upsets_the_verdict(
    frames: list[Any], tmp_path: Path, data: st.DataObject
) -> None:
    frame = copy.deepcopy(data.draw(st.sampled_from(frames)))
    for _ in range(data.draw(st.integers(1, 3))):
        at = data.draw(st.sampled_from(list(leaves(frame))))
        value: Any = frame
        for step in at:
            value = value[step]
        if isinstance(value, int | float) and not isinstance(value, bool):
            put(frame, at, value * data.draw(st.sampled_from((-1, 0.1, 0.5, 0.9, 1.1, 2, 10))))
    path = tmp_path / "scaled.hull.json"
    path.write_text(json.dumps(frame))
    try:
        verdict = judge(jobfile.load(path))
    except UserError:
        return
    for loads in verdict.loads.scenarios:
        assert loads.front.value + loads.rear.value == pytest.approx(loads.gross.value)
    for point in verdict_json(verdict)["towing"]["scenarios"]:
        assert point["most_kg"] >= 0


@pytest.mark.parametrize(
    ("seed", "within"), [(11, ()), (12, ()), (13, mutations.BUILDING), (14, mutations.BUILDING)]
)
def test_what_is_accepted_makes_sense_and_what_is_not_is_refused_in_words(
    seed: int, within: tuple[str, ...]
) -> None:
    # A short form of bench/mutations.py, which does it by the thousand.
    rng = random.Random(seed)
    names = ("brackwater", "lowfold", "tarn")
    frames = [json.loads(jobfile.dumps(demo_job(n))) for n in names] if not within else []
    frames = frames or [mutations.building()]
    accepted = 0
    for _ in range(examples(40, 12)):
        frame = copy.deepcopy(rng.choice(frames))
        what = mutations.mutated(frame, rng, within)
        try:
            wrong = mutations.nonsense(frame)
        except UserError as trouble:
            wrong = "" if 10 < len(str(trouble)) < 900 else str(trouble)
        else:
            accepted += 1
        assert wrong == "", what
    assert accepted > examples(3, -1)


def test_a_crowd_in_one_place_is_judged_in_part_and_says_so(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(closed, "MOST_PAIRS", 100)
    job = demo_job()
    one = job.thing("pantry")
    crowd = tuple(one.but(id=f"u{n}", name=f"U{n}") for n in range(30))  # type: ignore[union-attr]
    scenarios = tuple(s.but(left_behind=()) for s in job.scenarios)
    verdict = judge(
        msgspec.structs.replace(job, units=crowd, sets=(), runs=(), scenarios=scenarios)
    )
    told = [f for f in verdict.findings if f.code == "fit.crowded"]
    assert [f.severity for f in told] == ["stop"]
    assert sum(f.code == "fit.overlap" for f in verdict.findings) == 100
    found = verdict_json(verdict)["findings"]
    assert sum(f["fixes"] is not None for f in found) <= 24
