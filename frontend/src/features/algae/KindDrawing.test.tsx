import { expect, it } from "vitest";
import type { Identified } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { KindDrawing } from "./KindDrawing";

it("draws every kind that the key knows in lines of its own", () => {
  const kinds = recordedAt<Identified>("/identify").candidates.map(({ kind }) => kind);
  const drawn = kinds.map((kind) => {
    const { container, unmount } = render(<KindDrawing kind={kind} />);
    const lines = container.querySelector("svg")?.innerHTML ?? "";
    unmount();
    return lines;
  });
  expect(new Set(drawn).size).toBe(kinds.length);
});
