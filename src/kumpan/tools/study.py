"""`./run study`: the chlorine forecast on simulated pools that it knows nothing of."""

import sys
from pathlib import Path

from kumpan.core.demand.conditions import Place, Pulse
from kumpan.core.demand.fit import fit
from kumpan.core.demand.forecast import forecast
from kumpan.core.simulator.study import KINDS, Case, Score, cases, score
from kumpan.tools.packages import ROOT

PAGE = ROOT / "docs/demand.md"
MARK = "<!-- study -->"
POOLS = 100


def our_forecast(case: Case) -> tuple[float, float, float]:
    place = Place(
        case.believed_volume_l,
        case.climate.latitude_deg,
        case.climate.longitude_deg,
        case.indoor,
        case.covered,
    )
    fitted = fit(case.state, place)
    assert fitted is not None
    planned = [Pulse(at_s, mg_l) for at_s, mg_l in case.planned]
    return forecast(case.state, place, fitted, case.when_s, planned).at(case.when_s)


def table(rows: dict[str, Score]) -> str:
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
    pools = int(sys.argv[1]) if len(sys.argv) > 1 else POOLS
    given = list(cases(pools))
    rows = {f"all {pools}": score(given, our_forecast)}
    for kind in dict.fromkeys(KINDS):
        rows[kind] = score([case for case in given if case.kind == kind], our_forecast)
    text = table(rows)
    print(text)
    if pools == POOLS and PAGE.exists():
        _into(PAGE, text)


def _into(page: Path, text: str) -> None:
    before, _, after = page.read_text().partition(MARK)
    _, _, rest = after.partition(MARK)
    page.write_text(f"{before}{MARK}\n{text}{MARK}{rest}")


if __name__ == "__main__":
    main()
