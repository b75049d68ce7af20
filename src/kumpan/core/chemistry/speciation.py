"""Where everything in the water is at one pH: the species, the alkalinity, the ionic strength.

Concentrations in mol/L (1 L = 1 kg). The arithmetic works on floats and, element by element, on
numpy arrays alike: one code for one water and for a thousand. Named tuples carry the inner values:
they are made tens of times in one solution, and faster than dataclasses. Activity corrections as in
phreeqc.dat: its ion sizes, Davies for the added ions, 10^(0.1 I) for neutral species.
Sources: phreeqc-dat, obrien, morris.
"""

from typing import NamedTuple

import numpy as np

from kumpan.core.chemistry.constants import CYANURATES, Constants

Number = float  # a float, or a numpy array of floats

MOST_ROUNDS = 80
HOCL_STILL = 1e-9  # of free chlorine; the rounds around it close in on what is left
TOLERANCE = 1e-12


class Totals(NamedTuple):
    """The conserved totals of one water, mol/L; alkalinity in equivalents.

    `alkalinity` is that of the strong ions: Na + K + 2 Ca - Cl - 2 SO4; `chlorine` is free chlorine.
    """

    alkalinity: Number
    carbon: Number
    calcium: Number
    cyanurate: Number
    borate: Number
    chlorine: Number
    chloride: Number
    sulfate: Number
    potassium: Number
    temperature_c: float

    @property
    def sodium(self) -> Number:
        """What closes the charge balance."""
        return self.alkalinity + self.chloride + 2 * self.sulfate - 2 * self.calcium - self.potassium


class Frame(NamedTuple):
    """What one round of the iteration hands to the next: ionic strength and the free ions."""

    strength: Number
    calcium: Number
    sodium: Number
    sulfate: Number
    carbonate: Number
    hocl: Number


class Species(NamedTuple):
    """The water at one pH. Concentrations in mol/L; `alkalinity` counts all bases, in equivalents."""

    ph: Number
    frame: Frame
    alkalinity: Number
    other_alkalinity: Number
    carbonate_alkalinity: Number
    carbonate_alkalinity_per_carbon: Number
    hocl: Number
    co2: Number
    calcium_activity: Number
    carbonate_activity: Number


class _Gamma(NamedTuple):
    """Activity coefficients at one ionic strength."""

    h: Number
    oh: Number
    ca: Number
    na: Number
    co3: Number
    hco3: Number
    so4: Number
    cahco3: Number
    naso4: Number
    one: Number  # Davies, charge 1
    two: Number
    three: Number
    neutral: Number


def _gammas(strength: Number, k: Constants) -> _Gamma:
    root = strength**0.5
    slope, reach = -k.debye_a * root, k.debye_b * root
    one = 10.0 ** (-k.debye_a * (root / (1 + root) - 0.3 * strength))
    # Debye-Hueckel with the ion's size (angstrom) and, for some, a term linear in the strength (WATEQ).
    monovalent54 = 10.0 ** (slope / (1 + 5.4 * reach))
    divalent5 = 4 * slope / (1 + 5.0 * reach)
    return _Gamma(
        h=10.0 ** (slope / (1 + 9.0 * reach)),
        oh=10.0 ** (slope / (1 + 3.5 * reach)),
        ca=10.0 ** (divalent5 + 0.165 * strength),
        na=10.0 ** (slope / (1 + 4.08 * reach) + 0.082 * strength),
        co3=monovalent54**4,
        hco3=monovalent54,
        so4=10.0 ** (divalent5 - 0.04 * strength),
        cahco3=10.0 ** (slope / (1 + 6.0 * reach)),
        naso4=monovalent54,
        one=one,
        two=one**4,
        three=one**9,
        neutral=10.0 ** (0.1 * strength),
    )


def worst(value: Number) -> float:
    """The largest absolute value: of a float itself, of an array over its elements."""
    return abs(value) if isinstance(value, float) else float(np.max(np.abs(value)))


def start_frame(totals: Totals) -> Frame:
    """A first guess: all ions free."""
    ions = totals.chloride + totals.alkalinity + 3 * totals.calcium + 3 * totals.sulfate
    strength = abs(ions) + 1e-6
    sodium = 0.5 * (abs(totals.sodium) + totals.sodium)
    return Frame(
        strength,
        totals.calcium,
        sodium=sodium,
        sulfate=totals.sulfate,
        carbonate=1e-5 * totals.carbon,
        hocl=0.3 * totals.chlorine,
    )


