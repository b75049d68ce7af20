import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { StageList } from "./StageList";

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

it("lists the stages, and what the one means that is on now", () => {
  render(<StageList board={begun.board} />);
  const now = begun.board.stages.find(({ standing }) => standing === "now");
  expect(screen.getAllByRole("listitem")).toHaveLength(begun.board.stages.length);
  expect(screen.getByText(now?.text ?? "none")).toBeTruthy();
});
