import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Ask } from "../../api/types";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { AskField, type ProcedureTyped } from "./AskField";

const kept: ProcedureTyped[] = [];
function Form({ ask }: { ask: Ask }) {
  const kit = useKit<ProcedureTyped>({
    start: { id: "i", step: 0, values: {}, note: "" },
    send: async (typed) => kept.push(structuredClone(typed)),
  });
  return (
    <KitForm kit={kit}>
      <AskField ask={ask} />
      <button type="submit">Keep</button>
    </KitForm>
  );
}
const ask = {
  name: "pressure_before_kpa",
  label: "Pressure before",
  unit: "psi",
  choices: [],
} as unknown as Ask;

it("asks for a number with its unit, or for one of several", async () => {
  kept.length = 0;
  const { user, unmount } = render(<Form ask={ask} />);
  await user.type(screen.getByLabelText("Pressure before, psi"), "14{Enter}");
  unmount();
  const again = render(<Form ask={{ ...ask, name: "scale", label: "Scale", choices: ["none", "thick"] }} />);
  await again.user.click(screen.getByText("thick"));
  await again.user.click(screen.getByText("Keep"));
  expect(kept.map(({ values }) => values)).toEqual([{ pressure_before_kpa: "14" }, { scale: "thick" }]);
});
