"""Arranger: from a job and its wishes to layouts that pass the verdict, and a sentence that says how good they are."""

import time
from collections.abc import Callable, Iterable

import msgspec

from roomy_hull.arrange import impossible
from roomy_hull.arrange.choosing import chosen
from roomy_hull.arrange.gather import gather
from roomy_hull.arrange.greedy import rough
from roomy_hull.arrange.improving import improved
from roomy_hull.arrange.instance import Instance, Layout
from roomy_hull.arrange.judging import Judge, Judged
from roomy_hull.arrange.layouts import as_it_stands, in_cells
from roomy_hull.arrange.objective import Value, broken, value
from roomy_hull.arrange.offers import (
    BEHIND,
    LEFT_FOR_LOOKS,
    Arranged,
    Offer,
    Sort,
    Told,
    in_order,
    offered,
    sentence,
)
from roomy_hull.arrange.search import Found, Progress, Search
from roomy_hull.arrange.strips import HARD_STATES
from roomy_hull.job.arranging import Arranging
from roomy_hull.job.model import Job
from roomy_hull.verdict.verdict import Verdict

MOST_JUDGED = 14
"""So many layouts are judged at most on the way to the best that passes."""


MOST_OFFERED = 4


MOST_ROUNDS = 6
"""So often it is searched anew for a layout without findings."""
STACK, LEAST_STACK = 4, 3
"""Units that a stack has at most: first, and where these are too many."""
TOO_LOOSE = 45_000
"""With more ways to stack than this, and a layout to better, no time is spent on a proof."""
NEARLY = 0.88
"""After so much of the time no new part is begun: the rest is for judging what is offered."""
OTHERWISE = 0.1
"""Another layout is worth showing where it is no more dearer than this."""
SHARE = 0.55
"""Where the job has a layout already, so much of the time goes to the proof, and the rest to bettering that."""
ALONE = 0.75
"""The same where it has none yet."""


WORDS: dict[str, str] = {
    "strips": "listing stacks", "bound": "finding what cannot be bettered", "fillings": "filling the bays",
    "layouts": "joining the bays", "done": "done",
}  # fmt: skip


