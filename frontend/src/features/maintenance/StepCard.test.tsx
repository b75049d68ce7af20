import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Procedure } from "../../api/types";
import { KitForm, useKit } from "../../forms/kit";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import type { ProcedureTyped } from "./AskField";
import { StepCard } from "./StepCard";

const { steps } = recordedAt<Procedure>(`/pools/${SALT.id}/procedures/backwash`);
const cautioned = steps.find(({ cautions }) => cautions.length > 0);

function Card(props: Partial<Parameters<typeof StepCard>[0]>) {
  const kit = useKit<ProcedureTyped>({
    start: { id: "i", step: 0, values: {}, note: "" },
    send: async () => undefined,
  });
  if (!cautioned) throw new Error("no step with a caution");
  const on = { onTime: vi.fn(), onBack: null, onNext: vi.fn(), onToTheEnd: vi.fn(), extra: null };
  return (
    <KitForm kit={kit}>
      <StepCard step={cautioned} {...on} {...props} />
    </KitForm>
  );
}

it("says the caution before the step, and goes on in one tap", async () => {
  const onNext = vi.fn();
  const { user, container } = render(<Card onNext={onNext} />);
  const page = container.textContent ?? "";
  expect(page.indexOf(cautioned?.cautions[0] ?? "none")).toBeLessThan(page.indexOf(cautioned?.text ?? ""));
  await user.click(screen.getByText("Done, next"));
  expect(onNext).toHaveBeenCalledOnce();
});

it("counts a time and hands it on", () => {
  const timed = steps.find(({ timer_from_s, asks }) => timer_from_s !== null && asks.length > 0);
  if (!timed) throw new Error("no timed step");
  const onTime = vi.fn();
  render(<Card step={timed} onTime={onTime} />);
  fireEvent.click(screen.getByText("Start"));
  fireEvent.click(screen.getByText("Stop"));
  expect(onTime).toHaveBeenCalledWith(timed.asks[0]?.name, 0);
});
