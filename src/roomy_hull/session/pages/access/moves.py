"""The page Moves: in how many moves a thing is in the hand, played on the drawing."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes.access import figure_at
from roomy_hull.drawing.scenes.ground import Looks, elevation, frame
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.session.pages.access.words import SIDES, asked, chosen_space, moves_words, space_key
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.stowing import MOST_ACTIONS
from roomy_hull.tables.column import Cell


class MovesModel(PageModel):
    """Goods, and what has a class of its own, with their moves; one is played."""

    heads = ("What", "Wanted", "Actions", "May take", "Lifted aside", "Walked, m", "How")

    def _rows(self) -> list[tuple[str, str, str, int]]:
        """Key, name, class and space of every row."""
        verdict = in_setup(self._session)
        found = verdict.access
        rows = [
            (space_key(s), s.name, s.use, n)
            for n, s in enumerate(found.spaces)
            if s.use in MOST_ACTIONS
        ]
        rows += [
            (f"goods.{g.id}", g.name, g.use, r.space)
            for g, r in zip(verdict.job.goods, found.stowed, strict=True)
            if r.space >= 0
        ]
        order = {"now": 0, "each stop": 1, "each camp": 2, "rarely": 3}
        return sorted(rows, key=lambda r: order[r[2]])

    def keys(self) -> list[str]:
        """What each row chooses."""
        return [r[0] for r in self._rows()]

    def cells(self) -> list[list[Cell]]:
        """Every row: its class, its moves."""
        verdict = in_setup(self._session)
        found = verdict.access
        rows: list[list[Cell]] = []
        for key, name, use, n in self._rows():
            way = found.moves[n]
            most = MOST_ACTIONS.get(use)
            over = most is not None and (
                not way.possible or way.count > most or (use == "now" and way.lifted > 0)
            )
            bold = "bold" if key == self._session.look.access.chosen else ""
            rows.append([
                (name, bold), (use, ""), (f"{way.count}" if way.possible else "no way", "look" if over else ""),
                (f"{most}" if most is not None else "any", ""), (f"{way.lifted}" if way.lifted else "", ""),
                (f"{way.metres:.1f}", ""), ("; ".join(moves_words(verdict, way)), ""),
            ])  # fmt: skip
        return rows

    def space(self) -> int:
        """Which space is played; -1 for none."""
        session = self._session
        return chosen_space(in_setup(session), session.look, session.selection.key)

    def steps(self) -> int:
        """How many moves are played."""
        n = self.space()
        return in_setup(self._session).access.moves[n].count if n >= 0 else 0

    def step(self) -> int:
        """After how many of them it is shown: all where nothing else was chosen."""
        played = self._session.look.access.played
        return self.steps() if played < 0 else min(played, self.steps())

    def words(self) -> str:
        """The moves, the last one shown in brackets."""
        n = self.space()
        if n < 0:
            rounds = in_setup(self._session).access.rounds
            said = ";  ".join(f"{r.name}: {r.actions} actions, {r.metres:.0f} m" for r in rounds)
            return f"Choose a row to play its moves on the drawing.   {said}"
        rows = moves_words(in_setup(self._session), in_setup(self._session).access.moves[n])
        if not rows:
            return "It is at hand: nothing has to be opened."
        return "   ".join(
            f"{i + 1}. {w}" + ("  ◂" if i + 1 == self.step() else "") for i, w in enumerate(rows)
        )

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the vehicle as it stands after so many moves, with who does them."""
        session = self._session
        verdict, n = in_setup(session), self.space()
        person = asked(session)
        if n < 0:
            station: Station = session.look.station if session.look.station in SIDES else "left"
            return "All shut", (
                elevation(verdict.assembly, station),
                frame(verdict.assembly, station)[0],
            )
        space, way = verdict.access.spaces[n], verdict.access.moves[n]
        side: Station = space.side if space.side in SIDES else "left"
        done = way.actions[: self.step()]
        opened = {a.what for a in done if a.do == "open"} - {
            a.what for a in done if a.do == "close"
        }
        view = ELEVATION[side]
        looks = Looks(frozenset(opened))
        box = space.box if space.needs <= opened else space.rest
        primitives = [
            *elevation(verdict.assembly, side, looks),
            *figure_at(view, person.stature, box, side),
        ]
        return f"{space.name}: {self.step()} of {way.said}", (
            tuple(primitives),
            frame(verdict.assembly, side)[0],
        )
