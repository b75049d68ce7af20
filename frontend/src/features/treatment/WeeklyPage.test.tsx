import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Weekly } from "../../api/weekly";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willAnswer } from "../../testing/server";
import { WeeklyPage } from "./WeeklyPage";

const at = { at: `/pools/${SALT.id}/week`, route: "/pools/:poolId/week" };
const week = recordedAt<Weekly>(`/pools/${SALT.id}/weekly`);

it("says the loss with its range, and what each product comes to in a month and half a year", async () => {
  willAnswer(`/pools/${SALT.id}/weekly`, week);
  render(<WeeklyPage />, at);
  expect(await screen.findByText(`${week.likely.toFixed(1)} ppm a day`)).toBeTruthy();
  const [first] = week.regimes;
  if (!first) throw new Error("no way");
  expect(screen.getByText(first.words)).toBeTruthy();
});

it("keeps apart what is not for this pool, with the reason", async () => {
  const [first, ...rest] = week.regimes;
  if (!first) throw new Error("no way");
  willAnswer(`/pools/${SALT.id}/weekly`, {
    ...week,
    regimes: [...rest, { ...first, name: "Odd", unsuited: "No." }],
  });
  render(<WeeklyPage />, at);
  expect(await screen.findByText("Odd: No.")).toBeTruthy();
});

it("puts a regime on the schedule and takes it off again", async () => {
  const [first] = week.regimes;
  if (!first) throw new Error("no way");
  willAnswer(`/pools/${SALT.id}/weekly`, { ...week, regimes: [{ ...first, on_schedule: false }] });
  const { user } = render(<WeeklyPage />, at);
  await user.click(await screen.findByText("Put it on the schedule"));
  expect(await screen.findByText(/On the schedule/)).toBeTruthy();
  expect(sentTo("/care/interval")).toMatchObject([{ task: first.task, days: first.every_days, off: false }]);
});

it("says that it can be taken off where it is on the schedule", async () => {
  const [first] = week.regimes;
  if (!first) throw new Error("no way");
  willAnswer(`/pools/${SALT.id}/weekly`, { ...week, regimes: [{ ...first, on_schedule: true }] });
  const { user } = render(<WeeklyPage />, at);
  await user.click(await screen.findByText("Take it off the schedule"));
  expect(sentTo("/care/interval")).toMatchObject([{ task: first.task, days: null, off: true }]);
});
