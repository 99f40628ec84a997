import json

import msgspec
import pytest

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.model import Job


def edited(demo: Job, *path: object, value: object) -> bytes:
    """The demo's file with one value replaced."""
    raw = json.loads(dumps(demo))
    spot = raw
    for step in path[:-1]:
        spot = spot[step]
    spot[path[-1]] = value
    return json.dumps(raw).encode()


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        (("vehicle", "wheelbase"), -3240, "wheelbase"),
        (("vehicle", "tyre"), "big ones", "section/aspectRrim"),
        (("vehicle", "chassis_end"), 900, "cab_back"),
        (("vehicle", "shape", "roof_rear"), 2500, "roof"),
        (("vehicle", "kerb", "fuel"), 500, "more than the tank"),
        (("vehicle", "kind"), "bus", "kind"),
        (("vehicle", "kind"), "wagon", "a wagon has a hold"),
        (("vehicle", "cab_back"), 3500, "not between the axles"),
        (("vehicle", "tyre_load_index"), 60, "load index 60 is not in the table"),
        (("vehicle", "seats"), [], "seats"),
        (("body", "tray", "rail"), "lots", "tray"),
        (("body", "canopy", "doors", 0, "length"), 2500, "its wall"),
        (("body", "canopy", "doors", 0, "height"), 1500, "height"),
        (("body", "canopy", "doors", 1, "id"), "left", "stands twice"),
        (("body", "canopy", "wall"), 99, None),
        (("body", "canopy", "bays", 0, "margin_start"), 1600, "no opening"),
        (("body", "canopy", "bays", 0, "margin_top"), 1600, "no opening"),
        (("units", 3, "width"), "wide", "units[3]"),
        (("units", 3, "width"), 0, "units[3]"),
        (("units", 3, "bay"), "Z", "does not exist"),
        (("units", 3, "id"), "water", "stands twice"),
        (("units", 3, "kind"), "piano", "units[3]"),
        (("carried", 0, "mount"), "moon", "carried[0]"),
        (("scenarios",), [], "scenarios"),
        (("scenarios", 1, "people"), [80] * 9, "seats"),
        (("scenarios", 1, "ball"), 300, "part of the trailer"),
        (("scenarios", 1, "water"), 1.5, "scenarios[1]"),
        (("scenarios", 1, "id"), "dry", "share an id"),
    ],
)
def test_a_value_that_cannot_be_is_refused_with_its_place(
    demo: Job, path: tuple[object, ...], value: object, says: str | None
) -> None:
    data = edited(demo, *path, value=value)
    if says is None:
        loads(data)
        return
    with pytest.raises(JobFileError) as caught:
        loads(data, "job.hull.json")
    assert says in str(caught.value)
    assert "job.hull.json" in caught.value.place
    assert "Traceback" not in str(caught.value)


def test_a_canopy_without_room_inside_is_refused(demo: Job) -> None:
    data = edited(demo, "body", "canopy", "roof", value=99)
    loads(data)
    data = edited(demo, "body", "canopy", "height", value=20)
    with pytest.raises(JobFileError, match="no room inside"):
        loads(data)


def test_the_unit_with_a_bad_value_is_named(demo: Job) -> None:
    with pytest.raises(JobFileError, match="Net drawer"):
        loads(edited(demo, "units", 4, "width", value="wide"))


def test_jobs_are_values(demo: Job) -> None:
    with pytest.raises(AttributeError):
        demo.name = "other"  # type: ignore[misc]
    assert loads(dumps(demo)) == demo
    other = msgspec.structs.replace(demo, name="other")
    assert other.units is demo.units


def test_things_are_found_by_id(demo: Job) -> None:
    assert demo.thing("punt") is demo.carried[2]
    assert demo.thing("water") is demo.units[0]
    assert demo.thing("nothing") is None


def test_the_kerb_side_is_away_from_the_driver(demo: Job) -> None:
    assert demo.vehicle.kerb_side() == "left"
    assert demo.vehicle.but(drive="left").kerb_side() == "right"
    assert 380 < demo.vehicle.axle_height() < 402
