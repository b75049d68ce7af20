import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Board } from "../api/types";
import { valueText } from "../lib/measures";
import { render, SALT } from "../testing/render";
import { recordedAt } from "../testing/server";
import { GaugeRow } from "./GaugeRow";

const { lanes } = recordedAt<Board>(`/pools/${SALT.id}/board`);
const lane = lanes.find(({ measure }) => measure === "ph");

it("says value, range and verdict in words, and opens the history", () => {
  if (!lane) throw new Error("no lane of pH");
  render(<GaugeRow lane={lane} history="/pools/p/log" />);
  expect(screen.getByText("pH").getAttribute("href")).toBe("/pools/p/log?measure=ph");
  expect(screen.getByRole("row").textContent).toContain(lane.verdict.text);
  expect(screen.getByRole("row").textContent).toContain(valueText("ph", lane.reading?.value ?? 0));
});

it("says that a value is old or too coarse to dose by", () => {
  if (!lane) throw new Error("no lane of pH");
  const { rerender } = render(<GaugeRow lane={{ ...lane, old: true, age_days: 40 }} />);
  expect(screen.getAllByText("40 days old: test again")[0]).toBeTruthy();
  rerender(<GaugeRow lane={{ ...lane, old: false, coarse: true }} />);
  expect(screen.getAllByText("too coarse to dose by")[0]).toBeTruthy();
});

it("shows a dash for what was not measured", () => {
  if (!lane) throw new Error("no lane of pH");
  render(<GaugeRow lane={{ ...lane, reading: null, planned: null, trail: [] }} />);
  expect(screen.getByText("–")).toBeTruthy();
});
