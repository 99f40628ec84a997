"""Doors and bays added and taken away by hand: a topper's side windows, a bay from nothing, what is refused and why."""

import msgspec
import pytest
from tests.builders import begun, canopy_of, codes, with_canopy

from roomy_hull.core.errors import InputError
from roomy_hull.job.edits import units as edits
from roomy_hull.kinds.own import Block, Own
from roomy_hull.kit.body import doors_and_bays as kit
from roomy_hull.kit.body.fitting import SHELLS
from roomy_hull.verdict.verdict import judge


def test_a_toppers_side_windows_let_out_what_the_tailgate_cannot() -> None:
    job = begun("Sedge", "topper")
    bay = canopy_of(job).bays[0]
    for side in ("left", "right"):
        job = kit.with_door(job, "", side)
    windows = [d for d in canopy_of(job).doors if d.side in ("left", "right")]
    assert [d.side for d in windows] == ["left", "right"]
    assert all(d.sill >= canopy_of(job).base for d in windows)
    bays = (bay.but(also=("left", "right")), *canopy_of(job).bays[1:])
    job = with_canopy(job, bays=bays)
    assert codes(judge(job), "side.") == []
    place = judge(job).assembly.ground.bays[bay.id]
    assert [(w.face, len(w.openings)) for w in place.also] == [("left", 1), ("right", 1)]
    for way, door in zip(place.also, windows, strict=True):
        (a0, z0, a1, z1) = way.openings[0]
        assert z1 - z0 == pytest.approx(min(door.height, bay.height + bay.sill - door.sill))
        assert a1 - a0 == pytest.approx(door.length, abs=2 * canopy_of(job).wall)


def test_a_canopy_is_given_bays_and_doors_from_nothing() -> None:
    job = begun("Fen", "short canopy")
    job = with_canopy(job, doors=(), bays=())
    for side in ("left", "right"):
        job = kit.with_bay(job, "", side)
        job = kit.with_door(job, "", side)
    stops = [f.title for f in judge(job).findings if f.severity == "stop"]
    assert stops == []
    bays = canopy_of(job).bays
    assert {b.side for b in bays} == {"left", "right"}
    assert len(SHELLS) == 3
    with pytest.raises(InputError, match="mm left"):
        kit.with_bay(job, "", "left")
    with pytest.raises(InputError, match="left beside its doors"):
        kit.with_door(job, "", "left")


def test_a_bay_with_units_stays_and_an_empty_one_goes() -> None:
    job = begun("Fen", "bare tray", "box")
    room = job.body.rooms[0]
    bay = room.shell.bays[0]
    context = Own(id="case", name="Case", bay=bay.id, width=200, depth=200, height=200,
               blocks=(Block(u=0, v=0, w=0, width=200, depth=200, height=200),))  # fmt: skip
    full = edits.added(job, context)
    with pytest.raises(InputError, match="Case stand in it"):
        kit.without_bay(full, bay.id)
    assert kit.without_bay(job, bay.id).body.rooms[0].shell.bays == room.shell.bays[1:]
    door = room.shell.doors[0]
    assert kit.without_door(job, door.id).body.rooms[0].shell.doors == room.shell.doors[1:]
    with pytest.raises(InputError, match="no 'moon'"):
        kit.without_door(job, "moon")
    bare = msgspec.structs.replace(job, body=job.body.but(rooms=()))
    with pytest.raises(InputError, match="no canopy"):
        kit.with_door(bare, "", "left")
