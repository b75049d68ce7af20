"""What the other schools would say of a reading, where they differ from the one that the pool is kept by.

Sources: those of the schools.
"""

from collections.abc import Mapping

from kumpan.core.findings import Finding
from kumpan.core.messages import Message, joined, listed
from kumpan.core.pool.equipment import Traits
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import PROFILES, Band, ProfileKey, bands
from kumpan.core.ranges.verdicts import VerdictCode, verdict

_WORDS: Mapping[VerdictCode, Message] = {
    VerdictCode.GOOD: Message("in range"),
    VerdictCode.LOW: Message("low"),
    VerdictCode.HIGH: Message("high"),
    VerdictCode.NOT_MANAGED: Message("not managed"),
}

_SHORT: Mapping[ProfileKey, Message] = {
    ProfileKey.HOUSEHOLD: Message("household"),
    ProfileKey.SERVICE: Message("service"),
    ProfileKey.SMALL_VINYL: Message("small vinyl"),
    ProfileKey.RESIDENTIAL_STANDARD: Message("residential"),
    ProfileKey.PUBLIC_CODE: Message("public code"),
}


def other_profiles(
    measure: Measure, value: float, own: Band | None, traits: Traits, stabilizer_mg_l: float | None
) -> Finding | None:
    """One line for a lane: each differing verdict with the schools that give it; None where all agree."""
    here = verdict(measure, value, own).code
    said: dict[VerdictCode, list[Message]] = {}
    for rows in PROFILES.values():
        code = verdict(measure, value, bands(rows, traits, stabilizer_mg_l).get(measure)).code
        if code is not here and code is not VerdictCode.NOT_MANAGED:
            said.setdefault(code, []).append(_SHORT[rows.key])
    if not said:
        return None
    parts = [
        Message("{verdict} by {profiles}", verdict=_WORDS[code], profiles=listed(names))
        for code, names in said.items()
    ]
    return Finding("other_schools", Message("{views}", views=joined(parts, "; ")), measure)
