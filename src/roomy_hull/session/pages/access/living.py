"""The page Living: worktops, heads, beds, dogs, standing level; the party."""

import functools
from collections.abc import Sequence

from roomy_hull.core.card import Field
from roomy_hull.core.units import show, unit_word
from roomy_hull.job.edits import goods as edits
from roomy_hull.job.goods import Named
from roomy_hull.session.card_fields import access_fields
from roomy_hull.session.pages.access.words import names_of, party
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.pages.worked import Worked
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.living import HAIR
from roomy_hull.tables.column import Cell, Column

GROUPS = {"people": "person", "dogs": "dog", "berths": "berth"}
SIZES = {
    "people": {"long": "stature"},
    "dogs": {"long": "a", "wide": "c", "high": "d"},
    "berths": {"long": "length", "wide": "width", "high": "height"},
}
"""Which field of a person, a dog or a berth stands in which column."""


class PartyModel(Worked[tuple[str, Named]]):
    """The party: people, dogs and berths, changed where they stand."""

    def entries(self) -> list[tuple[str, Named]]:
        """Everybody, by the group they are of."""
        p = self._session.job.party
        return [(group, one) for group in GROUPS for one in getattr(p, group)]

    def key(self, entry: tuple[str, Named]) -> str:
        """As `access_fields` takes it."""
        return f"{entry[0]}.{entry[1].id}"

    def keys(self) -> list[str]:
        """What each row chooses."""
        return [self.key(e) for e in self.entries()]

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of somebody."""
        return access_fields(self._session.job, key)

    def field(self, key: str, name: str) -> Field | None:
        """One of them, by its column."""
        return super().field(key, SIZES[key.partition(".")[0]].get(name, name))

    def columns(self) -> tuple[Column[tuple[str, Named]], ...]:
        """What is told of somebody."""
        chosen, word = (
            self._session.look.access.chosen,
            unit_word("length", self._session.look.system),
        )

        def who(entry: tuple[str, Named]) -> Cell:
            return (entry[1].called, "bold" if self.key(entry) == chosen else "")

        return (
            self.column("Who", "name", who, needed=True),
            Column("What", lambda e: (GROUPS[e[0]], "")),
            self.column(f"Tall or long, {word}", "long"),
            self.column(f"Wide, {word}", "wide"),
            self.column(f"High, {word}", "high"),
        )

    def new(self, name: str) -> str:
        """Add somebody by their name."""
        session = self._session
        if not session.attempt(f"add {name}", lambda: edits.with_person(session.job)):
            return ""
        one = session.job.party.people[-1]
        self._change(f"people.{one.id}", "name", name)
        return f"people.{one.id}"

    def delete(self, some: Sequence[tuple[str, Named]]) -> None:
        """Take somebody out of the party."""
        for entry in some:
            make = functools.partial(edits.without_of_party, self._session.job, self.key(entry))
            self._session.attempt("take out of the party", make)


class LivingModel(PageModel):
    """Worktops, heads, beds, dogs, standing level against the party."""

    heads = ("What", "For", "Has", "Wants", "")

    def cells(self) -> list[list[Cell]]:
        """Everything against what it wants."""
        session = self._session
        life, system = in_setup(session).access.living, session.look.system
        names = names_of(session)
        tallest = max(p.stature for p in party(session))

        def size(mm: float) -> str:
            return show(mm, "length", system)

        rows: list[list[Cell]] = []
        for w in life.worktops:
            words = "fine" if w.fine else "too high" if w.below < 0 else "too low"
            rows.append([(f"Worktop of {w.name}", ""), (names.get(w.person, w.person), ""), (size(w.height), ""),
                         (size(w.height + w.below - 75), ""), (words, "" if w.fine else "note")])  # fmt: skip
        for e in life.edges:
            low = e.height < tallest + HAIR
            rows.append([(f"Under {e.name}", ""), ("the tallest", ""), (size(e.height), ""), (size(tallest + HAIR), ""),
                         ("mind the head" if low else "fine", "note" if low else "")])  # fmt: skip
        for b in life.beds:
            bad = any(b.short)
            has, wants = (" × ".join(size(v) for v in sizes) for sizes in (b.has, b.wants))
            verdict_ = ("too small", "look") if bad else ("fine", "")
            rows.append([(b.name, ""), ("who sleeps there", ""), (has, ""), (wants, ""), verdict_])
        for k in life.kennels:
            bad = any(h < w for h, w in zip(k.has, k.wants, strict=True))
            has = " × ".join(size(v) for v in k.has) if k.place else "no place yet"
            rows.append([(k.name, ""), ("dog", ""), (has, ""), (" × ".join(size(v) for v in k.wants), ""),
                         ("too small" if bad else "fine", "look" if bad else "")])  # fmt: skip
        return rows

    def words(self) -> str:
        """How it stands in camp."""
        t, system = in_setup(self._session).access.living.tilt, self._session.look.system
        if t is None:
            return ""
        wheels = ("front left", "front right", "rear left", "rear right")
        blocks = [
            f"{show(v, 'length', system)} under the {w}"
            for v, w in zip(t.wheels, wheels, strict=True)
            if v > 5
        ]
        told = f"In camp its nose stands {t.ahead:+.1f}° and its left side {t.left:+.1f}° up."
        return told + (f" Level with {', '.join(blocks)}." if blocks else " It stands level.")
