import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Treatment } from "../../api/types";
import { readWaiting } from "../../api/waitingStore";
import { render, SALT } from "../../testing/render";
import { isDown, recordedAt, sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { TreatmentPage } from "./TreatmentPage";

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);

const path = `/pools/${SALT.id}/sheet`;
const where = { at: `/pools/${SALT.id}/plan`, route: "/pools/:poolId/plan" };

it("starts the sheet that is offered", async () => {
  const { user } = render(<TreatmentPage />, where);
  const start = await screen.findByText("Start the plan");
  willReply("/sheets", started);
  willAnswer(path, started);
  await user.click(start);
  expect(await screen.findByLabelText("Step now")).toBeTruthy();
  expect(sentTo("/sheets")).toMatchObject([{ asked: { plan: "balance" } }]);
});

it("ticks a step, and keeps the tick on the device without a server", async () => {
  willAnswer(path, started);
  const { user } = render(<TreatmentPage />, where);
  const now = await screen.findByLabelText("Step now");
  isDown();
  const button = [...now.querySelectorAll("button")].find(({ textContent }) => textContent === "Done");
  if (button) await user.click(button);
  expect(await screen.findByText(/^Noted: /)).toBeTruthy();
  expect(JSON.stringify(await readWaiting())).toContain("/sheets/{sheet_id}/ticks");
});

it("asks whether it was the same pour, where somebody else ticked first", async () => {
  const ticked = {
    entry_id: "e",
    at: "2026-11-28T18:00:00Z",
    person_id: null,
    outcome: "done" as const,
    mass_g: null,
    volume_ml: null,
    amount_text: null,
  };
  const first = started.steps.find(({ step }) => step.kind !== "wait");
  willAnswer(path, started);
  const { user } = render(<TreatmentPage />, where);
  const now = await screen.findByLabelText("Step now");
  willRefuse("/ticks", "This step was already ticked.", "step_number", 409);
  willAnswer(path, {
    ...started,
    steps: started.steps.map((line) => (line.number === first?.number ? { ...line, ticked } : line)),
  });
  const button = [...now.querySelectorAll("button")].find(({ textContent }) => textContent === "Done");
  if (button) await user.click(button);
  await user.click(await screen.findByText("The same pour"));
  await waitFor(() => expect(screen.queryByText("The same pour")).toBeNull());
});
