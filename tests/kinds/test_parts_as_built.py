"""Parts cut to another size, on every kind in the stores: solids, mass and envelope follow, and nothing else."""

import math

import msgspec
import pytest
from tests.builders import expand

from roomy_hull.assembly.built import PartBuilt, altered, can_be
from roomy_hull.core.fill import FIXED
from roomy_hull.core.geometry.solids import hull
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.poses import standing
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.expansion import part_mass
from roomy_hull.kinds.registry import Unit
from roomy_hull.kit import catalogue as stores

UNITS = [e.make for e in stores.entries() if not isinstance(e.make, Carried)]


def fixed_mass(found: object) -> float:
    """What a unit weighs empty. [kg]"""
    return sum(m.kg for m in found.masses if m.fill == FIXED)  # type: ignore[attr-defined]  # an expansion


@pytest.mark.parametrize("unit", UNITS, ids=lambda u: u.name)
@pytest.mark.parametrize("by", [-2.0, -0.5, 3.0])
def test_a_part_cut_otherwise_changes_its_mass_and_its_solids_only(unit: Unit, by: float) -> None:
    drawn = expand(unit)
    for part in drawn.parts:
        for size in ("length", "width"):
            if not can_be(part, size):
                continue
            assert isinstance(part, SheetPart | BarPart)
            new = float(getattr(part, size)) + by
            found = altered(drawn, [PartBuilt(part.name, size, new)])
            same = [p for p in drawn.parts if p.name == part.name]
            # All parts of one name are one row of the list: each is cut so.
            cut = [p for p in found.parts if p.name == part.name]
            assert len(cut) == len(same)
            assert all(math.isclose(float(getattr(p, size)), new) for p in cut if can_be(p, size))
            assert [p for p in found.parts if p.name != part.name] == [
                p for p in drawn.parts if p.name != part.name
            ]
            more = part_mass(found.parts) - part_mass(drawn.parts)
            if any(m.source == "geometry" and m.fill == FIXED for m in drawn.masses):
                assert fixed_mass(found) - fixed_mass(drawn) == pytest.approx(more, abs=1e-9)
            assert len(found.solids) == len(drawn.solids)
            assert found.envelope == hull([s.box for s in found.solids])
            moved = {s.box for s in found.solids} - {s.box for s in drawn.solids}
            own = {
                b
                for p in cut
                if not isinstance(p, Hardware)
                for boxes in standing(p)
                for b in (*boxes, hull(boxes))
            }
            assert moved <= own
            # Cut to its drawn size it is the very same thing.
            assert (
                altered(drawn, [PartBuilt(part.name, size, float(getattr(part, size)))]).solids
                == drawn.solids
            )


def test_what_cannot_be_cut_otherwise_alone_stays_as_it_is() -> None:
    drawn = expand(next(u for u in UNITS if any(isinstance(p, Hardware) for p in expand(u).parts)))
    bought = next(p for p in drawn.parts if isinstance(p, Hardware))
    assert not can_be(bought, "length")
    assert altered(drawn, [PartBuilt(bought.name, "length", 5.0)]) is drawn
    assert altered(drawn, [PartBuilt("nothing of the kind", "length", 5.0)]) is drawn
    assert altered(drawn, []) is drawn
    shaped = [
        p
        for u in UNITS
        for p in expand(u).parts
        if isinstance(p, SheetPart) and p.shape is not None
    ]
    assert shaped
    assert not any(can_be(p, "length") for p in shaped)
    bars = [p for u in UNITS for p in expand(u).parts if isinstance(p, BarPart)]
    assert all(can_be(p, "length") and not can_be(p, "width") for p in bars)


def test_several_sizes_of_several_parts_add_up() -> None:
    unit = next(u for u in UNITS if sum(can_be(p, "width") for p in expand(u).parts) >= 2)
    drawn = expand(unit)
    some = [p for p in drawn.parts if can_be(p, "width")][:2]
    rows = [
        PartBuilt(p.name, s, float(getattr(p, s)) - 1.5) for p in some for s in ("length", "width")
    ]
    whole = altered(drawn, rows)
    step = drawn
    for row in rows:
        step = altered(step, [row])
    assert msgspec.structs.asdict(whole)["parts"] == step.parts
    assert fixed_mass(whole) == pytest.approx(fixed_mass(step))
    # A number behind a part's name, as lists have it, is not part of the name.
    assert (
        altered(drawn, [rows[0]._replace(part=f"{rows[0].part} #2")]).parts
        == altered(drawn, rows[:1]).parts
    )
