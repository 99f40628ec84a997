"""The page Strength: mounts, slides, members, struts and racks, the most used first, each with its sum."""

import msgspec

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.refs import CANOPY, Ref
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import chart
from roomy_hull.session.actions import editing
from roomy_hull.session.marks import strong
from roomy_hull.session.pages.rack_words import rack_sum
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import Rules
from roomy_hull.studies.strength.carrying import Carrying
from roomy_hull.studies.strength.members import MemberCheck
from roomy_hull.studies.strength.mounts import GRADE, MountCheck
from roomy_hull.studies.strength.racks import RackCheck
from roomy_hull.studies.strength.struts import StrutCheck
from roomy_hull.tables.column import Cell

Check = MountCheck | MemberCheck | StrutCheck | RackCheck


class Row(msgspec.Struct, frozen=True):
    """One check in the list: which kind, of what, in words, how far it is used."""

    kind: str
    owner: Ref
    name: str
    words: str
    use: float
    check: Check


def rows_of(found: Carrying, rules: Rules) -> list[Row]:
    """List every check, the most used first.

    Args:
        rules: Of the shop: what a hand may have to pull. [N]
    """
    rows: list[Row] = []
    for m in found.mounts:
        way = m.worst()
        words = f"{m.words}, {way.way}" if m.words else f"hold {way.force:,.0f} N {way.way}"
        rows.append(Row("Mount", m.ref, m.name, words, way.use, m))
        if m.slide is not None:
            s = m.slide
            rows.append(
                Row("Slide", m.ref, m.name, f"{s.load:.0f} kg × {s.factor:g} of {s.rating:.0f}",
                    s.load * s.factor / s.rating if s.rating else s.use, m)
            )  # fmt: skip
    for c in found.all_members():
        rows.append(Row("Member", c.owner, c.name, c.what, c.use(), c))
    for d in found.struts:
        use = 1.01 if not d.stays or d.trouble else max(d.lift, d.draw) / rules.hand_pull
        words = "proposed" if d.proposed else f"{d.strut.count} × {d.strut.force:.0f} N"
        rows.append(Row("Strut", CANOPY, f"Door {d.door}", words, use, d))
    for k in found.racks:
        worst = k.worst()
        rows.append(
            Row(
                "Rack",
                k.rack,
                k.name,
                worst.words if worst is not None else k.trouble,
                _rack_use(k),
                k,
            )
        )
    return sorted(rows, key=lambda r: -r.use)


def _rack_use(c: RackCheck) -> float:
    """How far a rack is used: of what its bars may bear, or of what it is rated for."""
    worst = c.worst()
    uses = [worst.use if worst is not None else 1.01]
    uses += [kg / most for kg, most in ((c.kg, c.rating), (c.still_kg, c.rating_still)) if most]
    return max(uses)


