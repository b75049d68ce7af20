import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Strategies } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { StrategiesCard } from "./StrategiesCard";

const found = recordedAt<Strategies>(`/pools/${SALT.id}/ways`);
const chosen = { way: "usual" as const, use: null };

it("sets the ways side by side when asked, and takes another", async () => {
  const onChoose = vi.fn();
  const { user } = render(<StrategiesCard poolId={SALT.id} units="us" chosen={chosen} onChoose={onChoose} />);
  await user.click(screen.getByText("Compare the ways"));
  const table = await screen.findByLabelText("The ways side by side");
  for (const { why } of found.not_offered) expect(screen.getByText(new RegExp(why))).toBeTruthy();
  for (const way of found.ways) expect(table.textContent).toContain(way.name);
  const other = found.ways.find(({ way, use }) => way !== "usual" || use !== null);
  await user.click(screen.getByLabelText(`Take this way: ${other?.name}`));
  expect(onChoose).toHaveBeenCalledWith({ way: other?.way, use: other?.use });
});

it("says that there is nothing to compare", async () => {
  willAnswer(`/pools/${SALT.id}/ways`, { ...found, ways: [] });
  const { user } = render(
    <StrategiesCard poolId={SALT.id} units="us" chosen={chosen} onChoose={() => undefined} />,
  );
  await user.click(screen.getByText("Compare the ways"));
  expect(await screen.findByText(/nothing to compare/)).toBeTruthy();
});
