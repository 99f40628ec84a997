"""The page Quote: what it costs, line by line; what was quoted before."""

from roomy_hull.job.brief import Offer, OfferLine
from roomy_hull.making.cost import cost_sheet
from roomy_hull.making.works import works_of
from roomy_hull.planning.offer import Change, changes, lines_of
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.session import Session
from roomy_hull.tables.build import said
from roomy_hull.tables.column import Cell


class OfferModel:
    """What is offered now, and what was."""

    heads = ("What", "In", "How much", "Cost", "Net", "As quoted")

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
            self._of = key, lines_of(assembly, build, sheet, coated=coated)
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
