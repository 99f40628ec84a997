"""From a job to an instance and back: figures are those of the studies, places are those of the job."""

import random

import msgspec
import pytest

from roomy_hull.arrange.gather import USE, Gathered, cells_for, gather, use_of
from roomy_hull.arrange.instance import At, Layout, Weights
from roomy_hull.arrange.layouts import as_it_stands, in_cells, placed
from roomy_hull.arrange.objective import broken, value
from roomy_hull.arrange.search import Search
from roomy_hull.arrange.weighing import suggested, weights_of
from roomy_hull.core.errors import InputError
from roomy_hull.core.findings import Finding
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.arranging import ApartWish, Arranging, BayWish, NearWish
from roomy_hull.job.arranging import Weights as OwnWeights
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.edits import units as unit_edits
from roomy_hull.job.goods import Good, Party, Person
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import KINDS, Unit, kind_of
from roomy_hull.kit import catalogue
from roomy_hull.verdict.verdict import Verdict, judge
from tests.builders import bare, begun


def made(key: str, new: str, **changes: object) -> Unit:
    """A unit of the stores."""
    return catalogue.entry(key).make.but(id=new, **changes)


@pytest.fixture(scope="module")
def seed_bank() -> Verdict:
    """The smallest demo, judged."""
    return judge(demo_job("tarn"))


@pytest.fixture(scope="module")
def gathered(seed_bank: Verdict) -> Gathered:
    """Everything of it to be placed anew, in the rails' own steps."""
    return gather(seed_bank, Arranging(), 25.0)


def layout_of(gathered: Gathered, chance: random.Random) -> Layout:
    """Units anywhere at all: figures do not ask whether they overlap."""
    found = []
    for n, item in enumerate(gathered.instance.items[: gathered.instance.count]):
        bay = chance.choice([b for b, s in enumerate(item.spots) if s is not None])
        room = gathered.instance.bays[bay]
        found.append(
            At(
                bay,
                chance.randint(0, room.cells - item.cells),
                chance.randint(0, int(room.height - item.height)),
            )
        )
        del n
    return tuple(found)


@pytest.mark.parametrize("seed", range(6))
@pytest.mark.parametrize("axle", ["front", "rear"])
def test_axle_and_balance_are_those_of_the_verdict(
    seed_bank: Verdict, seed: int, axle: str
) -> None:
    """From one layout to another the figures change as much as the loads themselves, judged from nothing."""
    of = gather(seed_bank, Arranging(axle=axle), 25.0)  # type: ignore[arg-type]
    chance = random.Random(seed)
    rows = []
    for _ in range(2):
        layout = layout_of(of, chance)
        loads = judge(placed(of, seed_bank.job, layout)).loads.scenario(of.scenario)
        on_axle = loads.front.value if axle == "front" else loads.rear.value
        rows.append((value(of.instance, layout), on_axle, loads.right.value - loads.left.value))
    assert rows[1][0].axle - rows[0][0].axle == pytest.approx(rows[1][1] - rows[0][1], abs=1e-6)
    for worth, _, lean in rows:
        assert worth.balance == pytest.approx(abs(lean), abs=1e-6)


def test_height_and_reach_by_hand(seed_bank: Verdict) -> None:
    """A unit of 20 kg whose middle is 300 mm above the bay's floor, for one person of 1,700 mm."""
    box = made("shelf", "box", width=400, depth=400, height=400, contents=0.0)
    job = bare(
        seed_bank.job,
        box.but(bay="B"),
        goods=(),
        party=Party(people=(Person(id="a", stature=1700.0),)),
    )
    verdict = judge(job)
    of = gather(verdict, Arranging(), 25.0)
    item, floor = of.instance.items[0], verdict.assembly.ground.bays["B"].frame.z
    worth = value(of.instance, (At(0, 8, 100),))
    settled = verdict.access.settled.ground(verdict.assembly.ground.floor.centre()[0])
    middle = floor + 100 + 200
    low, high = 0.44 * 1700 + settled, 0.818 * 1700 + settled
    assert item.band == pytest.approx((low, high))
    assert worth.reach == pytest.approx(
        max(0.0, low - middle, middle - high) / 100 * USE["each camp"]
    )
    thing = verdict.assembly.things[0]
    whole = sum(m.kg for m in thing.masses)
    above = sum(m.kg * m.z for m in thing.masses) / whole - thing.envelope.z0 + 100
    assert worth.low == pytest.approx(whole * above / 1000, rel=1e-6)


