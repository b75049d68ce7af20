import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { isDown, willAnswer } from "../../testing/server";
import { CostsPage } from "./CostsPage";

const line = (key: string, name: string, cost: number | null) => ({ key, name, used_text: "", cost });

it("shows what was spent by product, pool, month and round, and what has no price", async () => {
  const costs = {
    since: "2026-07-01T00:00:00Z",
    currency: "$",
    total: 41.5,
    products: [line("p", "Liquid chlorine", 41.5), line("q", "Soda ash", null)],
    pools: [line("a", "Mill Pond", 30), line("b", "", 11.5)],
    months: [line("2026-07", "2026-07", 41.5)],
    rounds: [line("x/2", "Ines Varga", 30)],
    gaps: ["Soda ash has no price: note what was paid with the next purchase."],
  };
  willAnswer("/costs?days=365", costs);
  willAnswer("/costs?days=30", { ...costs, total: 7, products: [], pools: [], months: [], rounds: [] });
  const { user } = render(<CostsPage />);
  expect((await screen.findAllByText("$41.50")).length).toBeGreaterThan(1);
  expect(screen.getByText("no price")).toBeTruthy();
  expect(screen.getByText(/Soda ash has no price/)).toBeTruthy();
  expect(screen.getByText("A pool that is no longer here")).toBeTruthy();
  expect(screen.getByText("July 2026")).toBeTruthy();
  expect(screen.getByText("Ines Varga, Wednesday")).toBeTruthy();
  await user.click(screen.getByText("30 days"));
  expect(await screen.findByText("$7.00")).toBeTruthy();
});

it("says that the costs cannot be shown", async () => {
  isDown();
  render(<CostsPage />);
  expect(await screen.findByRole("alert")).toBeTruthy();
});
