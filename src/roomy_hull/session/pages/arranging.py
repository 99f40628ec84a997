"""The page Arrange: what has to go in, what counts, the best so far and how good it is, and the layouts to choose from."""

from roomy_hull.arrange.instance import PARTS
from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.offers import Offer
from roomy_hull.arrange.weighing import weights_of
from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.units import show
from roomy_hull.job.edits.setups import bays_off, resolved, setup_of, worn
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.session.actions import arranging
from roomy_hull.session.actions.arranging import offers
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.improve import short_of

CAUTION = (
    "Arranging weighs planning figures. Every layout offered has passed the same checks as one made by hand; loads, gas, "
    "mains and batteries are for licensed people and the local rules to decide."
)
HEADS = ("To go in", "Is in", "May go", "Stays")
OFFER_HEADS = ("Layout", "Points", "Axle", "Sides", "High", "Reach", "Runs", "Free", "Findings")
TITLES: dict[str, str] = {
    "axle": "Short axle", "balance": "Balance", "low": "Heavy low", "reach": "In reach", "runs": "Short runs",
    "room": "Wall left free",
}  # fmt: skip
TIPS: dict[str, str] = {
    "axle": "Kilograms on the axle that is short, against everything at its best end",
    "balance": "Kilograms between the right side and the left, the vehicle with it",
    "low": "Kilogram-metres above the lowest bay's floor",
    "reach": "How far out of hand, in 100 mm, weighed by how soon a thing has to be at hand",
    "runs": "Metres of cable and hose, weighed by what they carry",
    "room": "The widest stretch of wall with nothing on it",
}
WEIGHTS: tuple[tuple[float, str], ...] = (
    (0.0, "not at all"), (0.5, "a little"), (1.0, "usual"), (2.0, "twice"), (3.0, "three times"), (4.0, "above all"),
)  # fmt: skip
SECONDS: tuple[tuple[float, str], ...] = ((10.0, "10 s"), (30.0, "30 s"), (120.0, "2 min"))
PITCHES: tuple[tuple[float, str], ...] = ((50.0, "in 50 mm steps"), (25.0, "in 25 mm steps"))
SORTS: dict[str, str] = {
    "best": "Best of stacks", "clear": "No finding", "other": "Otherwise", "improved": "Across stacks",
    "rough": "First found", "as it is": "As it is",
}  # fmt: skip


