import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { outbox } from "../../api/outbox";
import type { InventoryLine } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { LogEntryCard } from "./LogEntryCard";

const [product] = recordedAt<InventoryLine[]>("/shelf");

async function open() {
  const page = render(<LogEntryCard poolId={SALT.id} hasCell />);
  await page.user.click(screen.getByText("Add to the log"));
  return page;
}

it("tells what was poured, in the words that were typed", async () => {
  const { user } = await open();
  await screen.findByText(product?.label ?? "none");
  await user.selectOptions(screen.getByLabelText("Product"), product?.label ?? "");
  await user.type(screen.getByLabelText("How much"), "1 1/2 qt");
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findByText("Kept in the journal.")).toBeTruthy();
  expect(sentTo("/additions")).toMatchObject([{ product_id: product?.id, amount: "1 1/2 qt" }]);
});

it("what is sent again after a lost answer is the same pour; without a server it waits on the device", async () => {
  const { user } = await open();
  await screen.findByText(product?.label ?? "none");
  await user.selectOptions(screen.getByLabelText("Product"), product?.label ?? "");
  await user.type(screen.getByLabelText("How much"), "1 qt");
  willRefuse("/additions", "Something went wrong here.", null, 500);
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findByText("Something went wrong here.")).toBeTruthy();
  willRefuse("/additions", "The database is busy.", null, 503);
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findByText(/Kept on this device/)).toBeTruthy();
  const [first, again] = sentTo("/additions");
  expect(again?.id).toBe(first?.id);
  expect(outbox.get()).toMatchObject([{ what: "What was poured", body: { id: first?.id, amount: "1 qt" } }]);
});

it("asks for the product first", async () => {
  const { user } = await open();
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findAllByText("Choose what was poured.")).toHaveLength(1);
});

it("tells water, swimmers and the cell, and keeps what was refused", async () => {
  const { user } = await open();
  await user.click(screen.getByText("Swimmers"));
  await user.type(screen.getByLabelText("Hours each"), "2");
  willRefuse("/swimmers", "swimmers is required; write a number like 4 or 2.5.", "swimmers");
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findAllByText(/swimmers is required/)).toHaveLength(1);
  expect(screen.getByLabelText<HTMLInputElement>("Hours each").value).toBe("2");
  await user.click(screen.getByText("Cell set"));
  await user.type(screen.getByLabelText("Setting, %"), "60");
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findByText("Kept in the journal.")).toBeTruthy();
  expect(sentTo("/cell")).toMatchObject([{ percent: "60", output_unit: "lb/day" }]);
});

it("tells water that went, in gallons unless the unit is written", async () => {
  const { user } = await open();
  await user.click(screen.getByText("Water changed"));
  await user.type(screen.getByLabelText(/How much water/), "1,500");
  await user.click(screen.getByText("Keep it"));
  expect(await screen.findByText("Kept in the journal.")).toBeTruthy();
  expect(sentTo("/water-changes")).toMatchObject([{ kind: "backwash", volume: "1,500", volume_unit: "gal" }]);
});
