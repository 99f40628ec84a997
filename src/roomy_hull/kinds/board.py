"""Board: a panel of sheet with cut-outs for gauges, switches, outlets and breakers, and the room behind it."""

from typing import Annotated, Literal, NamedTuple

from msgspec import Meta

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.core.poses import FACE, at
from roomy_hull.core.primitives import Disc, Scene, Stroke, Words, line, rectangle
from roomy_hull.core.value import BentSheet, Id, Mm, Name, Value
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, Zone, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, SheetMaterial

InstrumentKind = Literal[
    "gauge", "meter", "switch", "socket", "twin socket", "breaker", "main switch", "mains outlet", "tank gauge",
]  # fmt: skip


class Cut(NamedTuple):
    """What an instrument wants: its hole, its rim over the sheet, the depth behind, its mass. [mm, kg]

    A round hole has no `high`.
    """

    wide: float
    high: float
    rim: tuple[float, float]
    behind: float
    kg: float


CUTS: dict[str, Cut] = {
    "gauge": Cut(52.0, 0.0, (60.0, 60.0), 55.0, 0.12), "meter": Cut(90.0, 48.0, (98.0, 56.0), 35.0, 0.15),
    "switch": Cut(37.0, 21.0, (45.0, 29.0), 40.0, 0.03), "socket": Cut(29.0, 0.0, (40.0, 40.0), 60.0, 0.06),
    "twin socket": Cut(29.0, 0.0, (40.0, 64.0), 45.0, 0.08), "breaker": Cut(18.0, 45.0, (24.0, 51.0), 70.0, 0.10),
    "main switch": Cut(45.0, 0.0, (70.0, 70.0), 60.0, 0.25), "mains outlet": Cut(56.0, 56.0, (80.0, 80.0), 50.0, 0.15),
    "tank gauge": Cut(44.0, 22.0, (54.0, 32.0), 30.0, 0.05),
}  # fmt: skip
"""Usual cut-outs of what is sold (common practice); the size on the device in hand decides. [mm, kg]"""
PITCH = 5.0
"""Instruments stand on a grid. [mm]"""
LOOM = 20.0
"""The bundle of wires behind a board is so thick (common practice). [mm]"""
EDGE = 12.0
"""A hole keeps so far from the edge of the sheet or from a bend (common practice). [mm]"""


class Instrument(Value, frozen=True, kw_only=True):
    """Something let into a board, its middle at x from the left and z from below as one faces it. [mm]

    Where the one in hand wants another hole, `wide`, `high` and `behind` say so; 0 is the usual one's.
    """

    id: Id
    name: Annotated[Name, shown("What it says")] = ""
    what: Annotated[InstrumentKind, shown("Description", "Decides its hole")] = "switch"
    x: Annotated[Mm, shown("From the left", "Its middle")] = 50.0
    z: Annotated[Mm, shown("From below", "Its middle")] = 50.0
    wide: Annotated[
        float,
        Meta(ge=0, le=400, description="mm; 0 for the usual"),
        shown("Hole wide", "0 for the usual one; measure the one in hand"),
    ] = 0.0
    high: Annotated[
        float, Meta(ge=0, le=400, description="mm; 0 for the usual, or round"), shown("Hole high", "0 for round")
    ] = 0.0  # fmt: skip
    behind: Annotated[
        float, Meta(ge=0, le=600, description="mm; 0 for the usual"), shown("Deep behind", "0 for the usual")
    ] = 0.0  # fmt: skip

    @property
    def cut(self) -> Cut:
        """Its hole, rim, depth and mass. [mm, kg]"""
        usual = CUTS[self.what]
        wide, high = (self.wide, self.high) if self.wide else (usual.wide, usual.high)
        rim = (
            max(usual.rim[0], wide + 6.0) if self.wide else usual.rim[0],
            max(usual.rim[1], (high or wide) + 6.0) if self.wide else usual.rim[1],
        )
        return Cut(wide, high, rim, self.behind or usual.behind, usual.kg)

    @property
    def hole(self) -> tuple[float, float, float, float]:
        """The rectangle around its hole: x0, z0, x1, z1. [mm]"""
        c = self.cut
        high = c.high or c.wide
        return (self.x - c.wide / 2, self.z - high / 2, self.x + c.wide / 2, self.z + high / 2)

    @property
    def rim(self) -> tuple[float, float, float, float]:
        """The rectangle that it covers on the sheet: x0, z0, x1, z1. [mm]"""
        a, b = self.cut.rim
        return (self.x - a / 2, self.z - b / 2, self.x + a / 2, self.z + b / 2)

    def lies_over(self, other: "Instrument") -> bool:
        """Whether its rim and another's share room."""
        p, q = self.rim, other.rim
        return min(p[2], q[2]) > max(p[0], q[0]) + 1e-6 and min(p[3], q[3]) > max(p[1], q[1]) + 1e-6


