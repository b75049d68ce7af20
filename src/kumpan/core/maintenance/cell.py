"""The cell's bench: what it makes, what the pool uses, both knobs, what a boost adds, and the season's
advice.

Sources: cell-rates, cell-limits.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from kumpan.core.dosing.feeding import cell_percent
from kumpan.core.findings import Finding
from kumpan.core.journal import CellSet
from kumpan.core.messages import Message
from kumpan.core.quantity import Number, Percent
from kumpan.core.ranges.profiles import Band
from kumpan.core.treatment.special.shock import FIXED_MG_L

SOURCES_USED = ("cell-rates", "cell-limits")

COLD_C = (65 - 32) / 1.8
STABILIZER_LOW = 30.0
WORTH_A_WORD_C = 2.0
WORTH_A_WORD_SHARE = 0.1


@dataclass(frozen=True)
class Knobs:
    """One way to set the cell: percent and hours a day."""

    percent: float
    hours: float


@dataclass(frozen=True, kw_only=True)
class CellBalance:
    """mg/L a day that it makes now and that the pool uses; ways to set it that hold; what 24 h at 100 %
    adds, as a number and in words.
    """

    makes_mg_l_day: float
    uses_mg_l_day: float | None
    settings: tuple[Knobs, ...]
    boost_mg_l: float
    boost_text: Message
    undersized: bool
    findings: tuple[Finding, ...]


def made_mg_l_day(
    cell: CellSet, volume_l: float, percent: float | None = None, hours: float | None = None
) -> float:
    """Output times setting times hours, by the pool's volume."""
    share = (cell.percent if percent is None else percent) / 100.0
    return cell.output_g_per_h * share * (cell.hours_per_day if hours is None else hours) * 1000.0 / volume_l


def cell_balance(
    cell: CellSet,
    volume_l: float,
    loss_mg_l_day: float | None,
    *,
    stabilizer_mg_l: float | None,
    stabilizer_band: Band | None,
    water_c: float | None,
    overnight_mg_l: float | None,
    warmed_c: float | None = None,
    strength: float = 1.0,
) -> CellBalance:
    """The bench for one pool; `loss_mg_l_day` is what the forecast says it uses, None without one.

    `warmed_c` is how much warmer the water is than a month ago. `strength` is what the forecast has learned
    of the cell, as a share of its rating: both go by the same, else the bench says "makes less than it uses"
    beside a forecast that rises.
    """
    cell = replace(cell, output_g_per_h=cell.output_g_per_h * strength)
    full = made_mg_l_day(cell, volume_l, 100.0, 24.0)
    findings = _findings(
        cell,
        loss_mg_l_day,
        full=full,
        stabilizer=stabilizer_mg_l,
        band=stabilizer_band,
        water_c=water_c,
        overnight=overnight_mg_l,
    )
    return CellBalance(
        makes_mg_l_day=made_mg_l_day(cell, volume_l),
        uses_mg_l_day=loss_mg_l_day,
        settings=tuple(_settings(cell, volume_l, loss_mg_l_day)),
        boost_mg_l=full,
        boost_text=_boost(full),
        undersized=loss_mg_l_day is not None and loss_mg_l_day > full,
        findings=(*findings, *_learned(strength), *_season(warmed_c)),
    )


def _boost(added_mg_l: float) -> Message:
    added = Number(added_mg_l, digits=1)
    if added_mg_l < FIXED_MG_L:
        return Message("A boost, 100 % for 24 h, adds {added} ppm here: not a shock by itself.", added=added)
    return Message("A boost, 100 % for 24 h, adds {added} ppm here.", added=added)


def _settings(cell: CellSet, volume_l: float, loss: float | None) -> Iterator[Knobs]:
    """At the hours of now, eight, twelve and around the clock; only what stays within 100 %."""
    if loss is None or loss <= 0:
        return
    for hours in sorted({cell.hours_per_day or 8.0, 8.0, 12.0, 24.0}):
        percent = cell_percent(loss, volume_l, cell.output_g_per_h, hours)
        if percent <= 100:
            yield Knobs(percent, hours)


def _findings(
    cell: CellSet,
    loss: float | None,
    full: float,
    stabilizer: float | None,
    band: Band | None,
    water_c: float | None,
    overnight: float | None,
) -> Iterator[Finding]:
    if water_c is not None and water_c <= COLD_C:
        yield Finding("cold_cell", Message("Too cold for many units: off by its manual, chlorinate by hand."))
        return
    if loss is None:
        yield Finding(
            "no_forecast", Message("What the pool uses a day is not known yet: a few more tests will tell.")
        )
        return
    if loss > full:
        yield Finding(
            "undersized", _cannot(loss, full, stabilizer=stabilizer, band=band, overnight=overnight)
        )
    if cell.percent >= 99 and cell.hours_per_day >= 23:
        yield Finding("ph_rises", Message("A cell at full output drives pH up: expect acid every week."))


def _learned(strength: float) -> tuple[Finding, ...]:
    if abs(strength - 1.0) < WORTH_A_WORD_SHARE:
        return ()
    text = Message("By your tests it makes {strength} of its rated output.", strength=Percent(strength))
    return (Finding("cell_strength", text),)


def _season(warmed_c: float | None) -> tuple[Finding, ...]:
    """Raise with heat and use, lower in autumn."""
    if warmed_c is None or abs(warmed_c) < WORTH_A_WORD_C:
        return ()
    if warmed_c > 0:
        text = Message("The water is warmer than a month ago: expect to raise the setting.")
    else:
        text = Message("The water is colder than a month ago: less is needed, lower the setting.")
    return (Finding("season", text, None, {"warmed_c": warmed_c}),)


def _cannot(
    loss: float, full: float, stabilizer: float | None, band: Band | None, overnight: float | None
) -> Message:
    """Why even full output does not hold, as far as the log supports it."""
    said = Message(
        "Even 100 % around the clock makes {full} a day; this pool uses {loss}. ",
        full=Number(full, digits=1),
        loss=Number(loss, digits=1),
    )
    low = (band.low if band is not None and band.low is not None else STABILIZER_LOW) or STABILIZER_LOW
    if overnight is not None and overnight > 1.0:
        return Message(
            "{said}It loses over 1 in a night without sun: something eats it. Shock before a bigger cell.",
            said=said,
        )
    if stabilizer is not None and stabilizer < low:
        return Message(
            "{said}Stabilizer is {stabilizer}, under {low}: the sun takes it. Stabilizer first.",
            said=said,
            stabilizer=Number(stabilizer, digits=0),
            low=Number(low, digits=0),
        )
    return Message(
        "{said}Neither algae nor stabilizer explains it: the cell is too small for this pool.", said=said
    )
