"""Kinds of pool, each with what it usually is and how it is kept: the first question of the set-up.

A row reads like the handbook's line; all of it can be changed afterwards. Source: pool-presets.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import EquipmentSet, SettingsMade
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.ranges.disagreements import QUESTIONS, answer
from kumpan.core.ranges.profiles import ProfileKey, profile

SOURCE = "pool-presets"


@dataclass(frozen=True, kw_only=True)
class PoolPreset:
    """One kind of pool: its traits, the school it is kept by, what is chosen where practitioners differ,
    and whose
    intervals of care. `says` tells what follows from it; `warns` what to know first.
    """

    key: str
    name: Message
    traits: Traits
    profile: ProfileKey
    says: tuple[Message, ...]
    choices: Mapping[str, str] = field(default_factory=dict)
    care: Preset = Preset.OWNER
    warns: Message = NOTHING


_ROWS: tuple[PoolPreset, ...] = (
    PoolPreset(  # handbook 12
        key="plaster_salt", name=Message("In-ground plaster, salt cell"),
        traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND),
        profile=ProfileKey.HOUSEHOLD,
        says=(
            Message("Salt 2,700 to 3,400 ppm; the unit's own label comes first: some want 3,000 to 4,000."),
            Message("Alkalinity 60 to 80 and stabilizer 60 to 80, since a cell drives pH up."),
            Message("pH weekly, the scaling index watched, no calcium hypochlorite."),
        ),
    ),
    PoolPreset(  # handbook 12; the aim of stabilizer: the trade's 40 to 100
        key="vinyl_tablets", name=Message("In-ground vinyl, tablets then liquid"),
        traits=Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.SAND),
        profile=ProfileKey.HOUSEHOLD, choices={"stabiliser": "tablets"},
        says=(
            Message("Tablets bring stabilizer to its aim; then the plan "
                "itself changes to liquid and says so."),
            Message("Stabilizer 40 to 100, aim 75."),
        ),
    ),
    PoolPreset(  # handbook 12
        key="liquid_by_hand", name=Message("In-ground, liquid chlorine by hand"),
        traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.SAND),
        profile=ProfileKey.HOUSEHOLD,
        says=(Message("Liquid goes in daily or every second day, as the weekly page says."),),
    ),
    PoolPreset(  # handbook 12, 09
        key="above_ground", name=Message("Above-ground, hard sides"),
        traits=Traits(surface=Surface.VINYL, chlorination=Chlorination.GRANULES, filter=Filter.SAND),
        profile=ProfileKey.HOUSEHOLD,
        says=(
            Message("No main drain: the floor is vacuumed at its deepest point."),
            Message("Closing goes by its parts: return plug, seal or plate, hoses."),
        ),
    ),
    PoolPreset(  # handbook 12, 03
        key="soft_sided", name=Message("Small soft-sided pool"),
        traits=Traits(
            surface=Surface.VINYL, chlorination=Chlorination.GRANULES, filter=Filter.CARTRIDGE, covered=True
        ),
        profile=ProfileKey.SMALL_VINYL, care=Preset.SMALL,
        says=(
            Message("The ranges of small vinyl pools; calcium is neither tested nor due."),
            Message("Dichlor granules or 1 in tablets; each week a fraction of a bag of non-chlorine shock."),
            Message("Cartridge weekly, two rounds of tests a week, covered "
                "at night, a hose filter at filling."),
        ),
    ),
    PoolPreset(  # handbook 12
        key="indoor", name=Message("Indoor pool"),
        traits=Traits(
            surface=Surface.FIBERGLASS, chlorination=Chlorination.LIQUID, filter=Filter.SAND, indoor=True
        ),
        profile=ProfileKey.HOUSEHOLD,
        says=(
            Message("No stabilizer, so no dichlor and no tablets; air the room while dosing."),
            Message("No sun: a shock need not wait for dusk."),
        ),
    ),
    PoolPreset(  # handbook 12, 06
        key="mineral", name=Message("Mineral or ion unit"),
        traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.MINERAL, filter=Filter.CARTRIDGE),
        profile=ProfileKey.HOUSEHOLD,
        says=(
            Message("Its program: starter, a weekly oxidizer, enzymes; copper and phosphate are watched."),
            Message("Free chlorine stays in its full range unless you choose the supplement's 0.5 to 1."),
        ),
        warns=Message("Public codes allow no less chlorine for a supplement."),
    ),
    PoolPreset(  # handbook 12, 07
        key="late_opening", name=Message("Opened late, or green"),
        traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.LIQUID, filter=Filter.SAND),
        profile=ProfileKey.HOUSEHOLD, choices={"shock": "ratio"},
        says=(
            Message("Free chlorine 3 to 5 until the first swim; a green one goes to the rescue."),
            Message("A shock goes to 40 % of stabilizer: the same strength whatever it reads."),
        ),
    ),
)  # fmt: skip
PRESETS: Mapping[str, PoolPreset] = MappingProxyType({row.key: row for row in _ROWS})


def preset(key: str) -> PoolPreset:
    """The kind of pool with this key. Raises InvalidInput that lists the known ones."""
    if key not in PRESETS:
        raise InvalidInput(
            Message(
                '"{key}" is not a known kind of pool; use one of: {known}.',
                key=Verbatim(key),
                known=Verbatim(", ".join(PRESETS)),
            ),
            "preset",
        )
    return PRESETS[key]


def what_changes(found: PoolPreset, settings: SettingsMade, equipment: EquipmentSet) -> Iterator[Message]:
    """What taking this kind would change in a pool that is set up already; nothing where it is one."""
    now, then = equipment.traits, found.traits
    for name, before, after in (
        (Message("Surface"), now.surface, then.surface),
        (Message("Chlorine"), now.chlorination, then.chlorination),
        (Message("Filter"), now.filter, then.filter),
    ):
        if before != after:
            yield Message(
                "{name}: {before} becomes {after}", name=name, before=_word(before), after=_word(after)
            )
    if now.indoor != then.indoor:
        yield Message("It becomes an indoor pool") if then.indoor else Message("It becomes an outdoor pool")
    if now.covered != then.covered:
        yield Message("Covered at night") if then.covered else Message("No cover")
    if settings.profile != found.profile:
        yield Message(
            "Ranges: {before} becomes {after}",
            before=profile(settings.profile).name,
            after=profile(found.profile).name,
        )
    for question in QUESTIONS:
        own, other = answer(settings.choices, question.key), found.choices.get(question.key)
        if other is not None and own != other:
            labels = {option.key: option.label for option in question.answers}
            yield Message(
                "{title}: {before} becomes {after}",
                title=question.title,
                before=labels[own],
                after=labels[other],
            )


def _word(value: str) -> Message:
    return _WORDS[value]


_WORDS: Mapping[str, Message] = MappingProxyType({
    "plaster": Message("plaster"), "tile": Message("tile"), "vinyl": Message("vinyl"),
    "fibreglass": Message("fiberglass"), "painted": Message("painted"),
    "liquid": Message("liquid"), "granules": Message("granules"), "tablets": Message("tablets"),
    "salt_cell": Message("salt cell"), "mineral": Message("mineral unit"),
    "sand": Message("sand"), "cartridge": Message("cartridge"), "de": Message("DE"),
})  # fmt: skip
