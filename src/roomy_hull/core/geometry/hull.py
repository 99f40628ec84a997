"""The convex hull of points in a plane, and which way three of them turn."""

Ring = tuple[tuple[float, float], ...]


def convex_hull(points: list[tuple[float, float]]) -> Ring:
    """The convex hull of some points, counter-clockwise (Andrew's monotone chain, 1979)."""
    ordered = sorted(set(points))
    if len(ordered) < 3:
        return tuple(ordered)
    halves: list[list[tuple[float, float]]] = []
    for way in (ordered, ordered[::-1]):
        chain: list[tuple[float, float]] = []
        for p in way:
            while len(chain) > 1 and _adds_nothing(chain[-2], chain[-1], p):
                chain.pop()
            chain.append(p)
        halves.append(chain[:-1])
    return tuple(halves[0] + halves[1])


def _adds_nothing(o: tuple[float, float], a: tuple[float, float], b: tuple[float, float]) -> bool:
    """Say whether a hull's chain goes from o to b without a: a lies inside, or on the way.

    A tip between two points in almost the same place is nearly in line with them too, but not on the way.
    """
    turn = cross(o, a, b)
    if turn <= 0 or turn > 1e-12:
        return turn <= 0
    return (a[0] - o[0]) * (b[0] - a[0]) + (a[1] - o[1]) * (b[1] - a[1]) >= 0


def cross(o: tuple[float, float], a: tuple[float, float], b: tuple[float, float]) -> float:
    """Twice the area of a triangle, positive counter-clockwise."""
    return (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])
