import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { KitForm, useKit } from "../../forms/kit";
import { render } from "../../testing/render";
import { sentTo, willRefuse, willReply } from "../../testing/server";
import { emptyForm, type PoolForm, typedBasin } from "./form";
import { SaltRise } from "./SaltRise";

function Step() {
  const kit = useKit<PoolForm>({ start: { ...emptyForm(), how: "salt" }, send: async () => {} });
  return (
    <KitForm kit={kit}>
      <SaltRise units="us" steps={["Test salt."]} />
      <output data-testid="holds">{JSON.stringify(typedBasin(kit.form.watch(), "us"))}</output>
    </KitForm>
  );
}

const basin = () => JSON.parse(screen.getByTestId("holds").textContent ?? "");

it("the volume is not known until the salt has told it; what is typed anew asks anew", async () => {
  const { user } = render(<Step />);
  expect(screen.getByText("Test salt.")).toBeTruthy();
  expect(basin()).toMatchObject({ volume_is_unknown: true, volume: "" });
  await user.type(screen.getByLabelText("Salt before, ppm"), "400");
  await user.type(screen.getByLabelText("Salt added, lb"), "40");
  await user.type(screen.getByLabelText("Salt a day after, ppm"), "420");
  willRefuse("/basins/from-salt", "Add another bag.", "after");
  await user.click(screen.getByText("Work out the volume"));
  expect(await screen.findByText("Add another bag.")).toBeTruthy();
  await user.clear(screen.getByLabelText("Salt a day after, ppm"));
  await user.type(screen.getByLabelText("Salt a day after, ppm"), "880");
  expect(screen.queryByText("Add another bag.")).toBeNull();
  willReply("/basins/from-salt", { volume_l: 37_800, uncertainty_share: 0.15, says: "Within 15 %." }, 200);
  await user.click(screen.getByText("Work out the volume"));
  expect(await screen.findByText("9,990 gal. Within 15 %.")).toBeTruthy();
  expect(sentTo("/basins/from-salt").at(-1)).toMatchObject({ before: "400", added: "40", after: "880" });
  expect(basin()).toMatchObject({ volume_is_unknown: false, volume: "37800 l", volume_uncertainty: 0.15 });
});
