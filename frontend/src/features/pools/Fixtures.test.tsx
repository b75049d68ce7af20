import { fireEvent, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { Fixtures } from "./Fixtures";
import { emptyForm, type PoolForm } from "./form";

let form: PoolForm | null = null;
function Form() {
  const kit = useKit<PoolForm>({ start: emptyForm(), send: async () => undefined });
  form = kit.form.watch();
  return (
    <KitForm kit={kit}>
      <Fixtures />
    </KitForm>
  );
}

it("moves, adds and removes along the edge, and goes round it", async () => {
  const { user } = render(<Form />);
  await user.click(screen.getByLabelText("Move skimmer on"));
  expect(form?.fixtures[0]?.along).toBeCloseTo(0.92, 9);
  fireEvent.change(screen.getByLabelText("Place of the skimmer along the edge"), { target: { value: "0" } });
  await user.click(screen.getByLabelText("Move skimmer back"));
  expect(form?.fixtures[0]?.along).toBeCloseTo(0.98, 9);
  await user.click(screen.getByText("Add a return"));
  await user.click(screen.getByLabelText("Remove this skimmer"));
  expect(form?.fixtures.map(({ kind }) => kind)).toEqual(["return", "return", "drain", "return"]);
});
