"""Answers of the workspace: people, shelf, choices, preferences."""

from datetime import date, datetime
from typing import Self
from uuid import UUID

from kumpan.core.journal import Place
from kumpan.core.maintenance.pool_presets import PoolPreset
from kumpan.core.pool.equipment import Chlorination, Filter, Surface
from kumpan.core.quantities.readings import Measure
from kumpan.core.records.containers import ContainerKind
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.wording.reader import US_READER, Reader


class Choice(Response):
    key: Text
    name: Text


class KitChoice(Response):
    key: Text
    name: Text
    order: tuple[Measure, ...]


class ChemicalChoice(Response):
    key: Text
    name: Text
    is_liquid: bool
    usual_strength_percent: float


class LabelKindChoice(Response):
    """A kind of product that is dosed by its label, with what such labels usually say, to begin a form
    with.
    """

    key: Text
    name: Text
    is_liquid: bool
    usual_strength_percent: float
    use: Text
    know: Text
    first_text: Text
    upkeep_text: Text
    most_text: Text
    repeat_days: int | None
    swim_wait_min: int
    into_the_pool: bool


class Answer(Response):
    """One side of a disagreement, and what speaks for it."""

    key: Text
    label: Text
    reason: Text


class Question(Response):
    """A disagreement. The first answer is the default."""

    key: Text
    title: Text
    answers: tuple[Answer, ...]


class KindOfPool(Response):
    """A kind of pool to begin with: what the form is filled with, and what follows from it."""

    key: Text
    name: Text
    says: tuple[Text, ...]
    warns: Text
    surface: Surface
    chlorination: Chlorination
    filter: Filter
    indoor: bool
    covered: bool
    school: Text
    care_preset: Text
    choices: dict[str, str]

    @classmethod
    def of(cls, value: object, reader: Reader = US_READER) -> Self:
        """Off a row of the table of kinds."""
        assert isinstance(value, PoolPreset)
        return cls.model_validate(
            {
                **vars(value.traits),
                "key": value.key,
                "name": value.name,
                "says": value.says,
                "warns": value.warns,
                "school": value.profile.value,
                "care_preset": value.care.value,
                "choices": dict(value.choices),
            },
            context=reader,
        )


class Choices(Response):
    """What the forms offer: schools, kits, chemicals, refused kinds, and the measures' names."""

    schools: tuple[Choice, ...] = read_from("profiles")
    kits: tuple[KitChoice, ...]
    chemicals: tuple[ChemicalChoice, ...]
    presets: tuple[KindOfPool, ...]
    salt_steps: tuple[Text, ...]
    label_kinds: tuple[LabelKindChoice, ...]
    refused: tuple[Choice, ...]
    measures: tuple[Choice, ...]
    questions: tuple[Question, ...]


class Person(Response):
    id: UUID
    name: Text
    initials: Text


class PurchaseLine(Response):
    """Packages bought on a day, and what one of them cost."""

    at: datetime
    packages: float
    price: float | None


class CountedLine(Response):
    """What a count found against the books."""

    product_id: Text
    text: Text


class CostLine(Response):
    """What was spent on one product, pool, month (its key is like 2026-07) or round (key: person/weekday,
    0 is Monday). `cost` is null where no price is known.
    """

    key: Text
    name: Text
    used_text: Text
    cost: float | None


class CostsView(Response):
    """What was poured since a time, at the last prices, and what no price is known of."""

    since: datetime
    currency: Text
    total: float
    products: tuple[CostLine, ...]
    pools: tuple[CostLine, ...]
    months: tuple[CostLine, ...]
    rounds: tuple[CostLine, ...]
    gaps: tuple[Text, ...]


class InventoryLine(Response):
    """A product with its stock (bought minus poured) in g, mL for liquids; None when never bought."""

    id: Text
    label: Text
    chemical: Text
    form: Text
    strength_percent: float
    strength_now_percent: float
    package_g: float | None
    package_ml: float | None
    package_text: Text
    price: float | None
    bought_at: datetime | None
    stock_g: float | None
    stock_ml: float | None
    stock_text: Text
    used_text: Text
    used_cost: float | None
    days_left: int | None
    by_label: bool
    label_text: Text
    repeat_days: int | None
    place: Place
    place_pool_id: UUID | None
    place_technician_id: UUID | None
    best_before: date | None
    past_date: bool
    counted_at: datetime | None
    purchases: tuple[PurchaseLine, ...]


class Container(Response):
    """Something to measure with. A cup or jug holds `volume_ml` of any liquid and is read in `parts`."""

    kind: ContainerKind
    name: Text
    volume_ml: float | None
    mass_g: float | None
    product_id: Text | None
    parts: int


class PreferencesSet(Response):
    """What holds for the whole workspace: containers, money, how warm the store is, what water costs."""

    containers: tuple[Container, ...]
    currency: Text
    storage_c: float
    water_price: float | None
    drain_l_per_h: float
    fill_l_per_h: float
