"""Answers of the workspace: people, shelf, choices, preferences."""

from datetime import datetime
from uuid import UUID

from kumpan.core.quantities.readings import Measure
from kumpan.core.records.containers import ContainerKind
from kumpan.web.responses.base import Response, Text, read_from


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
    name: Text
    initials: Text


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
