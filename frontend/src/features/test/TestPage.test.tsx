import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { LastValue } from "../../api/types";
import { readWaiting } from "../../api/waitingStore";
import { address, render, SALT } from "../../testing/render";
import { isDown, recordedAt, sentTo, willRefuse } from "../../testing/server";
import { TestPage } from "./TestPage";

const open = () => render(<TestPage />, { at: `/pools/${SALT.id}/test`, route: "/pools/:poolId/test" });

it("keeps what was looked at and tested, and goes on to the board", async () => {
  const { user } = open();
  await user.click(await screen.findByRole("button", { name: "Clear, level right" }));
  await user.type(screen.getByLabelText("pH"), "7,4");
  await user.click(screen.getByRole("button", { name: "Save the test" }));
  expect(await screen.findByText("Saved. It stands in the log.")).toBeTruthy();
  expect(sentTo("/tests")).toMatchObject([{ fields: { ph: "7,4" }, kit: "drops" }]); // as typed: the server reads it
  expect(sentTo("/looks")).toMatchObject([{ clarity: "clear", level: "normal" }]);
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}`));
});

it("says at its field what the server would not have, and keeps all that was typed", async () => {
  const { user } = open();
  await user.type(await screen.findByLabelText("pH"), "78");
  await user.type(screen.getByLabelText("Note"), "by the ladder");
  willRefuse("/tests", '"78" is outside 0 to 14; check the number.', "ph");
  await user.click(screen.getByRole("button", { name: "Save the test" }));
  const said = await screen.findByText('"78" is outside 0 to 14; check the number.'); // once, over the whole row
  expect(said.closest("[data-narrow]")).toBeNull();
  expect(screen.getByLabelText("pH").getAttribute("aria-invalid")).toBe("true");
  expect(screen.getByLabelText<HTMLInputElement>("pH").value).toBe("78");
  expect(screen.getByLabelText<HTMLInputElement>("Note").value).toBe("by the ladder");
});

it("takes what read last again, one field by the thumb or all the rest", async () => {
  const { user } = open();
  const last = recordedAt<Record<string, LastValue>>(`/pools/${SALT.id}/slip/last?temperature_unit=f`);
  const ph = last.ph?.text ?? "";
  await user.click(await screen.findByRole("button", { name: "pH: more" }));
  expect(screen.getByLabelText<HTMLInputElement>("pH").value).toBe(ph);
  await user.click(screen.getByRole("button", { name: "All the rest same as last" }));
  expect(screen.getByLabelText<HTMLInputElement>("Alkalinity").value).toBe(last.total_alkalinity?.text);
});

it("reads a whole line at Enter, and goes on to the save button", async () => {
  const { user } = open();
  await user.type(await screen.findByLabelText("Quick line, then Enter"), "fc 1 ph 7.5{Enter}");
  await waitFor(() => expect(document.activeElement?.textContent).toBe("Save the test"));
  expect(screen.getByLabelText<HTMLInputElement>("pH").value).toBe("7.5");
});

it("keeps it on the device where the server does not answer", async () => {
  const { user } = open();
  await user.type(await screen.findByLabelText("pH"), "7.5");
  isDown();
  await user.click(screen.getByRole("button", { name: "Save the test" }));
  expect(await screen.findByText("Kept on this device; it is sent when the server answers.")).toBeTruthy();
  expect(JSON.stringify(await readWaiting())).toContain('"ph":"7.5"');
});
