import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { InventoryLine } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { PlaceForm } from "./PlaceForm";

const line = recordedAt<InventoryLine[]>("/shelf")[0] as InventoryLine;

it("says at which pool a product stands and until when it is good", async () => {
  const { user } = render(<PlaceForm line={line} />);
  await user.selectOptions(screen.getByLabelText("It stands"), "pool");
  await screen.findByRole("option", { name: SALT.settings.name });
  await user.selectOptions(screen.getByLabelText("Which pool"), SALT.id);
  await user.type(screen.getByLabelText("Date printed on it"), "2027-04-01");
  await user.click(screen.getByText("Save the place"));
  await waitFor(() => expect(sentTo("/shelf/places")).toHaveLength(1));
  expect(sentTo("/shelf/places")[0]).toMatchObject({
    product_id: line.id,
    place: "pool",
    pool_id: SALT.id,
    best_before: "2027-04-01",
  });
});

it("says on whose truck it rides", async () => {
  const [person] = recordedAt<{ id: string; name: string }[]>("/people");
  const { user } = render(<PlaceForm line={line} />);
  await user.selectOptions(screen.getByLabelText("It stands"), "truck");
  await screen.findByRole("option", { name: person?.name });
  await user.selectOptions(screen.getByLabelText("Whose truck"), person?.id ?? "");
  await user.click(screen.getByText("Save the place"));
  await waitFor(() => expect(sentTo("/shelf/places")).toHaveLength(1));
  expect(sentTo("/shelf/places")[0]).toMatchObject({
    place: "truck",
    pool_id: null,
    technician_id: person?.id,
  });
});

it("shows at the field what is missing", async () => {
  willRefuse("/shelf/places", "Say at which pool it stands.", "pool_id", 422);
  const { user } = render(<PlaceForm line={line} />);
  await user.selectOptions(screen.getByLabelText("It stands"), "pool");
  await user.click(screen.getByText("Save the place"));
  expect(await screen.findByText("Say at which pool it stands.")).toBeTruthy();
});
