"""A shock as a plan: how high, with what, at dusk, and the test that decides in the morning.

Sources: shock, shock-hour, cya-ratio, addition-limits.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta, tzinfo
from enum import StrEnum

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings, solve_totals
from kumpan.core.dosing.caps import highest_planned_mg_l
from kumpan.core.dosing.mass_balance import added_to, changes, mass_for_change_g
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.raisers import unsuited
from kumpan.core.dosing.solution import Dose, nothing_at_hand
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message, Verbatim
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL
from kumpan.core.quantity import Number, Percent
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import Step
from kumpan.core.records.unmet import Unmet
from kumpan.core.testing.methods import Measured
from kumpan.core.treatment.dusk import Evening, next_morning
from kumpan.core.treatment.plan import AS_SOLD, Plan
from kumpan.core.treatment.rules_beside import rule_beside
from kumpan.core.treatment.schedule import Timeline
from kumpan.core.treatment.split import Part

SOURCES_USED = ("shock", "shock-hour", "cya-ratio", "addition-limits")

FIXED_MG_L = 10.0
RATIO_TO_CYA = 0.40
PH_FOR_SHOCK = (7.2, 7.6)
LEAST_RISE_MG_L = 1.0
PUMP_BEFORE_MIN = 30
NIGHT_AT_LEAST = timedelta(hours=8)
OVERNIGHT_LOSS_MG_L = 1.0
BREAKPOINT_RULE = 10.0


class ShockStrategy(StrEnum):
    """How a shock's level is found."""

    FIXED = "fixed"
    RATIO = "ratio"
    OXIDIZER = "oxidiser"


class ShockReason(StrEnum):
    """What a shock is for."""

    ROUTINE = "routine"
    COMBINED = "combined"
    STORM = "storm"
    PARTY = "party"


@dataclass(frozen=True)
class ReasonRow:
    """What goes before the pour for this reason, and what the morning's test must show besides."""

    first: Message
    first_why: Message
    morning: Message


REASONS: Mapping[ShockReason, ReasonRow] = {
    ShockReason.ROUTINE: ReasonRow(
        Message("Brush, empty the baskets, clean the filter if it is due"),
        Message("Chlorine works on what is stirred up, and a dirty filter eats it."),
        Message("Every week above 80 F or in heavy use, every two weeks below."),
    ),
    ShockReason.COMBINED: ReasonRow(
        Message("Brush, clean the filter; cover off, indoors doors and fans open"),
        Message("What chlorine breaks up must leave with the air."),
        Message("Combined still over 0.5: not enough, or no fresh air; once more tomorrow."),
    ),
    ShockReason.STORM: ReasonRow(
        Message(
            "Debris and leaves out, baskets empty, level to the middle of the skimmer; test pH and alkalinity"
        ),
        Message("Rain thins the water and brings dirt; what floats eats the shock."),
        Message("Test alkalinity, stabilizer and salt too: what ran over took them along."),
    ),
    ShockReason.PARTY: ReasonRow(
        Message("Everybody out, toys out, brush, baskets empty"),
        Message("Swimmers and lotion use up chlorine; give it to the water at once."),
        Message("Combined over 0.5 means it is still working."),
    ),
}


@dataclass(frozen=True)
class ShockLevel:
    """The free chlorine to reach, mg/L; `wanted` what the way asks for before the cap."""

    target: float
    wanted: float
    cap: float

    @property
    def capped(self) -> bool:
        """The level asked for is over what this pool bears."""
        return self.wanted > self.cap


@dataclass(frozen=True, kw_only=True)
class ShockRequest:
    """The pool, its water and shelf, the way, and the evening it is for; `poured` is what went in lately, as
    (minutes ago, chemical), `measured` the readings with their doubt; `use` the product that the person
    wants.
    """

    readings: Readings
    volume_l: float
    traits: Traits
    inventory: Sequence[Product]
    bands: dict[Measure, Band]
    swim_limit_mg_l: float
    strategy: ShockStrategy
    now: datetime
    evening: Evening
    zone: tzinfo
    reason: ShockReason = ShockReason.ROUTINE
    swim_after_oxidizer_min: int = 60
    display: DisplayOptions = AS_SOLD
    poured: tuple[tuple[int, str], ...] = ()
    measured: tuple[Measured, ...] = ()
    use: str | None = None


def shock_level(readings: Readings, traits: Traits, strategy: ShockStrategy) -> ShockLevel:
    """10 mg/L, or 40 % of stabilizer (never under 10 where it is less); at most what the pool bears."""
    stabilizer = readings.cyanuric_acid or 0.0
    wanted = FIXED_MG_L if strategy is ShockStrategy.FIXED else max(FIXED_MG_L, RATIO_TO_CYA * stabilizer)
    cap = highest_planned_mg_l(traits)
    return ShockLevel(min(wanted, cap), wanted, cap)


