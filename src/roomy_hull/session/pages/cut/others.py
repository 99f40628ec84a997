"""The pages Joints, Gaps, Cost and Release: their tables, words and pictures."""

from roomy_hull.core.errors import UserError
from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import exact, show
from roomy_hull.drawing.scenes.costs import waterfall
from roomy_hull.drawing.scenes.folded import frame_of
from roomy_hull.formats.book_parts import drawn_apart, joint_rows, numbered
from roomy_hull.job.releases import STATES, Release, ReleasedPart
from roomy_hull.kinds.placed import Placed
from roomy_hull.making.cost import CostSheet, cost_sheet
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.gap import Gap
from roomy_hull.making.gaps import worth
from roomy_hull.making.release import Change, as_released, changes, piece_prices, stale
from roomy_hull.making.ways import both_ways
from roomy_hull.making.works import fasteners, questions, welded
from roomy_hull.planning.as_built import owners
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.cut.words import chosen_work, works
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict

JOINT_HEADS = ("Of", "To", "How", "Length", "With")
GAP_HEADS = ("Gap", "As drawn", "One sigma", "Worst case", "Binds", "Mostly by")
COST_HEADS = (
    "Of",
    "Sheet",
    "Rest of sheets",
    "Bar",
    "Bought",
    "Cutting",
    "Bending",
    "Welding",
    "Fasteners",
    "Labour",
    "All",
)
SEVERITY = {"scrap": "stop", "built": "note"}
"""How much what became of a part weighs; all else is a look."""
RELEASE_HEADS = ("Part", "Pcs", "Of", "State", "What became of it", "Cost")


class JointsModel(PageModel):
    """Something put together: drawn apart with its numbers, and its joints in words."""

    def picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """What is chosen, drawn apart, every part with its number."""
        work = chosen_work(self._session)
        if work is None:
            return "Nothing is made yet", None
        scene = drawn_apart(work, numbered(works(self._session)))
        return f"{work.title}, drawn apart", (scene, frame_of(scene)) if scene else None

    def words(self) -> str:
        """How much is welded and fastened, of what is chosen and in all; what nothing holds."""
        work, made = chosen_work(self._session), works(self._session)
        if work is None:
            return "Nothing is made yet."
        own = ", ".join(f"{n} × {word}" for word, n in fasteners(work.joints).items())
        said = (
            f"{work.title}: {len(work.joints)} joints, {welded(work.joints) / 1000:.2f} m of weld"
        )
        said += f", {own}. " if own else ". "
        whole = ", ".join(f"{n} × {word}" for word, n in fasteners(made.joints).items())
        said += f"The whole job: {welded(made.joints) / 1000:.1f} m of weld, {whole}."
        asked = questions(made)
        if asked:
            more = f", and {len(asked) - 2} more" if len(asked) > 2 else ""
            said += f" To be looked at: {'; '.join(asked[:2])}{more}."
        return said

    def titles(self) -> list[str]:
        """Everything that is made, to choose from."""
        return [
            w.title
            for w in works(self._session).works
            if any(not isinstance(p, Hardware) for p in w.parts)
        ]

    def owner(self, title: str) -> str:
        """The id to be selected for a title; empty for the body."""
        work = next((w for w in works(self._session).works if w.title == title), None)
        return work.owner.id if work is not None and work.owner.is_thing else ""

    def first(self, title: str) -> int:
        """The number of the first part of a title."""
        number = 1
        for work in works(self._session).works:
            if work.title == title:
                return number
            number += len(work.parts)
        return 0

    def chosen(self) -> str:
        """The title of what is chosen."""
        work = chosen_work(self._session)
        return work.title if work is not None else ""

    def cells(self) -> list[list[Cell]]:
        """Its joints."""
        work = chosen_work(self._session)
        if work is None:
            return []
        numbers = numbered(works(self._session))
        return [
            [(cell, "") for cell in row]
            for row in joint_rows(work, numbers, self._session.look.system)
        ]


