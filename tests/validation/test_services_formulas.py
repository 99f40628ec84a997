"""Power, sun, water, gas and air against published tables, worked examples and reference libraries."""

import datetime
import math

import fluids
import numpy as np
import pandas as pd
import pvlib
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.handbooks import peukert_hours

from roomy_hull.core.errors import InputError
from roomy_hull.core.services import cables, flows, sun
from roomy_hull.core.tyres import overall_diameter


@pytest.mark.parametrize(
    ("gauge", "area", "milliohms"),
    [
        (10, 5.261, 3.277),
        (8, 8.366, 2.061),
        (6, 13.30, 1.296),
        (4, 21.15, 0.815),
        (2, 33.62, 0.513),
    ],
)
def test_american_sizes_and_their_resistance(gauge: int, area: float, milliohms: float) -> None:
    # ASTM B258 diameters; NBS Handbook 100, copper wire tables, at 20 °C.
    assert cables.gauge_area(gauge) == pytest.approx(area, rel=5e-4)
    assert cables.resistance(area) * 1000 == pytest.approx(milliohms, rel=1e-3)


def test_a_drop_by_hand_and_by_a_longer_hotter_or_thinner_cable() -> None:
    # 20 A, 5 m one way, 6 mm²: 2·5·0.017241/6·20 V.
    assert cables.drop(6.0, 20.0, 5.0) == pytest.approx(2 * 5 * 0.017241 / 6 * 20)
    assert cables.drop(6.0, 20.0, 5.0, 70.0) == pytest.approx(
        cables.drop(6.0, 20.0, 5.0) * (1 + 0.00393 * 50)
    )


@pytest.mark.parametrize(
    ("area", "amps"),
    [
        (1, 14),
        (1.5, 18),
        (2.5, 25),
        (4, 35),
        (6, 45),
        (10, 65),
        (16, 90),
        (25, 120),
        (35, 160),
        (50, 210),
    ],
)
def test_ampacity_of_single_cores(area: float, amps: float) -> None:
    # ISO 10133 table A.1, 70 °C insulation, from memory.
    assert cables.ampacity(area) == amps
    assert cables.ampacity(area, "engine bay") == pytest.approx(0.75 * amps)


@given(
    amps=st.floats(0.2, 150), metres=st.floats(0.1, 12), share=st.sampled_from((0.03, 0.1)),
    volts=st.sampled_from((12.0, 24.0)), american=st.booleans(),
)  # fmt: skip
def test_the_cable_chosen_is_the_smallest_that_does(
    amps: float, metres: float, share: float, volts: float, american: bool
) -> None:
    try:
        one = cables.smallest(amps, metres, volts, share, american=american)
    except InputError:
        largest = (cables.GAUGES if american else cables.METRIC)[-1]
        assert (
            cables.ampacity(largest.area) < amps
            or cables.drop(largest.area, amps, metres) > share * volts
        )
        return
    assert cables.drop(one.area, amps, metres) <= share * volts + 1e-9
    assert cables.ampacity(one.area) >= amps
    sizes = cables.GAUGES if american else cables.METRIC
    for less in sizes[: sizes.index(one)]:
        assert (
            cables.ampacity(less.area) < amps
            or cables.drop(less.area, amps, metres) > share * volts
        )


def test_a_fuse_carries_the_load_and_protects_the_cable() -> None:
    assert cables.fuse(10.0, 25.0) == 15.0  # 12.5 wanted
    assert cables.fuse(12.0, 18.0) == 15.0
    assert cables.fuse(14.0, 18.0) == 0.0  # 17.5 wanted, the next is 20
    assert cables.short_circuit(13.2, 4.0, 0.0, 50.0) == pytest.approx(3300.0)


def test_peukert_s_worked_example() -> None:
    # t = H·(C/(I·H))^k with H 20, C 100, k 1.2, I 10 A.
    assert peukert_hours(100, 20, 10, 1.2) == pytest.approx(8.7055, abs=1e-3)
    assert peukert_hours(100, 20, 5, 1.2) == pytest.approx(20.0)
    assert peukert_hours(100, 20, 0, 1.2) == math.inf


def test_the_sun_of_the_published_example() -> None:
    # Reda & Andreas, Solar Energy 76 (2004): 17 October 2003, 12:30:30 at UTC-7, 39.742476 N 105.1786 W.
    unix = datetime.datetime(2003, 10, 17, 19, 30, 30, tzinfo=datetime.UTC).timestamp()
    zenith, azimuth = sun.position(np.array([unix]), 39.742476, -105.1786)
    # Theirs is with refraction (about 0.018° at this height) and from 1830 m.
    assert zenith[0] == pytest.approx(50.11162, abs=0.04)
    assert azimuth[0] == pytest.approx(194.34024, abs=0.03)


