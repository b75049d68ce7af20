import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ClearBand } from "./ClearBand";
import { spanText } from "./spans";

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

it("says when it will be clear, as told at first and now", () => {
  render(<ClearBand board={begun.board} zone="America/Chicago" />);
  expect(screen.getByRole("heading").textContent).toBe(`Clear ${spanText(begun.board.clear)}`);
  expect(screen.getByText("As of now")).toBeTruthy();
});
