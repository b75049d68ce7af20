import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { emptyForm, type PoolForm } from "./form";
import { Size } from "./Size";

function Step({ units }: { units: "us" | "metric" }) {
  const kit = useKit<PoolForm>({ start: emptyForm(), send: async () => {} });
  return (
    <KitForm kit={kit}>
      <Size units={units} trouble={null} steps={["Test salt."]} />
    </KitForm>
  );
}

it("asks only what its way needs, in the reader's units", async () => {
  const { user } = render(<Step units="metric" />);
  expect(screen.getByLabelText("Length, m")).toBeTruthy();
  await user.click(screen.getByText("The liters I know"));
  expect(screen.getByLabelText("Volume, liters unless you write the unit")).toBeTruthy();
  await user.click(screen.getByText("A bag of salt"));
  expect(screen.getByLabelText("Salt added, kg")).toBeTruthy();
  expect(screen.queryByLabelText("Length, m")).toBeNull();
  await user.click(screen.getByText("Not known yet"));
  expect(screen.getByText(/for each 1000 L of water/)).toBeTruthy();
});
