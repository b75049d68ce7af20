import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { SeasonList } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ListCard } from "./ListCard";

const [list] = recordedAt<SeasonList[]>(`/pools/${SALT.id}/season-lists#kept`);

function show() {
  if (!list) throw new Error("no list");
  const work = {
    keep: vi.fn(async () => true),
    tick: vi.fn(async () => true),
    undo: vi.fn(async () => true),
  };
  return {
    work,
    ...render(<ListCard list={list} poolId={SALT.id} zone="America/Chicago" goes={() => false} {...work} />),
  };
}

it("ticks what is at hand, and folds away", async () => {
  const { user, work } = show();
  const [material] = list?.materials ?? [];
  await user.click(screen.getByText(material?.name ?? "none"));
  expect(work.tick).toHaveBeenCalledWith(
    list?.kept.list_id,
    { key: material?.key, title: material?.name },
    "done",
  );
  await user.click(screen.getByText("Fold"));
  expect(screen.queryByText(material?.name ?? "none")).toBeNull();
});

it("moves to another day, takes an item of one's own, and is dropped", async () => {
  const { user, work } = show();
  await user.click(screen.getByText("Change the list"));
  await user.type(screen.getByLabelText("An item of your own"), "Lock the gate");
  await user.click(screen.getByText("Add it"));
  expect(work.keep.mock.calls[0]).toMatchObject([
    { own: [{ title: "Lock the gate", day: 0 }] },
    "Lock the gate: on the list.",
  ]);
  await user.clear(screen.getByLabelText("The day itself"));
  await user.type(screen.getByLabelText("The day itself"), "2026-12-05");
  await user.click(screen.getByText("Move the list"));
  expect(work.keep.mock.calls[1]).toMatchObject([{ day: "2026-12-05" }, "Moved; every item moves along."]);
  await user.click(screen.getByText("Drop this list"));
  expect(work.keep.mock.calls[2]).toMatchObject([{ dropped: true }, "The list is dropped."]);
});
