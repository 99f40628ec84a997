"""The brief and the offer: wishes and what they cost, both schools in figures, offers and what changes after them."""

import pytest
from tests.session.test_building import begun, does

from roomy_hull.making.cost import cost_sheet
from roomy_hull.making.cutlist import cut_of
from roomy_hull.making.works import works_of
from roomy_hull.planning.offer import OPEN
from roomy_hull.session.actions import briefing, editing, handing
from roomy_hull.session.pages.build.brief import BriefModel
from roomy_hull.session.pages.build.quote import OfferModel
from roomy_hull.session.session import Session
from roomy_hull.verdict.guided import ASKED, ask

__all__ = ["begun"]


def test_an_offer_is_kept_and_what_changes_after_it_is_shown(begun: Session) -> None:
    model = OfferModel(begun)
    assert model.lines() is None
    assert "nesting is at work" in model.words()
    begun.cutting.put(cut_of(begun.verdict.assembly), begun.verdict)
    lines = model.lines()
    assert lines is not None
    sheet = cost_sheet(
        works_of(begun.verdict.assembly), cut_of(begun.verdict.assembly), begun.shop.prices
    )
    assert lines[0].price == pytest.approx(
        sheet.whole.sheet + sheet.whole.rest + sheet.whole.bar, abs=0.01
    )
    hours = sum(x.amount for x in lines if x.unit == "h")
    build = begun.building.of(begun.verdict)
    want = sum(
        h * build.ops[k].crew
        for k, h in build.hours.items()
        if build.ops[k].kind not in ("cut", "bend", "weld") and build.ops[k].trade
    )
    assert hours == pytest.approx(want, abs=0.6)
    assert any(x.words.startswith(OPEN) and x.price == 0 for x in lines)
    assert handing.offer(begun, lines=lines)
    offer = begun.job.offers[-1]
    net = sum(x.price for x in lines if not x.option) * 1.2
    assert offer.net() == pytest.approx(net)
    assert offer.gross() == pytest.approx(net * 1.1)
    begun.cutting.put(cut_of(begun.verdict.assembly), begun.verdict)
    assert model.changed() == ()
    editing.set_size(begun, path="brief.wishes.battery.price", value=1000.0)
    begun.cutting.put(cut_of(begun.verdict.assembly), begun.verdict)
    assert {c.words.partition(":")[0] for c in model.changed()} == {"House battery"}
    # As an option it is out of the base.
    editing.set_size(begun, path="brief.wishes.battery.option", value="bigger battery")
    begun.cutting.put(cut_of(begun.verdict.assembly), begun.verdict)
    with_option = model.lines()
    assert with_option is not None
    assert {x.option for x in with_option} == {x.option for x in lines} | {"bigger battery"}
    assert handing.offer(begun, lines=with_option)
    assert {"winch", "hot water"} <= set(begun.job.offers[-1].options)
    does(begun, "build.agree", "smaller battery")
    assert begun.job.offers[-1].agreed == ""
    does(begun, "build.agree", "bigger battery")
    assert begun.job.offers[-1].taken == ("bigger battery",)
    assert not handing.offer(begun, lines=())


def test_wishes_are_ranked_and_cost_what_they_cost(session: Session) -> None:
    model = BriefModel(session)
    session.view.turn_to("Survey", "Brief", brief={"wish": "water"})
    before = model.keys()
    does(session, "brief.up")
    assert model.keys()[:2] == ["water", "fridge"]
    does(session, "brief.up")
    does(session, "brief.down")
    assert model.keys() == before
    winch = next(w for w in session.job.brief.wishes if w.id == "winch")
    assert model.short() == "front"
    # A winch ahead of the axle weighs more on it than it has.
    base = session.job.vehicle.wheelbase
    assert model.on_short(winch) == pytest.approx(winch.mass * (1 - winch.x / base))
    fridge = next(w for w in session.job.brief.wishes if w.id == "fridge")
    thing = session.verdict.assembly.thing("sample-fridge")
    assert thing is not None
    x = thing.envelope.centre()[0]
    assert model.on_short(fridge) == pytest.approx(model.came_to(fridge) * (1 - x / base))  # type: ignore[operator]
    assert "commonest regret" in model.words()
    does(session, "brief.wish", "A step for the roof")
    assert session.look.brief.wish == session.job.brief.wishes[-1].id
    does(session, "brief.drop")
    assert "A step for the roof" not in {w.name for w in session.job.brief.wishes}


@pytest.mark.parametrize("key", list(ASKED))
def test_every_question_is_computed_on_this_job(session: Session, key: str) -> None:
    one = ask(session.verdict, key)
    assert one is not None
    assert len(one.ways) >= 2
    assert all(len(f.values) == len(one.ways) for f in one.facts)
    assert one.note.endswith(".")
    session.view.set(brief={"question": key})
    model = BriefModel(session)
    heads, rows = model.facts()
    assert len(rows) == len(one.facts)
    assert all(len(r) == len(heads) for r in rows)


def test_a_way_is_taken_with_a_click_and_given_back_with_another(session: Session) -> None:
    briefing.choose_way(session, question="cooking", way="gas")  # it was chosen: that takes it back
    assert "cooking" not in {c.question for c in session.job.brief.choices}
    briefing.choose_way(session, question="cooking", way="induction")
    briefing.choose_way(session, question="cooking", way="gas")
    assert [c.way for c in session.job.brief.choices if c.question == "cooking"] == ["gas"]
    session.view.set(brief={"question": "cooking"})
    assert BriefModel(session).taken() == "gas"


def test_the_spare_wheel_ahead_and_behind_are_what_the_job_would_weigh(session: Session) -> None:
    one = ask(session.verdict, "spare")
    assert one is not None
    front, rear = (next(f for f in one.facts if f.words == w) for w in ("Front axle", "Rear axle"))
    spare = next(c for c in session.job.carried if c.kind == "spare wheel")
    tray, base = session.job.body.tray, session.job.vehicle.wheelbase
    apart = tray.gap + tray.length  # the same 150 mm behind the cab and behind the tail
    share = spare.mass * apart / base
    assert rear.values[1] - rear.values[0] == pytest.approx(share, rel=1e-6)
    assert front.values[0] - front.values[1] == pytest.approx(share, rel=1e-6)
