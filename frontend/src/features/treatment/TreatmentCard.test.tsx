import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Treatment } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { TreatmentCard } from "./TreatmentCard";

const offered = recordedAt<Treatment>(`/pools/${SALT.id}/sheet`);

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);

const common = { asked: {}, units: "us" as const, zone: "America/Chicago", poolId: SALT.id, busy: false };

it("offers the sheet and starts it", async () => {
  const onStart = vi.fn();
  const { user } = render(
    <TreatmentCard {...common} sheet={offered} onStart={onStart} onUndo={() => undefined} />,
  );
  expect(screen.getByText("Calendar file").getAttribute("href")).toContain(SALT.id);
  await user.click(screen.getByText("Start the plan"));
  expect(onStart).toHaveBeenCalledOnce();
});

it("puts the rest of a started sheet away", async () => {
  const onPutAway = vi.fn();
  const { user } = render(
    <TreatmentCard
      {...common}
      sheet={started}
      onStart={() => undefined}
      onUndo={() => undefined}
      onPutAway={onPutAway}
    />,
  );
  await user.click(screen.getByText("Put the rest away and reckon again"));
  expect(onPutAway).toHaveBeenCalledOnce();
});

it("says what is left, where nothing is to add", () => {
  const unmet = [
    { measure: "salt" as const, code: "dilution", reason: "Salt comes down only by replacing water." },
  ];
  render(
    <TreatmentCard
      {...common}
      sheet={{ ...offered, steps: [], unmet }}
      onStart={() => undefined}
      onUndo={() => undefined}
    />,
  );
  expect(screen.getByText("Nothing to add now.")).toBeTruthy();
  expect(screen.getByText("Salt comes down only by replacing water.")).toBeTruthy();
});
