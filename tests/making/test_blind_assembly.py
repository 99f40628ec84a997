"""Blind: every kind and body is put together from its list alone, and nothing may be missing or out of line."""

import math

import msgspec
import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP, SITE

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.folded import places
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.poses import WALL, at, carried
from roomy_hull.core.refs import Ref
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import expand
from roomy_hull.kit.catalogue import entries
from roomy_hull.making.bending import plan_bends
from roomy_hull.making.flats import blank, hole_to_bend
from roomy_hull.making.joints import Joined, joined
from roomy_hull.making.ways import both_ways, of_wood
from roomy_hull.making.works import questions, works_of

JOINING = SHOP.tools.joining
MADE = [o for o in entries() if isinstance(o.make, Placed)]
NEAR = 0.1


def holes_where_they_stand(part: Part) -> list[tuple[np.ndarray, float, np.ndarray]]:
    """Every hole of a part by its own folding and stand: middle, diameter, axis."""
    found = []
    for pose in getattr(part, "poses", ()):
        if isinstance(part, SheetPart):
            for face, place, _before in places(part.faces(), part.thickness):
                for h in face.holes:
                    low, high = (
                        np.array(carried(place.at((h.x, h.y), z), pose))
                        for z in (0.0, part.thickness)
                    )
                    found.append(((low + high) / 2, h.diameter, high - low))
        elif isinstance(part, BarPart):
            high_, wide = (float(x) for x in part.section.split("x")[:2])
            for h in part.drilled:  # type: ignore[assignment]
                y, z = {"low wide": (h.across, 0.0), "far wide": (h.across, high_),  # type: ignore[attr-defined]
                        "low high": (0.0, h.across), "far high": (wide, h.across)}[h.side]  # type: ignore[attr-defined]  # fmt: skip
                way = (0.0, 0.0, 1.0) if "wide" in h.side else (0.0, 1.0, 0.0)  # type: ignore[attr-defined]
                p, q = (  # type: ignore[var-annotated]
                    np.array(carried((h.along + n * way[0], y + n * way[1], z + n * way[2]), pose))  # type: ignore[arg-type, attr-defined]
                    for n in (0, 1)
                )
                found.append((p, h.diameter, q - p))
    return found


def off_axis(
    holes: list[tuple[np.ndarray, float, np.ndarray]], part: Part, diameter: float, spot: tuple[float, float, float]
) -> float:  # fmt: skip
    """How far the nearest hole of a part stands off a fastener's axis."""
    thick = part.thickness if isinstance(part, SheetPart) else 1.0
    near = [
        (p, axis / np.linalg.norm(axis)) for p, d, axis in holes
        if abs(d - diameter) < 1e-6 and np.linalg.norm(p - spot) < thick + 1.0
    ]  # fmt: skip
    return min(
        (float(np.linalg.norm((p - spot) - ((p - spot) @ n) * n)) for p, n in near),
        default=math.inf,
    )


def assert_assembles(made: Joined, before: tuple[Part, ...]) -> None:
    assert made.alone == ()
    assert sum(p.count for p in made.parts if not isinstance(p, Hardware)) == sum(
        p.count for p in before if not isinstance(p, Hardware)
    )
    holes: dict[int, list[tuple[np.ndarray, float, np.ndarray]]] = {}
    for part, of in zip(made.parts, made.of, strict=True):
        holes.setdefault(of, []).extend(holes_where_they_stand(part))
    for joint in made.joints:
        if not joint.hole:
            continue
        sides = [n for n, _stand in joint.pieces if not isinstance(before[n], Hardware)]
        for spot in joint.spots:
            # In line: off the axis by no more than a tenth, along it by no more than the sheet. A screw goes through
            # one board into the other: one of them is drilled.
            off = [off_axis(holes.get(n, []), before[n], joint.hole, spot) for n in sides]
            if joint.method == "screws and glue" and len(sides) == 1:
                continue  # something bought is screwed to a board by its own holes
            worst = min(off) if joint.method == "screws and glue" else max(off)
            assert worst < NEAR, (joint.one, joint.other, joint.method, spot)
    for part in made.parts:
        if isinstance(part, SheetPart) and part.drilled:
            flat = blank(part)
            metal = shapely.Polygon(flat.outline)
            for h in flat.holes:
                assert metal.contains(shapely.Point(h.x, h.y).buffer(h.diameter / 2)), part.name


@pytest.mark.parametrize("offer", MADE, ids=lambda o: o.key)
def test_every_kind_goes_together(offer) -> None:  # type: ignore[no-untyped-def]
    parts = expand(msgspec.structs.replace(offer.make, u=0.0), SITE).parts
    assert_assembles(joined(parts, JOINING), parts)
    for part in parts:
        if isinstance(part, SheetPart):
            assert plan_bends(part, SHOP.tools.brake).fault == "", part.name


