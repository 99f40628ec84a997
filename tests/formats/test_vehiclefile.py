from pathlib import Path

import pytest

from roomy_hull.core.errors import InputError, JobFileError
from roomy_hull.core.parts import Hardware
from roomy_hull.formats import jobfile, vehiclefile
from roomy_hull.job.model import Job
from roomy_hull.kit.body.fitting import begun, choices, fitted
from roomy_hull.making.cost import cost
from roomy_hull.shop.shop import Prices
from roomy_hull.verdict.verdict import judge
from tests.builders import SHOP

LIBRARY = vehiclefile.library(Path("/nowhere"))


@pytest.mark.parametrize("entry", LIBRARY, ids=lambda e: e.path.name)
def test_every_vehicle_begins_every_body_without_a_stop(entry: vehiclefile.Entry) -> None:
    assert entry.vehicle is not None, entry.trouble
    for choice in choices(entry.vehicle):
        job = begun("New", entry.vehicle, choice)
        verdict = judge(job)
        assert verdict.count("stop") == 0, [f.title for f in verdict.findings]
        assert jobfile.loads(jobfile.dumps(job)) == job
        assert verdict.loads.scenario("full").gross.value < entry.vehicle.ratings.gross


def test_the_library_has_every_kind() -> None:
    kinds = {e.vehicle.kind for e in LIBRARY if e.vehicle is not None}
    assert kinds == {"cab-chassis", "pickup", "wagon"}


def test_own_vehicles_are_listed_and_bad_ones_say_why(tmp_path: Path, demo: Job) -> None:
    vehiclefile.save(demo.vehicle, tmp_path / "mine.vehicle.json")
    (tmp_path / "bad.vehicle.json").write_text(
        '{"format": "roomy-hull-vehicle", "version": 1, "vehicle": {}}'
    )
    (tmp_path / "note.txt").write_text("x")
    found = vehiclefile.library(tmp_path)[len(LIBRARY) :]
    assert [e.path.name for e in found] == ["bad.vehicle.json", "mine.vehicle.json"]
    assert "no field" in found[0].trouble
    assert found[1].vehicle == demo.vehicle


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"{}", "not a Roomy Hull vehicle"),
        (b'{"format": "roomy-hull-vehicle", "version": 2}', "newer"),
        (b'{"format": "roomy-hull-vehicle", "version": 1}', "no field vehicle"),
        (b'{"format": "roomy-hull-vehicle", "version": 1, "vehicle": {"name": NaN}}', "line 1"),
    ],
)
def test_bad_vehicle_files_say_what(data: bytes, says: str) -> None:
    with pytest.raises(JobFileError, match=says):
        vehiclefile.loads(data, "v.vehicle.json")
    with pytest.raises(JobFileError, match="cannot be read"):
        vehiclefile.load(Path("/nowhere.vehicle.json"))


def test_a_body_that_is_not_for_this_vehicle(demo: Job) -> None:
    with pytest.raises(InputError, match="takes no topper"):
        fitted(demo.vehicle, "topper")
    with pytest.raises(InputError, match="leaves a tray of"):
        fitted(demo.vehicle.but(chassis_end=1900.0), "bare tray")


def test_the_cost_is_mass_cuts_bends_and_pieces(demo: Job) -> None:
    parts = judge(demo).assembly.parts()
    free = Prices(0, 0, 0, 0, 0, 0, "test")
    assert cost(parts, free).total == 0
    by_kg = cost(parts, Prices(1, 1, 0, 0, 0, 0, "test"))
    kg = sum(p.mass() * p.count for p in parts if hasattr(p, "mass"))
    assert by_kg.total == pytest.approx(kg)
    # By the piece but for what is sold by the metre, and bolts, which have a price of their own.
    pieces = sum(
        p.count
        for p in parts
        if isinstance(p, Hardware) and not p.metres and not p.name.startswith("M")
    )
    assert cost(parts, Prices(0, 0, 1, 0, 0, 0, "test")).total == pieces > 20
    assert cost(parts, SHOP.prices).total > 1000


def test_load_of_a_topper_stays_when_it_comes_off() -> None:
    tub = next(e.vehicle for e in LIBRARY if e.vehicle is not None and e.vehicle.kind == "pickup")
    job = begun("Tub", tub, "topper")
    assert set(judge(job).assembly.ground.mounts.values()) == {"vehicle"}
    assert job.body.canopy is not None
    assert job.body.canopy.kind == "topper"