def speciate(ph: Number, totals: Totals, k: Constants, frame: Frame | None = None) -> Species:
    """The species at a given pH for fixed totals, iterated until ionic strength and free ions stand still."""
    current = frame or start_frame(totals)
    for _ in range(MOST_ROUNDS):
        species = one_round(ph, totals, k, current)
        step = worst((species.frame.strength - current.strength) / current.strength)
        pairs = worst((species.frame.calcium - current.calcium) / (totals.calcium + 1e-9))
        current = species.frame
        if step < TOLERANCE and pairs < 1e-10:
            return species
    return species


def one_round(ph: Number, totals: Totals, k: Constants, frame: Frame) -> Species:
    """One round at a fixed pH: coefficients from the old frame, all species, a new frame."""
    g = _gammas(frame.strength, k)
    # Water's own activity falls with what is dissolved in it, as in PHREEQC: 1 - 0.017 times the solutes.
    solutes = 2 * totals.chloride + totals.alkalinity + totals.carbon + totals.calcium
    water = 1 - 0.017 * solutes
    h_act = 10.0**-ph
    h, oh = h_act / g.h, k.k_water * water / (h_act * g.oh)

    ca_act, na_act = frame.calcium * g.ca, frame.sodium * g.na
    # Carbonate, per unit activity of CO3--.
    hco3 = h_act / (k.k_bicarbonate * g.hco3)
    co2 = h_act * h_act / (k.k_bicarbonate * k.k_carbonic * water * g.neutral)
    hco3_act = hco3 * g.hco3
    cahco3 = k.k_cahco3 * ca_act * hco3_act / g.cahco3
    caco3 = k.k_caco3 * ca_act / g.neutral
    nahco3 = k.k_nahco3 * na_act * hco3_act / g.neutral
    naco3 = k.k_naco3 * na_act / g.one
    co3 = 1 / g.co3
    carbon = co3 + hco3 + co2 + cahco3 + caco3 + nahco3 + naco3
    co3_act = totals.carbon / carbon
    carbonate_eq = 2 * co3 + hco3 + cahco3 + 2 * caco3 + nahco3 + 2 * naco3

    # Sulfate: HSO4- and pairs, per unit activity of SO4--.
    hso4 = k.k_hso4 * h_act / g.one
    caso4, naso4 = k.k_caso4 * ca_act / g.neutral, k.k_naso4 * na_act / g.naso4
    kso4 = k.k_kso4 * totals.potassium * g.one / g.naso4
    cahso4 = k.k_cahso4 * ca_act * hso4
    so4_act = totals.sulfate / (1 / g.so4 + hso4 + caso4 + naso4 + kso4 + cahso4)

    caoh = k.k_caoh * ca_act * oh * g.oh / g.one
    boron = k.k_boric * g.neutral / (h_act * g.one)
    borate = totals.borate * boron / (1 + boron)
    rings = _rings(h_act, totals, k=k, g=g, hocl=frame.hocl)

    calcium = totals.calcium / (
        1
        + g.ca
        * (
            k.k_cahco3 * hco3_act * co3_act / g.cahco3
            + k.k_caco3 * co3_act / g.neutral
            + k.k_caso4 * so4_act / g.neutral
            + k.k_cahso4 * hso4 * so4_act
            + k.k_caoh * oh * g.oh / g.one
        )
    )
    sodium_total = 0.5 * (abs(totals.sodium) + totals.sodium)
    sodium = sodium_total / (
        1
        + g.na
        * (
            k.k_nahco3 * hco3_act * co3_act / g.neutral
            + k.k_naco3 * co3_act / g.one
            + k.k_naso4 * so4_act / g.naso4
        )
    )
    so4 = so4_act / g.so4
    monovalent = (
        sodium
        + totals.potassium
        + totals.chloride
        + h
        + oh
        + borate
        + rings.monovalent
        + co3_act * (hco3 + cahco3 + naco3)
        + so4_act * (hso4 + naso4 + kso4 + cahso4)
        + caoh
    )
    divalent = calcium + so4 + co3_act * co3 + rings.divalent
    strength = 0.5 * (monovalent + 4 * divalent + 9 * rings.trivalent)
    other = oh - h + borate + rings.alkalinity + caoh - so4_act * (hso4 + cahso4)
    return Species(
        ph=ph,
        frame=Frame(strength, calcium, sodium=sodium, sulfate=so4, carbonate=co3_act, hocl=rings.hocl),
        alkalinity=other + co3_act * carbonate_eq,
        other_alkalinity=other,
        carbonate_alkalinity=co3_act * carbonate_eq,
        carbonate_alkalinity_per_carbon=carbonate_eq / carbon,
        hocl=rings.hocl,
        co2=co3_act * co2,
        calcium_activity=calcium * g.ca,
        carbonate_activity=co3_act,
    )


