"""Figures that anybody can look up: tyre diameters, combination masses, sheet masses, contrast."""

import math

import msgspec
import pytest
import scipy.optimize
from tests.builders import SHOP
from tests.handbooks import contrast

from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import TRAY
from roomy_hull.core.tyres import load_of_index, overall_diameter
from roomy_hull.drawing.style import DARK, LIGHT, Theme
from roomy_hull.job.model import Job
from roomy_hull.studies.outline.outline import tangent_angle
from roomy_hull.verdict.verdict import judge


@pytest.mark.parametrize(
    ("size", "mm"), [("265/75R16", 803.9), ("295/70R17", 844.8), ("315/75R16", 878.9)]
)
def test_iso_4000_1_overall_diameters(size: str, mm: float) -> None:
    assert overall_diameter(size) == pytest.approx(mm, abs=0.05)


@pytest.mark.parametrize(
    ("combination", "trailer", "vehicle"),
    [(7995, 4000, 3995), (7995, 3500, 4495), (6900, 3300, 3600)],
)
def test_combination_masses_of_common_practice(
    demo: Job, combination: float, trailer: float, vehicle: float
) -> None:
    # Common practice, no source: what is behind the vehicle is taken from what it may weigh itself.
    scenario = demo.scenarios[1].but(trailer=float(trailer), ball=0.0)
    ratings = demo.vehicle.ratings.but(combination=float(combination), towed=4500.0, gross=6000.0,
                                       front_axle=4000.0, rear_axle=4000.0)  # fmt: skip
    job = msgspec.structs.replace(
        demo, scenarios=(scenario,), vehicle=demo.vehicle.but(ratings=ratings)
    )
    gross = judge(job).loads.scenarios[0].gross.value
    for extra, stops in ((vehicle - gross - 0.5, 0), (vehicle - gross + 0.5, 1)):
        kerb = demo.vehicle.kerb.but(front=demo.vehicle.kerb.front + extra)
        heavier = msgspec.structs.replace(job, vehicle=job.vehicle.but(kerb=kerb))
        found = [
            f
            for f in judge(heavier).findings
            if f.code == "loads.combination" and f.severity == "stop"
        ]
        assert len(found) == stops


@pytest.mark.parametrize(
    ("material", "thickness", "kg_per_m2"),
    [
        ("5052-H32", 2.0, 5.36),
        ("5083-H116", 4.0, 10.64),
        ("mild steel", 3.0, 23.55),
        ("birch ply", 12.0, 8.16),
    ],
)
def test_sheet_masses_by_area(material: str, thickness: float, kg_per_m2: float) -> None:
    # Density times thickness; densities after EN 485 and common tables, from memory.
    assert SheetPart(
        "s", TRAY, 1000, 1000, thickness, SHOP.material(material)
    ).mass() == pytest.approx(kg_per_m2)


def test_wcag_contrast_of_black_on_white_and_of_a_published_grey() -> None:
    # WCAG 2.2: black on white is 21:1; #767676 on white is the lightest grey at 4.54:1.
    assert contrast("#000000", "#ffffff") == pytest.approx(21)
    assert contrast("#767676", "#ffffff") == pytest.approx(4.54, abs=0.005)


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=lambda t: t.name)
def test_both_themes_reach_wcag_aa(theme: Theme) -> None:
    for ground in (theme.window, theme.panel, theme.sunk, theme.paper):
        for ink in (theme.ink, theme.faint, theme.stop, theme.look, theme.note, theme.good):
            assert contrast(ink, ground) >= 4.5, (ink, ground)
    assert contrast(theme.accent_ink, theme.accent) >= 4.5
    for role in ("unit name", "axle load", "size", "nested name"):
        on = theme.roles["unit plan"].fill if role == "unit name" else theme.paper
        assert contrast(theme.roles[role].line, on) >= 4.5, role


@pytest.mark.parametrize(
    ("index", "kg"),
    [
        (88, 560),
        (95, 690),
        (100, 800),
        (105, 925),
        (112, 1120),
        (116, 1250),
        (121, 1450),
        (123, 1550),
    ],
)
def test_load_indices_of_the_etrto_standards_manual(index: int, kg: float) -> None:
    # ETRTO Standards Manual, load index table (from memory).
    assert load_of_index(index) == kg


@pytest.mark.parametrize(
    ("wheelbase", "limit"), [(3000.0, 1800.0), (3240.0, 1944.0), (7000.0, 3700.0)]
)
def test_rear_overhang_after_adr_43(demo: Job, wheelbase: float, limit: float) -> None:
    # ADR 43 (from memory): at most 60 % of the wheelbase, and at most 3.7 m.
    vehicle = demo.vehicle.but(wheelbase=wheelbase, chassis_end=wheelbase + 560)
    outline = judge(msgspec.structs.replace(demo, vehicle=vehicle)).outline
    assert outline.overhang_limit == pytest.approx(limit)


@pytest.mark.parametrize("behind", [400.0, 900.0, 1600.0])
def test_departure_angle_as_iso_612_defines_it(behind: float) -> None:
    # ISO 612, departure angle (from memory): the steepest plane that touches the rear tyres and no
    # part behind them. Here by turning a plane about the tyre until it meets the point.
    radius, height = 400.0, 380.0

    def clear(angle: float) -> float:
        """The point's distance above a plane that touches the tyre from below."""
        return height * math.cos(angle) + radius * (1 - math.cos(angle)) - behind * math.sin(angle)

    angle = scipy.optimize.brentq(clear, 1e-6, math.radians(89))
    assert tangent_angle(behind, height, radius) == pytest.approx(math.degrees(angle), abs=1e-6)
