"""Lay additions out in time: keep them apart, wait before a retest, test before the next part.

Times are minutes from the sheet's start; day 1 begins with it.
"""

from collections.abc import Mapping, Sequence

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.dosing.order_and_waits import LARGEST_PH_MOVE, MIXING, PH_WINDOW, separation
from kumpan.core.dosing.rounding import Rounded, round_dose
from kumpan.core.hazards import Hazard, cautions_for
from kumpan.core.messages import NOTHING, Message, Verbatim, listed
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Duration, Number
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.step import ADD, DO, TEST, WAIT, Step
from kumpan.core.treatment.derivations import dose_derivation
from kumpan.core.treatment.how_to import prepare, uses_pour_path, where
from kumpan.core.treatment.split import PH_STILL, Part

DAY_MIN = 1440
PREPARE_MIN = 5
SAME_TEST_MIN = 60  # what can be read within an hour of each other is read in one test
SAME_DAY_MIN = 360  # what can be read within six hours is tested on the same day
LONG_WAIT_MIN = 600
PH_WORTH_A_TEST = 0.15
PH_WORTH_TELLING = 0.05
PH_MIDDLE = sum(PH_WINDOW) / 2
LATER = 10**9
DAILY = Message("Chlorine is used up day by day: where it is under its range, dose it by a plan of its own.")
A_TEST_DECIDES = Message("A test decides, not the arithmetic.")


def lay_out(
    parts: Sequence[Part],
    volume_l: float,
    traits: Traits,
    readings: Readings,
    *,
    display: DisplayOptions,
    aerate_to_ph: float | None = None,
    poured: Sequence[tuple[int, str]] = (),
) -> tuple[Step, ...]:
    """The steps for additions already put on days and in order; empty when there is nothing to add.

    `poured` is what went in before, as (minutes ago, chemical): the first step keeps its distance from it.
    Over the days chlorine is tested daily, for it is used up meanwhile.
    """
    if not parts:
        return ()
    line = Timeline(volume_l, readings, display, poured, daily_tests=True)
    line.prepare(traits, adds_salt=any(part.dose.measure is Measure.SALT for part in parts))
    for day in sorted({part.day for part in parts}):
        line.begin_day(day)
        for part in (p for p in parts if p.day == day):
            line.retest_before(part.dose.measure)
            line.keep_apart(part.dose.product.chemical)
            line.add(part)
        line.test_what_can_be_read_by(line.now + SAME_DAY_MIN)
    if aerate_to_ph is not None:
        line.aerate(aerate_to_ph)
    line.test_what_can_be_read_by(None)
    return tuple(line.steps)


