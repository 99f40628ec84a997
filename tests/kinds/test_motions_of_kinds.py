"""What each kind does when it opens, and what its figures are."""

import math

import pytest
from tests.builders import expand, other_handed

from roomy_hull.core.errors import InputError, JobFileError
from roomy_hull.core.geometry.motion import sweep_of
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.formats import unitfile
from roomy_hull.job.carried import Carried
from roomy_hull.kinds import gas_locker, kitchen, tank
from roomy_hull.kinds.case_rack import CaseRack
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.expansion import part_mass
from roomy_hull.kinds.gas_locker import GasLocker
from roomy_hull.kinds.kitchen import Kitchen
from roomy_hull.kinds.own import Block, Own
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.kinds.stack import Stack
from roomy_hull.kinds.tank import Tank
from roomy_hull.kit import carried as outside
from roomy_hull.kit import catalogue as stores

UNITS = [e.make for e in stores.entries() if not isinstance(e.make, Carried)]


def opened(unit: Unit, n: int = 0) -> Box:
    return hull(p.box for p in sweep_of(expand(unit, 25.0).motions[n]).opened)


def entry(key: str) -> Unit:
    made = stores.entry(key).make
    assert not isinstance(made, Carried)
    return made


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: u.name)
def test_what_opens_begins_inside_the_unit_and_ends_in_front_or_above(unit: Unit) -> None:
    found = expand(unit, 25.0)
    for motion in found.motions:
        space = sweep_of(motion)
        rest = hull(p.box for p in space.rest)
        assert rest.x0 >= -0.01
        assert rest.y0 >= -0.01
        assert rest.z1 <= unit.height + 0.01
        box = hull(p.box for p in space.opened)
        assert box.y0 < rest.y0 - 1 or box.z1 > rest.z1 + 1
        swept = hull(p.box for p in space.swept)
        assert all(a <= b + 1e-6 for a, b in zip(swept[:3], box[:3], strict=True))
        assert all(a >= b - 1e-6 for a, b in zip(swept[3:], box[3:], strict=True))
    ids = [m.id for m in found.motions]
    assert len(set(ids)) == len(ids)


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: u.name)
def test_other_handed_twice_is_the_same_and_parts_weigh_the_same(unit: Unit) -> None:
    assert other_handed(other_handed(unit)) == unit
    left, right = expand(unit, 25.0), expand(unit, 25.0, "right")
    assert sum(point.kg for point in left.masses) == pytest.approx(
        sum(point.kg for point in right.masses)
    )
    assert left.envelope == right.envelope


def test_a_stack_has_a_motion_for_each_drawer_at_its_height() -> None:
    unit = entry("stack")
    assert isinstance(unit, Stack)
    found = expand(unit, 25.0)
    assert [m.id for m in found.motions] == ["1", "2", "3"]
    fronts = [next(p for p in sweep_of(m).rest if p.box.y0 == 0).box for m in found.motions]
    assert [(f.z0, f.z1) for f in fronts] == [(0, 237), (240, 417), (420, 560)]
    with pytest.raises(ValueError, match="20 mm higher"):
        unit.but(heights=(240.0, 200.0, 140.0))


def test_a_drop_slide_runs_clear_of_the_tray_before_it_lowers() -> None:
    box = opened(entry("slide-drop"))
    assert box.y1 == -90
    assert box.z0 == -350  # its platform goes down with what stands on it
    plain = opened(entry("slide"))
    assert (plain.y1, plain.z0) == (0, 50)


def test_fridges_open_by_their_style() -> None:
    upright = opened(entry("fridge-upright"))
    assert upright.z1 - upright.z0 == pytest.approx(620 - 12)
    assert upright.y0 < -400
    drawer = opened(entry("fridge-drawer"))
    assert drawer.y0 == pytest.approx(10 - 0.85 * 560)
    chest = entry("fridge-60").but(hinge="left")
    lid = opened(chest)
    # The lid stands as high above the fridge as the fridge is wide, less 6 mm of play on each side.
    assert lid.z1 == pytest.approx(540 + 450 - 12)


