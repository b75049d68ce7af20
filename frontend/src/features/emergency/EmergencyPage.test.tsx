import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { isDown } from "../../testing/server";
import { EmergencyPage } from "./EmergencyPage";
import page from "./emergency.json";

it("needs no server, and calls the number kept on this device", async () => {
  isDown();
  const { user } = render(<EmergencyPage />);
  for (const { title } of page.emergencies) expect(screen.getByText(title)).toBeTruthy();
  await user.type(screen.getByLabelText(/Local emergency number/), "555 0100");
  expect(screen.getByText("Call 555 0100").getAttribute("href")).toBe("tel:5550100");
  expect(localStorage.getItem("kumpan.emergency-number")).toBe("555 0100");
});
