"""Typed amounts in the reader's units, numbers and dates. The only place that knows a unit of display."""

from fractions import Fraction
from functools import singledispatch
from types import MappingProxyType

from babel.dates import format_date, format_skeleton
from babel.numbers import get_decimal_symbol, get_group_symbol

from kumpan.core.quantities.units import (
    G_PER_LB,
    G_PER_OZ,
    KPA_PER_PSI,
    L_PER_US_GAL,
    ML_PER_FL_OZ,
    fahrenheit_from_celsius,
)
from kumpan.core.quantity import (
    Ahead,
    CellOutput,
    Clock,
    Count,
    DateForm,
    Day,
    Duration,
    Flow,
    Liquid,
    Mass,
    Money,
    Number,
    Percent,
    PoolWater,
    Pressure,
    Quantity,
    Rain,
    RoughLiquid,
    RoughMass,
    Temperature,
    Weeks,
)
from kumpan.wording.reader import Reader

DAY_MIN = 1440
MM_PER_IN = 25.4
MINUS = "\u2212"
SOURCE_LANGUAGE = "en_US"
_PARTS = MappingProxyType({
    Fraction(0): "", Fraction(1, 4): "¼", Fraction(1, 3): "⅓", Fraction(1, 2): "½", Fraction(2, 3): "⅔",
    Fraction(3, 4): "¾",
})  # fmt: skip


def quantity_text(value: Quantity, reader: Reader) -> str:
    """An amount as this reader is told it."""
    text = _text(value, reader)
    return text if isinstance(value, Day) else localized(text, reader)


def localized(text: str, reader: Reader) -> str:
    """Figures of the source language in the reader's digits' signs."""
    if reader.language.startswith("en"):
        return text
    point, comma = get_decimal_symbol(reader.language), get_group_symbol(reader.language)
    return text.translate({ord("."): point, ord(","): comma})


@singledispatch
def _text(value: Quantity, reader: Reader) -> str:  # noqa: ARG001
    raise TypeError(f"no words for {type(value).__name__}")


@_text.register
def _(value: Number, reader: Reader) -> str:  # noqa: ARG001
    """Like "2,900", "−0.6", "+0.4": thousands set apart, and a minus where the keyboard has a hyphen."""
    form = "+," if value.signed else ","
    if value.digits is not None:
        form += f".{value.digits}f"
    else:
        form += "g" if value.figures is None else f".{value.figures}g"
    return f"{value.value:{form}}".replace("-", MINUS)


@_text.register
def _(value: Percent, reader: Reader) -> str:  # noqa: ARG001
    return f"{100 * value.share:.{value.digits}f} %"


@_text.register
def _(value: PoolWater, reader: Reader) -> str:
    amount = value.volume_l if reader.metric else value.volume_l / L_PER_US_GAL
    return f"{float(f'{amount:.3g}'):,.0f} {'L' if reader.metric else 'gal'}"


@_text.register
def _(value: Pressure, reader: Reader) -> str:
    if reader.metric is not value.other:
        return f"{value.pressure_kpa / 100:.2f} bar"
    return f"{value.pressure_kpa / KPA_PER_PSI:.0f} psi"


@_text.register
def _(value: Flow, reader: Reader) -> str:
    if reader.metric:
        return f"{value.flow_l_min:.0f} L/min"
    return f"{value.flow_l_min / L_PER_US_GAL:.0f} gpm"


@_text.register
def _(value: Temperature, reader: Reader) -> str:
    if reader.metric:
        return f"{value.temperature_c:.{value.digits}f} °C"
    return f"{fahrenheit_from_celsius(value.temperature_c):.{value.digits}f} °F"


@_text.register
def _(value: Rain, reader: Reader) -> str:
    if reader.metric:
        return f"{value.rain_mm:.0f} mm"
    return f"{value.rain_mm / MM_PER_IN:.1f} in"


@_text.register
def _(value: CellOutput, reader: Reader) -> str:
    if reader.metric:
        return f"{value.output_g_per_h:g} g/h"
    return f"{value.output_g_per_h * 24 / G_PER_LB:.2f} lb/day"


@_text.register
def _(value: Mass, reader: Reader) -> str:
    """Like "3 lb 10 oz", "13.5 oz"; metric "1.64 kg", "380 g"."""
    grams = value.mass_g
    if reader.metric:
        return f"{grams / 1000:.3g} kg" if grams >= 1000 else f"{grams:.3g} g"
    ounces = grams / G_PER_OZ
    if ounces < 16:
        return f"{ounces:.2f}".rstrip("0").rstrip(".") + " oz"
    if grams >= 10 * G_PER_LB and abs(ounces / 16 - round(ounces / 16)) < 0.02:
        return f"{round(ounces / 16)} lb"
    pounds, rest = divmod(round(ounces, 1), 16)
    return f"{pounds:.0f} lb" + (f" {rest:.3g} oz" if rest >= 0.05 else "")


