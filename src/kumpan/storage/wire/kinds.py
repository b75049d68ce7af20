"""Every kind of entry as it is stored: its name, its versions, the newest last."""

import json
from collections.abc import Mapping

from pydantic import ValidationError

from kumpan.core.journal import Body, NotUnderstood, kind_of
from kumpan.storage.wire.algae import RescueEndedV1, RescueSetV1
from kumpan.storage.wire.base import Stored, not_understood, reason_of
from kumpan.storage.wire.device import DeviceChangedV1, DeviceDayV1, DeviceLinkedV1
from kumpan.storage.wire.maintenance import (
    CareDoneV1,
    CareIntervalV1,
    CarePutOffV1,
    EventNotedV1,
    FeedOpenedV1,
    InterviewHeldV1,
    MachineSetV1,
    OwnTaskV1,
    PartReplacedV1,
    PlantSetV1,
    PressureReadV1,
)
from kumpan.storage.wire.pool import (
    AdditionV1,
    BasinMeasuredV1,
    CellSetV1,
    EquipmentSetV1,
    LookV1,
    PhotoTakenV1,
    SettingsV1,
    SwimmersCountedV1,
    TestV1,
    WaterChangedV1,
)
from kumpan.storage.wire.season import ClimateSetV1, ListTickedV1, ListTickedV2, SeasonListKeptV1
from kumpan.storage.wire.treatment import SheetStartedV1, SheetStartedV2, StepTickedV1
from kumpan.storage.wire.voided import VoidedV1
from kumpan.storage.wire.workspace import (
    HabitsSetV1,
    ProductBoughtV1,
    ProductCountedV1,
    ProductPlacedV1,
    RoundSetV1,
    StopMovedV1,
    StrengthTestedV1,
    TechnicianAwayV1,
    TruckCountedV1,
    VisitBegunV1,
    VisitDoneV1,
    WorkOnceV1,
)

STORED: Mapping[str, Stored] = {
    kind.name: kind
    for kind in (
        Stored("settings", (SettingsV1,)),
        Stored("basin", (BasinMeasuredV1,)),
        Stored("equipment", (EquipmentSetV1,)),
        Stored("test", (TestV1,)),
        Stored("look", (LookV1,)),
        Stored("addition", (AdditionV1,)),
        Stored("sheet", (SheetStartedV1, SheetStartedV2)),
        Stored("step", (StepTickedV1,)),
        Stored("purchase", (ProductBoughtV1,)),
        Stored("placed", (ProductPlacedV1,)),
        Stored("counted", (ProductCountedV1,)),
        Stored("water", (WaterChangedV1,)),
        Stored("cell", (CellSetV1,)),
        Stored("swimmers", (SwimmersCountedV1,)),
        Stored("strength", (StrengthTestedV1,)),
        Stored("habits", (HabitsSetV1,)),
        Stored("round", (RoundSetV1,)),
        Stored("away", (TechnicianAwayV1,)),
        Stored("once", (WorkOnceV1,)),
        Stored("stop_moved", (StopMovedV1,)),
        Stored("truck", (TruckCountedV1,)),
        Stored("visit_begun", (VisitBegunV1,)),
        Stored("visit", (VisitDoneV1,)),
        Stored("event", (EventNotedV1,)),
        Stored("pressure", (PressureReadV1,)),
        Stored("plant", (PlantSetV1,)),
        Stored("care", (CareDoneV1,)),
        Stored("put_off", (CarePutOffV1,)),
        Stored("interval", (CareIntervalV1,)),
        Stored("machine", (MachineSetV1,)),
        Stored("part", (PartReplacedV1,)),
        Stored("photo", (PhotoTakenV1,)),
        Stored("own_task", (OwnTaskV1,)),
        Stored("interview", (InterviewHeldV1,)),
        Stored("feed", (FeedOpenedV1,)),
        Stored("device", (DeviceLinkedV1,)),
        Stored("device_day", (DeviceDayV1,)),
        Stored("device_change", (DeviceChangedV1,)),
        Stored("rescue", (RescueSetV1,)),
        Stored("rescue_end", (RescueEndedV1,)),
        Stored("season_list", (SeasonListKeptV1,)),
        Stored("list_tick", (ListTickedV1, ListTickedV2)),
        Stored("climate", (ClimateSetV1,)),
        Stored("void", (VoidedV1,)),
    )
}


def read_body(kind: str, row: Mapping[str, object]) -> Body:
    """The body of a stored row; `NotUnderstood` for a kind, a field or a value that this version does not
    know.
    """
    known = STORED.get(kind)
    if known is None:
        return not_understood(kind, row, "this version does not know this kind of entry")
    try:
        return known.read(row)
    except ValidationError as trouble:
        return not_understood(kind, row, reason_of(trouble))
    except LookupError as trouble:
        return not_understood(kind, row, str(trouble))


def write_body(body: Body) -> dict[str, object]:
    """The stored form of a body. What was not understood goes back as it came."""
    if isinstance(body, NotUnderstood):
        kept: dict[str, object] = json.loads(body.stored)
        return kept
    return STORED[kind_of(body)].write(body)
