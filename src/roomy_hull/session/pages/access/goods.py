"""The page Goods: the list, where is what, what is dragged where."""

from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.job.goods import Good
from roomy_hull.session.pages.access.words import SIDES, chosen_good, where_words
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.session import Session

GOOD_HEADS = ("Good", "No.", "Mass", "Wanted", "Where", "Moves", "Reach")
SHORT = {
    "in reach": "all",
    "crouching": "crouch",
    "on tiptoe": "on tiptoe",
    "by climbing": "climb",
    "not at all": "not at all",
}
ORDER = ("in reach", "crouching", "on tiptoe", "by climbing", "not at all")


class GoodsModel:
    """The goods of a job, one chosen, some searched for.

    Args:
        session: The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self.search = ""

    def rows(self) -> list[int]:
        """Which goods are listed: those whose name, nature or class holds what is searched for."""
        word = self.search.strip().lower()
        return [
            n
            for n, g in enumerate(self._session.job.goods)
            if not word or word in g.name.lower() or word in " ".join(g.nature) or word in g.use
        ]

    def keys(self) -> list[str]:
        """What each row chooses."""
        goods = self._session.job.goods
        return [f"goods.{goods[n].id}" for n in self.rows()]

    def cells(self) -> list[list[Cell]]:
        """Every good in a row."""
        session = self._session
        verdict, system = session.known, session.look.system
        found = verdict.access
        rows: list[list[Cell]] = []
        for n in self.rows():
            good = verdict.job.goods[n]
            row = found.stowed[n]
            bold = "bold" if session.look.access == f"goods.{good.id}" else ""
            moves = (
                ""
                if row.moves is None
                else f"{row.moves.count}"
                if row.moves.possible
                else "no way"
            )
            worst = ""
            if row.space >= 0 and found.seen[row.space]:
                worst = max((s.how for s in found.seen[row.space]), key=ORDER.index)
            late = row.over(good.use)
            rows.append([
                (good.name, bold), (f"{good.count}", ""), (show(good.kg, "mass", system), ""), (good.use, ""),
                (where_words(verdict, good, row.space), "look" if row.where in ("lost", "nowhere") else ""),
                (moves, "look" if late else ""), (SHORT.get(worst, ""), "look" if worst in ORDER[3:] else ""),
            ])  # fmt: skip
        return rows

    def station(self) -> Station:
        """The side that is drawn: where the chosen good is, else where one stands."""
        session = self._session
        return session.look.station if session.look.station in SIDES else "left"

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw where is what."""
        session = self._session
        verdict = session.known
        found = verdict.access
        good = chosen_good(verdict, session.look)
        marked = {good.id} if good is not None else set()
        if session.look.urgent:
            marked |= {g.id for g in verdict.job.goods if g.use == session.look.urgent}
        station = self.station()
        title = f"Where is what, {station} side" if station != "rear" else "Where is what, rear"
        drawn = scene.where_is_what(
            verdict.assembly,
            verdict.job.goods,
            found.stowed,
            found.spaces,
            station,
            frozenset(marked),
        )
        return f"{title}: drag a good from the list onto it", drawn

    def space_at(self, h: float, k: float) -> int:
        """The space at a point of the picture; -1 for none. [mm]"""
        session = self._session
        found, station = session.known.access, self.station()
        best, least = -1, float("inf")
        for n, space in enumerate(found.spaces):
            if space.side != station or space.device:
                continue
            h0, k0, h1, k1 = ELEVATION[station].rect(space.rest)
            area = (h1 - h0) * (k1 - k0)
            if h0 <= h <= h1 and k0 <= k <= k1 and area < least:
                best, least = n, area
        return best

    def good_at(self, h: float, k: float) -> Good | None:
        """The good whose name is at a point of the picture; none where there is none. [mm]"""
        n = self.space_at(h, k)
        if n < 0:
            return None
        found, goods = self._session.known.access, self._session.known.job.goods
        own = [g for g, row in zip(goods, found.stowed, strict=True) if row.space == n]
        return scene.named_at(own, ELEVATION[self.station()].rect(found.spaces[n].rest), k)

    def mass_words(self) -> str:
        """What is listed and stowed."""
        goods, rows = self._session.job.goods, self._session.known.access.stowed
        loose = sum(r.where == "nowhere" for r in rows)
        lost = sum(r.where == "lost" for r in rows)
        kg = sum(g.kg for g in goods)
        words = f"{len(goods)} goods, {show(kg, 'mass', self._session.look.system)}"
        if loose:
            words += f", {loose} not stowed yet"
        return words + (f", {lost} lost" if lost else "")