@pytest.mark.parametrize("key", DEMOS)
def test_every_body_goes_together(key: str) -> None:
    parts = assemble(demo_job(key)).ground.parts
    for owner in {p.owner for p in parts}:
        own = tuple(p for p in parts if p.owner == owner)
        assert_assembles(joined(own, JOINING), own)


@pytest.mark.parametrize(
    "key", ["drawer", "drawer-table", "stack", "shelf", "pocket", "false-floor", "wing"]
)
def test_both_ways_of_building_go_together_and_are_compared(key: str) -> None:
    unit = next(o.make for o in MADE if o.key == key)
    here, other = both_ways(unit, SHOP, 25.0)
    assert here.words != other.words
    turned = unit.but(**other.changes)
    parts = expand(turned, SITE).parts
    assert_assembles(joined(parts, JOINING), parts)
    assert of_wood(turned, SHOP) != of_wood(unit, SHOP)
    back, again = both_ways(turned, SHOP, 25.0)
    assert back.kg == pytest.approx(other.kg)
    assert again.words == here.words
    assert min(here.kg, other.kg, here.money, other.money, here.hours, other.hours) > 0
    if of_wood(turned, SHOP):
        # Boards at 680 kg/m³, six times as thick as sheet at 2,680: heavier.
        assert other.kg > here.kg
        assert not any(isinstance(p, SheetPart) and p.flat().bends for p in parts)
        assert any(j.fastener.startswith("wood screw") for j in joined(parts, JOINING).joints)


def test_what_is_left_out_is_missed() -> None:
    drawer = next(o.make for o in MADE if o.key == "drawer")
    parts = expand(drawer, SITE).parts
    for part in parts:
        rest = tuple(p for p in parts if p is not part)
        if part.name.endswith(("back", "tie")) or "lock" in part.name:
            continue  # nothing else hangs on these
        if "slides" in part.name or part.name.endswith((": carcass", "drawer box")):
            assert joined(rest, JOINING).alone, part.name


@given(
    st.floats(90, 1500), st.floats(90, 1500), st.lists(st.sampled_from([0.0, 60.0, 140.0, 158.0, 230.0, 420.0]),
                                                      min_size=4, max_size=4),
    st.sampled_from([1.2, 1.6, 2.0, 3.0]),
)  # fmt: skip
def test_any_open_box_is_of_pieces_that_can_be_bent_and_go_together(
    a: float, b: float, heights: list[float], t: float
) -> None:
    metal, brake = SHOP.material("5052-H32"), SHOP.tools.brake
    size = Sized(a, b, (heights[0], heights[1], heights[2], heights[3]), t, metal)
    parts = open_box("box", Ref("unit", "x"), size, brake, at(0.0, 0.0, 0.0))
    assert joined(parts, JOINING).alone == ()
    for part in parts:
        assert plan_bends(part, brake).fault == "", (part.name, part.length, part.width)


@pytest.mark.parametrize("key", ["brackwater", "lowfold", "tarn"])
def test_nothing_is_left_to_ask_of_the_demos(key: str) -> None:
    assert questions(works_of(assemble(demo_job(key)))) == ()


@given(st.floats(12, 60), st.sampled_from((1.6, 2.0, 3.0)))
def test_a_fastener_keeps_off_the_bend_where_its_flange_is_wide_enough(
    lap: float, t: float
) -> None:
    # A flange of a shelf's end riveted to a wall: edge of the hole 2·T + R off the bend, two diameters off the edge.
    metal = SHOP.material("5052-H32")
    tray = SheetPart("tray", Ref("unit", "x"), 300, 200, t, metal, left=lap, poses=(at(0, 0, 0),))
    wall = SheetPart("wall", Ref("unit", "x"), 200, 300, t, metal, poses=(at(-t, 0, 0, WALL),))
    joining = SHOP.tools.joining
    made = joined((tray, wall), joining)
    (row,) = (j for j in made.joints if j.fastener)
    assert row.spots
    part = next(p for p in made.parts if p.name == "tray")
    assert isinstance(part, SheetPart)
    gap, wanted = hole_to_bend(part), 2 * t + part.radius()
    assert gap is not None
    room = part.setback() + wanted + joining.rivet_hole / 2 + joining.edge * joining.rivet
    if lap > room + 0.01:
        assert gap >= wanted - 0.01
    ups = {round(p[2], 3) for p in row.spots}
    assert max(ups) <= lap - joining.rivet + 0.01
