import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { InventoryLine } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { InventoryPage } from "./InventoryPage";

const shelf = recordedAt<InventoryLine[]>("/shelf");

it("lists what stands on the shelf, what is short, and what the year took", async () => {
  const [first] = shelf;
  willAnswer("/shelf/to-buy", [
    {
      product_id: first?.id ?? "",
      label: first?.label ?? "",
      packages_text: "1 × 128 fl oz",
      short_text: "32 fl oz",
      why: "for the sheets offered now",
      cost: 9,
    },
  ]);
  render(<InventoryPage />);
  for (const { label } of shelf) expect((await screen.findAllByText(label)).length).toBeGreaterThan(0);
  expect(await screen.findByText("1 × 128 fl oz")).toBeTruthy();
  expect(screen.getByText(/Poured in the last year/)).toBeTruthy();
});

it("says how sheets are reckoned while it is empty", async () => {
  willAnswer("/shelf", []);
  render(<InventoryPage />);
  expect(await screen.findByText(/Nothing on the shelf yet/)).toBeTruthy();
});
