import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Procedure } from "../../api/types";
import { address, render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse, willReply } from "../../testing/server";
import { ProcedurePage } from "./ProcedurePage";

const procedure = recordedAt<Procedure>(`/pools/${SALT.id}/procedures/backwash`);
const where = { at: `/pools/${SALT.id}/care/do/backwash`, route: "/pools/:poolId/care/do/:key" };

it("goes step by step, and into the journal with what was read", async () => {
  const { user } = render(<ProcedurePage />, where);
  expect(await screen.findByText(`Step 1 of ${procedure.steps.length}`)).toBeTruthy();
  await user.click(screen.getByText("Done, next"));
  expect(screen.getByText(`Step 2 of ${procedure.steps.length}`)).toBeTruthy();
  await user.click(screen.getByText("To the end"));
  const field = screen.getByLabelText<HTMLInputElement>("Pressure before, psi");
  await user.type(field, "much");
  willRefuse("/finish", '"much" is not a number.', "pressure_before_kpa");
  await user.click(screen.getByText("Done, into the journal"));
  expect(await screen.findByText('"much" is not a number.')).toBeTruthy();
  await user.clear(field);
  await user.type(field, "20");
  willReply("/finish", { next_dates: ["Next in 4 weeks."], water_text: "200 gal went." });
  await user.click(screen.getByText("Done, into the journal"));
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}/care`));
  expect(sentTo("/finish")[1]).toMatchObject({ values: { pressure_before_kpa: "20" } });
  expect(await screen.findByText(/200 gal went\. Next in 4 weeks\./)).toBeTruthy();
});

it("keeps where one was on this device, and Enter goes on to the next step", async () => {
  const first = render(<ProcedurePage />, where);
  await first.user.click(await screen.findByText("Done, next"));
  first.unmount();
  render(<ProcedurePage />, where);
  expect(await screen.findByText(`Step 2 of ${procedure.steps.length}`)).toBeTruthy();
});
