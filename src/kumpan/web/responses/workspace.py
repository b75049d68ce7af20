"""Answers of the workspace: people, shelf, choices, preferences."""

from datetime import datetime
from uuid import UUID

from kumpan.core.quantities.readings import Measure
from kumpan.core.records.containers import ContainerKind
from kumpan.web.responses.base import Response, read_from


class Choice(Response):
    key: str
    name: str


class KitChoice(Response):
    key: str
    name: str
    order: tuple[Measure, ...]


class ChemicalChoice(Response):
    key: str
    name: str
    is_liquid: bool
    usual_strength_percent: float


class Answer(Response):
    """One side of a disagreement, and what speaks for it."""

    key: str
    label: str
    reason: str


class Question(Response):
    """A disagreement. The first answer is the default."""

    key: str
    title: str
    answers: tuple[Answer, ...]


class Choices(Response):
    """What the forms offer: schools, kits, chemicals, refused kinds, and the measures' names."""

    schools: tuple[Choice, ...] = read_from("profiles")
    kits: tuple[KitChoice, ...]
    chemicals: tuple[ChemicalChoice, ...]
    refused: tuple[Choice, ...]
    measures: tuple[Choice, ...]
    questions: tuple[Question, ...]


class Person(Response):
    id: UUID
    name: str
    initials: str


class InventoryLine(Response):
    """A product with its stock (bought minus poured) in g, mL for liquids; None when never bought."""

    id: str
    label: str
    chemical: str
    form: str
    strength_percent: float
    strength_now_percent: float
    package_g: float | None
    package_ml: float | None
    package_text: str
    price: float | None
    bought_at: datetime | None
    stock_g: float | None
    stock_ml: float | None
    stock_text: str
    used_text: str
    used_cost: float | None
    days_left: int | None


class Container(Response):
    """Something to measure with. A cup or jug holds `volume_ml` of any liquid and is read in `parts`."""

    kind: ContainerKind
    name: str
    volume_ml: float | None
    mass_g: float | None
    product_id: str | None
    parts: int


class PreferencesSet(Response):
    """What holds for the whole workspace: containers, money, how warm the store is, what water costs."""

    containers: tuple[Container, ...]
    currency: str
    storage_c: float
    water_price: float | None
    drain_l_per_h: float
    fill_l_per_h: float
