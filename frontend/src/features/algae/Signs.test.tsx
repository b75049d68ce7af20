import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { Signs } from "./Signs";

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

it("says of each sign whether it is there, in a word", () => {
  const [first] = begun.board.criteria;
  if (!first) throw new Error("no sign");
  const board = {
    ...begun.board,
    criteria: [
      { ...first, key: "a", met: true },
      { ...first, key: "b", met: false },
      { ...first, key: "c", met: null },
    ],
  };
  render(<Signs board={board} zone="UTC" />);
  expect(screen.getByText("yes")).toBeTruthy();
  expect(screen.getByText("not yet")).toBeTruthy();
  expect(screen.getByText("not known")).toBeTruthy();
});

it("tells each night's loss", () => {
  const night = {
    evening_at: "2026-11-26T02:00:00Z",
    morning_at: "2026-11-26T14:00:00Z",
    evening_mg_l: 12,
    morning_mg_l: 9.5,
    lost_mg_l: 2.5,
    holds: false,
  };
  render(<Signs board={{ ...begun.board, nights: [night as never] }} zone="America/Chicago" />);
  expect(screen.getByLabelText("Nights").textContent).toContain("12");
});
