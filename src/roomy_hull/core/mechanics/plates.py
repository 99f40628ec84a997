"""Rectangular plates, simply supported on four edges, under an even pressure."""

import functools
import math

POISSON = 0.3


def cbrt(x: float) -> float:
    """The real cube root."""
    return math.copysign(abs(x) ** (1 / 3), x)


@functools.lru_cache(maxsize=512)
def coefficients(ratio: float, terms: int = 29) -> tuple[float, float]:
    """The coefficients of greatest deflection and greatest moment.

    Args:
        ratio: Long side over short side, 1 or more.
        terms: Greatest odd order of the series.
    Returns: α of w = α·q·a⁴/D and β of M = β·q·a², a the short side, Poisson's ratio 0.3.

    Navier's double series for the middle of the plate; Timoshenko and Woinowsky-Krieger, Theory of
    Plates and Shells, chapter 5, tabulates it in table 8. Beyond a ratio of 8 the plate is taken as a
    strip: 5/384 (1-ν² is in D) and 1/8.
    """
    if ratio > 8:
        return 5 / 384, 0.125
    sag = moment = 0.0
    # sin(n·π/2) of the odd n, and (n/ratio)², once for all.
    across = [(n, 1.0 if n % 4 == 1 else -1.0, (n / ratio) ** 2) for n in range(1, terms * 2, 2)]
    for m, sign_m, _ in across:
        mm = m * m
        for n, sign_n, nn in across:
            sign = sign_m * sign_n
            k = mm + nn
            below = m * n * k * k
            sag += sign / below
            moment += sign * (mm + POISSON * nn) / below
    return 16 / math.pi**6 * sag, 16 / math.pi**4 * moment


def box_plate(
    pressure: float, one: float, other: float, thickness: float, young: float
) -> tuple[float, float]:
    """The greatest deflection and stress of a plate whose edges stay straight but may draw in.

    Args:
        pressure: Even pressure. [MPa]
        one, other: Sides, above 0. [mm]
        thickness: [mm]
        young: Modulus of elasticity. [MPa]
    Returns:
        Deflection w [mm] of q = w·D/(α·a⁴) + c·E·t·w³/a⁴, and the stress in the middle, bending and membrane
        together [MPa].

    Von Kármán's equations for simply supported edges that stay straight without pull from outside, by one
    term of Galerkin's method (textbook, from memory), with the series of `coefficients` for the part that
    bends: with r = a/b, c = π⁶/256·(1 + r⁴), and membrane stress π²/8·E·(w/a)². So is the floor of a folded
    box: its sides keep the edges straight, but give way inward. Edges held fast would make it stiffer
    still.
    """
    short, long = sorted((one, other))
    ratio = short / long
    alpha, beta = coefficients(round(long / short, 4))
    stiff = bending_stiffness(thickness, young) / (alpha * short**4)
    cubic = math.pi**6 / 256 * (1 + ratio**4) * young * thickness / short**4
    # The one real root of cubic·w³ + stiff·w = q, by Cardano.
    p, q = stiff / cubic, pressure / cubic
    root = math.sqrt(q * q / 4 + p**3 / 27)
    sag = cbrt(q / 2 + root) + cbrt(q / 2 - root)
    bends = 6 * beta * (stiff * sag) * short**2 / thickness**2
    return sag, bends + math.pi**2 / 8 * young * (sag / short) ** 2


def bending_stiffness(thickness: float, young: float) -> float:
    """A plate's stiffness D = E·t³/12(1-ν²).

    Args:
        thickness: [mm]
        young: Modulus of elasticity. [MPa]
    Returns: [N·mm]
    """
    return young * thickness**3 / (12 * (1 - POISSON**2))


def plate(
    pressure: float, one: float, other: float, thickness: float, young: float
) -> tuple[float, float]:
    """The greatest deflection and stress of a plate.

    Args:
        pressure: Even pressure. [MPa]
        one, other: Sides, above 0. [mm]
        thickness: [mm]
        young: Modulus of elasticity. [MPa]
    Returns:
        Deflection [mm] and bending stress 6·M/t² [MPa], by the theory of small deflections: beyond a deflection of
        about half the thickness the plate is stiffer than this says.
    """
    short, long = sorted((one, other))
    alpha, beta = coefficients(round(long / short, 4))
    sag = alpha * pressure * short**4 / bending_stiffness(thickness, young)
    return sag, 6 * beta * pressure * short**2 / thickness**2
