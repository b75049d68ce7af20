import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Today } from "../api/types";
import { render, SALT } from "../testing/render";
import { heldBack, recordedAt, sentTo, willAnswer } from "../testing/server";
import { DueCard, lateText, whereOf } from "./DueCard";

const today = recordedAt<Today>(`/pools/${SALT.id}/today`);
const [first] = today.items;

it("lists what is due, each with how late it is", async () => {
  render(<DueCard poolId={SALT.id} />);
  expect(await screen.findByText(first?.title ?? "none")).toBeTruthy();
  if (first) expect(screen.getAllByText(lateText(first)).length).toBeGreaterThan(0);
});

it("takes a look in one tap", async () => {
  const { user } = render(<DueCard poolId={SALT.id} />);
  await user.click(await screen.findByText("Clear, level right"));
  expect(await screen.findByText("Looked: clear, level right.")).toBeTruthy();
  expect(sentTo("/looks")).toMatchObject([{ clarity: "clear", level: "normal" }]);
});

it("takes the next one done while the one before is on its way", async () => {
  if (!first) throw new Error("none is due");
  const items = ["brush", "baskets"].map((task) => ({ ...first, task, title: task, days: 7, station: null }));
  willAnswer(`/pools/${SALT.id}/today`, { ...today, items });
  const { user } = render(<DueCard poolId={SALT.id} />);
  const arrive = heldBack("/care/done");
  await user.click(await screen.findByLabelText("Done: brush"));
  await user.click(screen.getByLabelText("Done: baskets"));
  await waitFor(() => expect(sentTo("/care/done").map(({ task }) => task)).toEqual(["brush", "baskets"]));
  arrive();
  await screen.findByText("baskets: done.");
});

it("says when the next is, where nothing is due", async () => {
  willAnswer(`/pools/${SALT.id}/today`, { ...today, items: [], next_later: "2026-12-01" });
  render(<DueCard poolId={SALT.id} />);
  expect(await screen.findByText(/Nothing now; the next is on/)).toBeTruthy();
});

it("leads to where an item is done", () => {
  if (!first) throw new Error("none is due");
  expect(whereOf({ ...first, station: "slip" }, "p")).toBe("/pools/p/test");
  expect(whereOf({ ...first, station: "sheet", procedure: null }, "p")).toBe("/pools/p/plan");
  expect(whereOf({ ...first, station: "week", procedure: null }, "p")).toBe("/pools/p/week");
  expect(whereOf({ ...first, station: null, procedure: "backwash" }, "p")).toBe("/pools/p/care/do/backwash");
  expect(whereOf({ ...first, station: null, procedure: null }, "p")).toBeNull();
});

it("says how late in words", () => {
  if (!first) throw new Error("none is due");
  const plain = { ...first, put_off_until: null };
  expect(lateText({ ...plain, standing: "due" })).toBe("today");
  expect(lateText({ ...plain, standing: "overdue", late_days: 1 })).toBe("since yesterday");
  expect(lateText({ ...plain, standing: "overdue", late_days: 4 })).toBe("4 days late");
  expect(lateText({ ...plain, put_off_until: "2026-12-01" })).toMatch(/^put off to .*1/);
});
