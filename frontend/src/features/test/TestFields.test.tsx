import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Choices } from "../../api/types";
import { KitForm, useKit } from "../../forms/kit";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { TestFields } from "./TestFields";
import { emptyDraft, type TestDraft } from "./useTestForm";

function Form({ problems = [] }: { problems?: Parameters<typeof TestFields>[0]["problems"] }) {
  const kit = useKit<TestDraft>({ start: emptyDraft({ salt: "3000" }), send: async () => undefined });
  return (
    <KitForm kit={kit}>
      <TestFields
        order={["free_chlorine", "temperature_c"]}
        choices={recordedAt<Choices>("/choices")}
        last={recordedAt(`/pools/${SALT.id}/slip/last?temperature_unit=f`)}
        zone="America/Chicago"
        units="us"
        problems={problems}
        doubts={[{ text: "Much more than before: test again.", measure: "free_chlorine" }]}
      />
    </KitForm>
  );
}

it("stands in the kit's order, with what else was typed, and Enter goes on to the next", async () => {
  const { user } = render(<Form />);
  const labels = screen.getAllByRole("textbox").map((field) => field.getAttribute("name"));
  expect(labels).toEqual(["free_chlorine", "temperature_c", "salt"]);
  await user.type(screen.getByLabelText("Free chlorine"), "2{Enter}");
  expect(document.activeElement?.getAttribute("name")).toBe("temperature_c");
  expect(screen.getByText("Much more than before: test again.")).toBeTruthy();
});

it("says at its field what cannot be read", () => {
  render(<Form problems={[{ text: "Type a number.", measure: "temperature_c" }]} />);
  expect(screen.getByText("Type a number.")).toBeTruthy();
});
