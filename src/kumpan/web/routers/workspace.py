"""The workspace: people, the shelf, and the choices that forms offer."""

from dataclasses import replace
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from kumpan.core.errors import UnreadableQuantity
from kumpan.core.journal import ProductPlaced
from kumpan.core.maintenance.pool_presets import PRESETS
from kumpan.core.pool.equipment import REFUSED
from kumpan.core.pool.salt_rise import STEPS
from kumpan.core.products.by_label import kind_of_label
from kumpan.core.products.catalogue import CATALOGUE, chemical
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.disagreements import QUESTIONS
from kumpan.core.ranges.profiles import PROFILES
from kumpan.core.testing.kits import SOURCES
from kumpan.services.people import commands as people_commands
from kumpan.services.people import queries as people_queries
from kumpan.services.products import commands as products_commands
from kumpan.services.products import costs as products_costs
from kumpan.services.products import queries as products_queries
from kumpan.services.products.shopping import shopping
from kumpan.web.renewal import renewal
from kumpan.web.requests.journal import (
    CountIn,
    HabitsIn,
    PersonIn,
    PlaceIn,
    ProductTyped,
    PurchaseIn,
    StrengthIn,
)
from kumpan.web.responses.shared import BuyLine
from kumpan.web.responses.workspace import (
    ChemicalChoice,
    Choice,
    Choices,
    CostsView,
    CountedLine,
    InventoryLine,
    KindOfPool,
    KitChoice,
    LabelKindChoice,
    Person,
    PreferencesSet,
    Question,
)
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep
from kumpan.web.stamps import stamp
from kumpan.wording.render import render

router = APIRouter(prefix="/api/v1", tags=["workspace"])


@router.get("/choices")
def choices(reader: ReaderDep) -> Choices:
    """What the forms offer: ranges, kits, chemicals, refused kinds, and the measures' names."""
    return Choices(
        schools=tuple(Choice(key=row.key, name=row.name) for row in PROFILES.values()),
        kits=tuple(
            KitChoice(key=kit.key, name=kit.name, order=tuple(measure for measure, _ in kit.order))
            for kit in SOURCES
        ),
        chemicals=tuple(ChemicalChoice.of(row, reader) for row in CATALOGUE.values()),
        presets=tuple(KindOfPool.of(one, reader) for one in PRESETS.values()),
        salt_steps=tuple(render(step, reader) for step in STEPS),
        label_kinds=tuple(LabelKindChoice.of(one, reader) for one in products_queries.label_kinds()),
        refused=tuple(Choice(key=key, name=reason) for key, reason in REFUSED.items()),
        measures=tuple(Choice(key=measure, name=name) for measure, name in NAMES.items()),
        questions=tuple(Question.of(question, reader) for question in QUESTIONS),
    )


@router.get("/people")
async def list_people(scope: ScopeDep, reader: ReaderDep) -> list[Person]:
    """Everybody of the workspace."""
    return [Person.of(one, reader) for one in await people_queries.people(scope)]


@router.post("/people", status_code=201)
async def add_person(person: PersonIn, scope: ScopeDep, reader: ReaderDep) -> Person:
    """Add somebody."""
    return Person.of(await people_commands.add_person(scope, person.id, person.name, person.initials), reader)


@router.get("/shelf")
async def list_shelf(scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> list[InventoryLine]:
    """The shelf with stock, age and price."""
    return [InventoryLine.of(one, reader) for one in await products_queries.inventory(scope, units)]


@router.post("/shelf", status_code=201)
async def add_product(typed: ProductTyped, scope: ScopeDep, units: UnitsDep) -> UUID:
    """Put a product on the shelf."""
    await products_commands.add_product(scope, _product(typed, units))
    return typed.id


@router.post("/shelf/purchases", status_code=201)
async def buy(purchase: PurchaseIn, scope: ScopeDep) -> UUID:
    """Note a purchase."""
    await products_commands.buy(
        scope,
        stamp(purchase, scope),
        product_id=purchase.product_id,
        packages=purchase.packages,
        price=purchase.price,
    )
    return purchase.id


@router.post("/shelf/strengths", status_code=201)
async def note_strength(given: StrengthIn, scope: ScopeDep) -> UUID:
    """A strength test of a product; it overrides what aging would have made of it."""
    await products_commands.note_strength(
        scope, stamp(given, scope), given.product_id, given.strength_percent
    )
    return given.id


@router.post("/shelf/places", status_code=201)
async def place(given: PlaceIn, scope: ScopeDep) -> UUID:
    """Where a product stands, and the date printed on it."""
    placed = ProductPlaced(
        given.product_id,
        given.place,
        pool_id=given.pool_id,
        technician_id=given.technician_id,
        best_before=given.best_before,
    )
    await products_commands.place(scope, stamp(given, scope), placed)
    return given.id


@router.post("/shelf/counts", status_code=201)
async def count(given: CountIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> list[CountedLine]:
    """What is left of some products, counted in one pass; answered with what differs from the books."""
    found = await products_commands.count(scope, stamp(given, scope), given.left, units=units)
    return [CountedLine.of(one, reader) for one in found]


@router.get("/costs")
async def costs(
    scope: ScopeDep, reader: ReaderDep, units: UnitsDep, days: Annotated[int, Query(ge=1, le=1100)] = 365
) -> CostsView:
    """What the pouring of the last days cost, by product, pool, month and round."""
    return CostsView.of(await products_costs.costs(scope, days, units), reader)


@router.get("/shelf/to-buy")
async def to_buy(scope: ScopeDep, reader: ReaderDep, units: UnitsDep) -> list[BuyLine]:
    """What the offered sheets of all pools lack, and what will not last two weeks; the cheapest packages."""
    return [BuyLine.of(one, reader) for one in await shopping(scope, renewal(), units=units)]


@router.get("/habits")
async def preferences(scope: ScopeDep, reader: ReaderDep) -> PreferencesSet:
    """Containers, currency, how warm the store is, and what water costs (per m3)."""
    return PreferencesSet.of(await products_queries.preferences(scope), reader)


@router.post("/habits")
async def set_preferences(
    given: HabitsIn, scope: ScopeDep, reader: ReaderDep, units: UnitsDep
) -> PreferencesSet:
    """Change how amounts are measured, stored and paid."""
    found = given.to_core(units)
    await products_commands.set_preferences(scope, stamp(given, scope), found)
    return PreferencesSet.of(found, reader)


def _product(typed: ProductTyped, units: Units) -> Product:
    kind_of_label(typed.chemical)  # what is never put in is refused with its reason
    row = chemical(typed.chemical)
    package_g = package_ml = None
    if typed.package.strip():
        try:
            if row.is_liquid:
                package_ml = (
                    read_quantity(
                        typed.package, Dimension.VOLUME, "l" if units is Units.METRIC else "gal"
                    ).value
                    * 1000
                )
            else:
                package_g = read_quantity(
                    typed.package, Dimension.MASS, "kg" if units is Units.METRIC else "lb"
                ).value
        except UnreadableQuantity as trouble:
            raise UnreadableQuantity(trouble.message, "package") from trouble
    product = Product(
        str(typed.id),
        typed.chemical,
        typed.strength_percent,
        package_g=package_g,
        package_ml=package_ml,
        density_g_per_ml=typed.density_g_per_ml,
        name=typed.name.strip(),
    )
    if typed.label_dose is None:
        return product
    return replace(product, label_dose=typed.label_dose.to_core(product, units))