def test_a_pull_out_kitchen_unfolds_to_both_sides_level_below_its_worktop() -> None:
    unit = entry("kitchen")
    assert isinstance(unit, Kitchen)
    motion = expand(unit, 25.0).motions[0]
    pieces = {
        m.group: p for m, p in zip(motion.moved, sweep_of(motion).opened, strict=True) if m.group
    }
    left, right = pieces["left"].box, pieces["right"].box
    # The leaves hang inside the box's sides, a sheet further in than these.
    assert (left.x0, left.x1) == (pytest.approx(21.6 - 240), pytest.approx(21.6))
    assert (right.x0, right.x1) == (pytest.approx(578.4), pytest.approx(578.4 + 240))
    top = unit.height - kitchen.LEAF
    assert left.z1 == pytest.approx(top)
    assert left.z1 - left.z0 == pytest.approx(kitchen.LEAF)
    assert "licensed gas fitter" in kind_of(unit).caution(unit)
    assert kind_of(unit).caution(unit.but(cooker="induction")) == ""
    drop = opened(entry("kitchen-drop"))
    assert drop == Box(0, -420, 0, 700, 0, 40)


def test_a_gas_locker_takes_its_bottle_or_says_how_large_it_has_to_be() -> None:
    unit = entry("gas-locker")
    assert isinstance(unit, GasLocker)
    wrap = next(p for p in expand(unit, 25).parts if isinstance(p, SheetPart) and "wrap" in p.name)
    assert [h.diameter for h in wrap.holes] == [gas_locker.VENT] * 2
    assert "licensed gas fitter" in kind_of(unit).caution(unit)
    with pytest.raises(InputError, match="9 kg bottle") as caught:
        expand(unit.but(bottle="9 kg"), 25)
    assert "at least 324 wide" in caught.value.remedy


def test_a_case_rack_is_as_large_as_its_cases_want() -> None:
    unit = entry("case-rack")
    assert isinstance(unit, CaseRack)
    assert len(expand(unit, 25).motions) == 4
    assert kind_of(unit).stored(unit) == pytest.approx(4 * 310 * 400 * 220 * 1e-6)
    with pytest.raises(ValueError, match="width 600 does not take the cases; it wants 638"):
        unit.but(width=600.0)


@pytest.mark.parametrize(
    ("style", "litres"),
    [
        ("box", 0.496 * 0.346 * 0.396 * 1000 - 2 * 0.3),
        # A wedge of 150 to 400: midway 275 of 400 high.
        ("wedge", 0.496 * 0.346 * 0.396 * 1000 * 275 / 400 - 2 * 0.21),
        ("bladder", 0.496 * 0.346 * 0.396 * 1000 * 0.85),
        ("cans", 40.0),
    ],
)
def test_water_by_its_shape(style: str, litres: float) -> None:
    unit = Tank(id="t", name="T", bay="b", width=500, depth=350, height=400, style=style)  # type: ignore[arg-type]
    assert tank.litres(unit) == pytest.approx(litres, rel=0.01)
    water = next(lump for lump in expand(unit, 25).masses if lump.label == "water")
    assert water.kg == pytest.approx(tank.litres(unit))
    if style == "wedge":
        # Centroid of a trapezium with parallel sides 150 and 400 (closed form).
        assert water.at[1] == pytest.approx(350 * (150 + 800) / (3 * 550))
        assert water.at[2] == pytest.approx((150**2 + 150 * 400 + 400**2) / (3 * 550))
        # Its boxes hold the slope: at every depth they are as high as the wedge.
        for solid in tank.solids(unit):
            assert solid.box.z1 >= 150 + 250 * solid.box.y1 / 350 - 1e-9


def test_an_own_unit_is_its_boxes_and_bad_ones_are_named() -> None:
    blocks = (Block(u=0, v=0, w=0, width=400, depth=300, height=100),
              Block(u=0, v=0, w=100, width=400, depth=300, height=80, moves=True))  # fmt: skip
    unit = Own(id="o", name="Bench seat", bay="b", width=400, depth=300, height=180, blocks=blocks, mass=7,
                     travel=200, turn=90, hinge="right")  # fmt: skip
    box = opened(unit)
    # Out by 200, then turned about its right front edge.
    assert (box.x0, box.x1) == (pytest.approx(100), pytest.approx(400))
    assert (box.y0, box.y1) == (pytest.approx(-600), pytest.approx(-200))
    assert expand(unit.but(travel=0.0, turn=0.0), 25).motions == ()
    with pytest.raises(ValueError, match="box 2 stands out of the unit along w"):
        unit.but(height=150.0)


