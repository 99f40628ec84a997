"""Findings: one judgement each, with what was measured, the limit, and where the rule comes from."""

from typing import Literal

import msgspec

from roomy_hull.core.codes import CODES
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref

Severity = Literal["stop", "look", "note"]

PRACTICE = "common practice"
"""The source of a rule of the trade that nobody published."""
GEOMETRY = "geometry of the job"
"""The source of what follows from where things stand."""

SEVERITIES: tuple[Severity, ...] = ("stop", "look", "note")
"""The most severe first."""


class Fix(msgspec.Struct, frozen=True):
    """A remedy that can be computed: which value of which thing to set.

    `changes` maps a field of the subject (``u``, ``v``, ``w``, ``bay`` …) to its new value.
    """

    words: str
    subject: Ref
    changes: dict[str, float | str]


class Finding(msgspec.Struct, frozen=True):
    """One judgement on a job.

    Attributes:
        code: Stable code, for example ``fit.overlap``.
        severity: ``stop``, ``look`` or ``note``.
        title: What is wrong, in one line.
        subjects: What is concerned; the first is the one to select.
        measured, limit: The two figures compared, in `unit`.
        unit: Unit of both figures.
        source: Where the rule comes from.
        where: Places to show, in vehicle axes. [mm]
        scenario: Id of the scenario concerned, or empty.
        accepted: Why, by whom, when and at what figure a *look* was accepted, where it was and still is, else empty.
        setups: Ids of the set-ups in which it is so; empty where it is so in all, or the job has none.
        uncertainty: One standard deviation of what was measured, in `unit`; 0 where none is known.
        rising: Whether a larger figure is the worse one; where it is not said, away from the limit is worse.
        reopened: What an earlier acceptance said, and why it does not hold any more.
    """

    code: str
    severity: Severity
    title: str
    subjects: tuple[Ref, ...] = ()
    measured: float | None = None
    limit: float | None = None
    unit: str = ""
    source: str = ""
    where: tuple[Box, ...] = ()
    scenario: str = ""
    accepted: str = ""
    setups: tuple[str, ...] = ()
    uncertainty: float = 0.0
    rising: bool | None = None
    reopened: str = ""

    @property
    def stage(self) -> str:
        """The stage whose badge counts it."""
        return CODES[self.code].stage

    @property
    def figures(self) -> tuple[float, ...]:
        """What was measured, in `unit`, and what it is held against, where that is more than nothing at all."""
        if self.measured is None:
            return ()
        return (self.measured, self.limit) if self.limit else (self.measured,)

    @property
    def key(self) -> tuple[str, tuple[Ref, ...], str]:
        """Identify the finding across edits: code, subjects and scenario."""
        return (self.code, self.subjects, self.scenario)

    @property
    def things(self) -> tuple[str, ...]:
        """Ids of the units and carried items among its subjects."""
        return tuple(s.id for s in self.subjects if s.is_thing)

    @property
    def words(self) -> tuple[str, ...]:
        """Its subjects as files name them."""
        return tuple(s.word for s in self.subjects)
