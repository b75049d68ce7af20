import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import fc from "fast-check";
import { expect, it } from "vitest";
import type { PoolHeaderData } from "../../api/types";
import { unitsStore } from "../../lib/units";
import { address, render, SALT } from "../../testing/render";
import { answering, heldBack, sent, sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { AllAtOncePage, ChangePoolPage } from "./SetupPage";

it("sets up a pool as it was typed, with ids that a resend keeps", async () => {
  const { user } = render(<AllAtOncePage />);
  await user.type(await screen.findByLabelText("Name"), "Ferry Lane");
  await user.click(screen.getByText("Set up this pool"));
  expect(await screen.findByText(/dimensions or its volume are still missing/)).toBeTruthy();
  await user.click(screen.getByText("The gallons I know"));
  await user.type(screen.getByLabelText("Volume, gallons unless you write the unit"), "12,000");
  willRefuse("/pools", "Give it another name.", "settings.name");
  await user.click(screen.getByText("Set up this pool"));
  expect((await screen.findAllByText("Give it another name.")).length).toBeGreaterThan(0);
  willReply("/pools", SALT);
  await user.click(screen.getByText("Set up this pool"));
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}/test`));
  const [first, again] = sentTo("/pools");
  expect(first).toMatchObject({
    settings: { name: "Ferry Lane" },
    basin: { volume: "12,000", volume_unit: "gal" },
  });
  expect(again?.id).toBe(first?.id);
});

type Part = PoolHeaderData["basin"]["parts"][number];

const metres = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** Any part that a journal may hold: each shape, slopes and profiles that begin or end anywhere. */
const parts: fc.Arbitrary<Part> = fc
  .record({
    shape: fc.constantFrom<Part["shape"]>("rectangle", "round", "ellipse", "stadium", "kidney"),
    length_m: metres(2, 30),
    width: metres(1, 15),
    second: metres(1, 15),
    depths: fc.array(metres(0.5, 4), { minLength: 2, maxLength: 5 }),
    from: fc.constantFrom(0, 0.5),
    name: fc.constantFrom("", "ledge"),
  })
  .map(({ shape, length_m, width, second, depths, from, name }) => ({
    shape,
    length_m,
    width_m: shape === "round" ? null : width,
    second_width_m: shape === "kidney" ? second : null,
    name,
    depth: depths.map((depth_m, index) => ({
      distance_m: from + ((length_m - from) * index) / (depths.length - 1),
      depth_m,
    })),
  }));

/** What the form sends of a part that nobody touched: every length to the last digit, in meters. */
const exactly = (part: Part) => ({
  shape: part.shape,
  name: part.name,
  length: `${part.length_m} m`,
  width: part.width_m === null ? "" : `${part.width_m} m`,
  second_width: part.second_width_m === null ? "" : `${part.second_width_m} m`,
});

it("a pool opened and kept unchanged is not told again; a moved skimmer moves nothing else", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(parts, { minLength: 1, maxLength: 2 }),
      metres(5_000, 200_000),
      fc.boolean(),
      fc.constantFrom<"us" | "metric">("us", "metric"),
      async (drawn, volume_l, volume_is_typed, units) => {
        cleanup();
        answering();
        unitsStore.set(units);
        const basin = { ...SALT.basin, parts: drawn, volume_l, volume_is_typed };
        willAnswer(`/pools/${SALT.id}`, { ...SALT, basin });
        render(<ChangePoolPage />, { at: `/pools/${SALT.id}/setup`, route: "/pools/:poolId/setup" });
        fireEvent.click(await screen.findByText("Change from now on"));
        await screen.findByText("Changed from now on. What was before stays in the log.");
        expect(sent.filter(({ path }) => !path.endsWith("/preview"))).toEqual([]);

        fireEvent.click(await screen.findByLabelText("Move skimmer on"));
        fireEvent.click(screen.getByText("Change from now on"));
        await waitFor(() => expect(sentTo("/basin")).toHaveLength(1));
        const told = sentTo("/basin")[0]?.basin as { parts: object[]; volume: string };
        expect(told.parts).toMatchObject(drawn.map(exactly));
        expect(told.volume).toBe(volume_is_typed ? `${volume_l} l` : "");
        expect(told.parts.map((part) => ("depths" in part ? part.depths : null))).toEqual(
          drawn.map(({ depth }) =>
            depth.map(({ distance_m, depth_m }) => ({
              distance: distance_m === 0 && depth.length === 2 ? "0" : `${distance_m} m`,
              depth: `${depth_m} m`,
            })),
          ),
        );
      },
    ),
    { numRuns: 6, seed: 20261128 },
  );
}, 120_000);

it("shows who else reads the pool only below its form, not in its place", async () => {
  const go = heldBack("/choices");
  render(<ChangePoolPage />, { at: `/pools/${SALT.id}/setup`, route: "/pools/:poolId/setup" });
  await screen.findAllByText(SALT.settings.name);
  expect(screen.queryByText("Guests")).toBeNull();
  go();
  expect(await screen.findByLabelText("Name")).toBeTruthy();
  expect(await screen.findByText("Guests")).toBeTruthy();
});
