"""Wishes about a layout: each edit a new job, what contradicts itself refused."""

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import EditError
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.arranging import ApartWish, Arranging, BayWish, NearWish, Weights
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.edits import units as unit_edits
from roomy_hull.kit import catalogue

JOB = demo_job("tarn")
DRAWER = catalogue.entry("drawer").make


def test_what_is_wanted_gets_an_id_of_its_own_and_no_place() -> None:
    job = edits.wanted(edits.wanted(edits.wanted(JOB, DRAWER), DRAWER), DRAWER.but(id="cold"))
    ids = [u.id for u in job.arrange.wanted]
    assert len(set(ids) | {u.id for u in JOB.units}) == 3 + len(JOB.units)
    assert {(u.bay, u.u, u.v, u.w) for u in job.arrange.wanted} == {("-", 0.0, 0.0, 0.0)}
    assert job.units is JOB.units


def test_what_is_wanted_no_more_takes_its_wishes_along() -> None:
    job = edits.wanted(JOB, DRAWER)
    key = job.arrange.wanted[0].id
    job = edits.in_bays(job, key, ["B"])
    job = edits.near(edits.apart(job, key, "cold", 200.0), key, "water", on=True)
    done = edits.unwanted(job, key)
    assert done.arrange == JOB.arrange
    assert edits.unwanted(JOB, "ghost") is JOB


def test_pinning_is_of_units_that_are_there() -> None:
    job = edits.pinned(JOB, ["cold", "ghost", "cold"], on=True)
    assert job.arrange.pinned == ("cold",) or job.arrange.pinned == ("cold", "cold")
    assert edits.pinned(job, ["cold"], on=False).arrange.pinned == ()
    assert edits.pinned(JOB, ["ghost"], on=True) is JOB


def test_bays_that_are_not_there_are_refused() -> None:
    assert edits.in_bays(JOB, "cold", ["B"]).arrange.bays == (BayWish(thing="cold", bays=("B",)),)
    assert edits.in_bays(edits.in_bays(JOB, "cold", ["B"]), "cold", []).arrange.bays == ()
    with pytest.raises(EditError, match="there is no bay 'Q'"):
        edits.in_bays(JOB, "cold", ["Q"])


def test_near_and_apart_take_one_another_s_place() -> None:
    job = edits.apart(JOB, "cold", "water", 250.0)
    assert job.arrange.apart == (ApartWish(a="cold", b="water", gap=250.0),)
    job = edits.near(job, "water", "cold", on=True)
    assert (job.arrange.apart, job.arrange.near) == ((), (NearWish(a="water", b="cold"),))
    job = edits.apart(job, "cold", "water", 0.0)
    assert job.arrange == JOB.arrange


def test_weights_set_by_hand_keep_the_others() -> None:
    job = edits.weighed(
        JOB,
        {"axle": 2.0, "balance": 1.0, "low": 1.0, "reach": 2.0, "runs": 1.0, "room": 1.0},
        room=3.5,
    )
    assert job.arrange.weights == Weights(axle=2.0, reach=2.0, room=3.5)
    assert job.arrange.own_weights
    assert edits.follow_findings(job).arrange == JOB.arrange
    with pytest.raises(EditError, match="4"):
        edits.weighed(JOB, {}, axle=4.5)


def test_axle_and_gas() -> None:
    assert edits.axle(JOB, "front").arrange.axle == "front"
    assert edits.gas(JOB, on=False).arrange.gas is False
    with pytest.raises(EditError):
        edits.axle(JOB, "middle")


def test_a_layout_is_taken_as_one_step_with_the_others_beside_it() -> None:
    job = edits.wanted(JOB, DRAWER)
    new = unit_edits.added(JOB, DRAWER.but(id=job.arrange.wanted[0].id, bay="B"))
    moved = unit_edits.changed(new, "cold", u=100.0)
    done = edits.taken(job, [new, moved], 0)
    assert done.units == new.units
    assert done.arrange.wanted == ()
    assert done.layout == "Arranged"
    assert [v.name for v in done.variants] == [JOB.layout, "Arranged otherwise"]
    assert done.variants[0].units == JOB.units
    assert done.variants[1].units == moved.units
    again = edits.taken(done, [moved], 0)
    assert again.layout == "Arranged 2"
    with pytest.raises(EditError, match="no such layout"):
        edits.taken(job, [new], 1)


def test_a_job_with_wishes_is_the_same_when_read_again() -> None:
    job = edits.wanted(edits.pinned(JOB, ["cold"], on=True), DRAWER)
    job = edits.apart(edits.in_bays(job, "water", ["B"]), "cold", "water", 120.0)
    assert jobfile.loads(jobfile.dumps(job), "a") == job
    assert b"arrange" in jobfile.dumps(job)


def test_a_job_from_before_has_no_wishes() -> None:
    raw = msgspec.json.decode(jobfile.dumps(JOB))
    raw.pop("arrange", None)
    assert jobfile.loads(msgspec.json.encode(raw), "a").arrange == Arranging()


@pytest.mark.parametrize("wish", [
    {"near": [{"a": "x", "b": "x"}]}, {"apart": [{"a": "x", "b": "x"}]},
    {"bays": [{"thing": "x", "bays": ["B"]}, {"thing": "x", "bays": ["B"]}]},
    {"weights": {"axle": -1.0}}, {"bays": [{"thing": "x", "bays": []}]},
])  # fmt: skip
def test_wishes_that_mean_nothing_are_refused(wish: dict[str, object]) -> None:
    with pytest.raises((ValueError, msgspec.ValidationError)):
        msgspec.convert(wish, Arranging)


@given(st.lists(st.sampled_from(["want", "drop", "pin", "unpin", "apart", "near", "bays", "axle", "gas"]), max_size=12),
       st.randoms(use_true_random=False))  # fmt: skip
def test_any_edits_leave_a_job_that_can_be_read(steps: list[str], chance: object) -> None:
    job = JOB
    for step in steps:
        things = [*(u.id for u in job.units), *(u.id for u in job.arrange.wanted)]
        a, b = chance.sample(things, 2)  # type: ignore[attr-defined]
        job = {  # type: ignore[no-untyped-call]
            "want": lambda j, _a, _b: edits.wanted(j, DRAWER),
            "drop": lambda j, a, _b: edits.unwanted(j, a),
            "pin": lambda j, a, b: edits.pinned(j, [a, b], on=True),
            "unpin": lambda j, a, _b: edits.pinned(j, [a], on=False),
            "apart": lambda j, a, b: edits.apart(j, a, b, 100.0),
            "near": lambda j, a, b: edits.near(j, a, b, on=True),
            "bays": lambda j, a, _b: edits.in_bays(j, a, ["B"]),
            "axle": lambda j, _a, _b: edits.axle(j, "front"),
            "gas": lambda j, _a, _b: edits.gas(j, on=not j.arrange.gas),
        }[step](job, a, b)
    assert jobfile.loads(jobfile.dumps(job), "a") == job
    pairs = [{w.a, w.b} for w in (*job.arrange.apart, *job.arrange.near)]  # type: ignore[attr-defined]
    assert all(pairs.count(p) == 1 for p in pairs)
