"""Rooms, racks and what is fixed to them: fit, loads, faces, outline, parts; cases by hand."""

import msgspec
import pytest
from tests.builders import begun, codes, hung

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.solids import hull
from roomy_hull.core.parts import Hardware
from roomy_hull.core.poses import standing
from roomy_hull.formats.solid_parts import whole_bodies
from roomy_hull.job.body import Body
from roomy_hull.job.canopy import Bay
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.own import Block, Own
from roomy_hull.kit import catalogue
from roomy_hull.kit.body import outfitting
from roomy_hull.kit.body.first_racks import RACKS
from roomy_hull.verdict.verdict import fixes, judge

EVERY = [
    ("Fen", "bare tray", "box"), ("Fen", "bare tray", "dog box"), ("Fen", "bare tray", "side box"),
    ("Fen", "bare tray", "camper"), ("Marl 2.8 dual", "bare tray", "cab"), ("Sedge", "open tub", "tub rack"),
    ("Fen", "bare tray", "tub rack"), ("Plover", "cargo area", "cab rack"), ("Fen", "bare tray", "gap rack"),
    ("Fen", "short canopy", "hoop"), ("Marl 2.8 dual", "short canopy", "rear wall"),
]  # fmt: skip


def unit(
    key: str, bay: str, at: tuple[float, float, float], size: tuple[float, float, float]
) -> Own:
    """A plain block in a bay."""
    (u, v, w), (a, b, c) = at, size
    return Own(id=key, name=key, bay=bay, u=u, v=v, w=w, width=a, depth=b, height=c, mass=5.0,
               blocks=(Block(u=0, v=0, w=0, width=a, depth=b, height=c),))  # fmt: skip


def resize(job: Job, **changes: object) -> Job:
    body: Body = job.body.but(**changes)
    return msgspec.structs.replace(job, body=body)


@pytest.mark.parametrize(("vehicle", "choice", "part"), EVERY)
def test_every_room_and_rack_is_begun_without_a_stop_and_taken_away_again(
    vehicle: str, choice: str, part: str
) -> None:
    bare = begun(vehicle, choice)
    job = outfitting.added(bare, part)
    before, after = judge(bare), judge(job)
    known = {f.key for f in before.findings}
    assert [f.title for f in after.findings if f.severity == "stop" and f.key not in known] == []
    key = (job.body.rooms or job.body.racks)[-1].id
    assert outfitting.taken_away(job, key) == bare
    # What is weighed is what is cut, as its parts stand, and what is bought.
    ground = after.assembly.ground
    made = [p for p in ground.parts if p.owner.id == key and not isinstance(p, Hardware)]
    kg = sum(m.kg for m in ground.masses if m.owner.id == key)
    if part not in ("cab", "camper"):
        assert kg >= sum(p.mass() * len(p.poses) for p in made) - 1e-6
    else:
        assert made == []


@pytest.mark.parametrize("kind", [k for _v, _c, k in EVERY if k in RACKS])
def test_a_racks_parts_stand_where_it_is_judged(kind: str) -> None:
    vehicle, choice, _k = next(row for row in EVERY if row[2] == kind)
    job = begun(vehicle, choice, kind)
    own = job.body.racks[0]
    job = resize(
        job, racks=(own.but(panels="both", deck="sheet", panel_height=min(own.height, 200.0)),)
    )
    ground = judge(job).assembly.ground
    parts = [p for p in ground.parts if p.owner.kind == "rack" and not isinstance(p, Hardware)]
    boxes = [b for p in parts for boxes in standing(p) for b in boxes]
    there = ground.racks[0]
    assert hull(boxes) == pytest.approx(hull(there.boxes), abs=1e-6)
    assert len(boxes) == len(there.boxes)
    assert whole_bodies(judge(job).assembly)
    # Every hole of a rail lies within it, at the pitch.
    for p in parts:
        for hole in getattr(p, "drilled", ()):
            if hasattr(hole, "along"):
                assert 0 < hole.along < p.length
                assert hole.along % there.rack.pitch == pytest.approx(0)


