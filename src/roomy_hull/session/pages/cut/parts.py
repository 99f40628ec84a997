"""The page Parts: every part flat and folded, its bends played one after the other, its holes."""

from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart, short_name
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import exact, show
from roomy_hull.drawing.scenes.cut import blank_frame, blank_scene
from roomy_hull.drawing.scenes.folded import PITCH, YAW, Shown, folded_scene, frame_of
from roomy_hull.formats.book_parts import bend_rows, stock_words
from roomy_hull.making.bending import BendPlan, plan_bends
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.polyhedra import of_bar, of_sheet
from roomy_hull.making.works import Work
from roomy_hull.session.pages.cut.words import parts
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell

BEND_HEADS = ("Bend", "Way", "Angle", "R", "Long", "Die", "kN", "Punch")
HOLE_HEADS = ("From left", "Up", "Hole")
LIST_HEADS = ("No.", "Pcs", "Part", "Of")


class PartsModel(PageModel):
    """The list of parts, and the one that is shown."""

    def rows(self) -> list[list[Cell]]:
        """The list: number, pieces, part, whose."""
        chosen = self.chosen()
        number = chosen[0] if chosen is not None else 0
        rows: list[list[Cell]] = []
        for n, p, w in parts(self._session):
            bold = "bold" if n == number else ""
            rows.append([(str(n), bold), (str(p.count), ""), (short_name(p), bold), (w.title, "")])
        return rows

    def numbers(self) -> list[int]:
        """What each row shows."""
        return [n for n, _p, _w in parts(self._session)]

    def chosen(self) -> tuple[int, Part, Work] | None:
        """The part that is shown: the chosen one, else the first of what is selected, else the first that is folded."""
        session, rows = self._session, parts(self._session)
        look, key = session.look, session.selection.key
        own = next((r for r in rows if r[0] == look.cut.part), None)
        if own is not None and (not key or own[2].owner.id == key):
            return own
        of = next((r for r in rows if key and r[2].owner.is_thing and r[2].owner.id == key), None)
        return of or own or (rows[0] if rows else None)

    def flat(self) -> tuple[Blank, BendPlan] | None:
        """The shown part's flat and how it is bent; none for a bar."""
        chosen = self.chosen()
        if chosen is None or not isinstance(chosen[1], SheetPart):
            return None
        brake = self._session.shop.tools.brake
        return blank(chosen[1]), plan_bends(chosen[1], brake)

    def steps(self) -> int:
        """How many bends are played."""
        found = self.flat()
        return len(found[1].steps) if found is not None else 0

    def step(self) -> int:
        """After how many of them it is shown: all where nothing else was chosen."""
        bent = self._session.look.cut.bent
        return self.steps() if bent < 0 else min(bent, self.steps())

    def picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """The flat with its sizes and the bends in their order."""
        found = self.flat()
        if found is None:
            return "", None
        flat, plan = found
        return "Flat, its outside towards you", (
            blank_scene(flat, plan, self._session.look.system),
            blank_frame(flat),
        )

    def folded(
        self, yaw: float = YAW, pitch: float = PITCH
    ) -> tuple[str, tuple[Scene, Rect] | None]:
        """The part in the round, with as many of its bends made as are played."""
        chosen = self.chosen()
        if chosen is None:
            return "Nothing is made yet", None
        part = chosen[1]
        if isinstance(part, BarPart):
            scene = folded_scene([Shown(tuple(of_bar(part)))], yaw, pitch)
            return "As it is sawn", (scene, frame_of(scene))
        if not isinstance(part, SheetPart):
            return "", None
        found = self.flat()
        steps = found[1].steps if found is not None else ()
        done = (
            None if self.step() >= len(steps) else frozenset(s.bend for s in steps[: self.step()])
        )
        scene = folded_scene([Shown(tuple(of_sheet(part, done)))], yaw, pitch)
        title = "Folded" if done is None else f"After {self.step()} of {len(steps)} bends"
        return title, (scene, frame_of(scene))

    def words(self) -> str:
        """What the shown part is of, what it weighs, and what is in the way of bending it."""
        chosen = self.chosen()
        if chosen is None:
            return "Nothing is made yet: place a drawer, a tank or a canopy."
        number, part, work = chosen
        system = self._session.look.system
        kg = "" if isinstance(part, Hardware) else show(part.mass(), "mass", system)
        said = f"{number}  {short_name(part)}, {part.count} for {work.title}. {stock_words(part, system)}, {kg} each."
        found = self.flat()
        if found is None:
            return said
        flat, plan = found
        said += f" Flat {exact(flat.length, system)} × {exact(flat.width, system, unit=True)}."
        if plan.fault:
            figures = f"{plan.measured:.0f} against {plan.limit:.0f} {plan.unit}"
            said += f" It cannot be bent: {plan.fault} ({figures}). {plan.remedy}"
        return said

    def bends(self) -> list[list[Cell]]:
        """The bends in their order; the one that is played last in bold."""
        found = self.flat()
        if found is None:
            return []
        return [
            [(words, "bold" if n == self.step() else "") for words in row]
            for n, row in enumerate(bend_rows(found[1], self._session.look.system), 1)
        ]

    def holes(self) -> list[list[Cell]]:
        """Holes and openings of the flat, or the holes of a bar."""
        chosen = self.chosen()
        if chosen is None:
            return []
        part, system = chosen[1], self._session.look.system

        def size(mm: float) -> str:
            return exact(mm, system)

        if isinstance(part, BarPart):
            return [
                [(size(h.along), ""), (size(h.across), ""),
                 (f"ø {size(h.diameter)}" + (f" × {size(h.length)} slot" if h.length else "") + f", {h.words}", "")]
                for h in part.drilled
            ]  # fmt: skip
        found = self.flat()
        if found is None:
            return []
        rows = []
        for c in found[0].cutouts:
            rows.append((
                c.x,
                c.y,
                f"{size(c.length)} × {size(c.width)}"
                + (f", R {size(c.radius)}" if c.radius else ""),
            ))
        rows += [(h.x, h.y, f"ø {size(h.diameter)}") for h in found[0].holes]
        return [[(size(x), ""), (size(y), ""), (words, "")] for x, y, words in rows]
