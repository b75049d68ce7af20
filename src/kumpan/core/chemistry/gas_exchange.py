"""Carbon dioxide between water and air: the one change that moves pH and leaves alkalinity alone.

Pool water nearly always holds several times the carbon dioxide that air would leave in it, so it
outgasses, pH rises, and the faster the more alkaline and the more acid the water is.
Sources: plummer-busenberg, co2-in-air, gas-transfer, aeration.
"""

from kumpan.core.chemistry.constants import constants_at
from kumpan.core.chemistry.equilibrium import solve_totals
from kumpan.core.chemistry.speciation import MOST_ROUNDS, Totals, speciate

SOURCES_USED = ("plummer-busenberg", "co2-in-air", "gas-transfer", "aeration")

CO2_IN_AIR_ATM = 420e-6
LARGEST_STEP = 0.1  # of the way to equilibrium, per step of the integration
CARBON_SETTLED = 1e-12


def co2_at_air_mol_l(temperature_c: float, pressure_atm: float = CO2_IN_AIR_ATM) -> float:
    """Dissolved CO2 (mol/L) in fresh water at rest with air; salt takes off 2 % at sea-water strength."""
    return float(10 ** constants_at(temperature_c).log_k_co2_gas) * pressure_atm


def carbon_at_ph(totals: Totals, ph: float) -> float:
    """Total carbon (mol/L) with which this water would have that pH, its alkalinity kept.

    Below what it holds now: so much leaves by aeration. May be negative: no aeration reaches that pH.
    """
    carbon = totals.carbon
    for _ in range(MOST_ROUNDS):
        species = speciate(ph, totals._replace(carbon=max(carbon, 1e-12)), constants_at(totals.temperature_c))
        new = (totals.alkalinity - species.other_alkalinity) / species.carbonate_alkalinity_per_carbon
        if abs(new - carbon) < CARBON_SETTLED:
            break
        carbon = new
    return float(new)


def aerated_to_ph(totals: Totals, ph: float) -> Totals:
    """The water once aeration (or added CO2, for a lower pH) has brought it to a pH; alkalinity as before."""
    return totals._replace(carbon=max(0.0, carbon_at_ph(totals, ph)))


def exchanged(totals: Totals, transfer_m_per_day: float, mean_depth_m: float, days: float) -> Totals:
    """The water after `days` of exchange with air at a piston velocity, over its mean depth.

    d(carbon)/dt = -(velocity/depth) (CO2 - CO2 at air). Steps are short against the time in which the
    CO2 in excess would be gone, so that explicit steps of second order suffice (checked against scipy).
    """
    rate = transfer_m_per_day / mean_depth_m
    left = days
    at_air = co2_at_air_mol_l(totals.temperature_c)
    near = 7.5
    while left > 0 and rate > 0:
        step = min(left, LARGEST_STEP / rate)
        state = solve_totals(totals, near)
        middle = totals._replace(
            carbon=totals.carbon - 0.5 * step * rate * (float(state.species.co2) - at_air)
        )
        there = solve_totals(middle, float(state.species.ph))
        totals = totals._replace(carbon=totals.carbon - step * rate * (float(there.species.co2) - at_air))
        near, left = float(there.species.ph), left - step
    return totals
