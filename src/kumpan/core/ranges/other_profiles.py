"""What the other schools would say of a reading, where they differ from the one that the pool is kept by.

Sources: those of the schools.
"""

from collections.abc import Mapping

from kumpan.core.findings import Finding
from kumpan.core.pool.equipment import Traits
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import PROFILES, Band, ProfileKey, bands
from kumpan.core.ranges.verdicts import VerdictCode, verdict

_WORDS: Mapping[VerdictCode, str] = {
    VerdictCode.GOOD: "in range",
    VerdictCode.LOW: "low",
    VerdictCode.HIGH: "high",
    VerdictCode.NOT_MANAGED: "not managed",
}

_SHORT: Mapping[ProfileKey, str] = {
    ProfileKey.HOUSEHOLD: "household",
    ProfileKey.SERVICE: "service",
    ProfileKey.SMALL_VINYL: "small vinyl",
    ProfileKey.RESIDENTIAL_STANDARD: "residential",
    ProfileKey.PUBLIC_CODE: "public code",
}


def other_profiles(
    measure: Measure, value: float, own: Band | None, traits: Traits, stabilizer_mg_l: float | None
) -> Finding | None:
    """One line for a lane: each differing verdict with the schools that give it; None where all agree."""
    here = verdict(measure, value, own).code
    said: dict[VerdictCode, list[str]] = {}
    for rows in PROFILES.values():
        code = verdict(measure, value, bands(rows, traits, stabilizer_mg_l).get(measure)).code
        if code is not here and code is not VerdictCode.NOT_MANAGED:
            said.setdefault(code, []).append(_SHORT[rows.key])
    if not said:
        return None
    parts = [f"{_WORDS[code]} by {_listed(names)}" for code, names in said.items()]
    return Finding("other_schools", "; ".join(parts), measure)


def _listed(names: list[str]) -> str:
    return " and ".join(part for part in (", ".join(names[:-1]), names[-1]) if part)
