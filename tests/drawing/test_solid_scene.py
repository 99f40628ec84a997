"""The job in the round: prisms, the order of painting, and the 3D file."""

import json
import math
import struct

import numpy as np
import pytest

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.errors import FileError
from roomy_hull.core.geometry.motion import block, round_piece
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.drawing import style
from roomy_hull.drawing.scenes.opened import opened_things, outline
from roomy_hull.drawing.scenes.partition import Face, far_to_near, partition
from roomy_hull.drawing.scenes.solid import Item, bounds, directions, faces, items, seen
from roomy_hull.drawing.view import ELEVATION, SLICE
from roomy_hull.formats import solid3d
from roomy_hull.job.model import Job

OPEN = frozenset({
    "door:left",
    "wet-bench",
    "awning",
    "sample-fridge",
    "door:right",
    "spare",
    "galley:2",
})


@pytest.fixture(scope="module")
def assembly(demo: Job) -> Assembly:
    return assemble(demo)


def face_area(corners: np.ndarray) -> float:
    total = np.zeros(3)
    for i in range(1, len(corners) - 1):
        total += np.cross(corners[i] - corners[0], corners[i + 1] - corners[0])
    return float(np.linalg.norm(total)) / 2


def test_everything_is_there_once_closed_and_open(assembly: Assembly) -> None:
    shut, wide = items(assembly, frozenset()), items(assembly, OPEN)
    for found in (shut, wide):
        tags = {i.tag for i in found if i.tag}
        assert tags >= {t.id for t in assembly.things}
        assert all(0 < i.solid <= 1 for i in found)
        assert {i.role for i in found} <= set(style.LIGHT.roles)
    assert min(i.piece.box.y0 for i in wide) < min(i.piece.box.y0 for i in shut) - 1500


def test_cutting_faces_loses_no_area(assembly: Assembly) -> None:
    made = faces(items(assembly, OPEN))
    before = sum(face_area(f.corners) for f in made)
    after = far_to_near(partition(made), np.array([0.3, 0.5, 0.8]))
    assert sum(face_area(f.corners) for f in after) == pytest.approx(before, rel=1e-6)
    assert len(after) >= len(made)


@pytest.mark.parametrize("seed", range(5))
def test_what_is_painted_last_is_what_is_nearest(seed: int) -> None:
    # Boxes at random, many of them crossing: at every point of the picture the last painted is the nearest.
    rnd = np.random.default_rng(seed)
    found = []
    for _ in range(14):
        x, y, z = rnd.uniform(0, 300, 3)
        a, b, c = rnd.uniform(20, 200, 3)
        found.append(Item(block(Box(x, y, z, x + a, y + b, z + c)), "front"))
    made = faces(found)
    root = partition(made)
    cut = far_to_near(root, np.array([0.1, 0.2, 0.9]))
    assert len(cut) > len(made)
    assert any(not e for f in cut for e in f.edges)
    for yaw, pitch in ((20, 15), (140, 50), (260, -10)):
        right, up, eye = directions(yaw, pitch)
        order = [f for f in far_to_near(root, eye) if float(f.normal @ eye) > 1e-6]
        flat = [np.column_stack((f.corners @ right, f.corners @ up)) for f in order]
        everything = np.vstack(flat)
        for point in rnd.uniform(everything.min(axis=0), everything.max(axis=0), (150, 2)):
            under = [n for n, ring in enumerate(flat) if holds(ring, point)]
            if under:
                # Depth of the face's plane where the line of sight through the point meets it.
                depths = [depth(order[n], right, up, eye, point) for n in under]
                assert depths[-1] >= max(depths) - 0.1


def holds(ring: np.ndarray, p: np.ndarray) -> bool:
    """Say whether a point lies well inside a convex polygon of either sense."""
    signs = []
    for i in range(len(ring)):
        o, q = ring[i], ring[(i + 1) % len(ring)]
        signs.append((q[0] - o[0]) * (p[1] - o[1]) - (q[1] - o[1]) * (p[0] - o[0]))
    return min(signs) > 1 or max(signs) < -1


def depth(face: object, right: np.ndarray, up: np.ndarray, eye: np.ndarray, p: np.ndarray) -> float:
    base = right * p[0] + up * p[1]
    normal = face.normal  # type: ignore[attr-defined]
    return float((face.offset - base @ normal) / (eye @ normal))  # type: ignore[attr-defined]


