"""The working shown for a lane or a dose: what was measured, by which equation, from which source.

Sources: those named in each row.
"""

from dataclasses import dataclass

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.equilibrium import MG_PER_EQ, State
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.product import Product, density, moles_per_g
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number, Temperature
from kumpan.core.ranges.chlorine_targets import chlorine_minimums, reference_hypochlorous_mg_l
from kumpan.core.ranges.profiles import Band, Profile
from kumpan.core.records.derivation import Derivation, derivation
from kumpan.core.testing.methods import METHOD_NAMES, Measured

Pair = tuple[Message, Message]


@dataclass(frozen=True, kw_only=True)
class GaugeContext:
    """What the working of a lane draws on."""

    readings: Readings
    state: State | None
    profile: Profile
    band: Band | None
    classic_index: float | None = None


def gauge_derivation(measure: Measure, reading: Measured | None, context: GaugeContext) -> Derivation | None:
    """The working of one lane; None for what is not measured."""
    if reading is None:
        return None
    if measure is Measure.SATURATION_INDEX:
        return _index(context)
    pairs = _as_read(reading, context)
    equation = Message("Read by hand; the float is as wide as the method's doubt.")
    sources: tuple[str, ...] = ("method-doubt",)
    if measure is Measure.FREE_CHLORINE:
        equation, more, sources = _chlorine(context)
        pairs += more
    elif measure is Measure.TOTAL_ALKALINITY and context.state is not None:
        carbonate = float(context.state.species.carbonate_alkalinity) * MG_PER_EQ
        equation = Message(
            "Titrated alkalinity counts stabilizer, borate and chlorine too; what is left is "
            "carbonate, which sets pH and scale."
        )
        pairs += (
            (
                Message("carbonate alkalinity"),
                Message("{carbonate} ppm", carbonate=Number(carbonate, digits=0)),
            ),
        )
        sources = ("phreeqc-dat", "obrien", "method-doubt")
    elif measure is Measure.COMBINED_CHLORINE:
        equation = Message("Total chlorine minus free chlorine.")
    return derivation(equation, pairs, (*sources, context.profile.source))


def _as_read(reading: Measured, context: GaugeContext) -> tuple[Pair, ...]:
    method = METHOD_NAMES[reading.method]
    pairs: tuple[Pair, ...] = (
        (
            Message("read"),
            Message("{value} by {method}", value=Number(reading.value, figures=4), method=method),
        ),
        (
            Message("may really be"),
            Message(
                "{low} to {high}", low=Number(reading.low, figures=4), high=Number(reading.high, figures=4)
            ),
        ),
    )
    band = context.band
    if band is not None and band.high is not None:
        name = Message("{profile} range", profile=context.profile.name)
        high = Number(band.high)
        low_to_high = (
            Message("{high}", high=high)
            if band.low is None
            else Message("{low} to {high}", low=Number(band.low), high=high)
        )
        pairs += ((name, low_to_high),)
    if band is not None and band.aim is not None:
        pairs += ((Message("aim"), Message("{aim}", aim=Number(band.aim))),)
    return pairs


def _chlorine(context: GaugeContext) -> tuple[Message, tuple[Pair, ...], tuple[str, ...]]:
    equation = Message(
        "Free chlorine is shared between hypochlorous acid, which kills, hypochlorite, and "
        "stabilizer, which holds it. Equilibrium at this pH, stabilizer and temperature gives the "
        "active part."
    )
    pairs: tuple[Pair, ...] = ()
    if context.state is not None:
        active = float(context.state.species.hocl) * molar.CHLORINE * 1000
        pairs += (
            (
                Message("active chlorine (hypochlorous acid)"),
                Message("{active} ppm", active=Number(active, digits=3)),
            ),
        )
        pairs += (
            (
                Message("enough in a 20 to 1 water"),
                Message(
                    "{reference_hypochlorous} ppm",
                    reference_hypochlorous=Number(reference_hypochlorous_mg_l(), digits=3),
                ),
            ),
        )
    if context.band is not None:
        least = chlorine_minimums(context.readings, context.band)
        for name, value in (
            (Message("fixed range"), least.fixed),
            (Message("stabilizer ratio"), least.by_ratio),
            (Message("active chlorine"), least.by_active),
        ):
            if value is not None:
                pairs += (
                    (
                        Message("least free chlorine by {name}", name=name),
                        Message("{value} ppm", value=Number(value, digits=1)),
                    ),
                )
    return equation, pairs, ("morris", "obrien", "cya-ratio")


