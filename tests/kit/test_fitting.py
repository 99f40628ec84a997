"""First bodies, what is hung under a tray, and what is made in a tub or wagon."""

import contextlib

import msgspec
import pytest
from tests.builders import SHOP

from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS, WATER
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, Hardware, SheetPart, section_area  # type: ignore[attr-defined]
from roomy_hull.core.refs import TRAY
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.formats import vehiclefile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Tray, Trundle, UnderBox, UnderTank
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import part_mass
from roomy_hull.kit.body import canopy, fitting, leaves, shell, subframe, tray, undertray
from roomy_hull.kit.body.pieces import BodyRole, part_of
from roomy_hull.kit.catalogue import entries
from roomy_hull.verdict.verdict import judge

VEHICLES = {e.vehicle.name: e.vehicle for e in vehiclefile.library() if e.vehicle is not None}


def of_kind(kind: str) -> Vehicle:
    return next(v for v in VEHICLES.values() if v.kind == kind)


def all_choices() -> list[tuple[str, str]]:
    return [(name, c) for name, v in VEHICLES.items() for c in fitting.choices(v)]


@pytest.mark.parametrize(("name", "choice"), all_choices())
def test_a_first_body_stays_within_its_vehicle(name: str, choice: str) -> None:
    vehicle = VEHICLES[name]
    # Notes tell of what every body of its size has, such as doors at the height of a head.
    assert not [
        f for f in judge(fitting.begun("First", vehicle, choice)).findings if f.severity != "note"
    ]
    body = fitting.fitted(vehicle, choice)
    floor = tray.solids(vehicle, body.tray)[0].box
    assert floor.x0 >= vehicle.cab_back or vehicle.kind == "wagon"
    outside, inside = canopy.outside(vehicle, body), canopy.inside(vehicle, body)
    if outside is None or inside is None:
        assert choice in ("bare tray", "open tub")
        return
    assert outside.x1 <= floor.x1 + 1e-6
    assert outside.y1 - outside.y0 <= body.tray.width + 1e-6
    for place in canopy.bays(vehicle, body).values():
        box = place.frame.box(place.size)
        assert inside.common(box) == pytest.approx(box)


@pytest.mark.parametrize(("name", "choice"), all_choices())
def test_a_begun_job_is_judged_in_every_scenario(name: str, choice: str) -> None:
    job = fitting.begun("A job", VEHICLES[name], choice)
    verdict = judge(job)
    assert len(verdict.loads.scenarios) == len(job.scenarios) >= 2
    assert verdict.count("stop") == 0
    assert ("tray" in [s.id for s in job.scenarios]) == ("canopy" in choice)


@pytest.mark.parametrize("name", [n for n, v in VEHICLES.items() if v.kind == "cab-chassis"])
def test_drop_sides_and_tailboard_hang_clear_of_frame_guards_and_toolboxes(name: str) -> None:
    job = fitting.begun("A job", VEHICLES[name], "bare tray")
    job = resized(job, "body.tray.sides", 350.0)
    for what in ("box behind left", "box behind right", "trundle"):
        with contextlib.suppress(InputError):
            job = fitting.toggled(job, what)
    verdict = judge(job)
    assert {o.id for o in verdict.assembly.openings()} >= {
        "tray:side-left",
        "tray:side-right",
        "tray:tail",
    }
    assert [f for f in verdict.findings if f.code.startswith("move.")] == []


def test_a_body_of_another_kind_names_what_there_is() -> None:
    with pytest.raises(InputError, match="a wagon takes no topper") as caught:
        fitting.fitted(of_kind("wagon"), "topper")
    assert "cargo area" in caught.value.remedy


def test_a_chassis_too_short_for_a_tray_is_told(demo: Job) -> None:
    stub = msgspec.structs.replace(demo.vehicle, chassis_end=demo.vehicle.cab_back + 500)
    with pytest.raises(InputError, match="leaves a tray of") as caught:
        fitting.fitted(stub, "bare tray")
    assert "Measure cab back" in caught.value.remedy


