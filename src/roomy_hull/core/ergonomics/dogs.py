"""A dog's room, by the container rule for live animals (IATA, container requirement 1; from memory)."""


def room(
    a: float, b: float, c: float, d: float, bedding: float = 30.0
) -> tuple[float, float, float]:
    """What a dog wants of its compartment.

    Args:
        a, b, c, d: Nose to root of tail, ground to elbow, breadth of the broadest part, height standing. [mm]
        bedding: Thickness of what it lies on. [mm]
    Returns: Length A + ½ B, width 2 C, height D and bedding. [mm]
    """
    return a + b / 2, 2 * c, d + bedding
