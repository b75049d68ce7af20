"""A product as it stands on the shelf: how much is left, and what a package costs."""

from dataclasses import dataclass

from kumpan.core.products.product import Product, mass_from_volume_g


@dataclass(frozen=True)
class Stocked:
    """A product with what is left of it (g; None: not counted) and the price of one package (None: not
    told).
    """

    product: Product
    stock_g: float | None = None
    price: float | None = None

    @property
    def package_g(self) -> float | None:
        """What one package holds, g."""
        ml = self.product.package_ml
        return self.product.package_g if ml is None else mass_from_volume_g(self.product, ml)

    @property
    def price_per_g(self) -> float | None:
        """Money for a gram, where price and package are known."""
        package = self.package_g
        return self.price / package if self.price is not None and package else None
