import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { CausesCard } from "./CausesCard";

const seen = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true`);

it("says why it turned, what is sold for it, and what prevents it", () => {
  render(<CausesCard seen={seen} />);
  expect(screen.getByText(seen.causes[0]?.text ?? "none")).toBeTruthy();
  expect(screen.getByText(seen.boosters[0]?.name ?? "none")).toBeTruthy();
  expect(screen.getByText(seen.prevention[0] ?? "none")).toBeTruthy();
});

it("says so where the log shows no cause", () => {
  render(<CausesCard seen={{ ...seen, causes: [] }} />);
  expect(screen.getByText("The log shows no plain cause.")).toBeTruthy();
});
