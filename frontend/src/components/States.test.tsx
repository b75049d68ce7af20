import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { Failed, Loading } from "./States";

it("says what is loading, and keeps its room", () => {
  render(<Loading what="the board" />);
  expect(screen.getByLabelText("Loading the board").getAttribute("role")).toBe("status");
});

it("says what went wrong, and tries again", async () => {
  const again = vi.fn();
  const { user } = render(<Failed error={new Error("The server does not answer.")} again={again} />);
  expect(screen.getByRole("alert").textContent).toContain("The server does not answer.");
  await user.click(screen.getByText("Try again"));
  expect(again).toHaveBeenCalledOnce();
});