class GapsModel(PageModel):
    """Every narrow gap with its doubt, and which measure is worth taking again."""

    def gaps(self) -> tuple[Gap, ...]:
        """The likeliest to bind first."""
        return self._session.known.gaps

    def cells(self) -> list[list[Cell]]:
        """A row for each gap."""
        system = self._session.look.system
        rows: list[list[Cell]] = []
        for g in self.gaps():
            c = g.chain
            most = max(c.links, key=lambda x: abs(x.sense) * x.sigma)
            severity = "look" if g.likely else ""
            rows.append([
                (g.title, ""), (exact(c.nominal, system), ""), (f"± {exact(c.sigma, system)}", ""),
                (exact(c.worst, system), ""),
                (g.binds(), severity), (f"{most.name} (± {exact(most.sigma, system)})", ""),
            ])  # fmt: skip
        return rows

    def keys(self) -> list[str]:
        """What each row selects."""
        return [g.refs[0].id if g.refs and g.refs[0].is_thing else "" for g in self.gaps()]

    def words(self) -> str:
        """What to measure again before anything is cut."""
        rows = worth(self.gaps())
        if not self.gaps() and "gaps" in self._session.known.held:
            return "The gaps are being worked out."
        if not rows:
            return (
                "No measure of the vehicle would make a gap safer: what is left is the shop's own cutting, bending "
                "and welding."
            )
        system = self._session.look.system
        said = "; ".join(
            f"{w.words} (± {exact(w.sigma, system, unit=True)}) would keep {w.saves:.0%} of a gap from binding"
            for w in rows[:4]
        )
        return f"Worth measuring again before the release: {said}."


