"""The page Springs: each way of carrying the load side by side in every scenario; one is fitted."""

from roomy_hull.assembly.springs import CAUTIONS
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import MM_PER_INCH, show, unit_word
from roomy_hull.drawing.scenes import chart
from roomy_hull.drawing.scenes.loads import loads_frame, standing
from roomy_hull.job.vehicle import SPRING_OPTIONS
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.cells import mm_of
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell

PSI = 6.894757
"""kPa in a pound on the square inch."""


class SpringsModel(PageModel):
    """How the vehicle stands on each kind of springs."""

    @property
    def fitted(self) -> str:
        """What is fitted."""
        return self._session.job.vehicle.springs.school

    def fit(self, option: str) -> None:
        """Fit other springs, as one step."""
        editing.set_size(self._session, path="vehicle.springs.school", value=option)

    def words(self) -> str:
        """Say what to mind with what is fitted."""
        return f"{self.fitted.capitalize()}: {CAUTIONS[self.fitted]}"

    def vehicle(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Draw the vehicle as it stands, under its title."""
        session = self._session
        assembly = session.known.assembly
        stance = session.known.loads.scenario(session.look.scenario).stance
        h0, _k0, h1, k1 = loads_frame(assembly)
        low = show(abs(stance.tail_low), "length", session.look.system)
        end = "tail low" if stance.tail_low >= 0 else "nose low"
        title = f"{session.scenario().name}: {low} {end} on {self.fitted} springs"
        return title, (standing(assembly, stance), (h0, -120.0, h1, k1))

    def chart(self, aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Chart how low the tail stands in every scenario, under its title."""
        session, found = self._session, self._session.known.springs
        per = MM_PER_INCH if session.look.system == "us" else 1.0
        ids = [s.id for s in session.job.scenarios]
        curves = tuple(
            chart.Curve(
                f"curve {n}",
                tuple(
                    (float(i), found.row(option, key).stance.tail_low / per)
                    for i, key in enumerate(ids)
                ),
                option,
            )
            for n, option in enumerate(SPRING_OPTIONS, 1)
        )
        band = session.shop.rules.level_band / per
        names = tuple((float(i), str(i + 1)) for i in range(len(ids)))
        edge = len(ids) - 1.0
        ring = ((0.0, -band), (edge, -band), (edge, band), (0.0, band))
        drawn = chart.scene(
            chart.Chart("scenario, as in the table", f"tail low, {unit_word('length', session.look.system)}", curves,
                        (), aspect * 0.92, names, ring, float(ids.index(session.scenario().id)), 235)
        )  # fmt: skip
        return "How low the tail stands; shaded: level enough", drawn

    def heads(self) -> list[str]:
        """Write the column heads: three for each kind of springs, then the pressure."""
        heads = ["Scenario"]
        for _option in SPRING_OPTIONS:
            heads += ["Sag", "Tail", "Hz"]
        return [*heads, "psi" if self._session.look.system == "us" else "kPa"]

    def cells(self) -> list[list[Cell]]:
        """Lay the comparison out: two rows of heads, then one row a scenario."""
        session, found = self._session, self._session.known.springs
        top: list[Cell] = [("Rear sag, tail low, bounce", "")]
        kerb: list[Cell] = [("At kerb", "")]
        for option in SPRING_OPTIONS:
            top += [(option.capitalize(), "bold"), ("", ""), ("", "")]
            kerb += [("", ""), ("", ""), (f"{found.kerb_hz[option]:.1f}", "")]
        rows: list[list[Cell]] = [[*top, ("level at", "bold")], [*kerb, ("", "")]]
        band, s = session.shop.rules.level_band, session.job.vehicle.springs
        for n, scenario in enumerate(session.job.scenarios, 1):
            bold = "bold" if scenario.id == session.scenario().id else ""
            row: list[Cell] = [(f"{n}  {scenario.name}", bold)]
            for option in SPRING_OPTIONS:
                one = found.row(option, scenario.id)
                low = one.stance.tail_low
                row += [
                    (mm_of(session, one.stance.rear_sag), ""),
                    (mm_of(session, low), "look" if abs(low) > band else ""),
                    (f"{one.rear_hz:.1f}", ""),
                ]
            one = found.row("air", scenario.id)
            value = f"{one.wished / (PSI if session.look.system == 'us' else 1):,.0f}"
            beyond = not s.air_least <= one.wished <= s.air_most
            rows.append([*row, (value, "look" if beyond else "")])
        return rows
