"""The page Goods: the list, where is what, what is dragged where."""

import functools
from collections.abc import Sequence

from roomy_hull.core.card import Field
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.core.wording import counted
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.job.edits import goods as edits
from roomy_hull.job.goods import CAB, WHENS, Good
from roomy_hull.session.card_fields import access_fields
from roomy_hull.session.pages.access.words import SIDES, chosen_good, where_words
from roomy_hull.session.pages.cells import mass_word
from roomy_hull.session.pages.worked import Worked
from roomy_hull.session.session import Session
from roomy_hull.studies.access.stowing import Stowed
from roomy_hull.tables.column import Cell, Column

Row = tuple[Good, Stowed]
"""A good, and where it is."""
SHORT = {
    "in reach": "all",
    "crouching": "crouch",
    "on tiptoe": "on tiptoe",
    "by climbing": "climb",
    "not at all": "not at all",
}
ORDER = ("in reach", "crouching", "on tiptoe", "by climbing", "not at all")


class GoodsModel(Worked[Row]):
    """The goods of a job, one chosen, some searched for."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
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

    def entries(self) -> list[Row]:
        """The goods that are listed, each with where it is and how one gets at it."""
        verdict = self._session.known
        return [(verdict.job.goods[n], verdict.access.stowed[n]) for n in self.rows()]

    def key(self, entry: Row) -> str:
        """The id of a good."""
        return entry[0].id

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of a good."""
        return access_fields(self._session.job, f"goods.{key}")

    def columns(self) -> tuple[Column[Row], ...]:
        """What is told of a good."""
        session, verdict, places = self._session, self._session.known, self._places()

        def moves(row: Row) -> Cell:
            good, there = row
            found = there.moves
            text = "" if found is None else f"{found.count}" if found.possible else "no way"
            return (text, "look" if there.over(good.use) else "")

        def reach(row: Row) -> Cell:
            seen = verdict.access.seen[row[1].space] if row[1].space >= 0 else ()
            worst = max((s.how for s in seen), key=ORDER.index) if seen else ""
            return (SHORT.get(worst, ""), "look" if worst in ORDER[3:] else "")

        def where(row: Row) -> Cell:
            return (
                where_words(verdict, row[0], row[1].space),
                "look" if row[1].where in {"lost", "nowhere"} else "",
            )

        def name(row: Row) -> Cell:
            return (
                row[0].name,
                "bold" if session.look.access.chosen == f"goods.{row[0].id}" else "",
            )

        return (
            self.column("Item", "name", name, needed=True),
            self.column("No.", "count"),
            self.column(f"Each, {mass_word(session)}", "mass"),
            Column(
                f"All, {mass_word(session)}",
                lambda r: (show(r[0].kg, "mass", session.look.system, unit=False), ""),
            ),
            self.column("Wanted", "use", choices=lambda: WHENS),
            self.column(
                "Where",
                "place",
                where,
                choices=lambda: tuple(places.values()),
                typed=lambda r: places.get(r[0].place, ""),
            ),
            Column("Moves", moves),
            Column("Reach", reach),
        )

    def _places(self) -> dict[str, str]:
        """What each place that goods can be in is called."""
        known = self._session.known.assembly.names
        holders = {key: known.get(key, name) for key, name in self._session.job.holders().items()}
        return {"": "not stowed yet", CAB: "in the cab"} | holders

    def read(self, name: str, text: str) -> str:
        """The place that is meant."""
        return (
            next((key for key, words in self._places().items() if words == text), text)
            if name == "place"
            else text
        )

    def new(self, name: str) -> str:
        """Add an item by its name, not stowed yet."""
        session = self._session
        made = session.attempt(f"add {name}", lambda: edits.with_good(session.job, name))
        return session.job.goods[-1].id if made else ""

    def delete(self, some: Sequence[Row]) -> None:
        """Take goods off the list."""
        session = self._session
        for good, _there in some:
            session.attempt(
                "take off the list", functools.partial(edits.without, session.job, good.id)
            )

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
        if session.look.access.urgent:
            marked |= {g.id for g in verdict.job.goods if g.use == session.look.access.urgent}
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
        return f"{title}: drag items onto it", drawn

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
        words = f"{counted(len(goods), 'item')}, {show(kg, 'mass', self._session.look.system)}"
        if loose:
            words += f", {loose} not stowed yet"
        return words + (f", {lost} lost" if lost else "")
