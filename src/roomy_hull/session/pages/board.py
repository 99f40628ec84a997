"""The page Board: scenarios against limits, the sweep of water and fuel, and the sum behind any figure."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import KG_PER_POUND, show
from roomy_hull.drawing.scenes import chart
from roomy_hull.drawing.scenes.loads import centre_height, loads_frame, loads_scene
from roomy_hull.session.marks import strong
from roomy_hull.session.pages.cells import kg_of, mass_word
from roomy_hull.session.session import Session
from roomy_hull.studies.loads import board
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads
from roomy_hull.tables.column import Cell

SWEPT = {"water": "Water", "fuel": "Fuel", "both": "Both"}
_USED = {"water": "water", "fuel": "fuel", "both": "water and fuel"}


class BoardModel:
    """What the board shows."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.what = "both"
        self._swept: tuple[object, object, tuple[board.SweepPoint, ...]] = (None, None, ())

    @property
    def row(self) -> str:
        """The row that is explained."""
        row = self._session.look.loads.row
        return row if row in dict(board.ROWS) else "rear"

    def choose(self, column: int, row: str) -> None:
        """Choose a cell: its row, and its scenario where the column is one."""
        scenarios = self._session.job.scenarios
        changes: dict[str, object] = {"loads": {"row": row}}
        if 0 < column <= len(scenarios):
            changes["scenario"] = scenarios[column - 1].id
        self._session.selection.select("")
        self._session.view.set(**changes)

    def heads(self) -> list[str]:
        """Write the column heads: the limit, then every scenario."""
        return ["Limit", *(s.name for s in self._session.known.loads.scenarios)]

    def cells(self) -> list[list[Cell]]:
        """Lay the board out: one row a figure."""
        loads = self._session.known.loads.scenarios
        return [[self.limit(k), *(self.cell(s, k) for s in loads)] for k, _ in board.ROWS]

    def limit(self, key: str) -> Cell:
        """Write a row's limit, the same in every scenario."""
        for s in self._session.known.loads.scenarios:
            figure = board.cell(s, key)
            if figure is not None and figure.limit:
                return kg_of(self._session, figure.limit), ""
        return "", ""

    def cell(self, s: ScenarioLoads, key: str) -> Cell:
        """Write one cell: value ± doubt and the chance of being over, with its severity."""
        figure = board.cell(s, key)
        if figure is None:
            return "–", ""
        if key == "level":
            low = show(figure.value, "length", self._session.look.system)
            uncertainty = show(figure.uncertainty, "length", self._session.look.system, unit=False)
            return (
                low.replace(" mm", f" ± {uncertainty} mm")
                if uncertainty not in ("0", "0.0")
                else low
            ), ""
        text = kg_of(self._session, figure.value)
        if figure.uncertainty > 0.05:
            text += f" ± {kg_of(self._session, figure.uncertainty)}"
        if key == "payload":
            return text, "stop" if figure.value < 0 else ""
        chance = board.chance(figure)
        odds = f" · {chance:.0%}" if chance >= 0.005 else ""
        return text + odds, board.severity_of(figure)

    def worst(self) -> str:
        """Say which cell governs."""
        loads = self._session.known.loads
        worst = board.worst(loads)
        if worst is None:
            return ""
        name = loads.scenario(worst.scenario).name
        row = dict(board.ROWS)[worst.key].lower()
        odds = f", {worst.chance:.1%} chance of being over" if worst.chance >= 0.0005 else ""
        return f"The worst cell governs: {row} in '{name}', {worst.use:.0%} of its limit{odds}."

    def why(self) -> tuple[tuple[str, ...], list[list[Cell]], str]:
        """Explain the chosen figure.

        Returns: Heads and rows of its sum, and its rule with marks.
        """
        session = self._session
        verdict = session.known
        found = board.why(verdict.assembly, verdict.loads, session.scenario(), self.row)
        per = KG_PER_POUND if session.look.system == "us" and found.unit == "kg" else 1.0
        word = mass_word(session) if found.unit == "kg" else found.unit
        place = 1 if found.unit == "mm" or abs(found.total) < 100 else 0

        def write(value: float) -> str:
            return f"{value / per:,.{place}f}"

        rows: list[list[Cell]] = [
            [(f"Sum: {found.title.split(':')[0].lower()}", "bold"), ("", ""), ("", ""),
             (f"{write(found.total)} {word}", "bold")]
        ]  # fmt: skip
        for line in found.lines:
            kg = kg_of(session, line.kg) if line.kg else ""
            part = f"{line.part:,.3f}" if line.kg else ""
            rows.append([(line.words, ""), (kg, ""), (part, ""), (write(line.amount), "")])
        uncertainty = f" ± {write(found.uncertainty)}" if found.uncertainty else ""
        head = strong(f"{found.title}: {write(found.total)}{uncertainty} {word}")
        return (
            ("Adds up from", mass_word(session), "×", word),
            rows,
            f"{head}\n{found.rule} Limit: {found.limit}.",
        )

    def vehicle(self) -> tuple[str, tuple[Scene, Rect]]:
        """Draw the axle loads on the vehicle, under their title."""
        session = self._session
        verdict, system = session.known, session.look.system
        loads = verdict.loads.scenario(session.look.scenario)
        aft, up = loads.centre[0], centre_height(verdict.assembly, loads)
        where = f"{show(round(aft), 'length', system)} aft, {show(round(up), 'length', system)} up"
        drawn = loads_scene(verdict.assembly, loads, system), loads_frame(verdict.assembly)
        return f"Centre of mass {where}", drawn

    def points(self) -> tuple[board.SweepPoint, ...]:
        """Sweep what is chosen from full to empty, once for each verdict."""
        verdict, one = self._session.known, self._session.scenario()
        of = (one, self.what)
        if self._swept[0] is not verdict or self._swept[1] != of:
            self._swept = verdict, of, board.sweep(verdict.assembly, verdict.loads, one, self.what)
        return self._swept[2]

    def sweep(self, aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Chart both axles from full to empty, under their title."""
        session, points = self._session, self.points()
        per = KG_PER_POUND if session.look.system == "us" else 1.0
        at = [100 - p.fill * 100 for p in points]
        curves, levels, band = [], [], []
        for n, (key, words) in enumerate((("front", "front axle"), ("rear", "rear axle")), 1):
            figures: list[Figure] = [getattr(p, key) for p in points]
            both = list(zip(at, figures, strict=True))
            curves.append(
                chart.Curve(f"curve {n}", tuple((x, f.value / per) for x, f in both), words)
            )
            limit = figures[0].limit
            if limit:
                levels.append(chart.Level(limit / per, f"{words} limit {limit / per:,.0f}"))
            if key == "rear":
                band = [(x, (f.value + 2 * f.uncertainty) / per) for x, f in both]
                band += [(x, (f.value - 2 * f.uncertainty) / per) for x, f in reversed(both)]
        used = _USED[self.what]
        drawn = chart.scene(
            chart.Chart(f"{used} used, %", mass_word(session), tuple(curves), tuple(levels), aspect * 0.92,
                        band=tuple(band), room=190)
        )  # fmt: skip
        return f"{session.scenario().name}: {used} from full to empty", drawn
