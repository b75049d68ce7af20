"""Waters and pools that several tests use. Invented."""

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.quantities.readings import Readings

POOL_L = 75708.0  # 20,000 US gal
PLASTER = Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.SAND)
SALT_POOL = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)
VINYL_TABLETS = Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.CARTRIDGE)
INDOOR = Traits(surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True)
GOOD = Readings(
    free_chlorine=2.5,
    total_chlorine=2.6,
    ph=7.5,
    total_alkalinity=100,
    calcium_hardness=260,
    cyanuric_acid=40,
    temperature_c=26,
)


def engine_state(**readings: float) -> State:
    """A water solved from its readings; it must have carbonate."""
    known = known_from(Readings(**readings))
    assert known is not None
    state = solve_readings(known)
    assert isinstance(state, State)
    return state