class WantedModel(PageModel):
    """What has to go in, and what counts."""

    def things(self) -> list[str]:
        """Ids of what has to go in, wanted things first, in the order of the table."""
        job = self._session.job
        return [*(u.id for u in job.arrange.wanted), *(u.id for u in job.units)]

    def rows(self) -> list[list[Cell]]:
        """A row a thing: its name, where it is, where it may go, whether it stays."""
        job = self._session.job
        names = {b.id: b.name for b in job.body.bays()}
        wished = {w.thing: [names.get(b, b) for b in w.bays] for w in job.arrange.bays}
        rows: list[list[Cell]] = []
        for u in job.arrange.wanted:
            may = ", ".join(wished.get(u.id, ["anywhere"]))
            rows.append([(u.name, "bold"), ("to come", ""), (may, ""), ("drop", "")])
        for u in job.units:
            stays = u.id in job.arrange.pinned
            may = "" if stays else ", ".join(wished.get(u.id, ["anywhere"]))
            word = ("pinned", "bold") if stays else ("moves", "")
            rows.append([(u.name, ""), (names.get(u.bay, u.bay), ""), (may, ""), word])
        return rows

    def press(self, row: int, column: int) -> None:
        """Do what a cell says: select, walk round the bays, pin, drop."""
        session, things = self._session, self.things()
        if not 0 <= row < len(things):
            return
        key = things[row]
        coming = row < len(session.job.arrange.wanted)
        if column == 3 and coming:
            arranging.drop(session, thing=key)
        elif column == 3:
            arranging.pin(session, things=[key], on=key not in session.job.arrange.pinned)
        elif column == 2 and key not in session.job.arrange.pinned:
            arranging.bays(session, thing=key, only=self.next_bays(key))
        elif not coming:
            session.selection.select(key)

    def next_bays(self, key: str) -> tuple[str, ...]:
        """The wish after the present one: anywhere, then each bay alone."""
        job = self._session.job
        bays = [b.id for b in job.body.bays()]
        now = next((w.bays for w in job.arrange.bays if w.thing == key), ())
        if not now:
            return (bays[0],) if bays else ()
        at = bays.index(now[0]) + 1 if now[0] in bays else 0
        return (bays[at],) if len(now) == 1 and at < len(bays) else ()

    def wishes(self) -> str:
        """The wishes about pairs, in words."""
        here = self._session.job.arrange
        names = {u.id: u.name for u in (*self._session.job.units, *here.wanted)}
        system = self._session.look.system
        said = [
            f"{names.get(w.a, w.a)} and {names.get(w.b, w.b)} {show(w.gap, 'length', system)} apart"
            for w in here.apart
        ]
        said += [f"{names.get(w.a, w.a)} near {names.get(w.b, w.b)}" for w in here.near]
        if here.gas:
            said.append("gas away from what ignites it")
        return "; ".join(said)

    def empty(self) -> str:
        """What to do where there is nothing to arrange."""
        if not self._session.job.body.bays():
            return "There is no bay yet: add a canopy or a room in the stage Body."
        if not self.things():
            return (
                "Take what has to go in from the stores on the left: Enter or a double click puts it on this list. Then "
                "press Arrange it for me."
            )
        return ""

    def weights(self) -> dict[str, float]:
        """How much each part counts now."""
        return weights_of(self._session.known, self._session.job.arrange)._asdict()

    def axle_words(self) -> str:
        """Which axle should have less, and why."""
        here = self._session.job.arrange
        short = short_of(self._session.known)
        return f"{here.axle} axle, by wish" if here.axle else short.words

    def weight_words(self, part: str) -> str:
        """How much a part counts, in words."""
        now = self.weights()[part]
        return min(WEIGHTS, key=lambda w: abs(w[0] - now))[1]


