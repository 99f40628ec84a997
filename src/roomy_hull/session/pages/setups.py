"""The page Set-ups: what is on the vehicle for which use, and how one is swapped for another."""

from roomy_hull.core.units import show
from roomy_hull.job.edits.setups import absent
from roomy_hull.session.actions import setting_up
from roomy_hull.session.actions.setting_up import between, chosen, told
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.swaps import Swap

CAUTION = (
    "Minutes are planning figures of the trade. Nobody works under a canopy, box or camper on its legs or jacks; gas and "
    "mains are shut off before anything is uncoupled."
)
STEP_HEADS = ("", "What", "Minutes", "Takes", "Tool", "Plugs and hoses", "Mind")


class SetupsModel(PageModel):
    """Rows of things against set-ups, and the steps of a swap."""

    def rows(self) -> list[tuple[str, str]]:
        """What a set-up is made of: id and name, in the order of the table."""
        job = self._session.job
        body = job.body
        found: list[tuple[str, str]] = []
        if body.canopy is not None and body.canopy.kind == "canopy":
            word = "" if "canopy" in body.canopy.name.lower() else " (canopy)"
            found.append(("canopy", f"{body.canopy.name}{word}"))
        found += [(r.id, r.name) for r in body.rooms if not r.vehicles_own]
        found += [(r.id, f"{r.name} (rack)") for r in body.racks]
        if body.tray.sides > 0:
            found.append(("sides", "Drop sides and tailboard"))
        found += [(f"door:{d.id}", f"Door {d.id}: leaf of") for d in body.doors() if d.second]
        found += [(c.id, c.name) for c in job.carried]
        return found + [(u.id, u.name) for u in job.units]

    def heads(self) -> list[str]:
        """The thing, then every set-up."""
        return ["What", *(s.name for s in self._session.job.setups)]

    def cells(self) -> list[list[Cell]]:
        """On, off, or off with what it stands in; a leaf's kind."""
        job = self._session.job
        gone = [absent(job, s) for s in job.setups]
        doors = {f"door:{d.id}": d for d in job.body.doors()}
        found: list[list[Cell]] = []
        for key, name in self.rows():
            row: list[Cell] = [(name, "")]
            for setup, off in zip(job.setups, gone, strict=True):
                if key == "canopy":
                    row.append(_on(setup.canopy))
                elif key == "sides":
                    row.append(_on(setup.sides))
                elif key in doors:
                    one = doors[key]
                    row.append((one.second if one.id in setup.second_doors else one.leaf, ""))
                elif key in off and key not in setup.off:
                    row.append(("off with it", ""))
                else:
                    row.append(_on(key not in off))
            found.append(row)
        return found

    def uses(self) -> list[Cell]:
        """Which scenarios each set-up is for; a row of the table."""
        job = self._session.job
        row: list[Cell] = [("In the scenarios", "")]
        for s in job.setups:
            names = [x.name for x in job.scenarios if x.setup == s.id]
            row.append((", ".join(names) or "none yet", "" if names else "look"))
        return row

    def shaded(self, _row: int, column: int) -> bool:
        """Whether a column is that of the chosen set-up."""
        one, job = chosen(self._session), self._session.job
        return (
            one is not None
            and 0 < column <= len(job.setups)
            and job.setups[column - 1].id == one.id
        )

    def press(self, row: int, column: int) -> None:
        """Switch what a cell says; the first column selects the thing."""
        session, rows = self._session, self.rows()
        if not 0 <= row < len(rows):
            if 0 < column <= len(session.job.setups):
                session.view.set(setups={"chosen": session.job.setups[column - 1].id})
            return
        key = rows[row][0]
        if column == 0:
            if session.job.thing(key) is not None:
                session.selection.select(key)
            return
        setup = session.job.setups[column - 1]
        off = absent(session.job, setup)
        if key in off and key not in setup.off:
            session.say(
                "It is off with what it stands in or is fixed to: put that on first.", trouble=True
            )
            return
        setting_up.switch(session, setup=setup.id, what=key)

    def swap(self) -> Swap | None:
        """The swap that is told."""
        return told(self._session)

    def between(self) -> tuple[str, str]:
        """Its two set-ups."""
        return between(self._session)

    def choose(self, start: str, end: str) -> None:
        """Tell the swap between two set-ups."""
        self._session.view.set(setups={"swap": (start, end)})

    def swap_words(self, found: Swap | None) -> str:
        """What the swap comes to."""
        if found is None:
            return "With two set-ups the way from one to the other is told here: what is taken off and put on, in order."
        if found.circle:
            names = [t.name for k in found.circle if (t := self._session.job.thing(k)) is not None]
            return f"There is no order: {', '.join(names)} are in one another's way. See the page In and out."
        if not found.steps:
            return f"{found.start.name} and {found.end.name} have the same on."
        two = any(s.people > 1 for s in found.steps)
        tools = f" Tools: {', '.join(found.tools)}." if found.tools else ""
        return f"{len(found.steps)} steps, about {found.minutes:.0f} minutes{', for two' if two else ''}.{tools}"

    def steps(self, found: Swap | None) -> list[list[Cell]]:
        """A row a step."""
        system = self._session.look.system
        rows: list[list[Cell]] = []
        for s in found.steps if found is not None else ():
            mass = f", {show(s.kg, 'mass', system)}" if s.kg else ""
            what = f"{s.name}{mass}"
            rows.append([
                (s.do.capitalize(), "bold" if s.do in ("take off", "put on") else ""), (what, ""), (f"{s.minutes:.0f}", ""),
                ("two" if s.people > 1 else "one", ""), (s.tool, ""), (", ".join(s.plugs), ""),
                (s.caution, "look" if s.caution else ""),
            ])  # fmt: skip
        return rows

    def empty(self) -> str:
        """What to do where there is no set-up yet."""
        return (
            "A set-up is what is on the vehicle for one use: at work in the week, a weekend, a long trip. Add one; then "
            "click in its column what stays at home. A scenario names its set-up on the card in Loads."
        )


def _on(on: bool) -> Cell:
    return ("on", "") if on else ("off", "bold")