def test_the_layout_in_hand_is_valued_where_it_stands(
    seed_bank: Verdict, gathered: Gathered
) -> None:
    hand = as_it_stands(gathered, seed_bank.job)
    assert hand is not None
    loads = seed_bank.loads.scenario(gathered.scenario)
    assert hand.balance == pytest.approx(abs(loads.right.value - loads.left.value), abs=1.0)
    start = in_cells(gathered, seed_bank.job)
    assert start is not None
    assert broken(gathered.instance, start) == []
    again = as_it_stands(gathered, placed(gathered, seed_bank.job, start))
    assert again is not None
    assert again.points == pytest.approx(value(gathered.instance, start).points, abs=1e-6)


def test_what_is_found_is_placed_and_fits(seed_bank: Verdict, gathered: Gathered) -> None:
    found = Search(gathered.instance, 4).run()
    for _, layout in found.layouts[:5]:
        job = placed(gathered, seed_bank.job, layout)
        assert [u.id for u in job.units] == [u.id for u in seed_bank.job.units]
        fit = [f for f in judge(job).findings if f.code.startswith("fit.") and f.severity == "stop"]
        assert fit == []
        assert all(u.u % 25 == 0 for u in job.units)


def test_what_is_wanted_comes_after_what_there_was(seed_bank: Verdict) -> None:
    job = edits.wanted(seed_bank.job, made("outlet", "outlet"))
    of = gather(judge(job), job.arrange, 25.0)
    assert of.units[-1].id == "outlet"
    assert as_it_stands(of, job) is None
    assert in_cells(of, job) is None
    layout = Search(of.instance, 4).run().layouts[0][1]
    assert placed(of, job, layout).units[-1].id == "outlet"


def test_pinned_things_stay_and_are_in_the_way(seed_bank: Verdict) -> None:
    job = edits.pinned(seed_bank.job, ["cold", "water"], on=True)
    of = gather(seed_bank, job.arrange, 25.0)
    assert {u.id for u in of.units} == {u.id for u in job.units} - {"cold", "water"}
    assert [u.id for u in of.base.units] == ["cold", "water"]
    for _, layout in Search(of.instance, 4).run().layouts[:10]:
        there = placed(of, job, layout)
        for key in ("cold", "water"):
            assert there.thing(key) is job.thing(key)
        assert not [f for f in judge(there).findings if f.code == "fit.overlap"]


def test_something_may_rest_on_what_is_pinned() -> None:
    """A drawer of 600 on the floor of a bay of 700: one on it is the only place that is left."""
    job = demo_job("tarn")
    bay = job.body.bays()[0]
    low = made(
        "compartment", "low", bay="B", u=0.0, width=bay.length // 25 * 25, depth=900, height=300
    )
    job = bare(job, low, goods=())
    job = edits.pinned(edits.wanted(job, made("drawer", "upper", width=497.0)), ["low"], on=True)
    verdict = judge(job)
    of = gather(verdict, job.arrange, 25.0)
    levels = {at.level for _, layout in Search(of.instance, 4).run().layouts for at in layout}
    assert levels
    assert all(300 <= level <= 312 for level in levels)


def test_bay_wishes_are_kept(demo_verdict: Verdict) -> None:
    wish = Arranging(pinned=tuple(u.id for u in demo_verdict.job.units if u.id not in ("battery", "fuses")),
                     bays=(BayWish(thing="battery", bays=("B",)),))  # fmt: skip
    of = gather(demo_verdict, wish)
    battery = of.instance.items[[u.id for u in of.units].index("battery")]
    assert [s is not None for s in battery.spots] == [False, False, True]


