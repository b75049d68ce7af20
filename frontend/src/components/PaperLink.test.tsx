import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { unitsStore } from "../lib/units";
import { render } from "../testing/render";
import { PaperLink } from "./PaperLink";

it("leads to the paper that is meant, in the reader's units", () => {
  unitsStore.set("metric");
  render(
    <PaperLink poolId="p" kind="procedure" of={{ key: "backwash" }}>
      As PDF
    </PaperLink>,
  );
  const address = "/api/v1/pools/p/papers/procedure.pdf?key=backwash&metric=true";
  expect(screen.getByText("As PDF").getAttribute("href")).toBe(address);
  unitsStore.set("us");
});
