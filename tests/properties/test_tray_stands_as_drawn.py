"""Trays, what hangs under them and the linings of holds: every cut part stood in its place, and what is judged is they."""

import itertools

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from tests import meshes
from tests.builders import SHOP
from tests.refolding import right_handed
from tests.sweeping import examples

from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.poses import around, corners, standing
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Tray, Trundle, UnderBox, UnderTank
from roomy_hull.kit.body import tray as tray_kit

NEAR = 1.0
NOWHERE = ("filler pocket", "mudguard strip", "mudguard bracket")
"""The filler's place is not measured; the guard is rolled, its brackets stand where it comes to lie."""
VEHICLE, WAGON = demo_job().vehicle, demo_job("tarn")


@st.composite
def trays(draw: st.DrawFn) -> Tray:
    length, width = draw(st.integers(900, 3200)), draw(st.integers(1300, 2400))
    boxes = tuple(
        UnderBox(id=key, side=side, place=place, length=draw(st.integers(200, 500)), height=draw(st.integers(150, 400)),  # type: ignore[arg-type]
                 depth=draw(st.integers(250, 450)))
        for key, side, place in (("a", "left", "ahead"), ("b", "right", "behind")) if draw(st.booleans())
    )  # fmt: skip
    trundle = draw(st.none() | st.builds(Trundle, length=st.integers(600, 850), width=st.integers(300, 600),
                                         height=st.integers(100, 250)))  # fmt: skip
    tank = draw(st.none() | st.builds(UnderTank, start=st.just(20.0), length=st.integers(200, 400),
                                      width=st.integers(200, 500), height=st.integers(150, 300)))  # fmt: skip
    return Tray(
        length=length, width=width, floor=draw(st.sampled_from((3.0, 4.0))),
        boards=draw(st.sampled_from(("sheet", "planks"))),
        rail=draw(st.sampled_from(("100x50x4", "120x60x4"))), cross=draw(st.sampled_from(("50x50x3", "60x40x3"))),
        cross_spacing=draw(st.integers(250, 600)), headboard=draw(st.sampled_from((0.0, 40.0, 300.0, 915.0))),
        rack=draw(st.sampled_from((0.0, 110.0, 250.0))), sides=draw(st.sampled_from((0.0, 60.0, 120.0, 240.0))),
        side_thickness=draw(st.sampled_from((2.0, 3.0))), filler=draw(st.booleans()),
        boxes=boxes, trundle=trundle, tank=tank,
    )  # fmt: skip


def placed(vehicle, tray: Tray) -> list[tuple[SheetPart | BarPart, object, list[Box]]]:  # type: ignore[no-untyped-def]
    found = []
    for part in tray_kit.parts(vehicle, tray, SHOP):
        if isinstance(part, Hardware) or part.name.endswith(NOWHERE):
            continue
        assert len(part.poses) == part.count, part.name
        assert all(right_handed(s) for s in part.poses), part.name
        rows = standing(part)
        found += [(part, s, list(r)) for s, r in zip(part.poses, rows, strict=True)]
    return found  # type: ignore[return-value]


def same(a: Box, b: Box) -> bool:
    return all(abs(p - q) <= NEAR for p, q in zip(a, b, strict=True))


@given(trays())
@settings(max_examples=examples(80, 12))
@example(Tray(boards="planks", length=900.0, width=1952.0))
def test_what_is_judged_of_a_tray_is_what_is_cut(tray: Tray) -> None:
    rows = placed(VEHICLE, tray)
    solids = tray_kit.solids(VEHICLE, tray)

    def of(role: str, *words: str) -> None:
        """Whether the solids of a role are as large as the parts with some words in their names."""
        cut = [b for part, _s, row in rows for b in row if any(w in part.name for w in words)]
        drawn = [p.box for p in solids if p.role == role]
        assert bool(cut) == bool(drawn), role
        assert not cut or same(hull(cut), hull(drawn)), (role, hull(cut), hull(drawn))

    of("floor", "Tray: floor")
    of("rail", "subframe rail")
    of("coaming", "coaming")
    of("headboard", "headboard", "rack hoop")
    of("side", "drop side")
    of("tail", "tailboard")
    of("tank", "Under-tray tank")
    for one in tray.boxes:
        cut = hull(
            b for part, _s, row in rows for b in row if part.name.startswith(f"{one.name} {one.id}")
        )
        assert same(cut, next(p.box for p in solids if p.role == "box" and p.id == one.id))
    if tray.trundle is not None:
        cut = hull(b for part, _s, row in rows for b in row if part.name.startswith("Trundle"))
        assert same(cut, next(p.box for p in solids if p.role == "trundle"))


@given(trays())
@settings(max_examples=examples(40, 12))
def test_no_two_parts_of_a_tray_are_cut_into_one_another(tray: Tray) -> None:
    # What hangs under the tray is laid out by the user: that is judged, not made so.
    tray = tray.but(boxes=(), trundle=None, tank=None)
    meshed = [
        (
            part,
            meshes.of_part(part, pose),  # type: ignore[arg-type]
            around(p for face in corners(part, pose) for p in face),  # type: ignore[arg-type]
        )
        for part, pose, _row in placed(VEHICLE, tray)
    ]
    for (one, mesh, room), (other, against, beside) in itertools.combinations(meshed, 2):
        met = room.common(beside)
        if met is not None and min(met.size()) > NEAR and "hoop" not in one.name:
            assert meshes.deep(mesh, against) <= NEAR, (one.name, other.name)


def test_the_hoops_bars_meet_at_their_mitres() -> None:
    tray = Tray(length=2000, width=1800, headboard=900, rack=250)
    top, left, right = (
        [corners(p, s) for p, s, _r in placed(VEHICLE, tray) if "hoop" in p.name][n][0]  # type: ignore[arg-type]
        for n in range(3)
    )
    # Along the slanted faces of the top bar lie those of the legs: four corners each.
    for leg in (left, right):
        shared = [
            p
            for p in top
            if any(max(abs(a - b) for a, b in zip(p, q, strict=True)) < 1e-6 for q in leg)
        ]
        assert len(shared) == 4


def test_a_toolbox_is_seen_from_outside_and_its_door_from_inside() -> None:
    box = UnderBox(id="a", side="left", place="ahead", length=500, height=300, depth=400)
    tray = Tray(length=2000, width=1800, boxes=(box,))
    rows = {p.name: (p, s) for p, s, _r in placed(VEHICLE, tray)}
    body, pose = rows["Toolbox a: body"]
    assert isinstance(body, SheetPart)
    # Its back stands 400 inward of the tray's left edge, its sides go out to the door, 20 deep.
    assert pose.at[1] == -900 + 400  # type: ignore[attr-defined]
    assert (body.left, pose.z) == (380, "-v")  # type: ignore[attr-defined]
    assert pytest.approx(-900) == hull(rows_boxes(rows["Toolbox a: door"])).y0


def rows_boxes(row: tuple) -> list[Box]:  # type: ignore[type-arg]
    part, pose = row
    return [around(face) for face in corners(part, pose)]
