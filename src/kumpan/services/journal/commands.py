"""Pour something, and put an amount right."""

from uuid import UUID

from kumpan.core.dosing.typed_amount import AmountRead
from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.journal import AdditionMade, Entry, WaterChanged
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Number
from kumpan.services.journal.ledger import Scope, Stamp, correct, entry_row, pool_state, record, to_entry
from kumpan.services.journal.queries import read_typed

MOST_POOLS_AT_ONCE = 3  # a pool drained, cleaned and filled twice over is the most that one entry tells


async def pour(
    scope: Scope, pool_id: UUID, stamp: Stamp, product: Product, amount: str, *, units: Units
) -> Entry:
    """Note something that was poured outside a sheet."""
    read = await read_typed(scope, product, amount, units=units, pool_id=pool_id)
    return await record(scope, pool_id, stamp, _body(product, read, None))


async def change_water(scope: Scope, pool_id: UUID, stamp: Stamp, change: WaterChanged) -> Entry:
    """Note water that left and was made up. Raises InvalidInput for more than a few pools full at once."""
    basin = (await pool_state(scope, pool_id)).basin
    if basin is not None and not basin.volume_is_unknown:
        times = change.volume_l / basin.volume_l
        if times > MOST_POOLS_AT_ONCE:
            raise InvalidInput(
                Message(
                    "This is {times} times the pool's water; check the amount and its unit, "
                    "or enter each filling by itself.",
                    times=Number(times, digits=0),
                ),
                "volume",
            )
    return await record(scope, pool_id, stamp, change)


async def correct_amount(scope: Scope, entry_id: UUID, stamp: Stamp, amount: str, *, units: Units) -> Entry:
    """Correct how much was poured; product, sheet and step stay. Raises NotFound."""
    entry = to_entry(await entry_row(scope, entry_id))
    old = entry.body
    if not isinstance(old, AdditionMade):
        raise NotFound(Message("There is no such addition here; reload the log."))
    product = Product(
        old.product_id or "",
        old.chemical,
        old.strength_percent,
        density_g_per_ml=old.density_g_per_ml,
        name=old.label,
    )
    read = await read_typed(scope, product, amount, units=units, pool_id=entry.pool_id)
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