class ArrangeModel(WantedModel):
    """How good what was found is, the layouts to choose from, and how they look."""

    _drawn: tuple[Job, Assembly] | None = None

    def figures(self, part: str) -> str:
        """What the layout that is looked at has of a part, and what the one in hand has."""
        offer, result = self.offer(), self._session.arranging.result
        hand = result.hand if result is not None else None
        if offer is None:
            return ""
        now = self.figure(part, offer.value)
        if hand is None or offer.sort == "as it is":
            return now
        return f"{self.figure(part, hand).split(' ', maxsplit=1)[0]} → {now}"

    def figure(self, part: str, worth: Value) -> str:
        """One part of a layout in its unit."""
        system = self._session.look.system
        amount = getattr(worth, part)
        if part in ("axle", "balance"):
            return show(amount, "mass", system)
        if part == "room":
            return show(amount, "length", system)
        return f"{amount:.1f}"

    def words(self) -> str:
        """The sentence about the run: how good, or why not."""
        run = self._session.arranging
        if run.trouble:
            return run.trouble
        if run.working:
            told = run.told
            since = (
                self._session.job is not run.of
                and run.of is not None
                and self._session.job.units != run.of.units
            )
            also = (
                " The job was changed meanwhile: the run goes on with what it began with."
                if since
                else ""
            )
            return f"{told.words.capitalize() if told else 'Getting ready'}, {told.seconds if told else 0:.0f} s.{also}"
        if run.result is not None:
            return run.result.words
        if run.told is not None and run.told.job is not None:
            return "Stopped. The best so far can be taken; it has not been proved."
        return (
            self.empty() or "Pin what has its place, say what counts, and press Arrange it for me."
        )

    def numbers(self) -> tuple[float | None, float | None]:
        """Points of this layout, and what nothing in stacks is better than."""
        run = self._session.arranging
        if run.result is not None:
            bound = run.result.bound
            offer = self.offer()
            if offer is None:
                return None, None
            return offer.value.points, bound if bound > float("-inf") else None
        told = run.told
        if told is None:
            return None, None
        # A layout beyond stacks may be better than anything in them.
        past = told.best is not None and told.bound is not None and told.bound > told.best + 1e-6
        return told.best, None if past else told.bound

    def course(self) -> list[tuple[float, float | None, float | None]]:
        """Seconds, points and bound in the course of the run."""
        return self._session.arranging.trace

    def offers(self) -> tuple[Offer, ...]:
        """The layouts to choose from."""
        result = self._session.arranging.result
        return result.offers if result is not None else ()

    def offer(self) -> Offer | None:
        """The layout that is looked at."""
        some, at = self.offers(), self._session.arranging.chosen
        return some[at] if 0 <= at < len(some) else None

    def offer_rows(self) -> list[list[Cell]]:
        """A row a layout; the best figure of each column stands out."""
        some = self.offers()
        if not some:
            return []
        rows: list[list[Cell]] = []
        for o in some:
            row: list[Cell] = [(SORTS[o.sort], "bold" if o is some[0] else "")]
            row.append((
                f"{o.value.points:.1f}",
                _best(o.value.points, [x.value.points for x in some]),
            ))
            for part in PARTS:
                values = [getattr(x.value, part) * (-1 if part == "room" else 1) for x in some]
                mine = getattr(o.value, part) * (-1 if part == "room" else 1)
                row.append((self.figure(part, o.value), _best(mine, values)))
            said = [*o.stops, *o.looks]
            words = (
                "none"
                if not said
                else said[0]
                if len(said) == 1
                else f"{len(said)}: {'; '.join(said)}"
            )
            row.append((words, "stop" if o.stops else "look" if o.looks else ""))
            rows.append(row)
        return rows

    def choose(self, row: int) -> None:
        """Look at another layout."""
        run = self._session.arranging
        if 0 <= row < len(self.offers()) and row != run.chosen:
            run.choose(row)

    def job(self) -> Job:
        """The job with the layout that is looked at."""
        run, found = self._session.arranging, offers(self._session)
        if run.working and run.told is not None and run.told.job is not None:
            return run.told.job
        return found[run.chosen] if 0 <= run.chosen < len(found) else self._session.job

    def assembly(self) -> Assembly:
        """The layout that is looked at, in vehicle axes."""
        job, verdict, setup = self.job(), self._session.known, self._setup()
        if job is self._session.job:
            return verdict.within(setup.id if setup else "").assembly
        if self._drawn is None or self._drawn[0] is not job:
            there = worn(job, setup) if setup is not None else job
            self._drawn = (job, assemble(resolved(there), verdict.assembly))
        return self._drawn[1]

    def _setup(self) -> SetUp | None:
        """The chosen scenario's set-up, or the one that has the most bays on where it has not all; none without set-ups."""
        job = self._session.job
        chosen = setup_of(job, self._session.scenario())
        if chosen is None or not bays_off(job, chosen):
            return chosen
        return min(job.setups, key=lambda s: len(bays_off(job, s)))

    def sides(self) -> list[str]:
        """The sides from which there are bays."""
        some = {p.bay.side for p in self.assembly().ground.bays.values()}
        return [s for s in ("left", "right", "rear") if s in some]

    def pinned(self) -> frozenset[str]:
        """What stays, to be hatched."""
        return frozenset(self._session.job.arrange.pinned)

    def why(self) -> str:
        """Why the selected thing is where it is, or how to ask."""
        session = self._session
        key = session.selection.key
        thing = next((u for u in session.job.units if u.id == key), None)
        if thing is None:
            return ""
        known = session.arranging.reasons.get(key)
        if known is not None:
            return known.words
        return f"{thing.name}: looking elsewhere …" if session.arranging.asking else ""


def _best(value: float, values: list[float]) -> str:
    """Stand out where a figure is the best of several that differ."""
    return "bold" if value <= min(values) + 1e-6 and max(values) > min(values) + 1e-6 else ""