class Board(Placed, frozen=True, kw_only=True, tag_field="kind", tag="board"):
    """A panel with four flanges, screwed into its place by them; `depth` is the room from its face to what is behind."""

    sheet: Annotated[BentSheet, shown("Sheet")] = 2.0
    flange: Annotated[
        float,
        Meta(ge=0, le=100, description="mm, 0 for a flat one"),
        shown("Flanges", "By which it is screwed in; 0 for a flat panel"),
    ] = 20.0
    instruments: Annotated[tuple[Instrument, ...], Meta(max_length=60)] = ()
    material: SheetMaterial = "5052-H32"

    def __post_init__(self) -> None:
        """Refuse ids that stand twice.

        Raises:
            ValueError: Names the id.
        """
        ids = [i.id for i in self.instruments]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(f"the id '{one}' stands twice on the board {self.id}")


def edge(unit: Board, site: Site) -> float:
    """How far a hole keeps from the outside of the panel: clear of the bend. [mm]"""
    bend = site.material(unit.material).bend_radius_per_t * unit.sheet + unit.sheet
    return EDGE + (bend if unit.flange > 0 else 0.0)


def trouble(unit: Board, keep: float) -> str:
    """Say which instrument cannot be cut where it is.

    Args:
        unit: The board. [mm]
        keep: From `edge`. [mm]
    Returns: A hole over the edge, or two rims over each other; empty where all is well.
    """
    for one in unit.instruments:
        x0, z0, x1, z1 = one.hole
        if (
            x0 < keep - 1e-6
            or z0 < keep - 1e-6
            or x1 > unit.width - keep + 1e-6
            or z1 > unit.height - keep + 1e-6
        ):
            return f"the {one.what} '{one.name or one.id}' is less than {keep:.0f} mm from the panel's edge"
    for n, a in enumerate(unit.instruments):
        for b in unit.instruments[n + 1 :]:
            if a.lies_over(b):
                return f"'{a.name or a.id}' and '{b.name or b.id}' lie over each other"
    return ""


def expand(unit: Board, site: Site) -> Expansion:
    """Write a board out.

    Args:
        unit: The board. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its panel with every hole, what stands behind it, masses, parts and elevation.
    Raises:
        InputError: A hole lies over the edge or a bend, or two instruments lie over each other.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    wrong = trouble(unit, edge(unit, site))
    if wrong:
        raise InputError(
            wrong, place=unit.name, remedy="Move one of them, or make the board larger."
        )
    f = min(unit.flange, d) if unit.flange > t + 0.5 else 0.0
    # FACE lies with its y downward: what is measured from below is measured from the other edge there.
    holes = tuple(Hole(i.x, h - i.z, i.cut.wide) for i in unit.instruments if not i.cut.high)
    cutouts = tuple(
        Cutout(i.hole[0], h - i.hole[3], i.cut.wide, i.cut.high, min(2.0, i.cut.wide / 4, i.cut.high / 4))
        for i in unit.instruments if i.cut.high
    )  # fmt: skip
    panel = SheetPart(
        f"{unit.name}: panel", unit.ref, w, h, t, site.material(unit.material), left=f, right=f, front=f, back=f,
        holes=holes, cutouts=cutouts, poses=(at(0.0, 0.0, h, FACE),),
    )  # fmt: skip
    bought = tuple(
        Hardware(f"{i.what}: {i.name or i.id}", unit.ref, fix="clamped", opening=True,
                 places=(Box(i.hole[0] + 1, 0.0, i.hole[1] + 1, i.hole[2] - 1, max(t + 1.0, i.cut.behind), i.hole[3] - 1),))
        for i in unit.instruments
    )  # fmt: skip
    solids = list(made(panel))
    masses = list(sheet_masses((panel,), unit, (w / 2, d / 2, h / 2)))
    for i in unit.instruments:
        x0, z0, x1, z1 = i.hole
        solids.append(Solid(Box(x0, t, z0, x1, max(t + 1.0, i.cut.behind), z1), "bought"))
        masses.append(
            PointMass(
                i.name or i.what, i.cut.kg, "data sheet", (i.x, min(d, i.cut.behind) / 2, i.z)
            )
        )
    # What is behind needs its room: the loom lies at the back of it.
    solids.append(
        Solid(
            Box(f, max(t, d - LOOM), min(f, h / 4), w - f, d, min(f, h / 4) + min(LOOM, h / 4)),
            "bought",
        )
    )
    zones = (Zone(Box(0, -60.0, 0, w, 0, h), "service"),) if unit.instruments else ()
    return Expansion(
        tuple(solids), zones, tuple(masses), (panel, *bought), Box(0, 0, 0, w, d, h), elevation(unit)
    )  # fmt: skip


def turned(unit: Board) -> dict[str, object]:
    """What changes as the board is mirrored: every instrument's place, from the other edge."""
    return {"instruments": tuple(i.but(x=unit.width - i.x) for i in unit.instruments)}


