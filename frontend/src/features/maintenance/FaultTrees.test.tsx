import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { FaultTrees } from "./FaultTrees";

const { cell } = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);
const trees = cell?.trees ?? [];
const first = recordedAt<{ ask: { text: string } }>("/interview?tree=low_salt").ask.text;
const title = trees.find(({ key }) => key === "low_salt")?.title ?? "";

it("opens an interview and closes it again", async () => {
  const { user } = render(<FaultTrees trees={trees} poolId={SALT.id} />);
  expect(screen.queryByText(first)).toBeNull();
  await user.click(screen.getByRole("button", { name: title }));
  expect(await screen.findByText(first)).toBeTruthy();
  await user.click(screen.getByRole("button", { name: title }));
  expect(screen.queryByText(first)).toBeNull();
});

it("begins with what a lamp says, and is closed by hand all the same", async () => {
  const { user } = render(<FaultTrees trees={trees} poolId={SALT.id} begin="low_salt" />);
  expect(await screen.findByText(first)).toBeTruthy();
  await user.click(screen.getByRole("button", { name: title }));
  expect(screen.queryByText(first)).toBeNull();
});
