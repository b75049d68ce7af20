import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { TallyCard } from "./TallyCard";

const seen = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true`);

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

it("says what is still to come; once begun, also what it took", () => {
  const { rerender } = render(<TallyCard seen={seen} />);
  expect(screen.getByText("Chlorine to come")).toBeTruthy();
  expect(screen.queryByText("Chlorine so far")).toBeNull();
  rerender(<TallyCard seen={begun} />);
  expect(screen.getByText("Chlorine so far").parentElement?.textContent).toContain("ppm in 0 rounds");
  expect(screen.getByText(begun.board.watch[0]?.text ?? "none")).toBeTruthy();
});
