"""What all pages of Access share: who is asked, what is chosen, what the card says."""

from roomy_hull.core.wording import counted
from roomy_hull.drawing.view import Station
from roomy_hull.job.goods import CAB, Good, Person, people
from roomy_hull.session.session import Session
from roomy_hull.session.view_state import ViewState
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.moves import Moves, words
from roomy_hull.studies.access.reach import Seen
from roomy_hull.studies.access.spaces import Space
from roomy_hull.verdict.verdict import Verdict

CAUTION = (
    "Planning figures for people of usual build. Lift with two what is a strain; never work under a canopy on its legs or a "
    "vehicle on a jack."
)
SIDES: tuple[Station, ...] = ("left", "right", "rear")


def party(session: Session) -> tuple[Person, ...]:
    """Who is asked."""
    return people(session.job.party)


def names_of(session: Session) -> dict[str, str]:
    """What everybody who is asked is called, by id."""
    return {p.id: p.called for p in party(session)}


def asked(session: Session) -> Person:
    """Who is looked at: the chosen one, else the first."""
    rows = party(session)
    return next((p for p in rows if p.id == session.look.access.person), rows[0])


def chosen_good(verdict: Verdict, look: ViewState) -> Good | None:
    """The chosen good; none where something else is."""
    key = look.access.chosen.removeprefix("goods.")
    if key == look.access.chosen:
        return None
    return next((g for g in verdict.job.goods if g.id == key), None)


def chosen_space(verdict: Verdict, look: ViewState, selected: str = "") -> int:
    """Which space is chosen: by itself, by a good in it, or by the selected unit; -1 for none."""
    found = verdict.access
    good = chosen_good(verdict, look)
    if good is not None:
        n = next((n for n, g in enumerate(verdict.job.goods) if g.id == good.id), -1)
        return found.stowed[n].space if 0 <= n < len(found.stowed) else -1
    if look.access.chosen.startswith("space."):
        key = look.access.chosen.removeprefix("space.")
        return next(
            (n for n, s in enumerate(found.spaces) if space_key(s) == look.access.chosen and key),
            -1,
        )
    return next((n for n, s in enumerate(found.spaces) if selected and s.owner == selected), -1)


def space_key(space: Space) -> str:
    """What choosing a space chooses."""
    return f"space.{space.owner}.{space.part}"


def seen_by(row: tuple[Seen, ...], person: str) -> Seen | None:
    """What one of the party reaches and sees."""
    return next((s for s in row if s.person == person), row[0] if row else None)


def moves_words(verdict: Verdict, way: Moves) -> list[str]:
    """Moves as sentences."""
    return [words(verdict.assembly, a) for a in way.actions]


def way_words(way: Moves) -> str:
    """How many actions, and how far one walks for them."""
    if not way.possible:
        return "No way without taking things apart."
    return f"{way.said.capitalize()}, {way.metres:.1f} m walked."


def where_words(verdict: Verdict, good: Good, space: int) -> str:
    """Where a good is."""
    if space >= 0:
        one = verdict.access.spaces[space]
        return one.name
    if good.place == CAB:
        return "in the cab"
    there = verdict.job.thing(good.place)
    if there is not None:
        return there.name
    return "not stowed yet" if not good.place else f"lost: there is no '{good.place}'"


def reach_words(seen: Seen) -> str:
    """How somebody reaches something."""
    if seen.how == "not at all":
        return (
            f"not at all, {seen.short:.0f} mm short"
            if seen.short > 0
            else "not at all: something is in the way"
        )
    if seen.how in ("in reach", "crouching"):
        return seen.how
    return f"{seen.how}, {seen.short:.0f} mm short standing" if seen.short > 0 else f"{seen.how}"


def access_words(session: Session) -> tuple[str, str, str, str, str]:
    """What the card says of what is chosen: title, kind, figure, sum, hint."""
    verdict, look = in_setup(session), session.look
    good = chosen_good(verdict, look)
    found = verdict.access
    if good is not None:
        n = next(n for n, g in enumerate(verdict.job.goods) if g.id == good.id)
        if n >= len(found.stowed):
            return (good.name, "", f"{good.kg:g} kg", "", CAUTION)
        row = found.stowed[n]
        rows = [where_words(verdict, good, row.space) + "."]
        if row.space >= 0:
            rows = [f"{found.spaces[row.space].name}, {found.spaces[row.space].side}."]
        if row.moves is not None:
            rows.append(way_words(row.moves))
        if row.space >= 0:
            names = names_of(session)
            rows += [
                f"{names.get(s.person, s.person)}: {reach_words(s)}." for s in found.seen[row.space]
            ]
        return (
            good.name,
            f"wanted {good.use}" if good.use == "now" else f"wanted: {good.use}",
            f"{good.kg:g} kg",
            " ".join(rows),
            CAUTION,
        )
    group, _, key = look.access.chosen.partition(".")
    if group == "people":
        person = next((p for p in verdict.job.party.people if p.id == key), None)
        if person is not None:
            return (
                person.called,
                "of the party",
                f"{person.stature / 10:.0f} cm",
                "",
                CAUTION,
            )
    if group in ("dogs", "berths"):
        rows_of = getattr(verdict.job.party, group)
        one = next((x for x in rows_of if x.id == key), None)
        if one is not None:
            return (one.called, "dog" if group == "dogs" else "berth", "", "", CAUTION)
    n = chosen_space(verdict, look, session.selection.key)
    if n >= 0:
        space, way = found.spaces[n], found.moves[n]
        names = names_of(session)
        rows = [way_words(way)]
        rows += [
            f"{names.get(s.person, s.person)}: {reach_words(s)}; sees {100 * s.seen:.0f} %."
            for s in found.seen[n]
        ]
        return (space.name, f"taken from the {space.side}", "", " ".join(rows), CAUTION)
    goods = verdict.job.goods
    words_ = (
        f"{counted(len(goods), 'item')}, {sum(g.kg for g in goods):.0f} kg."
        if goods
        else "No gear is listed yet: add items, or paste a list."
    )
    return ("Access", "who gets at what", "", words_, CAUTION)
