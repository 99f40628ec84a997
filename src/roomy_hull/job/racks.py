"""Racks, hoops and the rear wall: what carries things outside, at a pitch."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.refs import Ref
from roomy_hull.core.value import Gap, Id, Kg, Mm, Name, PositiveMm, Sheet, Value
from roomy_hull.job.canopy import check_sections

RackKind = Literal["tub rack", "cab rack", "gap rack", "hoop", "rear wall"]
LEAST_RACK = 80.0


class Rack(Value, frozen=True, kw_only=True):
    """A rack of bars over tub, tray or cab, a hoop, or slotted rails across the canopy's rear. [mm, kg]

    `start` is its front behind the tray's front edge (ahead is negative), `foot` its feet above the tray's floor;
    a rear wall lies on the canopy's rear and has no `start` of its own. `bows` are its cross frames, or a rear
    wall's rails; `cross_bars` lie between the bows. `deck` is what lies on it. Things are fixed at `pitch`. The
    ratings are its maker's or its engineer's, 0 where nobody gave one: the moving one counts on the road, the
    still one when it is camped on.
    """

    id: Id
    name: Annotated[Name, shown("Name")] = "Rack"
    kind: RackKind = "tub rack"
    start: Annotated[
        Mm, shown("Starts", "Behind the tray's front; ahead is negative", when=lambda r: not r.wall)
    ] = 0.0
    across: Annotated[Mm, shown("To the right", "Its middle, from the centre plane")] = 0.0
    foot: Annotated[Mm, shown("Feet at", "Above the tray's floor")] = 0.0
    length: Annotated[PositiveMm, shown("Length", when=lambda r: not r.wall)]
    width: Annotated[PositiveMm, shown("Width")]
    height: Annotated[PositiveMm, shown("Height", "From its feet to its top")]
    bows: Annotated[
        int,
        Meta(ge=1, le=12),
        shown(
            "Bows",
            "Cross frames on posts; rails one above the other",
            said=lambda r: "Rails" if r.wall else "Bows",
        ),
    ] = 3
    cross_bars: Annotated[
        int, Meta(ge=0, le=20), shown("Cross bars", "Between two bows", when=lambda r: r.decked)
    ] = 2
    section: Annotated[Name, shown("Bars", "Such as 40x40x3, the first side upright")] = "40x40x3"
    bar_material: Annotated[Name, shown("… of", quantity="material")] = "6061-T6"
    deck: Annotated[
        Literal["bars", "mesh", "sheet"], shown("Deck", "What lies on its bars", when=lambda r: r.decked)
    ] = "bars"  # fmt: skip
    deck_sheet: Annotated[Sheet, shown("… sheet", when=lambda r: r.decked)] = 3.0
    panels: Annotated[
        Literal["none", "left", "right", "both"],
        shown("Side panels", "They carry cans, a shovel, a case", when=lambda r: r.decked),
    ] = "none"
    panel_height: Annotated[Gap, shown("… height", when=lambda r: r.decked)] = 300.0
    panel_sheet: Annotated[Sheet, shown("… sheet", when=lambda r: r.decked)] = 3.0
    sheet_material: Name = "5052-H32"
    pitch: Annotated[
        float, Meta(ge=15, le=500, description="mm"), shown("Pitch", "Of the holes that things are fixed in")
    ] = 50.0  # fmt: skip
    rating: Annotated[Kg, shown("Rated, moving", "By its maker or an engineer; 0 where nobody rated it")] = 0.0  # fmt: skip
    rating_still: Annotated[Kg, shown("Rated, still", "For sleeping on it; 0 where nobody rated it")] = 0.0  # fmt: skip

    @property
    def wall(self) -> bool:
        """Whether it is slotted rails on a rear wall."""
        return self.kind == "rear wall"

    @property
    def decked(self) -> bool:
        """Whether things lie on it: it has cross bars, a deck and side panels."""
        return self.kind in ("tub rack", "cab rack", "gap rack")

    def __post_init__(self) -> None:
        """Refuse bars whose section cannot be read, and a rack smaller than its own bars.

        Raises:
            ValueError: Names the rack and the remedy.
        """
        check_sections(f"rack {self.id}", self.section)
        across = self.width if self.wall else min(self.width, self.height)
        if across < LEAST_RACK:
            raise ValueError(
                f"rack {self.id}: {self.width:g} wide and {self.height:g} high leaves no room between its bars; "
                f"make it {LEAST_RACK:g} or more each way"
            )
        if self.decked and self.bows < 2:
            raise ValueError(f"rack {self.id}: a {self.kind} stands on two bows at least")
        if self.decked and self.length < LEAST_RACK:
            raise ValueError(
                f"rack {self.id}: {self.length:g} long holds no two bows; make it longer"
            )
        self._check_spacing()
        if self.panels != "none" and self.panel_height > self.height:
            raise ValueError(
                f"rack {self.id}: its panels of {self.panel_height:g} are higher than the rack's {self.height:g}"
            )

    def _check_spacing(self) -> None:
        """Refuse more bars than lie beside one another."""
        wide = section_width(self.section)
        room, count = self.length - wide, self.bows - 1
        if self.wall:
            wide = section_height(self.section)
            room = self.height - wide
        elif self.kind != "hoop":
            count *= self.cross_bars + 1
        if count and room / count < wide:
            raise ValueError(
                f"rack {self.id}: so many bars do not lie beside one another; take fewer, or make it larger"
            )

    @property
    def ref(self) -> Ref:
        """What its parts, masses and findings belong to."""
        return Ref("rack", self.id)
