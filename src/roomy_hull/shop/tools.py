"""A shop's tools: what it cuts, bends, saws and joins with, and what each of them can do."""

import math

import msgspec


class Brake(msgspec.Struct, frozen=True):
    """A press brake, or a folder that is told as one.

    Attributes:
        bed: The longest bend. [mm]
        force: What it presses with at most. [kN]
        dies: Openings of its V dies. [mm]
        die_height: From the bed to a die's top: what is bent down may hang so far. [mm]
        die_width: A die's block is so much wider than its opening. [mm]
        punch_width: Of a punch's blade, above its tip. [mm]
        punch_height: From its tip to the beam, its holder included: so deep may a closed box be. [mm]
        beam_width: Of the beam above it. [mm]
        segments: Lengths of punch from which one is put together. [mm]
    """

    bed: float
    force: float
    dies: tuple[float, ...]
    die_height: float
    die_width: float
    punch_width: float
    punch_height: float
    beam_width: float
    segments: tuple[float, ...]

    def box_depth(self, thickness: float) -> float:
        """How deep a box closed all round can be bent in one piece.

        Args:
            thickness: Of its sheet. [mm]
        Returns:
            A flange that stands at a bend's end rises to √2 times its height as its wing swings up by 45 degrees,
            beside the beam a little more: (H + T - B/2) / √2. [mm]
        """
        return (self.punch_height + thickness - self.beam_width / 2) / math.sqrt(2)

    def channel_depth(self, thickness: float, base: float) -> float:
        """How deep a channel of two flanges can be bent, the second after the first.

        Args:
            thickness, base: Of its sheet; outside width of its base. [mm]
        Returns:
            The first flange swings with the base to 45 degrees, its tip at (base - h)/√2 beside and (base + h)/√2
            above the bend: beside the beam, or below it and beside the punch. [mm]
        """
        beside = base - (self.beam_width / 2 + thickness) * math.sqrt(2)
        below = min(
            (self.punch_height + thickness) * math.sqrt(2) - base,
            base - (self.punch_width / 2 + thickness) * math.sqrt(2),
        )
        return max(0.0, beside, below)


class Cutter(msgspec.Struct, frozen=True):
    """What sheets are cut with: ``laser``, ``plasma``, ``router`` or ``shear``, which cuts from edge to edge only.

    `uncertainty` is one sigma of a cut edge. [mm] `speed` in m/min, `pierce` in s.
    """

    kind: str
    uncertainty: float = msgspec.field(name="doubt")
    speed: float
    pierce: float


class Saw(msgspec.Struct, frozen=True):
    """What bars are sawn with: the steepest mitre, the largest side, one sigma of a length. [degree, mm]"""

    mitre: float
    largest: float
    uncertainty: float = msgspec.field(name="doubt")


class Joining(msgspec.Struct, frozen=True):
    """How a shop joins, where a part does not say.

    Attributes:
        rivet, rivet_hole, rivet_pitch: Blind rivets: diameter, the hole drilled for it, how far apart at most. [mm]
        bolt, bolt_hole, bolt_pitch: Bolts, where what is joined comes apart again. [mm]
        screw, screw_pitch: Wood screws in ply. [mm]
        edge: From a fastener's middle to an edge, at least: this many of its diameters.
        stitch, stitch_pitch: A stitch of weld, and from the beginning of one to that of the next. [mm]
        full_to: A seam no longer than this is welded whole. [mm]
    """

    rivet: float
    rivet_hole: float
    rivet_pitch: float
    bolt: float
    bolt_hole: float
    bolt_pitch: float
    screw: float
    screw_pitch: float
    edge: float
    stitch: float
    stitch_pitch: float
    full_to: float


class Uncertainties(msgspec.Struct, frozen=True):
    """One sigma of what making adds to a size: a bend, its angle, a weld's pull, putting together. [mm, degree]"""

    bend: float
    angle: float
    weld: float
    assembly: float


class Tools(msgspec.Struct, frozen=True):
    """A shop's tools."""

    brake: Brake
    cutter: Cutter
    saw: Saw
    joining: Joining
    uncertainties: Uncertainties = msgspec.field(name="doubts")
    source: str
