"""Gaps with doubt: chains against closed forms and a hundred thousand draws, and what measuring again saves."""

import json
import math

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.core.stack import Chain, Link
from roomy_hull.formats import shopfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import units
from roomy_hull.making.gap import TAPE, part_uncertainty
from roomy_hull.making.gaps import AGAIN, gaps_of, worth
from roomy_hull.verdict.verdict import judge

DRAWS = 100_000


def test_a_stack_of_five_by_its_closed_form() -> None:
    # Five plates of sigma 0.1 in a slot of sigma 0.2: root of 5 · 0.01 + 0.04 = 0.3; 0.6 nominal are two sigma.
    links = tuple(Link(f"plate {n}", 0.1, -1.0) for n in range(5))
    chain = Chain(0.6, (*links, Link("slot", 0.2)))
    assert chain.sigma == pytest.approx(0.3)
    assert chain.chance == pytest.approx(0.5 * math.erfc(2 / math.sqrt(2)))
    assert chain.one_in() == pytest.approx(44, abs=0.1)
    assert chain.worst == pytest.approx(0.6 - 3 * 0.7)
    assert Chain(1.0, ()).one_in() == math.inf
    assert Chain(-1.0, ()).chance == 1.0


@given(st.lists(st.tuples(st.floats(0.05, 1.5), st.sampled_from([-1.0, -0.5, 0.5, 1.0])), min_size=1, max_size=6),
       st.floats(-1, 3), st.integers(0, 2**31))  # fmt: skip
def test_a_chain_agrees_with_a_hundred_thousand_draws(
    links: list[tuple[float, float]], nominal: float, seed: int
) -> None:
    chain = Chain(nominal, tuple(Link(str(n), s, k) for n, (s, k) in enumerate(links)))
    rng = np.random.default_rng(seed)
    drawn = nominal + sum(k * rng.normal(0, s, DRAWS) for s, k in links)
    assert chain.sigma == pytest.approx(float(np.std(drawn)), rel=0.02)
    p = chain.chance
    assert float(np.mean(drawn < 0)) == pytest.approx(
        p, abs=5 * math.sqrt(p * (1 - p) / DRAWS) + 1e-4
    )


def test_a_parts_uncertainty_counts_its_edges_bends_and_k() -> None:
    t, tools = 2.0, SHOP.tools
    flat = SheetPart("p", Ref("unit", "x"), 400, 300, t, SHOP.material("5052-H32"))
    assert part_uncertainty(flat, 0, SHOP) == pytest.approx(tools.cutter.uncertainty * math.sqrt(2))
    pan = msgspec.structs.replace(flat, left=50.0, right=50.0)
    each = tools.uncertainties.bend**2 + (0.04 * t * math.pi / 2) ** 2
    assert part_uncertainty(pan, 0, SHOP) == pytest.approx(
        math.sqrt(2 * tools.cutter.uncertainty**2 + 2 * each)
    )
    assert part_uncertainty(pan, 1, SHOP) == part_uncertainty(flat, 1, SHOP)
    assert part_uncertainty(pan, 2, SHOP) == pytest.approx(
        math.sqrt(2 * tools.cutter.uncertainty**2 + each)
    )
    bar = BarPart("b", Ref("unit", "x"), "40x40x3", 900, SHOP.material("6060-T5"))
    assert part_uncertainty(bar, 0, SHOP) == tools.saw.uncertainty


def test_test_bends_make_gaps_safer() -> None:
    raw = json.loads(shopfile.dumps(SHOP))
    # Twelve strips of the sheet, all as K 0.44 has them.
    raw["shop"]["test_bends"] = [
        {"material": "5052-H32", "thickness": t, "radius": 1.5 * t, "angle": 90, "one": 50, "other": 50,
         "flat": 100 - 5 * t + math.pi / 2 * (1.5 + 0.44) * t}
        for t in (1.6, 2.0) for _ in range(12)
    ]  # fmt: skip
    own = shopfile.loads(json.dumps(raw).encode())
    assert own.material("5052-H32").k(2.0) == pytest.approx(0.44)
    assert own.material("5052-H32").k(3.0) == SHOP.material("5052-H32").k_factor
    job = demo_job("tarn")
    before = {g.title: g.chain for g in gaps_of(assemble(job))}
    after = {g.title: g.chain for g in gaps_of(assemble(job, shop=own))}
    name = next(t for t in before if "slides between" in t)
    assert after[name].sigma < before[name].sigma
    assert after[name].chance < before[name].chance