def shock_product(request: ShockRequest, rise_mg_l: float, *, never: Sequence[str] = ()) -> Product | None:
    """Liquid first, for it adds only salt; granules where their side effect has room. Never tablets.

    `never` are chemicals that this work forbids. What the person chose is obeyed where it may go in here;
    where it does not stand here any more the work goes on without it, and says so (`by_choice`).
    """
    chosen = _chosen(request)
    if chosen is not None and chosen.chemical not in never:
        return chosen if choice_refused(request) is None else None
    for product in sorted(request.inventory, key=_preference):
        if product.chemical in never:
            continue
        if product.chemical in PREFERENCE and _fits(product, request, rise_mg_l):
            return product
    return None


def _chosen(request: ShockRequest) -> Product | None:
    return next((product for product in request.inventory if product.id == request.use), None)


def choice_refused(request: ShockRequest) -> Message | None:
    """Why the product that the person named is not poured; None where it may go in, or is not at hand."""
    chosen = _chosen(request)
    return not_here(chosen, request.traits) if chosen is not None else None


def offered(inventory: Sequence[Product], traits: Traits) -> tuple[tuple[Product, Message | None], ...]:
    """What stands here to shock with, each with the reason where it may not go in."""
    return tuple((one, not_here(one, traits)) for one in inventory if one.chemical in PREFERENCE)


def not_here(product: Product, traits: Traits) -> Message | None:
    """Why a product shocks no such pool, whoever chose it; None where it may. Origin: handbook 04, 06, 07."""
    if product.chemical not in PREFERENCE:
        return Message(
            "{name} shocks no pool: it acts over days or not at all.", name=Verbatim(product.label)
        )
    return unsuited(product.chemical, traits)


PREFERENCE = ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor")


def _preference(product: Product) -> int:
    return PREFERENCE.index(product.chemical) if product.chemical in PREFERENCE else len(PREFERENCE)


def _fits(product: Product, request: ShockRequest, rise_mg_l: float) -> bool:
    """Calcium not to a salt cell nor hard water; stabilizer not over its band, none indoors."""
    grams = mass_for_change_g(product, Measure.FREE_CHLORINE, rise_mg_l, request.volume_l)
    moved = changes(product, grams, request.volume_l)
    return not_here(product, request.traits) is None and not _over_its_range(request, moved)


def _over_its_range(request: ShockRequest, moved: Mapping[Measure, float]) -> list[Measure]:
    """What a shock's own calcium or stabilizer takes over its band, or moves without being known."""
    found = []
    for measure in (Measure.CALCIUM_HARDNESS, Measure.CYANURIC_ACID):
        band, before = request.bands.get(measure), request.readings.value(measure)
        if measure in moved and band is not None and band.high is not None and before is not None:
            if before + moved[measure] > band.high:
                found.append(measure)
        elif measure in moved and before is None:
            found.append(measure)
    return found


def shock_plan(request: ShockRequest) -> Plan:
    """The sheet of one shock: prepare, pour at dusk, test in the morning; or why there is none."""
    if request.strategy is ShockStrategy.OXIDIZER:
        return _oxidizer_plan(request)
    free = request.readings.free_chlorine
    if free is None:
        return nothing_to_do(
            request,
            "not_tested",
            Message("Free chlorine is not measured: test first, a shock starts from it."),
        )
    level = shock_level(request.readings, request.traits, request.strategy)
    rise = level.target - free
    if rise < LEAST_RISE_MG_L:
        reason = Message(
            "Free chlorine is at {free} already; a shock would go to {target}.",
            free=Number(free, figures=3),
            target=Number(level.target, digits=0),
        )
        return nothing_to_do(request, "there_already", reason)
    product = shock_product(request, rise)
    refused = choice_refused(request)
    if product is None and refused is not None:
        return nothing_to_do(request, "not_here", refused)
    if product is None:
        reason = Message(
            "Nothing on the shelf shocks this pool without harm: tablets are too slow, granules bring "
            "too much of their own."
        )
        return nothing_to_do(request, "nothing_suitable_at_hand", reason)
    part = _part(request, product, level, free)
    after = added_to(request.readings, changes(product, part.mass_g, request.volume_l))
    rule = rule_beside(product, rise, request.volume_l, weekly=False)
    notes = (*_notes(request, level), *by_choice(request, product, part.mass_g), *((rule,) if rule else ()))
    return Plan(_steps(request, part, level), after, (), notes)


