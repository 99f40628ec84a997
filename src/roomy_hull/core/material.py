"""A sheet or bar material."""

import msgspec


class Material(msgspec.Struct, frozen=True):
    """A sheet or bar material.

    Attributes
    ----------
    key, name : str
        Its key in the shop's table, for example ``5052-H32``, and its words.
    density : float
        [kg/m³]
    yield_mpa, welded_mpa : float
        Yield strength away from and beside a weld. [MPa]
    k_factor : float
        Neutral line in a bend as a fraction of the thickness; a shop's test bend replaces it.
    bend_radius_per_t : float
        Least usual inside bend radius as a multiple of the thickness.
    young_mpa : float
        Modulus of elasticity. [MPa]
    source : str
        Where the figures come from.
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
