import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { DayCard } from "./DayCard";

const one = {
  day: "2026-11-30",
  technician: "anna",
  stops: [{ pool: "a", minutes: 35, why: "away" as const, extra: [], entry: null, from_day: "2026-12-01" }],
  stop_min: 38,
  drive_min: 0,
  km: 0,
  too_long: false,
};

it("is only read by who does not plan", () => {
  const names = new Map([["a", "Millrace Close"]]);
  render(<DayCard one={one} who="Anna" names={names} people={new Map()} days={[one]} firm={null} />);
  expect(screen.getByText("35 min · in another’s place, from Tue, Dec 1")).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});
