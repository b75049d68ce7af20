import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { AcidHelper } from "./AcidHelper";

it("tells water first, then acid, for the container and the acid at hand", async () => {
  willAnswer("/acid-bath?container=2 qt&acid_percent=31.45&ratio=5", {
    water_ml: 1577,
    acid_ml: 315,
    strength_percent: 5.6,
  });
  const { user } = render(<AcidHelper units="us" />);
  await user.type(screen.getByLabelText("The container holds"), "2 qt{Enter}");
  const told = await screen.findByText(/of water, then/);
  expect(told.textContent).toMatch(/^First .* of water, then .* of acid: 5\.6 %\.$/);
});
