import fc from "fast-check";
import { expect, it } from "vitest";
import { moved, zoomed } from "./timeWindow";

const DAY = 86_400_000;
const spans = fc
  .record({ days: fc.integer({ min: 5, max: 2000 }), from: fc.double({ min: 0, max: 0.9, noNaN: true }) })
  .map(({ days, from }) => {
    const all = { from: 0, to: days * DAY };
    return {
      all,
      span: { from: from * all.to, to: Math.min(all.to, from * all.to + Math.max(2 * DAY, all.to / 10)) },
    };
  });

it("never shows what lies outside, nor less than two days", () => {
  fc.assert(
    fc.property(
      spans,
      fc.double({ min: 0.01, max: 50, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      ({ all, span }, factor, share) => {
        for (const found of [zoomed(all, span, factor, (span.from + span.to) / 2), moved(all, span, share)]) {
          expect(found.from).toBeGreaterThanOrEqual(all.from);
          expect(found.to).toBeLessThanOrEqual(all.to + 1e-3);
          expect(found.to - found.from).toBeGreaterThanOrEqual(2 * DAY - 1e-3);
        }
      },
    ),
    { seed: 20261129 },
  );
});

it("keeps the moment under the fingers where it is", () => {
  const all = { from: 0, to: 100 * DAY };
  const found = zoomed(all, { from: 40 * DAY, to: 60 * DAY }, 0.5, 45 * DAY);
  expect(found).toEqual({ from: 42.5 * DAY, to: 52.5 * DAY });
});
