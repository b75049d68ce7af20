import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { SeasonList } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { heldBack, isDown, recordedAt, sentTo, willAnswer } from "../../testing/server";
import { SeasonLists } from "./SeasonLists";

const [list] = recordedAt<SeasonList[]>(`/pools/${SALT.id}/season-lists#kept`);

it("plans a closing for a pool as it stands, and keeps the list", async () => {
  const { user } = render(<SeasonLists poolId={SALT.id} zone="America/Chicago" />);
  await user.click(await screen.findByText("Closing"));
  await user.click(await screen.findByText("Keep this list"));
  await waitFor(() => expect(sentTo("/season-lists")).toHaveLength(1));
  expect(sentTo("/season-lists")[0]).toMatchObject({ which: "closing", dropped: false });
});

it("keeps no list for another pool than the one picked last", async () => {
  const { user } = render(<SeasonLists poolId={SALT.id} zone="America/Chicago" />);
  await user.click(await screen.findByText("Closing"));
  await screen.findByText("Keep this list");
  const late = heldBack("/season-plan");
  await user.click(screen.getByText("Above ground"));
  expect(screen.getByText("Keep this list")).toHaveProperty("disabled", true);
  late();
  await waitFor(() => expect(screen.getByText("Keep this list")).toHaveProperty("disabled", false));
});

it("takes the tick of the next item while the one before is on its way", async () => {
  willAnswer(`/pools/${SALT.id}/season-lists`, [list]);
  const { user } = render(<SeasonLists poolId={SALT.id} zone="America/Chicago" />);
  const [first, second] = list?.items.map(({ item }) => item) ?? [];
  const arrive = heldBack("/season-lists/ticks");
  await user.click(await screen.findByLabelText(`Done: ${first?.title}`));
  await user.click(screen.getByLabelText(`Done: ${first?.title}`));
  await user.click(screen.getByLabelText(`Done: ${second?.title}`));
  await waitFor(() =>
    expect(sentTo("/season-lists/ticks").map(({ item }) => item)).toEqual([first?.key, second?.key]),
  );
  arrive();
  await screen.findByText(`${second?.title}: done.`);
});

it("ticks an item, on the device where the server does not answer", async () => {
  willAnswer(`/pools/${SALT.id}/season-lists`, [list]);
  const { user } = render(<SeasonLists poolId={SALT.id} zone="America/Chicago" />);
  const item = list?.items[0]?.item;
  const done = await screen.findByLabelText(`Done: ${item?.title}`);
  isDown();
  await user.click(done);
  expect(await screen.findByText("Kept on this device; it is sent when the server answers.")).toBeTruthy();
});
