"""Chains of sizes: a gap between parts with the doubt of each size in it, and the chance that it closes.

A gap's doubt is the root of the squares of what its sizes add; beside it stands the worst case, in which every size is
off by three sigma the wrong way at once.
"""

import math

import msgspec

from roomy_hull.core.uncertainty import chance_over

SURE = 3.0
"""How many sigma the worst case takes of every size."""


class Link(msgspec.Struct, frozen=True):
    """One size of a chain.

    Attributes:
        name: What it is.
        sigma: Its one-sigma doubt. [mm]
        sense: By how much the gap changes with it: 1 or -1, or a lever's ratio.
        measure: The measure of the survey that it comes from; empty for what the shop makes.
    """

    name: str
    sigma: float
    sense: float = 1.0
    measure: str = ""


class Chain(msgspec.Struct, frozen=True):
    """A gap by its sizes.

    Attributes:
        nominal: As drawn. [mm]
        links: What is uncertain in it.
    """

    nominal: float
    links: tuple[Link, ...]

    @property
    def sigma(self) -> float:
        """One sigma of the gap: the root of the sum of squares. [mm]"""
        return math.sqrt(sum((x.sense * x.sigma) ** 2 for x in self.links))

    @property
    def worst(self) -> float:
        """The gap at its least when every size is off by three sigma at once. [mm]"""
        return self.nominal - SURE * sum(abs(x.sense) * x.sigma for x in self.links)

    @property
    def chance(self) -> float:
        """The chance that nothing of it is left: that it binds."""
        return chance_over(-self.nominal, self.sigma, 0.0)

    def one_in(self) -> float:
        """In how many it binds once; infinite where it never does."""
        return 1 / self.chance if self.chance > 0 else math.inf

    def improved(self, measure: str, sigma: float) -> "Chain":
        """The same gap after a measure was taken anew.

        Args:
            sigma: Its doubt then; one that is less already stays. [mm]
        """
        links = tuple(
            msgspec.structs.replace(x, sigma=min(x.sigma, sigma)) if x.measure == measure else x
            for x in self.links
        )
        return Chain(self.nominal, links)