def test_directions_are_square_to_each_other() -> None:
    for yaw in range(0, 360, 37):
        right, up, eye = directions(yaw, 25)
        for a, b in ((right, up), (up, eye), (eye, right)):
            assert float(a @ b) == pytest.approx(0, abs=1e-12)
        assert np.cross(right, up) == pytest.approx(eye)
    assert directions(0, 0)[2] == pytest.approx([1, 0, 0])


def test_meshes_are_closed_and_hold_their_volume() -> None:
    for piece, litres in (
        (block(Box(0, 0, 0, 400, 500, 200)), 40.0),
        (block(Box(0, 0, 0, 400, 500, 200), 0), 40.0),
        (
            round_piece(1, (0, 0), 400 * math.cos(math.pi / 24), -100, 100),
            12 * math.sin(math.pi / 12) * 16 * 2,
        ),
    ):
        mesh = solid3d.mesh(piece)
        assert mesh.is_watertight
        assert mesh.volume * 1000 == pytest.approx(litres)


def test_the_3d_file_is_a_valid_glb_in_metres_with_y_up(
    assembly: Assembly, tmp_path: object
) -> None:
    path = tmp_path / "job.glb"  # type: ignore[operator]
    solid3d.write(assembly, path, OPEN)
    data = path.read_bytes()
    # Khronos glTF 2.0, section 4.4: magic, version, length, then a JSON chunk.
    magic, version, length = struct.unpack("<4sII", data[:12])
    assert (magic, version, length) == (b"glTF", 2, len(data))
    size, kind = struct.unpack("<I4s", data[12:20])
    assert kind == b"JSON"
    head = json.loads(data[20 : 20 + size])
    assert any("Wet bench" in node.get("name", "") for node in head["nodes"])
    import trimesh

    read = trimesh.load(path)
    box = read.bounds
    vehicle = assembly.job.vehicle.shape
    # Its top is the aerial's or the punt's, along glTF's y; the ground lies at 0.
    top = max(i.piece.box.z1 for i in items(assembly, OPEN)) / 1000
    assert (box[0][1], box[1][1]) == (pytest.approx(0, abs=0.02), pytest.approx(top))
    assert box[0][0] == pytest.approx(
        min(-vehicle.front, *(t.envelope.x0 for t in assembly.things)) / 1000
    )
    with pytest.raises(FileError, match="cannot be written"):
        solid3d.write(assembly, path / "job.glb")


def test_what_stands_open_is_drawn_where_it_is(assembly: Assembly) -> None:
    bench = assembly.opening("wet-bench")
    assert bench is not None
    for views, plan in ((ELEVATION, False), (SLICE, True)):
        for station in ("left", "right", "rear"):
            scene = opened_things(
                assembly, views[station], station, frozenset({"wet-bench"}), plan=plan
            )
            assert scene
            hs = [p[0] for s in scene for p in getattr(s, "points", ())]
            h0, _k0, h1, _k1 = views[station].rect(bench.opened_box)
            assert min(hs) >= h0 - 1e-6
            assert max(hs) <= h1 + 1e-6
    # Seen along its own axis a leaf's ring is true; else its rectangle.
    leaf = next(p for p in bench.swept if not p.square)
    assert len(outline(leaf, ELEVATION["left"])) == len(leaf.ring)
    assert len(outline(leaf, SLICE["left"])) == 4


def test_the_kitchens_plan_lies_where_it_is_pulled_to_on_either_side(demo: Job) -> None:
    from roomy_hull.job.edits import units as edits

    for job, side in ((demo, "left"), (edits.mirrored(demo, "wet-bench"), "right")):
        there = assemble(job)
        opening = there.opening("wet-bench")
        assert opening is not None
        scene = opened_things(there, SLICE[side], side, frozenset({"wet-bench"}), plan=True)
        discs = [s for s in scene if type(s).__name__ == "Disc"]
        h0, k0, h1, k1 = SLICE[side].rect(opening.opened_box)
        assert len(discs) > 6
        assert all(h0 < d.centre[0] < h1 and k0 < d.centre[1] < k1 for d in discs)  # type: ignore[union-attr]


