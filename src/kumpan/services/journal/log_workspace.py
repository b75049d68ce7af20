"""What the log says of entries about the shelf, the trucks and the rounds."""

from collections.abc import Mapping

from kumpan.core.journal import (
    Place,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    RoundSet,
    StopMoved,
    StrengthTested,
    TechnicianAway,
    TruckCounted,
    VisitBegun,
    VisitKind,
    WorkOnce,
)
from kumpan.core.messages import NOTHING, Message, Plural, Verbatim
from kumpan.core.quantity import Day, Mass, Number

Told = tuple[Message, Message]


def purchase(body: ProductBought) -> Told:
    """Packages that were bought."""
    return Message("Bought"), Message("{count} packages", count=Number(body.packages))


_PLACED: Mapping[Place, Message] = {
    Place.HERE: Message("On the shelf"),
    Place.POOL: Message("At its own pool"),
    Place.TRUCK: Message("On a truck"),
    Place.STORE: Message("In the store"),
    Place.GONE: Message("Off the shelf"),
}


def placed(body: ProductPlaced) -> Told:
    """Where a product stands."""
    return _PLACED[body.place], NOTHING


def counted(body: ProductCounted) -> Told:
    """What was left."""
    return Message("Counted"), Message("{left} left", left=Mass(body.mass_g))


def strength(body: StrengthTested) -> Told:
    """A strength test."""
    return Message("Strength tested"), Message("{percent} %", percent=Number(body.strength_percent))


def round_set(body: RoundSet) -> Told:
    """The stops of a round."""
    return Message("Round set"), Message("{stops}", stops=Plural("{n} stop", "{n} stops", len(body.stops)))


def away(body: TechnicianAway) -> Told:
    """Days on which somebody does not drive."""
    days = Message("{first} to {last}", first=Day(body.first), last=Day(body.last))
    return Message("Somebody is away"), days


def once(body: WorkOnce) -> Told:
    """Work at a pool on one day."""
    return Message("Work planned once"), Message(
        "{day}: {what}", day=Day(body.day), what=Verbatim(body.what or "-")
    )


def stop_moved(body: StopMoved) -> Told:
    """One stop on another day."""
    return Message("Stop moved"), Message(
        "from {day} to {other}", day=Day(body.from_day), other=Day(body.to_day)
    )


def truck(body: TruckCounted) -> Told:
    """What a truck holds."""
    return Message("Truck counted"), Message("{mass} g", mass=Number(body.mass_g, digits=0))


_VISITS: Mapping[VisitKind, Message] = {
    VisitKind.HOUR: Message("the weekly hour"),
    VisitKind.STOP: Message("a stop"),
    VisitKind.STORM: Message("a look after a storm"),
    VisitKind.FIRST: Message("the first visit"),
    VisitKind.SEASON: Message("an opening or a closing"),
}


def visit_begun(body: VisitBegun) -> Told:
    """Somebody came."""
    return Message("At the pool"), _VISITS[body.kind]
