import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { TrainingGame } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { Hands } from "./Hands";

const game = recordedAt<TrainingGame>("POST /practice/play");

it("does one thing after the other, and pours as it is typed", async () => {
  const move = vi.fn<(made: object) => Promise<string | null>>(async () => null);
  const { user } = render(<Hands game={game} busy={false} move={move} />);
  await user.click(screen.getByText("Everything"));
  await user.type(screen.getByLabelText("How much"), "1 gal");
  await user.click(screen.getByText("Pour it"));
  expect(move.mock.calls).toEqual([
    [{ kind: "full_test" }],
    [{ kind: "add", product_id: game.scenario.shelf[0]?.id, amount: "1 gal" }],
  ]);
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("How much").value).toBe(""));
});

it("says at the field what cannot be poured", async () => {
  const { user } = render(<Hands game={game} busy={false} move={async () => "That is more than a truck."} />);
  await user.type(screen.getByLabelText("How much"), "900 gal{Enter}");
  expect(await screen.findByText("That is more than a truck.")).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("How much").value).toBe("900 gal");
});
