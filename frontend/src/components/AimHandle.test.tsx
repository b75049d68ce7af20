import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Board } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt } from "../testing/server";
import { AimHandle } from "./AimHandle";

const lane = recordedAt<Board>(`/pools/${SALT.id}/board`).lanes.find(({ measure }) => measure === "ph");

it("is moved by the arrow keys and by − and +", async () => {
  if (!lane) throw new Error("no lane of pH");
  const onStep = vi.fn();
  const aiming = { planned: null, active: false, onPlace: vi.fn(), onStep, onSettle: vi.fn() };
  const { user } = render(<AimHandle lane={lane} aiming={aiming} />);
  const handle = screen.getByRole("slider");
  expect(handle.getAttribute("aria-valuetext")).toMatch(/^7\.\d/);
  fireEvent.keyDown(handle, { key: "ArrowRight" });
  fireEvent.keyDown(handle, { key: "ArrowLeft" });
  fireEvent.focus(handle);
  await user.click(screen.getByLabelText("Aim higher for pH"));
  expect(onStep.mock.calls).toEqual([[1], [-1], [1]]);
});

it("is not there where nothing was measured or planned", () => {
  if (!lane) throw new Error("no lane of pH");
  const aiming = { planned: null, active: false, onPlace: vi.fn(), onStep: vi.fn(), onSettle: vi.fn() };
  render(<AimHandle lane={{ ...lane, reading: null, planned: null }} aiming={aiming} />);
  expect(screen.queryByRole("slider")).toBeNull();
});
