"""Stiff frames in space against PyNiteFEA, against closed forms, and the racks that are made of them."""

import math

import numpy as np
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics import frames
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.racks import Rack
from roomy_hull.kit.body import racks as kit
from roomy_hull.studies.strength import rack_net

E = 70000.0


def _reference(
    nodes: np.ndarray, bars: np.ndarray, s: frames.BarShape, held: np.ndarray, loads: np.ndarray
) -> np.ndarray:
    """Movements of every node by PyNiteFEA, whose Y is up."""
    pynite = pytest.importorskip("Pynite")
    m = pynite.FEModel3D()
    m.add_material("M", E, E / 2 / 1.33, 0.33, 0)
    m.add_section("S", s.area, s.upright, s.level, s.torsion)
    for i, n in enumerate(nodes):
        m.add_node(f"N{i}", n[0], n[2], -n[1])
    for k, (a, b) in enumerate(bars):
        m.add_member(f"B{k}", f"N{a}", f"N{b}", "M", "S")
    for i, h in enumerate(held):
        if h.any():
            m.def_support(f"N{i}", *(bool(h[j]) for j in (0, 2, 1, 3, 5, 4)))
    for i, f in enumerate(loads):
        rows = (
            ("FX", f[0]),
            ("FY", f[2]),
            ("FZ", -f[1]),
            ("MX", f[3]),
            ("MY", f[5]),
            ("MZ", -f[4]),
        )
        for way, value in rows:
            m.add_node_load(f"N{i}", way, value)
    m.analyze_linear(check_statics=False)
    found = []
    for i in range(len(nodes)):
        n = m.nodes[f"N{i}"]
        x, y, z = (next(iter(getattr(n, d).values())) for d in ("DX", "DY", "DZ"))
        found.append((x, -z, y))
    return np.array(found)


@pytest.mark.parametrize(
    ("kind", "bows", "cross_bars", "section"),
    [
        ("tub rack", 3, 2, "50x40x3"), ("gap rack", 2, 0, "40x40x3"), ("cab rack", 2, 3, "25x40x3"),
        ("hoop", 2, 0, "50x50x3"), ("rear wall", 3, 0, "40x20x2.5"),
    ],
)  # fmt: skip
def test_racks_under_any_load_move_as_the_reference_says(
    kind: str, bows: int, cross_bars: int, section: str
) -> None:
    job = demo_job()
    rack = Rack(id="r", kind=kind, start=300, foot=300, length=1400, width=1500, height=700, section=section,  # type: ignore[arg-type]
                bows=bows, cross_bars=cross_bars)  # fmt: skip
    grid = rack_net.net(rack_net.bars_of(kit.place(job.vehicle, job.body, rack)))
    rng = np.random.default_rng(len(kind) + bows)
    loads = rng.normal(0, 100, (len(grid.nodes), 6))
    loads[:, 3:] *= 100
    shape = frames.both_ways(section)
    found = frames.solve(grid.nodes, grid.pieces, shape, E, grid.held, loads)
    wanted = _reference(grid.nodes, grid.pieces, shape, grid.held, loads)
    assert np.abs(found.moved[:, :3] - wanted).max() < 1e-5 * np.abs(wanted).max()
    # What acts from outside is held by the feet.
    assert np.allclose(loads[:, :3].sum(axis=0), -found.reactions[:, :3].sum(axis=0), atol=1e-4)


def test_a_cantilever_and_a_twisted_bar_by_their_closed_forms() -> None:
    """P·L³/3EI, P·L/W and T·L/GJ (beam theory, any handbook)."""
    s = frames.both_ways("60x30x3")
    nodes = np.array([[0.0, 0, 0], [800.0, 0, 0]])
    held = np.array([[1] * 6, [0] * 6])
    loads = np.zeros((2, 6))
    loads[1, 2], loads[1, 1] = -200.0, 150.0
    found = frames.solve(nodes, np.array([[0, 1]]), s, E, held, loads)
    assert found.moved[1, 2] == pytest.approx(-200 * 800**3 / 3 / E / s.level)
    assert found.moved[1, 1] == pytest.approx(150 * 800**3 / 3 / E / s.upright)
    assert found.stress[0] == pytest.approx(
        200 * 800 / s.level_modulus + 150 * 800 / s.upright_modulus
    )
    loads[:] = 0
    loads[1, 3] = 5e4
    g = E / 2 / 1.33
    twist = frames.solve(nodes, np.array([[0, 1]]), s, E, held, loads).moved[1, 3]
    assert twist == pytest.approx(5e4 * 800 / g / s.torsion)
    # Bredt's formula for a thin tube: 4·A²·t/u of its middle line.
    assert s.torsion == pytest.approx(4 * (57 * 27) ** 2 * 3 / (2 * (57 + 27)))


def test_a_portal_with_hinged_feet() -> None:
    """Two hinged posts and a beam, pushed sideways: each foot takes half, the knees H·h/2 (Kleinlogel, from memory)."""
    s = frames.both_ways("40x40x3")
    h, span, push = 600.0, 1000.0, 300.0
    nodes = np.array([[0, 0.0, 0], [0, 0.0, h], [0, span, h], [0, span, 0]])
    held = np.zeros((4, 6))
    held[[0, 3], :3] = 1
    held[[0, 3], 5] = 1
    held[[1, 2], 0] = 1
    loads = np.zeros((4, 6))
    loads[1, 1] = push
    found = frames.solve(nodes, np.array([[0, 1], [1, 2], [3, 2]]), s, E, held, loads)
    assert found.reactions[0, 1] == pytest.approx(-push / 2, rel=2e-3)
    assert found.stress[0] == pytest.approx(
        push / 2 * h / s.level_modulus + push * h / span / s.area, rel=2e-3
    )
    assert found.reactions[3, 2] == pytest.approx(push * h / span, rel=1e-6)


def test_a_mechanism_and_a_bar_without_length_are_told() -> None:
    s = frames.both_ways("40x40x3")
    nodes = np.array([[0.0, 0, 0], [0.0, 0, 500.0]])
    loads = np.zeros((2, 6))
    loads[1, 1] = 10
    with pytest.raises(InputError, match="mechanism"):
        frames.solve(
            nodes, np.array([[0, 1]]), s, E, np.array([[1, 1, 1, 0, 0, 0], [0] * 6]), loads
        )
    with pytest.raises(InputError, match="no length"):
        frames.solve(nodes * 0, np.array([[0, 1]]), s, E, np.ones((2, 6)), loads)


def test_solid_bars_twist_less_than_their_polar_moment() -> None:
    """A square bar's J is 0.1406·a⁴ (Roark, from memory)."""
    assert frames.both_ways("20x20").torsion == pytest.approx(0.1406 * 20**4, rel=5e-3)
    flat = frames.both_ways("60x5")
    assert flat.torsion == pytest.approx(60 * 5**3 / 3, rel=0.06)
    assert math.isclose(flat.level, 5 * 60**3 / 12)
