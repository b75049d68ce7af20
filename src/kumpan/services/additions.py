"""Additions outside a sheet: poured by hand, entered now or late, corrected."""

from dataclasses import dataclass
from uuid import UUID

from kumpan.core.dosing.additions import Product, mass_from_volume_g
from kumpan.core.errors import InvalidInput, NotFound, UnreadableQuantity
from kumpan.core.journal import AdditionMade, Entry
from kumpan.core.planning.choice import STANDARD_SHELF
from kumpan.core.units import Dimension, read_quantity
from kumpan.services.ledger import Scope, Stamp, correct, record, to_entry


@dataclass(frozen=True)
class AmountRead:
    mass_g: float
    volume_ml: float | None


def read_amount(product: Product, text: str, *, metric: bool) -> AmountRead:
    """A typed amount of a product: a volume for liquids, a weight for the rest. Raises UnreadableQuantity."""
    try:
        if product.row.is_liquid:
            ml = read_quantity(text, Dimension.VOLUME, "ml" if metric else "floz").value * 1000.0
            read = AmountRead(mass_from_volume_g(product, ml), ml)
        else:
            read = AmountRead(read_quantity(text, Dimension.MASS, "g" if metric else "lb").value, None)
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, "amount") from trouble
    if not 0 < read.mass_g <= 1e7:
        raise InvalidInput("The amount must be over 0; type what was really poured.", "amount")
    return read


async def product_by_id(scope: Scope, product_id: str) -> Product:
    """A product of the shelf, or of the standard one. Raises NotFound."""
    for product in [*await scope.tx.workspace.products(scope.workspace_id), *STANDARD_SHELF]:
        if product.id == product_id:
            return product
    raise NotFound("This product is not on the shelf; choose another.")


async def pour(
    scope: Scope, pool_id: UUID, stamp: Stamp, product: Product, amount: str, *, metric: bool
) -> Entry:
    """Note something that was poured outside a sheet."""
    read = read_amount(product, amount, metric=metric)
    return await record(scope, pool_id, stamp, _body(product, read, None))


async def correct_amount(scope: Scope, entry_id: UUID, stamp: Stamp, amount: str, *, metric: bool) -> Entry:
    """Correct how much was poured; product, sheet and step stay. Raises NotFound."""
    stored = await scope.tx.journal.entry(scope.workspace_id, entry_id)
    old = to_entry(stored).body if stored else None
    if not isinstance(old, AdditionMade):
        raise NotFound("There is no such addition here; reload the log.")
    product = Product(
        old.product_id or "",
        old.chemical,
        old.strength_percent,
        density_g_per_ml=old.density_g_per_ml,
        name=old.label,
    )
    return await correct(
        scope, entry_id, stamp, _body(product, read_amount(product, amount, metric=metric), old)
    )


def _body(product: Product, read: AmountRead, old: AdditionMade | None) -> AdditionMade:
    return AdditionMade(
        product.chemical,
        product.strength_percent,
        product.label,
        read.mass_g,
        read.volume_ml,
        product.density_g_per_ml,
        product.id or None,
        old.sheet_id if old else None,
        old.step_number if old else None,
    )
