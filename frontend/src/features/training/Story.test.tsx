import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { TrainingGame } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { Story } from "./Story";

const game = recordedAt<TrainingGame>("POST /practice/play");

it("tells what was done and what it showed, newest first", () => {
  render(<Story game={game} units="us" />);
  expect(screen.getAllByText(game.lines[0]?.text ?? "none").length).toBeGreaterThan(0);
});

it("says what to begin with", () => {
  render(<Story game={{ ...game, lines: [] }} units="us" />);
  expect(screen.getByText("Nothing yet. Look, then test.")).toBeTruthy();
});
