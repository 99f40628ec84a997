import msgspec
import pytest

from roomy_hull.core.sheetmetal import BarPart, SheetPart
from roomy_hull.core.solids import hull
from roomy_hull.job.body import Arch
from roomy_hull.job.model import Job
from roomy_hull.kit import canopy, tray


def body_mass(parts: tuple[object, ...]) -> float:
    return sum(p.mass() * p.count for p in parts if isinstance(p, SheetPart | BarPart))


def test_the_tray_stands_on_the_rails_behind_the_cab(demo: Job) -> None:
    vehicle, flat = demo.vehicle, demo.body.tray
    solids = tray.solids(vehicle, flat)
    assert solids["floor"].x0 == vehicle.cab_back + flat.gap
    assert solids["floor"].z1 == vehicle.rail_top + 100 + 4
    assert solids["rail left"].z0 == vehicle.rail_top
    assert solids["floor"].x1 - solids["floor"].x0 == flat.length


def test_tray_masses_are_those_of_its_parts(demo: Job) -> None:
    flat = demo.body.tray
    lumps = tray.lumps(demo.vehicle, flat)
    assert sum(lump.kg for lump in lumps) == pytest.approx(
        body_mass(tray.parts(flat, demo.vehicle.tyre)) + flat.fittings
    )


def test_a_longer_tray_weighs_more_and_has_more_cross_members(demo: Job) -> None:
    short = demo.body.tray
    long = msgspec.structs.replace(short, length=short.length + 800)
    assert body_mass(tray.parts(long, demo.vehicle.tyre)) > body_mass(
        tray.parts(short, demo.vehicle.tyre)
    )

    def crosses(t: object) -> int:
        return next(
            p.count for p in tray.parts(t, demo.vehicle.tyre) if p.name == "Tray: cross-member"
        )  # type: ignore[arg-type]

    assert crosses(long) == crosses(short) + 2


def test_sides_and_arches_are_solids_and_parts(demo: Job) -> None:
    arch = Arch(start=1200, length=700, width=220, height=180)
    flat = msgspec.structs.replace(demo.body.tray, sides=250, arches=(arch,))
    solids = tray.solids(demo.vehicle, flat)
    assert {"side left", "side right", "tail", "arch 1 left", "arch 1 right"} <= set(solids)
    one = msgspec.structs.replace(flat, arches=(msgspec.structs.replace(arch, side="left"),))
    assert "arch 1 right" not in tray.solids(demo.vehicle, one)
    names = {p.name for p in tray.parts(flat, demo.vehicle.tyre)}
    assert {"Tray: drop side", "Tray: tailboard"} <= names


def test_the_canopy_stands_on_the_floor_and_bays_lie_inside(demo: Job) -> None:
    outside, inside = (
        canopy.outside(demo.vehicle, demo.body),
        canopy.inside(demo.vehicle, demo.body),
    )
    assert outside is not None
    assert inside is not None
    assert outside.z0 == tray.floor_z(demo.vehicle, demo.body.tray)
    assert inside.x0 - outside.x0 == 35
    places = canopy.bays(demo.vehicle, demo.body)
    for place in places.values():
        box = place.frame.box(place.size)
        assert hull([box, inside]) == inside
    left, right = places["L"].frame.box(places["L"].size), places["R"].frame.box(places["R"].size)
    assert left.common(right) is None


def test_a_wall_is_cut_for_its_doors_and_doors_are_made(demo: Job) -> None:
    shell = demo.body.canopy
    assert shell is not None
    parts = {p.name: p for p in canopy.parts(shell)}
    left = parts["Canopy: left wall"]
    assert isinstance(left, SheetPart)
    assert [(c.x, c.length) for c in left.cutouts] == [(60, 1480)]
    assert parts["Canopy: front wall"].cutouts == ()  # type: ignore[union-attr]
    assert {"Canopy: door left", "Canopy: door right", "Canopy: door rear"} <= set(parts)


def test_canopy_masses_are_those_of_its_parts(demo: Job) -> None:
    shell = demo.body.canopy
    assert shell is not None
    total = sum(lump.kg for lump in canopy.lumps(demo.vehicle, demo.body))
    assert total == pytest.approx(body_mass(canopy.parts(shell)) + shell.fittings)


def test_without_a_canopy_there_is_nothing_of_it(demo: Job) -> None:
    bare = msgspec.structs.replace(demo.body, canopy=None)
    assert canopy.outside(demo.vehicle, bare) is None
    assert canopy.inside(demo.vehicle, bare) is None
    assert canopy.bays(demo.vehicle, bare) == {}
    assert canopy.lumps(demo.vehicle, bare) == ()