def test_a_room_that_meets_something_says_with_what_and_how_far() -> None:
    job = begun("Fen", "bare tray", "box")
    room = job.body.rooms[0]
    ahead = resize(job, rooms=(msgspec.structs.replace(room, start=-80.0),))
    found = [f for f in judge(ahead).findings if f.code == "body.meets"]
    assert found
    assert any("headboard" in f.title for f in found)
    two = outfitting.added(job, "box")
    second = two.body.rooms[1]
    close = resize(
        two,
        rooms=(room, msgspec.structs.replace(second, start=room.start + room.shell.length - 30)),
    )
    met = next(f for f in judge(close).findings if f.code == "body.meets")
    assert met.measured == pytest.approx(30)
    (fix,) = fixes(judge(close), met)
    assert fix.changes


def test_things_lie_on_their_rack_at_its_holes() -> None:
    job = hung(begun("Sedge", "open tub", "tub rack"), "boards")
    rack, item = job.body.racks[0], job.carried[0]
    assert item.on == rack.id
    assert codes(judge(job), "body.") == []
    off = edits.changed(job, item.id, x=item.x + 13.0)
    found = [f for f in judge(off).findings if f.code == "body.rack_pitch"]
    assert [f.measured for f in found] == pytest.approx([13])
    (fix,) = fixes(judge(off), found[0])
    assert judge(edits.changed(off, item.id, **fix.changes)).findings
    assert codes(judge(edits.changed(off, item.id, **fix.changes)), "body.") == []
    high = edits.changed(job, item.id, z=item.z + 100.0)
    assert codes(judge(high), "body.") == ["body.on_rack"]
    lost = edits.changed(job, item.id, on="nowhere")
    assert codes(judge(lost), "body.") == ["body.on_rack"]


def test_a_taller_rack_takes_nothing_along_and_that_is_told() -> None:
    job = hung(begun("Sedge", "open tub", "tub rack"), "tent")
    taller = resize(job, racks=(job.body.racks[0].but(height=650.0),))
    assert "body.on_rack" in codes(judge(taller), "body.")


def test_a_rack_is_held_against_both_its_ratings() -> None:
    """A tent of 62 kg and two sleepers of 80: 62 moving, 222 still."""
    job = hung(begun("Sedge", "open tub", "tub rack"), "tent")
    rated = resize(job, racks=(job.body.racks[0].but(rating=60.0, rating_still=200.0),))
    verdict = judge(rated)
    check = verdict.carrying.racks[0]
    people = sorted((kg for s in job.scenarios for kg in s.people), reverse=True)[:2]
    assert check.kg == pytest.approx(62)
    assert check.still_kg == pytest.approx(62 + sum(people))
    assert codes(verdict, "loads.rack") == ["loads.rack", "loads.rack_still"]
    fine = resize(job, racks=(job.body.racks[0].but(rating=100.0, rating_still=300.0),))
    assert codes(judge(fine), "loads.rack") == []
    assert codes(judge(job), "loads.rack") == ["loads.rack_unrated"]


def test_what_a_rack_could_carry_is_what_brings_a_bar_to_its_limit() -> None:
    job = hung(begun("Sedge", "open tub", "tub rack"), "tent")
    one = judge(job).carrying.racks[0]
    heavy = edits.changed(job, "tent", mass=one.could)
    again = judge(heavy).carrying.racks[0]
    worst = max(c.use for c in again.cases if c.words != "standing still")
    # The rack's own stress and the load's are added by their size: never too little is told.
    assert 0.8 < worst <= 1.0 + 1e-6
    double = edits.changed(job, "tent", mass=2.2 * one.could)
    assert "loads.rack_bar" in codes(judge(double), "loads.rack_bar")


