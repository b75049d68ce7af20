import { fireEvent, screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { MeasureHistory, Season } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { reach } from "./chartWords";
import { TimeChart } from "./TimeChart";

const histories = recordedAt<MeasureHistory[]>(`/pools/${SALT.id}/history`);
const { marks, now_at } = recordedAt<Season>(`/pools/${SALT.id}/season`);
const now = new Date(now_at).getTime();

function chart(shown = histories) {
  const first = { from: now - 103 * 86_400_000, to: reach(shown, marks, now).to };
  return render(<TimeChart histories={shown} marks={marks} zone="America/Chicago" now={now} first={first} />);
}

it("says in words what it shows, all measures on one axis", () => {
  chart();
  const drawn = screen.getByRole("img");
  for (const { measure, points } of histories)
    expect(drawn.getAttribute("aria-label")).toContain(
      `${measure === "ph" ? "pH" : "free chlorine"} over time: ${points.length} tests`,
    );
  expect(within(drawn).getByText("New water")).toBeTruthy();
});

it("is moved and zoomed by buttons and by keys, and stops at its ends", async () => {
  const { user, container } = chart();
  const dots = () => container.querySelectorAll("circle").length;
  const before = dots();
  await user.click(screen.getByText("Earlier"));
  expect(screen.getByText<HTMLButtonElement>("Later").disabled).toBe(false);
  await user.click(screen.getByText("Later"));
  expect(screen.getByText<HTMLButtonElement>("Later").disabled).toBe(true);
  fireEvent.keyDown(screen.getByRole("group"), { key: "-" });
  expect(dots()).toBeGreaterThan(before);
  const wide = dots();
  fireEvent.keyDown(screen.getByRole("group"), { key: "+" });
  expect(dots()).toBeLessThan(wide);
  for (let times = 0; times < 12; times += 1) await user.click(screen.getByLabelText("Zoom out"));
  expect(screen.getByLabelText<HTMLButtonElement>("Zoom out").disabled).toBe(true);
  expect(dots()).toBe(histories.flatMap(({ points }) => points).length);
});

it("tells what lies under the finger", () => {
  chart();
  fireEvent(screen.getByRole("img"), new MouseEvent("pointermove", { clientX: 300, bubbles: true }));
  expect(screen.getAllByRole("status").some((one) => /: /.test(one.textContent ?? ""))).toBe(true);
});

it("tells a temperature in the reader's degrees, and in no other unit", () => {
  const [first] = histories;
  if (!first) throw new Error("no history");
  const point = { at: now_at, value: 23.5, low: 23, high: 24 };
  const warmth: MeasureHistory = {
    ...first,
    measure: "temperature_c",
    low: null,
    high: null,
    ahead: [],
    points: [point],
  };
  chart([warmth]);
  const drawn = screen.getByRole("img");
  expect(drawn.getAttribute("aria-label")).toContain("temperature over time: 1 tests, last 74 °F");
  expect(within(drawn).getByText(/last 74 °F/)).toBeTruthy();
  expect(drawn.textContent).not.toContain("ppm");
});