class CostModel:
    """What the job costs to make, as a waterfall and by what it is for."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[Verdict, CutList, CostSheet] | None = None

    def sheet(self) -> CostSheet | None:
        """The costs, remembered while job and cut are the same; nothing while the nesting is still at work."""
        session, cut = self._session, self._session.cutting.cut
        if cut is None:
            return None
        if self._of is None or self._of[0] is not session.known or self._of[1] is not cut:
            found = cost_sheet(works(session), cut, session.shop.prices)
            self._of = session.known, cut, found
        return self._of[2]

    def picture(self, ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """The waterfall."""
        found = self.sheet()
        if found is None:
            return "The nesting is at work", None
        return "What it costs to make, in the shop's own money", waterfall(found.whole, ratio)

    def cells(self) -> list[list[Cell]]:
        """A row for each owner, the dearest first, then the whole."""
        found = self.sheet()
        if found is None:
            return []
        rows = [(s.title, s.cost, "") for s in sorted(found.shares, key=lambda s: -s.cost.total)]
        rows.append(("The whole", found.whole, "bold"))
        return [
            [(title, bold), *((f"{v:,.0f}" if v else "", bold) for v in (
                c.sheet, c.rest, c.bar, c.hardware, c.cutting, c.bending, c.welding, c.fasteners, c.labour)),
             (f"{c.total:,.0f}", "bold")]
            for title, c, bold in rows
        ]  # fmt: skip

    def ways(self) -> str:
        """The selected unit built in both ways: mass, money and hours beside one another."""
        session = self._session
        thing = (
            session.known.assembly.thing(session.selection.key) if session.selection.key else None
        )
        if thing is None or thing.place is None or not isinstance(thing.value, Placed):
            return ""
        try:
            rows = both_ways(thing.value, session.shop, thing.place.bay.pitch, thing.place.bay.side)
        except UserError as trouble:
            return f"{thing.name} the other way: {trouble} "
        if not rows:
            return ""
        system = session.look.system
        told = "; ".join(
            f"{b.words} {show(b.kg, 'mass', system)}, {b.money:,.0f}, {b.hours:.1f} h" for b in rows
        )
        return f"{thing.name}: {told}. "

    def words(self) -> str:
        """What it is counted from."""
        found = self.sheet()
        if found is None:
            return "The nesting is at work…"
        return self.ways() + (
            f"{found.metres:.0f} m cut with {found.pierces:,} pierces, {found.bends} bends, {found.welded:.1f} m of weld, "
            f"{found.rivets} rivets, {found.hours:.1f} h of handling and fitting. Offcuts kept are worth {found.kept:,.0f}. "
            "Prices are the shop's; the shipped ones are starting values."
        )


class ReleaseModel:
    """The revisions, what of the last one is stale, and how far each part has come."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[tuple[Verdict, Release | None], tuple[Change, ...]] | None = None

    def last(self) -> Release | None:
        """The last release."""
        releases = self._session.job.releases
        return releases[-1] if releases else None

    def against(self) -> Release | None:
        """The one with which is compared: the chosen one, else the last."""
        look = self._session.look
        return next(
            (r for r in self._session.job.releases if r.revision == look.against), self.last()
        )

    def changes(self) -> tuple[Change, ...]:
        """What is stale, remembered while the job is the same: of the last release now, or between an older one and it."""
        key = (self._session.known, self.against())
        if self._of is None or any(a is not b for a, b in zip(self._of[0], key, strict=True)):
            self._of = key, self._changes()
        return self._of[1]

    def _changes(self) -> tuple[Change, ...]:
        last, old, made = self.last(), self.against(), works(self._session)
        if last is None or old is None:
            return ()
        if old is last:
            return stale(last, made, self._session.shop.prices, owners(self._session.job))
        return changes(old.parts, last.parts, piece_prices(made, self._session.shop.prices))

    def _rows(self) -> tuple[list[ReleasedPart], dict[str, Change]]:
        found = {c.key: c for c in self.changes()}
        old = self.against()
        parts = list(old.parts) if old is not None else []
        known = {p.key for p in parts}
        last = self.last()
        now = (
            last.parts
            if last is not None and old is not last
            else as_released(works(self._session))
        )
        parts += [p for p in now if p.key in found and p.key not in known]
        order = {p.key: n for n, p in enumerate(parts)}
        return sorted(parts, key=lambda p: (p.key not in found, order[p.key])), found

    def cells(self) -> list[list[Cell]]:
        """Every released part, what is stale first."""
        parts, found = self._rows()
        rows: list[list[Cell]] = []
        for p in parts:
            c = found.get(p.key)
            severity = "" if c is None else SEVERITY.get(c.verdict, "look")
            rows.append([
                (p.name, severity), (str(p.count), ""), (p.stock or "bought", ""),
                (p.state if p.sort != "bought" else "", ""), ("" if c is None else c.words, severity),
                ("" if c is None or not c.cost else f"{c.cost:,.0f}", ""),
            ])  # fmt: skip
        return rows

    def keys(self) -> list[str]:
        """The key of each row's part."""
        return [p.key for p in self._rows()[0]]

    def words(self) -> str:
        """Which revision stands, what has changed since, how far the parts have come."""
        last, old = self.last(), self.against()
        stops = self._session.known.count("stop")
        if last is None or old is None:
            wait = f" {stops} stop findings are open: they come first." if stops else ""
            asked = questions(works(self._session))
            wait += f" To be looked at: {'; '.join(asked[:3])}." if asked else ""
            return f"Nothing is released yet. A release freezes every part with date and initials.{wait}"
        rows = self.changes()
        cut = [p for p in last.parts if p.sort != "bought"]
        come = ", ".join(
            f"{sum(p.state == s for p in cut)} {s}"
            for s in STATES
            if any(p.state == s for p in cut)
        )
        said = f"Revision {last.revision} of {last.day} by {last.by}: {come}. "
        if old is not last:
            return (
                said + f"Between {old.revision} and {last.revision} {len(rows)} parts have changed."
            )
        if not rows:
            return said + "Nothing has changed since."
        money = sum(c.cost for c in rows)
        scrap = sum(c.verdict == "scrap" for c in rows)
        more = f"{scrap} of them to be scrapped, about {money:,.0f} of new parts."
        return f"{said}{len(rows)} parts have changed since, {more}"
