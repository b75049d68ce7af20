import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { fieldsOf, KitForm, useKit } from "../forms/kit";
import { render } from "../testing/render";
import { NewPassword } from "./NewPassword";

const { Field } = fieldsOf<{ secret: string }>();

function Asked() {
  const kit = useKit<{ secret: string }>({ start: { secret: "" }, send: async () => undefined });
  return (
    <KitForm kit={kit}>
      <NewPassword Field={Field} name="secret" label="New password" />
    </KitForm>
  );
}

it("says the rule before it is broken, and hides what is typed", () => {
  render(<Asked />);
  const field = screen.getByLabelText("New password");
  expect(field.getAttribute("type")).toBe("password");
  expect(field.getAttribute("autocomplete")).toBe("new-password");
  expect(screen.getByText(/15 characters or more/)).toBeTruthy();
});
