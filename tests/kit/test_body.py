import msgspec
import pytest
from tests.builders import SHOP

from roomy_hull.core.geometry.solids import hull
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.job.body import Arch
from roomy_hull.job.model import Job
from roomy_hull.kit.body import canopy, shell, subframe, tray
from roomy_hull.kit.body.pieces import part_of


def body_mass(parts: tuple[object, ...]) -> float:
    return sum(p.mass() * p.count for p in parts if isinstance(p, SheetPart | BarPart))


def test_the_tray_stands_on_the_rails_behind_the_cab(demo: Job) -> None:
    vehicle, flat = demo.vehicle, demo.body.tray
    solids = tray.solids(vehicle, flat)
    floor, rail = part_of(solids, "floor"), part_of(solids, "rail", "left")
    assert floor is not None
    assert rail is not None
    assert floor.box.x0 == vehicle.cab_back + flat.gap
    assert floor.box.z1 == vehicle.rail_top + 150 + 4
    assert rail.box.z0 == vehicle.rail_top
    assert floor.box.x1 - floor.box.x0 == flat.length


def test_tray_masses_are_those_of_its_parts(demo: Job) -> None:
    flat = demo.body.tray
    points = tray.masses(demo.vehicle, flat, SHOP)
    assert sum(point.kg for point in points) == pytest.approx(
        body_mass(tray.parts(demo.vehicle, flat, SHOP)) + flat.fittings
    )


def test_a_longer_tray_weighs_more_and_has_more_cross_members(demo: Job) -> None:
    short = demo.body.tray
    long = msgspec.structs.replace(short, length=short.length + 800)
    assert body_mass(tray.parts(demo.vehicle, long, SHOP)) > body_mass(
        tray.parts(demo.vehicle, short, SHOP)
    )

    def crosses(t: object) -> int:
        return next(
            p.count
            for p in tray.parts(demo.vehicle, t, SHOP)  # type: ignore[arg-type]
            if p.name == "Tray: cross-member between rails"
        )

    assert crosses(long) == crosses(short) + 2


def test_sides_and_arches_are_solids_and_parts(demo: Job) -> None:
    arch = Arch(start=1200, length=700, width=220, height=180)
    flat = msgspec.structs.replace(demo.body.tray, sides=250, arches=(arch,))
    solids = tray.solids(demo.vehicle, flat)
    names = {s.words for s in solids}
    assert {"side left", "side right", "tail", "arch 1 left", "arch 1 right"} <= names
    one = msgspec.structs.replace(flat, arches=(msgspec.structs.replace(arch, side="left"),))
    assert "arch 1 right" not in {s.words for s in tray.solids(demo.vehicle, one)}
    names = {p.name for p in tray.parts(demo.vehicle, flat, SHOP)}
    assert {"Tray: drop side left", "Tray: drop side right", "Tray: tailboard"} <= names


def test_the_canopy_stands_on_the_floor_and_bays_lie_inside(demo: Job) -> None:
    outside, inside = (
        canopy.outside(demo.vehicle, demo.body),
        canopy.inside(demo.vehicle, demo.body),
    )
    assert outside is not None
    assert inside is not None
    assert outside.z0 == subframe.floor_z(demo.vehicle, demo.body.tray)
    assert inside.x0 - outside.x0 == 35
    places = canopy.bays(demo.vehicle, demo.body)
    for place in places.values():
        box = place.frame.box(place.size)
        assert hull([box, inside]) == inside
    left, right = places["L"].frame.box(places["L"].size), places["R"].frame.box(places["R"].size)
    assert left.common(right) is None


def test_a_wall_is_cut_for_its_doors_and_doors_are_made(demo: Job) -> None:
    one = demo.body.canopy
    assert one is not None
    parts = {p.name: p for p in shell.parts(one, SHOP)}
    left = parts["Canopy: left wall"]
    assert isinstance(left, SheetPart)
    # The leaf laps 15 over the clear opening and has 5 around it: 20 more on each side. Seen from inside it runs from
    # the rear: 2000 - 30 - 1565.
    assert [(c.x, c.y, c.length, c.width) for c in left.cutouts] == [(405, 10, 1565, 920)]
    assert parts["Canopy: front wall"].cutouts == ()  # type: ignore[union-attr]
    assert {"Canopy: door left", "Canopy: door right", "Canopy: door rear"} <= set(parts)


def test_canopy_masses_are_those_of_its_parts(demo: Job) -> None:
    one = demo.body.canopy
    assert one is not None
    total = sum(point.kg for point in shell.masses(demo.vehicle, demo.body, SHOP))
    assert total == pytest.approx(
        body_mass(tuple(p for p in shell.parts(one, SHOP) if "slotted rail" not in p.name)) + shell.fittings_mass(one)
    )  # fmt: skip
    # A canopy of 2,000 × 1,830 × 960 with three doors weighs 140 to 170 kg (common practice).
    assert 140 < total < 170
    weighed = msgspec.structs.replace(one, fittings=21.5)
    assert shell.fittings_mass(weighed) == 21.5


def test_without_a_canopy_there_is_nothing_of_it(demo: Job) -> None:
    bare = msgspec.structs.replace(demo.body, canopy=None)
    assert canopy.outside(demo.vehicle, bare) is None
    assert canopy.inside(demo.vehicle, bare) is None
    assert canopy.bays(demo.vehicle, bare) == {}
    assert shell.masses(demo.vehicle, bare, SHOP) == ()
