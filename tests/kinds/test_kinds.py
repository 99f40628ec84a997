import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP, SITE, expand

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.solids import hull
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.primitives import Disc, Outline, Panel
from roomy_hull.drawing import style
from roomy_hull.job.carried import Carried
from roomy_hull.kinds import drawer, tank
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.expansion import part_mass, rail_holes
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.kinds.tank import Tank
from roomy_hull.kit import catalogue as stores

UNITS = [e.make for e in stores.entries() if not isinstance(e.make, Carried)]


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: u.name)
def test_every_kind_expands_into_a_consistent_whole(unit: Unit) -> None:
    found = expand(unit, 25.0)
    assert found.envelope.size() == (unit.width, unit.depth, unit.height)
    assert hull(s.box for s in found.solids) == found.envelope
    for point in found.masses:
        assert point.kg >= 0
        assert 0 <= point.at[0] <= unit.width
        assert 0 <= point.at[1] <= unit.depth
        assert 0 <= point.at[2] <= unit.height
    made = [point.kg for point in found.masses if point.label == "sheet metal"]
    if made:
        assert made[0] == pytest.approx(part_mass(found.parts))
    assert all(p.owner == unit.ref for p in found.parts)


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: u.name)
def test_every_elevation_stays_in_its_place(unit: Unit) -> None:
    for stroke in expand(unit, 25.0).elevation:
        # The painter, the solid picture and the papers know every role there is.
        assert stroke.role in style.LIGHT.roles
        points: list[tuple[float, float]] = []
        if isinstance(stroke, Panel):
            points = [(stroke.h0, stroke.k0), (stroke.h1, stroke.k1)]
        elif isinstance(stroke, Outline):
            points = list(stroke.points)
        elif isinstance(stroke, Disc):
            points = [stroke.centre]
        for h, k in points:
            assert -1 <= h <= unit.width + 1
            assert -1 <= k <= unit.height + 1


def test_kinds_are_named_as_in_the_file() -> None:
    assert {kind_of(u).name for u in UNITS} >= {
        "drawer", "stack", "fridge", "slide", "shelf", "pocket", "partition", "pantry", "table", "kitchen",
        "false floor", "wing", "compartment", "device", "gas locker", "case rack", "tube", "tank", "own",
    }  # fmt: skip


@given(st.floats(150, 1200), st.floats(200, 900), st.floats(100, 500), st.floats(8, 25))
def test_a_drawer_box_is_its_unit_less_carcass_and_slides(
    width: float, depth: float, height: float, slide: float
) -> None:
    unit = Drawer(id="d", name="D", bay="b", width=width, depth=depth, height=height, slide=slide)
    expected = width - 2 * (2.0 + slide)
    if expected < 60:
        with pytest.raises(InputError, match="D: carcass and slides leave a drawer box"):
            drawer.parts(unit, SITE)
        return
    box = next(p for p in drawer.parts(unit, SITE) if p.name == "D: drawer box")
    assert isinstance(box, SheetPart)
    assert box.length == pytest.approx(expected)
    assert box.left < height


def test_a_drawer_that_is_too_low_says_by_how_much() -> None:
    unit = Drawer(id="d", name="Flat one", bay="b", width=400, depth=500, height=70)
    with pytest.raises(InputError, match="358 × 472 × 40 mm"):
        expand(unit, 25)


def test_the_slides_carry_what_moves_and_not_the_carcass() -> None:
    unit = Drawer(id="d", name="D", bay="b", width=500, depth=700, height=250, contents=20)
    found = expand(unit, 25)
    sheets = [p for p in found.parts if isinstance(p, SheetPart)]
    moving = sum(p.mass() for p in sheets if "drawer box" in p.name or p.name == "D: front")
    stays = sum(p.mass() for p in sheets if "carcass" in p.name)
    assert moving + stays == pytest.approx(sum(p.mass() for p in sheets))
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    assert found.slide_load == pytest.approx(20 + moving + slides / 2)
    assert found.travel == pytest.approx(700 - 3 - 25)


