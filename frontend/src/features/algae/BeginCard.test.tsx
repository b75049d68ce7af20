import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { BeginCard } from "./BeginCard";

const seen = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true`);

it("asks how bad it is, says what closes, and begins", async () => {
  const on = { onSeverity: vi.fn(), onRatio: vi.fn(), onBegin: vi.fn() };
  const { user } = render(<BeginCard seen={seen} poolId={SALT.id} busy={false} {...on} />);
  expect(screen.getByText(seen.board.closed)).toBeTruthy();
  await user.click(screen.getByText(seen.severities[2]?.name ?? ""));
  await user.click(screen.getByText("To 10"));
  await user.click(screen.getByText("Begin the rescue"));
  expect(on.onSeverity).toHaveBeenCalledWith(seen.severities[2]?.severity);
  expect(on.onRatio).toHaveBeenCalledWith(false);
  expect(on.onBegin).toHaveBeenCalledOnce();
});
