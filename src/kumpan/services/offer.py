"""Which shelf a plan is made from: the workspace's own, else the standard one."""

from collections.abc import Sequence

from kumpan.core.dosing.additions import Product
from kumpan.core.planning.choice import STANDARD_SHELF
from kumpan.services.ledger import Scope


async def shelf_for(scope: Scope) -> tuple[Sequence[Product], bool]:
    """The products to plan with, and whether that is the standard shelf for want of an own one."""
    own = await scope.tx.workspace.products(scope.workspace_id)
    return (own, False) if own else (STANDARD_SHELF, True)
