import { screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { HelpPage } from "./HelpPage";

it("is the guide by task, each page with its way to it", async () => {
  render(<HelpPage />, { at: "/help", route: "/help" });
  const guide = within(screen.getByLabelText("Guide"));
  expect(guide.getAllByRole("link").length).toBeGreaterThanOrEqual(8);
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Your first pool, and its first test");
  expect(guide.getByText("Pour by the plan").getAttribute("href")).toBe("/help/pour-by-the-plan");
});

it("opens the page that is named, with its picture", () => {
  render(<HelpPage />, { at: "/help/pour-by-the-plan", route: "/help/:page" });
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Pour by the plan");
  expect(screen.getByAltText("The plan at dusk")).toBeTruthy();
  expect(screen.getByText(/the label is right/)).toBeTruthy();
});
