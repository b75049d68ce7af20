import { expect, it } from "vitest";
import type { Board } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt } from "../testing/server";
import { Track } from "./GaugeTrack";

const lane = recordedAt<Board>(`/pools/${SALT.id}/board`).lanes.find(({ measure }) => measure === "ph");

it("draws a float for the reading, and an arrow where it is off the edge", () => {
  if (!lane?.reading) throw new Error("no reading of pH");
  const { container, rerender } = render(<Track lane={lane} planned={null} />);
  expect(container.textContent).not.toContain("▶");
  const far = { ...lane.reading, at: { position: 2.6, off_edge: 1 } };
  rerender(<Track lane={{ ...lane, reading: far }} planned={null} />);
  expect(container.textContent).toContain("▶");
});
