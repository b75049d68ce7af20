import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { SeasonList } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ItemLine } from "./ItemLine";

const [list] = recordedAt<SeasonList[]>(`/pools/${SALT.id}/season-lists#kept`);

const line = list?.items.find(({ ticked }) => ticked === null);
const common = { poolId: SALT.id, zone: "America/Chicago", day: "2026-11-28", busy: false };

it("says what is to do, and is ticked or left out", async () => {
  if (!line) throw new Error("no item");
  const onTick = vi.fn();
  const { user } = render(<ItemLine line={line} {...common} onTick={onTick} />);
  await user.click(screen.getByLabelText(`Done: ${line.item.title}`));
  await user.click(screen.getByLabelText(`Not here: ${line.item.title}`));
  expect(onTick.mock.calls).toEqual([["done"], ["skipped"]]);
});

it("says when it was done, and until when the pump runs; and takes it back", async () => {
  if (!line) throw new Error("no item");
  const ticked = {
    entry_id: "e",
    at: "2026-11-28T18:00:00Z",
    person_id: null,
    outcome: "done" as const,
    note: "",
  };
  const onUndo = vi.fn();
  const done = { ...line, ticked, circulate_until: "2026-11-28T22:00:00Z" };
  const { user } = render(<ItemLine line={done} {...common} onTick={() => undefined} onUndo={onUndo} />);
  expect(screen.getByText(/Pump on until 4:00 PM/)).toBeTruthy();
  await user.click(screen.getByLabelText(`Take the tick back: ${line.item.title}`));
  expect(onUndo).toHaveBeenCalledWith("e");
});

it("is taken off while the list is changed", async () => {
  if (!line) throw new Error("no item");
  const onLeaveOut = vi.fn();
  const { user } = render(<ItemLine line={line} {...common} onLeaveOut={onLeaveOut} />);
  await user.click(screen.getByText("Take off"));
  expect(onLeaveOut).toHaveBeenCalledOnce();
});

it("leads what is dosed by its label to that product's own sheet", () => {
  if (!line) throw new Error("no item");
  const dose = { product_id: "poly", label: "Winter Blue", amount: "32 fl oz", parts: 1, short: null };
  const item = { ...line.item, station: "label" };
  render(<ItemLine line={{ ...line, item, doses: { lines: [dose], left: [] } }} {...common} />);
  expect(screen.getByText("To its dose by the label").getAttribute("href")).toBe(
    `/pools/${SALT.id}/plan?plan=label_dose&use=poly`,
  );
});
