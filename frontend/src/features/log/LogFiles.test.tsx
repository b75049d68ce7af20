import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { LogFiles } from "./LogFiles";

it("hands out this pool's tables in the reader's units, and its journal", async () => {
  render(<LogFiles poolId="p" units="metric" />);
  const tests = await screen.findByText("tests");
  expect(tests.getAttribute("href")).toBe("/api/v1/exports/tests.xlsx?pool_id=p&metric=true");
  expect(screen.getByText("the whole journal").getAttribute("href")).toBe("/api/v1/pools/p/journal.jsonl");
});
