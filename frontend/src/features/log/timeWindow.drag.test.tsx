import { fireEvent, render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { useTimeWindow } from "./timeWindow";

const DAY = 86_400_000;
const ALL = { from: 0, to: 100 * DAY };

function Chart() {
  const { span, pointers } = useTimeWindow(ALL, { from: 50 * DAY, to: 90 * DAY });
  return (
    <>
      <svg role="img" aria-label="Chart" {...pointers} />
      <output>{span.from / DAY}</output>
    </>
  );
}

it("follows a finger, and nothing that was let go outside", () => {
  render(<Chart />); // 800 px wide, 40 days: 20 px a day
  const chart = screen.getByRole("img");
  const begins = () => Number(screen.getByRole("status").textContent);
  // jsdom has no pointer events of its own; React reads them by name.
  const pointer = (type: string, clientX: number, buttons: number) =>
    fireEvent(
      chart,
      Object.assign(new MouseEvent(`pointer${type}`, { bubbles: true, clientX, buttons }), { pointerId: 1 }),
    );
  pointer("down", 400, 1);
  pointer("move", 600, 1);
  expect(begins()).toBeCloseTo(40);
  pointer("move", 200, 0);
  pointer("move", 100, 1);
  expect(begins()).toBeCloseTo(40);
});
