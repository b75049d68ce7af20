"""What to buy for all pools, read from their stored summaries."""

from kumpan.core.quantities.units import Units
from kumpan.services.assessment.summaries import Renewal, needs_of_all
from kumpan.services.journal.ledger import Scope
from kumpan.services.products.queries import to_buy
from kumpan.services.products.views import BuyLine
from kumpan.services.treatments.at_hand import at_hand


async def shopping(scope: Scope, renewal: Renewal, *, units: Units) -> list[BuyLine]:
    """What to buy for the sheets that are offered now at all pools, and for the weeks ahead."""
    products = {product.id: product for product in (await at_hand(scope, None)).products}
    needs = await needs_of_all(scope, renewal)
    return await to_buy(
        scope, {products[id_]: grams for id_, grams in needs.items() if id_ in products}, units=units
    )
