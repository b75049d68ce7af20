"""What somebody advised, read and reckoned: what it would do to every measure. Sources: mass-balance,
order, addition-limits.
"""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import change_per_g, changes
from kumpan.core.dosing.order_and_waits import ADDITION_LIMITS, ANY_TWO_MINUTES, POURED_FOR, separation
from kumpan.core.dosing.solution import Dose
from kumpan.core.dosing.solver import after_all
from kumpan.core.errors import UnreadableQuantity
from kumpan.core.findings import Finding
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.products.by_label import KINDS
from kumpan.core.products.catalogue import CATALOGUE, CHLORINE_CARRIERS, STABILIZED
from kumpan.core.products.product import Product, density
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantity import Liquid, Mass, Number
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import AS_SOLD, Plan
from kumpan.core.treatment.schedule import lay_out
from kumpan.core.treatment.split import spread

SOURCES_USED = ("mass-balance", "order", "addition-limits")

# What shops, labels and charts call things; the longest match counts.
WORDS: dict[str, tuple[str, float]] = {
    "salt": ("sodium_chloride", 100.0),
    "buffer": ("sodium_bicarbonate", 100.0),
    "alkalinity up": ("sodium_bicarbonate", 100.0),
    "alkalinity increaser": ("sodium_bicarbonate", 100.0),
    "alkalinity plus": ("sodium_bicarbonate", 100.0),
    "baking soda": ("sodium_bicarbonate", 100.0),
    "bicarb": ("sodium_bicarbonate", 100.0),
    "bicarbonate": ("sodium_bicarbonate", 100.0),
    "ph up": ("sodium_carbonate", 100.0),
    "ph plus": ("sodium_carbonate", 100.0),
    "ph increaser": ("sodium_carbonate", 100.0),
    "soda ash": ("sodium_carbonate", 100.0),
    "ph down": ("sodium_bisulfate", 93.2),
    "ph minus": ("sodium_bisulfate", 93.2),
    "ph decreaser": ("sodium_bisulfate", 93.2),
    "dry acid": ("sodium_bisulfate", 93.2),
    "acid": ("hydrochloric_acid", 31.45),
    "muriatic acid": ("hydrochloric_acid", 31.45),
    "hydrochloric acid": ("hydrochloric_acid", 31.45),
    "shock": ("calcium_hypochlorite", 65.0),
    "cal hypo": ("calcium_hypochlorite", 65.0),
    "calcium hypochlorite": ("calcium_hypochlorite", 65.0),
    "dichlor": ("sodium_dichlor", 56.0),
    "granules": ("sodium_dichlor", 56.0),
    "tablets": ("trichlor", 90.0),
    "trichlor": ("trichlor", 90.0),
    "liquid chlorine": ("sodium_hypochlorite", 10.0),
    "chlorine": ("sodium_hypochlorite", 10.0),
    "bleach": ("sodium_hypochlorite", 6.0),
    "calcium": ("calcium_chloride", 77.0),
    "calcium chloride": ("calcium_chloride", 77.0),
    "hardness up": ("calcium_chloride", 77.0),
    "hardness increaser": ("calcium_chloride", 77.0),
    "stabiliser": ("cyanuric_acid", 100.0),
    "stabilizer": ("cyanuric_acid", 100.0),
    "conditioner": ("cyanuric_acid", 100.0),
    "cyanuric acid": ("cyanuric_acid", 100.0),
    "borax": ("borax", 100.0),
    "boric acid": ("boric_acid", 100.0),
    "algaecide": ("algaecide_quat", 10.0),
    "polyquat": ("algaecide_polyquat", 60.0),
    "copper algaecide": ("algaecide_copper", 7.0),
    "algae booster": ("algae_booster", 100.0),
    "clarifier": ("clarifier", 100.0),
    "flocculant": ("flocculant", 100.0),
    "floc": ("flocculant", 100.0),
    "enzyme": ("enzyme", 100.0),
    "enzymes": ("enzyme", 100.0),
    "phosphate remover": ("phosphate_remover", 100.0),
    "sequestrant": ("sequestrant", 100.0),
    "metal remover": ("sequestrant", 100.0),
    "chlorine reducer": ("sodium_thiosulfate", 100.0),
    "thiosulfate": ("sodium_thiosulfate", 100.0),
}
_PERCENT = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:%|percent)")
_AMOUNT = re.compile(
    r"(\d[\d.,/½¼¾]*\s*(?:fl\.?\s*oz|[a-z]+)(?:\s+\d[\d.,]*\s*oz)?|[½¼¾]\s*[a-z]+)", re.IGNORECASE
)
_FULL_STOPS = re.compile(r"[,;\n+]|\band\b")


@dataclass(frozen=True)
class Advice:
    """One thing advised: as typed, what it was taken for, and its amount."""

    typed: str
    product: Product
    mass_g: float
    text: Message


@dataclass(frozen=True)
class Unread:
    """A piece that was not understood, with the cure."""

    typed: str
    text: Message


@dataclass(frozen=True, kw_only=True)
class SecondOpinion:
    """The advice as read, the water after it, and what to know before following it."""

    advice: tuple[Advice, ...]
    unread: tuple[Unread, ...]
    before: Readings
    after: Readings
    findings: tuple[Finding, ...]