class Timeline:
    """The sheet while it is being written: what was poured when, what still waits for a test."""

    def __init__(
        self,
        volume_l: float,
        readings: Readings,
        display: DisplayOptions,
        poured: Sequence[tuple[int, str]] = (),
        *,
        daily_tests: bool = False,
    ) -> None:
        self.steps: list[Step] = []
        self.now = 0
        self._volume_l = volume_l
        self._display = display
        self._daily_tests = daily_tests
        self._chlorine_tested = 0
        self._poured: list[tuple[int, str]] = [(-ago, chemical) for ago, chemical in poured]
        self._readable_at: dict[Measure, int] = {}
        self._level = {m: value for m in Measure if (value := readings.value(m)) is not None}

    @property
    def day(self) -> int:
        """The day of the plan, the first being 1."""
        return 1 + self.now // DAY_MIN

    def prepare(self, traits: Traits, *, adds_salt: bool) -> None:
        """The step before all others: water moving, and what must be off."""
        self.do(
            prepare(traits, adds_salt=adds_salt),
            Message("Everything below needs moving water."),
            Hazard.OPEN_WATER,
        )
        self.now += PREPARE_MIN

    def do(
        self,
        title: Message,
        why: Message,
        hazard: Hazard,
        measures: tuple[Measure, ...] = (),
        *,
        care: tuple[str, ...] = (),
    ) -> None:
        """A task of its own, without an amount; `care`: the tasks of the pool's care that are done by it."""
        self.steps.append(
            Step(
                kind=DO,
                day=self.day,
                offset_min=self.now,
                title=title,
                why=why,
                hazard=hazard,
                cautions=cautions_for(hazard),
                measures=measures,
                care=care,
            )
        )

    def begin_day(self, day: int) -> None:
        """Wait for another day, testing what can be read by then."""
        self.test_what_can_be_read_by((day - 1) * DAY_MIN)
        self.wait_until((day - 1) * DAY_MIN, Message("The next part goes in on another day."))

    def retest_before(self, measure: Measure) -> None:
        """The next part of a split goes in only after the first has been read."""
        if self._readable_at.get(measure, LATER) <= self.now + DAY_MIN:
            self._test_group(measure)

    def keep_apart(self, chemical: str) -> None:
        """Wait until nothing poured before harms this chemical, or is harmed by it."""
        until, why = self.now, NOTHING
        for at, other in self._poured:
            row = separation(other, chemical)
            if at + row.minutes > until:
                until, why = at + row.minutes, row.why
        self.wait_until(until, Message("Before the next one goes in: {why}.", why=why))

    def after(self, steps: Sequence[Step]) -> None:
        """Go on after steps that are laid out already: their pours count, their waits are over."""
        self.steps = list(steps)
        for step in steps:
            self.now = max(self.now, step.offset_min + (step.minutes or 0))
            if step.kind == ADD and step.chemical is not None:
                self._poured.append((step.offset_min, step.chemical))
            self._level.update(step.expected)

    def level_now(self, readings: Readings) -> None:
        """The water as it stands from here on, after something that is no addition."""
        self._level = {m: value for m in Measure if (value := readings.value(m)) is not None}

    def add(self, part: Part, expected_change: float | None = None) -> None:
        """An addition; `expected_change` where practice does not follow the mass balance, mg/L."""
        self.keep_apart(part.dose.product.chemical)
        step = self._addition(part, expected_change)
        self.steps.append(step)
        self._raise_total_chlorine(step)
        self._level.update(step.expected)
        self._poured.append((self.now, part.dose.product.chemical))
        ready = self.now + MIXING[part.dose.measure].minutes
        self._readable_at[part.dose.measure] = max(self._readable_at.get(part.dose.measure, 0), ready)
        if abs(step.side_effects.get(Measure.PH, 0.0)) >= PH_WORTH_A_TEST:
            self._readable_at[Measure.PH] = self.now + MIXING[Measure.PH].minutes

    def pour_by_label(self, product: Product, mass_g: float, why: Message, place: Message) -> None:
        """A dose that its label says; nothing is expected of it but the copper that some bring."""
        self.keep_apart(product.chemical)
        rounded = round_dose(
            product, mass_g, units=self._display.units, containers=self._display.containers, down=True
        )
        moved = changes(product, rounded.mass_g, self._volume_l)
        self.steps.append(
            Step(
                kind=ADD,
                day=self.day,
                offset_min=self.now,
                title=Message("{product}", product=Verbatim(product.label)),
                why=why,
                hazard=product.row.hazard,
                cautions=cautions_for(product.row.hazard),
                product_id=product.id,
                chemical=product.chemical,
                strength_percent=product.strength_percent,
                density_g_per_ml=product.density_g_per_ml,
                mass_g=mass_g,
                volume_ml=volume_from_mass_ml(product, mass_g),
                rounded_g=rounded.mass_g,
                rounded_ml=rounded.volume_ml,
                rounded_text=rounded.text,
                where=place,
                pour_path=True,
                measures=tuple(moved),
                expected=self._expected(moved),
                side_effects=moved,
                reason_code="label",
            )
        )
        self._poured.append((self.now, product.chemical))

    def _raise_total_chlorine(self, step: Step) -> None:
        """Total chlorine rises with free."""
        free, total = self._level.get(Measure.FREE_CHLORINE), self._level.get(Measure.TOTAL_CHLORINE)
        then = step.expected.get(Measure.FREE_CHLORINE)
        if free is not None and total is not None and then is not None:
            self._level[Measure.TOTAL_CHLORINE] = total + then - free

    def aerate(self, ph: float) -> None:
        """Let carbon dioxide leave until pH is back."""
        title = Message("Aerate until pH reads {ph} again", ph=Number(ph))
        why = Message(
            "Returns up, fountain or air on: carbon dioxide leaves, pH rises, alkalinity stays down."
        )
        self.do(title, why, Hazard.OPEN_WATER, (Measure.PH,))
        self._readable_at[Measure.PH] = self.now + MIXING[Measure.PH].minutes

    def test_what_can_be_read_by(self, latest: int | None) -> None:
        """Wait for and test what can be read by then; None waits for the slowest."""
        while self._readable_at:
            first = min(self._readable_at, key=lambda m: self._readable_at[m])
            if latest is not None and self._readable_at[first] > latest:
                return
            self._test_group(first)

    def _test_group(self, first: Measure) -> None:
        ready = self._readable_at[first]
        group = [m for m, at in self._readable_at.items() if at <= max(ready, self.now) + SAME_TEST_MIN]
        group_ready = max(self._readable_at[m] for m in group)
        slowest = max(group, key=lambda m: self._readable_at[m])
        self.wait_until(
            group_ready,
            Message(
                "Until {slowest} can be read: {say}.",
                slowest=name_in_sentence(slowest),
                say=MIXING[slowest].say,
            ),
        )
        self.test(tuple(sorted(group, key=list(Measure).index)))
        for measure in group:
            del self._readable_at[measure]

    def wait_until(self, until: int, why: Message, title: Message = NOTHING) -> None:
        """Nothing to do until then, minutes from the start; nothing at all where that is past.

        In a plan over days chlorine is tested at the beginning of each.
        """
        while self._daily_tests and until >= self._chlorine_tested + DAY_MIN:
            self._wait(max(self.now, self._chlorine_tested + DAY_MIN), why, title)
            self.test((Measure.FREE_CHLORINE, Measure.PH), DAILY)
        self._wait(until, why, title)

    def _wait(self, until: int, why: Message, title: Message) -> None:
        minutes = until - self.now
        if minutes <= 0:
            return
        pump = Message(" with the pump on") if minutes < LONG_WAIT_MIN else NOTHING
        title = title or Message("{minutes}{pump}", minutes=Duration(minutes), pump=pump)
        self.steps.append(
            Step(
                kind=WAIT,
                day=self.day,
                offset_min=self.now,
                title=title,
                why=why,
                hazard=Hazard.NONE,
                cautions=(),
                minutes=minutes,
            )
        )
        self.now = until

    def _addition(self, part: Part, expected_change: float | None) -> Step:
        dose, product = part.dose, part.dose.product
        rounded = self._rounded(part)
        moved = self._moved(part, rounded.mass_g)
        if expected_change is not None:
            moved[dose.measure] = expected_change
        return Step(
            kind=ADD,
            day=self.day,
            offset_min=self.now,
            title=Message("{product}", product=Verbatim(product.label)),
            why=self._share_why(part),
            hazard=product.row.hazard,
            cautions=cautions_for(product.row.hazard),
            product_id=product.id,
            chemical=product.chemical,
            strength_percent=product.strength_percent,
            density_g_per_ml=product.density_g_per_ml,
            mass_g=part.mass_g,
            volume_ml=volume_from_mass_ml(product, part.mass_g),
            rounded_g=rounded.mass_g,
            rounded_ml=rounded.volume_ml,
            rounded_text=rounded.text,
            where=where(product.chemical, rounded.mass_g, self._display),
            pour_path=uses_pour_path(product.chemical),
            measures=(dose.measure,),
            expected=self._expected(moved),
            side_effects={m: change for m, change in moved.items() if m is not dose.measure},
            derivation=dose_derivation(product, part.mass_g, dose.measure, self._volume_l),
            reason_code=dose.reason_code,
        )

    def _share_why(self, part: Part) -> Message:
        """What this step does to the water as it then is; each part of a split tells its own share."""
        dose = part.dose
        if dose.measure is Measure.PH and part.before is not None and part.after is not None:
            before, after = float(part.before.species.ph), float(part.after.species.ph)
            if abs(after - before) >= PH_WORTH_TELLING:
                return Message(
                    "pH from {before} to {after}.",
                    before=Number(before, digits=2),
                    after=Number(after, digits=2),
                )
            return dose.why
        if part.mass_g > (1 - 1e-9) * dose.mass_g or dose.measure not in self._level:
            return dose.why
        now = self._level[dose.measure]
        return Message(
            "{name} from {before} to {after}, a part of the whole.",
            name=NAMES[dose.measure],
            before=Number(now, figures=3),
            after=Number(now + dose.change * part.mass_g / dose.mass_g, figures=3),
        )

    def _rounded(self, part: Part) -> Rounded:
        """A measurable amount; where rounding up would take pH out of its window, one that stays inside."""
        dose, display = part.dose, self._display
        rounded = round_dose(
            dose.product,
            part.mass_g,
            units=display.units,
            uncertainty_share=dose.uncertainty_share,
            containers=display.containers,
        )
        share = self._share_inside(part)
        if share is None or dose.urgent or rounded.mass_g <= share * part.mass_g:
            return rounded
        most = min(1.0, share) * part.mass_g
        lower = round_dose(
            dose.product,
            most,
            units=display.units,
            uncertainty_share=dose.uncertainty_share,
            containers=display.containers,
            down=True,
        )
        return lower if lower.mass_g > 0 else rounded

    def _share_inside(self, part: Part) -> float | None:
        """How much of a part takes pH, as the rounded steps before left it, to the edge of its window or of
        one move.

        None where pH is not known or hardly moves. What moves back in from outside is held only to the
        largest move.
        """
        level = self._level.get(Measure.PH)
        if part.before is None or part.after is None or level is None:
            return None
        move = float(part.after.species.ph) - float(part.before.species.ph)
        if abs(move) <= PH_STILL:
            return None
        in_one_move = LARGEST_PH_MOVE / abs(move)
        if abs(level - PH_MIDDLE) > abs(level + move - PH_MIDDLE):
            return in_one_move
        room = (PH_WINDOW[1] if move > 0 else PH_WINDOW[0]) - level
        return min(in_one_move, room / move if room * move > 0 else 1.0)

    def _moved(self, part: Part, mass_g: float) -> dict[Measure, float]:
        """Every measure that the rounded amount moves; pH and alkalinity by the equilibrium, chlorine used
        up.
        """
        moved = changes(part.dose.product, mass_g, self._volume_l)
        if part.before is None or part.after is None:
            moved.pop(Measure.TOTAL_ALKALINITY, None)
            return moved
        share = mass_g / part.mass_g
        alkalinity = float(part.after.total_alkalinity_mg_l) - float(part.before.total_alkalinity_mg_l)
        moved[Measure.PH] = (float(part.after.species.ph) - float(part.before.species.ph)) * share
        moved[Measure.TOTAL_ALKALINITY] = alkalinity * share
        return {measure: change for measure, change in moved.items() if abs(change) > 1e-6}

    def _expected(self, moved: Mapping[Measure, float]) -> dict[Measure, float]:
        return {m: max(0.0, self._level[m] + change) for m, change in moved.items() if m in self._level}

    def test(self, measures: tuple[Measure, ...], why: Message = A_TEST_DECIDES) -> None:
        """A test of these measures, with what they should read."""
        names = listed(name_in_sentence(measure) for measure in measures)
        expected = {m: self._level[m] for m in measures if m in self._level}
        hazard, cautions = Hazard.OPEN_WATER, cautions_for(Hazard.OPEN_WATER)
        if Measure.FREE_CHLORINE in measures:
            self._chlorine_tested = self.now
        self.steps.append(
            Step(
                kind=TEST,
                day=self.day,
                offset_min=self.now,
                title=Message("Test {names}", names=names),
                why=why,
                hazard=hazard,
                cautions=cautions,
                measures=measures,
                expected=expected,
            )
        )
