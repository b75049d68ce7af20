import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { OwnerReport } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ReportPage } from "./ReportPage";

const told = recordedAt<OwnerReport>(`/pools/${SALT.id}/report`);

it("tells the owner a day, and is copied as a message", async () => {
  const page = render(<ReportPage />, { at: `/pools/${SALT.id}/report`, route: "/pools/:poolId/report" });
  expect(await screen.findByLabelText("Report for the owner")).toBeTruthy();
  expect(screen.getByText(told.swim)).toBeTruthy();
  const writeText = vi.spyOn(navigator.clipboard, "writeText").mockResolvedValue();
  await page.user.click(screen.getByText("Copy as a message"));
  expect(writeText).toHaveBeenCalledWith(told.text);
  expect(await screen.findByText("Copied: paste it into a message.")).toBeTruthy();
});