def by_choice(request: ShockRequest, product: Product, mass_g: float) -> tuple[Finding, ...]:
    """What the person's own choice does that the planner would not have done, or that it is not at hand."""
    if request.use is not None and _chosen(request) is None:
        text = Message(
            "The product that was chosen does not stand at this pool now: this is planned with {label}.",
            label=Verbatim(product.label),
        )
        return (Finding("choice_not_at_hand", text),)
    if product.id != request.use:
        return ()
    moved = changes(product, mass_g, request.volume_l)
    return tuple(
        Finding(
            "leaves_band",
            Message(
                "{name} rises by {change} with it, over its range or unknown: liquid chlorine would not.",
                name=NAMES[measure],
                change=Number(moved[measure], digits=0),
            ),
            measure,
        )
        for measure in _over_its_range(request, moved)
    )


OXIDIZER = "potassium_monopersulfate"
OXIDIZER_G_PER_L = G_PER_LB / (10_000 * L_PER_US_GAL)  # the trade's 1 lb per 10 000 gal


def _oxidizer_plan(request: ShockRequest) -> Plan:
    """Non-chlorine shock: by its label, any hour of the day; it oxidizes and does not kill algae."""
    product = next((p for p in request.inventory if p.chemical == OXIDIZER), None)
    if product is None:
        reason = Message("No non-chlorine shock on the shelf: put it there, or shock with chlorine.")
        return Plan((), request.readings, (nothing_at_hand(Measure.FREE_CHLORINE, reason),), ())
    grams = request.volume_l * OXIDIZER_G_PER_L
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    line.prepare(request.traits, adds_salt=False)
    row = REASONS[request.reason]
    line.do(row.first, row.first_why, Hazard.OPEN_WATER)
    why = Message(
        "About 1 lb per 10,000 gal (12 g per 1000 L); the label's amount comes first. It oxidizes, it kills "
        "no algae and leaves no chlorine."
    )
    line.add(
        Part(
            dose=Dose(product=product, mass_g=grams, measure=Measure.FREE_CHLORINE, change=0.0, why=why),
            mass_g=grams,
            day=1,
        )
    )
    minutes = request.swim_after_oxidizer_min
    line.wait_until(
        line.now + minutes, Message("Then swimming is allowed, if the label does not ask for longer.")
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.PH),
        Message("Free chlorine still in range? For days it reads as combined in common tests."),
    )
    note = Message(
        "In DPD tests it reads as combined chlorine for days: judge by smell and by free chlorine until then."
    )
    return Plan(
        tuple(line.steps),
        request.readings,
        (),
        (Finding("reads_as_combined", note, Measure.COMBINED_CHLORINE),),
    )


def nothing_to_do(request: ShockRequest, code: str, reason: Message) -> Plan:
    """A plan without steps, and why."""
    level = shock_level(request.readings, request.traits, request.strategy)
    return Plan((), request.readings, (Unmet(Measure.FREE_CHLORINE, code, reason),), _notes(request, level))


def _part(request: ShockRequest, product: Product, level: ShockLevel, free: float) -> Part:
    why = Message(
        "Free chlorine from {free} to {target}: {strategy_words}.",
        free=Number(free, figures=3),
        target=Number(level.target, figures=3),
        strategy_words=_strategy_words(request, level),
    )
    return chlorine_part(
        request.readings, product, rise_mg_l=level.target - free, volume_l=request.volume_l, why=why
    )


def chlorine_part(
    readings: Readings, product: Product, rise_mg_l: float, volume_l: float, why: Message
) -> Part:
    """An amount of a chlorine product as a line of a sheet, with the water before and after where it can be
    solved.
    """
    grams = mass_for_change_g(product, Measure.FREE_CHLORINE, rise_mg_l, volume_l)
    dose = Dose(product=product, mass_g=grams, measure=Measure.FREE_CHLORINE, change=rise_mg_l, why=why)
    known = known_from(readings)
    before = solve_readings(known) if known is not None else None
    if not isinstance(before, State):
        return Part(dose=dose, mass_g=grams, day=1)
    totals = added(before.totals, product, grams, volume_l, spent=True)
    return Part(
        dose=dose, mass_g=grams, day=1, before=before, after=solve_totals(totals, float(before.species.ph))
    )


def _strategy_words(request: ShockRequest, level: ShockLevel) -> Message:
    if level.capped:
        return Message(
            "as high as this pool bears, where {wanted} would be asked", wanted=Number(level.wanted, digits=0)
        )
    if request.strategy is ShockStrategy.FIXED:
        return Message("the fixed way")
    return Message("{ratio_to_cya} of stabilizer", ratio_to_cya=Percent(RATIO_TO_CYA))


