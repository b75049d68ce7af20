import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Choices } from "../../api/types";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { emptyForm, type PoolForm } from "./form";
import { ShelfStep } from "./ShelfStep";

function Step() {
  const kit = useKit<PoolForm>({ start: emptyForm(), send: async () => {} });
  return (
    <KitForm kit={kit}>
      <ShelfStep chemicals={recordedAt<Choices>("/choices").chemicals} />
    </KitForm>
  );
}

it("says what is taken where nothing is tapped, and takes a tap back", async () => {
  const { user } = render(<Step />);
  expect(screen.getByText(/made with the usual shelf/)).toBeTruthy();
  await user.click(screen.getByText("Liquid chlorine"));
  expect(screen.getByText(/taken at its usual strength/)).toBeTruthy();
  await user.click(screen.getByText("Liquid chlorine"));
  expect(screen.getByText(/made with the usual shelf/)).toBeTruthy();
});
