import { expect, it } from "vitest";
import { STEPS, scale } from "./scale";

const SOURCES = import.meta.glob<string>("../**/*.tsx", { query: "?raw", import: "default", eager: true });
const SPACED =
  /\b(?:[mp][xytblr]?|gap|rowGap|columnGap|top|left|right|bottom|inset|w|h|minW|minH|maxW|maxH|boxSize)(?:=|: )(?:"-?([\d.]+)"|\{(\{[^}]*\}|[^}]*)\})/g;

it("counts in steps of four pixels", () => {
  expect(scale["3"]).toEqual({ value: "0.75rem" });
  expect(scale["0.5"]).toEqual({ value: "0.125rem" });
});

it("has every step that a screen names: one that is missing would be no space at all", () => {
  const named = new Set<string>();
  for (const text of Object.values(SOURCES))
    for (const [, plain, choice = ""] of text.matchAll(SPACED))
      for (const step of plain === undefined
        ? [...choice.matchAll(/"-?([\d.]+)"/g)].map((found) => found[1])
        : [plain])
        if (step !== undefined && step !== "0") named.add(step);
  expect(named.size).toBeGreaterThan(8);
  expect([...named].filter((step) => !STEPS.includes(Number(step)))).toEqual([]);
});
