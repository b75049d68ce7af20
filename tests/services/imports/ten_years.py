"""Ten years of a simulated pool, as its own journal and as three sheets that nobody would be proud of."""

import csv
import io
from collections.abc import Iterable
from dataclasses import replace
from datetime import UTC, datetime
from functools import cache
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from openpyxl import Workbook

from kumpan.core.journal import AdditionMade, TestTaken, VisualCheck, kind_of, value_in
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import fahrenheit_from_celsius
from kumpan.core.simulation.carer import Carer, Report
from kumpan.core.simulation.world import World
from kumpan.demo.scenario import CLIMATE, pools
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, header_line, journal_line
from kumpan.storage.wire.kinds import write_body

DAYS, ZONE = 3650, ZoneInfo("America/Chicago")
M = Measure
MEASURES = (
    M.FREE_CHLORINE,
    M.TOTAL_CHLORINE,
    M.PH,
    M.TOTAL_ALKALINITY,
    M.CALCIUM_HARDNESS,
    M.CYANURIC_ACID,
    M.SALT,
)
GERMAN_DEGREE, ML_PER_FL_OZ, G_PER_LB = 17.848, 29.5735295625, 453.59237


@cache
def ten_years(end: datetime) -> tuple[Report, ...]:
    """Tests, looks and additions up to a day, to the minute."""
    demo = next(one for one in pools() if one.preferences.gives_up_after_day is None)
    world = World(
        nature=demo.nature,
        climate=CLIMATE,
        water=replace(demo.water),
        start_s=end.timestamp() - DAYS * 86_400,
        seed=demo.seed,
    )
    reports = Carer(world=world, preferences=demo.preferences).season(DAYS)
    wanted = (one for one in reports if isinstance(one.body, TestTaken | VisualCheck | AdditionMade))
    return tuple(replace(one, at_s=one.at_s // 60 * 60) for one in wanted if one.at_s < end.timestamp())


def journal_of(pool_id: UUID, end: datetime, set_up: list[bytes], name: str) -> bytes:
    """The same as a pool's own journal, after the lines that set it up."""
    lines = [
        journal_line(
            JournalLine(
                id=uuid5(pool_id, str(n)),
                kind=kind_of(one.body),
                at=datetime.fromtimestamp(one.at_s, UTC),
                recorded_at=end,
                by="",
                workspace="My pools",
                supersedes=None,
                body=write_body(without_shelf(one)),
            )
        ).encode()
        for n, one in enumerate(ten_years(end))
    ]
    head = JournalHeader(
        pool_id=pool_id, name=name, workspace="My pools", exported_at=end, entries=len(lines) + len(set_up)
    )
    return header_line(head).encode() + b"".join(line + b"\n" for line in set_up) + b"".join(lines)


def without_shelf(report: Report) -> TestTaken | VisualCheck | AdditionMade:
    body = report.body
    assert isinstance(body, TestTaken | VisualCheck | AdditionMade)
    return replace(body, product_id=None) if isinstance(body, AdditionMade) else body


def of_years(end: datetime, first: int, last: int) -> list[Report]:
    begin = end.timestamp() - DAYS * 86_400
    return [one for one in ten_years(end) if first <= (one.at_s - begin) / 86_400 / 365 < last]


def local(report: Report) -> datetime:
    return datetime.fromtimestamp(report.at_s, ZONE)


def readings(body: object, *, hardness_per: float = 1.0, fahrenheit: bool = True) -> list[str]:
    """The cells of a test; empty for anything else."""
    if not isinstance(body, TestTaken):
        return [""] * (len(MEASURES) + 1)
    cells = []
    for measure in MEASURES:
        found = value_in(body.values, measure)
        per = hardness_per if measure is M.CALCIUM_HARDNESS else 1.0
        cells.append("" if found is None else f"{found.value / per:.8g}")
    warm = value_in(body.values, M.TEMPERATURE)
    if warm is None:
        return [*cells, ""]
    return [*cells, f"{fahrenheit_from_celsius(warm.value) if fahrenheit else warm.value:.6g}"]


def amount(body: AdditionMade) -> str:
    volume_ml = volume_from_mass_ml(Product("", body.chemical, body.strength_percent), body.mass_g)
    if volume_ml is not None:
        return f"{volume_ml / ML_PER_FL_OZ:.7g} fl oz"
    return f"{body.mass_g / G_PER_LB:.7g} lb"


PRODUCTS = {
    "sodium_hypochlorite": "bleach", "hydrochloric_acid": "muriatic acid", "sodium_bicarbonate": "baking soda",
    "calcium_hypochlorite": "cal hypo", "trichlor": "tabs", "sodium_chloride": "pool salt", "cyanuric_acid": "conditioner",
    "calcium_chloride": "hardness up", "sodium_carbonate": "soda ash", "sodium_dichlor": "dichlor",
    "sodium_bisulfate": "dry acid", "borax": "borax",
}  # fmt: skip


def with_strength(body: AdditionMade) -> str:
    return f"{PRODUCTS[body.chemical]} {body.strength_percent:g}%"


def american(rows: Iterable[Report]) -> bytes:
    """Month first, Fahrenheit, a column for each product and strength."""
    rows = list(rows)
    added = sorted(
        {(one.body.chemical, one.body.strength_percent) for one in rows if isinstance(one.body, AdditionMade)}
    )
    liquid = {key: CATALOGUE[key].is_liquid for key, _ in added}
    out = io.StringIO()
    table = csv.writer(out)
    heads = [f"{PRODUCTS[key]} {percent:g}% ({'fl oz' if liquid[key] else 'lb'})" for key, percent in added]
    table.writerow(["My pool", "", ""])
    table.writerow(
        ["Date", "Free Cl", "Total Cl", "pH", "Alk", "Calcium", "CYA", "Salt", "Water temp", "Look", *heads]
    )
    for one in rows:
        look = one.body.clarity.replace("_", " ") if isinstance(one.body, VisualCheck) else ""
        poured = [""] * len(added)
        if isinstance(one.body, AdditionMade):
            poured[added.index((one.body.chemical, one.body.strength_percent))] = amount(one.body).split()[0]
        table.writerow([local(one).strftime("%m/%d/%y %I:%M %p"), *readings(one.body), look, *poured])
    return out.getvalue().encode()


def european(rows: Iterable[Report]) -> bytes:
    """Day first, commas, degrees of hardness and Celsius, what went in as words; in an old encoding."""
    out = io.StringIO()
    table = csv.writer(out, delimiter=";")
    table.writerow(
        [
            "Day",
            "Clock",
            "FC",
            "TC",
            "pH",
            "TA",
            "Hardness (°dH)",
            "CYA",
            "Salt",
            "Water °C",
            "Clarity",
            "What went in; treatment",
        ]
    )
    for one in rows:
        cells = [
            cell.replace(".", ",")
            for cell in readings(one.body, hardness_per=GERMAN_DEGREE, fahrenheit=False)
        ]
        look = one.body.clarity.replace("_", " ") if isinstance(one.body, VisualCheck) else ""
        words = ""
        if isinstance(one.body, AdditionMade):
            size, unit = amount(one.body).split(" ", 1)
            words = f"{size.replace('.', ',')} {unit} {with_strength(one.body)}"
        table.writerow([local(one).strftime("%d.%m.%Y"), local(one).strftime("%H:%M"), *cells, look, words])
    return out.getvalue().encode("cp1252")


def workbook(rows: Iterable[Report]) -> bytes:
    """Cells that are days and numbers, product and amount apart."""
    book = Workbook()
    tab = book.active
    assert tab is not None
    tab.append(
        [
            "When",
            "FC",
            "TC",
            "pH",
            "Alkalinity",
            "Hardness",
            "Stabilizer",
            "Salt",
            "Temp F",
            "Water clarity",
            "Product",
            "Amount",
        ]
    )
    for one in rows:
        cells = [float(cell) if cell else None for cell in readings(one.body)]
        look = one.body.clarity.replace("_", " ") if isinstance(one.body, VisualCheck) else None
        poured = (
            [with_strength(one.body), amount(one.body)]
            if isinstance(one.body, AdditionMade)
            else [None, None]
        )
        tab.append([local(one).replace(tzinfo=None), *cells, look, *poured])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def sheets(end: datetime) -> dict[str, bytes]:
    """Three files, one after the other in time."""
    return {
        "first four years.csv": american(of_years(end, 0, 4)),
        "then seven.csv": european(of_years(end, 4, 7)),
        "since then.xlsx": workbook(of_years(end, 7, 11)),
    }