@pytest.mark.parametrize("what", fitting.UNDER)
def test_what_is_hung_under_the_tray_touches_nothing(what: str) -> None:
    job = fitting.begun("A job", VEHICLES["Fen 4.5 flatbed"], "bare tray")
    hung = fitting.toggled(job, what)
    one = hung.body.tray
    x0, top = subframe.front_x(job.vehicle, one), subframe.floor_z(job.vehicle, one)
    made = undertray.solids(one, x0, top)
    assert len(made) == 1
    for box in (m.box for m in made):
        assert box.x0 >= x0 - 1e-6
        assert box.x1 <= x0 + one.length + 1e-6
        for other in undertray.obstacles(job.vehicle, one):
            shared = box.common(other.box)
            assert shared is None or shared.volume() < 1e-3, other.words
    assert not [f for f in judge(hung).findings if f.code == "outline.under"]
    assert fitting.toggled(hung, what) == job


def test_a_short_tail_has_no_room_behind_its_wheel() -> None:
    job = fitting.begun("A job", VEHICLES["Marl 2.8 single cab"], "bare tray")
    with pytest.raises(
        InputError, match="toolbox behind the right wheel, because of the right wheel"
    ):
        fitting.toggled(job, "box behind right")


def test_nothing_hangs_under_a_tub() -> None:
    job = fitting.begun("A job", of_kind("pickup"), "open tub")
    with pytest.raises(InputError, match="a pickup has no tray"):
        fitting.toggled(job, "tank")


def test_no_room_names_what_is_in_the_way(demo: Job) -> None:
    # A wheelbase that brings the wheel up to the cab leaves nothing ahead of it.
    near = msgspec.structs.replace(
        demo,
        vehicle=msgspec.structs.replace(
            demo.vehicle, wheelbase=demo.vehicle.cab_back + 250, chassis_end=demo.vehicle.chassis_end
        ),
        body=msgspec.structs.replace(demo.body, tray=demo.body.tray.but(boxes=())),
    )  # fmt: skip
    with pytest.raises(InputError, match="ahead of the left wheel, because of the left wheel"):
        fitting.toggled(near, "box ahead left")


def test_masses_under_the_tray_are_those_of_their_parts(demo: Job) -> None:
    flat = demo.body.tray.but(
        boxes=(UnderBox(id="a", side="left", place="behind", length=400, height=300, depth=350,
                        contents=12),),
        trundle=Trundle(length=900, width=600, height=200, contents=20),
        tank=UnderTank(length=500, width=600, height=200),
        mudguards=True,
    )  # fmt: skip
    x0, top = subframe.front_x(demo.vehicle, flat), subframe.floor_z(demo.vehicle, flat)
    points = undertray.masses(flat, undertray.solids(flat, x0, top), SHOP)
    own = sum(p.kg for p in points if p.fill not in (CONTENTS, WATER))
    made = [p for p in undertray.parts(demo.vehicle, flat, SHOP) if "mudguard" not in p.name]
    assert own == pytest.approx(part_mass(tuple(made)) + undertray.TRUNDLE_SLIDES)  # type: ignore[attr-defined]
    held = {p.label: p.kg for p in points if p.fill == CONTENTS}
    assert held == {"in toolbox a": 12, "in the trundle drawer": 20}
    # Sixty litres less 2 mm of sheet on every face and two baffles.
    water = next(p.kg for p in points if p.fill == WATER)
    assert 0.94 * 60 < water < 49.6 * 59.6 * 19.6 / 1000


def test_a_folded_toolbox_weighs_what_its_faces_weigh() -> None:
    box = UnderBox(id="a", side="left", place="ahead", length=500, height=350, depth=400, sheet=2)
    body = [
        p for p in undertray.box_parts(box, SHOP) if isinstance(p, SheetPart) and "body" in p.name
    ]
    # Back of 500 x 350 and four sides 400 deep, by outside sizes; bends take a little of it.
    faces = 500 * 350 + 2 * 380 * (500 + 350)  # the door takes 20 of its depth
    by_hand = faces * 2 * SHOP.material("5052-H32").density / 1e9
    assert 0.97 * by_hand < sum(p.mass() for p in body) < by_hand