# Against neutral H3Cy and HOCl: {H2Cy-} = _H2CY {H3Cy} / {H+}, {H2ClCy} = _H2CL {H3Cy} {HOCl}, and so on.
_H2CY = 10.0**-CYANURATES.pk1
_HCY = _H2CY * 10.0**-CYANURATES.pk2
_CY = _HCY * 10.0**-CYANURATES.pk3
_H2CL = 10.0**CYANURATES.h2cl_to_h3
_HCL = _H2CL * 10.0**-CYANURATES.h2cl
_CL = _HCL * 10.0**-CYANURATES.hcl
_HCL2 = _H2CL * 10.0**CYANURATES.hcl2_to_h2cl
_CL2 = _HCL2 * 10.0**-CYANURATES.hcl2
_CL3 = _HCL2 * 10.0**CYANURATES.cl3_to_hcl2


class _Rings(NamedTuple):
    """Hypochlorite and cyanurates: HOCl, alkalinity, and what carries one, two or three charges."""

    hocl: Number
    alkalinity: Number
    monovalent: Number
    divalent: Number
    trivalent: Number


def _rings(h_act: Number, totals: Totals, k: Constants, g: _Gamma, hocl: Number) -> _Rings:
    """Free chlorine shared between HOCl, OCl- and the cyanurates, at one pH.

    With c the free H3Cy and x the HOCl, both as concentrations: unchlorinated forms sum to c s0, forms
    with n chlorines to c x^n sn. The chlorine balance is monotone in x; Newton stays inside its bracket.
    """
    n = g.neutral
    one, two, three = n / g.one, n / g.two, n / g.three
    h2 = h_act * h_act
    h2cy = _H2CY / h_act * one
    hcy = _HCY / h2 * two
    cy = _CY / (h2 * h_act) * three
    s0 = 1 + h2cy + hcy + cy
    h2cl, hcl, cl = _H2CL * n, _HCL / h_act * one * n, _CL / h2 * two * n
    hcl2, cl2 = _HCL2 * n * n, _CL2 / h_act * one * n * n
    cl3 = _CL3 * n * n * n
    s1, s2, s3 = h2cl + hcl + cl, hcl2 + cl2, cl3
    ocl = k.k_hocl / h_act * one
    x = _hypochlorous(hocl, totals.chlorine, cyanurate=totals.cyanurate, ocl=ocl, s=(s0, s1, s2, s3))
    c = totals.cyanurate / (s0 + x * (s1 + x * (s2 + x * s3)))
    return _Rings(
        hocl=x,
        alkalinity=x * ocl + c * (h2cy + 2 * hcy + 3 * cy + x * (hcl + 2 * cl) + x * x * cl2),
        monovalent=x * ocl + c * (h2cy + x * hcl + x * x * cl2),
        divalent=c * (hcy + x * cl),
        trivalent=c * cy,
    )


def _hypochlorous(
    guess: Number, chlorine: Number, cyanurate: Number, ocl: Number, s: tuple[Number, Number, Number, Number]
) -> Number:
    """HOCl from the chlorine balance by Newton, from the last round's value; a step below zero is halved."""
    s0, s1, s2, s3 = s
    x = guess + (guess <= 0) * chlorine / (1 + ocl + cyanurate * s1 / s0)
    enough = HOCL_STILL * (worst(chlorine) + 1e-12)
    for _ in range(MOST_ROUNDS):
        bottom = s0 + x * (s1 + x * (s2 + x * s3))
        top = x * (s1 + x * (2 * s2 + x * 3 * s3))
        slope_top = s1 + x * (4 * s2 + x * 9 * s3)
        slope_bottom = s1 + x * (2 * s2 + x * 3 * s3)
        value = x * (1 + ocl) + cyanurate * top / bottom - chlorine
        slope = 1 + ocl + cyanurate * (slope_top * bottom - top * slope_bottom) / (bottom * bottom)
        step = value / slope
        new = x - step
        new = 0.5 * (abs(new) + new) + (new <= 0) * 0.5 * x
        done = worst(new - x) <= enough
        x = new
        if done:
            break
    return x
