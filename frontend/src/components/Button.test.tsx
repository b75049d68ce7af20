import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { MainButton, SideButton } from "./Button";

it("does what it says, once for each press", async () => {
  const main = vi.fn();
  const side = vi.fn();
  const { user } = render(
    <>
      <MainButton onClick={main}>Save</MainButton>
      <SideButton onClick={side} disabled>
        Back
      </SideButton>
    </>,
  );
  await user.click(screen.getByText("Save"));
  await user.click(screen.getByText("Back"));
  expect(main).toHaveBeenCalledOnce();
  expect(side).not.toHaveBeenCalled();
});

it("sends a form only where it is told to", () => {
  render(<SideButton>Other</SideButton>);
  expect(screen.getByRole("button").getAttribute("type")).toBe("button");
});
