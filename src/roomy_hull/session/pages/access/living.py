"""The page Living: worktops, heads, beds, dogs, standing level; the party."""

from roomy_hull.core.units import show
from roomy_hull.session.pages.access.words import names_of, party
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.living import HAIR
from roomy_hull.tables.column import Cell

PARTY_HEADS = ("Who", "What", "Figures")


class LivingModel(PageModel):
    """Worktops, heads, beds, dogs, standing level; the party."""

    heads = ("What", "For", "Has", "Wants", "")

    def party_keys(self) -> list[str]:
        """What each row of the party chooses."""
        p = self._session.job.party
        return [
            *(f"people.{x.id}" for x in p.people),
            *(f"dogs.{x.id}" for x in p.dogs),
            *(f"berths.{x.id}" for x in p.berths),
        ]

    def party_cells(self) -> list[list[Cell]]:
        """Everybody, dogs and berths."""
        p, system, chosen = (
            self._session.job.party,
            self._session.look.system,
            self._session.look.access,
        )

        def size(mm: float) -> str:
            return show(mm, "length", system)

        rows: list[list[Cell]] = [
            [(x.called, ""), ("person", ""), (size(x.stature), "")] for x in p.people
        ]
        rows += [
            [(x.called, ""), ("dog", ""), (f"{size(x.a)}, {size(x.d)} high", "")] for x in p.dogs
        ]
        rows += [
            [(x.called, ""), ("berth", ""), (f"{size(x.length)} × {size(x.width)}", "")]
            for x in p.berths
        ]
        for row, key in zip(rows, self.party_keys(), strict=True):
            if key == chosen:
                row[0] = (row[0][0], "bold")
        return rows

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