def test_a_cell_is_a_multiple_of_the_rails(demo_verdict: Verdict) -> None:
    bays = list(demo_verdict.assembly.ground.bays.values())
    assert cells_for(bays, 50.0) == (50.0, 25.0)
    assert cells_for(bays, 60.0) == (75.0, 25.0)
    other = [msgspec.structs.replace(bays[0], bay=bays[0].bay.but(pitch=30.0)), bays[1]]
    assert cells_for(other, 50.0) == (150.0, 150.0) or cells_for(other, 50.0)[0] % 30 == 0
    free = [msgspec.structs.replace(b, bay=b.bay.but(pitch=0.0)) for b in bays]
    assert cells_for(free, 40.0) == (40.0, 1.0)


def test_a_bay_never_has_more_cells_than_bits(demo_verdict: Verdict) -> None:
    cell, _ = cells_for(list(demo_verdict.assembly.ground.bays.values()), 10.0)
    longest = max(p.size.x1 for p in demo_verdict.assembly.ground.bays.values())
    assert longest / cell <= 62


def test_runs_follow_the_circuits_or_what_is_usual(demo_verdict: Verdict) -> None:
    of = gather(demo_verdict, Arranging())
    ids = [u.id for u in of.units]
    joined = {frozenset((ids[r.a], ids[r.b])) for r in of.instance.runs}
    assert frozenset(("battery", "fuses")) in joined
    assert frozenset(("water", "wet-bench")) in joined
    job = bare(demo_job("tarn"), made("battery", "bat", bay="B"), made("charger", "dc", bay="B"),
               made("tank-60", "tank", bay="B"), made("kitchen", "cook", bay="B"))  # fmt: skip
    job = msgspec.structs.replace(job, services=type(job.services)(), goods=())
    of = gather(judge(job), Arranging())
    ids = [u.id for u in of.units]
    assert {frozenset((ids[r.a], ids[r.b])) for r in of.instance.runs} == {
        frozenset(("bat", "dc")), frozenset(("tank", "cook"))
    }  # fmt: skip


def test_a_run_to_what_is_pinned_leads_there(demo_verdict: Verdict) -> None:
    wish = Arranging(pinned=tuple(u.id for u in demo_verdict.job.units if u.id != "battery"))
    of = gather(demo_verdict, wish)
    board = demo_verdict.assembly.thing("fuses")
    assert board is not None
    x, y, _ = board.envelope.centre()
    assert (x, y) in {(t.x, t.y) for t in of.instance.ties}
    here = value(of.instance, (At(0, 0, 0),))
    away = value(of.instance, (At(0, 4, 0),))
    assert here.runs != away.runs


def test_gas_is_kept_from_sparks_unless_it_is_not_wanted(demo_verdict: Verdict) -> None:
    some = gather(demo_verdict, Arranging()).instance.aparts
    assert {a.gap for a in some} == {300.0}
    assert gather(demo_verdict, Arranging(gas=False)).instance.aparts == ()
    own = Arranging(gas=False, apart=(ApartWish(a="tools", b="optics", gap=120.0),))
    assert [a.gap for a in gather(demo_verdict, own).instance.aparts] == [120.0]


def test_how_soon_a_thing_is_wanted() -> None:
    job = demo_job("tarn")
    kit = made("first-aid", "kit", bay="B")
    drawer = made("drawer", "box", bay="B")
    assert use_of(kit, job) == "now"
    assert use_of(drawer, job) == kind_of(drawer).use
    goods = (
        Good(id="g", name="Ladle", place="box", use="rarely"),
        Good(id="h", name="Knife", place="box", use="each stop"),
    )
    assert use_of(drawer, msgspec.structs.replace(job, goods=goods)) == "each stop"


def test_every_kind_says_where_it_may_stand() -> None:
    for kind in KINDS.values():
        assert kind.stance in ("floor", "rest", "hang")
        assert kind.use in USE
        if kind.hangs:
            assert kind.stance == "hang"


def test_weights_follow_the_findings(seed_bank: Verdict) -> None:
    assert suggested(seed_bank) == Weights()
    lame = msgspec.structs.replace(
        seed_bank, findings=(*seed_bank.findings, Finding("access.reach", "look", "Out of reach"))
    )
    assert suggested(lame).reach == 2.0
    own = Arranging(weights=OwnWeights(low=0.5), own_weights=True)
    assert weights_of(lame, own) == Weights(low=0.5)


