import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { Trouble } from "../../api/client";
import { useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { sentTo } from "../../testing/server";
import { emptyForm, type PoolForm } from "./form";
import { PoolFormView } from "./PoolFormView";

function Form() {
  const kit = useKit<PoolForm>({
    start: emptyForm(),
    send: async () => {
      throw new Trouble("Write a latitude between -90 and 90.", "settings.latitude_deg", 422);
    },
  });
  return <PoolFormView kit={kit} units="us" action="Set up this pool" />;
}

it("reckons the volume from what is typed, and says what the server refused at its field", async () => {
  const { user } = render(<Form />);
  async function enter(label: string, text: string) {
    await user.type(await screen.findByLabelText(label), text);
  }
  await enter("Length, ft", "32");
  await enter("Width, ft", "16");
  await enter("Shallow end, ft", "3");
  expect(await screen.findByText(/gal$/, { selector: "[data-testid=volume]" })).toBeTruthy();
  expect(sentTo("/basins/preview").at(-1)).toMatchObject({ parts: [{ length: "32", width: "16" }] });
  await enter("Latitude, for the sun", "200");
  await user.click(screen.getByText("Set up this pool"));
  expect((await screen.findAllByText("Write a latitude between -90 and 90.")).length).toBeGreaterThan(0);
  expect(screen.getByLabelText("Latitude, for the sun").getAttribute("aria-invalid")).toBe("true");
});

it("refuses what is out of scope, with the reason", async () => {
  const { user } = render(<Form />);
  await user.click(await screen.findByText("Bromine"));
  expect(screen.getByRole("alert").textContent).toContain("Bromine pools are out of scope");
  expect(screen.getByText<HTMLButtonElement>("Set up this pool").disabled).toBe(true);
});

it("says who decides at a public pool", async () => {
  const { user } = render(<Form />);
  await user.click(await screen.findByText("The public"));
  expect(screen.getByText(/usually needs a certified operator/)).toBeTruthy();
});

it("draws a field again by its own keys, and no other", async () => {
  const zones = vi.spyOn(Intl, "supportedValuesOf");
  const { user } = render(<Form />);
  await user.type(await screen.findByLabelText("Name"), "Weir Lane");
  await user.type(screen.getByLabelText("Length, ft"), "32");
  expect(zones).toHaveBeenCalledTimes(1); // four hundred of them, once
});