def _index(context: GaugeContext) -> Derivation | None:
    state = context.state
    if state is None:
        return None
    equation = Message(
        "log10 of calcium times carbonate (as activities) over what calcite allows. 0 is "
        "saturated; above, scale forms; below, cement is eaten."
    )
    pairs = _index_pairs(state, context.readings)
    if context.classic_index is not None:
        pairs += (
            (
                Message("classic table index, as shops quote it"),
                Message(
                    "{classic_index}", classic_index=Number(context.classic_index, digits=2, signed=True)
                ),
            ),
        )
    return derivation(equation, pairs, ("plummer-busenberg", "phreeqc-dat", "langelier"))


def _index_pairs(state: State, readings: Readings) -> tuple[Pair, ...]:
    return (
        (Message("pH"), Message("{ph}", ph=Number(float(state.species.ph), digits=2))),
        (
            Message("carbonate alkalinity"),
            Message(
                "{mg_per_eq} ppm",
                mg_per_eq=Number(float(state.species.carbonate_alkalinity) * MG_PER_EQ, digits=0),
            ),
        ),
        (
            Message("calcium hardness"),
            Message(
                "{calcium_hardness} ppm",
                calcium_hardness=Number(readings.calcium_hardness or 0, digits=0),
            ),
        ),
        (
            Message("temperature"),
            Message("{temperature}", temperature=Temperature(state.totals.temperature_c, digits=1)),
        ),
        (
            Message("ionic strength"),
            Message("{strength} mol/L", strength=Number(float(state.species.frame.strength), digits=4)),
        ),
        (
            Message("index"),
            Message(
                "{saturation_index}",
                saturation_index=Number(float(saturation_index(state)), digits=2, signed=True),
            ),
        ),
    )


def dose_derivation(product: Product, mass_g: float, measure: Measure, volume_l: float) -> Derivation:
    """The working of one addition: the mass balance, and for pH products the equilibrium behind it."""
    pairs = _dose_pairs(product, mass_g, volume_l)
    if measure in (Measure.PH, Measure.TOTAL_ALKALINITY):
        equation = Message(
            "The water's totals at the target (pH and alkalinity) minus those now give the alkalinity "
            "and carbon to add; the products' amounts follow, all other doses and the chlorine they "
            "bring computed as used up."
        )
        per_kg = change_per_g(product, Measure.TOTAL_ALKALINITY, volume_l, spent=True) * 1000
        pairs += (
            (
                Message("1 kg moves alkalinity here by"),
                Message("{per_kg} ppm", per_kg=Number(per_kg, digits=2, signed=True)),
            ),
        )
        return derivation(equation, pairs, ("phreeqc-dat", "plummer-busenberg", "mass-balance", "rounding"))
    per_kg = change_per_g(product, measure, volume_l) * 1000
    pairs += (
        (
            Message("1 kg moves it here by"),
            Message("{per_kg} ppm", per_kg=Number(per_kg, figures=3, signed=True)),
        ),
    )
    equation = Message(
        "Amount = change wanted x water / what one gram of product brings; what other doses bring "
        "is taken off first."
    )
    return derivation(equation, pairs, ("mass-balance", "available-chlorine", "densities", "rounding"))


def _dose_pairs(product: Product, mass_g: float, volume_l: float) -> tuple[Pair, ...]:
    return (
        (Message("water"), Message("{volume} L", volume=Number(volume_l, digits=0))),
        (Message("product"), Message("{product}", product=Verbatim(product.label))),
        (
            Message("strength"),
            (
                Message(
                    "{strength_percent} % (g per 100 mL)", strength_percent=Number(product.strength_percent)
                )
                if product.row.trade_percent
                else Message(
                    "{strength_percent} % by mass", strength_percent=Number(product.strength_percent)
                )
            ),
        ),
        (
            Message("exact amount"),
            (
                Message(
                    "{mass} g = {mass_2} mL",
                    mass=Number(mass_g, digits=1),
                    mass_2=Number(mass_g / density(product), digits=0),
                )
                if product.row.is_liquid
                else Message("{mass} g", mass=Number(mass_g, digits=1))
            ),
        ),
        (Message("acts as"), Message("{mass} mol", mass=Number(mass_g * moles_per_g(product), figures=3))),
    )
