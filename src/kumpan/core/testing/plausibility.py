"""Values to question beside the field: asked about, never blocked.

Source: plausibility.
"""

from collections.abc import Callable, Iterator

from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings, combined_chlorine
from kumpan.core.quantity import Number
from kumpan.core.testing.methods import Method

SOURCE = "plausibility"

PH_USUAL = (6.8, 8.4)
COMBINED_USUAL_MG_L = 0.5
BLEACHING_FREE_CHLORINE_MG_L = 10.0
NOT_BY_COLOR = (Method.METER, Method.SHOP)  # a meter's pH does not shift with chlorine
CYA_TITRATED_PER_MG = 0.31  # mg/L CaCO3 of titrated alkalinity per mg/L cyanuric acid at pH 7.5
JUMP = {Measure.CYANURIC_ACID: 20.0, Measure.CALCIUM_HARDNESS: 100.0, Measure.SALT: 500.0}
JUMP_WORDS = {
    Measure.CYANURIC_ACID: Message("Stabilizer rises only by stabilizer or stabilized chlorine"),
    Measure.CALCIUM_HARDNESS: Message(
        "Calcium rises only by calcium products, hard fill water or evaporation"
    ),
    Measure.SALT: Message("Salt rises only when salt or acid is added, or slowly as chlorine is used"),
}
FALL_WORDS = {
    Measure.CYANURIC_ACID: Message("Stabilizer falls only by dilution, or over weeks without chlorine"),
    Measure.CALCIUM_HARDNESS: Message("Calcium falls only by dilution"),
    Measure.SALT: Message("Salt falls only by dilution"),
}


def spoils_ph(free_chlorine_mg_l: float, method: Method) -> bool:
    """Whether pH by this method reads too high at so much free chlorine."""
    return free_chlorine_mg_l > BLEACHING_FREE_CHLORINE_MG_L and method not in NOT_BY_COLOR


Check = Callable[[Readings], Iterator[Finding]]


def _total_under_free(now: Readings) -> Iterator[Finding]:
    if (
        now.free_chlorine is not None
        and now.total_chlorine is not None
        and now.total_chlorine < now.free_chlorine
    ):
        yield Finding(
            "total_below_free",
            Message(
                "Total chlorine {total_chlorine} is under free chlorine {free_chlorine}: one of the two "
                "was misread.",
                total_chlorine=Number(now.total_chlorine),
                free_chlorine=Number(now.free_chlorine),
            ),
            Measure.TOTAL_CHLORINE,
        )


def _combined(now: Readings) -> Iterator[Finding]:
    combined = combined_chlorine(now)
    if combined is not None and combined > COMBINED_USUAL_MG_L + 1e-9:
        yield Finding(
            "combined_high",
            Message(
                "Combined chlorine is {combined}. Was the pool shocked with monopersulfate lately? Then it "
                "reads high falsely for days.",
                combined=Number(combined, figures=2),
            ),
            Measure.TOTAL_CHLORINE,
        )


def _ph(now: Readings) -> Iterator[Finding]:
    if now.ph is not None and not PH_USUAL[0] <= now.ph <= PH_USUAL[1]:
        yield Finding(
            "ph_unusual",
            Message("pH {ph} is rare in a pool (6.8 to 8.4). Read it once more.", ph=Number(now.ph)),
            Measure.PH,
        )


def _bleached(now: Readings) -> Iterator[Finding]:
    if now.free_chlorine is not None and now.free_chlorine > BLEACHING_FREE_CHLORINE_MG_L:
        yield Finding(
            "bleaching",
            Message(
                "Above about 10 ppm chlorine bleaches color tests and pushes the pH color high. Dilute "
                "the sample 1:1 with chlorine-free water and double."
            ),
            Measure.FREE_CHLORINE,
        )


def _alkalinity_of_stabilizer(now: Readings) -> Iterator[Finding]:
    if now.total_alkalinity is None or now.cyanuric_acid is None:
        return
    share = CYA_TITRATED_PER_MG * now.cyanuric_acid
    if now.total_alkalinity < share:
        yield Finding(
            "alkalinity_below_stabiliser",
            Message(
                "Stabilizer alone makes about {share} of alkalinity; {total_alkalinity} cannot be. Test "
                "both again.",
                share=Number(share, digits=0),
                total_alkalinity=Number(now.total_alkalinity),
            ),
            Measure.TOTAL_ALKALINITY,
        )


_CHECKS: tuple[Check, ...] = (_total_under_free, _combined, _ph, _bleached, _alkalinity_of_stabilizer)


def questions(now: Readings, expected: Readings | None = None) -> tuple[Finding, ...]:
    """What to question in a test. `expected` is the water the journal predicts, when there is one."""
    found = [finding for check in _CHECKS for finding in check(now)]
    if expected is not None:
        found.extend(_jumps(now, expected))
    return tuple(found)


def _jumps(now: Readings, expected: Readings) -> Iterator[Finding]:
    for measure, threshold in JUMP.items():
        value, before = now.value(measure), expected.value(measure)
        if value is None or before is None or abs(value - before) <= threshold:
            continue
        words = JUMP_WORDS if value > before else FALL_WORDS
        yield Finding(
            "unexplained_jump",
            Message(
                "{words}; the journal expects about {before}. Test again, or note what happened.",
                words=words[measure],
                before=Number(before, digits=0),
            ),
            measure,
            {"expected": before},
        )
    if (
        now.free_chlorine == 0
        and expected.free_chlorine is not None
        and expected.free_chlorine > BLEACHING_FREE_CHLORINE_MG_L
    ):
        yield Finding(
            "zero_after_shock",
            Message("Zero right after a shock may be a bleached test: dilute the sample 1:1 and look again."),
            Measure.FREE_CHLORINE,
        )