def test_planks_and_the_filler_pocket_are_made(demo: Job) -> None:
    sheet = subframe.own_parts(demo.vehicle, demo.body.tray, SHOP)
    planks = subframe.own_parts(
        demo.vehicle, demo.body.tray.but(boards="planks", filler=True), SHOP
    )
    assert "Tray: floor" in {p.name for p in sheet}
    names = {p.name for p in planks}
    assert "Tray: floor" not in names
    assert "Tray: filler pocket" in names
    plank = next(p for p in planks if p.name == "Tray: floor plank")
    assert isinstance(plank, BarPart)
    # 1850 wide: twelve of 150, and one ripped to 50.
    assert plank.count == 12
    (ripped,) = [p for p in planks if p.name == "Tray: floor plank, ripped"]
    assert isinstance(ripped, BarPart)
    assert (plank.section, ripped.section, ripped.count) == ("25x150x2", "25x50x2", 1)
    # The floor is as thick as its planks.
    flat, deep = demo.body.tray, demo.body.tray.but(boards="planks")
    raised = subframe.floor_z(demo.vehicle, deep) - subframe.floor_z(demo.vehicle, flat)
    assert raised == 25 - 4
    by_hand = section_area(plank.section) * plank.length * plank.material.density / 1e9
    assert plank.mass() == pytest.approx(by_hand)


def test_rack_and_lifting_eyes(demo: Job) -> None:
    parts = subframe.own_parts(demo.vehicle, demo.body.tray.but(rack=250, lift_points=4), SHOP)
    top = next(p for p in parts if p.name == "Tray: rack hoop, top")
    leg = next(p for p in parts if p.name == "Tray: rack hoop, leg")
    assert isinstance(top, BarPart)
    assert isinstance(leg, BarPart)
    # Mitred where they meet: each end of 50 loses 50 on its short edge, half of that in the middle.
    assert (top.length, leg.length, leg.count) == (1850, 250, 2)
    assert top.lost() == pytest.approx((50, 50))
    assert leg.lost() == pytest.approx((0, 50))
    per_mm = section_area("50x25x3") * top.material.density / 1e9
    assert top.mass() == pytest.approx((1850 - 50) * per_mm)
    assert leg.mass() == pytest.approx((250 - 25) * per_mm)
    eyes = next(p for p in parts if isinstance(p, Hardware) and "lifting eye" in p.name)
    assert eyes.count == 4


def test_a_false_floor_takes_height_from_the_bays_and_is_weighed() -> None:
    wagon = demo_job("tarn")
    flat = wagon.body.tray.but(false_floor=0.0)
    plain = msgspec.structs.replace(wagon, body=msgspec.structs.replace(wagon.body, tray=flat))
    raised = resized(plain, "body.tray.false_floor", 120.0)
    assert raised.body.canopy is not None
    assert plain.body.canopy is not None
    for new, old in zip(raised.body.canopy.bays, plain.body.canopy.bays, strict=True):
        assert new.sill == old.sill + 120
        assert new.height == old.height - 120
    assert resized(raised, "body.tray.false_floor", 0.0) == plain
    kg = sum(m.kg for m in judge(raised).assembly.ground.masses if m.owner == TRAY)
    old_kg = sum(m.kg for m in judge(plain).assembly.ground.masses if m.owner == TRAY)
    added = [p for p in judge(raised).assembly.ground.parts if p.name.startswith("False floor")]
    assert kg - old_kg == pytest.approx(part_mass(tuple(added)), rel=0.01)


def test_wings_take_width_from_the_bays_on_both_sides() -> None:
    pickup = demo_job("lowfold")
    flat = pickup.body.tray.but(wings=0.0)
    plain = msgspec.structs.replace(pickup, body=msgspec.structs.replace(pickup.body, tray=flat))
    winged = resized(plain, "body.tray.wings", 200.0)
    assert winged.body.canopy is not None
    assert plain.body.canopy is not None
    bay, old = winged.body.canopy.bays[0], plain.body.canopy.bays[0]
    assert bay.length == old.length - 400
    assert {p.name for p in tray.parts(winged.vehicle, winged.body.tray, SHOP)} >= {
        "Wing: top",
        "Wing: side",
    }
    assert resized(winged, "body.tray.wings", 0.0).body.canopy == plain.body.canopy


def test_a_tub_as_it_is_has_nothing_made() -> None:
    bare = fitting.begun("A job", of_kind("pickup"), "open tub")
    assert tray.parts(bare.vehicle, bare.body.tray, SHOP) == ()
    assert tray.parts(bare.vehicle, bare.body.tray, SHOP) == ()