def _steps(request: ShockRequest, part: Part, level: ShockLevel) -> tuple[Step, ...]:
    line = Timeline(request.volume_l, request.readings, request.display, request.poured)
    until = max(0, int((request.evening.at - request.now).total_seconds() // 60))
    line.wait_until(
        max(0, until - PUMP_BEFORE_MIN), Message("The sun would take most of it before it works.")
    )
    line.prepare(request.traits, adds_salt=False)
    row = REASONS[request.reason]
    line.do(row.first, row.first_why, Hazard.OPEN_WATER)
    line.wait_until(until, request.evening.why)
    line.add(part)
    line.do(
        Message("Put up a no-swim notice"),
        Message(
            "Free chlorine is at {target}, over the swim limit of {swim_limit}, until a test says otherwise.",
            target=Number(level.target, digits=0),
            swim_limit=Number(request.swim_limit_mg_l),
        ),
        Hazard.OPEN_WATER,
    )
    poured_at = request.now + timedelta(minutes=line.now)
    morning = next_morning(poured_at, request.zone, NIGHT_AT_LEAST)
    line.wait_until(
        int((morning - request.now).total_seconds() // 60),
        Message("Overnight with the pump on; robot out, cover off."),
    )
    line.test(
        (Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE),
        Message(
            "A loss of more than {overnight_loss} overnight, without sun, means it is still working on "
            "something: shock again. Swim at {swim_limit} or less, combined at 0.5 or less, and the "
            "drain plain to see. {morning}",
            overnight_loss=Number(OVERNIGHT_LOSS_MG_L),
            swim_limit=Number(request.swim_limit_mg_l),
            morning=row.morning,
        ),
    )
    return tuple(line.steps)


def _notes(request: ShockRequest, level: ShockLevel) -> tuple[Finding, ...]:
    return tuple(
        note for note in (_weak(request), _diluted_first(level), _ph(request), _rule(request)) if note
    )


def _weak(request: ShockRequest) -> Finding | None:
    """Say when 10 is not a shock here."""
    stabilizer = request.readings.cyanuric_acid or 0.0
    wanted = RATIO_TO_CYA * stabilizer
    if request.strategy is not ShockStrategy.FIXED or wanted <= FIXED_MG_L:
        return None
    text = Message(
        "10 is not a shock here: stabilizer {stabilizer} binds it, and by the stabilizer ratio it "
        "takes {wanted}.",
        stabilizer=Number(stabilizer, digits=0),
        wanted=Number(wanted, digits=0),
    )
    return Finding("weak_shock", text, Measure.FREE_CHLORINE, {"by_ratio": wanted})


def _diluted_first(level: ShockLevel) -> Finding | None:
    if not level.capped:
        return None
    text = Message(
        "{wanted} would be needed and {cap} is as high as this pool should go: replace water "
        "first, so that stabilizer comes down.",
        wanted=Number(level.wanted, digits=0),
        cap=Number(level.cap, digits=0),
    )
    return Finding("dilute_first", text, Measure.CYANURIC_ACID, {"cap": level.cap})


def _ph(request: ShockRequest) -> Finding | None:
    ph, (low, high) = request.readings.ph, PH_FOR_SHOCK
    if ph is None:
        return Finding("ph_first", Message("Test pH first: a shock works best at 7.2 to 7.6."), Measure.PH)
    if low <= ph <= high:
        return None
    text = Message(
        "pH is {ph}: bring it to {low} to {high} with the usual plan first, on an earlier day or "
        "hours before.",
        ph=Number(ph, digits=1),
        low=Number(low),
        high=Number(high),
    )
    return Finding("ph_first", text, Measure.PH, {"ph": ph})


def _rule(request: ShockRequest) -> Finding | None:
    """The rule beside the sum: ten times combined chlorine."""
    combined = request.readings.value(Measure.COMBINED_CHLORINE)
    if combined is None or combined <= 0.5:
        return None
    text = Message(
        "The rule says ten times combined chlorine, here {breakpoint_rule}. Combined is already "
        "counted as chlorine and needs about half its own amount more ({combined}): the rule is no "
        "floor.",
        breakpoint_rule=Number(BREAKPOINT_RULE * combined, digits=0),
        combined=Number(0.5 * combined, digits=1),
    )
    return Finding("rule_ten_times", text, Measure.COMBINED_CHLORINE, {"rule": BREAKPOINT_RULE * combined})