class Arranger:
    """One run.

    Args:
        wish: What is wanted.
        seconds: How long it may take. [s]
        pitch: About how wide a cell is. [mm]
        progress: Takes `Told`; False ends it with what there is.
    """

    def __init__(
        self, verdict: Verdict, wish: Arranging, seconds: float = 10.0, pitch: float = 50.0,
        progress: Callable[[Told], bool] = lambda _t: True,
    ) -> None:  # fmt: skip
        self.verdict, self.wish, self.limit, self.pitch = verdict, wish, seconds, pitch
        self._progress = progress
        self._since = time.monotonic()
        self._going, self._alone, self._share = True, True, 1.0
        self._class, self._unproved, self._most = "", False, STACK
        self._shown: tuple[Layout, Job] | None = None
        self._last: tuple[float | None, float | None] = (None, None)
        self.of = gather(verdict, wish, pitch)
        self.judge = Judge(verdict, self.of, self.alive)

    @property
    def seconds(self) -> float:
        """Since it began. [s]"""
        return time.monotonic() - self._since

    def alive(self) -> bool:
        """Whether there is time left and nobody ended it."""
        self._tell("checking")
        return self._going and self.seconds < self.limit * NEARLY

    def _tell(self, words: str) -> None:
        """Tell what is done now, with the best so far."""
        if self._going:
            job = self._shown[1] if self._shown else None
            self._going = self._progress(Told(words, *self._last, self.seconds, job))

    def _at(self, p: Progress) -> bool:
        """Pass on how far a search is."""
        if p.layout is not None and (self._shown is None or self._shown[0] != p.layout):
            self._shown = (p.layout, self.judge.job_of(p.layout))
        self._last = (p.best, p.bound)
        self._tell(WORDS[p.stage])
        return self._going and self.seconds < self.limit * self._share

    def show(self, job: Job, points: float) -> None:
        """Take a better layout that was found beyond strips, to be shown."""
        self._shown, self._last = ((), job), (points, self._last[1])

    def run(self) -> Arranged:
        """Arrange.

        Returns: Layouts with what is proved of them, or why there is none.
        """
        instance = self.of.instance
        hand = as_it_stands(self.of, self.verdict.job)
        large = impossible.too_large(instance)
        if large:
            why = impossible.Reason("large", large[:1], tuple(range(len(instance.bays))))
            return self._none(why, hand, None)
        self._alone = hand is None
        self._share = ALONE if self._alone else SHARE
        start = in_cells(self.of, self.verdict.job) if hand is not None else None
        found, passing = self._search(start)
        if found is not None and not found.fits and not found.layouts and hand is None:
            return self._none(impossible.reason(instance, 4, self._more_time), hand, found)
        offers = self._offers(found, passing, hand)
        if not offers:
            return self._none(None, hand, found)
        return self._told(tuple(offers), hand, found)

    def _more_time(self) -> bool:
        """A little longer than the limit, for saying why."""
        return self._going and self.seconds < self.limit + 5

    def _search(self, start: Layout | None) -> tuple[Found | None, dict[Layout, Judged]]:
        """Search with everything in front, and then, where things can stand behind others, with that too."""
        full = self.of.instance
        first = rough(full, alive=self.alive) if start is None else None
        if first is not None:
            self._rough(first)
        front = msgspec.structs.replace(full, items=full.items[: full.count], behind=())
        passing: dict[Layout, Judged] = {}
        plain = start if start is None or all(at.item < 0 for at in start) else None
        found = self._until_it_passes(front, plain, passing, thin=self._alone and first is None)
        settled = found.proved or (found.complete and not found.fits)
        if full.behind and settled and self.alive():
            best = min(passing, key=lambda at: value(full, at).points, default=start)
            more = self._until_it_passes(
                full, best, passing, thin=self._alone and not found.layouts
            )
            if more.complete and (more.layouts or not found.layouts):
                self._class, found = BEHIND, more
        if first is not None and not passing:
            judged = self.judge.judge(first)
            if not judged.stops:
                self._unproved, passing[first] = True, judged
        return found, passing

    def _rough(self, layout: Layout) -> None:
        """Show a first layout, on which nothing is proved."""
        self.show(self.judge.job_of(layout), value(self.of.instance, layout).points)
        self._tell(WORDS["strips"])

    def _until_it_passes(
        self, instance: Instance, known: Layout | None, passing: dict[Layout, Judged], *, thin: bool
    ) -> Found:
        """Search and judge in turn, until the best that the search finds passes the verdict."""
        found: Found | None = None
        while True:
            watch, clashes = self.judge.watch()
            if known is not None and (self.judge.rules.forbid(known) or broken(instance, known)):
                known = None
            hard = HARD_STATES if thin else TOO_LOOSE
            now = Search(instance, self._most, self._at, thin=thin, hard=hard).run(
                watch, clashes, known, self.judge.rules.nowhere
            )
            if not now.strips and not now.complete and self._most > LEAST_STACK and self.alive():
                # Too loose: lower stacks are fewer, and say something too.
                self._most -= 1
                continue
            # Rules only take layouts away: an earlier bound holds where there was no time for a better one.
            if found is None or now.bound >= found.bound - 1e-9 or not found.layouts:
                found = now
            learned = len(self.judge.rules)
            best = self._first_passing(now.layouts, passing)
            if (
                best is None
                or len(self.judge.rules) == learned
                or self.judge.asked >= MOST_JUDGED
                or not self.alive()
            ):
                return found
            known = best

    def _first_passing(
        self, rows: Iterable[tuple[float, Layout]], passing: dict[Layout, Judged]
    ) -> Layout | None:
        """The cheapest layout that makes no *stop*; every one before it teaches a rule."""
        for _, layout in rows:
            if self.judge.rules.forbid(layout):
                continue
            if self.judge.asked >= MOST_JUDGED or not (self.alive() or not passing):
                break
            judged = self.judge.judge(layout)
            if not judged.stops:
                passing[layout] = judged
                return layout
            self.judge.learn(layout, judged.stops)
        return min(passing, key=lambda at: value(self.of.instance, at).points, default=None)

    def _offers(
        self, found: Found | None, passing: dict[Layout, Judged], hand: Value | None
    ) -> list[Offer]:
        """The best, one without findings, one bettered beyond strips, and some that differ."""
        instance = self.of.instance
        rows = found.layouts if found is not None else ()
        offers: list[Offer] = []
        best: Layout | None = None
        if passing:
            best = min(passing, key=lambda at: value(instance, at).points)
            offers.append(self._offer("rough" if self._unproved else "best", best, passing[best]))
            if passing[best].looks and not self._unproved:
                offers += self._clear(best, passing)
        top = offers[0] if offers else None
        better = improved(self, top.job if top else (self.verdict.job if hand is not None else None),
                          top.value if top else hand)  # fmt: skip
        if better is not None:
            offers.insert(0, better)
        elif top is None and hand is not None:
            stops = (f for f in self.verdict.open_findings() if f.severity == "stop")
            offers.append(offered("as it is", self.verdict.job, hand, stops))
        if best is not None:
            offers += self._others(rows, [best], MOST_OFFERED - len(offers))
        if hand is not None and offers and offers[0].value.points > hand.points + 1e-6:
            offers.append(self._as_it_is(hand))
        return in_order(offers)[: MOST_OFFERED + 1]

    def _as_it_is(self, hand: Value) -> Offer:
        """The job's own layout, where nothing better was found."""
        mine = {u.id for u in self.of.units}
        some = (f for f in self.verdict.open_findings() if mine & set(f.things))
        return offered("as it is", self.verdict.job, hand, some)

    def _offer(self, sort: Sort, layout: Layout, judged: Judged) -> Offer:
        worth = value(self.of.instance, layout)
        return offered(sort, judged.job, worth, (*judged.stops, *judged.looks))

    def _clear(self, best: Layout, passing: dict[Layout, Judged]) -> list[Offer]:
        """A layout with fewer findings about what was arranged, or none: searched for with what brings them forbidden."""
        instance, rules = self.of.instance, self.judge.rules.copy()
        fewest = len(passing[best].looks)
        most = value(instance, best).points * (1 + LEFT_FOR_LOOKS) + 1e-9
        self.judge.avoid(rules, best, passing[best].looks)
        found: list[Offer] = []
        for _ in range(MOST_ROUNDS):
            if not self.alive():
                break
            watch, clashes = self.judge.watch(rules)
            some = Search(instance, self._most, self._at, wanted=0.01).run(
                watch, clashes, None, rules.nowhere
            )
            layout = next((at for _, at in some.layouts), None)
            if layout is None or value(instance, layout).points > most:
                break
            judged = self.judge.judge(layout)
            if judged.stops:
                self.judge.avoid(rules, layout, judged.stops)
            elif len(judged.looks) < fewest:
                fewest = len(judged.looks)
                found = [self._offer("clear", layout, judged)]
            if not judged.stops and not judged.looks:
                break
            self.judge.avoid(rules, layout, judged.looks)
        return found

    def _others(
        self, rows: Iterable[tuple[float, Layout]], have: list[Layout], most: int
    ) -> list[Offer]:
        """Layouts in which something that one sees is elsewhere, that pass the verdict."""
        found: list[Offer] = []
        some = chosen(self.of.instance, rows, 3 * max(0, most), have)
        worst = value(self.of.instance, have[0]).points
        worst += OTHERWISE * abs(worst)
        for points, layout in some:
            if points > worst or len(found) >= most or not self._more_time():
                break
            if self.judge.rules.forbid(layout):
                continue
            judged = self.judge.judge(layout)
            if not judged.stops:
                found.append(self._offer("other", layout, judged))
        return found

    def _none(
        self, why: impossible.Reason | None, hand: Value | None, found: Found | None
    ) -> Arranged:
        """Say that there is no layout, and why."""
        instance = self.of.instance
        if why is not None:
            words = impossible.worded(instance, why)
        elif found is not None and found.layouts:
            words = "Every layout found has something in the way of something: unpin a thing, or drop a wish."
        else:
            words = "No layout was found in this time. Give it longer, pin what has its place, or take something out."
        too_many = tuple(instance.items[n].id for n in why.units) if why is not None else ()
        return Arranged((), words, hand, found.bound if found else float("-inf"), False, found.most if found else 4,
                        instance.cell, why, found, self.judge.asked, self.seconds, not self._going, too_many)  # fmt: skip

    def _told(self, offers: tuple[Offer, ...], hand: Value | None, found: Found | None) -> Arranged:
        """Put what is proved in words."""
        holds = found is not None and found.fits and found.complete
        bound = found.bound if found is not None and holds else float("-inf")
        if bound > min(o.value.points for o in offers) and not any(
            o.sort == "best" for o in offers
        ):
            # None of the class is as good: what is proved of it says nothing of this one.
            bound = float("-inf")
        most = found.most if found is not None else 4
        proof = next((o.value.points for o in offers if o.sort == "best"), None)
        proved = (
            found is not None
            and found.proved
            and proof is not None
            and proof <= found.bound + 1e-6 * abs(proof)
        )
        words = sentence(offers, bound, most, proved=proved, behind=self._class)
        return Arranged(offers, words, hand, bound, proved, most, self.of.instance.cell, None, found, self.judge.asked,
                        self.seconds, not self._going)  # fmt: skip


def arrange(
    verdict: Verdict, wish: Arranging, seconds: float = 10.0, pitch: float = 50.0,
    progress: Callable[[Told], bool] = lambda _t: True,
) -> Arranged:  # fmt: skip
    """Arrange a job's units.

    Args:
        wish: What is wanted, what stays, how much each part counts.
        seconds: How long it may take. [s]
        pitch: About how wide a cell is. [mm]
        progress: Takes `Told` now and then; False ends it with what there is.
    Returns: Layouts with what is proved of them, or why there is none.
    Raises:
        InputError: There is nothing to arrange, no bay, too many units, or wishes that contradict each other.
    """
    return Arranger(verdict, wish, seconds, pitch, progress).run()
