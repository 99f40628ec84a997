"""Holding and moving things: a hand on the drawing, without any painting."""

from collections.abc import Callable

from PyQt6.QtCore import QPointF

from roomy_hull.actions.finding_room import TRIAL
from roomy_hull.actions.snapping import snapped
from roomy_hull.actions.workbench import Workbench
from roomy_hull.assembly.assemble import Thing, trial_thing
from roomy_hull.core.errors import UserError
from roomy_hull.core.strokes import Point, Scene
from roomy_hull.drawing.overlays import free_places
from roomy_hull.drawing.view import View
from roomy_hull.job import edits, layouts
from roomy_hull.job.model import Job
from roomy_hull.job.unit import Carried, Unit
from roomy_hull.kit.canopy import BayPlace
from roomy_hull.studies.fit.free_space import free_space

THRESHOLD = 4.0
"""A hand that moves less than this only selects. [px]"""


class Drag:
    """What the hand holds. Every move is a preview; letting go makes one step.

    Parameters
    ----------
    bench : Workbench
        Whose job is moved.
    """

    def __init__(self, bench: Workbench) -> None:
        self._bench = bench
        self.held = False
        self.active = False
        self.holds = ""
        self.view: View | None = None
        self._from: Point = (0.0, 0.0)
        self._from_px = QPointF()
        self._start: Unit | Carried | None = None
        self._place: BayPlace | None = None
        self._stores = ""
        self._over = False
        self._free: tuple[object, tuple[Thing, ...], Scene] | None = None

    # Things of the job

    def press(self, thing: Thing, view: View, at: Point, px: QPointF) -> None:
        """Take hold of a thing. [mm, px]"""
        self.held, self.active = True, False
        self.holds = thing.id
        self.view, self._from, self._from_px = view, at, px
        self._start, self._place = thing.value, thing.place

    def move(self, at: Point, px: QPointF, *, fine: bool = False) -> None:
        """Follow the hand; `fine` goes by the millimetre. [mm, px]"""
        if not self.held or self._start is None or self.view is None:
            return
        if not self.active:
            if (px - self._from_px).manhattanLength() < THRESHOLD:
                return
            self.active = True
        step = [0.0, 0.0, 0.0]
        step[self.view.h[0]] += (at[0] - self._from[0]) * self.view.h[1]
        step[self.view.k[0]] += (at[1] - self._from[1]) * self.view.k[1]
        if isinstance(self._start, Carried):
            self._move_carried(self._start, step, fine)
        else:
            self._move_unit(self._start, step, fine)

    def _move_carried(self, item: Carried, step: list[float], fine: bool) -> None:
        grid = 1.0 if fine else 5.0
        x, y, z = (
            round((a + d) / grid) * grid if d else a
            for a, d in zip((item.x, item.y, item.z), step, strict=True)
        )
        self._preview(lambda: edits.changed(self._bench.history.settled, item.id, x=x, y=y, z=z))

    def _move_unit(self, unit: Unit, step: list[float], fine: bool) -> None:
        place = self._place
        thing = self._bench.verdict.assembly.thing(unit.id)
        if place is None or thing is None:
            return
        corner = place.frame.point(unit.u, unit.v, unit.w)
        u, v, w = place.frame.local(*(c + d for c, d in zip(corner, step, strict=True)))
        if fine:
            u, v, w = round(u), round(v), round(w)
        else:
            u, w = snapped(self._bench.verdict.assembly, thing, place, u, w)
            v = 0.0 if abs(v) < 25 else round(v / 5.0) * 5.0
        moves_v = abs(step[0 if place.bay.side == "rear" else 1]) > 0
        v = v if moves_v else unit.v
        w = w if step[2] else unit.w
        if self._bench.also and unit.id in self._bench.chosen():
            by = (u - unit.u, v - unit.v, w - unit.w)
            settled, keys = self._bench.history.settled, self._bench.chosen()
            self._preview(lambda: layouts.shifted(settled, keys, *by))
            return
        self._preview(lambda: edits.changed(self._bench.history.settled, unit.id, u=u, v=v, w=w))

    def _preview(self, make: Callable[[], Job]) -> None:
        try:
            self._bench.preview(make())
        except UserError as trouble:
            self._bench.say(str(trouble), trouble=True)

    def release(self) -> None:
        """Let go of a thing of the job."""
        if self.active and self._start is not None and not self._stores:
            self._bench.settle(f"move {self._start.name}")
        self._forget()

    def cancel(self) -> None:
        """Let go without a trace."""
        self._bench.cancel()
        self._forget()

    def _forget(self) -> None:
        self.held = self.active = False
        self.holds, self._stores = "", ""
        self._start = self._place = self.view = None
        self._free = None

    # Things from the stores

    def carry(self, key: str, view: View, at: Point, over: bool) -> None:
        """Hold a thing from the stores at a point of the elevation. [mm]"""
        made = self._bench.entry(key).make
        self.held = self.active = True
        self._stores, self.view, self._over = key, view, over
        self.holds = TRIAL
        if not over:
            self._bench.cancel()
            return
        if isinstance(made, Carried):
            item = _at_hand(made, view, at)
            self._preview(lambda: edits.added(self._bench.history.settled, item.but(id=TRIAL)))
            return
        side = self._bench.look.station
        place = self._bay_under(view, at, side)
        if place is None:
            self._bench.cancel()
            return
        trial = trial_thing(made.but(id=TRIAL, bay=place.bay.id), self._bench.verdict.assembly)
        e = trial.envelope
        depth = e.centre()
        point = [depth[0], depth[1], depth[2]]
        point[view.h[0]] = at[0] * view.h[1]
        point[view.k[0]] = at[1] * view.k[1]
        u, _v, w = place.frame.local(point[0], point[1], point[2])
        own = trial.expansion.envelope
        u, w = snapped(
            self._bench.verdict.assembly, trial, place, u - own.x1 / 2, w - own.z1 / 2, 60
        )
        unit = made.but(id=TRIAL, bay=place.bay.id, u=u, w=w)
        self._preview(lambda: edits.added(self._bench.history.settled, unit))

    def _bay_under(self, view: View, at: Point, side: str) -> BayPlace | None:
        for place in self._bench.verdict.assembly.ground.bays.values():
            if place.bay.side != side:
                continue
            h0, k0, h1, k1 = view.rect(place.frame.box(place.size))
            if h0 - 120 <= at[0] <= h1 + 120 and k0 - 120 <= at[1] <= k1 + 160:
                return place
        return None

    def drop(self) -> str:
        """Put down what came from the stores; gives its new id, or nothing where it fits nowhere."""
        thing = self._bench.history.job.thing(TRIAL)
        key, over = self._stores, self._over
        self._bench.cancel()
        self._forget()
        if thing is None:
            if key and over:
                made = self._bench.entry(key).make
                self._bench.say(f"{made.name} was let go outside the bays; nothing was placed.")
            return ""
        made = self._bench.entry(key).make
        new = thing.but(id=edits.free_id(self._bench.job, made.id))
        self._bench.edit(f"place {new.name}", edits.added(self._bench.job, new))
        self._bench.select(new.id)
        return new.id

    # Where does it fit?

    def free_scene(self, view: View) -> Scene:
        """Draw the free places of what is held, in every bay seen from here."""
        bench = self._bench
        assembly = bench.verdict.assembly
        station = bench.look.station
        held = assembly.thing(self.holds)
        # Where it may stand hangs on the others, on its size and depth, and not on where the hand has it.
        others = tuple(t for t in assembly.things if t.id not in (self.holds, TRIAL))
        what = (
            self._stores,
            station,
            held and id(held.expansion),
            getattr(held and held.value, "v", 0.0),
        )
        known = self._free
        same = known is not None and known[0] == what and len(known[1]) == len(others)
        if (
            known is not None
            and same
            and all(a is b for a, b in zip(known[1], others, strict=True))
        ):
            return known[2]
        scene: Scene = ()
        for place in assembly.ground.bays.values():
            if place.bay.side != station:
                continue
            thing = self._thing_in(place)
            if thing is None:
                continue
            v = getattr(thing.value, "v", 0.0)
            space = free_space(assembly, thing, place, v, leave_out=(TRIAL,))
            scene += free_places(space, thing, assembly, view)
        self._free = (what, others, scene)
        return scene

    def _thing_in(self, place: BayPlace) -> Thing | None:
        """Give what is held as a thing in a bay; nothing for a carried item or the wrong bay."""
        if self._stores:
            made = self._bench.entry(self._stores).make
            if isinstance(made, Carried):
                return None
            return trial_thing(made.but(id=TRIAL, bay=place.bay.id), self._bench.verdict.assembly)
        thing = self._bench.verdict.assembly.thing(self.holds)
        if thing is None or thing.place is None or thing.place.bay.id != place.bay.id:
            return None
        return thing


def _at_hand(item: Carried, view: View, at: Point) -> Carried:
    """Put a carried item's middle under the hand, on 5 mm."""
    h = round(at[0] * view.h[1] / 5) * 5.0
    z = round((at[1] - item.height / 2) / 5) * 5.0
    return item.but(x=h, z=z) if view.h[0] == 0 else item.but(y=h, z=z)
