import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { useMaintenance } from "../../api/care";
import type { DueItem, Maintenance } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { TaskRow } from "./TaskRow";

const item = recordedAt<Maintenance>(`/pools/${SALT.id}/care`).items.find(
  ({ days, station }) => days !== null && station === null,
);

function Row({ item }: { item: DueItem }) {
  return <TaskRow item={item} poolId={SALT.id} care={useMaintenance(SALT.id)} />;
}

async function opened() {
  if (!item) throw new Error("no task by days");
  const page = render(<Row item={item} />);
  await page.user.click(screen.getByLabelText(`More about: ${item.title}`));
  return page;
}

it("says why, and is done, put off or left out", async () => {
  const { user } = await opened();
  expect(screen.getByText(item?.why ?? "none")).toBeTruthy();
  await user.click(screen.getByText("Done already"));
  await waitFor(() => expect(sentTo("/care/done")).toMatchObject([{ task: item?.task }]));
  await user.click(screen.getByText("Not this time"));
  await user.type(screen.getByLabelText("Why not this time"), "rain");
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(sentTo("/care/put-off")).toMatchObject([{ until: null, reason: "rain" }]));
});

it("sends an interval as it is typed", async () => {
  const { user } = await opened();
  await user.click(screen.getByText("Own interval"));
  await user.type(screen.getByLabelText("Every so many days"), "2,5");
  willRefuse("/care/interval", "days: must be at most 400.");
  await user.click(screen.getByText("Keep"));
  expect(await screen.findByText("days: must be at most 400.")).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("Every so many days").value).toBe("2,5");
  expect(sentTo("/care/interval")).toMatchObject([{ days: "2,5", off: false }]);
});
