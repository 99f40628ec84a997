"""What lies above a plane, against a mesh library."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.geometry.clipped import above, tilted
from roomy_hull.core.geometry.motion import Piece, block, prism
from roomy_hull.core.geometry.solids import Box
from roomy_hull.formats.solid3d import mesh

WEDGE = prism(1, ((0.0, 0.0), (600.0, 0.0), (600.0, 400.0), (0.0, 150.0)), -300.0, 250.0)


@given(
    piece=st.sampled_from((block(Box(0, 0, 0, 700, 300, 250)), WEDGE)),
    at=st.tuples(st.floats(0, 600), st.floats(-200, 200), st.floats(-50, 400)),
    nose=st.floats(-30, 30), left=st.floats(-30, 30),
)  # fmt: skip
def test_what_lies_above_a_plane_is_what_a_mesh_library_cuts(
    piece: Piece, at: tuple[float, float, float], nose: float, left: float
) -> None:
    up = tilted(nose, left)
    # The hull of the library's own section and the corners above.
    whole = mesh(piece)
    heights = (whole.vertices * 1000 - np.array(at)) @ up
    section = whole.section(plane_origin=np.array(at) / 1000, plane_normal=up)
    rows = [whole.vertices[heights >= 0] * 1000]
    if section is not None:
        rows.append(np.asarray(section.vertices) * 1000)
    points = np.vstack(rows)
    thick = np.ptp((points - np.array(at)) @ up) if len(points) else 0.0
    known = trimesh.convex.convex_hull(points).volume if len(points) > 3 and thick > 1 else 0.0
    assert above(piece, at, up) == pytest.approx(known, rel=1e-4, abs=2000.0)


def test_a_box_by_hand_level_and_on_a_slope() -> None:
    box = block(Box(0, 0, 0, 1000, 400, 300))
    level = tilted(0, 0)
    assert above(box, (0, 0, 100), level) == pytest.approx(1000 * 400 * 200)
    assert above(box, (0, 0, -5), level) == pytest.approx(1000 * 400 * 300)
    assert above(box, (0, 0, 300), level) == 0.0
    # Outlet low at the rear end, nose up by atan(0.1): the water leans to the rear, all of it runs out.
    nose_up = tilted(math.degrees(math.atan(0.1)), 0)
    assert above(box, (1000, 200, 0), nose_up) == pytest.approx(1000 * 400 * 300)
    # Nose down, a wedge of 100 mm at the front stays.
    nose_down = tilted(-math.degrees(math.atan(0.1)), 0)
    assert above(box, (1000, 200, 0), nose_down) == pytest.approx(
        1000 * 400 * 300 - 1000 * 100 / 2 * 400
    )


@given(slope=st.floats(0.1, 25))
def test_mirrored_slopes_leave_as_much(slope: float) -> None:
    box = block(Box(0, -200, 0, 700, 200, 250))
    middle = (700.0, 0.0, 0.0)
    assert above(box, middle, tilted(3, slope)) == pytest.approx(
        above(box, middle, tilted(3, -slope))
    )
    assert above(box, middle, tilted(3, slope)) <= 700 * 400 * 250 + 1e-6
