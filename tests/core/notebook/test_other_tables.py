"""Rows of shelves, lists of pools and rounds."""

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.core.notebook.columns import Column, ColumnRole, TableKind, guess_columns
from kumpan.core.notebook.other_tables import by_role, read_pool, read_stock, read_stop
from kumpan.core.pool.equipment import Chlorination, Filter, Surface
from kumpan.core.quantities.units import Units

US = Units.US


def cells(kind: TableKind, header: list[str], row: list[str]) -> dict[ColumnRole, tuple[Column, str]]:
    return by_role(guess_columns(header, [row], kind, month_first=True), row)


STOCK = ["Item", "Strength %", "Size", "Qty", "Price"]
POOLS = ["Customer", "Gallons", "Surface", "Sanitizer", "Filter", "Address"]


def test_a_shelf() -> None:
    row = read_stock(
        cells(TableKind.STOCK, STOCK, ["Muriatic acid", "31.45", "1 gal", "4", "$39.96"]), units=US
    )
    assert (row.product.chemical, row.product.strength_percent) == ("hydrochloric_acid", 31.45)
    assert row.product.package_ml == pytest.approx(3785.41, rel=1e-4)
    assert (row.packages, row.price) == (4.0, 39.96)
    bag = read_stock(cells(TableKind.STOCK, STOCK, ["Pool salt", "", "40 lb", "", ""]), units=US)
    assert bag.product.package_g == pytest.approx(18_143.7, rel=1e-4)
    assert bag.packages is None


def test_a_spreadsheets_percent_is_a_percent() -> None:
    assert (
        read_stock(
            cells(TableKind.STOCK, STOCK, ["Bleach", "0.1", "", "1", ""]), units=US
        ).product.strength_percent
        == 10
    )


@pytest.mark.parametrize(
    "row",
    [
        ["Magic", "", "", "", ""],
        ["", "5", "", "", ""],
        ["Bleach", "500", "", "", ""],
        ["Bleach", "10", "1 lb", "", ""],
        ["Bleach", "10", "1 gal", "many", ""],
    ],
)
def test_what_no_shelf_holds_is_refused(row: list[str]) -> None:
    with pytest.raises(InvalidInput):
        read_stock(cells(TableKind.STOCK, STOCK, row), units=US)


def test_a_list_of_pools() -> None:
    row = read_pool(
        cells(TableKind.POOLS, POOLS, ["Mill", "15,000", "Vinyl liner", "Salt cell", "DE", "Weir Lane 4"]),
        units=US,
    )
    assert row.volume_l == pytest.approx(56_781, rel=1e-4)
    assert (row.surface, row.chlorination, row.filter) == (Surface.VINYL, Chlorination.SALT_CELL, Filter.DE)
    assert (row.place, row.assumed) == ("Weir Lane 4", ())
    bare = read_pool(cells(TableKind.POOLS, POOLS, ["Mill", "60 m3", "", "", "", ""]), units=US)
    assert bare.volume_l == 60_000
    assert bare.assumed == ("surface", "chlorination", "filter")


@pytest.mark.parametrize("row", [["", "15000"], ["Mill", ""], ["Mill", "3"], ["Mill", "lots"]])
def test_a_pool_without_a_volume_is_refused(row: list[str]) -> None:
    with pytest.raises(InvalidInput):
        read_pool(cells(TableKind.POOLS, POOLS, [*row, "", "", "", ""]), units=US)


def test_stops() -> None:
    header = ["Pool", "Weekday", "Technician"]
    row = read_stop(cells(TableKind.STOPS, header, ["Mill", "thursday", "Ann Onym"]))
    assert (row.pool, row.weekday, row.technician) == ("Mill", 3, "Ann Onym")
    with pytest.raises(InvalidInput):
        read_stop(cells(TableKind.STOPS, header, ["Mill", "someday", ""]))
