import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { DayClosed } from "./DayClosed";

it("tells what was used, what each pool cost, and whose owner can be told", async () => {
  willAnswer("/round/closed?person_id=tomas", {
    currency: "$",
    used: [{ product_id: "l", label: "Liquid chlorine", amount: "3 gal" }],
    pools: [
      { pool_id: "a", name: "Millrace Close", cost: 4.5, ended: true },
      { pool_id: "b", name: "Swan Street 27", cost: null, ended: false },
    ],
    left_out: "What has no price is left out.",
  });
  render(<DayClosed person="tomas" units="us" />);
  expect(await screen.findByText("3 gal")).toBeTruthy();
  expect(screen.getByText("$4.50")).toBeTruthy();
  expect(screen.getByText("Report for the owner").getAttribute("href")).toBe("/pools/a/report");
  expect(screen.getByText("Not ended yet").getAttribute("href")).toBe("/pools/b/visit?kind=stop");
  expect(screen.getByText("no price")).toBeTruthy();
});

it("says nothing of a day that has not begun", async () => {
  willAnswer("/round/closed?person_id=tomas", {
    currency: "$",
    used: [],
    pools: [],
    left_out: null,
  });
  render(<DayClosed person="tomas" units="us" />);
  await screen.findByText("Loading the day", { exact: false }).catch(() => null);
  expect(screen.queryByText("The day")).toBeNull();
});