@pytest.mark.filterwarnings(
    "ignore:DatetimeIndex.dayofyear", "ignore:divide by zero"
)  # pvlib's own
@given(
    latitude=st.floats(-66, 66), longitude=st.floats(-180, 180),
    day=st.integers(0, 3650), turbidity=st.floats(1.5, 6.0), altitude=st.floats(0, 2500),
)  # fmt: skip
def test_sun_and_clear_sky_against_pvlib(
    latitude: float, longitude: float, day: int, turbidity: float, altitude: float
) -> None:
    begin = pd.Timestamp("2020-01-01", tz="UTC") + pd.Timedelta(days=day)
    times = pd.date_range(begin, periods=24, freq="h")
    unix = times.as_unit("s").astype("int64").to_numpy().astype(float)
    zenith, azimuth = sun.position(unix, latitude, longitude)
    known = pvlib.solarposition.get_solarposition(times, latitude, longitude)
    real = known["zenith"].to_numpy()
    assert np.abs(zenith - real).max() < 0.03
    # Round the zenith an azimuth means little.
    off = (azimuth - known["azimuth"].to_numpy() + 180) % 360 - 180
    assert np.abs(off * np.sin(np.radians(real))).max() < 0.04
    days = times.day_of_year.to_numpy()
    ours = sun.clear(real, days, turbidity, altitude)
    mass = pvlib.atmosphere.get_absolute_airmass(
        pvlib.atmosphere.get_relative_airmass(real), pvlib.atmosphere.alt2pres(altitude)
    )
    theirs = pvlib.clearsky.ineichen(
        real,
        mass,
        turbidity,
        altitude,
        pvlib.irradiance.get_extra_radiation(times, method="spencer").to_numpy(),
    )
    lit = real < 88
    for name, value in (("ghi", ours.level), ("dni", ours.beam), ("dhi", ours.diffuse)):
        assert value[lit] == pytest.approx(np.asarray(theirs[name])[lit], rel=0.01, abs=4.0), name
    tilt, facing = 25.0, 340.0
    whole = pvlib.irradiance.get_total_irradiance(
        tilt, facing, real, known["azimuth"].to_numpy(), ours.beam, ours.level, ours.diffuse,
        albedo=sun.GROUND, model="isotropic",
    )  # fmt: skip
    mine = sun.on_panel(ours, real, known["azimuth"].to_numpy(), tilt, facing)
    assert mine[lit] == pytest.approx(np.asarray(whole["poa_global"])[lit], rel=1e-6, abs=1e-6)


def test_cloud_takes_light_and_never_gives_any() -> None:
    zenith = np.linspace(0, 120, 40)
    sky = sun.clear(zenith, np.full(40, 100), 3.0)
    for cover in (0.0, 0.3, 0.8, 1.0):
        less = sun.clouded(sky, zenith, cover)
        # Kasten & Czeplak: a quarter is left under a whole cover.
        assert less.level == pytest.approx(sky.level * (1 - 0.75 * cover**3.4))
        assert (less.beam <= sky.beam + 1e-9).all()
        assert (less.diffuse >= 0).all()
    assert sun.clouded(sky, zenith, 0.0).diffuse == pytest.approx(sky.diffuse, abs=1e-6)


def test_a_tank_empties_as_torricelli_says() -> None:
    assert flows.emptying(0.25, 0.013, 0.37, 0.02) == pytest.approx(397.1, abs=0.1)


@given(reynolds=st.floats(10, 1e7), roughness=st.floats(1e-6, 0.03))
def test_friction_against_a_library(reynolds: float, roughness: float) -> None:
    if 2000 < reynolds < 4500:
        return  # neither smooth nor rough
    known = fluids.friction.Colebrook(reynolds, roughness) if reynolds >= 2300 else 64 / reynolds
    assert flows.friction(reynolds, roughness) == pytest.approx(known, rel=1e-6)
    assert flows.friction(1e5, 1e-4) == pytest.approx(0.018514, abs=1e-6)


@given(
    head=st.floats(0.05, 3),
    bore=st.floats(0.008, 0.04),
    metres=st.floats(0.1, 8),
    k=st.floats(0, 6),
)
def test_what_runs_out_balances_bernoulli(
    head: float, bore: float, metres: float, k: float
) -> None:
    rate = flows.outflow(head, bore, metres, k) / 1000
    speed = rate / (math.pi / 4 * bore**2)
    reynolds = fluids.Reynolds(V=speed, D=bore, nu=flows.VISCOSITY)
    if 2000 < reynolds < 2700:
        return  # between the two laws
    loss = fluids.dP_from_K(
        k + fluids.K_from_f(flows.friction(reynolds, flows.HOSE / bore), metres, bore), 1000, speed
    )
    assert loss + 1000 * speed**2 / 2 == pytest.approx(1000 * flows.G * head, rel=1e-3)


def test_a_draw_without_losses_is_torricelli_s() -> None:
    # 20 l from 0.25 m² lowers the level by 80 mm.
    plain = flows.emptying(0.25, 0.02, 0.5, 0.42)
    drawn = flows.draw_time(20.0, 0.25, 0.5, 0.02, 1e-9, 0.0)
    assert drawn == pytest.approx(plain, rel=2e-3)
    assert flows.draw_time(20.0, 0.25, 0.05, 0.02, 1.0) == math.inf


def test_heat_gas_and_air_by_hand() -> None:
    assert flows.warming(6, 45) == pytest.approx(1130, abs=1)
    assert flows.burning_hours(4.5, 2.5) == pytest.approx(23.2, abs=0.05)
    # Common practice: some 79 l in a 265/75R16.
    air = flows.tyre_volume(overall_diameter("265/75R16"), 265.0, 16 * 25.4)
    assert air == pytest.approx(79, rel=0.03)
    # Four of them from 120 to 250 kPa with 70 l/min.
    assert flows.filling_time(4 * air, 120, 250, 70) == pytest.approx(4 * air * 130 / 101.325 / 70)
    assert flows.filling_time(4 * air, 120, 250, 70, 9.0, 1000.0) < flows.filling_time(
        4 * air, 120, 250, 70
    )
    with pytest.raises(InputError, match="delivers nothing"):
        flows.filling_time(80, 100, 200, 0.0)