def test_an_axle_nearly_full_counts_twice_and_over_its_limit_three_times() -> None:
    full = judge(demo_job("reedholm"))
    assert suggested(full).axle == 2.0
    job = full.job
    over = msgspec.structs.replace(
        job, vehicle=job.vehicle.but(ratings=job.vehicle.ratings.but(front_axle=1500.0))
    )
    assert suggested(judge(over)).axle == 3.0


def test_what_stands_in_another_set_up_is_not_in_the_way() -> None:
    """The load of the flatbed lies where the camper stands, but never with it."""
    verdict = judge(demo_job("reedholm"))
    of = gather(verdict, Arranging())
    fridge = of.instance.items[[u.id for u in of.units].index("fridge")].spots[0]
    assert fridge is not None
    assert fridge.free.allows(505.0, 0.0)
    assert (0, ((-1.0, 1e5),)) in fridge.feet


def refused(job: Job, wish: Arranging) -> str:
    with pytest.raises(InputError) as trouble:
        gather(judge(job), wish)
    return str(trouble.value)


def test_what_cannot_be_arranged_is_refused_in_words(seed_bank: Verdict) -> None:
    job = seed_bank.job
    every = tuple(u.id for u in job.units)
    assert "nothing to arrange" in refused(job, Arranging(pinned=every))
    assert "no bay" in refused(begun("Fen", "bare tray"), Arranging())
    many = tuple(made("outlet", f"o{n}") for n in range(100))
    assert "108 units are too many" in refused(job, Arranging(wanted=many))
    assert "in the layout already" in refused(job, Arranging(wanted=(made("outlet", "cold"),)))
    both = Arranging(near=(NearWish(a="cold", b="water"),), apart=(ApartWish(a="water", b="cold"),))
    assert "near each other and apart" in refused(job, both)
    assert "no bay is called X" in refused(
        job, Arranging(bays=(BayWish(thing="cold", bays=("X",)),))
    )
    nought = Arranging(
        own_weights=True, weights=OwnWeights(axle=0, balance=0, low=0, reach=0, runs=0, room=0)
    )
    assert "every weight is nought" in refused(job, nought)


def test_wishes_about_what_is_gone_mean_nothing(seed_bank: Verdict) -> None:
    wish = Arranging(near=(NearWish(a="cold", b="ghost"),), apart=(ApartWish(a="ghost", b="water"),), pinned=("ghost",),
                     bays=(BayWish(thing="ghost", bays=("B",)),))  # fmt: skip
    of = gather(seed_bank, wish, 25.0)
    assert of.instance.aparts == ()
    assert len(of.units) == len(seed_bank.job.units)


def test_a_unit_that_is_turned_off_by_its_own_trouble_goes_nowhere(seed_bank: Verdict) -> None:
    """A drawer so narrow that nothing is left inside it cannot be written out, and so has no place."""
    job = edits.wanted(seed_bank.job, made("drawer", "thin", width=20.0))
    of = gather(judge(job), job.arrange)
    assert of.instance.items[of.instance.count - 1].spots.count(None) == len(of.instance.bays)


def test_riders_stand_behind_what_is_shallow_enough(gathered: Gathered) -> None:
    instance = gathered.instance
    assert instance.behind
    for form in instance.behind:
        host = instance.items[form.item]
        for r in form.riders:
            rider = instance.items[r]
            assert rider.unit >= 0
            assert instance.items[rider.unit].stance == "hang"
            assert rider.use <= 0.5
            for b, spot in enumerate(rider.spots):
                front = host.spots[b]
                if spot is not None and front is not None:
                    assert spot.v >= front.v + host.depth + max(host.back, rider.front) - 1e-6


def test_units_in_the_job_may_be_anywhere_and_the_figures_still_hold(
    seed_bank: Verdict, gathered: Gathered
) -> None:
    job = unit_edits.changed(seed_bank.job, "cold", u=412.5, w=37.0)
    worth = as_it_stands(gathered, job)
    assert worth is not None
    loads = judge(job).loads.scenario(gathered.scenario)
    before = as_it_stands(gathered, seed_bank.job)
    assert before is not None
    old = seed_bank.loads.scenario(gathered.scenario)
    assert worth.axle - before.axle == pytest.approx(
        getattr(loads, gathered.measure).value - getattr(old, gathered.measure).value, abs=1e-6
    )
