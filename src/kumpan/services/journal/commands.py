"""Pour something, and put an amount right."""

from uuid import UUID

from kumpan.core.dosing.typed_amount import AmountRead
from kumpan.core.errors import NotFound
from kumpan.core.journal import AdditionMade, Entry
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope, Stamp, correct, entry_row, record, to_entry
from kumpan.services.journal.queries import read_typed


async def pour(
    scope: Scope, pool_id: UUID, stamp: Stamp, product: Product, amount: str, *, units: Units
) -> Entry:
    """Note something that was poured outside a sheet."""
    read = await read_typed(scope, product, amount, units=units)
    return await record(scope, pool_id, stamp, _body(product, read, None))


async def correct_amount(scope: Scope, entry_id: UUID, stamp: Stamp, amount: str, *, units: Units) -> Entry:
    """Correct how much was poured; product, sheet and step stay. Raises NotFound."""
    old = to_entry(await entry_row(scope, entry_id)).body
    if not isinstance(old, AdditionMade):
        raise NotFound(Message("There is no such addition here; reload the log."))
    product = Product(
        old.product_id or "",
        old.chemical,
        old.strength_percent,
        density_g_per_ml=old.density_g_per_ml,
        name=old.label,
    )
    read = await read_typed(scope, product, amount, units=units)
    return await correct(scope, entry_id, stamp, _body(product, read, old))


def _body(product: Product, read: AmountRead, old: AdditionMade | None) -> AdditionMade:
    return AdditionMade(
        chemical=product.chemical,
        strength_percent=product.strength_percent,
        label=product.label,
        mass_g=read.mass_g,
        volume_ml=read.volume_ml,
        density_g_per_ml=product.density_g_per_ml,
        product_id=product.id or None,
        treatment_id=old.treatment_id if old else None,
        step_number=old.step_number if old else None,
    )
