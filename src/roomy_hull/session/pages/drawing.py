"""The page Drawing: what its two pictures show, without any painting."""

import msgspec

from roomy_hull.assembly.things import Thing
from roomy_hull.core.primitives import Scene, line, rectangle
from roomy_hull.core.refs import Ref
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes import overlays
from roomy_hull.drawing.scenes.around import overall_sizes
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.view import ELEVATION, View
from roomy_hull.session.session import Session
from roomy_hull.session.worn import in_setup, off

WORDS = {
    "left": "Left side", "right": "Right side", "rear": "Rear", "front": "Front", "above": "From above",
    "underneath": "From underneath",
}  # fmt: skip


class DrawingModel:
    """Elevation and slice as seen from where one stands."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._scenes = ground_scene.Backdrops()
        self._still: dict[bool, tuple[Scene, tuple[object, ...], tuple[Thing, ...], Scene]] = {}

    def layers(self, looks: Looks, held: str, *, upper: bool) -> tuple[Scene, Scene]:
        """What stays as it is from one paint to the next, and what is drawn over it.

        While something is dragged, all that it leaves where it is belongs to what stays.
        """
        assembly, station = self._session.sight.assembly, self._session.look.station
        draw = ground_scene.things if upper else ground_scene.slice_things
        # The body as it stands in the set-up; what is off of it is drawn with the things, dashed.
        body = in_setup(self._session).assembly if off(self._session) else assembly
        behind = self._scenes.of(body, station, upper=upper)
        if not held:
            return behind, draw(assembly, station, looks)
        hands = {held, *self._session.selection.also}
        others = tuple(t for t in assembly.things if t.id not in hands)
        known = self._still.get(upper)
        if (
            known is None
            or known[0] is not behind
            or known[1] != (station, looks)
            or len(known[2]) != len(others)
            or any(a is not b for a, b in zip(known[2], others, strict=True))
        ):
            still = msgspec.structs.replace(assembly, things=others)
            known = (behind, (station, looks), others, behind + draw(still, station, looks))
            self._still[upper] = known
        moving = tuple(t for t in assembly.things if t.id in hands)
        return known[3], draw(msgspec.structs.replace(assembly, things=moving), station, looks)

    def title(self) -> str:
        """Say what the elevation shows."""
        look, vehicle = self._session.look, self._session.job.vehicle
        words = WORDS[look.station]
        if look.station in ("left", "right"):
            words += " (driver side)" if look.station == vehicle.drive else " (kerb side)"
        return f"{words} · {vehicle.name}"

    def no_bay(self) -> str:
        """Say how to come by a first bay."""
        words = {"cab-chassis": "a full canopy, or one across the tray", "pickup": "a topper"}
        kind = self._session.job.vehicle.kind
        if kind in words:
            return f"There is no bay for units yet. In the menu Body, fit {words[kind]}."
        return "There is no bay for units yet. Begin a new job with a cargo area."

    def papers(self) -> tuple[Paper, ...]:
        """Draw both pictures for paper, as they are seen."""
        look, assembly = self._session.look, self._session.sight.assembly
        looks = Looks(look.opened, look.stature, off(self._session))
        station = look.station
        upper, lower = ground_scene.frame(assembly, station, whole=look.whole, opened=look.opened)
        elevation = ground_scene.elevation(assembly, station, looks)
        elevation += overall_sizes(assembly, station, whole=look.whole)
        return (
            Paper(
                self.title(),
                elevation + self.overlay(ELEVATION[station], "", dragged=False, upper=True),
                upper,
            ),
            Paper(self.slice_title(), ground_scene.slice_scene(assembly, station, looks), lower),
        )

    def slice_title(self) -> str:
        """Say what the slice shows."""
        flat = self._session.look.station in ("above", "underneath")
        return f"Slice: the same stretch from {'the left' if flat else 'above'}"

    def overlay(self, view: View, holds: str, *, dragged: bool, upper: bool) -> Scene:
        """Findings, selection, free places and gaps as seen in one picture."""
        session = self._session
        assembly = session.sight.assembly
        scene: Scene = ()
        if dragged:
            shown = tuple(
                f for f in session.sight.findings
                if f.severity == "stop" and any(s.is_thing and s.id == holds for s in f.subjects)
            )  # fmt: skip
        else:
            shown = (session.selection.finding,) if session.selection.finding is not None else ()
            shown += tuple(
                f for f in session.sight.open_findings()
                if f.severity == "stop" and f.where and self._faces(f.subjects)
            )  # fmt: skip
        scene += overlays.marks(shown, view)
        for key in session.selection.also:
            other = assembly.thing(key)
            if other is not None and (not upper or self.seen(other)):
                scene += (rectangle("selected", *view.rect(other.envelope), 4),)
        if upper and session.look.page("Fit-out") == "In and out":
            scene += overlays.order_badges(
                assembly, session.known.in_out, view, session.look.station
            )
        thing = assembly.thing(holds or session.selection.key)
        if thing is not None and (not upper or self.seen(thing)):
            h0, k0, h1, k1 = view.rect(thing.envelope)
            scene += (rectangle("selected", h0, k0, h1, k1, 4),)
            if upper and session.look.page("Fit-out") != "In and out":
                scene += overlays.gaps(assembly, thing, view)
            if upper:
                scene += (
                    line("lever", (h0, k0), (h0, -6000)),
                    line("lever", (h1, k0), (h1, -6000)),
                )
            else:
                scene += (line("lever", (h0, k1), (h0, 6000)), line("lever", (h1, k1), (h1, 6000)))
        return scene

    def _faces(self, subjects: tuple[Ref, ...]) -> bool:
        """Say whether a finding's things can be seen from here."""
        things = [self._session.sight.assembly.thing(s) for s in subjects]
        return any(t is not None and self.seen(t) for t in things)

    def seen(self, thing: Thing) -> bool:
        """Say whether a thing can be seen in the elevation from here."""
        station = self._session.look.station
        if thing.place is None or station in ("above", "underneath"):
            return True
        return thing.place.bay.side == station
