"""What an addition does to a simulated water, by its own simple law. Source: simulated-world."""

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.simulation.world import World

SOURCE = "simulated-world"

# Carbon that comes along with alkalinity, as a share of it: that much of it does not lift pH.
CARBON_SHARE = {"sodium_bicarbonate": 0.94, "sodium_carbonate": 0.47}
SLOW = "trichlor"


def pour(world: World, product: Product, grams: float) -> float:
    """Grams into the true volume; the chlorine that it brings at once, mg/L.

    Tablets only begin to dissolve.
    """
    if product.chemical == SLOW:
        world.water.tablets_g.append((grams, grams))
        return 0.0
    moved = changes(product, grams, world.nature.true_volume_l)
    chlorine = moved.get(Measure.FREE_CHLORINE, 0.0)
    alkalinity = moved.get(Measure.TOTAL_ALKALINITY, 0.0)
    world.add(
        chlorine=chlorine,
        alkalinity=0.0 if chlorine else alkalinity,
        stabilizer=moved.get(Measure.CYANURIC_ACID, 0.0),
        calcium=moved.get(Measure.CALCIUM_HARDNESS, 0.0),
        salt=moved.get(Measure.SALT, 0.0),
        carbon=CARBON_SHARE.get(product.chemical, 0.0) * alkalinity / 50.0,
    )
    return chlorine
