"""The page Progress: the vehicle as it grows."""

from roomy_hull.core.primitives import Panel, Rect, Scene
from roomy_hull.core.refs import Ref
from roomy_hull.drawing.scenes import growing
from roomy_hull.job.releases import STATES, PartState
from roomy_hull.making.works import works_of
from roomy_hull.planning.op import owner_key
from roomy_hull.planning.progress import fitted, part_states
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.session import Session
from roomy_hull.tables.build import said
from roomy_hull.tables.column import Cell


class ProgressModel:
    """How far every part has come, drawn where it stands."""

    heads = ("Operation", "How much", "Planned, h", "Worked, h", "")

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[object, dict[tuple[Ref, str], PartState]] | None = None

    def states(self) -> dict[tuple[Ref, str], PartState]:
        """How far each owner's part has come: by the last release, or by the work that is logged, whichever is further."""
        session = self._session
        if self._of is None or self._of[0] is not session.known:
            works = works_of(session.known.assembly)
            self._of = session.known, part_states(session.job, works, built(session))
        return self._of[1]

    def done(self) -> frozenset[str]:
        """Operations that are finished."""
        return frozenset(built(self._session).state.done)

    def fitted(self) -> frozenset[str]:
        """Bought and carried things that are in their places."""
        return fitted(built(self._session))

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the vehicle as far as it has grown."""
        session = self._session
        side = (
            session.look.station if session.look.station in ("left", "right", "rear") else "right"
        )
        assembly = session.known.assembly
        scene = growing.growing(
            assembly, works_of(assembly), self.states(), self.fitted(), side, session.selection.key
        )
        shown = growing.grown_frame(assembly, side)
        title = f"{session.job.vehicle.name} as it stands in the shop, {side} side"
        return title, (scene + growing.legend(shown), shown)

    def at(self, scene: Scene, h: float, k: float) -> str:
        """The id of the foremost thing at a place of the drawing; empty for none."""
        hits = [
            s.tag for s in scene
            if isinstance(s, Panel) and s.h0 <= h <= s.h1 and s.k0 <= k <= s.k1
            and self._session.job.thing(s.tag) is not None
        ]  # fmt: skip
        return hits[-1] if hits else ""

    def counted(self) -> dict[PartState, int]:
        """How many parts have come how far."""
        found: dict[PartState, int] = dict.fromkeys(STATES, 0)
        for state in self.states().values():
            found[state] += 1
        return found

    def words(self) -> str:
        """How far it is, in words."""
        build = built(self._session)
        parts = ", ".join(f"{n} {s}" for s, n in self.counted().items() if n)
        return (
            f"{100 * build.share:.0f} % of the hours are done, {build.worked:.1f} h logged, {build.left:.1f} h to do. "
            "Different parts: "
            f"{parts}. Click a thing on the drawing, then finish its next operation."
        )

    def cells(self) -> list[list[Cell]]:
        """The operations of the selected thing, or all that could be begun now."""
        build = built(self._session)
        rows: list[list[Cell]] = []
        for key in self.keys():
            op = build.ops[key]
            done = build.state.done.get(key, "")
            ready = all(k in build.state.done for k in op.after)
            state = f"done {said(done)}" if done else "can be begun" if ready else "waits"
            bold = "bold" if key == self._session.look.build.op else ""
            rows.append([(op.words, bold), (op.much, ""), (f"{build.hours[key]:.1f}", ""),
                         (f"{build.state.hours.get(key, 0.0):.1f}", ""), (state, "")])  # fmt: skip
        return rows

    def keys(self) -> list[str]:
        """The operation of each row."""
        build, chosen = built(self._session), self._session.selection.key
        if chosen:
            thing = self._session.known.assembly.thing(chosen)
            mark = f"{owner_key(thing.ref)}:" if thing is not None else "-"
            return [k for k in build.ops if k.startswith(mark)]
        open_ = [k for k in build.ops if k not in build.state.done]
        return [k for k in open_ if all(a in build.state.done for a in build.ops[k].after)]
