"""Boards: every hole is cut where the instrument is drawn, what does not go is told, mirrored boards are mirror images."""

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import EditError, InputError
from roomy_hull.core.parts import SheetPart
from roomy_hull.drawing.backends.dxf import DxfWriter
from roomy_hull.drawing.scenes.cut import blank_strokes
from roomy_hull.job.edits.boards import with_instrument, without_instrument
from roomy_hull.job.edits.units import changed, mirrored
from roomy_hull.job.model import Job
from roomy_hull.kinds.board import CUTS, Board, Instrument, edge, too_deep, trouble
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.registry import expand
from roomy_hull.making.flats import blank
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.verdict.verdict import judge

SITE = Site(25.0, shipped_shop())


def board(*some: Instrument, **more: object) -> Board:
    sizes = {"width": 300.0, "depth": 100.0, "height": 200.0} | more
    return Board(id="b", name="Board", bay="R", instruments=some, **sizes)  # type: ignore[arg-type]


def panel_of(unit: Board, side: str = "left") -> SheetPart:
    found = expand(unit, SITE, side).parts[0]
    assert isinstance(found, SheetPart)
    return found


@given(
    what=st.sampled_from(sorted(CUTS)),
    x=st.floats(70, 230),
    z=st.floats(60, 140),
    side=st.sampled_from(["left", "right"]),
)
def test_a_hole_is_where_its_instrument_is(what: str, x: float, z: float, side: str) -> None:
    one = Instrument(id="i", what=what, x=x, z=z)  # type: ignore[arg-type]
    unit = board(one)
    bare, cut = panel_of(board(), side), panel_of(unit, side)
    c = one.cut
    area = c.wide * c.high if c.high else 3.14159265 * c.wide**2 / 4
    assert bare.area() - cut.area() == pytest.approx(area, rel=0.02)
    # Its solid stands in the hole: from the left as one faces it, whichever side it hangs on.
    solid = expand(unit, SITE, side).solids
    middles = {
        (round((s.box.x0 + s.box.x1) / 2, 3), round((s.box.z0 + s.box.z1) / 2, 3))
        for s in solid
        if s.role == "bought"
    }
    u = x if side == "left" else unit.width - x
    assert any(abs(a - u) < 2e-3 and abs(b - z) < 2e-3 for a, b in middles)
    # And so does the hole of the panel folded up: the sheet's y runs down from its upper edge.
    hole = cut.holes[0] if cut.holes else None
    down = hole.y if hole is not None else cut.cutouts[0].y + c.high / 2
    assert unit.height - down == pytest.approx(z)


def test_the_hole_is_in_the_file_that_is_cut() -> None:
    unit = board(Instrument(id="g", what="gauge", x=150, z=100))
    text = DxfWriter().text(blank_strokes(blank(panel_of(unit))))
    assert text.count("CIRCLE") == 1
    assert "\n26.0\n" in text  # its radius: a gauge of 52 mm (common practice)


@pytest.mark.parametrize(
    ("some", "words"),
    [
        ((Instrument(id="a", what="gauge", x=20, z=100),), "from the panel's edge"),
        (
            (
                Instrument(id="a", what="gauge", x=100, z=100),
                Instrument(id="b", what="gauge", x=150, z=100),
            ),
            "over each other",
        ),
    ],
)
def test_what_cannot_be_cut_is_told(some: tuple[Instrument, ...], words: str) -> None:
    with pytest.raises(InputError, match=words):
        expand(board(*some), SITE)
    assert trouble(board(), edge(board(), SITE)) == ""


def test_what_is_too_deep_is_a_stop(demo: Job) -> None:
    deep = Instrument(id="a", what="breaker", x=100, z=100, behind=140.0)
    assert too_deep(board(deep)) == (deep,)
    units = tuple(u.but(depth=50.0) if isinstance(u, Board) else u for u in demo.units)
    found = [
        f
        for f in judge(msgspec.structs.replace(demo, units=units)).findings
        if f.code == "services.board_deep"
    ]
    assert {f.severity for f in found} == {"stop"}
    assert [f.limit for f in found] == [50.0] * len(found)
    assert "Main" in found[0].title


def test_ids_stand_once_and_a_mirrored_board_is_its_mirror_image(demo: Job) -> None:
    with pytest.raises(ValueError, match="stands twice"):
        board(Instrument(id="a"), Instrument(id="a", x=150))
    there = demo.thing("fuses")
    assert isinstance(there, Board)
    other = mirrored(demo, "fuses").thing("fuses")
    assert isinstance(other, Board)
    assert [i.x for i in other.instruments] == [there.width - i.x for i in there.instruments]
    assert other.bay != there.bay


def test_instruments_are_put_on_in_the_first_free_place_and_taken_off(demo: Job) -> None:
    job = changed(demo, "fuses", width=400.0)

    def fill(job: Job) -> Job:
        for _ in range(60):
            job = with_instrument(job, "fuses", "switch")
        return job

    with pytest.raises(EditError, match="no room"):
        fill(job)
    job = with_instrument(with_instrument(job, "fuses", "switch"), "fuses", "switch")
    unit = job.thing("fuses")
    assert isinstance(unit, Board)
    assert [i.id for i in unit.instruments][-2:] == ["switch", "switch-2"]
    assert judge(job).assembly.thing("fuses").trouble == ""  # type: ignore[union-attr]
    left = without_instrument(job, "fuses", "switch")
    assert len(left.thing("fuses").instruments) == len(unit.instruments) - 1  # type: ignore[union-attr]
    with pytest.raises(EditError, match="no instrument 'nothing'"):
        without_instrument(job, "fuses", "nothing")
    with pytest.raises(EditError, match="no board"):
        with_instrument(job, "battery", "switch")