class StrengthModel:
    """What the page lists, which check is chosen, and its sum."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.at = 0
        self.kind = ""

    def rows(self) -> list[Row]:
        """List the checks of the chosen kind, or all."""
        session = self._session
        rows = rows_of(session.known.carrying, session.shop.rules)
        return [r for r in rows if self.kind in ("", r.kind)]

    def cells(self) -> list[list[Cell]]:
        """Lay the checks out as a table: kind, what, in words, used."""
        found: list[list[Cell]] = []
        for r in self.rows():
            severity = "stop" if r.use > 1 and r.kind != "Strut" else "look" if r.use > 1 else ""
            use = f"{r.use:.0%}" if r.use or r.kind != "Mount" else "–"
            found.append([(r.kind, ""), (r.name, severity), (r.words, ""), (use, severity)])
        return found

    def only(self, kind: str) -> None:
        """List one kind of check, or all."""
        self.kind, self.at = kind, 0

    def choose(self, row: int) -> None:
        """Choose a check, and select the thing that it is of."""
        rows = self.rows()
        if 0 <= row < len(rows):
            self.at = row
            owner = rows[row].owner
            if owner.is_thing:
                self._session.selection.select(owner.id)

    def chosen(self) -> Row | None:
        """Find the chosen check; none where nothing carries anything."""
        rows = self.rows()
        self.at = min(self.at, max(0, len(rows) - 1))
        return rows[self.at] if rows else None

    def proposal(self) -> StrutCheck | None:
        """Find the proposed struts that are chosen."""
        row = self.chosen()
        check = row.check if row is not None else None
        return check if isinstance(check, StrutCheck) and check.proposed else None

    def fit_proposal(self) -> None:
        """Put the chosen proposal into the job."""
        check = self.proposal()
        if check is not None:
            path = f"{self._session.job.body.path_of_door(check.door)}.strut"
            editing.set_size(self._session, path=path, value=check.strut)

    def words(self) -> str:
        """Write out how the chosen check comes about, with marks."""
        row = self.chosen()
        if row is None:
            return "Nothing here carries anything yet. Place units in Fit-out."
        return "\n".join([strong(f"{row.kind}: {row.name}"), *self._sum(row)])

    def _sum(self, row: Row) -> list[str]:
        """Write one check's sum, line by line."""
        if isinstance(row.check, MemberCheck):
            return self._member(row.check)
        if isinstance(row.check, StrutCheck):
            return self._strut(row.check)
        if isinstance(row.check, RackCheck):
            return rack_sum(self._session, row.check)
        return self._slide(row.check) if row.kind == "Slide" else self._mount(row.check)

    def _mm(self, value: float) -> str:
        return show(value, "length", self._session.look.system)

    def _kg(self, value: float) -> str:
        return show(value, "mass", self._session.look.system)

    def _member(self, c: MemberCheck) -> list[str]:
        rules = self._session.shop.rules
        where = "beside its weld" if c.welded else "away from welds"
        return [
            f"{c.what.capitalize()}: {c.form}.",
            f"Load: {c.load}.",
            f"Stress {strong(f'{c.stress:,.0f}')} of {c.allowed:,.0f} MPa (yield {where} over "
            f"{rules.member_safety:g}).",
            f"Sag at rest {strong(f'{c.sag:,.1f}')} of {c.allowed_sag:,.1f} mm (span/{rules.sag_share:g}).",
        ]

    def _strut(self, c: StrutCheck) -> list[str]:
        rules, s = self._session.shop.rules, c.strut
        stays = "Stays open" if c.stays else f"Does {strong('not')} stay open"
        return [
            f"Leaf {self._kg(c.mass)}, {self._mm(c.height)} high; {s.count} struts of {s.force:.0f} N"
            + (f" {strong('(a proposal)')}" if c.proposed else ""),
            f"Studs: {self._mm(s.body)} under the hinge on the body, {self._mm(s.leaf)} along the leaf; "
            f"{self._mm(c.closed)} closed, {self._mm(c.opened)} open.",
            f"{c.trouble[:1].upper()}{c.trouble[1:]}." if c.trouble else
            f"{stays} on a side slope of {rules.slope:g}° and at {rules.cold:g} °C.",
            f"At most {c.lift:,.0f} N to lift and {c.draw:,.0f} N to draw down, at its edge.",
        ]  # fmt: skip

    def _slide(self, c: MountCheck) -> list[str]:
        rules, s = self._session.shop.rules, c.slide
        if s is None:
            return []
        lock = "its lock holds it." if s.locks else strong("and it has no lock.")
        return [
            f"Moving {self._kg(s.load)} × {s.factor:g} on a rough road, rated {self._kg(s.rating)}.",
            f"Fully out its middle stands {self._mm(s.overhang)} before the face: {s.moment:,.0f} N·m to be held "
            f"at the back, {s.tension:,.0f} N a bolt ({s.use:.1%}).",
            f"On a slope of {rules.slope:g}°: {s.pull:,.0f} N to draw it out uphill (one hand: "
            f"{rules.hand_pull:g} N); downhill it runs with {s.runs:,.0f} N, {lock}",
        ]

    def _mount(self, c: MountCheck) -> list[str]:
        held = (
            f"; {c.words}{f' {GRADE}' if c.bolts else ''}."
            if c.words
            else "; nobody has said what holds it:"
        )
        lines = [f"{self._kg(c.kg)} full, its middle {self._mm(c.height)} over its base{held}"]
        for way in c.ways:
            tips = f", tips with {way.tips:,.0f} N·m" if way.tips else ""
            use = ""
            if c.words:
                each = f"a {c.held.what or 'bolt'}" if c.held is not None else ""
                use = f": {way.shear:,.0f} N level, {way.tension:,.0f} N pull {each}, {strong(f'{way.use:.1%}')}"
            lines.append(f"{way.way.capitalize()} {way.factor:g} g, {way.force:,.0f} N{tips}{use}")
        lines.append(
            "Factors: Load Restraint Guide, EN 12195-1 (from memory). No friction counted."
        )
        return lines

    def swing(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Chart the force at the chosen door's edge over its swing; nothing for another check."""
        row = self.chosen()
        if row is None or not isinstance(row.check, StrutCheck):
            return "", None
        swing = row.check.swing
        ring = [(i.angle, i.high) for i in swing] + [(i.angle, i.low) for i in reversed(swing)]
        hand = self._session.shop.rules.hand_pull
        near = max(i.high for i in swing) > hand * 0.6
        levels = (chart.Level(hand, f"one hand {hand:g} N"),) if near else ()
        drawn = chart.scene(
            chart.Chart("door, degrees from closed", "N at its edge: above 0 it wants to fall",
                        (chart.Curve("curve 1", tuple((i.angle, i.hold) for i in swing), "level"),), levels,
                        aspect * 0.92, band=tuple(ring), room=80)
        )  # fmt: skip
        return "Over the swing; shaded: slope both ways and cold", drawn
