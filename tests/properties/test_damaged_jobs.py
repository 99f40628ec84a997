"""Whatever stands in a job file: it is judged, or refused in words that name the place."""

import copy
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.verdict_json import survey_json, verdict_json
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
