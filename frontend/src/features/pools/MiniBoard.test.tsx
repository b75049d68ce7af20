import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { LaneMark } from "../../api/types";
import { render } from "../../testing/render";
import { MiniBoard } from "./MiniBoard";

const mark = (measure: LaneMark["measure"], position: number | null, code: string): LaneMark => ({
  measure,
  at: position === null ? null : { position, off_edge: 0 },
  code,
});

it("says in words what has drifted", () => {
  render(<MiniBoard marks={[mark("ph", 1.4, "high"), mark("free_chlorine", 0.5, "good")]} labels />);
  expect(screen.getByLabelText("pH high")).toBeTruthy();
  expect(screen.getByText("CYA")).toBeTruthy();
});

it("says that all is well, or that nothing is known", () => {
  const { rerender } = render(<MiniBoard marks={[mark("ph", 0.4, "good")]} />);
  expect(screen.getByLabelText("All between the ropes")).toBeTruthy();
  rerender(<MiniBoard marks={[mark("ph", null, "not_measured")]} />);
  expect(screen.getByLabelText("Not tested")).toBeTruthy();
});
