"""Several jobs on the same people: nobody twice at once, rank and due, who holds up whom, and what cannot be planned."""

import itertools

import msgspec
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import building as edits
from roomy_hull.planning.plan import Build, build_of
from roomy_hull.planning.several import together
from roomy_hull.shop.shop import Shop, shipped_shop
from roomy_hull.verdict.verdict import Verdict, judge


def begun(name: str, shop: Shop | None = None, **plan: object) -> tuple[Verdict, Build]:
    """A demo with everything here and its plan begun."""
    job = edits.planned(
        msgspec.structs.replace(demo_job(name), log=(), offers=()),
        **({"begin": "2027-02-01"} | plan),
    )
    build = build_of(judge(job, shop=shop).context())
    job = edits.logged(job, *(
        edits.entry("2027-02-01T08:00:00", "AB", kind="received", about=p.key) for p in build.buying))  # fmt: skip
    verdict = judge(job, shop=shop)
    return verdict, build_of(verdict.context())


SHOP = shipped_shop().workshop


@pytest.fixture(scope="module")
def two() -> dict[str, tuple[Verdict, Build]]:
    """Two pickups of the same build."""
    return {
        "a": begun("lowfold", due="2027-02-03", rank=1),
        "b": begun("lowfold", due="2027-02-03", rank=9),
    }


def test_two_jobs_take_longer_than_one_and_share_nobody(
    two: dict[str, tuple[Verdict, Build]],
) -> None:
    found = together({k: (v.assembly, b) for k, (v, b) in two.items()}, SHOP)
    assert found is not None
    alone = two["a"][1].levelled.end
    assert found.levelled.end > alone
    assert set(found.levelled.placed) == {
        f"{k}/{op}" for k, (_v, b) in two.items() for op in b.tasks
    }
    spans: dict[str, list[tuple[int, int]]] = {}
    for one in found.levelled.placed.values():
        for person in one.people:
            spans.setdefault(person, []).append((one.start, one.finish))
    for rows in spans.values():
        rows.sort()
        assert all(a[1] <= b[0] for a, b in itertools.pairwise(rows))
    # Whoever goes first by rank is no later than the other.
    assert found.late("a") <= found.late("b")
    assert found.held_up_by("b").get("a", 0.0) > 0
    assert found.end("a") is not None
    assert found.end("nobody's") is None
    assert found.late("nobody's") == 0


def test_a_job_alone_is_planned_as_by_itself(two: dict[str, tuple[Verdict, Build]]) -> None:
    verdict, build = two["a"]
    found = together({"a": (verdict.assembly, build)}, SHOP)
    assert found is not None
    assert found.levelled.end == build.levelled.end
    assert found.held_up_by("a") == {}


def test_calendars_begin_with_the_first_of_them(two: dict[str, tuple[Verdict, Build]]) -> None:
    later = begun("tarn", begin="2027-02-08")
    found = together(
        {"a": (two["a"][0].assembly, two["a"][1]), "z": (later[0].assembly, later[1])}, SHOP
    )
    assert found is not None
    first = min(p.start for k, p in found.levelled.placed.items() if k.startswith("z/"))
    assert found.calendar.at(first).day >= later[1].now
    assert found.calendar.days[0] == two["a"][1].now


def test_nothing_begun_is_no_plan_and_nobody_for_a_trade_is_told(
    two: dict[str, tuple[Verdict, Build]],
) -> None:
    assert together({}, SHOP) is None
    few = msgspec.structs.replace(SHOP, people=SHOP.people[:1])
    shop = msgspec.structs.replace(shipped_shop(), workshop=few)
    verdict, build = begun("lowfold", shop)
    assert "anybody for" in build.trouble
    assert together({"a": (verdict.assembly, build)}, few) is None
    with pytest.raises(InputError, match="anybody for"):
        together({"a": (two["a"][0].assembly, two["a"][1])}, few)