def test_a_hoop_carries_two_spares() -> None:
    job = hung(begun("Fen", "short canopy", "hoop"), "spare", "spare")
    assert [c.on for c in job.carried] == ["hoop", "hoop"]
    # Their tyres are smaller than this flatbed's, and that is said.
    assert codes(judge(job), "body.", "fit.") == ["body.spare", "body.spare"]
    check = judge(job).carrying.racks[0]
    assert check.kg == pytest.approx(68)
    assert check.worst() is not None
    assert not check.trouble


def test_a_bought_body_weighs_what_its_plate_says_where_it_says() -> None:
    job = begun("Fen", "bare tray", "camper")
    room = job.body.rooms[0]
    room = msgspec.structs.replace(room, mass=600.0, centre_along=2000.0, over=1000.0)
    job = resize(job, rooms=(room,))
    there = judge(job).assembly.ground
    mass = next(m for m in there.masses if m.owner == room.ref)
    place = there.rooms_there[0]
    assert mass.kg == 600
    assert mass.x == pytest.approx(place.box.x0 - 1000 + 2000)
    assert place.alcove is not None
    assert place.alcove.x1 == place.box.x0
    assert judge(job).outline.height >= place.box.z1


def test_a_bay_open_at_two_sides_lets_out_what_one_side_blocks() -> None:
    """A long block before a short one; through the window on the other side the short one comes out by itself."""
    job = begun("Marl 2.8 dual", "bare tray", "cab")
    bay = job.body.rooms[0].shell.bays[0]
    long = bay.length - 20
    front = unit("front", bay.id, (0, 0, 0), (long, 300, 400))
    back = unit("back", bay.id, (0, bay.depth - 310, 0), (long, 300, 400))
    job = msgspec.structs.replace(job, units=(front, back))
    assert judge(job).in_out.blockers("back") == ()
    room = job.body.rooms[0]
    shut = msgspec.structs.replace(bay, also=())
    closed = msgspec.structs.replace(room, shell=msgspec.structs.replace(room.shell, bays=(shut,)))
    assert judge(resize(job, rooms=(closed,))).in_out.blockers("back") == ("front",)


def test_a_hold_under_a_lid_is_emptied_from_above() -> None:
    job = begun("Plover", "cargo area")
    tray = job.body.tray.but(false_floor=250.0)
    job = outfitting.added(resize(job, tray=tray), "hatch")
    bay = job.body.rooms[0].shell.bays[0]
    rear = unit("rear", bay.id, (0, 0, 0), (400, 300, 150))
    deep = unit("deep", bay.id, (0, 320, 0), (400, 300, 150))
    job = msgspec.structs.replace(job, units=(rear, deep))
    verdict = judge(job)
    assert verdict.in_out.blockers("deep") == ()
    space = next(s for s in verdict.access.spaces if s.owner == "deep")
    assert space.first == ()
    assert space.top


def test_a_bay_names_each_face_once() -> None:
    with pytest.raises(ValueError, match="twice"):
        Bay(
            id="b",
            name="B",
            side="left",
            start=0,
            length=500,
            depth=400,
            height=400,
            also=("left",),
        )


@pytest.mark.parametrize(
    ("vehicle", "choice", "part", "words"),
    [
        ("Fen", "full canopy", "rear wall", "rear door"), ("Fen", "full canopy", "tub rack", "canopy stands"),
        ("Plover", "cargo area", "hatch", "false floor"), ("Marl 2.8 dual", "full canopy", "box", "mm left"),
        ("Marl 2.8 single", "bare tray", "cab", "behind the front seats"), ("Fen", "full canopy", "camper", "1,500 mm"),
    ],
)  # fmt: skip
def test_what_finds_no_room_says_why(vehicle: str, choice: str, part: str, words: str) -> None:
    with pytest.raises(InputError, match=words):
        begun(vehicle, choice, part)


