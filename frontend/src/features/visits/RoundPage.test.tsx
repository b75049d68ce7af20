import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Person, Round } from "../../api/types";
import { driverStore } from "../../lib/round";
import { address, render } from "../../testing/render";
import { recordedAt, sentTo, willAnswer } from "../../testing/server";
import { RoundPage } from "./RoundPage";

const people = recordedAt<Person[]>("/people");
const driver =
  people.find(({ id }) => recordedAt<Round>(`/round?person_id=${id}`).stops.length > 0) ?? people[0];
const round = recordedAt<Round>(`/round?person_id=${driver?.id}`);

const DONE = {
  entry_id: "11111111-1111-4111-8111-111111111111",
  at: "2026-07-03T15:00:00Z",
  person_id: null,
  note: "",
  needs_return: false,
  trade: "",
};

it("asks whose round it is", async () => {
  const { user } = render(<RoundPage />);
  await user.click(await screen.findByText(driver?.name ?? "none"));
  expect(driverStore.get()).toBe(driver?.id);
});

it("lists the stops in order, adds another pool, and starts", async () => {
  driverStore.set(driver?.id ?? "");
  const { user } = render(<RoundPage />);
  const [other] = round.others;
  await user.click(await screen.findByLabelText(`Add ${other?.head.settings.name} to this round`));
  const ids = round.stops.map(({ head }) => head.id);
  await waitFor(() => expect(sentTo("/rounds")).toMatchObject([{ stops: [...ids, other?.head.id] }]));
  const [start] = screen.queryAllByText("Start here");
  if (start) {
    await user.click(start);
    expect(address()).toMatch(/\/test$/);
  } else expect(round.stops).toHaveLength(0);
});

it("offers a shorter way only while there is a way left", async () => {
  driverStore.set(driver?.id ?? "");
  const shorter = { ...round, nearest_next: round.standing, length_km: 20, nearest_km: 10 };
  willAnswer(`/round?person_id=${driver?.id}`, shorter);
  const { unmount } = render(<RoundPage />);
  expect(await screen.findByText("Take that order")).toBeTruthy();
  unmount();
  const stops = round.stops.map((stop) => ({ ...stop, done: DONE }));
  willAnswer(`/round?person_id=${driver?.id}`, { ...shorter, stops });
  render(<RoundPage />);
  expect(await screen.findByText(/all done/)).toBeTruthy();
  expect(screen.queryByText("Take that order")).toBeNull();
});
