"""Scenes of the build: bars on a calendar, and the vehicle as it grows."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.primitives import Disc, Outline, Panel, Words
from roomy_hull.drawing.scenes import bars
from roomy_hull.drawing.scenes.bars import Bar
from roomy_hull.drawing.scenes.growing import growing, grown_frame, legend, pieces
from roomy_hull.drawing.style import DARK, LIGHT
from roomy_hull.job.releases import STATES
from roomy_hull.making.works import works_of
from roomy_hull.verdict.verdict import Verdict


@given(st.integers(1, 60), st.floats(0, 1e5), st.floats(60, 1e5), st.floats(0.3, 8))
def test_rows_fill_the_place_and_are_found_again(
    rows: int, first: float, wide: float, aspect: float
) -> None:
    lies = bars.sheet(rows, first, first + wide, aspect)
    h0, k0, h1, k1 = lies.frame
    assert (h1 - h0) / (k1 - k0) == pytest.approx(aspect, rel=1e-6)
    for row in range(rows):
        assert lies.row_at(lies.top(row) - lies.high * 0.5) == row
    assert lies.row_at(-0.1 * lies.high) == -1
    assert lies.row_at(lies.top(rows) - lies.high) >= rows


def test_bars_are_clipped_named_and_marked() -> None:
    lies = bars.sheet(2, 480.0, 1440.0, 2.0)
    found = bars.scene(
        lies, ["One", "Two"], [(480.0, "Mon"), (960.0, "Tue"), (5000.0, "later")],
        [Bar("a", 0, 400.0, 700.0, "Weld it"), Bar("b", 1, 600.0, 610.0, "short"), Bar("gone", 1, 0.0, 100.0, "before"),
         Bar("h", 1, 700.0, 900.0, "held", "bar tight", held=True)],
        now=480.0, due=1200.0,
    )  # fmt: skip
    panels = {s.tag: s for s in found if isinstance(s, Panel)}
    assert set(panels) == {"a", "b", "h"}
    assert (panels["a"].h0, panels["a"].h1) == (480.0, 700.0)
    assert panels["h"].role == "bar tight"
    assert lies.row_at((panels["a"].k0 + panels["a"].k1) / 2) == 0
    words = [s.text for s in found if isinstance(s, Words)]
    assert {"Weld it", "One", "Two", "Mon", "Tue", "due"} <= set(words)
    assert "short" not in words
    assert "later" not in words
    assert [s.tag for s in found if isinstance(s, Disc)] == ["h"]
    roles = [s.role for s in found if isinstance(s, Outline)]
    assert roles.count("bar now") == roles.count("bar due") == 1
    bare = bars.scene(lies, [], [], [], None, 9000.0)
    assert not [s for s in bare if s.role == "bar due"]


def test_every_role_of_the_build_has_a_manner_in_both_themes() -> None:
    wanted = {"bar", "bar tight", "bar chosen", "bar wait", "bar second", "bar third", "bar now", "bar due", "grown leaf",
              *(f"grown {s}" for s in STATES)}  # fmt: skip
    for theme in (LIGHT, DARK):
        assert wanted <= set(theme.roles)
    # States differ by more than colour: by fill, hatch, line or dash.
    looks = {
        (bool(s.fill), s.hatch, s.dash, s.width)
        for s in (LIGHT.roles[f"grown {x}"] for x in STATES)
    }
    assert len(looks) == len(STATES)


def test_the_vehicle_grows_part_by_part(demo_verdict: Verdict) -> None:
    assembly, works = demo_verdict.assembly, works_of(demo_verdict.assembly)
    bare = growing(assembly, works, {}, frozenset(), "left")
    assert {s.role for s in bare if isinstance(s, Panel) and s.role.startswith("grown")} == {
        "grown to cut"
    }
    own = next(w for w in works.works if w.owner.id == "galley")
    states = {(own.owner, p.name): "welded" for p in own.parts}
    some = growing(assembly, works, states, frozenset({"spare"}), "left", "galley")  # type: ignore[arg-type]
    by_tag: dict[str, set[str]] = {}
    for s in some:
        if isinstance(s, Panel) and s.role.startswith("grown"):
            by_tag.setdefault(s.tag, set()).add(s.role)
    assert by_tag["galley"] == {"grown welded", "grown chosen"}
    assert by_tag["spare"] == {"grown fitted"}
    assert by_tag["net-drawer"] == {"grown to cut"}
    # What is reached from the other side is not seen from here, what is carried outside is.
    assert "tools" not in by_tag
    right = growing(assembly, works, {}, frozenset(), "right")
    assert "tools" in {s.tag for s in right if isinstance(s, Panel)}
    assert "galley" not in {s.tag for s in right if isinstance(s, Panel)}


def test_parts_stand_within_their_unit(demo_verdict: Verdict) -> None:
    for work in works_of(demo_verdict.assembly).works:
        thing = demo_verdict.assembly.thing(work.owner)
        if thing is None:
            continue
        for name, box, _role in pieces(demo_verdict.assembly, work):
            e = thing.envelope
            assert box.x0 >= e.x0 - 1e-6, name
            assert box.x1 <= e.x1 + 1e-6, name
            assert box.y0 >= e.y0 - 1e-6, name
            assert box.y1 <= e.y1 + 1e-6, name
            assert box.z0 >= e.z0 - 1e-6, name
            assert box.z1 <= e.z1 + 1e-6, name


def test_what_the_fills_mean_stands_under_the_ground(demo_verdict: Verdict) -> None:
    shown = grown_frame(demo_verdict.assembly, "left")
    found = legend(shown)
    assert [s.text for s in found if isinstance(s, Words)] == list(STATES)
    for s in found:
        if isinstance(s, Panel):
            assert shown[0] <= s.h0 < s.h1 <= shown[2]
            assert shown[1] <= s.k0 < s.k1 < 0
