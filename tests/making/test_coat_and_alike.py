"""What is coated, and that owners whose parts are alike are joined alike, each by its own names."""

import msgspec
import pytest

from jobs import crowded
from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.cost import coated
from roomy_hull.making.works import _pattern, _work, works_of
from roomy_hull.shop.shop import shipped_shop

METAL, WOOD = shipped_shop().material("5052-H32"), shipped_shop().material("birch ply")


def flat(count: int, **more: object) -> SheetPart:
    return SheetPart("p", Ref("unit", "u"), 400.0, 300.0, 2.0, METAL, count=count, **more)  # type: ignore[arg-type]


def test_both_faces_of_every_metal_sheet_are_coated() -> None:
    # 0.4 × 0.3 m, two faces, three pieces; ply is not coated.
    assert coated((flat(3),)) == pytest.approx(2 * 0.4 * 0.3 * 3)
    assert coated((flat(3), msgspec.structs.replace(flat(1), material=WOOD))) == pytest.approx(0.72)


def test_a_copy_is_joined_as_the_first_with_its_own_names() -> None:
    works = {w.title: w for w in works_of(assemble(crowded(15))).works}
    one, other = works["Drawer 3"], works["Drawer 9"]  # in the same bay
    assert one.pattern is other.pattern
    assert [p.name.replace("Drawer 3", "Drawer 9") for p in one.parts] == [
        p.name for p in other.parts
    ]
    assert {p.owner for p in other.parts} == {Ref("unit", "d9")}
    for a, b in zip(one.joints, other.joints, strict=True):
        assert (a.one.replace("Drawer 3", "Drawer 9"), a.method, a.spots) == (
            b.one,
            b.method,
            b.spots,
        )
        assert b.owner == Ref("unit", "d9")
    _work.cache_clear()
    _pattern.cache_clear()
    anew = {w.title: w for w in works_of(assemble(crowded(15))).works}["Drawer 9"]
    assert (anew.parts, anew.joints, anew.alone) == (other.parts, other.joints, other.alone)