def second_opinion(text: str, readings: Readings, volume_l: float, traits: Traits) -> SecondOpinion:
    """Read "salt 20kg, buffer 400g" and reckon it, all of it in and mixed, its chlorine used up for pH."""
    advice: list[Advice] = []
    unread: list[Unread] = []
    for piece in (part.strip() for part in _FULL_STOPS.split(_decimal_commas(text))):
        if piece:
            found = _read(piece)
            (advice if isinstance(found, Advice) else unread).append(found)  # type: ignore[arg-type]
    amounts: dict[Product, float] = {}
    for row in advice:
        amounts[row.product] = amounts.get(row.product, 0.0) + row.mass_g
    known = known_from(readings)
    start = solve_readings(known) if known is not None else None
    after = after_all(readings, start if isinstance(start, State) else None, amounts, volume_l)
    return SecondOpinion(
        advice=tuple(advice),
        unread=tuple(unread),
        before=readings,
        after=after,
        findings=(
            *_findings(amounts, volume_l),
            *_by_their_labels(amounts, volume_l),
            *_against_the_pool(amounts, readings, volume_l, traits),
        ),
    )


def advised_plan(
    text: str, readings: Readings, volume_l: float, traits: Traits, display: DisplayOptions = AS_SOLD
) -> Plan:
    """The advice as a sheet of its own: its amounts, in our order, with our waits, limits and cautions."""
    found = second_opinion(text, readings, volume_l, traits)
    known = known_from(readings)
    solved = solve_readings(known) if known is not None else None
    start = solved if isinstance(solved, State) else None
    refused = refused_here(found.advice, traits)
    reckoned = [row for row in found.advice if row.product.chemical in CATALOGUE]
    allowed = [_advised(row, volume_l) for row in reckoned if row.product.chemical not in refused]
    placed = spread([_at_most(dose, readings, traits) for dose in allowed], readings, volume_l, start)
    steps = lay_out(placed.parts, volume_l, traits, readings, display=display)
    left = tuple(
        Unmet(
            dose.measure,
            "limits",
            Message(
                "{label}: the rest of it goes over what is safe at once; test after this plan.",
                label=Verbatim(dose.product.label),
            ),
        )
        for dose in placed.held_back
    )
    left += tuple(
        Unmet(POURED_FOR[chemical], "refused", why)
        for chemical, why in refused_here(found.advice, traits).items()
    )
    unread = tuple(Finding("unread", piece.text, None) for piece in found.unread)
    return Plan(steps, found.after, left, (*unread, *found.findings))


def _advised(row: Advice, volume_l: float) -> Dose:
    measure = POURED_FOR[row.product.chemical]
    counted = Measure.TOTAL_ALKALINITY if measure is Measure.PH else measure
    change = change_per_g(row.product, counted, volume_l) * row.mass_g
    return Dose(
        product=row.product,
        mass_g=row.mass_g,
        measure=measure,
        change=change,
        why=Message("As advised: {typed}.", typed=Verbatim(row.typed)),
    )


def _decimal_commas(text: str) -> str:
    """A comma between digits is a decimal comma, not the end of a piece."""
    return re.sub(r"(?<=\d),(?=\d)", ".", text.strip())


def _read(piece: str) -> Advice | Unread:
    percent = _PERCENT.search(piece)
    rest = _PERCENT.sub(" ", piece)
    amount = _AMOUNT.search(rest)
    if amount is None:
        return Unread(
            piece, Message('"{piece}" has no amount; write it like "salt 20 kg".', piece=Verbatim(piece))
        )
    name = " ".join(re.sub(r"[^a-z ]", " ", rest.replace(amount[0], " ").lower()).split())
    words = _named(name)
    if words is None:
        return Unread(
            piece,
            Message(
                '"{name}" is not known here; write what is in it, like "baking soda" or "salt".',
                name=Verbatim(name or piece),
            ),
        )
    chemical, usual = words
    strength = float(percent[1].replace(",", ".")) if percent else usual
    if not 0 < strength <= 100:
        return Unread(
            piece,
            Message(
                "{strength} % is no strength; it lies above 0 and at most at 100.", strength=Number(strength)
            ),
        )
    product = Product(chemical, chemical, strength)
    try:
        grams = _grams(amount[0], product)
    except UnreadableQuantity as trouble:
        return Unread(piece, trouble.message)
    liquid = product.row.is_liquid
    shown = Liquid(grams / density(product)) if liquid else Mass(grams)
    return Advice(
        piece, product, grams, Message("{amount} of {product}", amount=shown, product=Verbatim(product.label))
    )


def _named(name: str) -> tuple[str, float] | None:
    """The longest known word that stands in the name."""
    found = [word for word in WORDS if re.search(rf"\b{word}\b", name)]
    return WORDS[max(found, key=len)] if found else None


