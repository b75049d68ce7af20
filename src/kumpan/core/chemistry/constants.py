"""Equilibrium constants of the water engine as functions of temperature, each with its source.

log10 of the constant at zero ionic strength; T in kelvin. All quoted from memory. A function is named
by its quantity and its source; `constants_at` gathers one temperature's set.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import exp, log, log10, pi, sqrt

SOURCES_USED = (
    "plummer-busenberg",
    "phreeqc-dat",
    "morris",
    "obrien",
    "bradley-pitzer",
    "kell",
)

KELVIN_AT_0_C = 273.15
_R_KCAL = 1.98720e-3  # kcal/(mol K)
_T25 = 298.15


def _van_t_hoff(log_k25: float, delta_h_kcal: float, kelvin: float) -> float:
    """log K at a temperature from its value at 25 C and the reaction enthalpy."""
    return log_k25 - delta_h_kcal / (log(10) * _R_KCAL) * (1 / kelvin - 1 / _T25)


def _analytic(a: float, b: float, c: float, d: float, e: float, kelvin: float) -> float:
    return a + b * kelvin + c / kelvin + d * log10(kelvin) + e / kelvin**2


def co2_first_dissociation_plummer82(kelvin: float) -> float:
    """CO2(aq) + H2O = H+ + HCO3-. Plummer & Busenberg 1982, 0 to 90 C."""
    return _analytic(-356.3094, -0.06091964, c=21834.37, d=126.8339, e=-1684915.0, kelvin=kelvin)


def bicarbonate_dissociation_plummer82(kelvin: float) -> float:
    """HCO3- = H+ + CO3--. Plummer & Busenberg 1982, 0 to 90 C."""
    return _analytic(-107.8871, -0.03252849, c=5151.79, d=38.92561, e=-563713.9, kelvin=kelvin)


def co2_solubility_plummer82(kelvin: float) -> float:
    """CO2(g) = CO2(aq), mol/(kg atm). Plummer & Busenberg 1982, 0 to 90 C."""
    return _analytic(108.3865, 0.01985076, c=-6919.53, d=-40.45154, e=669365.0, kelvin=kelvin)


def calcite_solubility_plummer82(kelvin: float) -> float:
    """CaCO3(calcite) = Ca++ + CO3--. Plummer & Busenberg 1982, 0 to 90 C."""
    return _analytic(-171.9065, -0.077993, c=2839.319, d=71.595, e=0.0, kelvin=kelvin)


def water_dissociation_phreeqc(kelvin: float) -> float:
    """H2O = H+ + OH-. phreeqc.dat of PHREEQC 3."""
    return (
        _analytic(293.29227, 0.1360833, c=-10576.913, d=-123.73158, e=0.0, kelvin=kelvin)
        - 6.996455e-5 * kelvin**2
    )


def hocl_dissociation_morris66(kelvin: float) -> float:
    """HOCl = H+ + OCl-. Morris 1966: pK = 3000/T - 10.0686 + 0.0253 T."""
    return -(3000.0 / kelvin - 10.0686 + 0.0253 * kelvin)


@dataclass(frozen=True, kw_only=True)
class Cyanurates:
    """pK of cyanuric acid and its chlorinated forms at 25 C, used at every temperature.

    O'Brien, Morris & Butler 1974. Chlorinated ones are written against H3Cy, H+ and HOCl:
    `one`: H2ClCy, HClCy-, ClCy--; `two`: HCl2Cy, Cl2Cy-; `three`: Cl3Cy.
    """

    pk1: float = 6.88
    pk2: float = 11.40
    pk3: float = 13.5
    cl3_to_hcl2: float = 1.80
    hcl2: float = 3.75
    hcl2_to_h2cl: float = 2.93
    h2cl: float = 5.33
    h2cl_to_h3: float = 4.07
    hcl: float = 10.12


CYANURATES = Cyanurates()


@dataclass(frozen=True, kw_only=True)
class Constants:
    """One temperature's set. `k_*` are plain constants (not logs); `debye_a`, `debye_b` activity parameters.

    Association constants of ion pairs are written from free ions: K = {pair} / ({cation} {anion}).
    """

    temperature_c: float
    debye_a: float
    debye_b: float
    k_water: float
    k_carbonic: float
    k_bicarbonate: float
    k_hocl: float
    k_boric: float
    k_cahco3: float
    k_caco3: float
    k_caso4: float
    k_cahso4: float
    k_caoh: float
    k_nahco3: float
    k_naco3: float
    k_naso4: float
    k_kso4: float
    k_hso4: float
    log_k_calcite: float
    log_k_co2_gas: float


@lru_cache(maxsize=4096)
def constants_at(temperature_c: float) -> Constants:
    """All constants at a temperature, 0 to 60 C in earnest."""
    kelvin = temperature_c + KELVIN_AT_0_C
    a, b = debye_hueckel(temperature_c)
    log_k2 = bicarbonate_dissociation_plummer82(kelvin)
    # CaHCO3+ is tabled from CO3-- and H+: subtract the protonation of carbonate.
    log_cahco3 = (
        _analytic(1317.0071, 0.34546894, c=-39916.84, d=-517.70761, e=563713.9, kelvin=kelvin) + log_k2
    )
    log_caco3 = _analytic(-1228.732, -0.299440, c=35512.75, d=485.818, e=0.0, kelvin=kelvin)
    log_hso4 = _analytic(-56.889, 0.006473, c=2307.9, d=19.8858, e=0.0, kelvin=kelvin)
    return Constants(
        temperature_c=temperature_c,
        debye_a=a,
        debye_b=b,
        k_water=10 ** water_dissociation_phreeqc(kelvin),
        k_carbonic=10 ** co2_first_dissociation_plummer82(kelvin),
        k_bicarbonate=10**log_k2,
        k_hocl=10 ** hocl_dissociation_morris66(kelvin),
        k_boric=10 ** _van_t_hoff(-9.24, 3.224, kelvin),
        k_cahco3=10**log_cahco3,
        k_caco3=10**log_caco3,
        k_caso4=10 ** _van_t_hoff(2.25, 1.325, kelvin),
        k_cahso4=10**1.08,
        k_caoh=10 ** (-12.78 - water_dissociation_phreeqc(kelvin)),
        k_nahco3=10 ** _van_t_hoff(-0.25, -1.0, kelvin),
        k_naco3=10 ** _van_t_hoff(1.27, 8.91, kelvin),
        k_naso4=10 ** _van_t_hoff(0.7, 1.120, kelvin),
        k_kso4=10 ** _analytic(3.106, 0.0, c=-673.6, d=0.0, e=0.0, kelvin=kelvin),
        k_hso4=10**log_hso4,
        log_k_calcite=calcite_solubility_plummer82(kelvin),
        log_k_co2_gas=co2_solubility_plummer82(kelvin),
    )


def debye_hueckel(temperature_c: float) -> tuple[float, float]:
    """A in (kg/mol)^0.5 and B in (kg/mol)^0.5 per angstrom, from the dielectric constant of water.

    Dielectric constant: Bradley & Pitzer 1979, at 1 atm. Density: Kell 1975.
    """
    kelvin = temperature_c + KELVIN_AT_0_C
    at_1000_bar = 342.79 * exp(kelvin * (-5.0866e-3 + kelvin * 9.469e-7))
    c = -2.0525 + 3115.9 / (kelvin - 182.89)
    b = -8032.5 + 4.21452e6 / kelvin + 2.1417 * kelvin
    dielectric = at_1000_bar + c * log((b + 1.01325) / (b + 1000.0))
    bjerrum = 1.671008e-3 / (dielectric * kelvin)  # cm
    kappa = sqrt(8 * pi * 6.02214e23 * bjerrum * water_density_kell75(temperature_c) / 1e3)
    return kappa * bjerrum / (2 * log(10)), kappa / 1e8


def water_density_kell75(temperature_c: float) -> float:
    """Density of pure water in g/cm3, 0 to 150 C. Kell 1975."""
    t = temperature_c
    top = 999.83952 + t * (
        16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - 280.54253e-12 * t)))
    )
    return top / (1 + 16.879850e-3 * t) / 1000.0
