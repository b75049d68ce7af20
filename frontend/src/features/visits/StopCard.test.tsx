import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Person, Round } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { StopCard } from "./StopCard";

const rounds = recordedAt<Person[]>("/people").map(({ id }) => recordedAt<Round>(`/round?person_id=${id}`));
const inside = {
  tests: [],
  care: [],
  doses: [],
  drift: [],
  next_visit: [],
  holds: null,
  done: null,
  about_at: null,
};
const stop = rounds.flatMap(({ stops, others }) => [
  ...stops,
  ...others.map((other) => ({ ...inside, ...other })),
])[0];

it("says what is due and what goes in; is started, moved and taken off", async () => {
  if (!stop) throw new Error("no stop");
  const on = { onStart: vi.fn(), onMove: vi.fn(), onRemove: vi.fn() };
  const name = stop.head.settings.name;
  const { user } = render(
    <StopCard
      stop={stop}
      number={2}
      units="us"
      isNext
      canMove={{ up: true, down: false }}
      busy={false}
      {...on}
    />,
  );
  expect(screen.getByRole("link", { name: "As one list" }).getAttribute("href")).toBe(
    `/pools/${stop.head.id}/visit?kind=stop`,
  );
  await user.click(screen.getByText("On to this stop"));
  await user.click(screen.getByLabelText(`${name} earlier`));
  await user.click(screen.getByLabelText(`${name} later`));
  await user.click(screen.getByLabelText(`Take ${name} off this round`));
  expect([on.onStart.mock.calls.length, on.onMove.mock.calls, on.onRemove.mock.calls.length]).toEqual([
    1,
    [[-1]],
    1,
  ]);
});

it("says when it was done, with the way to the report", () => {
  if (!stop) throw new Error("no stop");
  const on = { onStart: vi.fn(), onMove: vi.fn(), onRemove: vi.fn() };
  const done = {
    entry_id: "e",
    at: "2026-11-28T18:00:00Z",
    note: "all fine",
    needs_return: false,
    trade: "",
    person_id: null,
  };
  render(
    <StopCard
      stop={{ ...stop, done }}
      number={1}
      units="us"
      isNext={false}
      canMove={{ up: false, down: false }}
      busy={false}
      {...on}
    />,
  );
  expect(screen.getByText(/^Done at .*: all fine/)).toBeTruthy();
  expect(screen.getByText("Report for the owner").getAttribute("href")).toBe(`/pools/${stop.head.id}/report`);
});
