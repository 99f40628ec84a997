"""The pages Offer, Progress, Log and Buying: their tables, words and pictures."""

from pathlib import Path

from roomy_hull.core.primitives import Panel, Rect, Scene
from roomy_hull.core.refs import Ref
from roomy_hull.core.wording import counted
from roomy_hull.drawing.scenes import growing
from roomy_hull.formats.photos import path_of
from roomy_hull.job.brief import Offer, OfferLine
from roomy_hull.job.logs import Entry
from roomy_hull.job.releases import STATES, PartState
from roomy_hull.making.cost import cost_sheet
from roomy_hull.making.works import works_of
from roomy_hull.planning.judge import needed
from roomy_hull.planning.offer import Change, changes, lines_of
from roomy_hull.planning.op import owner_key
from roomy_hull.planning.progress import fitted, part_states
from roomy_hull.session.pages.build.words import built, said
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.session import Session

OFFER_HEADS = ("What", "In", "How much", "Cost", "Net", "As quoted")
LOG_HEADS = ("When", "By", "", "Of", "What", "h", "Figure")
BUYING_HEADS = ("What", "How much", "How far", "Wanted", "Order by", "Here on")


class OfferModel:
    """What is offered now, and what was."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[object, tuple[OfferLine, ...]] | None = None

    def lines(self) -> tuple[OfferLine, ...] | None:
        """The lines as the job stands; none until its sheets are nested."""
        session = self._session
        cut = session.cutting.cut
        if cut is None or not session.cutting.is_of(session.known):
            return None
        key = (session.known, cut)
        if self._of is None or self._of[0] != key:
            assembly, build = session.known.assembly, built(session)
            coated = session.job.plan.coated
            sheet = cost_sheet(works_of(assembly), cut, session.shop.prices, coat=coated)
            self._of = key, lines_of(assembly, build.ops, build.hours, sheet, coated=coated)
        return self._of[1]

    def last(self) -> Offer | None:
        """The last offer that was made."""
        offers = self._session.job.offers
        return offers[-1] if offers else None

    def changed(self) -> tuple[Change, ...]:
        """What is another than it was offered."""
        last, lines = self.last(), self.lines()
        return changes(last, lines) if last is not None and lines is not None else ()

    def cells(self) -> list[list[Cell]]:
        """Every line now, beside what was offered."""
        lines = self.lines() or ()
        margin = self._session.shop.workshop.margin
        then = {(c.option, c.words): c for c in self.changed()}
        last = self.last()
        rows: list[list[Cell]] = []
        for x in lines:
            other = then.pop((x.option, x.words), None)
            old = (
                ""
                if last is None
                else f"{other.then * (1 + last.margin):,.0f}"
                if other is not None
                else "the same"
            )
            rows.append([
                (x.words, ""), (x.option or "the build", ""), (f"{x.amount:g} {x.unit}" if x.unit else "", ""),
                (f"{x.price:,.0f}", ""), (f"{x.price * (1 + margin):,.0f}", "bold"),
                (old, "look" if other is not None else ""),
            ])  # fmt: skip
        for gone in then.values():
            rows.append([(gone.words, "look"), (gone.option or "the build", ""), ("", ""), ("", ""), ("gone", "look"),
                         (f"{gone.then:,.0f}", "")])  # fmt: skip
        return rows

    def words(self) -> str:
        """What it comes to, what the last offer was, what has changed since."""
        lines, own = self.lines(), self._session.shop.workshop
        if lines is None:
            return "The nesting is at work…"
        now = Offer(number="-", day="", margin=own.margin, tax=own.tax, lines=lines)
        told = f"The build as drawn: {now.net(''):,.0f} net, {now.gross():,.0f} with {100 * own.tax:.0f} % tax. "
        told += "".join(f"With {o}: {now.net(o) * (1 + own.tax):,.0f} more. " for o in now.options)
        budget = self._session.job.brief.budget_money
        if budget:
            over = now.gross() - budget
            told += f"The customer's budget is {budget:,.0f}: {abs(over):,.0f} {'over' if over > 0 else 'left'}. "
        last = self.last()
        if last is None:
            return told + "Nothing is quoted yet."
        taken = (
            f", agreed on {said(last.agreed)} with {', '.join(last.taken) or 'no option'}"
            if last.agreed
            else ""
        )
        changed = self.changed()
        more = (
            f"{len(changed)} lines have changed since." if changed else "Nothing has changed since."
        )
        return f"{told}Quote {last.number} of {said(last.day)}: {last.gross():,.0f}{taken}. {more}"


class ProgressModel:
    """How far every part has come, drawn where it stands."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[object, dict[tuple[Ref, str], PartState]] | None = None

    def states(self) -> dict[tuple[Ref, str], PartState]:
        """How far each owner's part has come: by the last release, or by the work that is logged, whichever is further."""
        session = self._session
        if self._of is None or self._of[0] is not session.known:
            works = works_of(session.known.assembly)
            self._of = session.known, part_states(session.job, works, built(session))
        return self._of[1]

    def done(self) -> frozenset[str]:
        """Operations that are finished."""
        return frozenset(built(self._session).state.done)

    def fitted(self) -> frozenset[str]:
        """Bought and carried things that are in their places."""
        return fitted(built(self._session))

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the vehicle as far as it has grown."""
        session = self._session
        side = (
            session.look.station if session.look.station in ("left", "right", "rear") else "right"
        )
        assembly = session.known.assembly
        scene = growing.growing(
            assembly, works_of(assembly), self.states(), self.fitted(), side, session.selection.key
        )
        shown = growing.grown_frame(assembly, side)
        title = f"{session.job.vehicle.name} as it stands in the shop, {side} side"
        return title, (scene + growing.legend(shown), shown)

    def at(self, scene: Scene, h: float, k: float) -> str:
        """The id of the foremost thing at a place of the drawing; empty for none."""
        hits = [
            s.tag for s in scene
            if isinstance(s, Panel) and s.h0 <= h <= s.h1 and s.k0 <= k <= s.k1
            and self._session.job.thing(s.tag) is not None
        ]  # fmt: skip
        return hits[-1] if hits else ""

    def counted(self) -> dict[PartState, int]:
        """How many parts have come how far."""
        found: dict[PartState, int] = dict.fromkeys(STATES, 0)
        for state in self.states().values():
            found[state] += 1
        return found

    def words(self) -> str:
        """How far it is, in words."""
        build = built(self._session)
        parts = ", ".join(f"{n} {s}" for s, n in self.counted().items() if n)
        return (
            f"{100 * build.share:.0f} % of the hours are done, {build.worked:.1f} h logged, {build.left:.1f} h to do. "
            "Different parts: "
            f"{parts}. Click a thing on the drawing, then finish its next operation."
        )

    def cells(self) -> list[list[Cell]]:
        """The operations of the selected thing, or all that could be begun now."""
        build = built(self._session)
        rows: list[list[Cell]] = []
        for key in self.keys():
            op = build.ops[key]
            done = build.state.done.get(key, "")
            ready = all(k in build.state.done for k in op.after)
            state = f"done {said(done)}" if done else "can be begun" if ready else "waits"
            bold = "bold" if key == self._session.look.op else ""
            rows.append([(op.words, bold), (op.much, ""), (f"{build.hours[key]:.1f}", ""),
                         (f"{build.state.hours.get(key, 0.0):.1f}", ""), (state, "")])  # fmt: skip
        return rows

    def keys(self) -> list[str]:
        """The operation of each row."""
        build, chosen = built(self._session), self._session.selection.key
        if chosen:
            thing = self._session.known.assembly.thing(chosen)
            mark = f"{owner_key(thing.ref)}:" if thing is not None else "-"
            return [k for k in build.ops if k.startswith(mark)]
        open_ = [k for k in build.ops if k not in build.state.done]
        return [k for k in open_ if all(a in build.state.done for a in build.ops[k].after)]


PROGRESS_HEADS = ("Operation", "How much", "Planned, h", "Worked, h", "")


class LogModel(PageModel):
    """The log, the newest first, and its photos."""

    def entries(self) -> list[Entry]:
        """The newest first."""
        return list(reversed(self._session.job.log))[:MOST_SHOWN]

    def keys(self) -> list[str]:
        """The id of each row's entry."""
        return [e.id for e in self.entries()]

    def cells(self) -> list[list[Cell]]:
        """Every entry in a row; what a later one takes the place of says so."""
        build = built(self._session)
        struck, back = build.state.struck, set(build.state.backwards)
        rows: list[list[Cell]] = []
        for e in self.entries():
            bold = "bold" if e.id == self._session.look.entry else ""
            of = build.ops[e.op].words if e.op in build.ops else e.op or e.about
            figure = f"{e.value:g}" + (f" (drawn {e.was:g})" if e.was is not None else "") if e.value is not None else (
                ", ".join(f"{x:g}" for x in e.figures) or e.number)  # fmt: skip
            kind = "work, done" if e.kind == "work" and e.done else f"{e.kind} {e.result}".strip()
            kind = f"{kind}, struck out" if e.id in struck else kind
            rows.append([
                (e.at.replace("T", " ")[:16], "note" if e.id in back else bold), (e.by, ""),
                (kind, "note" if e.id in struck else "look" if e.result == "failed" else ""), (of, ""),
                (e.words or e.file, ""), (f"{e.hours:g}" if e.hours else "", ""), (figure, ""),
            ])  # fmt: skip
        return rows

    def photos(self) -> list[tuple[Entry, Path | None]]:
        """The photos of the chosen operation, or all, the newest first, each with its file where that is there."""
        op = self._session.look.op
        state = built(self._session).state
        some = (
            [e for e in state.photos if e.op == op]
            if op and any(e.op == op for e in state.photos)
            else state.photos
        )
        return [(e, path_of(self._session.path, e.file)) for e in reversed(some)]

    def words(self) -> str:
        """What the log comes to."""
        job, state = self._session.job, built(self._session).state
        if not job.log:
            return (
                "Nothing is logged yet. Work, photos, what was built otherwise: each is an entry, and none is "
                "ever changed."
            )
        told = f"{counted(len(job.log), 'entry', 'entries')}, {sum(state.hours.values()):.1f} h, "
        told += counted(len(state.photos), "photo")
        told += f", built otherwise: {len(state.deviations)}" if state.deviations else ""
        lost = sum(p is None for _e, p in self.photos())
        told += f". {counted(lost, 'photo')} missing beside the job" if lost else ""
        return told + ". An entry is corrected by a later one."


