"""Findings: one judgement each, with what was measured, the limit, and where the rule comes from."""

from typing import Literal

import msgspec

from roomy_hull.core.solids import Box

Weight = Literal["stop", "look", "note"]

PRACTICE = "common practice"
"""The source of a rule of the trade that nobody published."""

WEIGHT_ORDER: dict[str, int] = {"stop": 0, "look": 1, "note": 2}


class Fix(msgspec.Struct, frozen=True):
    """A remedy that can be computed: which value of which thing to set.

    `changes` maps a field of the subject (``u``, ``v``, ``w``, ``bay`` …) to its new value.
    """

    words: str
    subject: str
    changes: dict[str, float | str]


class Finding(msgspec.Struct, frozen=True):
    """One judgement on a job.

    Attributes
    ----------
    code : str
        Stable code, for example ``fit.overlap``.
    weight : str
        ``stop``, ``look`` or ``note``.
    title : str
        What is wrong, in one line.
    subjects : tuple of str
        Ids of the things concerned; the first is the one to select.
    measured, limit : float or None
        The two figures compared, in `unit`.
    unit : str
        Unit of both figures.
    source : str
        Where the rule comes from.
    stage : str
        The stage whose badge counts it.
    where : tuple of Box
        Places to show, in vehicle axes. [mm]
    scenario : str
        Id of the scenario concerned, or empty.
    accepted : str
        Reason and initials where a *look* was accepted, else empty.
    """

    code: str
    weight: Weight
    title: str
    subjects: tuple[str, ...] = ()
    measured: float | None = None
    limit: float | None = None
    unit: str = ""
    source: str = ""
    stage: str = "Fit-out"
    where: tuple[Box, ...] = ()
    scenario: str = ""
    accepted: str = ""

    @property
    def key(self) -> tuple[str, tuple[str, ...], str]:
        """Identify the finding across edits: code, subjects and scenario."""
        return (self.code, self.subjects, self.scenario)
