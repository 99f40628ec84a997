"""Gas bottles as they are usual."""

from typing import Final

import msgspec


class Bottle(msgspec.Struct, frozen=True):
    """A gas bottle: diameter and height over its collar [mm], empty mass and gas. [kg]"""

    bore: float
    high: float
    empty: float
    gas: float


BOTTLES: dict[str, Bottle] = {
    "2 kg": Bottle(205.0, 330.0, 4.0, 2.0), "4.5 kg": Bottle(245.0, 455.0, 6.5, 4.5),
    "9 kg": Bottle(310.0, 580.0, 9.5, 9.0),
}  # fmt: skip
"""By what they hold (usual bottles, common practice)."""
USUAL_BOTTLE: Final = "4.5 kg"
