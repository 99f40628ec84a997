"""What was measured on the vehicle: readings as they were taken, kept with the job."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Id, Mm, Name, Value


class Reading(Value, frozen=True, kw_only=True):
    """One reading of one measure. `sigma` is its one-sigma doubt, 0 for the usual one. [mm]"""

    measure: Id
    value: Mm
    by: Literal["tape", "laser", "typed"] = "tape"
    sigma: Annotated[float, Meta(ge=0, le=500, description="mm")] = 0.0
    note: Name = ""


class Survey(Value, frozen=True, kw_only=True):
    """All readings, in the order they were taken."""

    readings: Annotated[tuple[Reading, ...], Meta(max_length=1000)] = ()

    def of(self, measure: str) -> tuple[Reading, ...]:
        """The readings of one measure."""
        return tuple(r for r in self.readings if r.measure == measure)