@_text.register
def _(value: Liquid, reader: Reader) -> str:
    """Like "44 fl oz", "2½ gal", "1 gal 20 fl oz"; metric "1.3 L", "650 mL"."""
    ml = value.volume_ml
    if reader.metric:
        return f"{ml / 1000:.3g} L" if ml >= 1000 else f"{ml:.3g} mL"
    fl_oz = ml / ML_PER_FL_OZ
    if fl_oz < 128:
        return f"{fl_oz:.2f}".rstrip("0").rstrip(".") + " fl oz"
    gallons, rest = divmod(round(ml / 1000 / L_PER_US_GAL * 128), 128)
    if rest % 32 == 0:
        return f"{count_text(gallons + rest / 128)} gal"
    return f"{gallons} gal {rest} fl oz"


@_text.register
def _(value: RoughMass, reader: Reader) -> str:
    if reader.metric:
        return _rough(value.mass_g / 1000, "kg")
    return _rough(value.mass_g / G_PER_LB, "lb")


@_text.register
def _(value: RoughLiquid, reader: Reader) -> str:
    if reader.metric:
        return _rough(value.volume_ml / 1000, "L")
    return _rough(value.volume_ml / 1000 / L_PER_US_GAL, "gal")


def _rough(amount: float, unit: str) -> str:
    """Two figures at most, halves under ten, never nothing."""
    rounded = round(amount * 2) / 2 if amount < 10 else float(f"{amount:.2g}")
    return f"{max(0.5, rounded):g} {unit}"


@_text.register
def _(value: Money, reader: Reader) -> str:  # noqa: ARG001
    return f"{value.currency}{value.amount:.{value.digits}f}"


@_text.register
def _(value: Count, reader: Reader) -> str:  # noqa: ARG001
    return count_text(value.count)


def count_text(count: float) -> str:
    """Like "1½", "⅔"; other parts in figures: a jug read in tenths may be filled to 0.4."""
    exact = Fraction(count).limit_denominator(100)
    whole, part = divmod(exact, 1)
    if part not in _PARTS:
        return f"{count:.3g}"
    return f"{whole or ''}{_PARTS[part]}" or "0"


@_text.register
def _(value: Duration, reader: Reader) -> str:  # noqa: ARG001
    """Like "30 min", "4 h", "1 h 35 min", "7 days"."""
    if value.minutes >= 2 * DAY_MIN:
        return f"{round(value.minutes / DAY_MIN)} days"
    hours, rest = divmod(value.minutes, 60)
    if not hours:
        return f"{rest} min"
    return f"{hours} h" + (f" {rest} min" if rest else "")


@_text.register
def _(value: Weeks, reader: Reader) -> str:  # noqa: ARG001
    return f"about {value.days:.0f} days" if value.days < 14 else f"about {value.days / 7:.0f} weeks"


_SKELETONS = MappingProxyType({
    DateForm.WEEKDAY: "EEEE", DateForm.DAY: "MMMMd", DateForm.WEEKDAY_AND_DAY: "MMMEd",
    DateForm.DAY_AND_YEAR: "yMMMMd",
    DateForm.MONTH: "MMMM",
})  # fmt: skip


@_text.register
def _(value: Day, reader: Reader) -> str:
    skeleton = _SKELETONS[value.form]
    if value.form in (DateForm.WEEKDAY, DateForm.MONTH):
        return format_date(value.day, skeleton, locale=reader.language_known)
    return format_skeleton(skeleton, value.day, fuzzy=True, locale=reader.language_known)


@_text.register
def _(value: Clock, reader: Reader) -> str:
    return clock_text(value, reader)


def clock_text(value: Clock, reader: Reader) -> str:
    """Like "7:10 PM" where units are US, "19:10" else."""
    at = value.at
    if reader.metric:
        return f"{at:%H:%M}"
    return f"{at.hour % 12 or 12}:{at:%M} {'AM' if at.hour < 12 else 'PM'}"


@_text.register
def _(value: Ahead, reader: Reader) -> str:
    """Like "today about 2 PM", "on Thursday about 2 PM", "on August 3": as far as a forecast can tell."""
    days = (value.at.date() - value.now.date()).days
    hour = (
        f"{value.at:%H}:00"
        if reader.metric
        else f"{value.at.hour % 12 or 12} {'AM' if value.at.hour < 12 else 'PM'}"
    )
    if days <= 0:
        return f"today about {hour}"
    if days == 1:
        return f"tomorrow about {hour}"
    if days < 7:
        return f"on {_text(Day(value.at.date(), DateForm.WEEKDAY), reader)} about {hour}"
    return f"on {_text(Day(value.at.date()), reader)}"
