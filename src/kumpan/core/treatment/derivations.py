"""The working shown for a lane or a dose: what was measured, by which equation, from which source.

Sources: those named in each row.
"""

from dataclasses import dataclass

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.equilibrium import MG_PER_EQ, State
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.products.product import Product, density, moles_per_g
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.chlorine_targets import chlorine_minimums, reference_hypochlorous_mg_l
from kumpan.core.ranges.profiles import Band, Profile
from kumpan.core.records.derivation import Derivation, derivation
from kumpan.core.testing.methods import Measured

Pair = tuple[str, str]


@dataclass(frozen=True)
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
    equation = "Read by hand; the float is as wide as the method's doubt."
    sources: tuple[str, ...] = ("method-doubt",)
    if measure is Measure.FREE_CHLORINE:
        equation, more, sources = _chlorine(context)
        pairs += more
    elif measure is Measure.TOTAL_ALKALINITY and context.state is not None:
        carbonate = float(context.state.species.carbonate_alkalinity) * MG_PER_EQ
        equation = (
            "Titrated alkalinity counts stabiliser, borate and chlorine too; what is left is carbonate, "
            "which sets pH and scale."
        )
        pairs += (("carbonate alkalinity", f"{carbonate:.0f} ppm"),)
        sources = ("phreeqc-dat", "obrien", "method-doubt")
    elif measure is Measure.COMBINED_CHLORINE:
        equation = "Total chlorine minus free chlorine."
    return derivation(equation, pairs, (*sources, context.profile.source))


def _as_read(reading: Measured, context: GaugeContext) -> tuple[Pair, ...]:
    method = reading.method.value.replace("_", " ")
    pairs: tuple[Pair, ...] = (
        ("read", f"{reading.value:.4g} by {method}"),
        ("may really be", f"{reading.low:.4g} to {reading.high:.4g}"),
    )
    band = context.band
    if band is not None and band.high is not None:
        low = "" if band.low is None else f"{band.low:g} to "
        pairs += ((f"{context.profile.name} range", f"{low}{band.high:g}"),)
    if band is not None and band.aim is not None:
        pairs += (("aim", f"{band.aim:g}"),)
    return pairs


def _chlorine(context: GaugeContext) -> tuple[str, tuple[Pair, ...], tuple[str, ...]]:
    equation = (
        "Free chlorine is shared between hypochlorous acid, which kills, hypochlorite, and stabiliser, which holds it. "
        "Equilibrium at this pH, stabiliser and temperature gives the active part."
    )
    pairs: tuple[Pair, ...] = ()
    if context.state is not None:
        active = float(context.state.species.hocl) * molar.CHLORINE * 1000
        pairs += (("active chlorine (hypochlorous acid)", f"{active:.3f} ppm"),)
        pairs += (("enough in a 20 to 1 water", f"{reference_hypochlorous_mg_l():.3f} ppm"),)
    if context.band is not None:
        least = chlorine_minimums(context.readings, context.band)
        for name, value in (
            ("fixed range", least.fixed),
            ("stabiliser ratio", least.by_ratio),
            ("active chlorine", least.by_active),
        ):
            if value is not None:
                pairs += ((f"least free chlorine by {name}", f"{value:.1f} ppm"),)
    return equation, pairs, ("morris", "obrien", "cya-ratio")


def _index(context: GaugeContext) -> Derivation | None:
    state = context.state
    if state is None:
        return None
    pairs: tuple[Pair, ...] = (
        ("pH", f"{float(state.species.ph):.2f}"),
        ("carbonate alkalinity", f"{float(state.species.carbonate_alkalinity) * MG_PER_EQ:.0f} ppm"),
        ("calcium hardness", f"{context.readings.calcium_hardness or 0:.0f} ppm"),
        ("temperature", f"{state.totals.temperature_c:.1f} C"),
        ("ionic strength", f"{float(state.species.frame.strength):.4f} mol/L"),
        ("index", f"{float(saturation_index(state)):+.2f}"),
    )
    if context.classic_index is not None:
        pairs += (("classic table index, as shops quote it", f"{context.classic_index:+.2f}"),)
    equation = (
        "log10 of calcium times carbonate (as activities) over what calcite allows. "
        "0 is saturated; above, scale forms; below, cement is eaten."
    )
    return derivation(equation, pairs, ("plummer-busenberg", "phreeqc-dat", "langelier"))


def dose_derivation(product: Product, mass_g: float, measure: Measure, volume_l: float) -> Derivation:
    """The working of one addition: the mass balance, and for pH products the equilibrium behind it."""
    pairs: tuple[Pair, ...] = (
        ("water", f"{volume_l:,.0f} L"),
        ("product", product.label),
        (
            "strength",
            f"{product.strength_percent:g} %"
            + (" (g per 100 mL)" if product.row.trade_percent else " by mass"),
        ),
        (
            "exact amount",
            f"{mass_g:,.1f} g" + (f" = {mass_g / density(product):,.0f} mL" if product.row.is_liquid else ""),
        ),
        ("acts as", f"{mass_g * moles_per_g(product):.3g} mol"),
    )
    if measure in (Measure.PH, Measure.TOTAL_ALKALINITY):
        equation = (
            "The water's totals at the target (pH and alkalinity) minus those now give the alkalinity and carbon "
            "to add; the products' amounts follow, all other doses and the chlorine they bring reckoned as used up."
        )
        per_kg = change_per_g(product, Measure.TOTAL_ALKALINITY, volume_l, spent=True) * 1000
        pairs += (("1 kg moves alkalinity here by", f"{per_kg:+.2f} ppm"),)
        return derivation(equation, pairs, ("phreeqc-dat", "plummer-busenberg", "mass-balance", "rounding"))
    per_kg = change_per_g(product, measure, volume_l) * 1000
    pairs += (("1 kg moves it here by", f"{per_kg:+.3g} ppm"),)
    equation = "Amount = change wanted x water / what one gram of product brings; what other doses bring is taken off first."
    return derivation(equation, pairs, ("mass-balance", "available-chlorine", "densities", "rounding"))
