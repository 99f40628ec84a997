"""Holding and moving things: a hand on the drawing, without any painting."""

from collections.abc import Callable

from PyQt6.QtCore import QPointF

from roomy_hull.assembly.assemble import trial_thing
from roomy_hull.assembly.things import Thing
from roomy_hull.core.errors import UserError
from roomy_hull.core.primitives import Point, Scene
from roomy_hull.drawing.scenes.overlays import free_places
from roomy_hull.drawing.view import View
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.registry import Unit
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.session.actions import editing
from roomy_hull.session.finding_room import TRIAL
from roomy_hull.session.session import Session
from roomy_hull.session.snapping import snapped
from roomy_hull.studies.fit.free_space import free_space

THRESHOLD = 4.0
"""A hand that moves less than this only selects. [px]"""


class Drag:
    """What the hand holds. Every move is a preview; letting go makes one step.

    Args:
        session: Whose job is moved.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
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
        self._free: tuple[tuple[object, ...], Expansion | None, tuple[Thing, ...], Scene] | None = (
            None
        )

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
        self._preview(lambda: edits.changed(self._session.history.settled, item.id, x=x, y=y, z=z))

    def _move_unit(self, unit: Unit, step: list[float], fine: bool) -> None:
        place = self._place
        thing = self._session.known.assembly.thing(unit.id)
        if place is None or thing is None:
            return
        corner = place.frame.point(unit.u, unit.v, unit.w)
        u, v, w = place.frame.local(*(c + d for c, d in zip(corner, step, strict=True)))
        if fine:
            u, v, w = round(u), round(v), round(w)
        else:
            u, w = snapped(self._session.known.assembly, thing, place, u, w)
            v = 0.0 if abs(v) < 25 else round(v / 5.0) * 5.0
        moves_v = abs(step[0 if place.bay.side == "rear" else 1]) > 0
        v = v if moves_v else unit.v
        w = w if step[2] else unit.w
        if self._session.selection.also and unit.id in self._session.selection.ids():
            by = (u - unit.u, v - unit.v, w - unit.w)
            settled, keys = self._session.history.settled, self._session.selection.ids()
            self._preview(lambda: layouts.shifted(settled, keys, *by))
            return
        self._preview(lambda: edits.changed(self._session.history.settled, unit.id, u=u, v=v, w=w))

    def _preview(self, make: Callable[[], Job]) -> None:
        try:
            self._session.preview(make())
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)

    def release(self) -> None:
        """Let go of a thing of the job."""
        if self.active and self._start is not None and not self._stores:
            editing.end_gesture(self._session, words=f"move {self._start.name}")
        self._forget()

    def cancel(self) -> None:
        """Let go without a trace."""
        self._session.cancel()
        self._forget()

    def _forget(self) -> None:
        self.held = self.active = False
        self.holds, self._stores = "", ""
        self._start = self._place = self.view = None
        self._free = None

    # Things from the stores

    def carry(self, key: str, view: View, at: Point, over: bool) -> None:
        """Hold a thing from the stores at a point of the elevation. [mm]"""
        made = self._session.catalogue.entry(key).make
        self.held = self.active = True
        self._stores, self.view, self._over = key, view, over
        self.holds = TRIAL
        if not over:
            self._session.cancel()
            return
        if isinstance(made, Carried):
            item = _at_hand(made, view, at)
            self._preview(lambda: edits.added(self._session.history.settled, item.but(id=TRIAL)))
            return
        side = self._session.look.station
        place = self._bay_under(view, at, side)
        if place is None:
            self._session.cancel()
            return
        trial = trial_thing(made.but(id=TRIAL, bay=place.bay.id), self._session.known.assembly)
        e = trial.envelope
        depth = e.centre()
        point = [depth[0], depth[1], depth[2]]
        point[view.h[0]] = at[0] * view.h[1]
        point[view.k[0]] = at[1] * view.k[1]
        u, _v, w = place.frame.local(point[0], point[1], point[2])
        own = trial.expansion.envelope
        u, w = snapped(self._session.known.assembly, trial, place, u - own.x1 / 2, w - own.z1 / 2)
        unit = made.but(id=TRIAL, bay=place.bay.id, u=u, w=w)
        self._preview(lambda: edits.added(self._session.history.settled, unit))

    def _bay_under(self, view: View, at: Point, side: str) -> BayPlace | None:
        for place in self._session.known.assembly.ground.bays.values():
            if place.bay.side != side:
                continue
            h0, k0, h1, k1 = view.rect(place.frame.box(place.size))
            if h0 - 120 <= at[0] <= h1 + 120 and k0 - 120 <= at[1] <= k1 + 160:
                return place
        return None

    def drop(self) -> str:
        """Put down what came from the stores; gives its new id, or nothing where it fits nowhere."""
        thing = self._session.history.job.thing(TRIAL)
        key, over = self._stores, self._over
        self._forget()
        if thing is None:
            self._session.cancel()
            if key and over:
                made = self._session.catalogue.entry(key).make
                self._session.say(f"{made.name} was let go outside the bays; nothing was placed.")
            return ""
        made = self._session.catalogue.entry(key).make
        return str(editing.put_down(self._session, thing=thing.but(id=made.id)))

    # Where does it fit?

    def free_scene(self, view: View) -> Scene:
        """Draw the free places of what is held, in every bay seen from here."""
        session = self._session
        assembly = session.known.assembly
        station = session.look.station
        held = assembly.thing(self.holds)
        # Where it may stand depends on the others, on its size and depth, and not on where the hand has it.
        others = tuple(t for t in assembly.things if t.id not in (self.holds, TRIAL))
        own = held.expansion if held is not None else None
        what = (self._stores, station, getattr(held and held.value, "v", 0.0))
        known = self._free
        if (
            known is not None
            and known[0] == what
            and known[1] is own
            and len(known[2]) == len(others)
            and all(a is b for a, b in zip(known[2], others, strict=True))
        ):
            return known[3]
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
        self._free = (what, own, others, scene)
        return scene

    def _thing_in(self, place: BayPlace) -> Thing | None:
        """What is held as a thing in a bay; nothing for a carried item or the wrong bay."""
        if self._stores:
            made = self._session.catalogue.entry(self._stores).make
            if isinstance(made, Carried):
                return None
            return trial_thing(made.but(id=TRIAL, bay=place.bay.id), self._session.known.assembly)
        thing = self._session.known.assembly.thing(self.holds)
        if thing is None or thing.place is None or thing.place.bay.id != place.bay.id:
            return None
        return thing


def _at_hand(item: Carried, view: View, at: Point) -> Carried:
    """Put a carried item's middle under the hand, on 5 mm."""
    h = round(at[0] * view.h[1] / 5) * 5.0
    z = round((at[1] - item.height / 2) / 5) * 5.0
    return item.but(x=h, z=z) if view.h[0] == 0 else item.but(y=h, z=z)
