import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { clarityText, WaterDrawing } from "./WaterDrawing";

it("says in words how far down one sees", () => {
  const { rerender } = render(<WaterDrawing clarity="clear" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe("Clear: the main drain is plain to see.");
  rerender(<WaterDrawing clarity="green" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(clarityText("green"));
});