def too_deep(unit: Board) -> tuple[Instrument, ...]:
    """Those that reach further back than there is room behind the panel."""
    return tuple(i for i in unit.instruments if i.cut.behind > unit.depth + 1e-6)


def elevation(unit: Board) -> Scene:
    """Draw the panel with its instruments."""
    found: list[Stroke] = [rectangle("front", 0, 0, unit.width, unit.height, 6)]
    for i in unit.instruments:
        found += instrument(i)
    return tuple(found)


def instrument(i: Instrument) -> list[Stroke]:
    """Draw one instrument on the panel's face. [mm]"""
    x0, z0, x1, z1 = i.rim
    c = i.cut
    if c.high:
        body: list[Stroke] = [
            rectangle("bought", x0, z0, x1, z1, 3),
            rectangle("recess", *i.hole, 2),
        ]
    else:
        body = [rectangle("bought", x0, z0, x1, z1, min(x1 - x0, z1 - z0) / 2),
                Disc("recess", (i.x, i.z), c.wide / 2)]  # fmt: skip
    if i.what == "gauge":
        body.append(line("detail", (i.x, i.z), (i.x + c.wide * 0.3, i.z + c.wide * 0.3)))
    elif i.what == "main switch":
        body.append(rectangle("lamp red", i.x - 6, i.z - 20, i.x + 6, i.z + 20, 4))
    elif i.what in ("meter", "tank gauge"):
        body.append(rectangle("screen", *i.hole, 2))
    elif i.what in ("socket", "twin socket", "mains outlet"):
        body += [Disc("screen", (i.x - 6, i.z), 3), Disc("screen", (i.x + 6, i.z), 3)]
    if i.name:
        body.append(Words("detail words", (i.x, z0 - 7), i.name[:14], 8.0, fixed=False))
    return body


def offers() -> tuple[Offer, ...]:
    """List the boards in the stores."""
    first = (
        Instrument(id="main", name="Main", what="main switch", x=70, z=140),
        Instrument(id="volts", name="Volts", what="gauge", x=160, z=145),
        Instrument(id="lights", name="Lights", what="switch", x=60, z=60),
        Instrument(id="pump", name="Pump", what="switch", x=120, z=60),
        Instrument(id="usb", name="USB", what="twin socket", x=185, z=60),
    )  # fmt: skip
    return (
        offer(Board, "board", "Power", "Board", (250, 120, 200),
              "Gauges, switches and sockets in one panel that is cut with the rest", sheet=2.0, instruments=first),
    )  # fmt: skip


def says(unit: Board, _side: str = "") -> Capabilities:
    """What it is to everybody else: switches and breakers, what reaches too far back."""
    deep = tuple((i.name or i.what, i.cut.behind, unit.depth) for i in too_deep(unit))
    return Capabilities(roles=frozenset({"fuse board"}), ignites=True, hurt_by_water=True, looked_at=True, whole=True,
                        too_deep=deep)  # fmt: skip


KIND = Kind(
    Board, expand, offers, rank=15, hangs=True, turned=turned, stance="hang", carries=False, says=says,
)  # fmt: skip
