"""Doors and sheets that a workshop could mean."""

import json

import msgspec
import pytest

from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile
from roomy_hull.job.model import Job
from roomy_hull.kit.body import frame
from roomy_hull.verdict.verdict import judge


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"split": 37.0}, "leaves a half that holds no frame"),
        ({"split": -100.0}, "a half that holds no frame"),
        ({"height": 80.0, "split": 0.0}, "holds no frame"),
        ({"length": 60.0, "split": 0.0}, "make it 120 or more each way"),
    ],
)
def test_a_leaf_holds_its_frame(demo: Job, change: dict[str, float], words: str) -> None:
    # Found by chance: a let-down half of 37 mm was cut with stiles of -7 mm.
    assert demo.body.canopy is not None
    door = demo.body.canopy.doors[0].but(strut=None)
    if change.get("split", 1.0) < 0:
        change = {"split": door.height - 60.0}
    with pytest.raises(ValueError, match=words):
        demo.body.canopy.but(doors=(door.but(**change), *demo.body.canopy.doors[1:]))


@pytest.mark.parametrize(("field", "value"), [("skin", 100.0), ("skin", 0.2)])
def test_a_skin_is_a_sheet_that_folds(demo: Job, field: str, value: float) -> None:
    # Found by chance: a skin of 100 mm was cut with jambs of -27 mm.
    frame = json.loads(jobfile.dumps(demo))
    frame["body"]["canopy"][field] = value
    with pytest.raises(UserError, match=field):
        jobfile.loads(json.dumps(frame).encode())


def test_doors_in_one_place_take_what_they_share_only_once(demo: Job) -> None:
    # Found by chance: two doors in one wall cut it to less than nothing.
    assert demo.body.canopy is not None
    canopy = demo.body.canopy
    left = next(d for d in canopy.doors if d.side == "left").but(strut=None)
    # The second begins in the middle of the first.
    other = left.but(id="other", start=left.start + left.length / 2, length=left.length / 2)
    one = canopy.but(doors=(left,))
    both = canopy.but(doors=(left, other))
    area = [sum(c.length * c.width for c in frame.cutouts(c, "left")) for c in (one, both)]
    assert area[1] == pytest.approx(area[0], rel=0.02)
    (wall,) = (
        p
        for p in judge(
            msgspec.structs.replace(demo, body=demo.body.but(canopy=both))
        ).assembly.parts()
        if p.name == "Canopy: left wall"
    )
    assert wall.mass() > 0  # type: ignore[union-attr]