def _grams(amount: str, product: Product) -> float:
    """Grams of an amount; a liquid may be given by volume. Raises UnreadableQuantity."""
    try:
        return read_quantity(amount, Dimension.MASS, "g").value
    except UnreadableQuantity:
        if not product.row.is_liquid:
            raise
        liters = read_quantity(amount, Dimension.VOLUME, "l").value
        return liters * 1000 * density(product)


# What must never go into such a pool, and why. Origin: handbook 04, 06, 12.
def refused_here(advice: Sequence[Advice], traits: Traits) -> dict[str, Message]:
    """By chemical, why it is not poured here whoever advises it."""
    found: dict[str, Message] = {}
    chemicals = {row.product.chemical for row in advice}
    if traits.chlorination is Chlorination.SALT_CELL:
        found["calcium_hypochlorite"] = Message(
            "Calcium hypochlorite scales the plates of a salt cell: use liquid chlorine."
        )
    if traits.indoor:
        for chemical in (*STABILIZED, "cyanuric_acid"):
            found[chemical] = Message("Indoors no stabilizer is wanted: use liquid chlorine.")
    if {"trichlor", "calcium_hypochlorite"} <= chemicals:
        found["trichlor"] = Message(
            "Trichlor and calcium hypochlorite never come together: fire and explosion. Use one of the two."
        )
    return {chemical: why for chemical, why in found.items() if chemical in chemicals}


def _at_most(dose: Dose, readings: Readings, traits: Traits) -> Dose:
    """Chlorine no further than any plan goes here; the rest is told as over the cap."""
    room = highest_planned_mg_l(traits) - (readings.free_chlorine or 0.0)
    if dose.measure is not Measure.FREE_CHLORINE or dose.change <= room:
        return dose
    share = max(0.0, room) / dose.change
    return replace(dose, mass_g=share * dose.mass_g, change=share * dose.change)


SHOCK_FROM_MG_L = 5.0  # so much chlorine at once is a shock: at dusk, nobody in


def _against_the_pool(
    amounts: Mapping[Product, float], readings: Readings, volume_l: float, traits: Traits
) -> Iterator[Finding]:
    rows = [Advice("", product, grams, NOTHING) for product, grams in amounts.items()]
    for chemical, why in refused_here(rows, traits).items():
        yield Finding("not_here", Message("{name}: {why}", name=Message(CATALOGUE[chemical].name), why=why))
    rise = sum(
        changes(product, grams, volume_l).get(Measure.FREE_CHLORINE, 0.0)
        for product, grams in amounts.items()
        if product.chemical in CHLORINE_CARRIERS
    )
    then, cap = (readings.free_chlorine or 0.0) + rise, highest_planned_mg_l(traits)
    if then > cap:
        text = Message(
            "Free chlorine would go to {then}; no plan here goes over {cap}. Pour less.",
            then=Number(then, digits=0),
            cap=Number(cap),
        )
        yield Finding("over_cap", text, Measure.FREE_CHLORINE, {"then": then})
    elif rise >= SHOCK_FROM_MG_L:
        text = Message(
            "That is a shock (free chlorine +{rise}): at dusk, in one go, nobody in until a test allows it.",
            rise=Number(rise, digits=0),
        )
        yield Finding("at_dusk", text, Measure.FREE_CHLORINE, {"rise": rise})


def _by_their_labels(amounts: Mapping[Product, float], volume_l: float) -> Iterator[Finding]:
    """What has no equation: the label decides, and a usual one is told beside what was advised."""
    for product in amounts:
        kind = KINDS.get(product.chemical)
        if kind is None:
            continue
        dose = kind.usual()
        if dose is None:
            yield Finding("by_label", Message("{name}: only by its label.", name=Verbatim(kind.name)))
            continue
        usual = dose.first_per_l * volume_l
        shown = Liquid(usual) if kind.is_liquid else Mass(usual)
        yield Finding(
            "by_label",
            Message(
                "{name}: only by its label; a usual one says about {amount} for this pool. {use}",
                name=Verbatim(kind.name),
                amount=shown,
                use=kind.use,
            ),
        )


def _findings(amounts: dict[Product, float], volume_l: float) -> Iterator[Finding]:
    for product, grams in amounts.items():
        for measure, change in changes(product, grams, volume_l).items():
            limit = ADDITION_LIMITS.get(measure)
            if limit is not None and change > limit:
                text = Message(
                    "{names} would rise by {change} at once; split it so that no part brings more than "
                    "{limit}, with a test between.",
                    names=NAMES[measure],
                    change=Number(change, digits=0),
                    limit=Number(limit, digits=0),
                )
                yield Finding("over_limit", text, measure, {"change": change})
    for one, other in combinations(amounts, 2):
        row = separation(one.chemical, other.chemical)
        if row.minutes > ANY_TWO_MINUTES:
            hours = Message("{minutes} h", minutes=Number(row.minutes // 60))
            text = Message(
                "{label} and {label_2}: at least {hours} apart; {why}.",
                label=Verbatim(one.label),
                label_2=Verbatim(other.label),
                hours=hours,
                why=row.why,
            )
            yield Finding("apart", text, None, {"minutes": float(row.minutes)})


COMPARED: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.PH,
    Measure.TOTAL_ALKALINITY,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
    Measure.BORATE,
)
