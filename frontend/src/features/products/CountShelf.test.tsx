import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { InventoryLine } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willAnswer, willRefuse } from "../../testing/server";
import { CountShelf } from "./CountShelf";

const lines = recordedAt<InventoryLine[]>("/shelf").slice(0, 2);
const [first, second] = lines as [InventoryLine, InventoryLine];

it("notes only what was counted, together, and says what differs", async () => {
  willAnswer("/shelf/counts", [{ product_id: first.id, text: "12 oz less than by the books." }]);
  const { user } = render(<CountShelf lines={lines} done={vi.fn()} />);
  expect(screen.getByText("Note the count")).toHaveProperty("disabled", true);
  await user.type(screen.getByLabelText(`Left of ${first.label}`), "half a bag");
  await user.click(screen.getByText("Note the count"));
  expect(await screen.findByText("12 oz less than by the books.")).toBeTruthy();
  await waitFor(() => expect(sentTo("/shelf/counts")).toHaveLength(1));
  expect(sentTo("/shelf/counts")[0]).toMatchObject({ left: { [first.id]: "half a bag" } });
});

it("keeps what was typed where one amount cannot be read", async () => {
  willRefuse("/shelf/counts", "This is no amount.", second.id, 422);
  const { user } = render(<CountShelf lines={lines} done={vi.fn()} />);
  await user.type(screen.getByLabelText(`Left of ${second.label}`), "a few");
  await user.click(screen.getByText("Note the count"));
  expect(await screen.findByText("This is no amount.")).toBeTruthy();
  expect(screen.getByLabelText(`Left of ${second.label}`)).toHaveProperty("value", "a few");
});