def test_a_tank_by_hand() -> None:
    # 330 × 760 × 372 outside, 2 mm sheet, no baffles: 326 × 756 × 368 inside = 90.695 808 l.
    unit = Tank(id="t", name="T", bay="b", width=330, depth=760, height=372, baffles=0, inlet=0)
    assert tank.litres(unit) == pytest.approx(326 * 756 * 368 / 1e6)
    # Sides 370 high on a bottom 330 wide would meet the brake's beam: bottom 330 × 760 with front and back folded up,
    # lid 330 × 760; two ends 756 × 368 between them; all 2 mm.
    shell, end, lid = (p for p in tank.parts(unit, SITE) if isinstance(p, SheetPart))
    flat = 760 + 2 * (370 + 3.14159265 / 2 * (3 + 0.44 * 2) - 2 * 5)
    by_hand = (flat * 330 + 330 * 760 + 2 * 756 * 368) * 2 * 2680e-9
    assert shell.mass() + lid.mass() + 2 * end.mass() == pytest.approx(by_hand, rel=1e-6)


def test_baffles_cost_volume_and_add_mass() -> None:
    plain = Tank(id="t", name="T", bay="b", width=330, depth=760, height=372, baffles=0)
    split = msgspec.structs.replace(plain, baffles=3)
    assert 0 < tank.litres(plain) - tank.litres(split) < 2.0
    assert part_mass(tank.parts(split, SITE)) > part_mass(tank.parts(plain, SITE))


def test_a_tank_without_room_is_refused() -> None:
    with pytest.raises(InputError, match="no room inside"):
        tank.litres(Tank(id="t", name="T", bay="b", width=22, depth=760, height=372))


@pytest.mark.parametrize("side", ["back", "left", "right"])
def test_a_fridge_keeps_air_where_its_vent_is(side: str) -> None:
    unit = Fridge(id="f", name="F", bay="b", width=400, depth=660, height=500, vent_side=side)  # type: ignore[arg-type]
    zones = [z.box for z in expand(unit, 25).zones if z.kind == "vent"]
    assert len(zones) == 1
    out = {"back": zones[0].y1 - 660, "left": -zones[0].x0, "right": zones[0].x1 - 400}
    assert out[side] == unit.vent
    assert not [
        z for z in expand(msgspec.structs.replace(unit, vent=0), 25).zones if z.kind == "vent"
    ]


@pytest.mark.parametrize(
    ("length", "pitch", "phase", "wanted"),
    [
        (600, 25, 0, (25, 575)),
        (447, 25, 0, (25, 425)),  # not 23.5 and 423.5, where no slot is
        (600, 50, 0, (50, 550)),
        (600, 25, 10, (40, 565)),  # begins 10 past a slot: 10 + 40 and 10 + 565 lie on slots
        (70, 25, 0, (25, 50)),
        (69, 25, 0, None),
        (600, 0, 0, None),
    ],
)
def test_bolt_holes_lie_on_slots(
    length: float, pitch: float, phase: float, wanted: tuple[float, float] | None
) -> None:
    holes = rail_holes(length, 500, pitch, phase)
    assert holes == (() if wanted is None else tuple((x, y) for x in wanted for y in (40.0, 460.0)))
    assert rail_holes(length, 79, pitch, phase) == ()


@given(
    st.floats(30, 1500), st.sampled_from((25.0, 40.0, 50.0)), st.integers(0, 30), st.floats(0, 24.9)
)
def test_holes_find_slots_wherever_a_base_stands(
    length: float, pitch: float, n: int, past: float
) -> None:
    u = n * pitch + past
    holes = rail_holes(length, 500, pitch, u % pitch)
    inside = [k * pitch - u for k in range(200) if 20 - 1e-9 <= k * pitch - u <= length - 20 + 1e-9]
    if len(inside) < 2:
        assert holes == ()
    else:
        assert sorted({x for x, _y in holes}) == pytest.approx([inside[0], inside[-1]])


def test_the_stores_are_complete() -> None:
    keys, samples = [e.key for e in stores.entries()], stores.Samples(SHOP)
    assert len(set(keys)) == len(keys)
    for entry in stores.entries():
        assert entry.tip
        assert stores.entry(entry.key) is entry
        assert samples.mass(entry) > 0
        assert (samples.expansion(entry) is None) == isinstance(entry.make, Carried)


def test_slides_weigh_by_length_and_rating_where_nobody_looked_them_up() -> None:
    # Common practice: a pair of 700 mm for 110 kg is some 4 kg, of a metre for 227 kg some 10.
    assert slides_mass(0.0, 700, 110) == pytest.approx(4.2, abs=0.1)
    assert slides_mass(0.0, 1000, 227) == pytest.approx(10.3, abs=0.1)
    assert slides_mass(6.5, 1000, 227) == 6.5