MOST_SHOWN = 2000
"""So many entries stand in the table; the others are in the file and count all the same."""


class BuyingModel(PageModel):
    """What comes from outside, when it is wanted, by when it has to be ordered."""

    def keys(self) -> list[str]:
        """The key of each row."""
        return [p.key for p in built(self._session).buying]

    def cells(self) -> list[list[Cell]]:
        """A row for each."""
        build = built(self._session)
        begun = bool(self._session.job.plan.begin)
        rows: list[list[Cell]] = []
        for p in build.buying:
            need = needed(build, p)
            by = p.order_by(need) if need is not None else None
            late = p.state == "to order" and by is not None and by <= build.now and begun
            rows.append([
                (p.words, ""), (p.much, ""), (p.state, "look" if late else ""),
                (said(need.isoformat()) if need is not None and begun and p.state != "here" else "", ""),
                (said(by.isoformat()) if by is not None and begun and p.state == "to order" else "", "look" if late else ""),
                (said(p.arrives.isoformat()) if p.arrives is not None and begun else "", ""),
            ])  # fmt: skip
        return rows

    def words(self) -> str:
        """How much of it is here."""
        rows = built(self._session).buying
        here = sum(p.state == "here" for p in rows)
        sent = sum(p.state == "ordered" for p in rows)
        return (
            f"{len(rows)} things come from outside: {here} here, {sent} on their way, {len(rows) - here - sent} to order. "
            "Several rows can be chosen at once."
        )
