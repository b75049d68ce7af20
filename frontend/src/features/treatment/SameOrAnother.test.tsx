import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Person, Treatment } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { SameOrAnother } from "./SameOrAnother";

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);
const pour = started.steps.find(({ step }) => step.kind === "add");

const [who] = recordedAt<Person[]>("/people");

it("says who ticked what and when, and asks which it was", async () => {
  if (!pour) throw new Error("nothing is poured");
  const ticked = {
    entry_id: "e",
    at: "2026-11-28T18:00:00Z",
    person_id: who?.id ?? null,
    outcome: "done" as const,
    mass_g: null,
    volume_ml: null,
    amount_text: "10 fl oz",
  };
  const [onSame, onAnother] = [vi.fn(), vi.fn()];
  const { user } = render(
    <SameOrAnother
      line={{ ...pour, ticked }}
      amount="5 fl oz"
      zone="America/Chicago"
      onSame={onSame}
      onAnother={onAnother}
    />,
  );
  expect(await screen.findByText(new RegExp(`was ticked at 12:00 PM by ${who?.name}`))).toBeTruthy();
  await user.click(screen.getByText("The same pour"));
  await user.click(screen.getByText("Another pour"));
  expect([onSame.mock.calls.length, onAnother.mock.calls.length]).toEqual([1, 1]);
});
