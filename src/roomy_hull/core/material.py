"""A sheet or bar material."""

import msgspec

K_UNCERTAINTY = 0.04
"""One sigma of a K factor that no test bend of the sheet has told (common practice)."""
SAME = 0.05
"""Sheets are of one thickness within this. [mm]"""
WOOD = 1200.0
"""What is lighter is ply, foam or the like. [kg/m³]"""


class Material(msgspec.Struct, frozen=True):
    """A sheet or bar material.

    Attributes:
        key, name: Its key in the shop's table, for example ``5052-H32``, and its words.
        density: [kg/m³]
        yield_mpa, welded_mpa: Yield strength away from and beside a weld. [MPa]
        k_factor: Neutral line in a bend as a fraction of the thickness; a shop's test bend replaces it.
        bend_radius_per_t: Least usual inside bend radius as a multiple of the thickness.
        young_mpa: Modulus of elasticity. [MPa]
        source: Where the figures come from.
        tensile_mpa: Tensile strength; 0 where nobody knows it, then a fifth above the yield. [MPa]
        tested: K factors by a shop's own test bends, for sheets of these thicknesses. [mm]
    """

    key: str
    name: str
    density: float
    yield_mpa: float
    welded_mpa: float
    k_factor: float
    bend_radius_per_t: float
    young_mpa: float
    source: str
    tensile_mpa: float = 0.0
    tested: tuple[tuple[float, float, float], ...] = ()

    def k(self, thickness: float) -> float:
        """The K factor of a sheet: by its own test bends, else the table's."""
        return next(
            (k for t, k, _uncertainty in self.tested if abs(t - thickness) < SAME), self.k_factor
        )

    def k_doubt(self, thickness: float) -> float:
        """One sigma of the K factor; `K_DOUBT` where no test bend says."""
        return next((d for t, _k, d in self.tested if abs(t - thickness) < SAME), K_UNCERTAINTY)

    def tensile(self) -> float:
        """Tensile strength; a fifth above the yield where nobody says. [MPa]"""
        return self.tensile_mpa or 1.2 * self.yield_mpa

    @property
    def wood(self) -> bool:
        """Whether it is neither bent nor welded."""
        return self.density < WOOD
