"""What holds a pool between two visits: tablets a week, a feeder's liters, a cell's setting.

Sources: cell-rates, tablet-release, mass-balance.
"""

from dataclasses import dataclass

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Mass, Number

SOURCES_USED = ("cell-rates", "tablet-release", "mass-balance")

TABLET_G = 226.8  # the 3 inch, 8 oz tablet
TABLET = Product("tablet", "trichlor", 90.0, package_g=TABLET_G)


@dataclass(frozen=True)
class TabletWeek:
    """Tablets a week that make good a loss, and the stabilizer (mg/L) that they bring in that week."""

    tablets: float
    stabilizer_mg_l: float


def tablets_a_week(loss_mg_l_day: float, volume_l: float, tablet: Product = TABLET) -> TabletWeek:
    """Loss times seven days times volume, by what one tablet holds."""
    grams = 7 * loss_mg_l_day / change_per_g(tablet, Measure.FREE_CHLORINE, volume_l)
    brings = grams * change_per_g(tablet, Measure.CYANURIC_ACID, volume_l)
    return TabletWeek(grams / (tablet.package_g or TABLET_G), brings)


def feeder_ml_a_day(loss_mg_l_day: float, volume_l: float, liquid: Product) -> float:
    """Liquid chlorine a day that makes good a loss."""
    grams = loss_mg_l_day / change_per_g(liquid, Measure.FREE_CHLORINE, volume_l)
    return volume_from_mass_ml(liquid, grams) or 0.0


def cell_percent(loss_mg_l_day: float, volume_l: float, output_g_per_h: float, hours_per_day: float) -> float:
    """The setting that makes good a loss in so many hours; over 100 means the cell cannot."""
    return 100.0 * loss_mg_l_day * volume_l / 1000.0 / (output_g_per_h * hours_per_day)


def tablet_note(loss_mg_l_day: float, volume_l: float) -> Finding:
    """How many tablets a week hold a loss (mg/L a day) between visits."""
    week = tablets_a_week(loss_mg_l_day, volume_l)
    text = Message(
        "Between visits: {tablets} tablets of {tablet} a week hold a loss of {loss_mg_l_day} a day, "
        "and bring {stabilizer} of stabilizer each week.",
        tablets=Number(week.tablets, digits=1),
        tablet=Mass(TABLET_G),
        loss_mg_l_day=Number(loss_mg_l_day, digits=1),
        stabilizer=Number(week.stabilizer_mg_l, digits=1),
    )
    return Finding("tablets_a_week", text, Measure.FREE_CHLORINE, {"tablets": week.tablets})


def cell_note(loss_mg_l_day: float, volume_l: float, output_g_per_h: float, hours_per_day: float) -> Finding:
    """At what percent the cell holds a loss (mg/L a day) between visits, or that it cannot."""
    percent = cell_percent(loss_mg_l_day, volume_l, output_g_per_h, hours_per_day)
    if percent <= 100:
        text = Message(
            "Between visits: the cell at {percent} % for {hours_per_day} h a day holds a loss of "
            "{loss_mg_l_day}.",
            percent=Number(percent, digits=0),
            hours_per_day=Number(hours_per_day),
            loss_mg_l_day=Number(loss_mg_l_day, digits=1),
        )
    else:
        hours = hours_per_day * percent / 100
        longer = (
            Message("it takes 100 % for {hours} h", hours=Number(hours, digits=0))
            if hours <= 24
            else Message("even 100 % around the clock does not")
        )
        text = Message(
            "Between visits: the cell cannot hold a loss of {loss_mg_l_day} a day in {hours_per_day} "
            "h; {longer}.",
            loss_mg_l_day=Number(loss_mg_l_day, digits=1),
            hours_per_day=Number(hours_per_day),
            longer=longer,
        )
    return Finding("cell_setting", text, Measure.FREE_CHLORINE, {"percent": percent})
