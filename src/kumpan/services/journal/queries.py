"""Additions outside a sheet: poured by hand, entered now or late, corrected."""

from dataclasses import replace
from uuid import UUID

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.dosing.typed_amount import AmountRead, read_amount
from kumpan.core.errors import NotFound
from kumpan.core.messages import Message
from kumpan.core.products.product import Product, within_its_label
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.treatments.at_hand import at_hand


async def read_typed(
    scope: Scope, product: Product, text: str, *, units: Units, pool_id: UUID | None = None
) -> AmountRead:
    """A typed amount, by the package that stands on the shelf and the user's own measures too.

    Raises UnreadableQuantity, InvalidInput.
    """
    hand = await at_hand(scope, None)
    own = next((one for one in hand.products if one.id == product.id), product)
    packed = replace(product, package_g=own.package_g, package_ml=own.package_ml)
    read = read_amount(packed, text, units=units, boxes=hand.preferences.containers)
    # Whichever door it is told at: poured, ticked or corrected.
    basin = (await pool_state(scope, pool_id)).basin if pool_id is not None else None
    if basin is not None and not basin.volume_is_unknown:
        within_its_label(own, read.mass_g, basin.volume_l)
    return read


async def product_by_id(scope: Scope, product_id: str) -> Product:
    """A product of the shelf, or of the standard one. Raises NotFound."""
    for product in [*await scope.tx.workspace.products(scope.workspace_id), *STANDARD_INVENTORY]:
        if product.id == product_id:
            return product
    raise NotFound(Message("This product is not on the shelf; choose another."))
