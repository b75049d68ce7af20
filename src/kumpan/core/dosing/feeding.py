"""What holds a pool between two visits: tablets a week, a feeder's litres, a cell's setting.

Sources: cell-rates, tablet-release, mass-balance.
"""

from dataclasses import dataclass

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.findings import Finding
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure

SOURCES_USED = ("cell-rates", "tablet-release", "mass-balance")

TABLET_G = 227.0  # the 3 inch, 8 oz tablet
TABLET = Product("tablet", "trichlor", 90.0, package_g=TABLET_G)


@dataclass(frozen=True)
class TabletWeek:
    """Tablets a week that make good a loss, and the stabiliser (mg/L) that they bring in that week."""

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
    week = tablets_a_week(loss_mg_l_day, volume_l)
    text = (
        f"Between visits: {week.tablets:.1f} tablets of 8 oz a week hold a loss of {loss_mg_l_day:.1f} a day, "
        f"and bring {week.stabilizer_mg_l:.1f} of stabiliser each week."
    )
    return Finding("tablets_a_week", text, Measure.FREE_CHLORINE, {"tablets": week.tablets})


def cell_note(loss_mg_l_day: float, volume_l: float, output_g_per_h: float, hours_per_day: float) -> Finding:
    percent = cell_percent(loss_mg_l_day, volume_l, output_g_per_h, hours_per_day)
    if percent <= 100:
        text = f"Between visits: the cell at {percent:.0f} % for {hours_per_day:g} h a day holds a loss of {loss_mg_l_day:.1f}."
    else:
        hours = hours_per_day * percent / 100
        longer = (
            f"it takes 100 % for {hours:.0f} h" if hours <= 24 else "even 100 % around the clock does not"
        )
        text = f"Between visits: the cell cannot hold a loss of {loss_mg_l_day:.1f} a day in {hours_per_day:g} h; {longer}."
    return Finding("cell_setting", text, Measure.FREE_CHLORINE, {"percent": percent})
