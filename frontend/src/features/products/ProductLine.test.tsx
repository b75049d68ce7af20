import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { InventoryLine } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { ProductLine } from "./ProductLine";

const line = recordedAt<InventoryLine[]>("/shelf").find(({ chemical }) => chemical === "sodium_hypochlorite");

it("notes a purchase and a tested strength, as they are typed", async () => {
  if (!line) throw new Error("no liquid chlorine");
  const { user } = render(<ProductLine line={line} first currency="$" />);
  await user.type(screen.getByLabelText("Packages"), "2");
  await user.type(screen.getByLabelText("Paid in all, $"), "1,204.50");
  const [buy, strength] = screen.getAllByText("Note it");
  if (buy) await user.click(buy);
  await waitFor(() => expect(sentTo("/purchases")).toMatchObject([{ packages: "2", price: "1,204.50" }]));
  await user.type(screen.getByLabelText("Tested strength, %"), "8,5");
  willRefuse("/strengths", "strength_percent: must be at most 100.", "strength_percent");
  if (strength) await user.click(strength);
  expect(await screen.findByText("strength_percent: must be at most 100.")).toBeTruthy();
  expect(sentTo("/strengths")).toMatchObject([{ strength_percent: "8,5" }]);
});

it("says that a product has aged", () => {
  if (!line) throw new Error("no liquid chlorine");
  render(
    <ProductLine
      line={{ ...line, strength_percent: 12.5, strength_now_percent: 9.7 }}
      first={false}
      currency="$"
    />,
  );
  expect(screen.getByText(/Now about 9\.7 % of 12\.5 %/)).toBeTruthy();
});