def test_insulation_jacks_and_let_down_doors_are_made_and_weighed(demo: Job) -> None:
    assert demo.body.canopy is not None
    plain = msgspec.structs.replace(demo.body.canopy, insulation=0.0, jacks=False)
    lined = msgspec.structs.replace(plain, insulation=25.0)
    jacked = msgspec.structs.replace(plain, jacks=True)

    def kg(one: object) -> float:
        body = msgspec.structs.replace(demo.body, canopy=one)
        return sum(p.kg for p in shell.masses(demo.vehicle, body, SHOP))

    assert kg(lined) > kg(plain)
    assert kg(jacked) > kg(plain)
    door = next(d for d in plain.doors if d.side == "left")
    halved = msgspec.structs.replace(door, split=300.0)
    names = [p.name for p in leaves.door_parts(plain, halved, SHOP)]
    assert len(names) > len(
        leaves.door_parts(plain, msgspec.structs.replace(door, split=0.0), SHOP)
    )


def test_a_wheel_wants_its_travel_above_and_half_of_it_fore_and_aft(demo: Job) -> None:
    still, moving = (demo.body.tray.but(wheel_travel=v, mudguards=False) for v in (0.0, 120.0))
    radius = overall_diameter(demo.vehicle.tyre) / 2

    def box(flat: Tray, role: BodyRole) -> Box:
        found = part_of(undertray.obstacles(demo.vehicle, flat), role)
        assert found is not None
        return found.box

    assert box(still, "wheel").z1 == pytest.approx(2 * radius)
    assert box(moving, "wheel").z1 == pytest.approx(2 * radius + 120)
    assert box(still, "wheel").x0 == pytest.approx(demo.vehicle.wheelbase - radius)
    assert box(moving, "wheel").x0 == pytest.approx(demo.vehicle.wheelbase - radius - 60)
    assert box(moving, "wheel").x1 == pytest.approx(demo.vehicle.wheelbase + radius + 60)
    assert box(moving, "rear axle").z1 - box(still, "rear axle").z1 == 120
    # A toolbox ahead of the wheel gives way to the travel.
    job = fitting.begun("A job", VEHICLES["Fen 4.5 flatbed"], "bare tray")
    hung = fitting.toggled(job, "box ahead left")
    assert not [f for f in judge(hung).findings if f.code == "outline.under"]
    far = resized(hung, "body.tray.wheel_travel", 400.0)
    assert [f for f in judge(far).findings if f.code == "outline.under"]


def test_a_topper_stands_over_its_base_and_begins_above_it() -> None:
    job = fitting.begun("A job", of_kind("pickup"), "topper")
    topper = job.body.canopy
    assert topper is not None
    assert topper.base > 0
    masses = shell.masses(job.vehicle, job.body, SHOP)
    floor = subframe.floor_z(job.vehicle, job.body.tray)
    shells = list(masses)
    assert len(shells) >= 2
    for point in shells:
        # What is made begins on the tub's walls; only the tailgate hangs below them.
        assert point.at[2] > floor + topper.base, point.label
    higher = job.body.but(canopy=topper.but(base=topper.base + 60, height=topper.height + 60))
    raised = shell.masses(job.vehicle, higher, SHOP)
    assert sum(p.kg for p in raised) == pytest.approx(sum(p.kg for p in masses), rel=0.01)
    assert raised[0].at[2] > masses[0].at[2]  # the shell


@pytest.mark.parametrize("choice", ["full canopy", "short canopy"])
def test_a_bare_tray_can_be_given_a_canopy_and_lose_it_again(choice: str) -> None:
    vehicle = of_kind("cab-chassis")
    bare = fitting.begun("Bare", vehicle, "bare tray")
    wide = msgspec.structs.replace(
        bare, body=bare.body.but(tray=bare.body.tray.but(width=1800.0, length=1900.0))
    )
    job = fitting.covered(wide, choice)
    made = job.body.canopy
    assert made is not None
    # It fits the tray as it stands, not the one first proposed.
    assert made.width == 1780.0
    assert made.length == (1870.0 if choice == "full canopy" else 750.0)
    assert not [f for f in judge(job).findings if f.severity == "stop"]
    assert fitting.covered(job, "none") == wide
    with pytest.raises(InputError, match="there is one already"):
        fitting.covered(job, choice)
    offer = next(o.make for o in entries() if o.key == "drawer")
    held = msgspec.structs.replace(job, units=(offer.but(id="d", bay=made.bays[0].id),))
    with pytest.raises(InputError, match="1 units stand in its bays"):
        fitting.covered(held, "none")
    with pytest.raises(InputError, match="takes no topper"):
        fitting.covered(wide, "topper")