def test_a_room_with_units_is_not_taken_away() -> None:
    job = begun("Fen", "bare tray", "box")
    bay = job.body.rooms[0].shell.bays[0]
    job = edits.added(job, unit("case", bay.id, (25, 0, 0), (300, 300, 300)))
    with pytest.raises(InputError, match="Delete or move"):
        outfitting.taken_away(job, job.body.rooms[0].id)
    # One that stands there in a kept layout only would be left without its bay.
    kept = edits.removed(layouts.kept(job, "Other"), "case")
    with pytest.raises(InputError, match="kept layouts"):
        outfitting.taken_away(kept, kept.body.rooms[0].id)
    mirrored = edits.mirrored(job, "case")
    other = mirrored.thing("case")
    assert other is not None
    assert not isinstance(other, Carried)
    assert other.bay == job.body.rooms[0].shell.bays[1].id


def test_what_is_bolted_ahead_decides_the_approach_angle() -> None:
    job = begun("Marl 2.8 dual", "bare tray")
    plain = judge(job).outline.angles[0]
    barred = judge(hung(job, "bull-bar", "winch")).outline.angles[0]
    stepped = judge(hung(job, "steps", "steps")).outline.angles[0]
    assert barred.approach < plain.approach
    assert barred.ramp == plain.ramp
    assert stepped.ramp < plain.ramp
    assert codes(judge(hung(job, "bull-bar", "winch")), "fit.") == []


def test_a_trundle_without_locks_runs_away_on_a_slope() -> None:
    job = begun("Fen", "bare tray")
    trundle = {"length": 900.0, "width": 600.0, "height": 250.0, "contents": 80.0}
    tray = job.body.tray
    locked = resize(job, tray=tray.but(trundle=trundle))
    loose = resize(job, tray=tray.but(trundle=trundle | {"locks": False, "lid": True}))
    assert codes(judge(locked), "loads.lock") == []
    found = next(f for f in judge(loose).findings if f.code == "loads.lock")
    (fix,) = fixes(judge(loose), found)
    assert fix.changes == {"body.tray.trundle.locks": True}
    assert any("lid, a table" in p.name for p in judge(loose).assembly.parts())


def test_a_wet_pocket_drains_and_its_door_lifts() -> None:
    job = begun("Fen", "bare tray")
    box = {"id": "w", "side": "left", "place": "behind", "length": 400.0, "height": 250.0, "depth": 240.0,
           "kind": "wet pocket", "door": "up", "name": "Wet pocket"}  # fmt: skip
    job = resize(job, tray=job.body.tray.but(boxes=(box,)))
    assembly = judge(job).assembly
    names = [p.name for p in assembly.parts()]
    assert any(n.startswith("drain with flap") for n in names)
    assert not any("bulb seal for wet pocket" in n for n in names)
    door = assembly.opening("tray:box-w")
    assert door is not None
    assert door.opened_box.z1 > door.rest_box.z1


def test_an_own_unit_has_as_many_motions_as_groups() -> None:
    job = begun("Fen", "full canopy")
    made = next(o.make for o in catalogue.entries() if o.key == "own-complete")
    job = edits.added(job, made.but(bay=job.body.bays()[0].id, u=25.0))
    thing = judge(job).assembly.thing(made.id)
    assert thing is not None
    assert sorted(o.motion.id for o in thing.openings) == ["left", "lid", "right"]
    drawer = next(o for o in thing.openings if o.motion.id == "left")
    assert drawer.rest_box.y0 - drawer.opened_box.y0 == pytest.approx(420)
    lid = next(o for o in thing.openings if o.motion.id == "lid")
    assert lid.opened_box.z1 > lid.rest_box.z1 + 200
    with pytest.raises(ValueError, match="no group of it"):
        Own(id="o", name="o", bay="b", width=10, depth=10, height=10,
            blocks=(Block(u=0, v=0, w=0, width=10, depth=10, height=10, group="x"),))  # fmt: skip
