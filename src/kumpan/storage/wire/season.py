"""Opening, closing, climate. As stored; see `base`."""

from datetime import date
from typing import Self
from uuid import UUID

from kumpan.core.journal.season_entries import ClimateSet, ListItemDone, OwnItem, SeasonListSaved
from kumpan.storage.wire.base import Wire
from kumpan.storage.wire.words import CoverWord, OutcomeWord, PoolKindWord, WhichWord, WinterWord


class OwnItemV1(Wire):
    core = OwnItem

    key: str
    day: int
    title: str
    text: str = ""


class SeasonListKeptV1(Wire):
    core = SeasonListSaved

    list_id: UUID
    which: WhichWord
    day: date
    kind: PoolKindWord = "in_ground"
    cover: CoverWord = "solid"
    winter: WinterWord = "frost"
    skimmer_plate: bool = False
    left_out: tuple[str, ...] = ()
    own: tuple[OwnItemV1, ...] = ()
    dropped: bool = False


class ListTickedV1(Wire):
    core = ListItemDone

    list_id: UUID
    item: str
    outcome: OutcomeWord
    note: str = ""


# Things to have at hand were ticked by their names; these were spelled otherwise.
_RESPELLED = {"have/stabiliser": "have/stabilizer"}


class ListTickedV2(ListTickedV1):
    @classmethod
    def upcast(cls, older: ListTickedV1) -> Self:
        """Names of things in today's spelling."""
        return cls.model_validate({**older.model_dump(), "item": _RESPELLED.get(older.item, older.item)})


class ClimateSetV1(Wire):
    core = ClimateSet

    monthly_c: tuple[float, ...]