def test_what_was_measured_decides_where_the_vehicle_does() -> None:
    job = demo_job("lowfold")
    wing = next(g for g in gaps_of(assemble(job)) if "Right wing to the bay's end" in g.title)
    assert next(x.sigma for x in wing.chain.links if x.measure) == TAPE
    (first, *_) = worth(gaps_of(assemble(job)))
    assert first.saves == pytest.approx(
        wing.chain.chance - wing.chain.improved(first.measure, AGAIN).chance, abs=1e-3
    )
    sure = {first.measure: 0.2}
    assert all(w.measure != first.measure for w in worth(gaps_of(assemble(job), sure)))
    better = next(g for g in gaps_of(assemble(job), sure) if g.title == wing.title)
    assert better.chain.chance < wing.chain.chance


def test_a_gap_that_is_clear_and_likely_binds_is_a_look() -> None:
    job = demo_job("brackwater")
    thing = job.thing("net-drawer")
    other = job.thing("wet-bench")
    assert thing is not None
    assert other is not None
    moved = units.changed(job, "net-drawer", u=other.u + other.width + 0.6)  # type: ignore[union-attr]
    found = [f for f in judge(moved).findings if f.code == "making.gap"]
    gaps = [g for g in gaps_of(assemble(moved)) if g.chain.nominal > 0 and g.chain.chance > 0.02]
    assert len(found) == len(gaps)


def test_a_row_between_the_arches_binds_by_one_tape_reading() -> None:
    # Tub of 1,560 with arches of 225: 1,110 between them. Two stacks of 545 and 520: 45 left, as by hand.
    job = demo_job("lowfold")
    row = next(g for g in gaps_of(assemble(job)) if g.title.endswith("between the arches"))
    assert row.chain.nominal == pytest.approx(1560 - 2 * 225 - 545 - 520)
    (tape,) = (x for x in row.chain.links if x.measure)
    assert (tape.measure, tape.sigma) == ("between", TAPE)
    first, second = job.thing("actions"), job.thing("strings")
    assert first is not None
    assert second is not None
    tight = units.changed(job, "actions", u=first.u - 21)  # type: ignore[union-attr]
    tight = units.changed(tight, "strings", u=second.u - 24, width=560.0)  # type: ignore[union-attr]
    (bad,) = (g for g in gaps_of(assemble(tight)) if g.title == row.title)
    assert bad.chain.nominal == pytest.approx(1110 - 545 - 560)
    assert bad.chain.chance > row.chain.chance
    (again,) = (w for w in worth(gaps_of(assemble(tight))) if w.measure == "between")
    assert again.saves > 0


def test_things_of_different_bays_have_a_gap() -> None:
    job = demo_job("brackwater")
    assert not any({r.id for r in g.refs} == {"galley", "waders"} for g in gaps_of(assemble(job)))
    galley = job.thing("galley")
    assert galley is not None
    moved = units.changed(job, "galley", u=galley.u + 38)  # type: ignore[union-attr]
    (gap,) = (g for g in gaps_of(assemble(moved)) if {r.id for r in g.refs} == {"galley", "waders"})
    assert gap.chain.nominal == pytest.approx(10)
    assert len(gap.chain.links) == 4


def test_gaps_of_a_verdict_follow_body_and_shop_though_no_thing_changed() -> None:
    job = demo_job("tarn")
    before = judge(job)
    assert before.gaps == gaps_of(before.assembly)
    (arch,) = job.body.tray.arches
    wider = msgspec.structs.replace(
        job, body=job.body.but(tray=job.body.tray.but(arches=(arch.but(width=arch.width - 10),)))
    )
    now = judge(wider, before)
    assert now.assembly.things == before.assembly.things
    assert now.gaps == gaps_of(now.assembly) != before.gaps
    uncertainties = msgspec.structs.replace(SHOP.tools.uncertainties, assembly=2.0)
    own = msgspec.structs.replace(
        SHOP, tools=msgspec.structs.replace(SHOP.tools, uncertainties=uncertainties)
    )
    other = judge(job, before, shop=own)
    assert other.gaps == gaps_of(other.assembly) != before.gaps