def test_a_unit_goes_to_a_file_and_comes_back(tmp_path: object) -> None:
    folder = tmp_path / "units"  # type: ignore[operator]
    folder.mkdir()
    unit = entry("kitchen").but(name="Our kitchen", u=333.0)
    unitfile.save(unit, folder / f"ours{unitfile.SUFFIX}")
    (folder / f"bad{unitfile.SUFFIX}").write_text(
        '{"format": "roomy-hull-unit", "version": 1, "unit": {"kind": "kitchen"}}'
    )
    found, troubles = unitfile.own_stores(folder)
    assert [e.make.name for e in found] == ["Our kitchen"]
    assert found[0].make.but(id=unit.id) == unit.but(bay="-", u=0.0)
    assert len(troubles) == 1
    assert "bad.unit.json" in troubles[0]
    for data, says in ((b"", "empty"), (b"{}", "not a Roomy Hull unit"), (b"{", "bad.unit.json"),
                       (b'{"format": "roomy-hull-unit", "version": 9}', "version"),
                       (b'{"format": "roomy-hull-unit", "version": 1, "unit": {"kind": "yacht"}}', "yacht"),
                       (b'{"format": "roomy-hull-unit", "version": 1, "unit": {"kind": "pocket", "id": "p", "name": "P",'
                        b' "bay": "-", "width": -5, "depth": 9, "height": 9}}', "width")):  # fmt: skip
        with pytest.raises(JobFileError) as caught:
            unitfile.loads(data, "bad.unit.json")
        assert says in str(caught.value)


# Outside


def carried(key: str, **changes: object) -> Carried:
    made = stores.entry(key).make
    assert isinstance(made, Carried)
    return made.but(**changes)


def swept(item: Carried) -> Box:
    return hull(p.box for p in sweep_of(outside.motions(item)[0]).swept)


@pytest.mark.parametrize("side", ["left", "right", "rear"])
@pytest.mark.parametrize("hand", ["left", "right"])
@pytest.mark.parametrize("key", ["awning", "awning-180", "shower", "tent"])
def test_things_open_outwards_on_their_side(key: str, side: str, hand: str) -> None:
    item = carried(key, side=side, hand=hand)
    if side == "rear":
        item = item.but(length=item.width, width=item.length)
    box = swept(item)
    out = {"left": -box.y0, "right": box.y1 - item.width, "rear": box.x1 - item.length}[side]
    back = {"left": box.y1 - item.width, "right": -box.y0, "rear": -box.x0}[side]
    assert out > 400
    assert back <= 1 + (1e-6 if key != "awning-180" else 160)


def test_a_turning_awning_covers_its_sector() -> None:
    item = carried("awning-270")
    pieces = [p for p in sweep_of(outside.motions(item)[0]).opened if not p.square]
    # From its pivot at the rear end of the left side, round to straight in behind: three quarters.
    for degrees in range(182, 448, 5):
        for radius in (300.0, 1500.0, 2095.0):
            p = (
                2100 + radius * math.cos(-math.radians(degrees)),
                radius * math.sin(math.radians(degrees)),
            )
            assert any(holds(piece.ring, p) for piece in pieces), (degrees, radius)
    assert not any(holds(piece.ring, (2100 - 1000, 1000.0)) for piece in pieces)


def holds(ring: tuple[tuple[float, float], ...], p: tuple[float, float]) -> bool:
    return all((q[0] - o[0]) * (p[1] - o[1]) - (q[1] - o[1]) * (p[0] - o[0]) >= -1e-6
               for o, q in zip(ring, (*ring[1:], ring[0]), strict=True))  # fmt: skip


def test_the_other_hand_is_the_mirrored_motion() -> None:
    one, other = swept(carried("shower", hand="left")), swept(carried("shower", hand="right"))
    long = carried("shower").length
    assert (one.x0, one.x1) == (pytest.approx(long - other.x1), pytest.approx(long - other.x0))
    assert (one.y0, one.y1) == (other.y0, other.y1)


def test_what_does_not_open_has_no_motion() -> None:
    assert outside.motions(carried("ladder")) == ()
    assert outside.motions(carried("spare")) == ()
    assert outside.motions(carried("awning", reach=0.0)) == ()
    assert any(isinstance(p, Hardware) for p in expand(entry("compartment"), 25).parts)


def test_a_pull_out_kitchens_slides_carry_its_fittings() -> None:
    unit = entry("kitchen")
    assert isinstance(unit, kitchen.Kitchen)
    found = expand(unit)
    fittings = next(m.kg for m in found.masses if m.label == "burner, sink and fittings")
    assert fittings == sum(kitchen.FITTINGS[n][1] for n in kitchen.fitted(unit)) > 0
    made = part_mass(tuple(p for p in found.parts if "carcass" not in p.name))
    assert found.slide_load == pytest.approx(
        made
        + unit.contents
        + fittings
        + slides_mass(unit.slide_mass, unit.depth, unit.slide_rating) / 2
    )
    drop = entry("kitchen-drop")
    assert expand(drop).slide_load == 0
