import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { sentTo, willRefuse } from "../../testing/server";
import { Lamps } from "./Lamps";

const lamps = [
  { key: "low_salt", name: "Low salt", lit: true, tree: "low_salt" },
  { key: "no_flow", name: "No flow", lit: false, tree: "check_cell" },
];

it("tells which lamps are lit, and which went dark", async () => {
  const { user } = render(<Lamps lamps={lamps} poolId={SALT.id} />);
  await user.click(screen.getByRole("button", { name: "No flow" }));
  await waitFor(() => expect(sentTo("/lamps")).toHaveLength(1));
  await user.click(screen.getByRole("button", { name: "Low salt: lit" }));
  await waitFor(() => expect(sentTo("/lamps")).toHaveLength(2));
  expect(sentTo("/lamps")).toMatchObject([{ lamps: ["low_salt", "no_flow"] }, { lamps: [] }]);
});

it("says why it was not noted", async () => {
  willRefuse("/lamps", "The pool is archived.", "lamps", 422);
  const { user } = render(<Lamps lamps={lamps} poolId={SALT.id} />);
  await user.click(screen.getByRole("button", { name: "No flow" }));
  expect(await screen.findByText("The pool is archived.")).toBeTruthy();
});
