"""What a column of somebody's table holds, guessed by its header and by what stands in it.

A guess is only ever shown: whoever brings the table in sees it beside the rows, and corrects it.
The words are common practice: what owners and technicians write over their columns.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import TypeVar

from kumpan.core.notebook.dates import DateOrder, are_dates, date_order
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import UNITS

M = Measure
T = TypeVar("T")


class ColumnRole(StrEnum):
    """What a column is for."""

    SKIP = "skip"
    DATE = "date"
    TIME = "time"
    POOL = "pool"
    PERSON = "person"
    NOTE = "note"
    CLARITY = "clarity"
    MEASURE = "measure"
    ADDED = "added"  # how much of one product, which the header names
    PRODUCT = "product"
    AMOUNT = "amount"
    TREATMENT = "treatment"  # amount and product in words
    STRENGTH = "strength"
    PACKAGE = "package"
    PACKAGES = "packages"
    PRICE = "price"
    VOLUME = "volume"
    SURFACE = "surface"
    CHLORINATION = "chlorination"
    FILTER = "filter"
    PLACE = "place"
    WEEKDAY = "weekday"


class TableKind(StrEnum):
    """What a table tells of."""

    NOTEBOOK = "notebook"  # tests, additions, looks
    STOCK = "stock"
    POOLS = "pools"
    STOPS = "stops"


@dataclass(frozen=True, kw_only=True)
class Column:
    """How one column is read. `measure` with MEASURE, `chemical` and `strength_percent` with ADDED.

    `unit`: what its numbers are in, a word of `NOTEBOOK_UNITS`, empty for the usual one. `decimal_comma`:
    "7,4" is 7.4 and "1.200" is 1200. `dates`: which comes first in a date.
    """

    role: ColumnRole
    measure: Measure | None = None
    chemical: str = ""
    strength_percent: float | None = None
    unit: str = ""
    decimal_comma: bool = False
    dates: DateOrder = DateOrder.YEAR_FIRST


# One row a role: the words over a column. The first row that fits counts.
_ROLE_WORDS: tuple[tuple[ColumnRole, str], ...] = (
    (ColumnRole.DATE, "date day datetime when timestamp datum fecha dated"),
    (ColumnRole.TIME, "time hour clock uhrzeit hora"),
    (ColumnRole.PERSON, "by tech technician who person tester initials name_of_tester"),
    (ColumnRole.NOTE, "note notes comment comments remarks remark memo observation observations"),
    (ColumnRole.CLARITY, "clarity look looks appearance visual water_look water_clarity"),
    (ColumnRole.POOL, "pool client customer site account location poolname pool_name"),
    (ColumnRole.PRODUCT, "product chemical item added_product what_added"),
    (ColumnRole.AMOUNT, "amount quantity qty dose added_amount how_much"),
    (ColumnRole.TREATMENT, "treatment treatments added additions chemicals dosed dosing put_in chems"),
)  # fmt: skip
_KIND_WORDS: dict[TableKind, tuple[tuple[ColumnRole, str], ...]] = {
    TableKind.NOTEBOOK: (),
    TableKind.STOCK: (
        (ColumnRole.STRENGTH, "strength percent % concentration available"),
        (ColumnRole.PACKAGE, "package size packaging container pack unit_size"),
        (ColumnRole.PACKAGES, "packages count bought on_hand stock number units qty quantity"),
        (ColumnRole.PRICE, "price cost paid total"),
        (ColumnRole.PRODUCT, "product chemical item name"),
    ),
    TableKind.POOLS: (
        (ColumnRole.POOL, "pool name client customer site pool_name"),
        (ColumnRole.VOLUME, "volume gallons gal liters litres size capacity m3"),
        (ColumnRole.SURFACE, "surface finish interior lining"),
        (ColumnRole.CHLORINATION, "chlorination sanitizer system chlorinator chlorine"),
        (ColumnRole.FILTER, "filter filtration"),
        (ColumnRole.PLACE, "address place city town street location"),
    ),
    TableKind.STOPS: (
        (ColumnRole.POOL, "pool name client customer site stop"),
        (ColumnRole.WEEKDAY, "weekday day route_day service_day"),
        (ColumnRole.PERSON, "technician tech driver who route by"),
    ),
}
_MEASURE_WORDS: tuple[tuple[Measure, str], ...] = (
    (M.COMBINED_CHLORINE, "combined cc chloramine chloramines comb_cl"),
    (M.TOTAL_CHLORINE, "total_chlorine tc tcl total_cl cl_total tot_cl totalchlor"),
    (M.CYANURIC_ACID, "cya cyanuric stabilizer stabiliser conditioner stab cyanurate"),
    (M.TOTAL_ALKALINITY, "alkalinity ta alk talk total_alk carbonate_hardness kh"),
    (M.CALCIUM_HARDNESS, "calcium hardness ch cal hard calcium_hardness gh total_hardness"),
    (M.FREE_CHLORINE, "free_chlorine fc fcl fac free_cl chlorine cl free cl_free cl2"),
    (M.PH, "ph"),
    (M.SALT, "salt salinity nacl"),
    (M.TEMPERATURE, "temp temperature water_temp watertemp wt"),
    (M.BORATE, "borate borates"),
    (M.PHOSPHATE, "phosphate phosphates po4"),
    (M.COPPER, "copper cu"),
    (M.IRON, "iron fe"),
    (M.TDS, "tds solids dissolved_solids"),
)  # fmt: skip
_CHEMICAL_WORDS: tuple[tuple[str, str], ...] = (
    ("sodium_hypochlorite", "bleach liquid_chlorine sodium_hypochlorite liquid_shock hypo liquid"),
    ("calcium_hypochlorite", "cal_hypo calhypo calcium_hypochlorite granular_shock shock granules"),
    ("sodium_dichlor", "dichlor"),
    ("trichlor", "trichlor tablets tabs pucks sticks"),
    ("potassium_monopersulfate", "non_chlorine_shock monopersulfate mps oxidizer"),
    ("hydrochloric_acid", "muriatic muriatic_acid hydrochloric hcl acid"),
    ("sodium_bisulfate", "dry_acid bisulfate ph_down ph_minus ph_decreaser"),
    ("sodium_carbonate", "soda_ash sodium_carbonate ph_up ph_plus ph_increaser washing_soda"),
    ("sodium_bicarbonate", "bicarb bicarbonate baking_soda sodium_bicarbonate alkalinity_up alk_up"),
    ("borax", "borax"),
    ("boric_acid", "boric_acid boric"),
    ("calcium_chloride", "calcium_chloride hardness_up calcium_increaser cal_chloride"),
    ("cyanuric_acid", "cyanuric_acid stabilizer stabiliser conditioner cya"),
    ("sodium_chloride", "pool_salt salt sodium_chloride"),
    ("sodium_hydroxide", "caustic sodium_hydroxide lye"),
    ("sodium_thiosulfate", "thiosulfate chlorine_reducer neutralizer"),
)  # fmt: skip
_POURED = re.compile(r"\b(added|add|dosed|poured|used|dose)\b")
_VOLUME_WORDS = "gal gallons qt quarts pt cup cups floz l liters litres ml jugs"
_AMOUNT_UNITS = frozenset(
    [*_VOLUME_WORDS.split(), *["lb", "lbs", "pounds", "oz", "ounces", "kg", "g", "bags", "tabs"]]
)
# What a water's numbers come in, and what one of each is, in mg/L (temperatures apart).
NOTEBOOK_UNITS: dict[str, tuple[str, float]] = {
    "ppm": ("ppm, the same as mg/L", 1.0),
    "mg/l": ("mg/L", 1.0),
    "ppb": ("micrograms per liter", 0.001),
    "g/l": ("grams per liter", 1000.0),
    "%": ("percent by mass", 10_000.0),
    "dh": ("German degrees, 17.85 mg/L CaCO3", 17.848),
    "fh": ("French degrees, 10 mg/L CaCO3", 10.0),
    "gpg": ("grains per gallon, 17.12 mg/L CaCO3", 17.118),
    "mmol/l": ("mmol/L of CaCO3", 100.087),
    "meq/l": ("meq/L, 50 mg/L CaCO3", 50.043),
    "f": ("Fahrenheit", 0.0),
    "c": ("Celsius", 0.0),
}
_UNIT_SPELLINGS: dict[str, str] = {
    "°dh": "dh", "dh": "dh", "°fh": "fh", "fh": "fh", "°f": "f", "f": "f", "fahrenheit": "f", "°c": "c",
    "c": "c", "celsius": "c", "ppm": "ppm", "mg/l": "mg/l", "ppb": "ppb", "ug/l": "ppb", "µg/l": "ppb",
    "g/l": "g/l", "%": "%", "gpg": "gpg", "grains": "gpg", "mmol/l": "mmol/l", "meq/l": "meq/l",
}  # fmt: skip
_HARDNESS_ONLY = frozenset(["dh", "fh", "gpg", "mmol/l", "meq/l"])
_ABOVE_IS_FAHRENHEIT = 45.0  # no pool is as hot in Celsius
_SALT_ABOVE_IS_PPM = 100.0


def guess_columns(
    header: Sequence[str], rows: Sequence[Sequence[str]], kind: TableKind, *, month_first: bool
) -> tuple[Column, ...]:
    """How each column is most likely read. `month_first` decides where dates do not tell.

    Each role but measures, additions and notes is given once, to the first column that fits it.
    """
    found: list[Column] = []
    given: set[tuple[ColumnRole, Measure | None, str]] = set()
    for n, name in enumerate(header):
        cells = [row[n] for row in rows if n < len(row) and row[n].strip()]
        column = _column(name, cells, kind, month_first=month_first)
        key = (column.role, column.measure, column.chemical)
        if column.role not in (ColumnRole.NOTE, ColumnRole.SKIP, ColumnRole.ADDED) and key in given:
            column = replace(column, role=ColumnRole.SKIP, measure=None)
        given.add(key)
        found.append(column)
    if not any(column.role is ColumnRole.DATE for column in found) and kind is TableKind.NOTEBOOK:
        found = _dates_by_content(found, rows, month_first=month_first)
    return tuple(found)


def guess_kind(header: Sequence[str], rows: Sequence[Sequence[str]]) -> TableKind:
    """What the table tells of: a notebook where it has dates, else what its headers fit best."""
    columns = guess_columns(header, rows, TableKind.NOTEBOOK, month_first=True)
    if any(column.role is ColumnRole.DATE for column in columns):
        return TableKind.NOTEBOOK
    others = (TableKind.STOCK, TableKind.POOLS, TableKind.STOPS)
    scores = {
        kind: sum(_by_words(plain(name), _KIND_WORDS[kind]) is not None for name in header)
        + (kind is TableKind.STOPS and any(re.search(r"weekday|route", plain(name)) for name in header))
        for kind in others
    }
    best = max(others, key=scores.__getitem__)
    return best if scores[best] > 1 else TableKind.NOTEBOOK


def plain(header: str) -> str:
    """A header in lower case without its unit, words joined by underscores."""
    without = re.sub(r"\([^)]*\)|\[[^\]]*\]", " ", header.lower())
    return re.sub(r"[^a-z0-9%]+", "_", without).strip("_")


def _dates_by_content(
    found: list[Column], rows: Sequence[Sequence[str]], *, month_first: bool
) -> list[Column]:
    for n, column in enumerate(found):
        cells = [row[n] for row in rows if n < len(row) and row[n].strip()]
        if column.role is ColumnRole.SKIP and are_dates(cells):
            order = date_order(cells, month_first=month_first)
            return [*found[:n], Column(role=ColumnRole.DATE, dates=order), *found[n + 1 :]]
    return found


def _column(name: str, cells: Sequence[str], kind: TableKind, *, month_first: bool) -> Column:
    words, unit = plain(name), _unit_of(name)
    comma = has_decimal_comma(cells)
    if (role := _by_words(words, _KIND_WORDS[kind])) is not None:
        return Column(role=role, unit=unit, decimal_comma=comma)
    if kind is not TableKind.NOTEBOOK:
        return Column(role=ColumnRole.SKIP)
    chemical = _by_words(words, _CHEMICAL_WORDS)
    measure = _by_words(words, _MEASURE_WORDS) or (Measure.TEMPERATURE if unit in ("f", "c") else None)
    if chemical is not None and (measure is None or _is_poured(name)):
        return _added(name, chemical, comma=comma)
    if measure is not None:
        unit = _measure_unit(measure, unit, cells, comma=comma)
        return Column(role=ColumnRole.MEASURE, measure=measure, unit=unit, decimal_comma=comma)
    role = _by_words(words, _ROLE_WORDS) or ColumnRole.SKIP
    if role in (ColumnRole.DATE, ColumnRole.TIME) and not are_dates(cells) and role is ColumnRole.DATE:
        role = ColumnRole.SKIP
    return Column(role=role, decimal_comma=comma, dates=date_order(cells, month_first=month_first))


def _by_words(words: str, table: Sequence[tuple[T, str]]) -> T | None:
    """The row whose word is the header, else the one whose word stands in it, the longest word first."""
    for found, names in table:
        if words in names.split():
            return found
    inside = [
        (len(name), -n, found)
        for n, (found, names) in enumerate(table)
        for name in names.split()
        if re.search(rf"(?:^|_){re.escape(name)}(?:_|$)", words)
    ]
    return max(inside, key=lambda one: one[:2])[2] if inside else None


def _is_poured(header: str) -> bool:
    """Whether a name that is a measure and a product is the product here: it is counted in jugs or pounds."""
    lower = header.lower()
    in_brackets = re.findall(r"[\(\[]\s*([^)\]]+?)\s*[\)\]]", lower)
    words = re.split(r"[\s_,]+", lower)
    units = {one.replace(" ", "").replace(".", "") for one in in_brackets} | set(words[1:])
    return bool(_POURED.search(lower.replace("_", " ")) or units & _AMOUNT_UNITS)


def _added(name: str, key: str, *, comma: bool) -> Column:
    strength = re.search(r"(\d+(?:[.,]\d+)?)\s*%", name)
    usual = CATALOGUE[key].usual_strength_percent
    percent = float(strength[1].replace(",", ".")) if strength else usual
    return Column(
        role=ColumnRole.ADDED,
        chemical=key,
        strength_percent=percent if 0 < percent <= 100 else usual,
        unit=_amount_unit(name),
        decimal_comma=comma,
    )


def _amount_unit(header: str) -> str:
    lower = re.sub(r"fl\.?\s*oz\.?", "floz", header.lower())
    words = [word for word in re.split(r"[^a-zµ³0-9]+", lower) if word in UNITS]
    return words[-1] if words else ""


def _unit_of(header: str) -> str:
    lower = header.lower().replace("degrees", "°").replace("° ", "°")
    inside = re.findall(r"[\(\[]\s*([^)\]]+?)\s*[\)\]]", lower) + re.split(r"[\s_,]+", lower)[1:]
    return next((_UNIT_SPELLINGS[word] for word in inside if word in _UNIT_SPELLINGS), "")


def _measure_unit(measure: Measure, unit: str, cells: Sequence[str], *, comma: bool) -> str:
    numbers = [value for cell in cells if (value := number_in(cell, decimal_comma=comma)) is not None]
    if measure is Measure.TEMPERATURE:
        if unit in ("f", "c"):
            return unit
        return "f" if numbers and max(numbers) > _ABOVE_IS_FAHRENHEIT else "c" if numbers else ""
    if measure is Measure.SALT and not unit and numbers and max(numbers) < _SALT_ABOVE_IS_PPM:
        return "g/l"
    hard = measure in (Measure.CALCIUM_HARDNESS, Measure.TOTAL_ALKALINITY)
    return "" if unit in ("f", "c") or (unit in _HARDNESS_ONLY and not hard) else unit


_COMMA = re.compile(r"\d+,\d{1,2}(?!\d)")


def has_decimal_comma(cells: Sequence[str]) -> bool:
    """Whether a comma is a column's decimal sign: it stands before one or two digits, and no point does."""
    commas = sum(_COMMA.search(cell) is not None for cell in cells)
    points = sum(re.search(r"\d+\.\d{1,2}(?!\d)", cell) is not None for cell in cells)
    return commas > points


def number_in(text: str, *, decimal_comma: bool) -> float | None:
    """The number that a cell begins with, after a sign of comparison; None where it begins with none."""
    found = re.match(r"\s*[<>~≈]?=?\s*([+-]?\d[\d.,\s]*)", text.replace("\u00a0", " "))
    if found is None:
        return None
    try:
        return float(in_plain_digits(found[1].strip(), decimal_comma=decimal_comma))
    except ValueError:
        return None


def in_plain_digits(number: str, *, decimal_comma: bool) -> str:
    """A number with a point and no grouping: "1.234,5" and "1,234.5" are both "1234.5"."""
    bare = re.sub(r"(?<=\d)[\s'](?=\d{3}(?!\d))", "", number).strip()
    if decimal_comma:
        return re.sub(r"\.(?=\d{3}(?!\d))", "", bare).replace(",", ".")
    return re.sub(r",(?=\d{3}(?!\d))", "", bare).replace(",", ".")


def chemical_in(words: str) -> str | None:
    """The chemical that some words name; None for none."""
    return _by_words(plain(words), _CHEMICAL_WORDS)
