import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { Trouble } from "../../api/client";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { Dimensions } from "./Dimensions";
import { emptyForm, type PoolForm } from "./form";

const kept: PoolForm[] = [];
function Form({ trouble = null }: { trouble?: Trouble | null }) {
  const kit = useKit<PoolForm>({
    start: emptyForm(),
    send: async (form) => kept.push(structuredClone(form)),
  });
  return (
    <KitForm kit={kit}>
      <Dimensions units="us" trouble={trouble} />
      <button type="submit">Keep</button>
    </KitForm>
  );
}

it("takes parts by shape, with a slope or a profile, and keeps the others when one goes", async () => {
  const { user } = render(<Form />);
  await user.type(screen.getByLabelText("Length, ft"), "32");
  await user.click(screen.getByText("Add a part (ledge, spa, hopper)"));
  const [, kidney] = screen.getAllByText("Kidney");
  if (kidney) await user.click(kidney);
  await user.type(screen.getByLabelText("Width of the other, ft"), "9");
  const [, profile] = screen.getAllByText("Depth profile");
  if (profile) await user.click(profile);
  await user.click(screen.getByText("Add a depth"));
  expect(screen.getAllByLabelText("Depth there, ft")).toHaveLength(4);
  await user.click(screen.getByText("Keep"));
  await waitFor(() => expect(kept).toHaveLength(1));
  expect(kept[0]?.parts).toMatchObject([
    { length: "32" },
    { shape: "kidney", secondWidth: "9", slope: "profile" },
  ]);
  await user.click(screen.getByText("Remove this part"));
  expect(screen.getByLabelText<HTMLInputElement>("Length, ft").value).toBe("32");
});

it("says at the dimension what cannot be read", () => {
  render(<Form trouble={new Trouble("Write a length, like 16 ft.", "parts.0.width", 422)} />);
  expect(screen.getByText("Write a length, like 16 ft.")).toBeTruthy();
});
