"""`./run study`: the chlorine forecast, and rescues by the plan, on simulated pools whose laws neither
knows; and random plans against the laws of advice.
"""

import statistics
import sys
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from itertools import repeat
from pathlib import Path
from zoneinfo import ZoneInfo

from kumpan.core.forecast.conditions import Place, Pulse
from kumpan.core.forecast.fit import fit
from kumpan.core.forecast.forecast import forecast
from kumpan.core.journal import Severity
from kumpan.core.simulation.study import KINDS, Case, Score, cases, score
from kumpan.core.testing.kits import KITS
from kumpan.core.training import journal_laws
from kumpan.core.training.green_study import Rescued, rescued
from kumpan.core.training.plan_laws import CHECKS, breaches, coverage, drawn, planned
from kumpan.tools.packages import ROOT

PAGE = ROOT / "docs/forecast.md"
ADVICE_PAGE = ROOT / "docs/advice.md"
RESCUE_PAGE = ROOT / "docs/hard-weeks.md"
ZONE = ZoneInfo("America/Chicago")
MARK = "<!-- study -->"
POOLS = 100
PLANS = 3000
JOURNALS = 3000
COVERED_POOLS = 300


def our_forecast(case: Case) -> tuple[float, float, float]:
    """Our forecast for a simulated case: low, likely, high in mg/L."""
    place = Place(
        volume_l=case.believed_volume_l,
        latitude_deg=case.climate.latitude_deg,
        longitude_deg=case.climate.longitude_deg,
        indoor=case.indoor,
        covered=case.covered,
    )
    fitted = fit(case.state, place)
    assert fitted is not None
    planned = [Pulse(at_s, mg_l) for at_s, mg_l in case.planned]
    return forecast(case.state, place, fitted=fitted, until_s=case.when_s, planned=planned).at(case.when_s)


def table(rows: dict[str, Score]) -> str:
    """The chlorine study's table in Markdown."""
    head = (
        '| pools | forecasts | truth inside the 90 % band | median width | mean error | "same as last week" | smaller by |\n'
        "|---|---|---|---|---|---|---|\n"
    )
    lines = [
        f"| {name} | {s.cases} | {s.inside:.0%} | {s.median_width:.2f} mg/L | {s.error:.2f} mg/L "
        f"| {s.naive_error:.2f} mg/L | {s.gain:.0%} |"
        for name, s in rows.items()
    ]
    return head + "\n".join(lines) + "\n"


def main() -> None:
    """Run the studies and print their tables."""
    pools = int(sys.argv[1]) if len(sys.argv) > 1 else POOLS
    given = list(cases(pools))
    rows = {f"all {pools}": score(given, our_forecast)}
    for kind in dict.fromkeys(KINDS):
        rows[kind] = score([case for case in given if case.kind == kind], our_forecast)
    text = table(rows)
    print(text)
    if pools == POOLS:
        _into(PAGE, text)
    runs = rescues(pools // len(Severity))
    text = rescue_table(runs)
    print(text)
    if pools == POOLS:
        _into(RESCUE_PAGE, text)
    plans = PLANS * pools // POOLS
    journals = JOURNALS * pools // POOLS
    text = f"{law_table(plans)}\n{judge_table(journals)}\n{coverage_table(COVERED_POOLS * pools // POOLS)}"
    print(text)
    if pools == POOLS:
        _into(ADVICE_PAGE, text)


def law_table(plans: int) -> str:
    """Breaches of the laws of plans per thousand random plans, in Markdown."""
    return _breach_table("plans", _broken, plans, tuple(CHECKS))


def judge_table(journals: int) -> str:
    """Breaches of the laws of judging per thousand random journals, in Markdown."""
    return _breach_table("journals", _misjudged, journals, tuple(journal_laws.CHECKS))


def _breach_table(name: str, broken: Callable[[int], set[str]], tried: int, laws: tuple[str, ...]) -> str:
    with ProcessPoolExecutor() as executor:
        found = list(executor.map(broken, range(tried), chunksize=50))
    counts = Counter(law for one in found for law in one)
    head = f"| law | breaches in a thousand {name} |\n|---|---|\n"
    rows = "".join(f"| {law} | {1000 * counts[law] / tried:.1f} |\n" for law in laws)
    return f"{tried} random {name}.\n\n{head}{rows}"


def _misjudged(number: int) -> set[str]:
    return {law for law, _ in journal_laws.breaches(journal_laws.drawn(number))}


def _broken(number: int) -> set[str]:
    question = drawn(number)
    return {law for law, _ in breaches(planned(question), question.inputs)}


def coverage_table(pools: int) -> str:
    """How often a dose's range holds the true dose, by kit, in Markdown."""
    with ProcessPoolExecutor() as executor:
        rows = list(executor.map(coverage, [kit.key for kit in KITS], repeat(pools)))
    head = (
        "| kit | doses | range holds the true dose | median width, share of the dose |\n|---|---|---|---|\n"
    )
    return head + "".join(f"| {r.kit} | {r.doses} | {r.inside:.1%} | {r.width:.0%} |\n" for r in rows)


def rescues(each: int) -> list[Rescued]:
    """So many green pools of each severity, followed to the end by the plan."""
    asked = [(severity, number) for severity in Severity for number in range(each)]
    with ProcessPoolExecutor() as executor:
        return list(executor.map(rescued, *zip(*asked, strict=True), repeat(ZONE)))


def rescue_table(runs: list[Rescued]) -> str:
    """The rescue study's table in Markdown."""
    head = (
        "| pools | reached the end | inside the first 90 % band | its median width | later bands that hold "
        "| days: median (least to most) "
        "| chlorine, median | tests, median | ran dry unseen | over the cap |\n|---|---|---|---|---|---|---|---|---|---|\n"
    )
    groups = {f"all {len(runs)}": runs} | {
        severity.value: [run for run in runs if run.severity is severity] for severity in Severity
    }
    return head + "".join(_rescue_row(name, group) for name, group in groups.items())


def _rescue_row(name: str, runs: list[Rescued]) -> str:
    days = sorted(run.days for run in runs if run.days is not None)
    later = sum(len(run.later) for run in runs) or 1
    return (
        f"| {name} | {len(days)} of {len(runs)} | {sum(run.inside for run in runs)} "
        f"| {statistics.median(run.high - run.low for run in runs):.1f} d "
        f"| {sum(run.later_inside for run in runs) / later:.0%} of {later} "
        f"| {statistics.median(days):.1f} ({days[0]:.1f} to {days[-1]:.1f}) "
        f"| {statistics.median(run.poured_mg_l for run in runs):.0f} mg/L "
        f"| {statistics.median(run.tests for run in runs):.0f} "
        f"| {sum(run.drained_unseen for run in runs)} | {sum(run.over_cap_mg_l > 0 for run in runs)} |\n"
    )


def _into(page: Path, text: str) -> None:
    before, _, after = page.read_text().partition(MARK)
    _, _, rest = after.partition(MARK)
    page.write_text(f"{before}{MARK}\n{text}{MARK}{rest}")


if __name__ == "__main__":
    main()
