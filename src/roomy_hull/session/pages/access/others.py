"""The pages Lifting, Living, and Off and on."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.session.pages.access.words import index_words, names_of, party
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.effort import Effort
from roomy_hull.studies.access.living import HAIR

LIFT_HEADS = ("What", "Who", "Mass", "Hands out, cm", "Hands high, cm", "Limit", "Index")
PARTY_HEADS = ("Who", "What", "Figures")
LIVING_HEADS = ("What", "For", "Has", "Wants", "")


class LiftingModel(PageModel):
    """Every lift of every person, the worst first."""

    def keys(self) -> list[str]:
        """What each row chooses: its good, or its thing."""
        goods = {g.id for g in self._session.job.goods}
        return [
            f"goods.{e.what}" if e.what in goods else f"space.{e.what}."
            for e in self._worst_first()
        ]

    def _worst_first(self) -> list[Effort]:
        return sorted(in_setup(self._session).access.efforts, key=lambda e: -e.index)

    def cells(self) -> list[list[Cell]]:
        """Every lift in a row."""
        system = self._session.look.system
        names = names_of(self._session)
        rows: list[list[Cell]] = []
        for e in self._worst_first():
            weight = "look" if e.index > 3 else "note" if e.index > 1 else ""
            out = f"{e.out:.0f}" if e.out < 1e6 else "no place"
            rows.append([
                (e.name, ""), (names.get(e.person, e.person), ""), (show(e.kg, "mass", system), ""), (out, ""),
                (f"{e.height:.0f}", ""), (show(e.most, "mass", system), ""), (index_words(e.index), weight),
            ])  # fmt: skip
        return rows


class LivingModel(PageModel):
    """Worktops, heads, beds, dogs, standing level; the party."""

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


class OffOnModel(PageModel):
    """The canopy off and on."""

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the canopy on its legs."""
        off = self._session.known.access.off_on
        if off is None:
            return "This body has no canopy that comes off.", None
        return "On its legs: from behind, and from above with what stands on each", scene.on_legs(
            self._session.known.assembly, off
        )

    def steps(self) -> list[str]:
        """What is done, in order."""
        off = self._session.known.access.off_on
        return [f"{n + 1}. {w}" for n, w in enumerate(off.steps)] if off is not None else []

    def words(self) -> str:
        """What it weighs, and what its legs have to do."""
        off, system = self._session.known.access.off_on, self._session.look.system
        if off is None:
            return ""
        return (
            f"{show(off.empty, 'mass', system)} empty, {show(off.loaded, 'mass', system)} at its fullest. Legs of at least "
            f"{show(off.least_leg, 'length', system)} to their sockets. It tips at {off.tips:.0f}°. "
            f"{show(off.beside, 'length', system)} are left on each side to drive out."
        )
