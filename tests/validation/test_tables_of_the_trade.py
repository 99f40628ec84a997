"""Figures that anybody can look up: tyre diameters, combination masses, sheet masses, contrast."""

import msgspec
import pytest

from roomy_hull.core.sheetmetal import SheetPart
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.desktop.theme import DARK, LIGHT, Theme, contrast
from roomy_hull.job.model import Job
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
            if f.code == "loads.combination" and f.weight == "stop"
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
    assert SheetPart("s", "x", 1000, 1000, thickness, material).mass() == pytest.approx(kg_per_m2)


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