def test_what_is_seen_lies_within_the_outline_and_faces_the_eye_as_it_should() -> None:
    cube = [Item(block(Box(0.0, 0.0, 0.0, 100.0, 100.0, 100.0)), "front")]
    root = partition(faces(cube))
    assert root is not None
    for yaw, pitch in ((20.0, 15.0), (140.0, 50.0), (0.0, 0.0)):
        right, up, eye = directions(yaw, pitch)
        shown = seen(root, yaw, pitch, (0.0, 0.0, 2.0))
        assert len(shown) == 6
        for one in shown:
            assert one.facing == pytest.approx(float(one.face.normal @ eye))
            assert one.lit == pytest.approx(one.face.normal[2])
            there = np.array([[c @ right, c @ up] for c in one.face.corners])
            assert np.array(one.corners) == pytest.approx(there)
        everything = np.array([c for one in shown for c in one.corners])
        low, high = bounds(cube, yaw, pitch)
        assert everything.min(axis=0) == pytest.approx(low)
        assert everything.max(axis=0) == pytest.approx(high)


def test_faces_with_more_corners_than_the_first_ones_are_cut_too() -> None:
    # A round piece across a box: each cut adds corners, the table has to grow with them.
    tube = round_piece(1, (50.0, 50.0), 80.0, -30.0, 130.0)
    crossed = [Item(tube, "front"), Item(block(Box(0.0, 0.0, 0.0, 100.0, 100.0, 100.0)), "front")]
    made = faces(crossed)
    order = far_to_near(partition(made), np.array([0.3, 0.2, 0.9]))

    def area(some: list[Face]) -> float:
        total = 0.0
        for f in some:
            turns = np.cross(f.corners[1:-1] - f.corners[0], f.corners[2:] - f.corners[0])
            total += 0.5 * abs(float((turns @ f.normal).sum()))
        return total

    assert len(order) > len(made)
    assert area(order) == pytest.approx(area(made), rel=1e-9)


def test_fronts_are_drawn_on_the_foremost_plane_of_each_unit_and_go_with_it(
    assembly: Assembly,
) -> None:
    drawn = 0
    for opened in (frozenset(), OPEN):
        for item in items(assembly, opened):
            thing = assembly.thing(item.tag)
            for one in item.drawn if thing is not None and thing.place is not None else ():
                drawn += 1
                corners = np.array([c for m in one.marks for c in m.corners])
                assert np.ptp(corners[:, one.axis]) < 1e-6
                assert corners[0, one.axis] == pytest.approx(one.at)
                # It lies on the front of the unit, within its width and height, closed and pulled out.
                boxes = [i.piece.box for i in items(assembly, opened) if i.tag == item.tag]
                around = hull(boxes)
                low, high = corners.min(axis=0), corners.max(axis=0)
                assert (low >= np.array(around[:3]) - 30).all(), item.name
                assert (high <= np.array(around[3:]) + 30).all(), item.name
                borne = [f for f in faces([item]) if one.on(tuple(f.normal.tolist()), f.offset)]
                if not opened:
                    assert len(borne) == 1, item.name
                    assert borne[0].normal[one.axis] == (1 if one.far else -1)
    assert drawn > 20


def test_a_skin_has_edges_only_where_it_ends(assembly: Assembly) -> None:
    # Two boxes side by side and a lower one beside them: one skin, so no edge between the two, nor a face.
    cubes = [Box(0, 0, 0, 10, 10, 10), Box(10, 0, 0, 20, 10, 10), Box(20, 0, 0, 30, 10, 6)]
    loose = faces([Item(block(b), "cab") for b in cubes])
    made = faces([Item(block(b), "cab", smooth=True) for b in cubes])
    assert len(loose) == 18
    # Gone are both faces between the equal two, and the lower one's face against the higher.
    assert len(made) == 15
    top = [f for f in made if f.normal[2] > 0.9 and f.offset > 9]
    assert [f.edges.count(True) for f in top] == [3, 3]
    front = [f for f in made if f.normal[1] < -0.9]
    edges = [
        tuple(sorted((tuple(f.corners[n]), tuple(f.corners[(n + 1) % len(f.corners)]))))
        for f in front
        for n, real in enumerate(f.edges)
        if real
    ]
    long = sum(float(np.linalg.norm(np.subtract(a, b))) for a, b in edges)
    assert long == pytest.approx(30 + 20 + 10 + 10 + 4 + 6)  # the outline of an L
    smooth = [i for i in items(assembly, frozenset()) if i.smooth]
    assert len(smooth) > 5
    kept = sum(f.edges.count(True) for f in faces(smooth))
    assert kept < 0.7 * sum(len(f.edges) for f in faces([Item(i.piece, i.role) for i in smooth]))
