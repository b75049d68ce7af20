import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { MaintenanceNav } from "./MaintenanceNav";

it("leads to the three parts of a pool's care", () => {
  render(<MaintenanceNav poolId="p" />, { at: "/pools/p/care/equipment" });
  expect(screen.getByText("Equipment").getAttribute("aria-current")).toBe("page");
  expect(screen.getByText("List").getAttribute("href")).toBe("/pools/p/care");
  expect(screen.getByText("Calendar").getAttribute("href")).toBe("/pools/p/care/calendar");
});
