import type { Readable } from "openapi-typescript-helpers";
import type { components } from "./schema";

// As the client hands them out (pairs become plain arrays).
type Schemas = Readable<components["schemas"]>;

export type Measure = Schemas["Measure"];
export type PoolHead = Schemas["PoolHead"];
export type Board = Schemas["Board"];
export type Working = Schemas["Working"];
export type Lane = Schemas["Lane"];
export type LaneFloat = Schemas["Float"];
export type Sheet = Schemas["Sheet"];
export type SheetStep = Schemas["SheetStep"];
export type Step = Schemas["Step"];
export type LogLine = Schemas["LogLine"];
export type SlipView = Schemas["SlipView"];
export type Finding = Schemas["Finding"];
export type Choices = Schemas["Choices"];
export type PlanDrawingData = Schemas["PlanDrawing"];
export type BasinTyped = Schemas["BasinTyped"];
export type PartTyped = Schemas["PartTyped"];
export type BasinView = Schemas["BasinView"];
export type FixtureIn = Schemas["FixtureIn"];
export type NewPoolIn = Schemas["NewPoolIn"];
export type SettingsIn = Schemas["SettingsIn"];
export type EquipmentIn = Schemas["EquipmentIn"];
export type ShelfLine = Schemas["ShelfLine"];
export type Person = Schemas["Person"];
export type LookIn = Schemas["LookIn"];
export type Outlook = Schemas["OutlookView"];
export type DayAhead = Schemas["DayAhead"];
export type History = Schemas["HistoryView"];
export type WaterChange = Schemas["WaterChange"];
export type ShockWay = Schemas["ShockWay"];
export type Opinion = Schemas["OpinionView"];
export type Incident = Schemas["Incident"];
