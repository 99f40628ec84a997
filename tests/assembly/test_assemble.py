import msgspec
import pytest

from roomy_hull.assembly.assemble import assemble, trial_thing
from roomy_hull.core.refs import CANOPY, TRAILER, TRAY, VEHICLE
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.verdict.verdict import judge


def test_an_edit_expands_only_what_changed(demo: Job) -> None:
    first = assemble(demo)
    job = edits.changed(demo, "tools", u=500.0)
    second = assemble(job, first)
    kept = [a is b for a, b in zip(first.things, second.things, strict=True)]
    assert kept.count(False) == 1
    assert second.ground is first.ground
    moved = second.thing("tools")
    assert moved is not None
    # It only moved, so it is what it was, somewhere else.
    assert moved.expansion is first.thing("tools").expansion  # type: ignore[union-attr]


def test_a_new_size_is_expanded_anew(demo: Job) -> None:
    first = assemble(demo)
    second = assemble(edits.changed(demo, "tools", height=250.0), first)
    assert second.thing("tools").expansion.envelope.z1 == 250  # type: ignore[union-attr]


def test_memory_never_alters_the_result(demo: Job) -> None:
    job, verdict = demo, judge(demo)
    for key, changes in (
        ("sample-fridge", {"u": 300.0}), ("tools", {"contents": 3.0}), ("water", {"bay": "R"}),
        ("bedding", {"height": 300.0}), ("galley", {"width": 50.0}), ("galley", {"width": 447.0}),
    ):  # fmt: skip
        job = edits.changed(job, key, **changes)
        verdict = judge(job, verdict)
        fresh = judge(job)
        assert verdict.findings == fresh.findings  # and in the same order
        assert verdict.loads.scenarios == fresh.loads.scenarios
        assert verdict.fit.pairs.keys() == fresh.fit.pairs.keys()
    longer = msgspec.structs.replace(job.body.tray, length=2100.0)
    job = msgspec.structs.replace(job, body=msgspec.structs.replace(job.body, tray=longer))
    assert judge(job, verdict).loads.scenarios == judge(job).loads.scenarios


def test_a_unit_that_cannot_be_made_is_a_block_with_its_trouble(demo: Job) -> None:
    job = edits.changed(demo, "galley", width=50.0)
    thing = assemble(job).thing("galley")
    assert thing is not None
    assert "drawer box" in thing.trouble
    assert len(thing.solids) == 1
    assert next(f.code for f in judge(job).findings if f.words == ("galley",)) == "fit.unit"


def test_kerb_masses_lose_what_was_aboard_where_it_sat(demo: Job) -> None:
    kerb = demo.vehicle.kerb.but(driver=80.0, fuel=40.0)
    vehicle = demo.vehicle.but(kerb=kerb)
    masses = assemble(msgspec.structs.replace(demo, vehicle=vehicle)).ground.masses
    front, rear = (
        next(m for m in masses if m.label == f"kerb, {e} axle") for e in ("front", "rear")
    )
    fuel = 40 * 0.84
    assert front.kg + rear.kg == pytest.approx(kerb.front + kerb.rear - 80 - fuel)
    taken = 80 * vehicle.seats[0].x + fuel * vehicle.fuel.x
    assert rear.kg == pytest.approx(kerb.rear - taken / vehicle.wheelbase)


def test_a_trial_thing_is_not_added(demo: Job) -> None:
    assembly = assemble(demo)
    trial = trial_thing(demo.units[2].but(id="trial"), assembly)
    assert trial.id == "trial"
    assert assembly.thing("trial") is None


def test_every_part_and_mass_has_an_owner_that_exists(demo: Job) -> None:
    assembly = assemble(demo)
    owners = {t.ref for t in assembly.things} | {VEHICLE, TRAY, CANOPY, TRAILER}
    assert {m.owner for m in assembly.masses()} <= owners
    assert {p.owner for p in assembly.parts()} <= owners
