import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { Rung } from "./Rungs";

const onText = vi.fn();
const common = { label: "pH", ladder: ["7.4", "7.5", "7.6"], last: "7.5", onText };

it("begins at the last reading, and goes on from there", async () => {
  const { user, rerender } = render(<Rung {...common} text="" by={1} />);
  await user.click(screen.getByLabelText("pH: more"));
  expect(onText).toHaveBeenLastCalledWith("7.5");
  rerender(<Rung {...common} text="7.5" by={1} />);
  await user.click(screen.getByLabelText("pH: more"));
  expect(onText).toHaveBeenLastCalledWith("7.6");
  rerender(<Rung {...common} text="7.5" by={-1} />);
  await user.click(screen.getByLabelText("pH: less"));
  expect(onText).toHaveBeenLastCalledWith("7.4");
});

it("ends where the ladder ends, and leaves alone what was typed by hand", () => {
  const { rerender } = render(<Rung {...common} text="7.6" by={1} />);
  expect(screen.getByLabelText<HTMLButtonElement>("pH: more").disabled).toBe(true);
  rerender(<Rung {...common} text="15d" by={1} />);
  expect(screen.getByLabelText<HTMLButtonElement>("pH: more").disabled).toBe(true);
});
